"""The chassis for whoever welds it: from above, every bar with its number, stations from the ball, angles, welds by their place.

Datum: the middle of the ball and the middle line. Squareness by the two diagonals of the rails and from the ball to both rear
corners. Source: plane geometry; brackets are placed by the maker of the axle, from the stations here.
"""

from __future__ import annotations

import math

from uncle_sled.core.drawing.cut.work_words import ends_words
from uncle_sled.core.drawing.page import FINE, POINTS_PER_M, Page, scale_for
from uncle_sled.core.drawing.paper import paper_of
from uncle_sled.core.drawing.primitives import Circle, Point, Poly, Primitive, Text, line, placed
from uncle_sled.core.drawing.rig.rig_views import plan_wheels
from uncle_sled.core.drawing.sheets import Column, Sheets
from uncle_sled.core.drawing.stops import stop_words
from uncle_sled.core.drawing.text_width import text_width
from uncle_sled.core.parts.frame_steel import FrameBar, bars_of
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.cut.numbers import numbers_of
from uncle_sled.core.studies.shell.shell_measures import bolts
from uncle_sled.core.words import Words, upper_first

CAUTION = "Screening only. Weld only what you know how to weld; a licensed welder and the local rule decide. Tack all, measure both diagonals, then weld."
ROOM_LOW, LEFT = 52.0, 30.0
SIDES = ("left", "right")


def frame_pages(s: Studied, name: str, printed: str) -> tuple[Page, ...]:
    """None where no frame of one's own is drawn with its sections."""
    bars = bars_of(s.build.rig)
    rig = s.build.rig
    if not bars or rig.frame_length is None:
        return ()
    words, size = Words(s.build.brief.reading.shown()), paper_of(s.build).lying
    wide = max(abs(y) for bar in bars for ends in bar.set for _, y in ends) * 2 + 0.2
    track = rig.track.si if rig.track else 0.0
    wide = max(wide, track + 0.3)
    long = rig.frame_length.si
    n = scale_for(long + 0.3, wide, (size[0] - 68 - LEFT - 20, size[1] - 190), FINE)
    per_m = POINTS_PER_M / n
    sheets = Sheets(size, f"{name}: frame", f"1 : {n}, seen from above, {printed}", CAUTION)
    sheets.stops(stop_words(s, ("Rig", "Balance")))
    sheets.words(
        "Measures along from the middle of the ball, to both sides from the middle line. Longest edge to longest edge is what is sawn."
    )
    sheets.picture(wide * per_m + ROOM_LOW, _picture(s, bars, per_m, wide, words))
    labels = _labels(s, bars)
    sheets.head("Bars")
    heads = (
        Column("No."),
        Column("What"),
        Column("Section", wraps=True),
        Column("Sawn", right=True),
        Column("Ends off square, front / rear", right=True),
    )
    places = ("Front end, along", "to the side", "Rear end, along", "to the side")
    rows = []
    for bar in bars:
        for k, (a, b) in enumerate(bar.set):
            told = [words.cut(a[0]), _side(a[1], words), words.cut(b[0]), _side(b[1], words)]
            rows.append(
                (labels[bar.role, k], bar.role, bar.section.says(words.shown), words.cut(bar.cut_m), ends_words(bar.ends_deg), *told)
            )
    sheets.table((*heads, *(Column(text, right=True) for text in places)), rows)
    sheets.words("The drawbar legs meet along the middle, under the coupling: try the coupling on before their front ends are sawn.")
    sheets.head("Square when these are alike, left and right")
    sheets.table((Column("From"), Column("To"), Column("Measures", right=True)), _diagonals(bars, words))
    sheets.head("Stations from the ball")
    sheets.table((Column("What", wraps=True), Column("Along", right=True), Column("Mind", wraps=True)), _stations(s, words))
    sheets.head("Welds")
    sheets.table((Column("Weld", right=True), Column("Where", wraps=True), Column("Run", right=True)), _welds(bars, labels, words))
    return sheets.done()


def _labels(s: Studied, bars: tuple[FrameBar, ...]) -> dict[tuple[str, int], str]:
    """Numbers of the cut plan by role and which of them; a bar in parts has those of its parts."""
    found: dict[tuple[str, int], str] = {}
    for numbered in numbers_of(s.build, s.facts).named:
        if numbered.piece.of == "frame":
            _, role, which = numbered.piece.whole.split("/")
            key = role, int(which) - 1
            found[key] = f"{found[key]} + {numbered.label}" if key in found else numbered.label
    return {(bar.role, k): found.get((bar.role, k), f"{bar.role} {k + 1}") for bar in bars for k in range(bar.many)}


def _side(y: float, words: Words) -> str:
    return "middle" if abs(y) < 1e-6 else f"{words.cut(abs(y))} {SIDES[y > 0]}"


