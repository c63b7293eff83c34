"""The order sheet for whoever makes the trailer: outline, sizes, doors, axles, loads and what is still to be said."""

from __future__ import annotations

from uncle_sled.core.document.shell import HUNG, Opening
from uncle_sled.core.drawing.page import POINTS_PER_M, Page, scale_for
from uncle_sled.core.drawing.paper import paper_of
from uncle_sled.core.drawing.primitives import Primitive, Text, dimension, dimension_up, placed
from uncle_sled.core.drawing.rig.rig_views import heights_m, plan_body, plan_rig, plan_wheels, side_body, side_rig, side_wheels
from uncle_sled.core.drawing.sheets import Column, Sheets
from uncle_sled.core.drawing.shell.openings_seen import openings_seen
from uncle_sled.core.drawing.shell.shell_views import opening_number
from uncle_sled.core.drawing.stops import stop_words
from uncle_sled.core.reading.studied import Studied, length_m
from uncle_sled.core.studies.balance.thresholds import standing_words, standings
from uncle_sled.core.words import Words

CAUTION = (
    "Whoever makes and registers it decides by local rules; every size is measured on the finished trailer before anything is cut for it."
)
ASK = "to be said"
PICTURE = 400.0  # points of height at the most


def trailer_order(s: Studied, name: str, printed: str) -> tuple[Page, ...]:
    """The pages; none where it stands on no ball, or neither body nor frame is drawn."""
    rig, body = s.build.rig, s.framed.body
    if rig.carrier != "ball" or (body is None and rig.frame_length is None):
        return ()
    words = Words(s.build.brief.reading.shown())
    sheets = Sheets(paper_of(s.build).upright, f"{name}: order sheet for the trailer", printed, CAUTION)
    sheets.stops(stop_words(s, ("Rig", "Shell", "Balance")))
    picture, high = _picture(s, words, sheets.room[0])
    sheets.picture(high, picture)
    sheets.head("Sizes, outside")
    for said, value in _sizes(s, words):
        sheets.row(said, value)
    openings = [opening for opening in s.build.shell.openings if opening.kind in ("door", "hatch", "window", "vent")]
    if openings:
        sheets.head("Doors, windows, vents")
        heads = (
            Column("No."),
            Column("What", wraps=True),
            Column("Face"),
            Column("From", right=True),
            Column("Sill", right=True),
            Column("Clear opening", right=True),
            Column("Hung", wraps=True),
        )
        sheets.table(heads, [_opening(s, opening, words) for opening in openings])
    sheets.head("Axles and loads")
    for said, value in _loads(s, words):
        sheets.row(said, value)
    classes = standings(s)
    if classes:
        sheets.head("Registration")
        for standing in classes:
            sheets.words(standing_words(standing, words))
    sheets.gap()
    sheets.sign("Confirmed by the maker: sizes, axle, ratings")
    return sheets.done()


def _picture(s: Studied, words: Words, wide: float) -> tuple[tuple[Primitive, ...], float]:
    """Side and plan over each other to one scale, with the main measures, and how high that is [points]."""
    (top, half), reach = heights_m(s.build), length_m(s.build) + 0.6
    n = scale_for(reach + 0.4, top + 2 * half + 0.7, (wide, PICTURE - 60))
    scale = POINTS_PER_M / n
    high = (top + 2 * half) * scale + 84
    x0, side = 0.4 * scale, high - 20 - top * scale
    plan = side - 50 - half * scale
    shapes: list[Primitive] = [
        *placed((*side_rig(s.build), *side_body(s.build), *side_wheels(s.build), *openings_seen(s, "side")), scale, x0, side),
        *placed((*plan_rig(s.build), *plan_body(s.build), *plan_wheels(s.build), *openings_seen(s, "plan")), scale, x0, plan),
        Text((wide, high - 8), f"1 : {n}", 9, "pencil", anchor="right"),
    ]
    body = s.framed.body
    if body is not None:
        a, b = x0 + body.front * scale, x0 + (body.front + body.length) * scale
        shapes += dimension((a, side - 14), (b, side - 14), words.cut(body.length), 3.0, 10)
        shapes += dimension_up((b + 16, side + body.under * scale), body.height * scale, words.cut(body.height), 3.0, 10)
        shapes += dimension_up((b + 16, plan - body.width / 2 * scale), body.width * scale, words.cut(body.width), 3.0, 10)
    if s.support is not None and s.support.carrier == "ball":
        shapes += dimension(
            (x0, side - 32), (x0 + s.support.mean_axle_m * scale, side - 32), f"ball to axle {words.cut(s.support.mean_axle_m)}", 3.0, 10
        )
    return tuple(shapes), high


def _sizes(s: Studied, words: Words) -> list[tuple[str, str]]:
    rig, body = s.build.rig, s.framed.body
    made = []
    if body is not None:
        made += [
            ("Body, long, wide, high", f"{words.cut(body.length)}, {words.cut(body.width)}, {words.cut(body.height)}"),
            ("Body's front behind the ball", words.cut(body.front)),
            ("Body's underside over ground", words.cut(body.under)),
        ]
    for said, value in (
        ("Ball to tail of the frame", rig.frame_length),
        ("Drawbar, ball to first member", rig.drawbar_length),
        ("Frame, wide", rig.frame_width),
        ("Frame top over ground", rig.frame_top),
        ("Ball height of the car", rig.ball_height),
    ):
        made.append((said, words.cut(value.si) if value is not None else ASK))
    return made


def _opening(s: Studied, opening: Opening, words: Words) -> tuple[str, ...]:
    return (
        opening_number(s.build.shell, opening.id),
        opening.name,
        opening.face,
        words.cut(opening.along.si),
        words.cut(opening.up.si),
        f"{words.cut(opening.width.si)} × {words.cut(opening.height.si)}",
        HUNG[opening.hung],
    )


def _loads(s: Studied, words: Words) -> list[tuple[str, str]]:
    """What it has to carry in its worst cases, beside what is typed of its ratings."""
    rig, b = s.build.rig, s.readings
    towing = [k for k in s.towing_rows if len(b.total_kg)] if s.support is not None and s.support.carrier == "ball" else []
    total = words.kg(float(max(b.total_kg[k] for k in towing))) if towing else "not known yet"
    ball = words.kg(float(max(b.tongue_kg[k] for k in towing))) if towing else "not known yet"
    axle = words.kg(max(float(b.axle_kg[k].max()) for k in towing)) if towing else "not known yet"
    said = [(words.kg(value.si) if value is not None else ASK) for value in (rig.gross_total, rig.coupler_rating)]
    ratings = ", ".join(words.kg(a.rating.si) if a.rating else ASK for a in rig.axles) or ASK
    place = words.cut(s.support.mean_axle_m) if s.support is not None and s.support.carrier == "ball" else ASK
    return [
        (
            "Axles",
            f"{len(rig.axles) or ASK}, {rig.suspension}; middle {place} behind the ball, {'still to be placed' if rig.axle_place == 'to be placed' else 'fixed'}",
        ),
        ("Heaviest altogether / plate", f"{total} / {said[0]}"),
        ("Most on the ball / coupler", f"{ball} / {said[1]}"),
        ("Most on one axle / rated", f"{axle} / {ratings}"),
        ("Track, wheel to wheel", words.cut(rig.track.si) if rig.track else ASK),
        ("Brakes", rig.brakes or f"by the local rule; {ASK}"),
        (
            "Tyres",
            f"load index {rig.tyre.load_index}, {words.cut(rig.tyre.diameter.si)} high"
            if rig.tyre.load_index and rig.tyre.diameter
            else ASK,
        ),
    ]
