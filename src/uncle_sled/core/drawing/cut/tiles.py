"""A drawing at full size over many sheets of paper: which way round takes fewer, every tile clipped to its place, a map.

Tiles overlap so that they can be taped; a cross at each corner of the overlap lies on that of the neighbour, a bar of 100 mm
tells whether the printer scaled. Source: shop notes; check 3,000 x 1,500 mm on A4: 102 upright, 108 lying: upright.
"""

from __future__ import annotations

import math

import msgspec
from shapely import box
from shapely.geometry import LineString, Polygon
from shapely.geometry.base import BaseGeometry

from uncle_sled.core.drawing.page import POINTS_PER_M, Page
from uncle_sled.core.drawing.primitives import Point, Poly, Primitive, Text, line, rect
from uncle_sled.core.drawing.text_width import elided, text_width
from uncle_sled.core.errors import GeometryError
from uncle_sled.core.units import INCH_M

MARGIN_M, OVERLAP_M, BAR_M, CROSS_M = 0.010, 0.010, 0.100, 0.006
LABEL = 10.0
STRIP = 60.0  # points over the margin that hold the bar and the name of a tile
MOST_TILES = 600
OFF_M = 0.0002  # in 100 mm: more, and the print is not signed off


class Paper(msgspec.Struct, frozen=True):
    """A sheet upright [m]. roll: as long as is wanted, ``wide`` is its width."""

    name: str
    wide: float
    high: float
    roll: bool = False


PAPERS = {
    "A4": Paper("A4", 0.210, 0.297),
    "Letter": Paper("Letter", 8.5 * INCH_M, 11 * INCH_M),
    "A3": Paper("A3", 0.297, 0.420),
    "roll 610 mm": Paper("roll 610 mm", 0.610, 0.0, roll=True),
    "roll 914 mm": Paper("roll 914 mm", 0.914, 0.0, roll=True),
}


class Tiling(msgspec.Struct, frozen=True):
    """How a drawing is parted: tiles across and up, paper as it lies [m], step from tile to tile [m]."""

    across: int
    up: int
    wide: float
    high: float
    step_x: float
    step_y: float

    @property
    def many(self) -> int:
        return self.across * self.up


def tiling(wide_m: float, high_m: float, paper: Paper, margin_m: float = MARGIN_M, overlap_m: float = OVERLAP_M) -> Tiling:
    """The way round that takes fewer sheets.

    Raises: GeometryError: the paper is smaller than its marks, the drawing has no size, or it takes too many sheets.
    """
    if min(wide_m, high_m) <= 0:
        raise GeometryError("A template without a size cannot be printed.")
    ways = []
    if paper.roll:
        room = paper.wide - 2 * margin_m
        for lying in (True, False):
            across, along = (wide_m, high_m) if lying else (high_m, wide_m)
            strips = _count(along, room, room - overlap_m)
            size = (across + 2 * margin_m, paper.wide) if lying else (paper.wide, across + 2 * margin_m)
            step = (across, room - overlap_m) if lying else (room - overlap_m, across)
            ways.append(Tiling(1 if lying else strips, strips if lying else 1, *size, *step))
        return min(ways, key=lambda tiling: tiling.many)
    for w, h in ((paper.wide, paper.high), (paper.high, paper.wide)):
        step_x, step_y = w - 2 * margin_m - overlap_m, h - 2 * margin_m - overlap_m
        if min(step_x, step_y) < 2 * CROSS_M or max(step_x, step_y) < BAR_M * 0.5:
            raise GeometryError(
                f"{paper.name} of {paper.wide * 1000:.0f} × {paper.high * 1000:.0f} mm is smaller than its margins and crosses; A4 or larger would be right."
            )
        ways.append(Tiling(_tiles(wide_m, step_x, overlap_m), _tiles(high_m, step_y, overlap_m), w, h, step_x, step_y))
    best = min(ways, key=lambda tiling: tiling.many)
    if best.many > MOST_TILES:
        raise GeometryError(f"It takes {best.many} sheets of {paper.name}; a roll, or a DXF for a router, would be right.")
    return best


def _tiles(size: float, step: float, overlap: float) -> int:
    return max(1, math.ceil((size - overlap) / step - 1e-9))


