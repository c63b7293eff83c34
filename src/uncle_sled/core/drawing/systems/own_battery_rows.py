"""Things with a battery of their own, a strip of the day each: when they are filled, how long that takes, how long they run alone.

In points, y up.
"""

from __future__ import annotations

from uncle_sled.core.document.stow import FILLED_WORDS
from uncle_sled.core.drawing.primitives import Primitive, Text, line, rect
from uncle_sled.core.drawing.text_width import elided, text_width
from uncle_sled.core.studies.systems.own_batteries import BankFills, OnItsOwn, OwnBatteries
from uncle_sled.core.studies.systems.stay import DRIVES_FROM_H
from uncle_sled.core.studies.systems.sun import HOURS
from uncle_sled.core.words import Words

EDGE, HEAD, STRIP, LINE, PITCH = 14.0, 46.0, 16.0, 14.0, 64.0
TOLD_SHARE = 0.62  # of the width at the most, for words
FROM_H = {"day": 8.0, "night": 20.0, "driving": float(DRIVES_FROM_H), "home": 0.0}
NIGHTS = ((0.0, 8.0), (20.0, 24.0))
MARKS_H = (0, 6, 12, 18, 24)


def hours_said(hours: float) -> str:
    """Hours as one tells them: 40 min, 2.6 h, 3.2 days."""
    if hours < 1.0:
        return f"{hours * 60:.0f} min"
    return f"{hours:.1f} h" if hours < 48 else f"{hours / 24:.1f} days"


def own_words(thing: OnItsOwn, words: Words) -> tuple[tuple[str, str], ...]:
    """What is told of a thing, line by line, each with its ink."""
    own = thing.battery
    alone = "how long alone: not checked" if thing.alone_h is None else f"runs {hours_said(thing.alone_h)} alone"
    if own.use_wh:
        alone += f", {own.holds_wh / own.use_wh:.1f} days of its use"
    made = [(alone, "ink" if thing.alone_h is not None else "ochre word")]
    if own.filled == "home":
        made.append(("not filled aboard", "pencil"))
    elif thing.fill_h is None:
        made.append((f"from empty {words.wh(thing.bank_wh)} of the battery; hours: not checked", "ochre word"))
    else:
        made.append(
            (f"from empty {words.wh(thing.bank_wh)} of the battery in {hours_said(thing.fill_h)}, {FILLED_WORDS[own.filled]}", "ink")
        )
    if thing.unsaid:
        made.append((f"{thing.unsaid}: nobody said", "ochre word"))
    elif thing.empty_days is not None:
        made.append((f"as it is filled, empty after {hours_said(24 * thing.empty_days)}", "primer"))
    elif own.filled != "home" and thing.day_fill_h:
        made.append((f"a day’s use goes in within {hours_said(thing.day_fill_h)}", "pencil"))
    return tuple(made)


def bank_words(bank: BankFills) -> str:
    """How long the bank runs it all alone, and what fills it from empty."""
    name = "The power station" if bank.station else "The battery aboard"
    alone = "" if bank.alone_days is None else f" alone runs it all for {hours_said(24 * bank.alone_days)}"
    ways = [f"{hours_said(hours)} by {source}" for source, hours in bank.from_empty_h]
    ways += [] if bank.sun_days is None else [f"{bank.sun_days:.1f} days of mixed sky"]
    ways += [] if bank.sun_known else ["by the sun: not checked"]
    filled = f"from empty, with nothing running: {', '.join(ways)}" if ways else "nothing fills it"
    return f"{name}{alone}; {filled}." if alone else f"{name}: {filled}."


def over_words(made: OwnBatteries) -> str:
    """When filling costs the battery nothing; "" where no sun is told or no hour has any to spare."""
    if not made.over_h:
        return ""
    return f"Sun is over from {made.over_h[0]}:00 to {made.over_h[-1] + 1}:00 of the first day: best then."


def rows_high(made: OwnBatteries) -> float:
    """How high the rows want to be [points]."""
    return HEAD + PITCH * len(made.things) + 6 if made.things else 0.0


def own_battery_rows(made: OwnBatteries, words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """A row a thing, as many as there is room for: its name, what is told of it, and its day from 0 to 24 beside that."""
    if not made.things:
        return ()
    told_w = max(text_width(text, 11) for thing in made.things for text, _ in own_words(thing, words)) + 16
    left = EDGE + min(told_w, (width - 2 * EDGE) * TOLD_SHARE)
    room = width - EDGE - left
    shapes: list[Primitive] = [Text((left + room * hour / HOURS, height - HEAD + 4), f"{hour}:00", 10, "pencil") for hour in MARKS_H[1:-1]]
    y = height - HEAD - 10
    for at, thing in enumerate(made.things):
        if y - PITCH < -20 and at < len(made.things):
            shapes.append(Text((EDGE, max(y, 8.0)), f"and {len(made.things) - at} more", 11, "pencil", anchor="left"))
            break
        shapes += _row(thing, made, words, left, room, y)
        y -= PITCH
    return tuple(shapes)


def _row(thing: OnItsOwn, made: OwnBatteries, words: Words, left: float, room: float, top: float) -> list[Primitive]:
    wide = left - EDGE - 10
    shapes: list[Primitive] = [
        Text((EDGE, top), elided(thing.name, 12, wide, "strong"), 12, "ink", "strong", "left", id=thing.id),
        *_strip(thing, made, left, room, top - LINE - STRIP),
    ]
    for at, (text, ink) in enumerate(own_words(thing, words), 1):
        shapes.append(Text((EDGE, top - at * LINE), elided(text, 11, wide), 11, ink, anchor="left", id=thing.id))
    return shapes


def _strip(thing: OnItsOwn, made: OwnBatteries, left: float, room: float, low: float) -> list[Primitive]:
    """The day from midnight to midnight: nights dark, hours of spare sun ochre, the hours of filling a day's use strong."""

    def x(hour: float) -> float:
        return left + room * hour / HOURS

    shapes: list[Primitive] = [rect(left, low, room, STRIP, stroke="rule", fill="", width=0.8)]
    for a, b in NIGHTS:
        shapes.append(rect(x(a), low, x(b) - x(a), STRIP, stroke="", fill="rule", width=0.0, tint=0.6))
    for hour in made.over_h:
        shapes.append(rect(x(hour), low, x(hour + 1) - x(hour), STRIP, stroke="", fill="ochre", width=0.0, tint=0.35))
    own = thing.battery
    if own.filled != "home" and thing.day_fill_h is not None:
        for a, b in _within_the_day(FROM_H[own.filled], min(thing.day_fill_h, thing.there_h)):
            shapes.append(
                rect(x(a), low + 1.5, max(x(b) - x(a), 1.5), STRIP - 3, stroke="power", fill="power", width=0.8, tint=0.8, id=thing.id)
            )
    shapes += [line((x(hour), low), (x(hour), low + STRIP), "pencil", 0.8) for hour in MARKS_H[1:-1]]
    return shapes


def _within_the_day(start: float, hours: float) -> list[tuple[float, float]]:
    """A stretch of hours as parts of one day: what runs over midnight begins again at its left."""
    end = start + hours
    return [(start, end)] if end <= HOURS else [(start, float(HOURS)), (0.0, end - HOURS)]
