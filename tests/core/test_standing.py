"""What each task brings, and what stands there after it."""

import random

import msgspec
import pytest

from tests.builders import METRIC, a_body, a_build, a_rig, a_tank, a_thing
from tests.core.test_kept_equals_fresh import an_edit
from uncle_sled.core.document.edits import apply
from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import Face, Layer
from uncle_sled.core.document.work import BroughtBy
from uncle_sled.core.drawing.build.standing_words import standing_words, there_words
from uncle_sled.core.errors import SledError
from uncle_sled.core.parts.all_parts import parts_of
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.build.brought import brought
from uncle_sled.core.studies.build.schedule import schedule_of
from uncle_sled.core.studies.build.standing import done_by, on_day, standing, states_of
from uncle_sled.core.studies.build.tasks import shipped_tasks, tasks_of
from uncle_sled.core.studies.build.what_it_is import START, TRIP, bringers
from uncle_sled.core.words import Words
from uncle_sled.exchange.demos import DEMOS, demo

PLAIN = Words(METRIC)


def after(build, facts=None):
    s = study(build, facts or Facts())
    return {one.task: one for one in standing(s, schedule_of(s.build, s.facts))}


@pytest.mark.parametrize("name", DEMOS)
def test_all_tasks_together_bring_the_whole_build_whatever_is_edited(name):
    rng, project = random.Random(f"brought {name}"), demo(name)
    build, facts = project.build, project.facts
    for _ in range(8):
        pieces, parts = brought(build, facts), parts_of(build, facts)
        for part in parts:
            assert sum(piece.mass_kg for piece in pieces if piece.part.id == part.id) == pytest.approx(part.mass_kg)
        assert {piece.part.id for piece in pieces} == {part.id for part in parts}
        here = {task.id for task in tasks_of(build, facts)} | {START, TRIP}
        assert {piece.by for piece in pieces} <= here
        try:
            build = apply(build, an_edit(rng, build))
        except SledError:
            continue


@pytest.mark.parametrize("name", DEMOS)
def test_the_last_day_is_the_build_as_built(name):
    project = demo(name)
    s = study(project.build, project.facts)
    last = standing(s, schedule_of(s.build, s.facts))[-1]

    row = s.table.row("for-sale")
    assert last.total_kg == pytest.approx(float(s.readings.total_kg[row]))
    if s.build.rig.carrier == "ball":
        assert last.tongue_kg == pytest.approx(float(s.readings.tongue_kg[row]))
    else:
        assert last.tongue_kg is None and "with the vehicle" in standing_words(last, PLAIN, on_vehicle=True)


def test_every_line_of_the_table_names_tasks_that_there_are():
    there = {task.id for task in shipped_tasks()}
    assert all(set(line.tasks) <= there and line.source for line in bringers().values())


def test_a_frame_an_axle_a_floor_and_a_stove_by_hand():
    """Frame 100 kg at 2.0, axle 60 kg at 2.5, floor of 15 mm ply 2.0 by 1.5 from 1.0, stove 30 kg at 3.0; ball at 0.

    Nothing frames the floor and no task sets it: it is there from the start. 3.0 m2 x 0.015 x 680 x 1.04 = 31.82 kg.
    Axle hung: 191.82 kg; moments 200 + 150 + 63.65 = 413.65 kg m over 2.5 m: 165.46 on the axle, 26.37 on the ball.
    """
    ply = Layer("l1", "birch-ply", Length(0.015))
    shell = msgspec.structs.replace(
        a_body("box", "none", front=Length(1.0), length=Length(2.0), width=Length(1.5)),
        faces=(Face("floor", "floor", "floor", layers=(ply,)),),
    )
    rig = a_rig(axle=2.5, frame=100.0, frame_cg=2.0)
    stove = a_thing("t1", 30.0, x=2.9, size=(0.2, 0.4, 0.4), kind="appliance")
    water, bag = a_tank("w1", litres=40, x=1.2), a_thing("t2", 25.0, x=1.0, cargo=True)
    build = a_build([stove, water, bag], rig=rig, shell=shell)
    one = after(build)

    assert one["frame"].total_kg == pytest.approx(131.82, abs=0.01) and one["frame"].tongue_kg is None and not one["frame"].on_wheels
    assert one["axle"].total_kg == pytest.approx(191.82, abs=0.01) and one["axle"].tongue_kg == pytest.approx(26.37, abs=0.01)
    assert one["things"].brings_kg == pytest.approx(30.0)
    assert sum(at.brings_kg for at in one.values()) == pytest.approx(100 + 60 + 30 + 4)  # the tank empty, and not the bag
    end = list(one.values())[-1]
    assert end.tongue_kg == pytest.approx(end.total_kg - (413.65 + 30 * 3.0 + 4 * 1.4) / 2.5, abs=0.02)


