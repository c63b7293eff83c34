"""The body in plan: a rectangle, or up to six corners with a pointed nose and a tail corner cut off.

Corners run from the front's left foot over the nose to the right, and back along the tail: (x aft of the body's front, y).
"""

from __future__ import annotations

import itertools
import math

from shapely.geometry import Polygon

from uncle_sled.core.document.shell import Shell

Point = tuple[float, float]
FORMS = ("box", "flat", "shed")  # bodies with upright ends, whose roof is one slope along them


def has_footprint(shell: Shell) -> bool:
    """Whether it is anything but a rectangle."""
    return any(length is not None and length.si > 0 for length in (shell.nose_point, shell.tail_clip))


def footprint_fault(shell: Shell) -> str:
    """Why a footprint cannot be, as a sentence; nothing where it can."""
    if not has_footprint(shell) or not (shell.length and shell.width):
        return ""
    if shell.form not in FORMS or (shell.form != "box" and shell.low_side in ("left", "right")):
        return "Only a box, or a roof that falls to front or rear, can have a pointed nose or a clipped corner; take another form or a square footprint."
    long, wide = shell.length.si, shell.width.si
    p, c, d = point_m(shell), *clip_m(shell)
    if p < 0 or c < 0 or d < 0:
        return "A pointed nose or clipped corner is less than nothing; 0 or more would be right."
    if p + c >= long - 0.1:
        return f"The nose's point and the clipped corner are {p + c:.2f} m together, and the body is {long:.2f} m long; they leave no side."
    if d >= wide - 0.05:
        return f"The clipped corner is {d:.2f} m across, and the body is {wide:.2f} m wide."
    return ""


def point_m(shell: Shell) -> float:
    """How far a pointed nose goes forward of the body's front [m]; 0 without one."""
    return shell.nose_point.si if shell.nose_point is not None else 0.0


def clip_m(shell: Shell) -> tuple[float, float]:
    """Along and across [m]; 0, 0 where no corner is cut off."""
    along = shell.tail_clip.si if shell.tail_clip is not None else 0.0
    across = shell.tail_clip_across.si if shell.tail_clip_across is not None else along
    return (along, across) if along > 0 and across > 0 else (0.0, 0.0)


def corners_m(shell: Shell) -> tuple[Point, ...]:
    """The corners of the footprint [m], x from the body's front, y from the middle. A wrong one gives the rectangle."""
    assert shell.length and shell.width
    long, half = shell.length.si, shell.width.si / 2
    if not has_footprint(shell) or footprint_fault(shell):
        return ((0.0, -half), (0.0, half), (long, half), (long, -half))
    p, (c, d) = point_m(shell), clip_m(shell)
    nose: tuple[Point, ...] = ((p, -half), (0.0, 0.0), (p, half)) if p > 0 else ((0.0, -half), (0.0, half))
    if c <= 0:
        return (*nose, (long, half), (long, -half))
    if shell.clipped == "right":
        return (*nose, (long - c, half), (long, half - d), (long, -half))
    return (*nose, (long, half), (long, -half + d), (long - c, -half))


def plan_of(shell: Shell) -> Polygon | None:
    """The footprint on the rig, (station, side); None for a rectangle."""
    if not has_footprint(shell) or not (shell.length and shell.width) or footprint_fault(shell):
        return None
    front = shell.front.si if shell.front else 0.0
    return Polygon([(x + front, y) for x, y in corners_m(shell)])


def ends_m(shell: Shell, kind: str) -> tuple[tuple[Point, Point], ...]:
    """The walls of the nose or the tail from left to right, each by its two feet."""
    corners = corners_m(shell)
    if kind == "front":
        run = corners[:3] if point_m(shell) > 0 and len(corners) > 4 else corners[:2]
    else:
        tail = corners[3:] if point_m(shell) > 0 and len(corners) > 4 else corners[2:]
        c, _ = clip_m(shell)
        # of a clipped corner the side's own foot belongs to the side
        run = tuple(reversed(tail))
        if c <= 0:
            run = run[:2]
    return tuple(itertools.pairwise(run))


def side_span_m(shell: Shell, kind: str) -> tuple[float, float]:
    """Where a side begins and ends, from the body's front [m]."""
    assert shell.length
    if footprint_fault(shell):
        return 0.0, shell.length.si
    c, _ = clip_m(shell)
    cut = c if f"{shell.clipped} side" == kind else 0.0
    return point_m(shell), shell.length.si - cut


def run_m(a: Point, b: Point) -> float:
    """Length from one corner of the plan to the next [m]."""
    return math.hypot(b[0] - a[0], b[1] - a[1])
