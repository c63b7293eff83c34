"""A drawing at full size over many sheets of paper: only the sheets that are wanted, every one clipped to its place, a map.

Neighbours overlap; on both edges of every overlap both carry the same crosses, each with a name of its own, so that a sheet is
laid cross on cross and taped. Every sheet says where its low left cross is, so that one that stands alone is laid by measure.
Straight edges are drawn along a straight-edge: only curves and corners off square are printed. A bar of 100 mm tells whether
the printer scaled. Source: shop notes; check 3,000 x 1,500 mm on A4: 102 upright, 108 lying: upright.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator

import msgspec
from shapely import STRtree, box
from shapely.geometry import LineString, Polygon
from shapely.geometry import Point as Spot
from shapely.geometry.base import BaseGeometry

from uncle_sled.core.drawing.page import BAR_M, POINTS_PER_M, Page, bar_of_100_mm
from uncle_sled.core.drawing.paper import PAPERS as SHEETS
from uncle_sled.core.drawing.paper import Paper
from uncle_sled.core.drawing.primitives import Point, Poly, Primitive, Text, line, rect
from uncle_sled.core.drawing.text_width import elided, text_width
from uncle_sled.core.engine import keep
from uncle_sled.core.errors import GeometryError
from uncle_sled.core.geometry.turns import turns_deg
from uncle_sled.core.words import Words

MARGIN_M, OVERLAP_M, CROSS_M = 0.010, 0.010, 0.006
LABEL, FOOT = 10.0, 30.0
MOST_TILES = 600
OFF_M = 0.0002  # in 100 mm: more, and the print is not signed off
CURVE_DEG, SQUARE_DEG = 25.0, 0.05  # a corner that turns by less is a chord of a curve; off level by less it is square
EVERY_M = 0.35  # a cross at the least, along an overlap


ROLLS = {f"roll {wide:.0f} mm": Paper(f"roll {wide:.0f} mm", wide / 1e3 * POINTS_PER_M, 0.0, roll=True) for wide in (610.0, 914.0)}
PAPERS = {**SHEETS, **ROLLS}


class Drawn(msgspec.Struct, frozen=True):
    """Lines of a template [m], from its low left corner: points, ink, dash; and words at places.

    curves_only: of its outline only curves and corners off square want paper.
    """

    wide: float
    high: float
    lines: tuple[tuple[tuple[Point, ...], str, tuple[float, ...]], ...]
    words: tuple[tuple[Point, str], ...]
    curves_only: bool = False


class Tiling(msgspec.Struct, frozen=True):
    """How a drawing is parted: tiles across and up, paper as it lies [m], step from tile to tile [m]; cells: those printed."""

    across: int
    up: int
    wide: float
    high: float
    step_x: float
    step_y: float
    cells: tuple[tuple[int, int], ...] = ()  # (column, row)

    @property
    def many(self) -> int:
        """How many sheets are printed."""
        return len(self.cells)

    def window(self, cell: tuple[int, int]) -> tuple[float, float, float, float]:
        """Left, low, right, high of what a tile shows [m]."""
        left, low = cell[0] * self.step_x, cell[1] * self.step_y
        return left, low, left + self.wide - 2 * MARGIN_M, low + self.high - 2 * MARGIN_M


def wanted_of(made: Drawn) -> list[BaseGeometry]:
    """What of a drawing wants paper: all its lines, or its curves and the corners that are not square."""
    if not made.curves_only:
        return [LineString(points) for points, *_ in made.lines if len(points) > 1] or [box(0, 0, made.wide, made.high)]
    found: list[BaseGeometry] = []
    for points, ink, _ in made.lines:
        if ink == "ink" and len(points) > 3:
            found += _off_square(list(points[:-1]))
    return found


def _off_square(ring: list[Point]) -> Iterator[BaseGeometry]:
    """Chords of curves, and corners where an edge lies off level and upright. Args: ring: not closed."""
    many = len(ring)
    long = [math.dist(ring[k], ring[(k + 1) % many]) for k in range(many)]
    edges = [(ring[k], ring[(k + 1) % many]) for k in range(many)]
    turn = turns_deg(ring)
    for k, (p, q) in enumerate(edges):
        at_ends = turn[k], turn[(k + 1) % many]
        beside = long[k - 1], long[(k + 1) % many]
        # a chord is about as long as the one after it: an edge that runs into a curve is no part of it
        if any(SQUARE_DEG < deg < CURVE_DEG and long[k] < 3 * other for deg, other in zip(at_ends, beside, strict=True)):
            yield LineString([p, q])
        elif not _is_square(p, q):
            yield from (Spot(end) for end, deg in zip((p, q), at_ends, strict=True) if deg >= CURVE_DEG)


def _is_square(p: Point, q: Point) -> bool:
    off = math.degrees(math.atan2(q[1] - p[1], q[0] - p[0])) % 90
    return min(off, 90 - off) < SQUARE_DEG


@keep("made", "paper", most=800)
def tiling(made: Drawn, paper: Paper) -> Tiling:
    """The way round that takes fewer sheets.

    Raises: GeometryError: the paper is smaller than its marks, the drawing has no size, or it takes too many sheets.
    """
    if min(made.wide, made.high) <= 0:
        raise GeometryError("A template without a size cannot be printed.")
    tree = STRtree(wanted_of(made))
    ways = [_with_cells(way, tree) for way in (_strips(made, paper) if paper.roll else _sheets(made, paper))]
    best = min(ways, key=lambda way: (way.many, way.across * way.up))
    if best.many > MOST_TILES:
        raise GeometryError(f"It takes {best.many} sheets of {paper.name}; a roll, or a DXF for a router, would be right.")
    return best


def _strips(made: Drawn, paper: Paper) -> Iterator[Tiling]:
    room = paper.wide_m - 2 * MARGIN_M
    step = room - OVERLAP_M
    if step < 2 * CROSS_M:
        raise GeometryError(f"{paper.name} is narrower than its margins and crosses; 610 mm would be right.")
    yield Tiling(1, _tiles(made.high, step), made.wide + 2 * MARGIN_M, paper.wide_m, made.wide, step)
    yield Tiling(_tiles(made.wide, step), 1, paper.wide_m, made.high + 2 * MARGIN_M, step, made.high)


def _sheets(made: Drawn, paper: Paper) -> Iterator[Tiling]:
    for w, h in ((paper.wide_m, paper.high_m), (paper.high_m, paper.wide_m)):
        step_x, step_y = w - 2 * MARGIN_M - OVERLAP_M, h - 2 * MARGIN_M - OVERLAP_M
        if min(step_x, step_y) < 2 * CROSS_M or max(step_x, step_y) < BAR_M * 0.5:
            raise GeometryError(
                f"{paper.name} of {{{paper.wide_m * 1000:.0f} mm}} × {{{paper.high_m * 1000:.0f} mm}} is smaller than its margins and crosses; A4 or larger would be right."
            )
        yield Tiling(_tiles(made.wide, step_x), _tiles(made.high, step_y), w, h, step_x, step_y)


def _tiles(size: float, step: float) -> int:
    return max(1, math.ceil((size - OVERLAP_M) / step - 1e-9))


def _with_cells(way: Tiling, tree: STRtree) -> Tiling:
    """Those tiles that anything wanted lies on; of what lies in an overlap one is enough."""
    if way.across * way.up == 1:
        return msgspec.structs.replace(way, cells=((0, 0),))
    cells = list(itertools.product(range(way.across), range(way.up)))
    if len(cells) > 40 * MOST_TILES:
        return msgspec.structs.replace(way, cells=tuple(cells))
    inner = [box(*_reach(way, cell)) for cell in cells]
    hit = sorted({int(k) for k in tree.query(inner, predicate="intersects")[0]}) if len(tree.geometries) else []
    return msgspec.structs.replace(way, cells=tuple(sorted((cells[k] for k in hit), key=lambda cell: (cell[1], cell[0]))))


def _reach(way: Tiling, cell: tuple[int, int]) -> tuple[float, float, float, float]:
    """What a tile alone shows: its window less the overlap that its neighbour after it has as well."""
    left, low, right, high = way.window(cell)
    return left, low, right - (OVERLAP_M if cell[0] < way.across - 1 else 0.0), high - (OVERLAP_M if cell[1] < way.up - 1 else 0.0)


class Cross(msgspec.Struct, frozen=True):
    """A mark at a place of the drawing [m] that every tile there carries, with its name."""

    name: str
    at: Point


def crosses(plan: Tiling) -> tuple[Cross, ...]:
    """Of every overlap of the whole plan: on both of its edges, twice or more along it. One sheet alone has those of its corners."""
    found: list[Cross] = []
    if plan.across * plan.up == 1:
        left, low, right, high = plan.window((0, 0))
        return tuple(Cross(str(k + 1), at) for k, at in enumerate(((left, low), (right, low), (left, high), (right, high))))
    for column, row in itertools.product(range(plan.across), range(plan.up)):
        left, low, right, high = plan.window((column, row))
        if column:
            found += [Cross(name, (left + by, at)) for name, by, at in _along(name_of(column - 1, row) + name_of(column, row), (low, high))]
        if row:
            found += [
                Cross(name, (at, low + by)) for name, by, at in _along(name_of(column, row - 1) + name_of(column, row), (left, right))
            ]
    return tuple(found)


def _along(name: str, run: tuple[float, float]) -> list[tuple[str, float, float]]:
    """Name, which edge [m] and how far along it [m] of crosses in pairs along an overlap, none in the overlaps that cross it."""
    low, high = run[0] + 2.5 * OVERLAP_M, run[1] - 2.5 * OVERLAP_M
    many = max(2, math.ceil((high - low) / EVERY_M) + 1)
    spots = [(by, low + (high - low) * k / (many - 1)) for k in range(many) for by in (0.0, OVERLAP_M)]
    return [(f"{name}.{k + 1}", by, at) for k, (by, at) in enumerate(spots)]


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


def tile_pages(made: Drawn, title: str, note: str, paper: Paper, words: Words) -> tuple[Page, ...]:
    """A map, then every tile that is wanted, named by column and row.

    Raises: GeometryError: as ``tiling``.
    """
    plan = tiling(made, paper)
    shapes = [(LineString(points), ink, dash) for points, ink, dash in made.lines if len(points) > 1]
    marks = crosses(plan)
    tiles = tuple(_tile(made, plan, shapes, marks, cell, title, words) for cell in plan.cells)
    # one sheet of a whole drawing says all by itself
    return tiles if not has_map(made, plan) else (_map(made, plan, title, note, paper, words), *tiles)


def has_map(made: Drawn, plan: Tiling) -> bool:
    """Whether a page before the sheets says where each of them lies."""
    return plan.many != 1 or made.curves_only


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
    made: Drawn,
    plan: Tiling,
    shapes: list[tuple[LineString, str, tuple[float, ...]]],
    marks: tuple[Cross, ...],
    cell: tuple[int, int],
    title: str,
    words: Words,
) -> Page:
    left, low, right, high = plan.window(cell)
    window = box(left, low, right, high)
    drawn: list[Primitive] = []
    taken: list[BaseGeometry] = []  # what no words may stand on, in points
    behind: list[BaseGeometry] = []  # dashed

    def on(p: Point) -> Point:
        return (p[0] - left + MARGIN_M) * POINTS_PER_M, (p[1] - low + MARGIN_M) * POINTS_PER_M

    for whole, ink, dash in shapes:
        for part in _parts(whole.intersection(window)):
            points = tuple(on((x, y)) for x, y in part.coords)
            drawn.append(Poly(points, ink, "", 0.8, closed=False, dash=dash))
            (behind if dash else taken).append(LineString(points))
    for mark in marks:
        if left - 1e-6 <= mark.at[0] <= right + 1e-6 and low - 1e-6 <= mark.at[1] <= high + 1e-6:
            (cx, cy), size = on(mark.at), CROSS_M * POINTS_PER_M
            drawn += [line((cx - size, cy), (cx + size, cy), "pencil", 0.4), line((cx, cy - size), (cx, cy + size), "pencil", 0.4)]
            taken.append(box(cx - size, cy - size, cx + size, cy + size))
            drawn.append(Text((cx + 2, cy + 4), mark.name, 5, "pencil", anchor="left"))
            taken.append(box(cx + 2, cy + 1, cx + 3 + text_width(mark.name, 5), cy + 8))
    wide, tall = plan.wide * POINTS_PER_M, plan.high * POINTS_PER_M
    drawn += _foot(
        f"{name_of(*cell)}   {title}",
        f"low left corner of this sheet: {words.cut(left)} along, {words.cut(low)} up",
        (wide, tall),
        taken,
        behind,
    )
    for (x, y), text in made.words:
        if left <= x <= right and low <= y <= high:
            label = _label(on((x, y)), text, (wide, tall), taken)
            drawn += [label] if label is not None else []
    return Page(wide, tall, tuple(drawn), f"{title}, {name_of(*cell)}")


def _foot(title: str, where: str, paper: Point, taken: list[BaseGeometry], behind: list[BaseGeometry]) -> list[Primitive]:
    """The bar, the sheet's name and where it lies, in the corner where nothing is drawn."""
    bar, edge = BAR_M * POINTS_PER_M, (MARGIN_M + 0.004) * POINTS_PER_M
    least = bar + 46
    whole = min(max(least, text_width(title, 11, "strong"), text_width(where, 8)) + 4, paper[0] - 2 * edge)
    rows = [edge + k * max((paper[1] - 2 * edge - FOOT - 12) / 16, 1.0) for k in range(17)]
    places = [
        (wide, edge + (paper[0] - 2 * edge - wide) * share, y)
        for wide in (whole, max(least, text_width(where, 8) + 4), least)
        for y in rows
        for share in (0.0, 1.0, 0.5, 0.25, 0.75)
    ]
    # dashed lines, which only say what stands behind, give way before the outline and the crosses do
    free: list[tuple[float, float, float]] = []
    for tree in (STRtree([*taken, *behind]), STRtree(taken)):
        free = [at for at in places if not len(tree.query(box(at[1], at[2], at[1] + at[0], at[2] + FOOT + 12), "intersects"))]
        if free:
            break
    wide, x, y = free[0] if free else places[-1]
    name = elided(title, 11, wide)
    taken.append(box(x, y, x + wide, y + FOOT + 12))
    return [
        *bar_of_100_mm(x, y + 6, "100 mm"),
        Text((x, y + 20), elided(where, 8, wide), 8, "pencil", anchor="left"),
        Text((x, y + 34), name, 11, "ink", "strong", "left"),
    ]