def _picture(s: Studied, bars: tuple[FrameBar, ...], per_m: float, wide: float, words: Words) -> list[Primitive]:
    middle = ROOM_LOW + wide * per_m / 2

    def on(p: Point) -> Point:
        return LEFT + p[0] * per_m, middle + p[1] * per_m

    rig = s.build.rig
    end = rig.frame_length.si if rig.frame_length else 0.0
    shapes: list[Primitive] = [line(on((-0.1, 0.0)), on((end + 0.1, 0.0)), "rule", 0.6, (8, 3, 2, 3))]
    shapes += placed(plan_wheels(s.build), per_m, LEFT, middle)
    labels, taken = _labels(s, bars), list[tuple[float, float, float, float]]()
    texts: list[Primitive] = []
    for bar in bars:
        for k, (a, b) in enumerate(bar.set):
            shapes.append(Poly(tuple(on(p) for p in _outline(bar, a, b)), "ink", "zinc", 1.0, tint=0.6, id=f"frame/{bar.role}/{k + 1}"))
            spot = on(((a[0] + b[0]) / 2, (a[1] + b[1]) / 2 + (0.0 if bar.role != "cross-member" else 0.12 * (-1) ** k)))
            half = text_width(labels[bar.role, k], 8, "strong") / 2 + 1
            while any(abs(spot[0] - (t[0] + t[2]) / 2) < half + (t[2] - t[0]) / 2 and abs(spot[1] - (t[1] + t[3]) / 2) < 9 for t in taken):
                spot = (spot[0], spot[1] + 9)
            taken.append((spot[0] - half, spot[1] - 4, spot[0] + half, spot[1] + 4))
            texts.append(Text(spot, labels[bar.role, k], 8, "ink", "strong", ground="paper"))
    shapes.append(Circle(on((0.0, 0.0)), 4.0, "ink", "paper", 1.2, id="ball"))
    shapes.append(Text((on((0.0, 0.0))[0], on((0.0, 0.0))[1] + 11), "ball", 8, "ink"))
    shapes += texts
    stations = sorted({round(x, 4) for bar in bars for a, b in bar.set for x in (a[0], b[0])} | {round(a.station.si, 4) for a in rig.axles})
    low, last = ROOM_LOW - 10, [-1e9] * 4
    shapes.append(line((LEFT, low), on((end, 0.0))[:1] + (low,), "pencil", 0.6))
    for x in stations:
        at, told = LEFT + x * per_m, words.cut(x)
        half = text_width(told, 8) / 2
        shapes.append(line((at, low - 3), (at, low + 3), "pencil", 0.6))
        row = next((k for k in range(4) if at - half > last[k] + 3), None)
        if row is not None:
            last[row] = at + half
            shapes.append(Text((at, low - 9 - 9.5 * row), told, 8, "ink"))
    return shapes


def _outline(bar: FrameBar, a: Point, b: Point) -> tuple[Point, ...]:
    """A bar from above, its ends as they are sawn: the mitre at the rear lies across the frame, at the front along its middle."""
    long = math.dist(a, b)
    (ux, uy), half = ((b[0] - a[0]) / long, (b[1] - a[1]) / long), bar.section.wide / 2
    front, rear = (math.tan(math.radians(deg)) * half * (1 if uy > 0 else -1) for deg in bar.ends_deg)
    ends = ((a, half, front), (b, half, rear), (b, -half, -rear), (a, -half, -front))
    return tuple((x - uy * h + ux * by, y + ux * h + uy * by) for (x, y), h, by in ends)


def _diagonals(bars: tuple[FrameBar, ...], words: Words) -> list[tuple[str, ...]]:
    """Of the rails' outer corners, and from the ball."""
    rails = next(bar for bar in bars if bar.role == "rail")
    (begin, y), (end, _) = rails.set[1]
    out = y + rails.section.wide / 2
    across = math.hypot(end - begin, 2 * out)
    return [
        ("left rail's front corner", "right rail's rear corner", words.cut(across)),
        ("right rail's front corner", "left rail's rear corner", words.cut(across)),
        ("middle of the ball", "left rail's rear corner", words.cut(math.hypot(end, out))),
        ("middle of the ball", "right rail's rear corner", words.cut(math.hypot(end, out))),
    ]


def _stations(s: Studied, words: Words) -> list[tuple[str, ...]]:
    rig, down = s.build.rig, bolts(s)
    rows: list[tuple[str, ...]] = [("coupling, middle of the ball", words.cut(0.0), "its bolts by its maker")]
    if rig.jack_station is not None:
        rows.append(("jack", words.cut(rig.jack_station.si), ""))
    for k, axle in enumerate(rig.axles, 1):
        mind = "still to be placed: do not weld" if rig.axle_place == "to be placed" else "brackets to both sides of it by the axle's maker"
        rows.append((f"axle {k if len(rig.axles) > 1 else ''}".strip(), words.cut(axle.station.si), mind))
    if rig.stabiliser_station is not None:
        rows.append(("stabilisers", words.cut(rig.stabiliser_station.si), ""))
    if down is not None:
        at = ", ".join(words.cut(x) for x in down.stations_m)
        rows.append((f"bolts of the body, {down.many} of M10", "", f"a pair at each of {at}"))
    return rows


def _welds(bars: tuple[FrameBar, ...], labels: dict[tuple[str, int], str], words: Words) -> list[tuple[str, ...]]:
    """Every joint once: ends of cross-members on the rails, drawbar legs on the first cross-member and on each other."""
    rows: list[tuple[str, ...]] = []

    def add(where: str, run_m: float) -> None:
        rows.append((str(len(rows) + 1), where, words.cut(run_m)))

    by_role = {bar.role: bar for bar in bars}
    cross = by_role["cross-member"]
    around = 2 * (cross.section.wide + cross.section.deep)
    for k in range(cross.many):
        for side in (0, 1):
            add(f"{labels['cross-member', k]} on the {SIDES[side]} rail {labels['rail', side]}, all round", around)
    leg = by_role.get("drawbar leg")
    if leg is not None:
        slant = leg.section.wide / math.cos(math.radians(leg.ends_deg[1]))
        for side in (0, 1):
            add(
                f"{upper_first(SIDES[side])} drawbar leg {labels['drawbar leg', side]} on the first cross-member and its rail, all round",
                2 * (slant + leg.section.deep),
            )
        add(
            f"{labels['drawbar leg', 0]} and {labels['drawbar leg', 1]} on each other under the coupling, above and below",
            2 * leg.section.wide / math.cos(math.radians(leg.ends_deg[0])),
        )
    return rows
