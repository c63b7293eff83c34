"""A face for whoever sets it out: seen from outside, every stick with its number, running measures from one datum, and all in tables.

The measures along stand under the drawing and those up at its left, as far as they have room; the tables have every one of them.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Sequence

import msgspec

from uncle_sled.core.drawing.balance.true_rows import true_words
from uncle_sled.core.drawing.cut.work_words import board_work, ends_words, work_words
from uncle_sled.core.drawing.page import FINE, POINTS_PER_M, Page, scale_for
from uncle_sled.core.drawing.paper import paper_of
from uncle_sled.core.drawing.primitives import Point, Poly, Primitive, Text, line
from uncle_sled.core.drawing.sheets import Column, Sheets
from uncle_sled.core.drawing.stops import stop_words
from uncle_sled.core.drawing.text_width import text_width
from uncle_sled.core.framing.frame_body import Cut
from uncle_sled.core.framing.member import Member
from uncle_sled.core.geometry.laid import Laid, laid
from uncle_sled.core.geometry.surfaces import Surface
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.balance.tolerances import Tolerances, tolerances_of
from uncle_sled.core.studies.cut.numbers import Named, numbers_of
from uncle_sled.core.studies.shell.built_sections import sections_of
from uncle_sled.core.words import Words, upper_first

ROWS_HIGH, UP_WIDE, BESIDE = 62.0, 92.0, 14.0  # room for measures along, up, and beside [points]
NUMBER, FIGURE = 8.0, 8.0
MIRRORED = ("right side", "front")  # so that they are seen from outside
ENDS = ("front", "rear")
FACES_UP = ("floor", "roof", "ceiling")
FIGURES_ROWS = 4
MOST_NUMBERS = 3  # on one stick: of more, as strips are, the first and the last


class View(msgspec.Struct, frozen=True):
    """How a face is seen. along, up: what its two measures are from, in words; seen: from where."""

    surface: Surface
    on: Laid
    mirrored: bool
    along: str
    up: str
    seen: str

    def point(self, p: Point) -> Point:
        """A place of the face [m] on paper, from the datum of both measures, x to the right unless mirrored."""
        x, y = self.on.point(p)
        left, low, right, _ = self.on.bounds(self.surface.polygon.bounds)
        return (right - x if self.mirrored else x - left), y - low

    @property
    def size(self) -> Point:
        """Width and height of the face on paper [m]."""
        left, low, right, high = self.on.bounds(self.surface.polygon.bounds)
        return right - left, high - low

    def measured(self, points: Iterable[Point]) -> tuple[float, float, float, float]:
        """Along from and to, up from and to of an outline, from the datum [m]."""
        at = [self.point(p) for p in points]
        xs, ys = [x for x, _ in at], [y for _, y in at]
        if self.mirrored and not self.datum_left:
            wide = self.size[0]
            xs = [wide - x for x in xs]
        return min(xs), max(xs), min(ys), max(ys)

    @property
    def datum_left(self) -> bool:
        """Whether the measures along begin at the left of the paper."""
        return not (self.mirrored and self.surface.kind == "right side")


def view_of(surface: Surface) -> View:
    """Walls from outside, what lies from above; measures along from the front end, of ends from the body's left edge."""
    mirrored = surface.id in MIRRORED
    across = surface.kind in ENDS
    up = "the body's left edge" if surface.kind in FACES_UP else "its foot" if surface.swept else "its low edge"
    if surface.kind in FACES_UP and not (surface.swept and across):
        seen = "seen from above"
    elif surface.swept and across:
        seen = "laid flat along the skin, seen from outside"
    else:
        seen = "seen from outside"
    along = ("the body's right edge" if mirrored else "the body's left edge") if across else "its front end"
    return View(surface, laid(surface), mirrored, along=along, up=up, seen=seen)


def face_pages(s: Studied, surface: Surface, name: str, printed: str) -> tuple[Page, ...]:
    """The drawing as large as the paper allows, then sticks, panels, openings in tables."""
    words, view = Words(s.build.brief.reading.shown()), view_of(surface)
    named = [numbered for numbered in numbers_of(s.build, s.facts).named if numbered.piece.of == surface.id]
    room = paper_of(s.build).lying
    wide, high = view.size
    space = (room[0] - 68 - UP_WIDE - BESIDE, room[1] - 180 - ROWS_HIGH)
    n = scale_for(max(wide, 1e-6), max(high, 1e-6), space, FINE)
    sheets = Sheets(room, f"{name}: {upper_first(surface.id)}", f"1 : {n}, {view.seen}, {printed}")
    members = s.framed.on(surface.id)
    cuts = [cut for cut in s.framed.cuts if cut.surface == surface.id]
    ids = {surface.id, *(member.id for member in members), *(cut.id for cut in cuts)}
    sheets.stops(stop_words(s, ("Shell",), where=ids))
    sheets.words(
        f"Measures along from {view.along}, up from {view.up}. Good face out. Numbers as on the cut plan and labels"
        + (", drafts until they are printed." if any(numbered.standing == "draft" for numbered in named) else ".")
    )
    sheets.stops(f"{cut.name} does not fit into this face and is not drawn." for cut in cuts if not cut.good)
    per_m = POINTS_PER_M / n
    sheets.picture(high * per_m + ROWS_HIGH + 16, _picture(s, view, named, [cut for cut in cuts if cut.good], per_m, words))
    _tables(sheets, view, named, members, cuts, words, tolerances_of(s))
    return sheets.done()