def _label(at: Point, text: str, paper: Point, taken: list[BaseGeometry]) -> Text | None:
    """Words at their place or by it, where they wipe out nothing and stand on no line, no mark and no other words."""
    half, tree = text_width(text, LABEL) / 2 + 2, STRtree(taken)
    tried = [
        (at[0] + dx, at[1] + dy) for step in range(1, 9) for dx, dy in ((0, -14 * step), (0, 14 * step), (-30 * step, 0), (30 * step, 0))
    ]
    inside = [(x, y) for x, y in tried if half <= x <= paper[0] - half and LABEL <= y <= paper[1] - LABEL]
    free = (at for at in inside if not len(tree.query(box(at[0] - half, at[1] - 6, at[0] + half, at[1] + 6), "intersects")))
    found = next(free, None)
    if found is None:
        return None
    x, y = found
    taken.append(box(x - half, y - 6, x + half, y + 6))
    return Text((x, y), text, LABEL, "ink")


def _parts(cut: BaseGeometry) -> list[LineString]:
    return [part for part in getattr(cut, "geoms", [cut]) if isinstance(part, LineString) and part.length > 0]


def _map(made: Drawn, plan: Tiling, title: str, note: str, paper: Paper, words: Words) -> Page:
    """Where every tile goes, on one page, with the places of the corners from the low left one."""
    sheet = paper if not paper.roll else PAPERS["A4"]
    wide, high = sorted((sheet.wide, sheet.high), reverse=made.wide >= made.high)
    room = (wide - 140, high - 260)
    scale = min(room[0] / made.wide, room[1] / made.high)
    x0, y0 = (wide - made.wide * scale) / 2, 140 + (room[1] - made.high * scale) / 2
    sheets = f"{plan.many} sheet{'s' if plan.many != 1 else ''} of {paper.name}"
    size = f"{words.cut(made.wide)} × {words.cut(made.high)}"
    told = [
        (high - 70, note, 10, "pencil"),
        (high - 86, f"{size}; {sheets}; print at 100 %, no fitting to the page.", 10, "ink"),
        (98, "Trim none: lay every cross on the one of the same name and tape. Measure the 100 mm bar of one sheet first.", 10, "ink"),
        (82, "A sheet without neighbours is laid by the figures on it, from the low left corner of the whole.", 10, "ink"),
        (66, "Where no sheet is printed the edge is straight: draw it along a straight-edge." if made.curves_only else "", 10, "ink"),
        (46, "More than {0.2 mm} off in the bar: do not cut. Mask against dust; a helper for long pieces.", 9, "pencil"),
    ]
    shapes: list[Primitive] = [Text((45, high - 50), elided(title, 16, wide - 90), 16, "ink", "head", "left")]
    shapes += [Text((45, y), elided(words.told(text), size, wide - 90), size, ink, anchor="left") for y, text, size, ink in told if text]
    shapes += map_shapes(made, plan, scale, x0, y0)
    taken: list[BaseGeometry] = [LineString([(x0 + x * scale, y0 + y * scale) for x, y in points]) for points, *_ in made.lines]
    for x, y in _corners(made):
        spot = x0 + x * scale, y0 + y * scale
        label = _label(spot, f"{words.cut(x)}, {words.cut(y)}", (wide, high), taken)
        shapes += [label] if label is not None else []
    return Page(wide, high, tuple(shapes), f"{title}, map of the sheets")


