"""What the road adds to the statics: braking and grades on the ball, leaning over, ride height, turning room.

Screening only. Braking: T_b = T + (W d z - D h_c) / (a g), D the push on the ball; roll: t (1 - p) / (2 (z - p h_c)), an
upper bound that tyres and springs take 20 to 30 % off. Source: statics of an accelerated body (any vehicle dynamics text).
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from uncle_sled.core.document.brief import Vehicle
from uncle_sled.core.parts.heights import ball_height_m
from uncle_sled.core.studies.band import vehicles_of
from uncle_sled.core.studies.reading import Studied
from uncle_sled.core.studies.shell_measures import departure_deg

# Speed symbol to km/h. Source: the tyre trade's standard table.
SPEED_KMH = {
    "F": 80, "G": 90, "J": 100, "K": 110, "L": 120, "M": 130, "N": 140, "P": 150, "Q": 160, "R": 170, "S": 180, "T": 190,
    "H": 210, "V": 240,
}  # fmt: skip
BRAKING_G, GRADE = 0.4, 0.15
ROLL_LEAST_G = 0.5  # under this a hurried bend tips what a quiet one does not
SPRUNG = 0.75  # what tyres and springs leave of the bound
SPRING_RAISE_M = 0.10  # a spring pack and an axle tube, where nobody measured
ANGLES = 91


@dataclass(frozen=True)
class OnRoad:
    """One towing case: ball load [kg] braking with and without trailer brakes, nose down a grade, and the roll threshold [g]."""

    case_id: str
    tongue_kg: float
    unbraked_kg: float
    braked_kg: float
    downhill_kg: float
    roll_g: float | None


@dataclass(frozen=True)
class Ride:
    """Spring over or under the axle: what each gives [m, degrees, g]."""

    name: str
    floor_m: float | None
    coupler_m: float
    departure_deg: float | None
    cg_m: float
    roll_g: float | None


@dataclass(frozen=True)
class Turning:
    """Nearest distance of the nose to a car while it turns [m], and the angle between them then [degrees]."""

    vehicle_id: str
    name: str
    gap_m: float
    at_deg: float


@dataclass(frozen=True)
class TyreUse:
    """The heaviest tyre [kg] against its load, the speed that its symbol allows [km/h] and the cold pressure it wants [kPa]."""

    load_kg: float
    rated_kg: float | None
    speed_kmh: int | None
    pressure_kpa: float | None


def tyre_use(s: Studied) -> TyreUse | None:
    """What the tyres do in the worst case; None without axles. Pressure goes with the load, never under the least."""
    limit = next((one for one in s.limits if one.id == "tyre"), None)
    tyre = s.build.rig.tyre
    speed = SPEED_KMH.get(tyre.speed_symbol.strip().upper()[:1]) if tyre.speed_symbol else None
    if limit is None:
        return TyreUse(0.0, None, speed, None) if speed else None
    pressure = None
    if tyre.rated_kpa:
        pressure = min(max(tyre.rated_kpa * limit.value / limit.limit, tyre.least_kpa or 0.0), tyre.rated_kpa)
    return TyreUse(limit.value, limit.limit, speed, pressure)


def on_road(s: Studied) -> tuple[OnRoad, ...]:
    """Every towing case that has a reading."""
    made = []
    hitch = ball_height_m(s.build)
    for row in s.towing_rows:
        tongue, total = float(s.readings.tongue_kg[row]), float(s.readings.total_kg[row])
        axle, height = float(s.readings.effective_axle_m[row]), float(s.readings.cg_m[row, 2])
        if not all(map(math.isfinite, (tongue, total, axle, height))) or total <= 0 or axle <= 0:
            continue
        push = total * BRAKING_G
        slope = math.atan(GRADE)
        made.append(
            OnRoad(
                s.table.cases[row].id,
                tongue,
                tongue + push * (height - hitch) / axle,
                tongue + push * height / axle,
                tongue * math.cos(slope) + total * math.sin(slope) * (height - hitch) / axle,
                roll_g(s, row),
            )
        )
    return tuple(made)


def roll_g(s: Studied, row: int, raised_m: float = 0.0) -> float | None:
    """Sideways acceleration that lifts a wheel of a rigid body [g]; None without a track."""
    track = s.support.track_m if s.support else None
    share, height = float(s.readings.share[row]), float(s.readings.cg_m[row, 2]) + raised_m
    arm = height - share * (ball_height_m(s.build) + raised_m)
    if not track or not math.isfinite(share) or arm <= 0:
        return None
    return track * (1 - share) / (2 * arm)


def rides(s: Studied, row: int, raise_m: float | None = None) -> tuple[Ride, ...]:
    """The rig as it is and with its springs on the other side of the axle; () where no ride can be told."""
    if s.build.rig.carrier != "ball" or not s.build.rig.axles or s.framed.body is None:
        return ()
    over = s.build.rig.spring_side == "over"
    step = raise_m if raise_m is not None else SPRING_RAISE_M
    body = s.framed.body
    angle = departure_deg(s.build, body)
    made = []
    for name, by in (
        ("spring under the axle", -step if over else 0.0),
        ("spring over the axle", 0.0 if over else step),
    ):
        made.append(
            Ride(
                name,
                body.under + by,
                ball_height_m(s.build) + by,
                None if angle is None else angle + _angle_gain(s, by),
                float(s.readings.cg_m[row, 2]) + by,
                roll_g(s, row, by),
            )
        )
    return tuple(made)


def _angle_gain(s: Studied, by_m: float) -> float:
    """What raising the body adds to the departure angle [degrees], by its tail's distance behind the axle."""
    body = s.framed.body
    assert body is not None
    behind = body.front + body.length - max(a.station.si for a in s.build.rig.axles)
    return math.degrees(math.atan2(by_m, behind)) if behind > 0.1 else 0.0