# the drawing
def _picture(s: Studied, view: View, named: Sequence[Named], cuts: Sequence[Cut], per_m: float, words: Words) -> list[Primitive]:
    x0, y0 = UP_WIDE, ROWS_HIGH

    def on(points: Iterable[Point]) -> tuple[Point, ...]:
        return tuple((x0 + x * per_m, y0 + y * per_m) for x, y in map(view.point, points))

    surface = view.surface
    shapes: list[Primitive] = [Poly(on(surface.polygon.exterior.coords[:-1]), "ink", "body", 1.4, id=surface.id)]
    members = s.framed.on(surface.id)
    for member in members:
        shapes.append(Poly(on(member.outline), "ink", "zinc" if member.wall_m > 0 else "wood", 0.7, id=member.id, tint=0.6))
    for cut in cuts:
        shapes.append(Poly(on(cut.skin.exterior.coords[:-1]), "ink", "", 1.2, id=cut.id))
    for numbered in named:
        if numbered.piece.kind == "sheet" and len(numbered.piece.place) > 2:
            shapes.append(Poly(on(numbered.piece.place), "chalk", "", 0.5, dash=(5.0, 3.0), id=numbered.piece.key))
    wide, high = view.size
    shapes += _along(view, members, cuts, x0, y0, wide * per_m, per_m, words)
    shapes += _up(view, members, cuts, x0, y0, per_m, words)
    shapes += _parted(s, view, on)
    shapes += _arrow(view, x0, y0, wide * per_m, high * per_m)
    taken = [_box_of(shape) for shape in shapes if isinstance(shape, Text)]
    for cut in cuts:
        ring = on(cut.skin.exterior.coords[:-1])
        spot = _middle(ring)
        if text_width(cut.name, 9.0) > max(p[0] for p in ring) - min(p[0] for p in ring):
            spot = spot[0], min(p[1] for p in ring) - 7
        shapes.append(_said(spot, cut.name, 9.0, taken))
    return shapes + _numbers(on, members, named, taken)


def _parted(s: Studied, view: View, on: Callable[[Iterable[Point]], tuple[Point, ...]]) -> list[Primitive]:
    """Where the face is parted into sections that are built apart."""
    if not s.build.shell.splits:
        return []
    shapes: list[Primitive] = []
    mine = [section for section in sections_of(s).sections if section.face == view.surface.id]
    for section in mine:
        ring = on(section.shape.exterior.coords[:-1])
        if len(mine) > 1:
            shapes.append(Poly(ring, "primer", "", 1.0, dash=(8.0, 3.0, 2.0, 3.0)))
            x, _ = _middle(ring)
            shapes.append(Text((x, min(p[1] for p in ring) + 10), section.name, 9, "primer", "strong"))
    return shapes


def _numbers(
    on: Callable[[Iterable[Point]], tuple[Point, ...]],
    members: Sequence[Member],
    named: Sequence[Named],
    taken: list[tuple[float, float, float, float]],
) -> list[Primitive]:
    """Every stick's number on it, else beside it with a leader, so that no two stand on each other."""
    shapes: list[Primitive] = []
    labels = labels_of(named)
    alike = len({label.partition("-")[0] for some in labels.values() for label in some}) == 1
    for member in members:
        mine = [short(label, alike) for label in labels.get(member.id, ())]
        text = " / ".join(mine) if len(mine) <= MOST_NUMBERS else f"{mine[0]} to {mine[-1]}"
        ring = on(member.outline)
        if not text:
            continue
        xs, ys = [p[0] for p in ring], [p[1] for p in ring]
        upright = max(ys) - min(ys) > max(xs) - min(xs)
        middle = ((max(xs) + min(xs)) / 2, (max(ys) + min(ys)) / 2)
        spots = []
        for share in (0.5, 0.35, 0.65, 0.2, 0.8, 0.1, 0.9):
            spots.append(
                (middle[0], min(ys) + share * (max(ys) - min(ys))) if upright else (min(xs) + share * (max(xs) - min(xs)), middle[1])
            )
        away = [(x + dx, y + dy) for x, y in spots for dx, dy in ((14, 0), (-14, 0), (0, 12), (0, -12), (22, 10), (-22, -10))]
        for at in (*spots, *away):
            box = _box(at, text, NUMBER)
            if not any(_meet(box, other) for other in taken):
                if at not in spots:
                    near = min(spots, key=lambda p, at=at: math.dist(p, at))  # type: ignore[misc]
                    shapes.append(line(at, near, "pencil", 0.5))
                taken.append(box)
                shapes.append(Text(at, text, NUMBER, "ink", "strong", ground="paper", id=member.id))
                break
    return shapes


