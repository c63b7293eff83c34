"""How high, wide and long is the rig on the road, and what hangs low, in each towing mode?

Everything that rides counts: body, wheels with their fenders, what is carried outside. Heights above the ground, the
rig standing level. Limits are the builder's own; the usual figures differ by country and are never asserted.
"""

from __future__ import annotations

import math
from typing import Literal

import msgspec
import numpy as np

from uncle_sled.core.document.stow import Mode
from uncle_sled.core.engine import keep
from uncle_sled.core.parts.all_parts import axle_middle_m
from uncle_sled.core.parts.from_rig import wheel_radius_m
from uncle_sled.core.reading.limits import Held, Limit, Unchecked
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.balance.road_checks import SPEED_KMH
from uncle_sled.core.studies.shell.shell_measures import departure_deg
from uncle_sled.core.studies.stow.solids import Solid, corners_of, solids_in

FENDER_M = 0.03  # a fender reaches past its tyre
Way = Literal["height", "width", "length"]
WAYS: tuple[Way, ...] = ("height", "width", "length")
FIELDS = {"height": "brief.road_height", "width": "brief.road_width", "length": "brief.road_length"}


class RoadSize(msgspec.Struct, frozen=True):
    """One measure of a towing mode [m], None where it cannot be said; ``by``: what reaches furthest."""

    mode: Mode
    way: Way
    value_m: float | None
    by: str


class LowTail(msgspec.Struct, frozen=True):
    """The angle that leaves the ground free behind the wheels [degrees], and what hangs lowest in it."""

    degrees: float
    id: str
    name: str


@keep(most=4)
def road_sizes(s: Studied) -> tuple[RoadSize, ...]:
    """Height, width and length of every towing mode, in the order of the modes."""
    made = []
    for mode in s.build.stow.modes:
        if mode.towing:
            made += _of_mode(s, mode)
    return tuple(made)


def _of_mode(s: Studied, mode: Mode) -> list[RoadSize]:
    rig, body = s.build.rig, s.framed.body
    riding = solids_in(s.build.stow, mode)
    high: list[tuple[float, str]] = []
    wide: list[tuple[float, str]] = []
    ends: list[tuple[float, str]] = []
    long: list[tuple[float, str]] = []
    if riding:  # of many only the one that reaches farthest each way; the first, where some reach as far
        corners = corners_of(riding)
        aside = 2 * np.maximum(corners[:, 1, 1], -corners[:, 0, 1])
        for found, reach in ((high, corners[:, 1, 2]), (wide, aside), (ends, corners[:, 1, 0])):
            at = int(np.argmax(reach))
            found.append((float(reach[at]), riding[at].name))
    if body is not None:
        high.append((body.under + body.height, "the body"))
        wide.append((body.width, "the body"))
        ends.append((body.front + body.length, "the body"))
    track = rig.bed.track if rig.carrier == "vehicle bed" else rig.track
    if track is not None:
        tyre = rig.tyre.width.si if rig.tyre.width else 0.0
        wide.append((track.si + tyre + 2 * FENDER_M, "the wheels"))
    front = 0.0
    if rig.carrier == "ball":
        if rig.frame_width:
            wide.append((rig.frame_width.si, "the frame"))
        if rig.frame_length:
            ends.append((rig.frame_length.si, "the frame"))
        front = min([0.0, *[solid.low[0] for solid in riding if solid.outside]])
        long = [(end - front, name) for end, name in ends]
    elif rig.bed.bed_width:
        wide.append((rig.bed.bed_width.si, "the bed"))
    made = []
    for way, found in (("height", high), ("width", wide), ("length", long)):
        # the body's own size is asked for: without one nothing is as high as the rig
        value, by = max(found, default=(None, ""))
        made.append(RoadSize(mode, way, value, by))  # type: ignore[arg-type]
    return made


def worst_size(s: Studied, way: Way) -> RoadSize | None:
    """The largest of a measure over the towing modes."""
    known = [size for size in road_sizes(s) if size.way == way and size.value_m is not None]
    return max(known, key=lambda size: size.value_m or 0.0, default=None)


def low_tail(s: Studied) -> LowTail | None:
    """The departure angle of everything that hangs low behind the last axle: body, frame, tanks, steps, racks."""
    body, rig = s.framed.body, s.build.rig
    found = []
    if body is not None:
        degrees = departure_deg(s.build, body)
        found += [LowTail(degrees, "shell", "the body or frame")] if degrees is not None else []
    middle = max((a.station.si for a in rig.axles), default=None) if rig.carrier == "ball" else axle_middle_m(rig)
    if middle is not None:
        radius = wheel_radius_m(rig)
        towing = [mode for mode in s.build.stow.modes if mode.towing]
        hanging = {solid for mode in towing for solid in solids_in(s.build.stow, mode) if _hangs(solid, middle, s)}
        found += [LowTail(_angle_deg(solid, middle, radius), solid.id, solid.name) for solid in hanging]
    return min(found, key=lambda tail: (tail.degrees, tail.id), default=None)


def _hangs(solid: Solid, middle_m: float, s: Studied) -> bool:
    body = s.framed.body
    under = body.under if body is not None else math.inf
    return solid.high[0] > middle_m and (solid.outside or solid.low[2] < under - 0.02)


def _angle_deg(solid: Solid, middle_m: float, radius_m: float) -> float:
    """From the ground past the tyre to a box's lower rear edge. Source: the tangent to a circle (any geometry text)."""
    x, z = solid.high[0] - middle_m, solid.low[2] - radius_m
    far = math.hypot(x, z)
    if far <= radius_m:
        return 90.0
    return math.degrees(math.atan2(z, x) + math.asin(radius_m / far))


@keep(most=4)
def every_limit(s: Studied) -> Held:
    """The limits of weights, of size on the road and of speed: those that were checked, and those that could not be."""
    limits, unchecked = list(s.limits), list(s.unchecked)
    brief, case = s.build.brief, next((c.id for c in s.table.cases if c.mode.towing), "")
    if not case:
        return Held(tuple(limits), tuple(unchecked))
    for way in WAYS:
        limit, size = getattr(brief, f"road_{way}"), worst_size(s, way)
        name, id = f"{way.capitalize()} on the road", f"road-{way}"
        if limit is None or size is None or size.value_m is None:
            why = "its limit is not given" if limit is None else f"the {way} of the rig is not known"
            unchecked.append(Unchecked(id, name, None, why, FIELDS[way]))
            continue
        where = next((c.id for c in s.table.cases if c.mode.id == size.mode.id), case)
        severity = "stop" if size.value_m > limit.si + 1e-6 else None
        limits.append(Limit(id, name, case_id=where, vehicle_id=None, value=size.value_m, limit=limit.si, unit="m", severity=severity))
    symbol = s.build.rig.tyre.speed_symbol.strip().upper()[:1]
    fastest, allowed = brief.fastest_kmh, SPEED_KMH.get(symbol)
    if fastest and allowed:
        severity = "stop" if fastest > allowed else None
        limits.append(
            Limit(
                "speed",
                "Speed of the tyres",
                case_id=case,
                vehicle_id=None,
                value=fastest,
                limit=float(allowed),
                unit="km/h",
                severity=severity,
            )
        )
    else:
        why = "the fastest speed is not given" if not fastest else "the tyres' speed symbol is not given"
        if fastest and symbol:
            why = f"the speed symbol {symbol} is not in the table"
        unchecked.append(Unchecked("speed", "Speed of the tyres", None, why, "brief.fastest_kmh"))
    return Held(tuple(limits), tuple(unchecked))
