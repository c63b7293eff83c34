"""A profile from an outline drawn elsewhere: how near it stays, what its corners are, and what is refused."""

import math

import numpy as np
import pytest
from shapely.geometry import LineString, Polygon

from uncle_sled.core.document.file_beside import sketch_fault
from uncle_sled.core.errors import GeometryError
from uncle_sled.core.geometry.outline_taken import taken_from
from uncle_sled.core.geometry.profile import flatten

SHED = np.array([(0.0, 0.0), (3.0, 0.0), (3.0, 1.4), (0.4, 1.8), (0.0, 1.0)])


def round_nose(many=200):
    """A half circle of radius 0.6 before a box 2.0 m long."""
    turn = np.linspace(-math.pi / 2, math.pi / 2, many)
    nose = np.column_stack([0.6 - 0.6 * np.cos(turn), 0.6 + 0.6 * np.sin(turn)])
    return np.concatenate([nose, [(2.6, 1.2), (2.6, 0.0)]])


def test_corners_are_kept_from_the_front_foot_over_the_top_to_the_rear_one():
    for ring in (SHED, SHED[::-1], np.roll(SHED, 2, axis=0)):
        taken = taken_from(ring, 0.005)
        corners = [(0, 0), (0, 1.0 / 1.8), (0.4 / 3, 1), (1, 1.4 / 1.8), (1, 0)]
        assert [at for n in taken.nodes for at in (n.u, n.v)] == pytest.approx([at for corner in corners for at in corner], abs=1e-5)
        assert (taken.length_m, taken.height_m, taken.off_m, taken.many) == (3.0, 1.8, pytest.approx(0.0, abs=1e-9), 5)


@pytest.mark.parametrize("tolerance", [0.001, 0.004, 0.02])
def test_none_of_the_outline_lies_further_off_than_the_tolerance(tolerance):
    ring = round_nose()
    taken = taken_from(ring, tolerance)
    assert taken.off_m <= tolerance + 1e-9 and len(taken.nodes) < 60
    drawn = LineString(flatten(taken.nodes) * [taken.length_m, taken.height_m] + ring.min(axis=0))
    boundary = Polygon(ring).exterior
    top = [point for point in ring if point[1] > 0.05]
    far = max(drawn.distance(LineString([point, point + 1e-9])) for point in top)
    assert 0 < far - 1e-6 <= taken.off_m <= tolerance + 1e-6  # what it is off is said, and not only what it may be
    assert (
        max(boundary.distance(LineString([point, point + 1e-9])) for point in np.array(drawn.coords)) <= tolerance + 0.02
    )  # its feet are let down


def test_a_smaller_tolerance_keeps_more_corners():
    assert len(taken_from(round_nose(), 0.001).nodes) > len(taken_from(round_nose(), 0.01).nodes) > len(taken_from(round_nose(), 0.1).nodes)


@pytest.mark.parametrize(
    ("points", "tolerance", "says"),
    [
        (SHED, 0.0, "more than nothing"),
        (SHED[:2], 0.005, "three points"),
        (np.array([(0.0, 0.0), (3.0, 1.0), (3.0, 0.0), (0.0, 1.0)]), 0.005, "crosses itself"),
        (SHED * 1000, 0.005, "other units"),
        (SHED / 100, 0.005, "other units"),
        (np.array([(0.0, 0.0), (3.0, math.nan), (3.0, 1.0)]), 0.005, "three points"),
        (np.array([(1.5, 0.0), (3.0, 1.5), (0.0, 1.5)]), 0.005, "one point"),
        (
            np.array([(x, 1.5 + 0.1 * (k % 2)) for k, x in enumerate(np.linspace(3, 0, 200))] + [(0.0, 0.0), (3.0, 0.0)]),
            0.001,
            "larger tolerance",
        ),
    ],
)
def test_what_is_no_outline_is_refused_in_words(points, tolerance, says):
    with pytest.raises(GeometryError, match=says):
        taken_from(points, tolerance)


@pytest.mark.parametrize(
    ("path", "says"),
    [
        ("sketches/a.jpg", None),
        ("a.dxf", None),
        ("/etc/a.jpg", "not beside"),
        ("../a.png", "climbs out"),
        ("a.txt", "no picture"),
        ("", None),
    ],
)
def test_a_picture_is_named_by_a_path_beside_the_build(path, says):
    fault = sketch_fault(path)
    assert (fault is None) if says is None else says in fault
