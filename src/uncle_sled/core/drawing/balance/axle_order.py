"""The order sheet for whoever makes the axle: sizes, loads and what is still to be asked, on one page with a drawing."""

from __future__ import annotations

from uncle_sled.core.drawing.balance.true_rows import true_words
from uncle_sled.core.drawing.page import POINTS_PER_M, Page, scale_for
from uncle_sled.core.drawing.paper import paper_of
from uncle_sled.core.drawing.primitives import Point, Primitive, Text, line, placed
from uncle_sled.core.drawing.rig.rig_views import heights_m, plan_rig, plan_wheels, side_body, side_rig, side_wheels
from uncle_sled.core.drawing.stops import stop_words
from uncle_sled.core.drawing.text_width import elided, wrapped
from uncle_sled.core.reading.studied import Studied, length_m
from uncle_sled.core.studies.balance.axle_conflicts import tyre_gap
from uncle_sled.core.studies.balance.axle_placing import AxlePlacing, axle_placing
from uncle_sled.core.studies.balance.frame_beam import LABEL, frame_under
from uncle_sled.core.studies.balance.sway import sway
from uncle_sled.core.studies.balance.sway import worst as worst_swing
from uncle_sled.core.studies.balance.tolerances import tolerances_of
from uncle_sled.core.words import Words, lower_first

EDGE = 48.0
ROW = 19.0
FOOT = (
    "Measured from the middle of the ball. Both sides are measured before anything is welded.",
    "Screening only: the maker's figures, local rules and a licensed welder decide.",
)


def axle_order(s: Studied, project_name: str, today: str) -> Page | None:
    """One page, or None where there is no axle or no reading."""
    if s.support is None or s.support.carrier != "ball" or not s.towing_rows:
        return None
    if s.readings.total_kg[s.towing_rows].min() <= 0:
        return None
    words, size = Words(s.build.brief.reading.shown()), paper_of(s.build).upright
    titled = elided(f"{project_name}, {s.build.name}, {today}", 11, size[0] - 2 * EDGE)
    shapes: list[Primitive] = [
        Text((EDGE, size[1] - 52), "Order sheet for the axle", 22, "ink", "head", "left"),
        Text((EDGE, size[1] - 72), titled, 11, "pencil", "text", "left"),
    ]
    y = _drawings(size, s, words, shapes) - 26
    for text in stop_words(s, ("Rig", "Balance")):
        for row in wrapped(f"STOP: {text}", 11, size[0] - 2 * EDGE, "strong"):
            shapes.append(Text((EDGE, y), row, 11, "primer", "strong", "left"))
            y -= 14
    y -= 4
    for name, says in _lines(s, words):
        shapes += [
            Text((EDGE, y), name, 11, "pencil", "text", "left"),
            Text((EDGE + 170, y), elided(says, 12, size[0] - 2 * EDGE - 170), 12, "ink", "text", "left"),
            line((EDGE, y - 7), (size[0] - EDGE, y - 7), "rule", 0.5),
        ]
        y -= ROW
    shapes += [Text((EDGE, 40 - 13 * at), text, 9, "pencil", "text", "left") for at, text in enumerate(FOOT)]
    return Page(size[0], size[1], tuple(shapes), f"{project_name}: order sheet for the axle")


def _drawings(size: Point, s: Studied, words: Words, shapes: list[Primitive]) -> float:
    """Side and plan to one scale; returns where the words may begin."""
    (top, half), reach = heights_m(s.build), length_m(s.build) + 0.6
    n = scale_for(reach + 0.4, top + 2 * half + 0.5, (size[0] - 2 * EDGE, 330.0))
    scale = POINTS_PER_M / n
    x0, y0 = EDGE + 0.4 * scale, size[1] - 96 - top * scale
    shapes += placed((*side_rig(s.build), *side_body(s.build), *side_wheels(s.build)), scale, x0, y0)
    low = y0 - 26 - half * scale
    shapes += placed((*plan_rig(s.build), *plan_wheels(s.build)), scale, x0, low)
    assert s.support is not None
    at, y = s.support.mean_axle_m * scale, y0 - 13
    shapes += [
        line((x0, y), (x0 + at, y), "pencil"),
        Text((x0 + at / 2, y), f"ball to axle {words.cut(s.support.mean_axle_m)}", 10, "ink", ground="paper"),
        Text((size[0] - EDGE, size[1] - 88), f"1 : {n}", 9, "pencil", "text", "right"),
    ]
    return low - half * scale


