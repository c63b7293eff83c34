"""The book of a build: every task a page of its own with what it puts together, in the order of the calendar; contents before them.

For somebody who has only the paper: a picture, the pieces by number with the sheet or bar they come from, what is used up, what is at
hand, what is checked, how long it cures, what is on the ball then, and the caution of its kind of work.
"""

from __future__ import annotations

from collections.abc import Callable
from datetime import timedelta
from typing import NamedTuple

from msgspec.structs import replace

from uncle_sled.core.drawing.build.plan_chart import day_of, day_words
from uncle_sled.core.drawing.build.standing_words import standing_words
from uncle_sled.core.drawing.build.step_picture import StepView, face_pictures, runs, step_picture, step_view
from uncle_sled.core.drawing.cut.used_words import much_of
from uncle_sled.core.drawing.page import Page
from uncle_sled.core.drawing.paper import paper_of
from uncle_sled.core.drawing.primitives import Primitive, Text, placed
from uncle_sled.core.drawing.sheets import Column, Sheets
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.round.round_pieces import round_pieces, scene
from uncle_sled.core.slow import Tell, nobody
from uncle_sled.core.studies.build.at_the_dealer import still_to_survey
from uncle_sled.core.studies.build.schedule import Schedule
from uncle_sled.core.studies.build.steps import BY_NAME, Step, StepPiece, steps
from uncle_sled.core.studies.cut.consumables import counted
from uncle_sled.core.studies.cut.cut_from_stock import BuildPlan
from uncle_sled.core.studies.shell.screws import screw_size
from uncle_sled.core.wiring.wired import wired_of
from uncle_sled.core.words import Words, all_of, lower_first, upper_first

PICTURES_HIGH = (0.44, 0.38, 0.32, 0.27)  # of a page: the largest that leaves the step on one page, else the second
A_COLUMN = 16
CAUTIONS = {
    "metal": "Welding blinds and burns: mask, gloves, no foam or rags near, an extinguisher at hand, watched an hour after. Local code and a qualified welder decide.",
    "timber": "Saws maim and dust harms: guards on, eyes, ears and lungs kept. Screening only: local code and a licensed engineer decide what holds.",
    "sheets": "Sheets cut hands and pull in wind: gloves, two people outside. Dust harms lungs. On a roof from a ladder or plank, never alone.",
    "coating": "Resin, paint and solvent harm skin and lungs and burn: gloves, mask, air; rags spread out to dry; the maker’s papers decide.",
    "wiring": "A battery short burns: it stays apart until all is tested. Mains only by a licensed person.",
    "systems": "Gas, fuel and mains only by licensed people; a flame needs air and a CO alarm. The makers’ papers decide.",
    "openings": "Glass cuts: gloves, two people. Nobody under it while it is set.",
    "insulation": "Foam and fibre harm lungs and skin, foam burns with poison: mask, gloves, air, no flame.",
    "measuring": "Nobody under a load or on an unchocked trailer. Screening only: licensed people decide on gas, mains and the road.",
}
CAUTION = "Screening only: lifting, towing, mains and gas are for qualified people; makers’ papers and local code decide."


def book_pages(s: Studied, name: str, day: str, schedule: Schedule, plan: BuildPlan, tell: Tell = nobody) -> tuple[Page, ...]:
    """Contents and all steps; none where no task has a day. Args: plan: what is cut from what; tell: how far it is."""
    made = steps(s, schedule, plan)
    if not made:
        return ()
    pages: list[Page] = []
    begins: list[int] = []
    for step in made:
        tell(len(begins) / len(made), f"step {step.number} of {len(made)}: {lower_first(step.placed.task.name)}")
        begins.append(len(pages))
        pages += _step(s, name, day, schedule, step, made)
    contents = len(_contents(s, name, day, schedule, made, [0] * len(made)))
    first = _contents(s, name, day, schedule, made, [begin + contents + 1 for begin in begins])
    whole = [*first, *pages]
    return tuple(
        replace(page, shapes=(*page.shapes, Text((page.width - 34, 12), f"{k} of {len(whole)}", 8, "pencil", anchor="right")))
        for k, page in enumerate(whole, 1)
    )


def _words(s: Studied) -> Words:
    return Words(s.build.brief.reading.shown())