def turning(s: Studied) -> tuple[Turning, ...]:
    """The nose against each car that says how wide it is and how far its bumper is from the ball."""
    nose = _nose(s)
    if nose is None:
        return ()
    made = []
    for car in vehicles_of(s.build.brief, s.facts):
        if car.width and car.bumper and car.width.si > 0:
            gap, angle = nearest_m(nose, car)
            made.append(Turning(car.id, car.name, gap, angle))
    return tuple(made)


def _nose(s: Studied) -> tuple[float, float] | None:
    """Distance behind the ball and half the width of what stands foremost [m]."""
    spots = []
    if s.framed.body is not None and s.build.rig.carrier == "ball":
        front = s.framed.body.front
        spots.append((front, s.framed.body.width / 2))
        nose = s.build.shell.nose_box
        if nose is not None:
            spots.append((front - nose.length.si, nose.width.si / 2))
    for thing in s.build.stow.things:
        if thing.outside and thing.x.si > 0 and min(thing.length.si, thing.width.si) > 0:
            spots.append((thing.x.si, abs(thing.y.si) + thing.width.si / 2))
    return min(spots, key=lambda spot: spot[0] - 0.7 * spot[1]) if spots else None


def nearest_m(nose: tuple[float, float], car: Vehicle) -> tuple[float, float]:
    """Least gap of a nose's corner to a car's tail over 0 to 90 degrees [m; less than nothing when they meet], and the angle."""
    assert car.width and car.bumper
    behind, half = nose
    best = (math.inf, 0.0)
    for degrees in np.linspace(0, 90, ANGLES):
        angle = math.radians(float(degrees))
        # the corner on the inside of the bend, turned about the ball; the car's tail is ahead by the bumper's distance
        x = behind * math.cos(angle) - half * math.sin(angle)
        y = behind * math.sin(angle) + half * math.cos(angle)
        dx, dy = x + car.bumper.si, max(abs(y) - car.width.si / 2, 0.0)
        gap = math.hypot(max(dx, 0.0), dy) if dx > 0 or dy > 0 else dx
        if gap < best[0]:
            best = (gap, float(degrees))
    return best
