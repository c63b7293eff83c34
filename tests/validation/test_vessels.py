"""Tanks against closed forms: volumes, heights and centres at every level (any solid geometry text)."""

import math

import pytest

from tests.builders import a_tank
from uncle_sled.core.document.quantity import Length, Volume
from uncle_sled.core.document.stow import Tank, TankPoint
from uncle_sled.core.geometry.vessel import gauge_marks, outline_fault, surge_m, vessel_of

LONG, WIDE, HIGH = 0.8, 0.3, 0.3


def tank(shape, size=(LONG, WIDE, HIGH), **of):
    return vessel_of(a_tank(size=size, tank=Tank(Volume(0.01), "fresh", shape, **of)))


def segment(radius, height):
    """Area of a circle's part under a level, and the height of its centre over the lowest point."""
    angle = 2 * math.acos(1 - height / radius)
    area = radius**2 / 2 * (angle - math.sin(angle))
    from_middle = 4 * radius * math.sin(angle / 2) ** 3 / (3 * (angle - math.sin(angle)))
    return area, radius - from_middle


def test_a_box_rises_by_half_its_level():
    box = tank("box")

    assert box.volume_m3 == pytest.approx(LONG * WIDE * HIGH) and box.linear
    for level in (0.0, 0.25, 0.7, 1.0):
        fill = box.fill(level)
        assert (fill.height_m, fill.dz_m) == (pytest.approx(level * HIGH), pytest.approx(level * HIGH / 2))
        assert fill.dx_m == pytest.approx(0.0) and fill.dy_m == 0.0


@pytest.mark.parametrize("axis", ["along", "across"])
@pytest.mark.parametrize("height", [0.05, 0.10, 0.15, 0.22, 0.29])
def test_a_lying_cylinder_fills_as_a_circle_does(axis, height):
    size = (LONG, WIDE, HIGH) if axis == "along" else (WIDE, LONG, HIGH)
    cylinder = tank("cylinder", size, axis=axis)
    area, up = segment(0.15, height)

    assert cylinder.volume_m3 == pytest.approx(math.pi * 0.15**2 * LONG, rel=1e-9)
    fill = cylinder.fill(area * LONG / cylinder.volume_m3)
    assert fill.height_m == pytest.approx(height, abs=6e-4) and fill.dz_m == pytest.approx(up, abs=6e-4)


def test_an_upright_cylinder_and_an_oval_one():
    upright = tank("cylinder", (0.3, 0.3, 0.5), axis="upright")
    oval = tank("cylinder", (LONG, 0.4, 0.2), axis="along")

    assert upright.volume_m3 == pytest.approx(math.pi * 0.15**2 * 0.5) and upright.fill(0.4).height_m == pytest.approx(0.2)
    assert oval.volume_m3 == pytest.approx(math.pi * 0.2 * 0.1 * LONG)
    assert oval.fill(0.5).height_m == pytest.approx(0.1, abs=1e-4)


def test_a_wedge_is_deeper_at_one_end_and_its_centre_wanders():
    wedge = tank("wedge", (0.6, 0.5, 0.3), thin="front", thin_height=Length(0.0))
    full, half = wedge.fill(1.0), wedge.fill(0.25)

    assert wedge.volume_m3 == pytest.approx(0.6 * 0.5 * 0.3 / 2)
    # a triangle that is deep at the rear: its centre a sixth of the length behind the middle, a third up
    assert full.dx_m == pytest.approx(0.1, abs=1e-4) and full.dz_m == pytest.approx(0.1, abs=1e-4)
    assert 0 < half.dx_m < full.dx_m and half.height_m < 0.3 * 0.25
    level = 0.1  # height h of a triangle cut at h: area share 1 - (1 - h/H)^2
    assert wedge.fill(1 - (1 - level / 0.3) ** 2).height_m == pytest.approx(level, abs=1e-4)


def test_a_wedge_may_hang_from_a_level_top_and_look_either_way():
    lower = tank("wedge", (0.6, 0.5, 0.3), thin="rear", thin_height=Length(0.1), slant="bottom")

    assert lower.volume_m3 == pytest.approx(0.6 * 0.5 * 0.2)
    assert lower.fill(0.02).dx_m < -0.2  # the last drop lies in the deep front
    assert lower.fill(1.0).dz_m > 0.15


def test_a_jug_and_an_own_outline():
    jug = tank("jug", (0.24, 0.36, 0.32))
    steps = (TankPoint(0, 0), TankPoint(1, 0), TankPoint(1, 0.5), TankPoint(0.5, 0.5), TankPoint(0.5, 1), TankPoint(0, 1))
    own = tank("outline", (0.4, 0.5, 0.4), outline=steps)

    assert jug.volume_m3 == pytest.approx(0.24 * 0.36 * 0.32 * (0.8 + 0.2 * (1 + 0.42) / 2))
    assert jug.fill(0.5).dx_m == pytest.approx(0.0, abs=1e-9)
    assert own.volume_m3 == pytest.approx(0.75 * 0.4 * 0.5 * 0.4)
    assert own.fill(2 / 3).height_m == pytest.approx(0.2) and own.fill(1.0).dx_m == pytest.approx(-0.1 / 3, abs=1e-6)


@pytest.mark.parametrize(
    ("corners", "says"),
    [
        ((TankPoint(0, 0), TankPoint(1, 1)), "fewer than three"),
        ((TankPoint(0, 0), TankPoint(1, 1), TankPoint(1, 0), TankPoint(0, 1)), "crosses itself"),
        ((TankPoint(0, 0), TankPoint(2, 0), TankPoint(1, 1)), "out of its own box"),
        ((TankPoint(0, 0), TankPoint(0.5, 0), TankPoint(1, 0)), "no area"),
    ],
)
def test_an_outline_that_is_none_is_told_and_taken_as_a_box(corners, says):
    wrong = Tank(Volume(0.01), "fresh", "outline", outline=corners)

    assert says in (outline_fault(wrong) or "")
    if says != "out of its own box":
        assert vessel_of(a_tank(tank=wrong)).linear


def test_a_surge_is_that_of_a_leaning_surface():
    """In a half-full box of length L a surface leaning by a slope a moves the centre by a L^2 / (12 h), h the depth."""
    box = tank("box", (0.6, 0.4, 0.4))

    assert surge_m(box, 0.5, 0.3) == pytest.approx(0.3 * 0.6**2 / (12 * 0.2), rel=0.06)
    assert surge_m(box, 0.5, 0.3, turn=90) == pytest.approx(0.3 * 0.4**2 / (12 * 0.2), rel=0.08)
    assert surge_m(box, 0.0) == surge_m(box, 1.0) == 0.0


def test_gauge_marks_stand_where_the_liquid_does():
    marks = gauge_marks(tank("cylinder", axis="along"), 0.05, 0.01)

    assert [m for m, _ in marks] == pytest.approx([0.01, 0.02, 0.03, 0.04, 0.05])
    heights = [up for _, up in marks]
    assert heights == sorted(heights) and heights[-1] == pytest.approx(HIGH, abs=1e-3)
    assert heights[0] > HIGH / 5  # the bottom of a tube is narrow
    assert gauge_marks(tank("box"), 0.0, 0.01) == () and gauge_marks(tank("box"), 10.0, 0.001) == ()
