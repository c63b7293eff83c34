"""Pages of what is built inside: every cabinet with its boards, every bed base, every hatch on its struts. Landscape A4."""

from __future__ import annotations

from uncle_sled.core.drawing.page import POINTS_PER_M, Page, standard_under
from uncle_sled.core.drawing.primitives import Primitive, Text, line, placed
from uncle_sled.core.drawing.stow.bed_drawn import bed_drawn, bed_fit
from uncle_sled.core.drawing.stow.cabinet_drawn import cabinet_drawn, cabinet_fit, piece_lines
from uncle_sled.core.drawing.stow.lid_drawn import hand_chart, lid_drawn, lid_fit
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.parts.all_parts import cabinets_of
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.stow.carries import carries
from uncle_sled.core.studies.stow.hinged import Hinged, hinged
from uncle_sled.core.words import Words

WIDTH, HEIGHT, EDGE = 842.0, 595.0, 34.0
LIST_W, ROW, MOST = 230.0, 12.0, 34
CAUTION = "Screening only. Cut one and try it in its place before the rest. Mask against dust."


def built_pages(s: Studied, name: str, printed: str) -> tuple[Page, ...]:
    """None where nothing is built."""
    words = Words(s.build.brief.reading.shown())
    pages: list[Page] = []
    made = cabinets_of(s.build, s.facts)
    checks = carries(s)
    for thing in s.build.stow.things:
        board = made.get(thing.id)
        if board is not None and board.good and thing.cabinet is not None:
            room = (WIDTH - 2 * EDGE - LIST_W, HEIGHT - 2 * EDGE - 40)
            n = standard_under(cabinet_fit(board, *room))
            shapes = _head(f"{name}: {thing.name}", f"flat views 1 : {n} on A4", printed)
            shapes += placed(cabinet_drawn(board, thing.cabinet, words, *room, POINTS_PER_M / n), 1.0, EDGE, EDGE + 10)
            lines = [f"{len(board.boards)} boards, {words.kg(board.mass_kg)}", *piece_lines(board, words, MOST)]
            shapes += _list(lines)
            pages.append(Page(WIDTH, HEIGHT, tuple(shapes), f"{name}: {thing.name}"))
        if thing.base is not None and not thing.taken_out:
            said = tuple(check for check in checks if check.thing == thing.id)
            room = (WIDTH - 2 * EDGE - LIST_W, HEIGHT - 2 * EDGE - 60)
            n = standard_under(bed_fit(thing, *room))
            shapes = _head(f"{name}: {thing.name}, its base", f"1 : {n} on A4", printed)
            shapes += placed(bed_drawn(thing, said, words, *room, POINTS_PER_M / n), 1.0, EDGE, EDGE + 20)
            shapes += _list([f"{c.name}: {c.use * 100:.0f} %" if c.use is not None else f"{c.name}: not checked" for c in said])
            pages.append(Page(WIDTH, HEIGHT, tuple(shapes), f"{name}: {thing.name}, its base"))
    for lid in hinged(s):
        if lid.turning is not None:
            pages.append(_lid(lid, words, name, printed))
    return tuple(pages)


def _head(title: str, scale: str, printed: str) -> list[Primitive]:
    return [
        Text((EDGE, HEIGHT - EDGE - 6), elided(title, 16, 560, "head"), 16, "ink", "head", "left"),
        Text((WIDTH - EDGE, HEIGHT - EDGE - 6), f"{scale}, {printed}", 10, "pencil", "text", "right"),
        line((EDGE, HEIGHT - EDGE - 18), (WIDTH - EDGE, HEIGHT - EDGE - 18), "rule"),
        Text((EDGE, EDGE - 12), CAUTION, 8, "pencil", "text", "left"),
    ]


def _list(lines: list[str]) -> list[Primitive]:
    x, y = WIDTH - EDGE - LIST_W, HEIGHT - EDGE - 36
    return [Text((x, y - k * ROW), elided(text, 10, LIST_W), 10, "ink", anchor="left") for k, text in enumerate(lines)]


def _lid(leaf: Hinged, words: Words, name: str, printed: str) -> Page:
    half, high = (WIDTH - 2 * EDGE) / 2, HEIGHT - 2 * EDGE - 70
    n = standard_under(lid_fit(leaf, half, high))
    shapes = _head(f"{name}: {leaf.name} on its struts", f"1 : {n} on A4", printed)
    shapes += placed(lid_drawn(leaf, words, half, high, POINTS_PER_M / n), 1.0, EDGE, EDGE + 30)
    shapes += placed(hand_chart(leaf, words, half, high), 1.0, EDGE + half, EDGE + 30)
    if leaf.strut is not None:
        size = f"{leaf.strut.many} struts {words.thick(leaf.strut.shut.si)} to {words.thick(leaf.strut.open.si)}, {words.fine_newtons(leaf.strut.force_n)} each"
        mounts = f"on the body {words.thick(leaf.strut.body_x.si)} out, {words.thick(leaf.strut.body_z.si)} up; on the leaf {words.thick(leaf.strut.lid_x.si)} out, {words.thick(leaf.strut.lid_z.si)} up, from the hinge"
        shapes.append(Text((EDGE, EDGE + 14), elided(f"{size}; {mounts}", 11, WIDTH - 2 * EDGE), 11, "ink", anchor="left"))
    return Page(WIDTH, HEIGHT, tuple(shapes), f"{name}: {leaf.name} on its struts")
