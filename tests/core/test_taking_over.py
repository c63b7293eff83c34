"""What is taken over from another build stands here whole, refers right, and leaves the other build as it was."""

import itertools

import pytest
from msgspec.structs import replace

from tests.builders import a_body, a_build, a_project, a_thing
from uncle_sled.core.document.project import Facts, OwnMaterial, Project
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.references import referring_right
from uncle_sled.core.document.shell import Face, Layer
from uncle_sled.core.document.taking_over import Take, takeable, taken_over
from uncle_sled.core.reading.studied import study
from uncle_sled.exchange import sled_file
from uncle_sled.exchange.demos import DEMOS, demo


@pytest.mark.parametrize(("here", "there"), list(itertools.permutations(DEMOS, 2)))
def test_everything_of_every_demo_can_be_taken_into_every_other(here, there):
    project, source = demo(here), demo(there)
    before = sled_file.to_bytes(source)
    for take in takeable(source.build):
        after, said = taken_over(project, source, (take,))
        assert after != project or "here to be made" in " ".join(said), take.says
        assert referring_right(after) == (after, ())
        assert sled_file.read_bytes(sled_file.to_bytes(after), "x.sled") == after
        assert all(isinstance(one, str) and one for one in said)
        build = after.build
        for listed in (build.stow.things, build.shell.openings, build.shell.faces, after.facts.people, after.facts.vehicles):
            ids = [one.id for one in listed]
            assert len(ids) == len(set(ids)), take.says
    everything, _ = taken_over(project, source, takeable(source.build))
    study(everything.build, everything.facts)
    assert sled_file.to_bytes(source) == before


def test_a_stop_takes_the_place_of_the_one_here_and_weighs_as_there():
    project, source = demo("marsh-heron"), demo("rosin-box")
    takes = tuple(Take("stop", name, name) for name in ("rig", "shell", "stow", "systems", "brief"))
    after, _ = taken_over(project, source, takes)
    theirs = study(source.build, source.facts)
    ours = study(after.build, after.facts)
    assert ours.readings.tongue_kg.tolist() == pytest.approx(theirs.readings.tongue_kg.tolist(), nan_ok=True)
    assert after.name == project.name


def test_people_and_cars_come_once_under_ids_of_their_own():
    project, source = demo("marsh-heron"), demo("orchard-keeper")
    after, _ = taken_over(project, source, (Take("stop", "brief", "Brief"),))
    people = {p.id: p for p in after.facts.people}
    assert {p.name for p in project.facts.people} | {p.name for p in source.facts.people} == {p.name for p in people.values()}
    again, _ = taken_over(after, source, (Take("stop", "brief", "Brief"),))
    assert len(again.facts.people) == len(after.facts.people)


def test_layers_bring_the_materials_of_ones_own_along_and_never_over_ones_own():
    own = OwnMaterial("own-1", "Felt", 200.0, 0.04, source="me")
    other = OwnMaterial("own-1", "Hemp", 90.0, 0.045, source="them")
    face = Face("f1", "roof", "Roof", layers=(Layer("l1", "own-1", Length(0.02)),), made_of="hemp")
    source = Project("There", (a_build(shell=a_body("box", faces=(face,))),), "as-drawn", Facts(materials=(other,)))
    here = Project(
        "Here", (a_build(shell=a_body("box", faces=(replace(face, layers=(), made_of=""),))),), "as-drawn", Facts(materials=(own,))
    )
    after, _ = taken_over(here, source, (Take("layers", "f1", "Roof"),))
    material = {m.id: m.name for m in after.facts.materials}
    layer = after.build.shell.faces[0].layers[0]
    assert material[layer.material] == "Hemp" and material["own-1"] == "Felt"
    bare = Project("Bare", (a_build(shell=a_body("box", faces=())),), "as-drawn", Facts())
    same, said = taken_over(bare, source, (Take("layers", "f1", "Roof"),))
    assert same == bare and "no roof here" in said[0]


def test_a_thing_that_stood_in_another_stands_by_itself_and_that_is_said():
    source = a_project([a_thing("a", name="Cupboard"), a_thing("b", name="Jug", inside="a")])
    after, said = taken_over(a_project([a_thing("b")]), source, (Take("thing", "b", "Jug"),))
    jug = after.build.stow.things[-1]
    assert jug.name == "Jug" and jug.id != "b" and jug.inside is None and "stood in cupboard" in said[0]
