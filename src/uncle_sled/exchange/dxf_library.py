"""The library that writes DXF, loaded away from the folder one stands in.

It reads a settings file ``ezdxf.ini`` of the present folder as it is loaded; whoever opens a build in the folder of somebody
else would take that one's settings with it.
"""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import chdir, contextmanager
from pathlib import Path

from uncle_sled.core.errors import FileError


@contextmanager
def _elsewhere() -> Iterator[None]:
    """Standing in the program's own folder for a moment; from a folder that is gone nothing can be read anyhow."""
    try:
        Path.cwd()
    except OSError:
        yield
        return
    with chdir(Path(__file__).parent):
        yield


with _elsewhere():
    from ezdxf import document, path, units
    from ezdxf.entities.dxfentity import DXFEntity
    from ezdxf.enums import TextEntityAlignment
    from ezdxf.filemanagement import readfile
    from ezdxf.layouts.layout import Modelspace
    from ezdxf.lldxf.const import DXFError

__all__ = ["Modelspace", "TextEntityAlignment", "document", "path_points", "read_dxf", "units"]


def read_dxf(at: Path) -> tuple[list[DXFEntity], int]:
    """What is drawn in a file, block by block taken apart, and its $INSUNITS. Raises: FileError: it is no DXF that can be read."""
    try:
        drawing = readfile(at)
    except (DXFError, OSError, UnicodeError, ValueError, KeyError, IndexError) as fault:
        raise FileError(f"{at.name} is no DXF that can be read: {str(fault)[:80]}") from fault
    found: list[DXFEntity] = []
    for entity in drawing.modelspace():
        found += list(entity.virtual_entities()) if entity.dxftype() == "INSERT" else [entity]  # type: ignore[attr-defined]
    return found, int(drawing.header.get("$INSUNITS", 0))


def path_points(entity: DXFEntity, true: float) -> list[tuple[float, float]]:
    """The line of one entity as points [units of the drawing]; none of what is no line. Args: true: how far a chord may stand off."""
    try:
        line = path.make_path(entity)
        return [(float(point.x), float(point.y)) for point in line.flattening(true)]
    except (TypeError, DXFError, ValueError, ArithmeticError):
        return []
