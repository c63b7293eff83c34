"""A rafter from its side as it is sawn: plumb at ridge and tail, with its bird's mouth over the plate. Points."""

from __future__ import annotations

import math

from uncle_sled.core.drawing.primitives import Point, Poly, Primitive, Text, dimension
from uncle_sled.core.studies.shell.rafters import RafterCuts
from uncle_sled.core.words import Words

SIDE, FOOT = 40.0, 46.0


def rafter_drawn(cuts: RafterCuts, words: Words, wide: float, high: float) -> tuple[Primitive, ...]:
    """Its tail at the left, its lower end and the bird's mouth as large as they fit; the rest of it is broken off."""
    turn = math.radians(cuts.cut_deg)
    deep, shown = cuts.section_m[1], cuts.at_m + cuts.seat_m / max(math.cos(turn), 1e-6) + 4 * cuts.section_m[1]
    if min(wide, high) < 100:
        return ()
    tall = shown * math.sin(turn) + deep
    scale = min((wide - 2 * SIDE) / max(shown * math.cos(turn) + deep, 1e-6), (high - FOOT - 40) / max(tall, 1e-6))

    def on(along: float, up: float) -> Point:
        """A place by the way along the underside and up square to it."""
        x = along * math.cos(turn) - up * math.sin(turn)
        z = along * math.sin(turn) + up * math.cos(turn)
        return SIDE + deep * math.sin(turn) * scale + x * scale, FOOT + z * scale

    lean = deep * math.tan(turn)  # a plumb cut runs back along the rafter by that
    heel = cuts.at_m
    inner = heel + cuts.seat_m * math.cos(turn)
    mouth = (
        on(heel, 0.0),
        on(inner - cuts.seat_m * math.cos(turn) + cuts.notch_m * math.tan(turn), cuts.notch_m),
        on(heel + cuts.seat_m / math.cos(turn), 0.0),
    )
    outline = (on(0.0, 0.0), *mouth, on(shown, 0.0), on(shown + lean, deep), on(lean, deep))
    shapes: list[Primitive] = [Poly(outline, "ink", "wood", 1.4, tint=0.4, id=cuts.surface)]
    foot = mouth[1]
    plate = cuts.seat_m * scale
    shapes.append(
        Poly((foot, (foot[0] + plate, foot[1]), (foot[0] + plate, foot[1] - 26), (foot[0], foot[1] - 26)), "pencil", "", 1.0, dash=(4, 3))
    )
    shapes += dimension((foot[0], foot[1] - 32), (foot[0] + plate, foot[1] - 32), f"seat {words.thick(cuts.seat_m)}", 3.0, 10)
    shapes.append(
        Text((SIDE, high - 14), f"plumb cuts {cuts.cut_deg:.1f}° off square; heel {words.thick(cuts.heel_m)}", 11, "ink", anchor="left")
    )
    shapes.append(
        Text(
            (SIDE, high - 28),
            f"heel {words.cut(cuts.at_m)} from the tail, sawn {words.thick(cuts.notch_m)} of {words.thick(deep)} deep",
            11,
            "ink",
            anchor="left",
        )
    )
    return tuple(shapes)


def rafter_words(cuts: RafterCuts, words: Words) -> str:
    """The same in a sentence."""
    short = (
        f" The plate is {words.thick(cuts.plate_m)} wide: a third of the rafter is the most that is sawn out."
        if cuts.seat_m < cuts.plate_m - 1e-6
        else ""
    )
    meets = "; at the ridge they meet over its beam" if cuts.ridge else ""
    return f"{cuts.many} rafters: plumb cuts {cuts.cut_deg:.1f}° off square{meets}; bird's mouth with a seat of {words.thick(cuts.seat_m)}, {words.thick(cuts.notch_m)} deep, its heel {words.cut(cuts.at_m)} from the tail.{short}"
