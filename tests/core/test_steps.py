"""The steps of the book: every piece once, where it is cut from, what a step uses up, and its pages."""

from collections import Counter
from functools import lru_cache

import msgspec
import pytest

from tests.builders import METRIC
from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.drawing.build.book import book_pages, drawn_of, piece_row
from uncle_sled.core.drawing.build.step_card import step_card
from uncle_sled.core.drawing.build.step_picture import best_look, runs, step_view
from uncle_sled.core.drawing.paper import PAPERS
from uncle_sled.core.drawing.primitives import Raster, Text
from uncle_sled.core.reading.studied import study
from uncle_sled.core.round.round_pieces import round_pieces, scene
from uncle_sled.core.slow import Stopped
from uncle_sled.core.studies.build.pieces_brought import pieces_brought, spreads_brought
from uncle_sled.core.studies.build.schedule import schedule_of
from uncle_sled.core.studies.build.steps import steps
from uncle_sled.core.studies.build.tasks import shipped_tasks
from uncle_sled.core.studies.build.what_it_is import bringers
from uncle_sled.core.studies.cut.consumables import used_up
from uncle_sled.core.studies.cut.cut_from_stock import QUICK, plan_of
from uncle_sled.core.studies.cut.numbers import numbers_of, runs_of
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.core.studies.shell.screws import screw_joints
from uncle_sled.core.words import Words
from uncle_sled.exchange.demos import DEMOS, demo

WORDS = Words(METRIC)


@lru_cache(maxsize=8)
def made(name):
    project = demo(name)
    s = study(project.build, project.facts)
    schedule, plan = schedule_of(s.build, s.facts), plan_of(s.build, s.facts, QUICK)
    return s, schedule, plan, steps(s, schedule, plan)


@pytest.mark.parametrize("name", DEMOS)
def test_every_piece_stands_in_one_step_with_its_number_and_its_sheet_or_bar(name):
    s, _, _, found = made(name)
    keys = Counter(named.piece.key for step in found for one in step.pieces for named in one.named)
    start = [one.piece.key for one in pieces_brought(s.build, s.facts) if one.made == ""]
    whole = [piece.key for piece in (*take_off(s.build, s.facts).pieces, *runs_of(s.build, s.facts))]
    assert sorted([*keys.elements(), *start]) == sorted(whole)
    of = numbers_of(s.build, s.facts).of
    assert all(named.label == of[named.piece.key].label for step in found for one in step.pieces for named in one.named)
    for step in found:
        for one in step.pieces:
            for named, stock in zip(one.named, one.stock, strict=True):
                assert (stock is None) == (named.piece.kind in ("fill", "wire")) or named.piece.kind == "trim", named.piece.key
                assert stock is None or stock.material == named.piece.material
    areas = [spread for step in found for spread in step.spreads]
    assert len(areas) == sum(1 for one in spreads_brought(s.build, s.facts) if one.by)


@pytest.mark.parametrize("name", DEMOS)
def test_what_the_steps_use_up_is_what_is_bought(name):
    s, _, _, found = made(name)
    bought = {used.rule.id: used.need for used in used_up(s.build, s.facts, take_off(s.build, s.facts))}
    taken: Counter[str] = Counter()
    for step in found:
        for used in step.used:
            taken[used.rule.id] += used.need
    for rule, need in bought.items():
        assert taken[rule] == pytest.approx(need) or taken[rule] < need, rule  # of what no task here takes some is left
    assert set(taken) <= set(bought)
    screws = sum(joint.many for step in found for joint in step.screws)
    assert screws <= sum(joint.many for joint in screw_joints(s))


def test_a_floor_by_hand():
    """Eleven joists of one length, 22 ends and two screws each: 44; six sheets of three materials on them; 234 screws through both skins."""
    _, _, _, found = made("marsh-heron")
    floor = next(step for step in found if step.placed.task.id == "floor-sticks")
    joists = floor.pieces[0]
    assert len(joists.named) == 11 and joists.what == "floor sticks" and {stock.kind for stock in joists.stock} == {"bar"}
    assert next(used.need for used in floor.used if used.rule.id == "screws-frame") == 44
    assert sum(joint.many for joint in floor.screws) == 234
    row = piece_row(joists, WORDS)
    assert row[0] == "FL-1 to FL-11" and row[1] == "11" and row[4].startswith("bars ")
    on = next(step for step in found if step.placed.task.id == "floor-on")
    assert on.pieces == () and on.sets == 17
    frame = next(step for step in found if step.placed.task.id == "frame")
    assert not frame.used, "no wood screws and no glue in steel"


def test_tables_name_what_there_is():
    there = {task.id for task in shipped_tasks()}
    for task in shipped_tasks():
        assert set(task.on) <= there and (task.check or not task.list)
    assert all(set(line.made) <= there for line in bringers().values())