def _contents(s: Studied, name: str, day: str, schedule: Schedule, made: tuple[Step, ...], at: list[int]) -> tuple[Page, ...]:
    """The whole thing, then every step with its page."""
    sheets = Sheets(paper_of(s.build).upright, f"{name}: the book of the build", f"{s.build.name}, {day}", CAUTION)
    pieces = round_pieces(s.build, s.facts)
    if pieces:
        wide, high = sheets.room
        tall = high * 0.36
        view = step_view(pieces, "", frozenset(piece.by for piece in pieces))
        shapes, _ = step_picture(scene(pieces), pieces, StepView(view.there, ~view.there), {}, (wide, tall))
        sheets.picture(tall, shapes)
    words = _words(s)
    last = made[-1].after
    hours = sum(step.placed.task.mean_h for step in made)
    sheets.words(
        f"{len(made)} steps, {hours:.0f} h of work by the plan, from {day_words(schedule.begin)}. Light is what stands there already, dark what the step puts on; numbers are those on the pieces, their sheets and bars those of the cutting plan."
    )
    if last is not None:
        sheets.words(
            upper_first(standing_words(replace(last, brings_kg=0.0), words, s.build.rig.carrier == "vehicle bed").removeprefix("Then "))
        )
    _survey(s, sheets, schedule, words)
    sheets.gap()
    heads = (Column("Step", right=True), Column("What", wraps=True), Column("Done by", right=True), Column("Page", right=True))
    rows = []
    for step, page in zip(made, at, strict=True):
        task = step.placed.task
        when = day_of(schedule.begin, step.placed.end)
        rows.append((str(step.number), task.name + (", done" if task.done else ""), when, str(page)))
    half = -(-len(rows) // 2) if len(rows) > A_COLUMN else len(rows)
    beside = [(*rows[k], *(rows[k + half] if k + half < len(rows) else ("",) * len(heads))) for k in range(half)]
    sheets.table((*heads, *heads), beside, size=9)
    return sheets.done()


def _survey(s: Studied, sheets: Sheets, schedule: Schedule, words: Words) -> None:
    """What is measured on the real thing before anything hangs on it, while it is not there."""
    sizes = still_to_survey(s, schedule)
    if sizes:
        sheets.head("Measured before anything hangs on it, at the dealer if it is bought")
        rows = [
            ("[  ]", one.name, words.cut(one.drawn_m), words.cut(one.within_m) if one.within_m is not None else "not known", one.why)
            for one in sizes
        ]
        sheets.table(
            (Column(""), Column("What", wraps=True), Column("Drawn", right=True), Column("Within", right=True), Column("Else", wraps=True)),
            rows,
            size=9,
        )


def _step(s: Studied, name: str, day: str, schedule: Schedule, step: Step, made: tuple[Step, ...]) -> tuple[Page, ...]:
    high = paper_of(s.build).high
    drawn = drawn_of(s, step, made)
    if drawn is None:
        return _laid(s, name, day, schedule, step, made, 0.0, None)
    fits = (each for each in PICTURES_HIGH if len(_laid(s, name, day, schedule, step, made, each * high, None)) == 1)
    return _laid(s, name, day, schedule, step, made, next(fits, PICTURES_HIGH[1]) * high, drawn)


Room = tuple[float, float]
FACE_HIGH, BETWEEN = 0.19, 10.0  # of a page, a face drawn square on; points between two


class Drawn(NamedTuple):
    """What makes the pictures of a step in a room of points: the whole, with what is taken off for it, and each face of it."""

    whole: Callable[[Room], tuple[tuple[Primitive, ...], tuple[str, ...]]]
    faces: Callable[[Room], tuple[tuple[str, tuple[Primitive, ...]], ...]]


def _faces(sheets: Sheets, drawn: Drawn) -> None:
    """Its faces square on, two beside each other."""
    wide, tall = (sheets.room[0] - BETWEEN) / 2, FACE_HIGH * sheets.high
    found = drawn.faces((wide, tall))
    for k in range(0, len(found), 2):
        shapes: list[Primitive] = []
        for at, (kind, picture) in enumerate(found[k : k + 2]):
            x = at * (wide + BETWEEN)
            shapes += placed(picture, 1.0, x, 0.0)
            shapes.append(Text((x, tall + 7), upper_first(kind), 10, "ink", "strong", "left"))
        sheets.picture(tall + 16, shapes)


def _laid(
    s: Studied, name: str, day: str, schedule: Schedule, step: Step, made: tuple[Step, ...], tall: float, drawn: Drawn | None
) -> tuple[Page, ...]:
    """The pages of a step. Args: tall: room of its picture; drawn: what makes it, None: the room stays empty, to see what it leaves."""
    words, task = _words(s), step.placed.task
    sheets = Sheets(paper_of(s.build).upright, f"{step.number}. {task.name}", f"{name}, {day}", CAUTIONS.get(task.kind, CAUTION))
    for text in step_lines(step, schedule, words):
        sheets.words(text)
    if tall > 0:
        shapes, off = drawn.whole((sheets.room[0], tall)) if drawn is not None else ((), ("roof",))
        sheets.picture(tall, shapes)
        if off:
            sheets.words(f"Drawn without {all_of(off)}, so that it is seen.", 9, "pencil")
    for text in _set_words(step, made):
        sheets.words(text, face="strong")
    if drawn is not None:
        _faces(sheets, drawn)
    _pieces(sheets, step, words)
    _takes(sheets, step, words)
    if task.needs:
        sheets.head("At hand")
        sheets.words(upper_first(words.told(task.needs)))
    _checks(sheets, step, words)
    sheets.head("Then")
    if task.cure_h:
        warm = f", not under {words.degrees(task.floor_c)}" if task.floor_c is not None else ""
        sheets.words(f"It cures {task.cure_h:.0f} h at {words.degrees(20.0)}, longer when colder{warm}; nobody works on it meanwhile.")
    if step.after is not None:
        sheets.words(standing_words(step.after, words, s.build.rig.carrier == "vehicle bed"))
    return sheets.done()


def _set_words(step: Step, made: tuple[Step, ...]) -> list[str]:
    """What it sets up that was put together before; where what it puts together is set up later."""
    told = []
    if step.sets:
        of = ", ".join(f"step {other.number}" for other in made if other.pieces and _sets(step, other))
        told.append(f"Sets up {step.sets} pieces that were put together before{f' in {of}' if of else ''}.")
    later = next((other for other in made if other.number > step.number and other.sets and _sets(other, step)), None)
    if later is not None and step.pieces:
        told.append(f"Put together in the shop and set up in step {later.number}; drawn where it will stand.")
    return told


def _sets(step: Step, other: Step) -> bool:
    """Whether a step sets up what another one put together: it waits for it."""
    return other.number < step.number and other.placed.task.id in step.placed.task.after


def step_lines(step: Step, schedule: Schedule, words: Words) -> list[str]:
    """When, how long, with how many, where, how warm."""
    placed, task = step.placed, step.placed.task
    begin, end = (schedule.begin + timedelta(days=int(at)) for at in (placed.begin, placed.end))
    when = day_words(begin) if begin == end else f"{day_words(begin)} to {day_words(end)}"
    hands = "alone" if task.hands <= 1 else f"{task.hands} pairs of hands"
    warm = f", {words.degrees(task.least_c)} or warmer" if task.least_c is not None else ""
    dry = ", a dry day" if task.dry and task.space == "outside" else ""
    done = f" Done on {task.done}." if task.done else ""
    lines = [
        f"{when}; {task.mean_h:.1f} h ({task.low:.1f} to {task.high:.1f}), {hands}, {'outside' if task.space == 'outside' else 'in the shop'}{warm}{dry}.{done}"
    ]
    if task.because:
        lines.append(f"Not before {task.ready}: {words.told(task.because)}.")
    return lines


def drawn_of(s: Studied, step: Step, made: tuple[Step, ...]) -> Drawn | None:
    """What makes the picture of a step; None where nothing of it has a shape."""
    pieces = round_pieces(s.build, s.facts)
    if not pieces:
        return None
    task = step.placed.task
    before = frozenset(other.placed.task.id for other in made if other.number < step.number)
    view = step_view(pieces, task.id, before, task.on)
    wired = any(one.what == "wiring" for one in step.pieces)
    wires = tuple((wire.number, wire.points) for wire in wired_of(s.build, s.framed).wires) if wired else ()
    if not view.there.any() or not (view.new.any() or wires):
        return None
    labels = {named.piece.key: named.label for one in step.pieces for named in one.named}
    labels |= {named.piece.whole: named.label for one in step.pieces for named in one.named if named.piece.whole not in labels}
    return Drawn(
        lambda room: step_picture(scene(pieces), pieces, view, labels, room, wires),
        lambda room: face_pictures(scene(pieces), pieces, view, labels, room),
    )


def _pieces(sheets: Sheets, step: Step, words: Words) -> None:
    if not step.pieces and not step.parts and not step.spreads:
        return
    sheets.head("Pieces")
    heads = (
        Column("No.", wraps=True),
        Column("", right=True),
        Column("What", wraps=True),
        Column("Size", right=True),
        Column("From", wraps=True),
    )
    rows = [piece_row(one, words) for one in step.pieces]
    rows += [("", "1", one.part.name, words.fine_kg(one.mass_kg), "as it is") for one in step.parts]
    rows += [
        ("", "", f"{words.material(spread.material)}, {spread.of}", words.m2(spread.area_m2), "roll or tin") for spread in step.spreads
    ]
    sheets.table(heads, rows, size=9)


def piece_row(one: StepPiece, words: Words) -> tuple[str, ...]:
    piece = one.named[0].piece
    numbers = runs([named.label for named in one.named])
    called = piece.name if piece.kind in ("bar", "trim") or one.what in BY_NAME else one.what
    what = upper_first(called if one.what in BY_NAME or piece.of in called else f"{called}, {piece.of}")
    if piece.kind == "wire":
        size = words.m(piece.length_m)
    elif piece.kind in ("bar", "trim"):
        size = words.cut(piece.length_m)
    else:
        size = f"{words.cut(piece.length_m)} × {words.cut(piece.width_m)}"
    return numbers, str(len(one.named)), what, size, _from(one, words)


def _from(one: StepPiece, words: Words) -> str:
    """Sheets or bars of which material."""
    piece = one.named[0].piece
    stocks = [stock for stock in one.stock if stock is not None]
    material = words.material(piece.material)
    if not stocks:
        return f"{material}, by knife" if piece.kind == "fill" else material
    kind = stocks[0].kind
    numbers = sorted({stock.number for stock in stocks})
    return f"{kind}{'' if len(numbers) == 1 else 's'} {_spans(numbers)} of {material}"


def _spans(numbers: list[int]) -> str:
    spans: list[list[int]] = []
    for number in numbers:
        if spans and number == spans[-1][-1] + 1:
            spans[-1].append(number)
        else:
            spans.append([number])
    return ", ".join(
        str(span[0]) if len(span) == 1 else f"{span[0]} to {span[-1]}" if len(span) > 2 else f"{span[0]}, {span[1]}" for span in spans
    )


def _takes(sheets: Sheets, step: Step, words: Words) -> None:
    rows = []
    sized: dict[tuple[float, float], tuple[int, list[str]]] = {}
    for joint in step.screws:
        if joint.long_m is None:
            rows.append(("Screws", str(joint.many), f"{joint.face}, {joint.name}: none that is sold is short enough, see Joints"))
            continue
        size = (joint.thick_m, joint.long_m)
        many, where = sized.get(size, (0, []))
        sized[size] = (many + joint.many, [*where, f"{joint.face}, {joint.name}"])
    for (thick, long), (many, where) in sized.items():
        rows.append((f"Screws {screw_size(thick, long, words)}", str(many), "; ".join(where)))
    for used in step.used:
        rows.append((words.told(used.rule.name), much_of(used, words), words.told(counted(used, words))))
    if rows:
        sheets.head("Takes")
        sheets.table((Column("What", wraps=True), Column("How much", right=True), Column("Where", wraps=True)), rows, size=9)


def checks_of(step: Step) -> list[str]:
    """What must be true before one goes on: of the task, then of its checklist."""
    return [part.strip() for part in step.placed.task.check.split(";") if part.strip()] + list(step.checks)


def _checks(sheets: Sheets, step: Step, words: Words) -> None:
    told = checks_of(step)
    if told:
        sheets.head("True before you go on")
        for text in told:
            sheets.words(f"[  ]  {upper_first(words.told(text))}")
