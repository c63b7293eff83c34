"""What names something that is gone goes with it; what is right is not looked at again."""

import pytest
from msgspec.structs import replace

from uncle_sled.core.document.bounds import MOST_OF
from uncle_sled.core.document.edits import add_to, apply, remove, set_to
from uncle_sled.core.document.references import referring_right
from uncle_sled.core.document.roles import EXCLUDE
from uncle_sled.core.document.sense import of_no_sense
from uncle_sled.core.errors import EditError
from uncle_sled.core.materials import materials
from uncle_sled.exchange.demos import DEMOS, demo


@pytest.mark.parametrize("name", DEMOS)
def test_the_demos_refer_right_and_stay_the_same_object(name):
    project = demo(name)

    assert referring_right(project) == (project, ())
    assert referring_right(project)[0] is project


def test_a_thing_that_goes_takes_along_what_was_said_of_it():
    project = demo("marsh-heron")
    mode = next(m for m in project.build.stow.modes if m.places)
    id = mode.places[0].id
    gone = project.with_build(apply(project.build, [remove(f"stow.things.{id}")]))

    right, said = referring_right(gone, project)

    assert all(told_of != id for m in right.build.stow.modes for told_of in (*(p.id for p in m.places), *(t.id for t in m.states)))
    assert any(id in one and "no such thing" in one for one in said)
    assert referring_right(right, gone)[1] == ()


def test_things_inside_each_other_are_set_apart():
    project = demo("marsh-heron")
    a, b = (t.id for t in project.build.stow.things[:2])
    ring = project.with_build(apply(project.build, [set_to(f"stow.things.{a}.inside", b), set_to(f"stow.things.{b}.inside", a)]))

    right, said = referring_right(ring, project)

    insides = {t.id: t.inside for t in right.build.stow.things}
    assert (insides[a], insides[b]) in ((None, a), (b, None))
    assert len(said) == 1 and "inside each other" in said[0]


def test_a_person_who_goes_sleeps_in_no_variant():
    project = demo("marsh-heron")
    who = project.facts.people[0].id
    sleeps = project.with_build(apply(project.build, [set_to("brief.sleepers", [who])]))
    without = apply(sleeps, [remove(f"facts.people.{who}")])

    right, said = referring_right(without, sleeps)

    assert who not in right.build.brief.sleepers and len(said) == 1


def test_a_list_set_whole_is_held_to_what_a_list_may_be():
    build = demo("marsh-heron").build
    thing = build.stow.things[0]

    with pytest.raises(EditError, match="used more than once"):
        apply(build, [set_to("stow.things", (thing, thing))])
    with pytest.raises(EditError, match="is the most a build holds"):
        apply(build, [set_to("rig.axles", tuple(replace(build.rig.axles[0], id=f"a{n}") for n in range(13)))])


def test_one_more_than_a_build_holds_is_not_added():
    build = demo("marsh-heron").build
    axle = build.rig.axles[0]
    full = apply(build, [set_to("rig.axles", tuple(replace(axle, id=f"n{n}") for n in range(MOST_OF["axles"])))])

    with pytest.raises(EditError, match=r"rig\.axles: 13 of them; 12"):
        apply(full, [add_to("rig.axles", replace(axle, id="one-more"))])


def test_a_name_has_an_end():
    build = demo("marsh-heron").build

    with pytest.raises(EditError, match=r"shell\.faces"):
        apply(build, [set_to(f"shell.faces.{build.shell.faces[0].id}.name", "n" * 50_000)])


@pytest.mark.parametrize("field, value", [("states", ()), ("inside", None), ("inside", "nobody"), ("id", "another"), ("turn", 90)])
def test_what_is_looked_at_beside_the_project_before_is_what_is_looked_at_alone(field, value):
    """Whatever changes of a thing: passing over what stayed finds the same."""
    project = demo("marsh-heron")
    for at in range(len(project.build.stow.things)):
        things = list(project.build.stow.things)
        things[at] = replace(things[at], **{field: value})
        build = replace(project.build, stow=replace(project.build.stow, things=tuple(things)))
        after = project.with_build(build)

        assert referring_right(after, project) == referring_right(after)
        assert of_no_sense(after, materials(), project) == of_no_sense(after, materials())


def test_roles_at_odds_are_found_beside_the_project_before():
    project = demo("marsh-heron")
    things = list(project.build.stow.things)
    things[3] = replace(things[3], roles=EXCLUDE[0])
    after = project.with_build(replace(project.build, stow=replace(project.build.stow, things=tuple(things))))

    assert len(of_no_sense(after, materials(), project)) == 1
