"""Faces laid on paper: upright as they are seen, and back again; offsets, letters, measures, what moved."""

import itertools
import math

import numpy as np
import pytest
from msgspec.structs import replace

from tests.builders import a_build, a_shell, a_thing
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.drawing.cut.framing_sheets import framing_sheets
from uncle_sled.core.drawing.primitives import Text
from uncle_sled.core.drawing.rig.measure_lines import car_measures, rig_measures, tags_of
from uncle_sled.core.drawing.rig.variants_over import variants_over, what_moved
from uncle_sled.core.drawing.shell.offsets_page import offsets
from uncle_sled.core.drawing.text_width import text_width
from uncle_sled.core.geometry.laid import Laid, laid
from uncle_sled.core.reading.studied import study
from uncle_sled.core.units import Shown
from uncle_sled.core.words import Words
from uncle_sled.exchange.demos import DEMOS, demo


@pytest.mark.parametrize("on", [Laid(), Laid(True), Laid(True, 2.5), Laid(True, 2.5, 1.0, -3.0), Laid(dx=2.0)])
def test_there_and_back_again(on):
    for p in ((0.3, 1.1), (2.5, 0.0)):
        assert on.back(on.point(p)) == pytest.approx(p)
    a, b = on.point((0.2, 0.4)), on.point((0.7, 1.3))
    assert on.shift(b[0] - a[0], b[1] - a[1]) == pytest.approx((0.5, 0.9))
    left, low, right, high = on.bounds((0.2, 0.4, 0.7, 1.3))
    assert left < right and low < high
    # the edge on paper is the edge of the rectangle that it came from
    box = {"left": 0.2, "low": 0.4, "right": 0.7, "high": 1.3}
    seen = {"left": left, "low": low, "right": right, "high": high}
    for edge, where in seen.items():
        own = on.edge(edge)
        axis, at = on.line("x" if own in ("left", "right") else "z", box[own])
        assert axis == ("x" if edge in ("left", "right") else "z") and at == pytest.approx(where)


def test_the_rear_of_a_drawn_profile_stands_upright():
    s = study(demo("marsh-heron").build, demo("marsh-heron").facts)
    for kind in ("front", "rear"):
        surface = next(one for one in s.framed.body.surfaces if one.kind == kind)
        on = laid(surface)
        s0, t0, s1, _ = surface.polygon.bounds
        heights = {on.point((at, t0))[1]: surface.place(at, t0)[2] for at in (s0, (s0 + s1) / 2, s1)}
        up = [heights[key] for key in sorted(heights)]
        assert up == sorted(up), kind  # what is higher on paper is higher in the air
        left = on.point((s0, t0))[0] < on.point((s0, surface.polygon.bounds[3]))[0]
        assert left and surface.place(s0, t0)[1] < 0  # the left edge at the left


@pytest.mark.parametrize("name", DEMOS)
def test_no_letter_stands_over_a_number_on_a_framing_page(name):
    project = demo(name)
    for page in framing_sheets(study(project.build, project.facts), name, "today"):
        texts = [t for t in page.shapes if isinstance(t, Text) and t.text]
        letters = [t for t in texts if t.size == 7.0]
        for letter, other in itertools.product(letters, texts):
            if letter is not other:
                assert not _meet(_box(letter), _box(other)), (page.title, letter.text, other.text)


def _box(text):
    wide = text_width(text.text, text.size)
    left = text.at[0] - wide * {"left": 0.0, "middle": 0.5, "right": 1.0}[text.anchor]
    return left, text.at[1] - text.size * 0.4, left + wide, text.at[1] + text.size * 0.4


def _meet(a, b):
    return a[0] < b[2] and a[2] > b[0] and a[1] < b[3] and a[3] > b[1]


