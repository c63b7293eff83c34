"""How high an outline reaches over a place, against the narrow strip cut out of it."""

import numpy as np
import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st
from shapely import box
from shapely.geometry import MultiPolygon, Polygon

from uncle_sled.core.geometry.tops import NEAR_M, edges_of, top_m
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.stow.room import room_of
from uncle_sled.exchange.demos import DEMOS, demo


def strip_m(shape, at, near=NEAR_M):
    _, low, _, high = shape.bounds
    run = shape.intersection(box(at - near, low - 1, at + near, high + 1))
    return None if run.is_empty else float(run.bounds[3])


@given(seed=st.integers(0, 10**6))
def test_a_top_by_edges_is_that_of_a_strip(seed):
    random = np.random.default_rng(seed)
    turns = np.sort(random.uniform(0, 2 * np.pi, random.integers(3, 40)))
    far = random.uniform(0.3, 3.0, len(turns))
    star = shapely.make_valid(Polygon(np.column_stack([far * np.cos(turns), far * np.sin(turns)])))
    part = max((one for one in shapely.get_parts(star) if isinstance(one, Polygon)), key=lambda one: one.area, default=None)
    if part is None or part.area < 1e-3:
        return
    shape = part.difference(box(-0.2, -0.2, 0.2, 0.2))
    edges = edges_of(shape)
    for at in random.uniform(-4, 4, 12):
        top, strip = top_m(edges, float(at)), strip_m(shape, float(at))
        assert (top is None) == (strip is None)
        assert top is None or top == pytest.approx(strip, abs=1e-4)  # a strip has a width, where an edge is all but upright


def test_upright_edges_corners_and_nothing_at_all():
    two = MultiPolygon([box(0, 0, 1, 2), box(3, 0, 4, 1)])
    edges = edges_of(two)
    assert [top_m(edges, x) for x in (-0.1, 0.0, 0.5, 1.0, 2.0, 3.0, 3.5, 4.1)] == [None, 2.0, 2.0, 2.0, None, 1.0, 1.0, None]
    assert top_m(edges_of(Polygon()), 0.0) is None


@pytest.mark.parametrize("name", DEMOS)
def test_the_ceiling_of_the_demos_is_that_of_a_strip(name):
    s = study(demo(name).build, demo(name).facts)
    room = room_of(s.build, s.facts)
    if room is None:
        return
    left, right = room.span_m
    for x in np.linspace(left - 0.1, right + 0.1, 60):
        strips = [strip_m(room.side, x)] + ([strip_m(room.section, 0.2)] if room.section is not None else [])
        wanted = min(strips) if None not in strips else None
        top = room.ceiling_m(float(x), 0.2)
        assert (top is None) == (wanted is None) and (top is None or abs(top - wanted) < 1e-6)
