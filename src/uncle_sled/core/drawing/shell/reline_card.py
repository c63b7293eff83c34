"""Before and after a relining side by side: weight, ball, room, warmth, money as pairs of bars, and the foam to cut."""

from __future__ import annotations

from uncle_sled.core.drawing.primitives import Primitive, Text, line, rect
from uncle_sled.core.drawing.text_width import elided, wrapped
from uncle_sled.core.studies.shell.relining_effect import RelineEffect, State
from uncle_sled.core.words import Words, lower_first

EDGE, NAME, ROW, BAR = 12.0, 96.0, 30.0, 8.0
MOST_BAYS = 6


def reline_card(found: RelineEffect, words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """Points with y up. Bars of a row share one scale; a number that is not known is said so."""
    shapes: list[Primitive] = [
        Text((EDGE + NAME, height - 14), "as it is", 11, "pencil", "text", "left"),
        Text((EDGE + NAME + 62, height - 14), "relined", 11, "chalk", "strong", "left"),
    ]
    y = height - 30
    room = width - 2 * EDGE - NAME
    for name, now, then, said_now, said_then in _rows(found, words):
        if y < 34:
            break
        most = max(abs(now or 0.0), abs(then or 0.0), 1e-9) * 1.02
        shapes.append(Text((EDGE, y - 5), elided(name, 11, NAME - 6), 11, "ink", "text", "left"))
        for at, (value, said, ink) in enumerate(((now, said_now, "pencil"), (then, said_then, "chalk"))):
            low = y - at * (BAR + 4)
            bar = (room * 0.42) * abs(value or 0.0) / most
            if value is not None:
                shapes.append(rect(EDGE + NAME, low - BAR / 2, max(bar, 1.0), BAR, stroke="", fill=ink if at else "rule"))
            shapes.append(
                Text((EDGE + NAME + room * 0.42 + 8, low), elided(said, 10, room * 0.58 - 10), 10, ink if at else "ink", "text", "left")
            )
        y -= ROW
    shapes.append(line((EDGE, y + 8), (width - EDGE, y + 8), "rule"))
    said = "; ".join(f"{bay.many} of {words.cut(bay.wide_m)} × {words.cut(bay.high_m)}" for bay in found.bays[:MOST_BAYS])
    more = f", and {sum(bay.many for bay in found.bays[MOST_BAYS:])} smaller" if len(found.bays) > MOST_BAYS else ""
    told = [f"Foam to cut: {said}{more}." if said else "No posts, so no bays to cut foam for."]
    told.append(f"Furring: {words.m(found.furring_m)} in all." if found.furring_m else "No furring.")
    y -= 5
    for text in told:
        for row in wrapped(text, 10.5, width - 2 * EDGE):
            if y > 6:
                shapes.append(Text((EDGE, y), row, 10.5, "ink", "text", "left"))
            y -= 13
    return tuple(shapes)


Shown = tuple[str, float | None, float | None, str, str]


def _rows(found: RelineEffect, words: Words) -> list[Shown]:
    now, then = found.now, found.then
    off = [relined.out_kg for relined in found.faces]
    out = "not said what goes off" if any(kg is None for kg in off) else f"{words.kg(sum(kg or 0.0 for kg in off))} off"
    on = f"{words.kg(sum(relined.in_kg for relined in found.faces))} in"
    lost = max((relined.room_lost_m for relined in found.faces), default=0.0)
    return [
        ("Heaviest", now.total_kg, then.total_kg, _kg(now.total_kg, words), f"{_kg(then.total_kg, words)}: {out}, {on}"),
        ("Ball, worst case", now.ball_kg, then.ball_kg, _ball(now, words), _ball(then, words)),
        (
            "Inside, wide",
            now.inside_width_m,
            then.inside_width_m,
            _m(now.inside_width_m, words),
            f"{_m(then.inside_width_m, words)}; {words.cut(lost)} a face",
        ),
        ("Head room", now.inside_height_m, then.inside_height_m, _m(now.inside_height_m, words), _m(then.inside_height_m, words)),
        ("Warmth", _lower(now), _lower(then), _warm(now, words), _warm(then, words)),
        ("Money", now.money, then.money, f"{now.money:.0f} to compare", f"{then.money:.0f} to compare, {then.hours:.0f} h"),
    ]


def _kg(value: float | None, words: Words) -> str:
    return words.kg(value) if value is not None else "not known"


def _m(value: float | None, words: Words) -> str:
    return words.cut(value) if value is not None else "not known"


def _ball(state: State, words: Words) -> str:
    if state.ball_kg is None:
        return "no reading"
    return f"{words.kg(state.ball_kg)}, {words.share(state.share or 0.0)} {lower_first(state.case)}"


def _lower(state: State) -> float | None:
    return state.warmth.lower_m2k_w if state.warmth is not None else None


def _warm(state: State, words: Words) -> str:
    """Both bounds; where they lie too far apart the lower one is named as the one to go by."""
    if state.warmth is None:
        return "not known"
    low, high = words.resistance(state.warmth.lower_m2k_w), words.resistance(state.warmth.upper_m2k_w)
    return f"{low} to {high}" + ("" if state.warmth.trusted else ", go by the lower")
