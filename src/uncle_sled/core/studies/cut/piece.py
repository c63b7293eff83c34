"""One thing to cut: what it is of, how large, its holes, notches and ends, and where it lies on its face."""

from __future__ import annotations

from typing import Any

import msgspec
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from uncle_sled.core.framing.worked import Notch
from uncle_sled.core.geometry.ring import corners_of
from uncle_sled.core.materials import Material
from uncle_sled.core.studies.cut.wanted import Grain, ring_area_m2

SCARF = 8.0  # how long pieces lap, of their thickness


class Piece(msgspec.Struct, frozen=True):
    """Something to cut. kind: bar, sheet (saw) or fill (knife). of: the face; ends_deg: of a bar, off square.

    outline: [m], its length along x, from a corner of its box; pair: key of the piece whose mirror image it is.
    place: where it lies on the face laid flat [m]; kg_m2: of a sheet, for lifting it; joined: of how many it is put
    together, as nothing so long is sold.
    """

    key: str
    name: str
    of: str
    kind: str
    material: str
    thickness_m: float
    length_m: float
    width_m: float
    grain: Grain
    area_m2: float
    outline: tuple[tuple[float, float], ...] = ()
    ends_deg: tuple[float, float] = (0.0, 0.0)
    pair: str | None = None
    place: tuple[tuple[float, float], ...] = ()
    kg_m2: float | None = None
    joined: str = ""
    kg_m: float | None = None  # of a bar of metal
    cladding: bool = False  # a board that a face is clad with
    holes: tuple[tuple[tuple[float, float], ...], ...] = ()  # sawn out of the middle of it, as its outline [m]
    notches: tuple[Notch, ...] = ()  # of a bar
    corners: tuple[tuple[float, float], ...] = ()  # of a bar whose end is no straight cut: along and across it
    rip_m: float | None = None  # of a bar: what is left of its width
    lining: bool = False  # that a face of a bought shell is lined with again
    inner: bool = False  # of a wall or door inside the body
    own_number: str = ""  # that it has elsewhere already, as a wire has on its diagram
    made_of: str = ""  # id of its material; "" of an edge trim, whose material is for the builder
    sold_m: tuple[float, float] | None = None  # long and wide of what it is cut from, where that is no usual sheet
    money_m2: float | None = None  # of a panel of several layers, which no one material's price is
    hours: float | None = None  # of work on it, where its area does not tell

    @property
    def whole(self) -> str:
        """Id of the stick that it is a part or a strip of; else its own key."""
        return self.key.partition("/part ")[0].partition("/strip ")[0]

    @property
    def stuff(self) -> str:
        """What it is cut from, by its material's id and the section that is sold; "" where no material is said."""
        if not self.made_of:
            return ""
        across = "" if self.kind == "sheet" else " clad" if self.cladding else f" x {self.width_m * 1e3:.1f}"
        return f"{self.made_of} {self.thickness_m * 1e3:.1f}{across}"


class Spread(msgspec.Struct, frozen=True):
    """What comes on rolls, in tins or as boards: by area."""

    of: str
    material: str
    form: str
    area_m2: float
    made_of: str = ""  # id of its material
    thickness_m: float = 0.0


def ring_of(shape: BaseGeometry) -> tuple[tuple[float, float], ...]:
    return corners_of(shape.exterior if isinstance(shape, Polygon) else shape.convex_hull.exterior)


def bar_piece(key: str, name: str, of: str, stuff: tuple[str, str], section_m: tuple[float, float], length_m: float, **more: Any) -> Piece:
    """A bar of wood. Args: stuff: what it is called and its material's id; section_m: its two sides, either way round."""
    wide, thin = max(section_m), min(section_m)
    called, made_of = stuff
    return Piece(
        key,
        name,
        of=of,
        kind="bar",
        material=f"{called} {wide * 1e3:.4g} x {thin * 1e3:.4g} mm",
        thickness_m=thin,
        length_m=length_m,
        width_m=wide,
        grain="any",
        made_of=made_of,
        **{"area_m2": length_m * wide, **more},
    )


def flat_piece(
    key: str,
    name: str,
    of: str,
    kind: str,
    stuff: tuple[Material, float],
    shape: BaseGeometry,
    grain: Grain,
    place: tuple[tuple[float, float], ...] | None = None,
) -> Piece:
    """A flat piece, its length along x from the corner of its box. Args: stuff: what it is of, and how thick [m]."""
    material, thickness_m = stuff
    whole = shape if isinstance(shape, Polygon) else shape.convex_hull
    rings = [corners_of(ring) for ring in (whole.exterior, *whole.interiors)]
    left, low, right, high = whole.bounds
    if high - low > right - left:
        rings = [tuple([(y, -x) for x, y in ring]) for ring in rings]
        left, low = low, -right
    corners, *holes = [tuple([(round((x - left) * 1e6) / 1e6, round((y - low) * 1e6) / 1e6) for x, y in ring]) for ring in rings]
    length, width = max(x for x, _ in corners), max(y for _, y in corners)
    plain = abs(ring_area_m2(corners) - length * width) < 1e-7
    thick = thickness_m > 0 and material.kg_m2 is None  # what comes in one thickness has it in its name
    label = f"{material.name} {thickness_m * 1e3:.4g} mm" if thick else material.name
    outline = () if plain else corners
    return Piece(
        key,
        name,
        of=of,
        kind=kind,
        material=label,
        thickness_m=thickness_m,
        length_m=length,
        width_m=width,
        grain=grain,
        area_m2=float(shape.area),
        outline=outline,
        holes=tuple(holes),
        place=ring_of(shape) if place is None else place,
        kg_m2=material.weight_kg_m2(thickness_m) or None,
        made_of=material.id,
    )


def polygons_of(shape: BaseGeometry) -> list[Polygon]:
    return [part for part in getattr(shape, "geoms", [shape]) if isinstance(part, Polygon) and not part.is_empty]