def _count(size: float, room: float, step: float) -> int:
    return 1 if size <= room else 1 + math.ceil((size - room) / step - 1e-9)


class Drawn(msgspec.Struct, frozen=True):
    """Lines of a template [m], from its low left corner: points, ink, dash, width; and words at places."""

    wide: float
    high: float
    lines: tuple[tuple[tuple[Point, ...], str, tuple[float, ...]], ...]
    words: tuple[tuple[Point, str], ...]


def signed_off(measured_m: float | None) -> str:
    """Why a print is not signed off; nothing where it is. Args: measured_m: of the 100 mm bar on the paper."""
    if measured_m is None:
        return "nobody measured the 100 mm bar on the print yet"
    if measured_m <= 0:
        return "a bar of nothing was measured"
    off = measured_m - BAR_M
    if abs(off) <= OFF_M + 1e-9:
        return ""
    per = BAR_M / measured_m
    return f"the bar is {measured_m * 1000:.1f} mm instead of 100: an edge of 2,100 mm would be {abs(off) / BAR_M * 2100:.0f} mm {'long' if off > 0 else 'short'}; print at {per * 100:.1f} %, or at 100 % without fitting to the page"


def tile_pages(made: Drawn, title: str, note: str, paper: Paper) -> tuple[Page, ...]:
    """A map, then every tile that holds anything, named by column and row. Raises: GeometryError: as ``tiling``."""
    plan = tiling(made.wide, made.high, paper)
    shapes = [(LineString(points), ink, dash) for points, ink, dash in made.lines if len(points) > 1]
    pages = [_map(made, plan, title, note, paper)]
    for row in range(plan.up):
        for column in range(plan.across):
            page = _tile(made, plan, shapes, column, row, title, paper)
            if page is not None:
                pages.append(page)
    return tuple(pages)


def name_of(column: int, row: int) -> str:
    """Column letter and row, from the low left."""
    letters = ""
    k = column
    while True:
        letters = chr(65 + k % 26) + letters
        k = k // 26 - 1
        if k < 0:
            return f"{letters}{row + 1}"


def _tile(
    made: Drawn, plan: Tiling, shapes: list[tuple[LineString, str, tuple[float, ...]]], column: int, row: int, title: str, _paper: Paper
) -> Page | None:
    left, low = column * plan.step_x, row * plan.step_y
    room_x, room_y = plan.wide - 2 * MARGIN_M, plan.high - 2 * MARGIN_M
    window = box(left, low, left + room_x, low + room_y)
    drawn: list[Primitive] = []

    def on(p: Point) -> Point:
        return (p[0] - left + MARGIN_M) * POINTS_PER_M, (p[1] - low + MARGIN_M) * POINTS_PER_M

    for whole, ink, dash in shapes:
        for part in _parts(whole.intersection(window)):
            drawn.append(Poly(tuple(on((x, y)) for x, y in part.coords), ink, "", 0.8, closed=False, dash=dash))
    for (x, y), text in made.words:
        if left <= x <= left + room_x and low <= y <= low + room_y:
            drawn.append(_label(on((x, y)), text, plan.wide * POINTS_PER_M, [shape for shape in drawn if isinstance(shape, Text)]))
    if not drawn and plan.many > 1:
        return None
    marks: list[Primitive] = []
    for x in (0.0, room_x):
        for y in (0.0, room_y):
            cx, cy = (x + MARGIN_M) * POINTS_PER_M, (y + MARGIN_M) * POINTS_PER_M
            size = CROSS_M * POINTS_PER_M
            marks += [line((cx - size, cy), (cx + size, cy), "pencil", 0.4), line((cx, cy - size), (cx, cy + size), "pencil", 0.4)]
    foot = (MARGIN_M + 0.012) * POINTS_PER_M
    bar = BAR_M * POINTS_PER_M
    x0 = (MARGIN_M + 0.012) * POINTS_PER_M
    marks += [
        line((x0, foot), (x0 + bar, foot), "ink", 1.2),
        line((x0, foot - 4), (x0, foot + 4)),
        line((x0 + bar, foot - 4), (x0 + bar, foot + 4)),
    ]
    marks.append(Text((x0 + bar + 6, foot), "100 mm", 8, "pencil", anchor="left", ground="paper"))
    marks.append(
        Text(
            (x0, foot + 14),
            elided(f"{name_of(column, row)}   {title}", 11, plan.wide * POINTS_PER_M - 2 * x0),
            size=11,
            ink="ink",
            face="strong",
            anchor="left",
            ground="paper",
        )
    )
    return Page(plan.wide * POINTS_PER_M, plan.high * POINTS_PER_M, (*drawn, *marks), f"{title}, {name_of(column, row)}")


