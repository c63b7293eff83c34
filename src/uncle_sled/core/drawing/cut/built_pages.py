"""Pages of what is built inside: every cabinet with its boards, every bed base, every hatch on its struts."""

from __future__ import annotations

from uncle_sled.core.document.stow import Thing
from uncle_sled.core.drawing.cut.work_words import board_work
from uncle_sled.core.drawing.page import POINTS_PER_M, Page, standard_under
from uncle_sled.core.drawing.paper import paper_of
from uncle_sled.core.drawing.primitives import placed
from uncle_sled.core.drawing.sheets import Column, Sheets
from uncle_sled.core.drawing.stops import stop_words
from uncle_sled.core.drawing.stow.bed_drawn import bed_drawn, bed_fit
from uncle_sled.core.drawing.stow.cabinet_drawn import cabinet_drawn, cabinet_fit, exploded
from uncle_sled.core.drawing.stow.lid_drawn import hand_chart, lid_drawn, lid_fit
from uncle_sled.core.parts.all_parts import cabinets_of
from uncle_sled.core.parts.cabinet import Board
from uncle_sled.core.parts.cabinet_cut import Fitted
from uncle_sled.core.parts.cabinet_edges import band_m, seen_edges
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.cut.numbers import Named, numbers_of
from uncle_sled.core.studies.stow.carries import carries
from uncle_sled.core.studies.stow.hinged import Hinged, hinged
from uncle_sled.core.words import Words

CAUTION = "Screening only. Cut one and try it in its place before the rest. Mask against dust."
# what is put together first; the rest as it comes
FIRST = ("bottom", "end", "divider", "shelf", "back", "top", "worktop", "face frame")


def built_pages(s: Studied, name: str, printed: str) -> tuple[Page, ...]:
    """None where nothing is built."""
    pages: list[Page] = []
    made = cabinets_of(s.build, s.facts)
    for thing in s.build.stow.things:
        fitted = made.get(thing.id)
        if fitted is not None and fitted.good and thing.cabinet is not None:
            pages += _cabinet(s, thing, fitted, name, printed)
        if thing.base is not None and not thing.taken_out:
            pages += _bed(s, thing, name, printed)
    for lid in hinged(s):
        if lid.turning is not None:
            pages += _lid(s, lid, name, printed)
    return tuple(pages)


def _cabinet(s: Studied, thing: Thing, fitted: Fitted, name: str, printed: str) -> tuple[Page, ...]:
    """Flat views with measures, all boards pulled apart with their numbers, and of every board size, place and what is sawn out."""
    assert thing.cabinet is not None
    words, size = Words(s.build.brief.reading.shown()), paper_of(s.build).lying
    room = (size[0] - 68, size[1] - 130)
    n = standard_under(cabinet_fit(fitted, *room))
    sheets = Sheets(size, f"{name}: {thing.name}", f"flat views 1 : {n}, {printed}", CAUTION)
    sheets.stops(stop_words(s, ("Stow",), where=(thing.id,)))
    sheets.picture(
        min(room[1], sheets.room[1]), cabinet_drawn(fitted, thing.cabinet, words, room[0], min(room[1], sheets.room[1]), POINTS_PER_M / n)
    )
    named = [numbered for numbered in numbers_of(s.build, s.facts).named if numbered.piece.of == thing.id]
    numbers: dict[str, str] = {}
    for numbered in named:
        id = numbered.piece.key.removeprefix(f"{thing.id}/")
        board_id = id if any(board.id == id for board in fitted.boards) else id.rpartition("/")[0]
        numbers[board_id] = f"{numbers[board_id]}, {numbered.label}" if board_id in numbers else numbered.label
    sheets.fresh()
    wide, high = sheets.room
    sheets.picture(high * 0.72, exploded(fitted, numbers, wide, high * 0.72))
    sheets.words(
        f"{len(fitted.boards)} boards, {words.kg(fitted.mass_kg)}. Places from the cabinet's left end, from its front, and from its foot, as one stands before it."
    )
    hardware = _hardware(fitted, words)
    if hardware:
        sheets.words(f"Hardware: {hardware}.")
    sheets.words(
        f"Edges that are seen stand thick in the drawing and by their side in the table: {words.m(band_m(fitted.boards))} of band in all; band or oil them before they are hung."
    )
    sheets.words("Put together in this order, glued and screwed as its card says; doors, drawers and lids last, hung in place.")
    heads = [
        Column("Step", right=True),
        Column("No."),
        Column("Board"),
        Column("Long × wide × thick", right=True),
        Column("Of", wraps=True),
    ]
    places = ("Across, from", "to", "Back, from", "to", "Up, from", "to")
    sheets.table(
        (*heads, *(Column(text, right=True) for text in places), Column("Band", wraps=True), Column("Work", wraps=True)),
        _boards(fitted, numbers, named, words),
        size=9,
    )
    return sheets.done()


