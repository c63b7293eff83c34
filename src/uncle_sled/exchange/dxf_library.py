"""The library that writes DXF, loaded away from the folder one stands in.

It reads a settings file ``ezdxf.ini`` of the present folder as it is loaded; whoever opens a build in the folder of somebody
else would take that one's settings with it.
"""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import chdir, contextmanager
from pathlib import Path


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
    from ezdxf import document, units
    from ezdxf.enums import TextEntityAlignment
    from ezdxf.layouts.layout import Modelspace

__all__ = ["Modelspace", "TextEntityAlignment", "document", "units"]
