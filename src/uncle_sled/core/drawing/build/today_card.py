"""Today's three: what can be taken up next, in large type for the shop wall. Points, y up."""

from __future__ import annotations

from datetime import timedelta

from uncle_sled.core.drawing.build.plan_chart import day_words
from uncle_sled.core.drawing.page import Page
from uncle_sled.core.drawing.paper import Paper
from uncle_sled.core.drawing.primitives import Primitive, Text, line
from uncle_sled.core.drawing.text_width import elided, wrapped
from uncle_sled.core.studies.build.schedule import Placed, Schedule, startable
from uncle_sled.core.words import Words


def today_card(schedule: Schedule, words: Words, wide: float, high: float) -> tuple[Primitive, ...]:
    """Three things with what they need at hand; nothing where nothing can be begun."""
    three = startable(schedule)
    if not three:
        return ()
    shapes: list[Primitive] = []
    each = (high - 24) / 3
    large = min(max(each / 5, 17.0), 34.0)
    for k, placed in enumerate(three):
        top = high - 14 - k * each
        shapes.append(Text((18, top - large * 0.7), f"{k + 1}", large * 1.2, "chalk", "head", "left"))
        left = 18 + large * 1.5
        room = wide - left - 18
        shapes.append(Text((left, top - large * 0.7), elided(placed.task.name, large, room, "head"), large, "ink", "head", "left"))
        y = top - large * 1.75
        for text, ink in _lines(placed, schedule, words):
            for part in wrapped(text, large * 0.55, room)[:2]:
                if y < top - each + 10:
                    break
                shapes.append(Text((left, y), part, large * 0.55, ink, anchor="left"))
                y -= large * 0.8
        if k < len(three) - 1:
            shapes.append(line((18, top - each + 6), (wide - 18, top - each + 6), "rule"))
    return tuple(shapes)


def _lines(placed: Placed, schedule: Schedule, words: Words) -> list[tuple[str, str]]:
    task = placed.task
    when = schedule.begin + timedelta(days=placed.days[0])
    hands = "alone" if task.hands <= 1 else f"{task.hands} pairs of hands"
    warm = f", {words.degrees(task.least_c)} or warmer" if task.least_c is not None else ""
    dry = ", a dry day" if task.dry and task.space == "outside" else ""
    made = [
        (f"{day_words(when)}, {task.left_h:.0f} h, {hands}, {'outside' if task.space == 'outside' else 'in the shop'}{warm}{dry}", "ink")
    ]
    if task.needs:
        made.append((f"At hand: {words.told(task.needs)}", "pencil"))
    if task.cure_h:
        made.append((f"Then it cures {task.cure_h:.0f} h at {words.degrees(20.0)}, longer when colder", "ochre word"))
    if task.because:
        made.append((f"Waits for: {words.told(task.because)} ({task.ready})", "primer"))
    return made


def today_pages(schedule: Schedule, words: Words, paper: Paper, name: str) -> tuple[Page, ...]:
    """The next three tasks large on one page; none where nothing is placed."""
    wide, high = paper.lying
    shapes = today_card(schedule, words, wide, high - 50)
    if not shapes:
        return ()
    head = Text((18, high - 30), f"{name}: the next three", 22, "ink", "head", "left")
    return (Page(wide, high, (head, *shapes), "Today"),)
