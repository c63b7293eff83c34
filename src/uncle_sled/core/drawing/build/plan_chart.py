"""The working calendar: a row a task, bars for work, hatched for waits, months over it; and the finish as a chance curve."""

from __future__ import annotations

from collections.abc import Container
from datetime import date, timedelta

from uncle_sled.core.drawing.plot import Plot, x_axis, y_axis
from uncle_sled.core.drawing.primitives import Poly, Primitive, Text, line, rect
from uncle_sled.core.drawing.text_width import elided, text_width
from uncle_sled.core.studies.build.chance import Chance
from uncle_sled.core.studies.build.schedule import Placed, Schedule
from uncle_sled.core.words import MONTHS

ROW, TOP, NAME = 20.0, 40.0, 176.0


def day_words(when: date) -> str:
    """A day as people write it: 3 May 2026."""
    return f"{when.day} {MONTHS[when.month - 1]} {when.year}"


def rows_of(schedule: Schedule) -> tuple[Placed, ...]:
    """The tasks in the order of the chart's rows: by their begin, then by their end."""
    return tuple(sorted(schedule.placed, key=lambda placed: (placed.begin, placed.end)))


def day_of(begin: date, day: float) -> str:
    """The day on which so many have gone by since the first."""
    return day_words(begin + timedelta(days=int(day)))


class Scale:
    """Days to points."""

    def __init__(self, schedule: Schedule, deadline: date | None, wide: float) -> None:
        last = max((placed.free for placed in schedule.placed), default=30.0)
        if deadline is not None:
            last = max(last, min((deadline - schedule.begin).days + 1.0, last * 1.6 + 30))
        self.begin, self.days = schedule.begin, max(last * 1.03, 14.0)
        self.per_day = max(wide - NAME - 16.0, 50.0) / self.days

    def x(self, day: float) -> float:
        """Where a day begins on the drawing [points]."""
        return NAME + day * self.per_day

    def day(self, x: float) -> float:
        """Which day stands there: ``x`` turned round."""
        return (x - NAME) / self.per_day


def day_pointer(scale: Scale, day: float, high: float) -> tuple[Primitive, ...]:
    """Where the day stands that is looked at, over all rows, with its date."""
    x = scale.x(day)
    told = day_of(scale.begin, day)
    return (
        line((x, 2.0), (x, high - TOP + 22), "chalk", 1.8),
        Poly(((x - 6, high - TOP + 32), (x + 6, high - TOP + 32), (x, high - TOP + 22)), "chalk", "chalk", 1.0),
        Text((x + 10, high - TOP + 30), told, 12, "chalk", "strong", "left", ground="paper"),
    )


def chart_high(schedule: Schedule) -> float:
    """Height that the calendar takes with all its rows [points]."""
    return TOP + ROW * len(schedule.placed) + 18.0


def plan_chart(
    schedule: Schedule, deadline: date | None, wide: float, high: float, chosen: Container[str] = (), ghost: Schedule | None = None
) -> tuple[Primitive, ...]:
    """Args: chosen: ids in chalk; ghost: the calendar as it would be, dashed over it."""
    if not schedule.placed:
        return ()
    scale = Scale(schedule, deadline, wide)
    shapes: list[Primitive] = []
    when = date(schedule.begin.year, schedule.begin.month, 1)
    foot = high - TOP - ROW * len(schedule.placed)
    taken = -1e9
    while (when - schedule.begin).days <= scale.days:
        x = scale.x((when - schedule.begin).days)
        if x >= NAME - 1:
            shapes.append(line((x, foot), (x, high - TOP + 6), "rule", 0.8))
            label = MONTHS[when.month - 1] + (f" {when.year}" if when.month == 1 or taken < 0 else "")
            if x > taken + 6 and x + 3 + text_width(label, 11) < wide - 6:
                shapes.append(Text((x + 3, high - TOP + 14), label, 11, "pencil", anchor="left"))
                taken = x + text_width(label, 11)
        when = (when + timedelta(days=32)).replace(day=1)
    for k, placed in enumerate(rows_of(schedule)):
        y = high - TOP - (k + 1) * ROW
        lit = placed.task.id in chosen
        critical = schedule.moves is not None and placed.task.id in schedule.moves
        ink = "chalk" if lit else "ink"
        mark = "✓ " if placed.task.done else ""
        shapes.append(
            Text(
                (8, y + ROW / 2),
                elided(mark + placed.task.name, 11, NAME - 16),
                11,
                "pencil" if placed.task.done else ink,
                "strong" if lit else "text",
                "left",
            )
        )
        fill = "spruce" if placed.task.done else "ochre" if critical else "wood"
        for a, b in _spans(placed):
            shapes.append(
                rect(
                    scale.x(a),
                    y + 4,
                    max((b - a) * scale.per_day, 2.5),
                    ROW - 8,
                    stroke="chalk" if lit else "ink",
                    fill=fill,
                    width=2.0 if lit else 0.8,
                    hatch="" if placed.task.done else "wood" if not critical else "power",
                    id=placed.task.id,
                    tint=0.6,
                )
            )
        if placed.end - placed.begin > 1:
            shapes.append(line((scale.x(placed.begin), y + ROW / 2), (scale.x(placed.end), y + ROW / 2), "ink", 0.8))
        if placed.free > placed.end + 0.05:
            shapes.append(
                rect(
                    scale.x(placed.end),
                    y + 7,
                    (placed.free - placed.end) * scale.per_day,
                    ROW - 14,
                    stroke="pencil",
                    fill="foam",
                    width=0.6,
                    hatch="foam",
                    tint=0.6,
                )
            )
        if placed.task.hands > 1:
            told = f"{placed.task.hands} hands"
            after = scale.x(max(placed.end, placed.free)) + 4
            if after + text_width(told, 9) < wide - 6:
                shapes.append(Text((after, y + ROW / 2), told, 9, "pencil", anchor="left"))
            else:
                shapes.append(Text((scale.x(placed.begin) - 4, y + ROW / 2), told, 9, "pencil", anchor="right"))
    if ghost is not None:
        moved = {task.task.id: task for task in ghost.placed}
        for k, placed in enumerate(rows_of(schedule)):
            new = moved.get(placed.task.id)
            if new is not None and (abs(new.begin - placed.begin) > 0.2 or abs(new.free - placed.free) > 0.2):
                y = high - TOP - (k + 1) * ROW
                shapes.append(
                    rect(
                        scale.x(new.begin),
                        y + 3,
                        max((new.end - new.begin) * scale.per_day, 2.5),
                        ROW - 6,
                        stroke="chalk",
                        width=1.4,
                        dash=(4.0, 3.0),
                    )
                )
    if schedule.now > 0:
        shapes.append(line((scale.x(schedule.now), foot), (scale.x(schedule.now), high - TOP + 4), "chalk", 1.4))
    if deadline is not None:
        x = scale.x((deadline - schedule.begin).days + 1)
        if x < wide - 4:
            shapes.append(line((x, foot), (x, high - TOP + 4), "primer", 1.8, (8.0, 4.0)))
            shapes.append(Text((x - 4, foot - 8), f"deadline {day_words(deadline)}", 11, "primer", "strong", "right"))
    return tuple(shapes)


