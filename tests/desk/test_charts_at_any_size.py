"""Every drawing that fills what room it is given: at every size its shapes are finite, its words readable and inside."""

from __future__ import annotations

import math

import pytest
from PySide6.QtWidgets import QApplication

from tests.desk.walk import every_view
from uncle_sled.core.document.project import empty_project
from uncle_sled.core.drawing.primitives import Circle, Poly, Raster, Text
from uncle_sled.core.drawing.text_width import text_width
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.exchange.demos import demo

SIZES = ((760.0, 420.0), (1900.0, 900.0))
TINY = ((1.0, 1.0), (40.0, 30.0), (120.0, 60.0))
LEAST_PT = 7.0


def charts(window):
    """Every chart of every view of every stop, by where it stands; what each view wants in hand is chosen."""
    for where in every_view(window):
        QApplication.processEvents()
        for chart in window.bench(window.session.stop).findChildren(Chart):
            if chart.isVisible():
                yield where, chart


def numbers(shape) -> list[float]:
    if isinstance(shape, Poly):
        return [value for point in shape.points for value in point] + [shape.width]
    if isinstance(shape, Circle):
        return [*shape.centre, shape.radius]
    if isinstance(shape, Raster):
        return [*shape.at, shape.wide, shape.high]
    return [*shape.at, shape.size]


@pytest.mark.parametrize("name", ["marsh-heron", "orchard-keeper"])
def test_shapes_are_finite_and_words_stay_inside(open_on, name) -> None:
    window = open_on(demo(name), judged=False)
    seen, read = set(), 0
    faults: list[tuple[object, ...]] = []
    for view, chart in charts(window):
        where = (view, chart.accessibleName())
        seen.add(where)
        # what is rolled asks for its height by itself
        own = (float(chart.width()), float(chart.height()))
        for wide, high in (*TINY, *((w, max(h, own[1])) for w, h in SIZES), own):
            shapes = chart.make(wide, high)
            if not all(math.isfinite(value) for shape in shapes for value in numbers(shape)):
                faults.append((where, (wide, high), "not finite"))
            for one in shapes:
                if not isinstance(one, Text) or (wide, high) in TINY:
                    continue
                if one.size < LEAST_PT:
                    faults.append((where, (wide, high), "too small", one.text))
                left = one.at[0] - text_width(one.text, one.size, one.face) * {"left": 0, "middle": 0.5, "right": 1}[one.anchor]
                right = left + text_width(one.text, one.size, one.face)
                if right < 0 or left > wide or one.at[1] < -one.size or one.at[1] > high + one.size:
                    faults.append((where, (wide, high), "outside", one.text))
        # nothing is drawn by chance: the same again, after a round through other sizes
        if chart.make(*own) != shapes:
            faults.append((where, "another drawing"))
        if chart.read is not None:
            told = [chart.read(x, y, 700.0, 320.0) for x in range(-50, 751, 50) for y in range(-40, 361, 40)]
            read += any(told)
            if not all(isinstance(one, str) for one in told):
                faults.append((where, "no words"))
    assert len(seen) >= 30 and read >= 2 and faults == []


def test_an_empty_build_draws_nothing_and_says_why(open_on) -> None:
    window = open_on(empty_project(), judged=False)
    said = 0
    for view, chart in charts(window):
        for wide, high in (*TINY, *SIZES):
            shapes = chart.make(wide, high)
            assert all(math.isfinite(value) for shape in shapes for value in numbers(shape)), view
        if not shapes:
            said += 1
            assert chart.empty().strip(), (view, chart.accessibleName())
    assert said > 3