def test_it_is_told_whether_it_may_be_towed_so():
    heavy = [a_thing("t1", 60.0, x=0.9, size=(0.2, 0.4, 0.4), kind="appliance")]
    one = after(a_build(heavy, rig=a_rig(axle=2.5, frame=100.0)))
    told = standing_words(one["things"], PLAIN, on_vehicle=False)
    assert one["things"].off_band == 1 and "too heavy to be towed so" in told and "Brings 60" in told
    assert "without wheels" in standing_words(one["frame"], PLAIN, on_vehicle=False)
    assert standing(study(Build("b", "b"), Facts()), schedule_of(Build("b", "b"), Facts())) == ()


def test_a_mass_without_its_task_is_there_from_the_start():
    from uncle_sled.core.document.edits import add_to
    from uncle_sled.core.document.work import TaskChange

    build = a_build([a_thing("t1", 30.0, kind="appliance")], rig=a_rig(frame=100.0))
    left_out = apply(build, [add_to("work.changes", TaskChange("axle", off=True))])
    (axle,) = [piece for piece in brought(left_out, Facts()) if piece.what == "axle"]
    assert axle.by == START and after(left_out)["frame"].on_wheels


def on(build, day, facts=None):
    s = study(build, facts or Facts())
    return on_day(s, schedule_of(s.build, s.facts), day)


@pytest.mark.parametrize("name", DEMOS)
def test_a_day_is_the_last_task_that_ended_before_it(name):
    project = demo(name)
    s = study(project.build, project.facts)
    schedule = schedule_of(s.build, s.facts)
    states = states_of(s, schedule)
    assert on_day(s, schedule, -1.0) is states[0] and on_day(s, schedule, 1e6) is states[-1]
    for placed in schedule.placed:
        there = on_day(s, schedule, placed.end)
        assert placed.task.id in done_by(schedule, placed.end) and there.total_kg >= 0
        assert placed.task.id not in done_by(schedule, placed.end - 1e-3)
    assert sum(state.brings_kg for state in states) == pytest.approx(states[-1].total_kg)


def test_what_lifts_the_nose_by_moments_and_what_is_open_to_rain():
    """40 kg on the ball, axle at 2.5 m, tail at 4.0 m: 40 x 2.5 / 1.5 = 66.7 kg at its tail lift the nose."""
    rig = a_rig(axle=2.5, frame=160.0, frame_cg=2.5, frame_length=Length(4.0))
    build = a_build((a_thing("front", 100.0, x=1.3, size=(0.4, 0.4, 0.4)),), rig)
    last = after(build)["things"] if "things" in after(build) else on(build, 1e6)
    assert last.tongue_kg == pytest.approx(100 * (2.5 - 1.5) / 2.5)
    assert last.lifts_kg == pytest.approx(last.tongue_kg * 2.5 / 1.5) and last.tips
    assert "stands under the tail" in standing_words(last, PLAIN, on_vehicle=False)
    heavy = a_build((a_thing("tail", 100.0, x=3.3, size=(0.4, 0.4, 0.4)),), rig)
    tail = on(heavy, 1e6)
    assert tail.lifts_kg < 0 and "goes down by itself" in there_words(tail, PLAIN, on_vehicle=False)

    project = demo("orchard-keeper")
    s = study(project.build, project.facts)
    states = {state.task: state for state in states_of(s, schedule_of(s.build, s.facts))}
    assert states["frame"].rain == () and states["floor-on"].rain == ("roof", "walls")
    assert "doors and windows" in states["holes"].rain and states["windows"].rain == ()
    assert "Open to rain: roof and walls are not on yet." in standing_words(states["floor-on"], PLAIN, on_vehicle=False)


def test_the_builder_says_with_which_task_a_part_comes():
    project = demo("marsh-heron")
    build, facts = project.build, project.facts
    roof = next(face for face in build.shell.faces if face.kind == "roof")
    was = next(piece for piece in brought(build, facts) if piece.part.id == roof.id and piece.what == "insulation")
    assert was.by == "foam"
    said = msgspec.structs.replace(build, work=msgspec.structs.replace(build.work, brings=(BroughtBy("x", roof.id, "insulation", "roof"),)))
    now = next(piece for piece in brought(said, facts) if piece.part.id == roof.id and piece.what == "insulation")
    assert now.by == "roof"
    assert after(said, facts)["roof"].brings_kg == pytest.approx(after(build, facts)["roof"].brings_kg + was.mass_kg)
    lost = msgspec.structs.replace(
        build, work=msgspec.structs.replace(build.work, brings=(BroughtBy("x", roof.id, "insulation", "nothing"),))
    )
    assert next(piece for piece in brought(lost, facts) if piece.part.id == roof.id and piece.what == "insulation").by == "foam"