def _spans(placed: Placed) -> list[tuple[float, float]]:
    """Runs of neighbouring days on which it is worked, as they are drawn: from morning to evening."""
    spans: list[list[float]] = []
    for day in placed.days:
        a, b = max(float(day) + 0.33, placed.begin), min(float(day) + 0.95, max(placed.end, placed.begin + 0.1))
        if spans and a - spans[-1][1] < 0.75:
            spans[-1][1] = b
        else:
            spans.append([a, b])
    return [(a, max(b, a + 0.1)) for a, b in spans]


def _date(begin: date, day: float) -> str:
    when = begin + timedelta(days=int(day))
    return f"{when.day} {MONTHS[when.month - 1]}"


def chance_chart(chance: Chance, names: dict[str, str], wide: float, high: float) -> tuple[Primitive, ...]:
    """How likely it is finished by each day, the deadline, and what moves it most as bars at the right."""
    days = chance.days
    first, last = days[0], days[-1]
    if chance.deadline is not None:
        at = float((chance.deadline - chance.begin).days)
        first, last = min(first, at), max(last, at)
    span = max(last - first, 7.0)
    right = max(wide * 0.64, 260.0)
    plot = Plot(first - 0.04 * span, last + 0.04 * span, y0=0.0, y1=1.0, left=52.0, low=40.0, right=right, top=high - 44.0)
    shapes: list[Primitive] = []
    shapes += y_axis(plot, (0.0, 0.25, 0.5, 0.75, 1.0), lambda share: f"{share * 100:.0f} %", across=True)
    many = len(days)
    step = max(many // 240, 1)
    points = [plot.at(days[k], (k + 1) / many) for k in range(0, many, step)]
    points.append(plot.at(days[-1], 1.0))
    shapes.append(Poly((plot.at(days[0], 0.0), *points, plot.at(days[-1], 0.0)), "", "chalk", 0.0, tint=0.12))
    shapes.append(Poly((plot.at(days[0], 0.0), *points), "chalk", "", 2.2, closed=False))
    for share, when in ((0.5, chance.p50), (0.8, chance.p80)):
        x, y = plot.at(float((when - chance.begin).days), share)
        shapes += [
            line((x, plot.low), (x, y), "chalk", 1.0, (3.0, 3.0)),
            Text(
                (x + 5, y - 9),
                f"{share * 100:.0f} % by {day_words(when)}",
                size=11,
                ink="chalk",
                face="strong",
                anchor="left",
                ground="paper",
            ),
        ]
    shapes += x_axis(plot, [plot.x0 + (plot.x1 - plot.x0) * k / 4 for k in range(5)], lambda day: _date(chance.begin, day))
    if chance.deadline is not None and chance.by is not None:
        x, _ = plot.at(float((chance.deadline - chance.begin).days), 0.0)
        ink = "spruce" if chance.by >= 0.5 else "primer"
        shapes.append(line((x, plot.low), (x, plot.top), ink, 1.8, (8.0, 4.0)))
        text = f"deadline: {chance.by * 100:.0f} %"
        left = x + 6 + text_width(text, 12, "strong") < right
        shapes.append(
            Text(
                (x + (6 if left else -6), plot.top + 10),
                text,
                size=12,
                ink=ink,
                face="strong",
                anchor="left" if left else "right",
                ground="paper",
            )
        )
    x, y = right + 24, high - 52.0
    room = wide - x - 12
    if chance.movers and room > 90:
        shapes.append(Text((x, y + 14), "What moves it most", 11, "ink", "strong", "left"))
        top = max(share for _, share in chance.movers) or 1.0
        for id, share in chance.movers:
            y -= 30
            shapes.append(Text((x, y + 12), elided(names.get(id, id), 11, room), 11, "ink", anchor="left"))
            shapes.append(rect(x, y - 4, max(room * share / top, 2.0), 7, stroke="ink", fill="ochre", tint=0.6, id=id))
    return tuple(shapes)