def _said(at: Point, text: str, size: float, taken: list[tuple[float, float, float, float]]) -> Text:
    """Words over or under their place where others stand already."""
    tried = [(at[0], at[1] + by) for step in range(9) for by in (size * 1.4 * step, -size * 1.4 * step)]
    free = [spot for spot in tried if not any(_meet(_box(spot, text, size), other) for other in taken)]
    spot = free[0] if free else at
    taken.append(_box(spot, text, size))
    return Text(spot, text, size, "ink")


def _meet(a: tuple[float, float, float, float], b: tuple[float, float, float, float]) -> bool:
    return a[0] < b[2] and a[2] > b[0] and a[1] < b[3] and a[3] > b[1]


def _box(at: Point, text: str, size: float) -> tuple[float, float, float, float]:
    half = text_width(text, size, "strong") / 2 + 1.5
    return at[0] - half, at[1] - size * 0.65, at[0] + half, at[1] + size * 0.65


def _box_of(text: Text) -> tuple[float, float, float, float]:
    left = text.at[0] - text.width * {"left": 0.0, "middle": 0.5, "right": 1.0}[text.anchor]
    return left - 1, text.at[1] - text.size * 0.65, left + text.width + 1, text.at[1] + text.size * 0.65


def _middle(ring: Sequence[Point]) -> Point:
    xs, ys = [p[0] for p in ring], [p[1] for p in ring]
    return (min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2


def _along(
    view: View, members: Sequence[Member], cuts: Sequence[Cut], x0: float, y0: float, wide: float, per_m: float, words: Words
) -> list[Primitive]:
    """Running measures under the face: near edges of what stands across, edges of openings, its whole length."""
    marks = {round(a, 4) for a, b, _, _ in _across(view, members)} | {round(v, 4) for cut in cuts for v in _edges(view, cut)[:2]}
    marks |= {0.0, round(view.size[0], 4)}
    last = [-1e9] * FIGURES_ROWS
    shapes: list[Primitive] = [line((x0, y0 - 6), (x0 + wide, y0 - 6), "pencil", 0.6)]
    for at in sorted(marks, key=lambda at: at if view.datum_left else -at):
        x = x0 + (at if view.datum_left else view.size[0] - at) * per_m
        shapes.append(line((x, y0 - 9), (x, y0 - 2), "pencil", 0.6))
        text = words.cut(at)
        half = text_width(text, FIGURE) / 2
        row = next((k for k in range(FIGURES_ROWS) if x - half > last[k] + 3), None)
        if row is not None:
            last[row] = x + half
            shapes.append(Text((x, y0 - 15 - 9.5 * row), text, FIGURE, "ink"))
            if row:
                shapes.append(line((x, y0 - 9), (x, y0 - 11 - 9.5 * row), "rule", 0.4))
    return shapes


def _up(view: View, members: Sequence[Member], cuts: Sequence[Cut], x0: float, y0: float, per_m: float, words: Words) -> list[Primitive]:
    """Running measures at the left of the face: low edges of what lies along, edges of openings, its whole height."""
    whole = round(view.size[1], 4)
    marks = {round(low, 4) for _, _, low, _ in _level(view, members)} | {round(v, 4) for cut in cuts for v in _edges(view, cut)[2:]}
    marks |= {0.0, whole}
    shapes: list[Primitive] = [line((x0 - 6, y0), (x0 - 6, y0 + view.size[1] * per_m), "pencil", 0.6)]
    last = [-1e9, -1e9]
    for at in sorted(marks):
        y = y0 + at * per_m
        shapes.append(line((x0 - 9, y), (x0 - 2, y), "pencil", 0.6))
        row = next((k for k in range(2) if y - FIGURE * 1.1 > last[k]), None)
        if row is not None:
            last[row] = y
            shapes.append(Text((x0 - 12 - 42 * row, y), words.cut(at), FIGURE, "ink", anchor="right"))
    return shapes


def _edges(view: View, cut: Cut) -> tuple[float, float, float, float]:
    return view.measured(cut.skin.exterior.coords[:-1])


def _across(view: View, members: Sequence[Member]) -> list[tuple[float, float, float, float]]:
    made = [view.measured(member.outline) for member in members]
    return [m for m in made if m[3] - m[2] > m[1] - m[0]]


def _level(view: View, members: Sequence[Member]) -> list[tuple[float, float, float, float]]:
    made = [view.measured(member.outline) for member in members]
    return [m for m in made if m[3] - m[2] <= m[1] - m[0]]


def _arrow(view: View, x0: float, y0: float, wide: float, high: float) -> list[Primitive]:
    """Where the front is, or which edge of the body is which."""
    y = y0 + high + 9
    if view.surface.kind in ENDS:
        names = ("right edge", "left edge") if view.mirrored else ("left edge", "right edge")
        return [Text((x0, y), names[0], 9, "ink", "strong", "left"), Text((x0 + wide, y), names[1], 9, "ink", "strong", "right")]
    at, to = (x0 + wide, 1) if view.mirrored else (x0, -1)
    tip = (at - to * 4, y)
    back = at - to * 34
    return [
        line((back, y), tip, "ink", 1.4),
        line(tip, (tip[0] - to * 7, y + 4), "ink", 1.4),
        line(tip, (tip[0] - to * 7, y - 4), "ink", 1.4),
        Text((back - to * 6, y), "FRONT", 10, "ink", "strong", "right" if to > 0 else "left"),
    ]


# the tables
def labels_of(named: Sequence[Named]) -> dict[str, tuple[str, ...]]:
    """Numbers of the pieces that a stick is cut as, by its id: parts and strips together."""
    made: dict[str, tuple[str, ...]] = {}
    for numbered in named:
        id = numbered.piece.whole
        made[id] = (*made.get(id, ()), numbered.label)
    return made


def short(label: str, alike: bool) -> str:
    """A number without its side, and without letters where all of the face have the same."""
    bare = label.split(" ")[0]
    return (bare.partition("-")[2] or bare) if alike else bare


def _tables(
    sheets: Sheets, view: View, named: Sequence[Named], members: Sequence[Member], cuts: Sequence[Cut], words: Words, true: Tolerances
) -> None:
    across = ("Along, from", "to", "Up, from", "to")
    figures = tuple(Column(text, right=True) for text in across)
    by_id = {member.id: member for member in members}
    sticks, panels = [], []
    for numbered in sorted(named, key=lambda numbered: numbered.order):
        piece = numbered.piece
        member = by_id.get(piece.whole)
        place = member.outline if member is not None and not piece.joined else piece.place
        if len(place) < 2:
            continue
        at = tuple(words.cut(v) for v in view.measured(place))
        if member is not None and piece.kind == "bar":
            edges = ("low edge", "high edge", "through") if member.along_s else ("rear edge", "front edge", "through")
            worked = work_words(piece, words, edges)
            size = words.section((piece.width_m, piece.thickness_m))
            sticks.append((numbered.label, piece.name, size, words.cut(piece.length_m), ends_words(piece.ends_deg), *at, worked))
        else:
            size = f"{words.cut(piece.length_m)} × {words.cut(piece.width_m)}"
            worked = board_work(piece, words)
            panels.append((numbered.label, words.material(piece.material), size, *at, worked))
    sheets.head("Sticks")
    sheets.table(
        (
            Column("No."),
            Column("What"),
            Column("Section"),
            Column("Length", right=True),
            Column("Ends off square", right=True),
            *figures,
            Column("Work", wraps=True),
        ),
        sticks,
        empty="No sticks in this face.",
    )
    openings = []
    for cut in cuts:
        a, b, low, high = _edges(view, cut)
        ids = (f"shell.openings.{cut.id}.width", f"shell.openings.{cut.id}.height")
        known = [true_m for id in ids if (true_m := true.of(id)) is not None]
        hole = f"{words.cut(b - a)} × {words.cut(high - low)}" + (f", {true_words(min(known), words)}" if known else "")
        corner = words.cut(cut.corner_m) if cut.corner_m > 0 else "square"
        at = tuple(words.cut(v) for v in (a, b, low, high))
        openings.append((cut.name if cut.good else f"{cut.name}: does not fit", hole, corner, *at))
    if openings:
        sheets.head("Openings, as they are sawn")
        sheets.table((Column("What", wraps=True), Column("Hole", right=True), Column("Corner radius", right=True), *figures), openings)
    if panels:
        sheets.head("Panels, boards and fill")
        sheets.table((Column("No."), Column("Of", wraps=True), Column("Size", right=True), *figures, Column("Work", wraps=True)), panels)
