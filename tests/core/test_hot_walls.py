"""Walls beside fires: view factor and evening against sums of their own, papers' distances, shields, walls that nobody knows."""

import numpy as np
import pytest
from msgspec.structs import replace

from tests.builders import METRIC, a_body, a_build, a_thing
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.document.shell import Face, Layer
from uncle_sled.core.document.stow import Clear
from uncle_sled.core.drawing.primitives import Text
from uncle_sled.core.drawing.systems.hot_walls_chart import hot_walls_chart, hot_words
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.reading.studied import study
from uncle_sled.core.remedies.remedies import settled
from uncle_sled.core.studies.stow.free_places import free_places
from uncle_sled.core.studies.stow.room import room_of
from uncle_sled.core.studies.systems.by_walls import gaps_m
from uncle_sled.core.studies.systems.heat import KINDS
from uncle_sled.core.studies.systems.hot_walls import EMITS, LIMIT_C, NIGHT_C, ROOM_C, SIGMA, evening, hot_walls, sheet_c, view_factor
from uncle_sled.core.words import Words

PLY = (0.002, 0.13, 540 * 1700.0)
FOAM = (0.005, 0.033, 32 * 1400.0)
WALL = (PLY, *(FOAM,) * 5, PLY)


@pytest.mark.parametrize(("wide", "high", "gap"), [(1.0, 1.0, 0.5), (0.5, 0.6, 0.1), (0.3, 0.2, 0.7)])
def test_the_view_factor_is_the_integral_over_the_rectangle(wide, high, gap) -> None:
    n = 1000
    x, y = np.meshgrid((np.arange(n) + 0.5) / n * wide - wide / 2, (np.arange(n) + 0.5) / n * high - high / 2)
    r2 = x**2 + y**2 + gap**2
    assert view_factor(wide, high, gap) == pytest.approx(float((gap**2 / (np.pi * r2**2)).sum()) * wide * high / n**2, rel=1e-3)


def radiated(a_c, b_c):
    """Between two grey plates [W/m2]."""
    return EMITS**2 * SIGMA * ((a_c + 273.15) ** 4 - (b_c + 273.15) ** 4)


def test_an_evening_is_what_small_explicit_steps_come_to() -> None:
    """The same wall by steps of half a second, its face without mass found by halving at each step."""
    thick, k, c = np.array(WALL).T
    resists = thick / k
    t = ROOM_C + (NIGHT_C - ROOM_C) * (np.cumsum(resists) - resists / 2) / resists.sum()
    sees, hot, step = 0.6, 220.0, 0.5
    hourly, face = [], t[0]
    for at in range(int(2 * 3600 / step)):
        low, high = 0.0, hot
        for _ in range(30):
            face = (low + high) / 2
            gets = sees * radiated(hot, face) - (1 - sees) * radiated(face, ROOM_C) - 2.5 * (face - ROOM_C)
            low, high = (face, high) if gets > (face - t[0]) * 2 * k[0] / thick[0] else (low, face)
        flows = np.concatenate(
            [
                [(face - t[0]) * 2 * k[0] / thick[0]],
                (t[:-1] - t[1:]) / (resists[:-1] / 2 + resists[1:] / 2),
                [(t[-1] - NIGHT_C) / (resists[-1] / 2 + 0.04)],
            ]
        )
        t = t + (flows[:-1] - flows[1:]) * step / (c * thick)
        if (at + 1) * step % 3600 == 0:
            hourly.append([face, *t[1:]])
    told = np.array(evening(WALL, hot, sees, shielded=False))
    assert told[:2] == pytest.approx(np.array(hourly), abs=0.8)
    assert told.shape == (4, 7) and (np.diff(told[:, 0]) > -1e-9).all(), "it gets no cooler while the fire burns"


def test_thin_ply_stands_where_what_comes_goes() -> None:
    """8 mm of ply after four hours: radiation in = room + 2.5 dT + through 0.0615 + 0.04 m2K/W, by hand."""
    face = evening(((0.002, 0.13, 540 * 1700.0),) * 4, 300.0, 0.3, shielded=False)[-1][0]
    comes = 0.3 * radiated(300.0, face)
    goes = 0.7 * radiated(face, ROOM_C) + 2.5 * (face - ROOM_C) + (face - NIGHT_C) / (0.008 / 0.13 + 0.04)
    assert comes == pytest.approx(goes, rel=0.01) and 40 < face < 150


def test_a_shield_gives_what_it_gets() -> None:
    sheet = sheet_c(60.0, 300.0, 0.8)
    goes = 12.0 * (sheet - ROOM_C) + 0.2 * radiated(sheet, ROOM_C) + radiated(sheet, 60.0)
    assert 0.8 * radiated(300.0, sheet) == pytest.approx(goes, rel=1e-6)
    bare, behind = evening(WALL, 300.0, 0.8, shielded=False)[-1][0], evening(WALL, 300.0, 0.8, shielded=True)[-1][0]
    assert behind - ROOM_C < 0.6 * (bare - ROOM_C)


