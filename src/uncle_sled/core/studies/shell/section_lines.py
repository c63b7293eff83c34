"""Where a face is parted into sections: the stations that were said, less those at which it cannot be parted, and why not."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import pairwise

import msgspec
from shapely import box
from shapely.geometry.base import BaseGeometry

from uncle_sled.core.document.shell import Shell
from uncle_sled.core.framing.frame_body import Framed
from uncle_sled.core.geometry.surfaces import Surface

NARROWEST_M = 0.3


class Refused(msgspec.Struct, frozen=True):
    """A line that cannot be. at_m: from the face's left edge; through: name of the opening it goes through, "": too near another edge."""

    at_m: float
    through: str


class SectionLines(msgspec.Struct, frozen=True):
    """Of one face. at_m: on the face laid flat, in order; refused: in the order in which they were said."""

    at_m: tuple[float, ...]
    refused: tuple[Refused, ...] = ()

    def parted(self, shape: BaseGeometry) -> list[BaseGeometry]:
        """A shape on the face, section by section."""
        if not self.at_m:
            return [shape]
        left, low, right, high = shape.bounds
        marks = (min(left, self.at_m[0]) - 1, *self.at_m, max(right, self.at_m[-1]) + 1)
        return [part for a, b in pairwise(marks) if not (part := shape.intersection(box(a, low - 1, b, high + 1))).is_empty]

    def along(self, begin_m: float, end_m: float, least_m: float) -> tuple[float, ...]:
        """Lines between two stations, from the first of them [m]. Args: least_m: what must be left of a piece at its ends."""
        return tuple(line - begin_m for line in self.at_m if begin_m + least_m < line < end_m - least_m)


def section_lines(shell: Shell, framed: Framed, surface: Surface) -> SectionLines:
    """A line through an opening, and one that leaves a section narrower than can be lifted and joined, is refused.

    Source: shell notes, school 7: a section keeps whole openings and is 0.3 m wide at least.
    """
    left, _, right, _ = surface.polygon.bounds
    good: list[float] = []
    refused: list[Refused] = []
    for split in shell.splits:
        if split.face != surface.id:
            continue
        at = left + split.at.si
        through = _opening_at(framed, surface.id, at)
        if through or not _apart(at, left, right, good):
            refused.append(Refused(split.at.si, through))
        else:
            good.append(at)
    return SectionLines(tuple(sorted(good)), tuple(refused))


def _opening_at(framed: Framed, surface: str, at_m: float) -> str:
    crossed = (cut.name for cut in framed.cuts if cut.surface == surface and cut.good and cut.shape.bounds[0] < at_m < cut.shape.bounds[2])
    return next(crossed, "")


def _apart(at_m: float, left_m: float, right_m: float, others_m: Sequence[float]) -> bool:
    near = min((abs(at_m - other) for other in (left_m, right_m, *others_m)), default=math.inf)
    return left_m < at_m < right_m and near >= NARROWEST_M