def test_offsets_of_a_drawn_side_lie_on_its_outline():
    build = a_build(shell=a_shell())
    s = study(build, Facts())
    side = next(one for one in s.framed.body.surfaces if one.id == "left side")
    long = side.polygon.bounds[2] - side.polygon.bounds[0]
    found = offsets(side, Shown())
    steps = [0.1 * k for k in range(math.ceil(long / 0.1))]
    along = [one.along for one in found]
    assert along == sorted(along) and found[-1].along == pytest.approx(long)
    assert all(any(abs(at - one) < 1e-6 for one in along) for at in steps)
    ring = np.array(side.polygon.exterior.coords)[:-1]
    ways = [np.diff(np.roll(ring, -k, axis=0)[:3], axis=0) for k in range(len(ring))]
    turns = [abs(math.degrees(math.atan2(a[0] * b[1] - a[1] * b[0], a @ b))) for a, b in ways]
    corners = [ring[(k + 1) % len(ring)][0] - side.polygon.bounds[0] for k, turn in enumerate(turns) if turn > 12]
    assert len(corners) >= 3 and all(any(abs(at - one) < 1e-5 for one in along) for at in corners)  # sharp ones have a station each
    from shapely.geometry import Point

    for one in found:
        assert side.polygon.exterior.distance(Point(one.along, one.high)) < 1e-4
        assert side.polygon.exterior.distance(Point(one.along, one.low)) < 1e-4
    inches = offsets(side, Shown("ft-in", "lb", "gal"))
    assert inches[1].along == pytest.approx(0.1016)


def test_measures_are_where_the_fields_say_and_what_nobody_said_is_a_question():
    build = demo("marsh-heron").build
    found = {one.path: one for one in rig_measures(build)}
    axle = build.rig.axles[0]
    assert found[f"rig.axles.{axle.id}.station"].b[0] == axle.station.si
    assert found["rig.frame_length"].value == build.rig.frame_length
    unknown = rig_measures(apply(build, [set_to("rig.drawbar_length", None)]))
    tags = {tag.measure.path: tag for tag in tags_of(unknown, Words(Shown()), 80.0)}
    assert tags["rig.drawbar_length"].words == "drawbar ?"
    bare = car_measures(replace(demo("marsh-heron").facts.vehicles[0], wheelbase=None, rear_empty=None))
    assert sum(one.value is None for one in bare) == 2


@pytest.mark.parametrize("name", DEMOS)
@pytest.mark.parametrize("px_per_m", [30.0, 66.0, 140.0])
def test_no_tag_lies_on_another(name, px_per_m):
    project = demo(name)
    for measures in (rig_measures(project.build), *(car_measures(car) for car in project.facts.vehicles)):
        tags = tags_of(measures, Words(Shown("ft-in", "lb", "gal")), px_per_m)
        for a, b in itertools.combinations(tags, 2):
            apart = abs(a.at[0] - b.at[0]) >= (a.size[0] + b.size[0]) / 2 - 1e-9
            assert apart or abs(a.at[1] - b.at[1]) >= (a.size[1] + b.size[1]) / 2 - 1e-9, (a.words, b.words)


def test_what_moved_between_variants_is_said():
    first = a_build([a_thing("t1", x=2.0), a_thing("t2", x=3.0)], shell=a_shell())
    second = apply(
        first, [set_to("stow.things.t1.x", {"si": 2.4, "typed": None}), set_to("stow.things.t1.mass", {"si": 33.0, "typed": None})]
    )
    things = (second.stow.things[0], a_thing("t9", x=1.5))
    second = replace(second, stow=replace(second.stow, things=things))
    axle = replace(second.rig.axles[0], station=Length(second.rig.axles[0].station.si - 0.2))
    second = replace(second, rig=replace(second.rig, axles=(axle,)))
    a, b = study(first, Facts()), study(second, Facts())
    says = [one.says for one in what_moved(a, b, Words(Shown("m", "kg", "L")))]
    assert says[0] == "axle 0.20 m forward" and any("0.40 m aft" in one and "heavier" in one for one in says)
    assert any(one.endswith("new") for one in says) and any(one.endswith("gone") for one in says)
    assert what_moved(a, a, Words(Shown())) == ()
    assert variants_over(a, b, Words(Shown()), 800.0, 260.0) and variants_over(a, a, Words(Shown()), 300.0, 120.0)