def _label(at: Point, text: str, wide: float, taken: list[Text]) -> Text:
    """Words at their place, or over it: a label is no measure, and does not stand under the tile's name, in another or off the paper."""
    half = text_width(text, LABEL) / 2 + 2
    x, y = min(max(at[0], half), wide - half), max(at[1], MARGIN_M * POINTS_PER_M + STRIP)
    while any(abs(text.at[0] - x) < half + text.width / 2 + 2 and abs(text.at[1] - y) < LABEL for text in taken):
        y += LABEL
    return Text((x, y), text, LABEL, "ink", ground="paper")


def _parts(cut: BaseGeometry) -> list[LineString]:
    return [part for part in getattr(cut, "geoms", [cut]) if isinstance(part, LineString) and part.length > 0]


def _map(made: Drawn, plan: Tiling, title: str, note: str, paper: Paper) -> Page:
    """Where every tile goes, on one upright page of A4 or Letter."""
    sheet = paper if not paper.roll else PAPERS["A4"]
    wide, high = sheet.wide * POINTS_PER_M, sheet.high * POINTS_PER_M
    scale = min((wide - 90) / made.wide, (high - 230) / made.high)
    x0, y0 = (wide - made.wide * scale) / 2, 100.0
    shapes: list[Primitive] = [
        Text((45, high - 50), elided(title, 16, wide - 90), 16, "ink", "head", "left"),
        Text((45, high - 70), elided(note, 10, wide - 90), 10, "pencil", anchor="left"),
        Text(
            (45, high - 86),
            f"{plan.many} sheets of {paper.name}, {plan.across} across and {plan.up} up; print at 100 %, no fitting to the page.",
            10,
            "ink",
            anchor="left",
        ),
        Text(
            (45, 62),
            "Trim none: lay each cross on its neighbour's and tape. Measure the 100 mm bar of one sheet first.",
            10,
            "ink",
            anchor="left",
        ),
        Text(
            (45, 46),
            "More than {0.2 mm} off in the bar: do not cut. Mask against dust; a helper for long pieces.",
            9,
            "pencil",
            anchor="left",
        ),
    ]
    shapes += map_shapes(made, plan, scale, x0, y0)
    return Page(wide, high, tuple(shapes), f"{title}, map of the sheets")


def ring_lines(shape: Polygon, ink: str = "ink", dash: tuple[float, ...] = ()) -> list[tuple[tuple[Point, ...], str, tuple[float, ...]]]:
    """Outline and holes of a shape as lines, each edge by itself closed."""
    rings = [shape.exterior, *shape.interiors]
    return [(tuple((float(x), float(y)) for x, y in ring.coords), ink, dash) for ring in rings]


def map_shapes(made: Drawn, plan: Tiling, scale: float, x0: float, y0: float) -> list[Primitive]:
    """The tiles with their names and the template over them, to a scale [points a metre] from a low left corner."""
    shapes: list[Primitive] = []
    for row in range(plan.up):
        for column in range(plan.across):
            x, y = x0 + column * plan.step_x * scale, y0 + row * plan.step_y * scale
            w = (min((column + 1) * plan.step_x, made.wide) - column * plan.step_x) * scale
            h = (min((row + 1) * plan.step_y, made.high) - row * plan.step_y) * scale
            shapes.append(rect(x, y, w, h, stroke="rule", fill="", width=0.6))
            if w > 16 and h > 10:
                shapes.append(Text((x + w / 2, y + h / 2), name_of(column, row), 8, "pencil"))
    for points, ink, dash in made.lines:
        shapes.append(Poly(tuple((x0 + x * scale, y0 + y * scale) for x, y in points), ink, "", 1.2, closed=False, dash=dash))
    return shapes