MOST_CORNERS = 24


def _corners(made: Drawn) -> list[Point]:
    """The corners of the outline and its holes between straight edges: of a curve none, and none where there are very many."""
    found: list[Point] = []
    for points, ink, _ in made.lines:
        if ink == "ink" and len(points) > 3:
            ring = list(points[:-1])
            found += [at for at, deg in zip(ring, turns_deg(ring), strict=True) if deg >= CURVE_DEG]
    return found if len(found) <= MOST_CORNERS else []


def ring_lines(shape: Polygon, ink: str = "ink", dash: tuple[float, ...] = ()) -> list[tuple[tuple[Point, ...], str, tuple[float, ...]]]:
    """Outline and holes of a shape as lines, each edge by itself closed."""
    rings = [shape.exterior, *shape.interiors]
    return [(tuple((float(x), float(y)) for x, y in ring.coords), ink, dash) for ring in rings]


def map_shapes(made: Drawn, plan: Tiling, scale: float, x0: float, y0: float) -> list[Primitive]:
    """The tiles that are printed with their names and the template over them, to a scale [points a metre] from a low left corner."""
    shapes: list[Primitive] = []
    for column, row in plan.cells:
        x, y = x0 + column * plan.step_x * scale, y0 + row * plan.step_y * scale
        w = (min((column + 1) * plan.step_x, made.wide) - column * plan.step_x) * scale
        h = (min((row + 1) * plan.step_y, made.high) - row * plan.step_y) * scale
        shapes.append(rect(x, y, w, h, stroke="rule", fill="body", width=0.6))
        if w > 16 and h > 10:
            shapes.append(Text((x + w / 2, y + h / 2), name_of(column, row), 8, "pencil"))
    for points, ink, dash in made.lines:
        shapes.append(Poly(tuple((x0 + x * scale, y0 + y * scale) for x, y in points), ink, "", 1.2, closed=False, dash=dash))
    return shapes
