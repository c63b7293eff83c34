"""A step of the book in type that is read from two metres: its picture, its pieces with where they come from, what must be true."""

from __future__ import annotations

from uncle_sled.core.drawing.build.book import CAUTION, CAUTIONS, checks_of, drawn_of, piece_row, step_lines
from uncle_sled.core.drawing.build.standing_words import standing_words
from uncle_sled.core.drawing.page import Page
from uncle_sled.core.drawing.paper import paper_of
from uncle_sled.core.drawing.primitives import Primitive, Text, line, placed
from uncle_sled.core.drawing.text_width import elided, wrapped
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.build.schedule import Schedule
from uncle_sled.core.studies.build.steps import Step
from uncle_sled.core.words import Words, count_of, upper_first

EDGE, HEAD, BIG, SMALL = 30.0, 34.0, 17.0, 13.0
MOST_PIECES, MOST_CHECKS = 7, 4
PICTURE = 0.58  # of the page's width


def step_card(s: Studied, step: Step, made: tuple[Step, ...], schedule: Schedule) -> Page:
    """One lying page. Args: made: all steps; schedule: that they are of."""
    words, task = Words(s.build.brief.reading.shown()), step.placed.task
    wide, high = paper_of(s.build).lying
    title = f"{step.number}. {task.name}"
    shapes: list[Primitive] = [
        Text((EDGE, high - 40), elided(title, HEAD, wide - 2 * EDGE - 130, "head"), HEAD, "ink", "head", "left"),
        Text((wide - EDGE, high - 38), f"step {step.number} of {len(made)}", 18, "pencil", anchor="right"),
        line((EDGE, high - 62), (wide - EDGE, high - 62), "ink", 2.0),
    ]
    top, foot = high - 74, 46.0
    drawn = drawn_of(s, step, made)
    left = EDGE
    if drawn is not None:
        room = (wide * PICTURE - EDGE, top - foot - 40)
        picture, off = drawn.whole(room)
        shapes += placed(picture, 1.0, EDGE, foot + 40)
        if off:
            shapes.append(Text((EDGE, foot + 32), f"Drawn without {', '.join(off)}.", 11, "pencil", anchor="left"))
        left = wide * PICTURE + 14
    _told(shapes, step, schedule, words, (left, wide - EDGE - left), top, foot + 40)
    after = standing_words(step.after, words, s.build.rig.carrier == "vehicle bed") if step.after is not None else ""
    shapes += [
        Text((EDGE, foot + 14 - 15 * k), row, SMALL, "ink", anchor="left")
        for k, row in enumerate(wrapped(after, SMALL, wide - 2 * EDGE)[:2])
    ]
    caution = wrapped(CAUTIONS.get(task.kind, CAUTION), 10, wide - 2 * EDGE)[:1]
    shapes += [Text((EDGE, 12), row, 10, "pencil", anchor="left") for row in caution]
    return Page(wide, high, tuple(shapes), title)


def _told(
    shapes: list[Primitive], step: Step, schedule: Schedule, words: Words, room: tuple[float, float], top: float, foot: float
) -> None:
    """Words beside the picture, as many as have room."""
    x, wide = room
    y = top

    def put(text: str, size: float, ink: str = "ink", strong: bool = False) -> None:
        nonlocal y
        for row in wrapped(text, size, wide, "strong" if strong else "text"):
            if y - size < foot:
                return
            shapes.append(Text((x, y - size / 2), row, size, ink, "strong" if strong else "text", "left"))
            y -= size * 1.28

    for text in step_lines(step, schedule, words):
        put(text, SMALL, "pencil")
    y -= 6
    for one in step.pieces[:MOST_PIECES]:
        numbers, many, what, size, source = piece_row(one, words)
        put(f"{numbers}", BIG, strong=True)
        put(f"{many} × {what}, {size}; {source}", SMALL)
    if len(step.pieces) > MOST_PIECES:
        put(f"and {count_of(len(step.pieces) - MOST_PIECES, 'more line')} in the book", SMALL, "pencil")
    for part in step.parts[:MOST_PIECES]:
        put(f"{part.part.name}, {words.fine_kg(part.mass_kg)}", BIG, strong=True)
    if step.placed.task.needs:
        y -= 6
        put(f"At hand: {words.told(step.placed.task.needs)}", BIG)
    told = checks_of(step)[:MOST_CHECKS]
    if told:
        y -= 6
        for text in told:
            put(f"True? {upper_first(words.told(text))}", BIG, "chalk")