def test_numbers_in_words():
    assert runs(["FL-1", "FL-2", "FL-3", "FL-7", "RS-8"]) == "FL-1 to FL-3, FL-7, RS-8"
    assert runs(["SI-1 left", "SI-2 left", "SI-2 right"]) == "SI-1 left, SI-2 left, SI-2 right"
    assert runs([]) == ""


@pytest.mark.parametrize(("name", "paper"), [("rosin-box", "A4"), ("dark-sky", "Letter")])
def test_the_book_has_a_page_a_step_and_its_contents_say_which(name, paper):
    s, _, plan, _ = made(name)
    build = msgspec.structs.replace(s.build, brief=msgspec.structs.replace(s.build.brief, paper=paper))
    s = study(build, s.facts)
    schedule = schedule_of(s.build, s.facts)
    found = steps(s, schedule, plan)
    told: list[str] = []
    pages = book_pages(s, "A build", "2027-01-02", schedule, plan, lambda share, words: told.append(words))
    assert len(told) == len(found) and {(page.width, page.height) for page in pages} == {PAPERS[paper].upright}
    texts = [[shape.text for shape in page.shapes if isinstance(shape, Text)] for page in pages]
    for step in found:
        at = [k for k, page in enumerate(pages, 1) if page.title.startswith(f"{step.number}. {step.placed.task.name}")]
        assert at, step.placed.task.id
        contents = [text for k, page in enumerate(pages) if "book of the build" in page.title for text in texts[k]]
        row = contents.index(step.placed.task.name + (", done" if step.placed.task.done else ""))
        assert str(at[0]) in contents[row : row + 3]
    labels = Counter(text for page in texts for text in page)
    for step in found:
        for one in step.pieces:
            assert labels[piece_row(one, Words(s.build.brief.reading.shown()))[0]] >= 1 or len(one.named) > 3
    for page in pages:
        for shape in page.shapes:
            if isinstance(shape, Raster):
                assert len(shape.pixels) == shape.size[0] * shape.size[1]
                assert shape.at[0] + shape.wide <= page.width and shape.at[1] >= 0 and len(set(shape.pixels)) > 2

    def stop(_share, _words):
        raise Stopped

    with pytest.raises(Stopped):
        book_pages(s, "A build", "2027-01-02", schedule, plan, stop)


def test_a_step_is_drawn_from_where_it_is_seen():
    s, _, _, _ = made("orchard-keeper")
    pieces = round_pieces(s.build, s.facts)
    everything = frozenset(piece.by for piece in pieces)
    inside = step_view(pieces, "cabinets", everything - {"cabinets"})
    _, off = best_look(scene(pieces), pieces, inside)
    assert set(off) & {"left side", "right side"}, "a cabinet behind a wall is drawn without the wall"
    skin = step_view(pieces, "cladding", everything - {"cladding"})
    assert best_look(scene(pieces), pieces, skin)[1] == ()
    painted = step_view(pieces, "frame-paint", frozenset({"frame"}), ("frame",))
    assert painted.new.any() and not (painted.new & ~painted.there).any()


def test_a_step_in_large_type_and_nothing_of_an_empty_build():
    s, schedule, _, found = made("rosin-box")
    page = step_card(s, found[3], found, schedule)
    words = [shape for shape in page.shapes if isinstance(shape, Text)]
    assert any(shape.size >= 30 and found[3].placed.task.name in shape.text for shape in words)
    assert any(shape.text.startswith("True?") for shape in words)
    assert all(0 <= shape.at[0] <= page.width and 0 <= shape.at[1] <= page.height for shape in words)
    empty = study(Build("b", "b"), Facts())
    plan = plan_of(empty.build, empty.facts)
    assert book_pages(empty, "n", "d", schedule_of(empty.build, empty.facts), plan) == ()
    assert steps(s, schedule, None)[3].pieces == () or steps(s, schedule, None)[3].pieces[0].stock[0] is None


def test_a_leaf_that_is_made_here_is_drawn_in_its_own_step() -> None:
    p = demo("ferry-bell")
    s = study(p.build, p.facts)
    made = steps(s, schedule_of(s.build, s.facts), None)
    leaves = next(step for step in made if step.placed.task.id == "leaves")
    assert leaves.pieces and drawn_of(s, leaves, made) is not None, "the hatch stands strong in it, and is hung later"
    hung = next(piece for piece in round_pieces(s.build, s.facts) if piece.made == "leaves")
    assert hung.by == "windows"
    bought = [piece for piece in round_pieces(s.build, s.facts) if piece.what == "opening" and piece is not hung]
    assert bought and all(piece.made == "" for piece in bought)
