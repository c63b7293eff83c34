"""Labels to stick on pieces: number, what it is, sizes, wall in its hatch. Pages in points."""

from __future__ import annotations

from uncle_sled.core.drawing.cut.look import look_of_face
from uncle_sled.core.drawing.cut.work_words import piece_work
from uncle_sled.core.drawing.page import Page
from uncle_sled.core.drawing.paper import paper_of
from uncle_sled.core.drawing.primitives import Primitive, Text, rect
from uncle_sled.core.drawing.text_width import elided, wrapped
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.cut.numbers import Named, numbers_of
from uncle_sled.core.words import Words

EDGE, ACROSS, HIGH = 28.0, 3, 74.0


def label_pages(s: Studied, name: str, day: str) -> tuple[Page, ...]:
    """Three labels across, all pieces of a face together. Jigs for slanted ends are templates."""
    named = numbers_of(s.build, s.facts).named
    if not named:
        return ()
    words = Words(s.build.brief.reading.shown())
    wide, high = paper_of(s.build).upright
    each = (wide - 2 * EDGE) / ACROSS
    down = int((high - 2 * EDGE - 20) // HIGH)
    order = sorted(named, key=lambda numbered: (numbered.piece.of, *numbered.order[1:]))
    pages = []
    for begin in range(0, len(order), ACROSS * down):
        shapes: list[Primitive] = [Text((EDGE, high - EDGE), f"{name}, {s.build.name}, {day}", 10, "pencil", anchor="left")]
        for k, numbered in enumerate(order[begin : begin + ACROSS * down]):
            x, y = EDGE + (k % ACROSS) * each, high - EDGE - 12 - (k // ACROSS + 1) * HIGH
            shapes += _label(numbered, words, x, y, each)
        pages.append(Page(wide, high, tuple(shapes), f"Labels {begin // (ACROSS * down) + 1}"))
    return tuple(pages)


def _label(numbered: Named, words: Words, x: float, y: float, wide: float) -> list[Primitive]:
    ink, hatch = look_of_face(numbered.piece.of)
    room = wide - 44
    size = words.cut(numbered.piece.length_m) + (f" x {words.cut(numbered.piece.width_m)}" if numbered.piece.width_m else "")
    worked = piece_work(numbered.piece, words)
    rows = wrapped(f"{size}; {worked}" if worked else size, 8, room)
    if len(rows) > 2:
        rows = [size, "worked as its page has it"]
    mark = {"draft": " (draft)", "changed": " (changed)", "as printed": ""}[numbered.standing]
    return [
        rect(x + 2, y + 2, wide - 4, HIGH - 6, stroke="rule"),
        rect(x + 6, y + 8, 20, HIGH - 18, stroke="ink", fill=ink, hatch=hatch, tint=0.3, id=numbered.piece.key),
        Text((x + 32, y + HIGH - 20), elided(numbered.label + mark, 15, room, "strong"), 15, "ink", "strong", "left"),
        Text((x + 32, y + HIGH - 36), elided(f"{numbered.piece.of}, {numbered.piece.name}", 9, room), 9, anchor="left"),
        *[Text((x + 32, y + HIGH - 46 - 9 * k), row, 8, anchor="left") for k, row in enumerate(rows)],
        Text((x + 32, y + HIGH - 64), elided(words.material(numbered.piece.material), 8, room), 8, "pencil", anchor="left"),
    ]
