"""The side view and plan on paper at a scale that a ruler reads, with a bar to check the print by."""

from __future__ import annotations

from uncle_sled.core.drawing.page import POINTS_PER_M, Page, scale_for
from uncle_sled.core.drawing.primitives import Primitive, Text, line, placed, rect
from uncle_sled.core.drawing.rig.rig_views import heights_m, whole_view
from uncle_sled.core.reading.studied import Studied, length_m

PAPERS = {"A4": (842.0, 595.0), "A3": (1191.0, 842.0), "Letter": (792.0, 612.0)}
EDGE = 34.0
BAR_M = 0.1


def scale_sheet(s: Studied, row: int, project_name: str, printed: str, paper: str = "A4") -> Page:
    """The largest standard scale that fits the paper, landscape; side over plan, and a bar of 100 mm."""
    wide, high = PAPERS[paper]
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
        Text((wide - EDGE, high - EDGE - 8), f"1 : {scale} on {paper}, {printed}", 11, "pencil", "text", "right"),
        *placed(whole_view(s, row, "side", per_m), per_m, x0, side_y),
        *placed(whole_view(s, row, "plan", per_m), per_m, x0, plan_y),
        Text((EDGE, plan_y + half * per_m - 6), "right", 9, "pencil", "text", "left"),
        Text((EDGE, plan_y - half * per_m + 6), "left", 9, "pencil", "text", "left"),
    ]
    bar = BAR_M * POINTS_PER_M
    shapes += [
        rect(EDGE, EDGE - 12, bar, 6, stroke="ink", fill="ink"),
        line((EDGE, EDGE - 16), (EDGE, EDGE)),
        line((EDGE + bar, EDGE - 16), (EDGE + bar, EDGE)),
        Text(
            (EDGE + bar + 10, EDGE - 9),
            "This bar is 100 mm long. If it is not, print again without fitting to the page.",
            9,
            "pencil",
            "text",
            "left",
        ),
    ]
    return Page(wide, high, tuple(shapes), f"{project_name}: drawing 1 : {scale}")