def _hardware(fitted: Fitted, words: Words) -> str:
    """What is bought for it beside its boards, by the carcass as it was parted."""
    carcass = fitted.carcass
    told = [f"{carcass.hinges} hinges"] if carcass.hinges else []
    for long in sorted(set(carcass.slides_m)):
        many = carcass.slides_m.count(long)
        told.append(f"{many} {'pair' if many == 1 else 'pairs'} of slides {words.cut(long)}")
    if carcass.pockets:
        told.append(f"{carcass.pockets} pocket screws")
    sliding = sum(1 for board in fitted.boards if board.kind == "sliding door")
    if sliding:
        told.append(f"tracks for {sliding} sliding doors")
    return ", ".join(told)


GRAIN = {"along": "grain along its length", "across": "grain across it"}


def _step(board: Board) -> tuple[object, ...]:
    first = next((k for k, kind in enumerate(FIRST) if kind in board.kind), len(FIRST))
    return board.moves, first, board.box[0]


def _boards(fitted: Fitted, numbers: dict[str, str], named: list[Named], words: Words) -> list[tuple[str, ...]]:
    """Every board in the order of putting together."""
    by_label = {numbered.label: numbered.piece for numbered in named}
    rows = []
    for step, board in enumerate(sorted(fitted.boards, key=_step), 1):
        label = numbers.get(board.id, "")
        piece = by_label.get(label.split(", ")[0])
        low, high = board.box
        place = [words.cut(v) for k in range(3) for v in (low[k], high[k])]
        sides = sorted((high[k] - low[k] for k in range(3) if k != board.normal), reverse=True)
        size = f"{words.cut(sides[0])} × {words.cut(sides[1])} × {words.layer(board.thick)}"
        work = "; ".join(text for text in (board_work(piece, words), GRAIN.get(piece.grain, "")) if text) if piece is not None else ""
        of = words.material(piece.material) if piece is not None else ""
        rows.append((str(step), label, board.kind, size, of, *place, _band(board, fitted), work))
    return rows


def _band(board: Board, fitted: Fitted) -> str:
    sides = [edge.side for edge in seen_edges(board, fitted.boards)]
    return "all round" if len(sides) == 4 else ", ".join(sides)


def _bed(s: Studied, thing: Thing, name: str, printed: str) -> tuple[Page, ...]:
    words, size = Words(s.build.brief.reading.shown()), paper_of(s.build).lying
    said = tuple(check for check in carries(s) if check.thing == thing.id)
    room = (size[0] - 68, (size[1] - 130) * 0.75)
    n = standard_under(bed_fit(thing, *room))
    sheets = Sheets(size, f"{name}: {thing.name}, its base", f"1 : {n}, {printed}", CAUTION)
    sheets.stops(stop_words(s, ("Stow",), where=(thing.id,)))
    sheets.picture(room[1], bed_drawn(thing, said, words, *room, POINTS_PER_M / n))
    for check in said:
        use = f"{check.use * 100:.0f} % of what it may" if check.use is not None else "not checked"
        sheets.words(f"{check.name}: {use}", ink="primer" if check.use is not None and check.use > 1 else "ink")
    return sheets.done()


def _lid(s: Studied, leaf: Hinged, name: str, printed: str) -> tuple[Page, ...]:
    words, size = Words(s.build.brief.reading.shown()), paper_of(s.build).lying
    half, high = (size[0] - 68) / 2, size[1] - 190
    n = standard_under(lid_fit(leaf, half, high))
    sheets = Sheets(size, f"{name}: {leaf.name} on its struts", f"1 : {n}, {printed}", CAUTION)
    sheets.stops(stop_words(s, ("Stow", "Shell"), where=(leaf.id,)))
    chart = placed(hand_chart(leaf, words, half, high), 1.0, half, 0.0)
    sheets.picture(high, (*lid_drawn(leaf, words, half, high, POINTS_PER_M / n), *chart))
    if leaf.strut is not None:
        strut = leaf.strut
        sheets.words(
            f"{strut.many} struts {words.thick(strut.shut.si)} to {words.thick(strut.open.si)}, {words.fine_newtons(strut.force_n)} each"
        )
        sheets.words(
            f"Mounts from the hinge: on the body {words.thick(strut.body_x.si)} out, {words.thick(strut.body_z.si)} up; on the leaf {words.thick(strut.lid_x.si)} out, {words.thick(strut.lid_z.si)} up"
        )
    return sheets.done()
