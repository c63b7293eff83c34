"""Sections that are built apart and set one by one: where a face is parted, what each weighs and where to pick it up.

Faces are parted by upright lines at stations; a line through an opening is refused. Mass is that of sticks and layers in
the section, openings with theirs; picks stand as far from the centre of gravity on both sides. Bolts every 0.4 m along a
parted edge. Slack of n joints in a row: n g at worst, sqrt(n) g likely. Source: shell notes, school 7; work notes, lift day.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence

import msgspec
from shapely import box
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from uncle_sled.core.engine import keep
from uncle_sled.core.geometry.surfaces import SIDES, Surface
from uncle_sled.core.geometry.tops import edges_of, top_m
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.shell.face_weights import face_weights, weights_within
from uncle_sled.core.studies.shell.section_lines import NARROWEST_M, SectionLines, section_lines
from uncle_sled.core.words import Words, upper_first

BOLT_PITCH_M, GAP_M, PICK_SHARE = 0.4, 0.003, 0.29  # picks: from the centre, of the section's length
MOST_PARTS = 24
ORDER = {"floor": 0, "left side": 1, "front": 2, "rear": 3, "right side": 4, "roof": 5}


class BuiltSection(msgspec.Struct, frozen=True):
    """One section. shape, centre, picks: on its face laid flat [m]; at_m: its centre in space; bolts: to the next one aft.

    order: in which it is set, from 1; fault: why it cannot be parted there.
    """

    id: str
    face: str
    name: str
    shape: Polygon
    centre: tuple[float, float]
    picks: tuple[tuple[float, float], tuple[float, float]]
    at_m: tuple[float, float, float]
    size_m: tuple[float, float]
    mass_kg: float | None
    bolts: int
    order: int
    members: tuple[str, ...]


class Sections(msgspec.Struct, frozen=True):
    """All of them in the order of setting; stacked: ids from the ground up, the last set lowest. faults: in words.

    true_sizes: (what, metres) that must be measured on the real trailer before anything is cut; worst_m, likely_m: slack along
    the row with most joints.
    """

    sections: tuple[BuiltSection, ...]
    stacked: tuple[str, ...]
    faults: tuple[str, ...]
    true_sizes: tuple[tuple[str, float], ...]
    joints: int
    worst_m: float
    likely_m: float


@keep(
    *("s.framed", "s.parts", "s.build.shell", "s.facts.materials", "s.build.brief"),
    *("s.build.rig.frame_width", "s.build.rig.frame_length", "s.build.rig.drawbar_length"),
    most=4,
)
def sections_of(s: Studied) -> Sections:
    """Every face in its sections; whole ones are sections as well. Nothing without a body."""
    body, words = s.framed.body, Words(s.build.brief.reading.shown())
    if body is None or body.width <= 0:
        return Sections((), (), faults=(), true_sizes=(), joints=0, worst_m=0.0, likely_m=0.0)
    faults: list[str] = []
    made: list[BuiltSection] = []
    most = 0
    here = {face.id for face in body.surfaces}
    faults += [f"There is no {split.face} to be parted." for split in s.build.shell.splits if split.face not in here]
    for surface in body.surfaces:
        lines = section_lines(s.build.shell, s.framed, surface)
        faults += _faults(surface, lines, words)
        most = max(most, len(lines.at_m))
        made += _parted(s, surface, lines.at_m)
    made.sort(key=lambda section: (ORDER.get(_kind(s, section.face), 6), section.face, section.centre[0]))
    made = [msgspec.structs.replace(section, order=k) for k, section in enumerate(made, 1)]
    gap = s.build.shell.joint_gap.si if s.build.shell.joint_gap is not None else GAP_M
    return Sections(
        tuple(made),
        tuple(section.id for section in reversed(made)),
        faults=tuple(faults),
        true_sizes=_true_sizes(s),
        joints=most,
        worst_m=most * gap,
        likely_m=math.sqrt(most) * gap,
    )


def _kind(s: Studied, face: str) -> str:
    assert s.framed.body is not None
    return next(surface.kind for surface in s.framed.body.surfaces if surface.id == face)


def _faults(surface: Surface, lines: SectionLines, words: Words) -> list[str]:
    """Lines at which it cannot be parted, in words."""
    return [
        f"{upper_first(surface.id)}: the line at {words.m(line.at_m)} goes through {line.through}; beside it would be right."
        if line.through
        else f"{upper_first(surface.id)}: the line at {words.m(line.at_m)} leaves a section under {words.m(NARROWEST_M)}."
        for line in lines.refused
    ]


def _parted(s: Studied, surface: Surface, lines: Sequence[float]) -> list[BuiltSection]:
    left, low, right, high = surface.polygon.bounds
    marks = [left, *lines, right]
    weights = face_weights(s, surface)
    known = any(one.kind in ("layer", "typed") for one in weights)
    made = []
    for k, (a, b) in enumerate(itertools.pairwise(marks), 1):
        shape = _largest(surface.polygon.intersection(box(a, low - 1, b, high + 1)))
        if shape is None:
            continue
        here = weights_within(weights, shape)
        total = sum(kg for _, kg, _, _ in here)
        centre = _middle(shape)
        if total > 0:
            centre = (sum(kg * x for _, kg, x, _ in here) / total, sum(kg * y for _, kg, _, y in here) / total)
        reach = min(PICK_SHARE * (b - a), centre[0] - a, b - centre[0])
        top = _top(shape, centre[0])
        tall = shape.bounds[3] - shape.bounds[1]
        made.append(
            BuiltSection(
                f"{surface.id} {k}" if lines else surface.id,
                surface.id,
                name=upper_first(f"{surface.id} {k} of {len(marks) - 1}") if lines else upper_first(surface.id),
                shape=shape,
                centre=centre,
                picks=((centre[0] - reach, top), (centre[0] + reach, top)),
                at_m=surface.place(*centre),
                size_m=(b - a, tall),
                mass_kg=total if known and total > 0 else None,
                bolts=max(math.ceil(tall / BOLT_PITCH_M), 2) if k < len(marks) - 1 else 0,
                order=0,
                members=tuple(one.id for one, kg, _, _ in here if one.kind == "stick" and kg > 0),
            )
        )
    return made


def _largest(shape: BaseGeometry) -> Polygon | None:
    whole = [part for part in getattr(shape, "geoms", [shape]) if isinstance(part, Polygon) and not part.is_empty]
    return max(whole, key=lambda one: one.area, default=None)


def _middle(shape: Polygon) -> tuple[float, float]:
    return shape.centroid.x, shape.centroid.y


def _top(shape: Polygon, x: float) -> float:
    top = top_m(edges_of(shape), x, 1e-4)
    return top if top is not None else float(shape.bounds[3])


def _true_sizes(s: Studied) -> tuple[tuple[str, float], ...]:
    """What a frame maker's drawing says and the real frame may not: measured before the first cut."""
    rig, body = s.build.rig, s.framed.body
    assert body is not None
    made: list[tuple[str, float]] = [("length of the floor", body.length), ("width of the floor", body.width)]
    made.append(("diagonal of the floor, both", math.hypot(body.length, body.width)))
    if rig.frame_width is not None:
        made.append(("width over the rails", rig.frame_width.si))
    if rig.frame_length is not None and rig.drawbar_length is not None:
        made.append(("length of the rails", rig.frame_length.si - rig.drawbar_length.si))
    boxes = s.build.shell.wheel_boxes
    if boxes is not None:
        made.append(("between the wheel boxes", body.width - 2 * boxes.width.si))
    return tuple(made)


def usual_splits(s: Studied, longest_m: float) -> list[tuple[str, float]]:
    """Faces longer than that parted evenly, each line moved off openings: (surface, station from its left end)."""
    made = []
    for surface in s.framed.body.surfaces if s.framed.body is not None else ():
        left, _, right, _ = surface.polygon.bounds
        many = min(math.ceil((right - left) / max(longest_m, NARROWEST_M) - 1e-9), MOST_PARTS)
        if surface.kind not in (*SIDES, "roof", "floor") or many < 2:
            continue
        spans = sorted((c.shape.bounds[0] - 0.1, c.shape.bounds[2] + 0.1) for c in s.framed.cuts if c.surface == surface.id and c.good)
        for k in range(1, many):
            at = left + (right - left) * k / many
            for a, b in spans:
                if a < at < b:
                    at = a if at - a < b - at else b
            if left + NARROWEST_M < at < right - NARROWEST_M:
                made.append((surface.id, round(at - left, 3)))
    return made