def _true_words(s: Studied, words: Words) -> str:
    """How true its place must be, where that is known."""
    true_m = tolerances_of(s).of("axle")
    return f", {true_words(true_m, words)}" if true_m is not None else ""


def _lines(s: Studied, words: Words) -> list[tuple[str, str]]:
    rig, b = s.build.rig, s.readings
    assert s.support is not None
    heaviest = max(s.towing_rows, key=lambda r: float(b.total_kg[r] - b.tongue_kg[r]))
    group = float(b.total_kg[heaviest] - b.tongue_kg[heaviest])
    placing, gap = axle_placing(s), tyre_gap(s)
    ratings = [words.kg(a.rating.si) for a in rig.axles if a.rating]
    apart = s.support.axles_m[-1] - s.support.axles_m[0]
    tyre = [f"load index {rig.tyre.load_index}" if rig.tyre.load_index else "to be chosen", rig.tyre.speed_symbol]
    sides = {"over": "over the axle", "under": "under the axle", "": "over or under: to be said"}
    lines = [
        ("Axles", f"{len(rig.axles)}, {rig.suspension}" + (f", {words.cut(apart)} apart" if apart > 0 else "")),
        (
            "Place of their middle",
            f"{words.cut(s.support.mean_axle_m)} behind the ball"
            + (_true_words(s, words) if rig.axle_place == "to be placed" else ", as welded"),
        ),
        ("Window", _window_words(placing, s.support.mean_axle_m, words)),
        ("Track, wheel to wheel", words.cut(rig.track.si) if rig.track else "to be measured"),
        ("Frame over the axle, wide", words.cut(rig.frame_width.si) if rig.frame_width else "to be measured"),
        ("Frame top above ground", words.cut(rig.frame_top.si) if rig.frame_top else "to be measured"),
        ("Springs", sides[rig.spring_side]),
        ("Heaviest on the axles", f"{words.kg(group)}, {lower_first(s.table.cases[heaviest].name)}"),
        ("Heaviest axle", words.kg(max(float(b.axle_kg[r].max()) for r in s.towing_rows))),
        ("Rated, as drawn", ", ".join(ratings) if ratings else "to be chosen, above the heaviest"),
        ("Tyre", " ".join(word for word in tyre if word)),
        ("Brakes", s.build.rig.brakes or "by the local rule; to be said"),
        ("Wheel studs and offset", "to be said by the maker"),
    ]
    lines += towing_lines(s, words)
    if gap is not None:
        gaps = [(gap.left_m, "left"), (gap.right_m, "right")]
        told = [f"{words.thick(room)} {side}" for room, side in gaps if room is not None]
        how = "as measured" if gap.measured else "as drawn; measure both"
        lines += [("Tyre to wheel box", ", ".join(told) + f", {how}")] if told else []
    return lines


def towing_lines(s: Studied, words: Words) -> list[tuple[str, str]]:
    """How it tows and what the frame feels, a line each; why not where it cannot be said."""
    made, under = sway(s), frame_under(s)
    swaying = worst_swing(made)
    if swaying is None:
        swing = f"not checked: {made.why}"
    else:
        grows = [c.critical_kmh for c in made.cases if c.critical_kmh is not None]
        last = f"swings grow from {words.kmh(min(grows))}" if grows else f"none grow under {words.kmh(200.0)}"
        swing = f"damping {swaying.damping_at:.2f} at {words.kmh(made.at_kmh)}, {lower_first(swaying.name)}; {last}"
    beam = under.worst
    frame = f"not checked: {under.why}"
    if beam is not None:
        frame = f"{beam.worst_pa / under.yield_pa * 100:.0f} % of yield, {LABEL[beam.how]}, {words.cut(beam.worst_m)} behind the ball"
    return [("Swing behind the car", swing), ("Rails, screening", frame)]


def _window_words(placing: AxlePlacing | None, now_m: float, words: Words) -> str:
    """The window, and whether the axle stands in it: the sheet goes to somebody who welds."""
    if placing is None or placing.window_m is None:
        return "none serves every case yet"
    low, high = placing.window_m
    out = "" if low - 1e-6 <= now_m <= high + 1e-6 else "; THE PLACE ABOVE IS NOT IN IT: do not weld"
    return f"{words.cut(low)} to {words.cut(high)}{out}"
