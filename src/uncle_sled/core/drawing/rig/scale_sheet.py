"""The side view and plan on paper at a scale that a ruler reads, with a bar to check the print by."""

from __future__ import annotations

from uncle_sled.core.drawing.page import POINTS_PER_M, Page, bar_of_100_mm, scale_for
from uncle_sled.core.drawing.paper import paper_of
from uncle_sled.core.drawing.primitives import Primitive, Text, placed
from uncle_sled.core.drawing.rig.rig_views import heights_m, whole_view
from uncle_sled.core.reading.studied import Studied, length_m

EDGE = 34.0


def scale_sheet(s: Studied, row: int, project_name: str, printed: str) -> Page:
    """The largest standard scale that fits the paper, landscape; side over plan, and a bar of 100 mm."""
    paper = paper_of(s.build)
    wide, high = paper.lying
    left = 0.95 if s.build.rig.carrier == "vehicle bed" else 0.4
    reach = length_m(s.build) + left + 0.5
    top, half = heights_m(s.build)
    tall = top + 2 * half + 0.35
    room = (wide - 2 * EDGE, high - 2 * EDGE - 62)
    scale = scale_for(reach, tall, room)
    per_m = POINTS_PER_M / scale
    x0 = (wide - reach * per_m) / 2 + left * per_m
    side_y = high - EDGE - 36 - top * per_m
    plan_y = side_y - 0.25 * per_m - half * per_m
    shapes: list[Primitive] = [
        Text((EDGE, high - EDGE - 8), project_name, 16, "ink", "head", "left"),
        Text((wide - EDGE, high - EDGE - 8), f"1 : {scale} on {paper.name}, {printed}", 11, "pencil", "text", "right"),
        *placed(whole_view(s, row, "side", per_m), per_m, x0, side_y),
        *placed(whole_view(s, row, "plan", per_m), per_m, x0, plan_y),
        Text((EDGE, plan_y + half * per_m - 6), "right", 9, "pencil", "text", "left"),
        Text((EDGE, plan_y - half * per_m + 6), "left", 9, "pencil", "text", "left"),
    ]
    shapes += bar_of_100_mm(EDGE, EDGE - 9, "This bar is 100 mm long. If it is not, print again without fitting to the page.")
    return Page(wide, high, tuple(shapes), f"{project_name}: drawing 1 : {scale}")
