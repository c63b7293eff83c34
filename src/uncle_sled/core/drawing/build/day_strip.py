"""The days of the work on one line: how far it is, months, and the days on which it must not be towed, stand alone or get wet."""

from __future__ import annotations

from datetime import date, timedelta

from uncle_sled.core.drawing.build.plan_chart import day_words
from uncle_sled.core.drawing.primitives import Poly, Primitive, Text, line, rect
from uncle_sled.core.drawing.text_width import text_width
from uncle_sled.core.studies.build.schedule import Schedule
from uncle_sled.core.studies.build.standing import Standing
from uncle_sled.core.words import MONTHS

LEFT, RIGHT, ROW = 96.0, 16.0, 13.0
HIGH = 96  # of the whole strip [points]
ROWS = (("tow", "Not to be towed", "primer"), ("stand", "Not on its jack alone", "ochre"), ("rain", "Open to rain", "fresh"))
NAMES = {"tow": "No towing", "stand": "Tail goes down", "rain": "Rain gets in"}


class StripScale:
    """Days to points and back."""

    def __init__(self, schedule: Schedule, wide: float) -> None:
        self.days = last_day(schedule)
        self.per_day = max(wide - LEFT - RIGHT, 40.0) / max(self.days, 1.0)

    def x(self, day: float) -> float:
        """Where a day begins [points]."""
        return LEFT + day * self.per_day

    def day(self, x: float) -> float:
        """The day under a place, within the work."""
        return min(max((x - LEFT) / self.per_day, 0.0), self.days)


def last_day(schedule: Schedule) -> float:
    """When everything is done, in days since the first."""
    return max((placed.end for placed in schedule.placed), default=1.0)


def marked(one: Standing, mark: str) -> bool:
    """Whether a state of the build has one of the marks of ``ROWS``."""
    return {"tow": bool(one.off_band) or not one.on_wheels, "stand": one.tips, "rain": bool(one.rain)}[mark]


def day_strip(schedule: Schedule, states: tuple[Standing, ...], day: float | None, wide: float, high: float) -> tuple[Primitive, ...]:
    """Args: states: at the start and after each task, in the order of their ends; day: where the pointer stands, None: at the end."""
    if not schedule.placed or not states:
        return ()
    scale = StripScale(schedule, wide)
    ends = [0.0, *sorted(placed.end for placed in schedule.placed)]
    shapes: list[Primitive] = []
    top = high - 30.0
    shapes += _months(schedule, scale, top, wide)
    for k, (mark, _, ink) in enumerate(ROWS):
        y = top - (k + 1) * (ROW + 3)
        shapes.append(Text((LEFT - 8, y + ROW / 2), NAMES[mark], 11, "pencil", anchor="right"))
        shapes.append(rect(LEFT, y, scale.x(scale.days) - LEFT, ROW, stroke="rule", fill="body", width=0.8))
        for a, b in _runs([marked(one, mark) for one in states], ends, scale.days):
            low, far = scale.x(a), max(scale.x(b), scale.x(a) + 1.5)
            shapes.append(rect(low, y, far - low, ROW, stroke=ink, fill=ink, width=0.8, tint=0.55, hatch="metal" if mark == "tow" else ""))
    at = scale.x(scale.days if day is None else day)
    foot = top - len(ROWS) * (ROW + 3)
    shapes.append(line((at, foot - 2), (at, top + 4), "chalk", 2.2))
    shapes.append(Poly(((at - 7, top + 13), (at + 7, top + 13), (at, top + 2)), "chalk", "chalk", 1.0))
    when = schedule.begin + timedelta(days=int(scale.days if day is None else day))
    told = "the whole build" if day is None else day_words(when)
    half = text_width(told, 12, "strong") / 2
    middle = min(max(at, LEFT + half), wide - half - 6)
    shapes.append(Text((middle, top + 21), told, 12, "chalk", "strong", ground="paper"))
    return tuple(shapes)


def _runs(on: list[bool], ends: list[float], last: float) -> list[tuple[float, float]]:
    """Spans of days in which a mark holds: from one state until the next that has it no more."""
    spans: list[tuple[float, float]] = []
    for k, marked_ in enumerate(on):
        a, b = ends[k], ends[k + 1] if k + 1 < len(ends) else last
        if not marked_ or b - a < 1e-6:
            continue
        if spans and a - spans[-1][1] < 1e-6:
            spans[-1] = (spans[-1][0], b)
        else:
            spans.append((a, b))
    return spans


def _months(schedule: Schedule, scale: StripScale, top: float, wide: float) -> list[Primitive]:
    made: list[Primitive] = [line((LEFT, top), (scale.x(scale.days), top), "pencil", 1.2)]
    when, taken = date(schedule.begin.year, schedule.begin.month, 1), LEFT - 1.0
    while (when - schedule.begin).days <= scale.days:
        x = scale.x(max((when - schedule.begin).days, 0))
        label = MONTHS[when.month - 1] + (f" {when.year}" if when.month == 1 else "")
        made.append(line((x, top - 3), (x, top + 3), "pencil", 1.0))
        if x > taken + 8 and x + text_width(label, 11) < wide - 6:
            made.append(Text((x + 2, top + 8), label, 11, "pencil", anchor="left"))
            taken = x + text_width(label, 11)
        when = (when + timedelta(days=32)).replace(day=1)
    return made