def built(gap_m=0.1, burns="wood", does="warms the room", layers=True, **changes):
    """A stove 0.4 x 0.4 x 0.6 m beside the left wall: 3 mm ply, 25 mm foam, 3 mm ply; inside width 2.0 less 31 mm each."""
    made = (Layer("l1", "light-ply", Length(0.003)), Layer("l2", "xps", Length(0.025)), Layer("l3", "light-ply", Length(0.003)))
    faces = tuple(
        Face(kind.replace(" ", "-"), kind, kind.capitalize(), Mass(20.0), "computed", layers=made if layers else ())  # type: ignore[arg-type]
        for kind in KINDS
    )
    thick = 0.031 if layers else 0.12
    stove = a_thing(
        "s1", 30.0, x=2.8, y=-1.0 + thick + gap_m + 0.2, z=0.6, size=(0.4, 0.4, 0.6), name="Stove", burns=burns, roles=(does,), **changes
    )
    return a_build((stove,), shell=a_body(faces=faces))


def told(build):
    s = study(build, Facts())
    return hot_walls(s.build, s.facts, s.framed)


def found(build):
    return [one for one in findings(study(build, Facts())) if one.code in ("fire-too-near", "wall-hot")]


def test_a_stove_by_a_wall_from_its_place_to_what_is_said() -> None:
    """100 mm off: view factor of 0.4 x 0.6 m; far walls are beyond a metre or hardly warm."""
    build = built()
    first = told(build)[0]
    assert first.face == "left side" and first.gap_m == pytest.approx(0.1) and first.hot_c == 300.0
    sees = view_factor(0.4, 0.6, 0.1)
    cells = ((0.0015, 0.13, 540 * 1700.0),) * 2 + ((0.025 / 12, 0.033, 32 * 1400.0),) * 12 + ((0.0015, 0.13, 540 * 1700.0),) * 2
    assert first.at_c == pytest.approx(evening(cells, 300.0, sees, False)[-1][0], abs=0.5)
    assert first.up_to_c == pytest.approx(evening(cells, 380.0, sees, False)[-1][0], abs=0.5)
    (said,) = found(build)
    assert said.code == "wall-hot" and said.severity == "mind" and "100 mm from the left side" in said.says
    texts = [shape.text for shape in hot_walls_chart(told(build), Words(METRIC), 500, 220) if isinstance(shape, Text)]
    assert f"{first.at_c:.0f} °C, up to {first.up_to_c:.0f} °C" in texts and "100 mm to the left side" in texts
    assert any("no distance" in line for line in hot_words(told(build), Words(METRIC)))
    assert found(built(gap_m=0.6, burns="gas")) == [], "a gas fire 600 mm off warms nobody's lining"


def test_what_the_papers_ask_goes_before_what_is_usual() -> None:
    typed = Clear("c1", "heat", "left", Length(0.15))
    (near,) = found(built(clear=(typed,)))
    assert near.code == "fire-too-near" and near.severity == "stop" and near.number == pytest.approx(0.05)
    assert found(built(gap_m=0.16, clear=(typed,))) == [], "as far off as they ask"
    turned = built(clear=(Clear("c1", "heat", "front", Length(0.25)),), turn=90)
    assert told(turned)[0].papers_m == 0.25, "a quarter turn takes its front to the left"


def test_a_shield_is_offered_where_it_keeps_the_wall_under_the_limit() -> None:
    build = built(burns="gas")
    (hot,) = found(build)
    s = study(build, Facts())
    cure = settled(s, [hot])[0].remedy
    assert cure is not None and "shield" in cure.says
    after = told(apply(build, cure.ops))[0]
    assert after.shielded and after.up_to_c is not None and after.up_to_c <= LIMIT_C and found(apply(build, cure.ops)) == []


def test_walls_nobody_knows_are_said_and_what_is_outside_or_does_not_burn_is_not() -> None:
    bare = built(layers=False)
    first = told(bare)[0]
    assert first.at_c is None and first.why
    assert {one.severity for one in found(bare)} == {"note"}
    assert told(apply(bare, [set_to("stow.things.s1.outside", value=True)])) == ()
    assert told(built(burns="none")) == () and hot_walls_chart((), Words(METRIC), 400, 200) == ()


@pytest.mark.parametrize(("turn", "sides"), [(0, ("left side", "right side")), (90, ("front", "rear"))])
def test_a_stove_is_put_and_moved_as_far_off_as_its_papers_ask(turn, sides) -> None:
    papers = tuple(Clear(side[0], "heat", side, Length(0.3)) for side in ("left", "right"))
    near = built(clear=papers)
    s = study(near, Facts())
    (found_,) = found(near)
    (done,) = settled(s, [found_])
    assert done.remedy is not None and found(apply(near, done.remedy.ops)) == []
    free = free_places(near, replace(near.stow.things[0], turn=turn), room_of(near, Facts()), keeps_clear=True)
    assert len(free.x_m)
    for x, y in zip(free.x_m.tolist(), free.y_m.tolist(), strict=True):
        there = replace(near.stow.things[0], x=Length(x), y=Length(y), turn=turn)
        gaps = gaps_m(near.shell, s.framed, there)
        assert min(gaps[side] for side in sides) >= 0.3
