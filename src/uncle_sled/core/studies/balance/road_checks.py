"""What the road adds to the statics: braking and grades on the ball, leaning over, ride height, turning room.

Screening only. Braking: T_b = T + (W d z - D h_c) / (a g), D the push on the ball; roll: t (1 - p) / (2 (z - p h_c)), an
upper bound that tyres and springs take 20 to 30 % off. Source: statics of an accelerated body (any vehicle dynamics text).
"""

from __future__ import annotations

import math

import msgspec
import numpy as np
from msgspec.structs import replace
from numpy.typing import NDArray

from uncle_sled.core.document.brief import Vehicle
from uncle_sled.core.engine import keep
from uncle_sled.core.parts.from_stow import standing_size_m
from uncle_sled.core.parts.heights import ball_height_m
from uncle_sled.core.reading.band import vehicles_of
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.balance.axle_conflicts import tyre_gap
from uncle_sled.core.studies.shell.shell_measures import departure_deg
from uncle_sled.core.units import FIRM_STOP_G, GRAVITY

# Speed symbol to km/h. Source: the tyre trade's standard table.
SPEED_KMH = {
    "F": 80,
    "G": 90,
    "J": 100,
    "K": 110,
    "L": 120,
    "M": 130,
    "N": 140,
    "P": 150,
    "Q": 160,
    "R": 170,
    "S": 180,
    "T": 190,
    "H": 210,
    "V": 240,
}
BRAKING_G, GRADE = FIRM_STOP_G, 0.15
ROLL_LEAST_G = 0.5  # under this a hurried bend tips what a quiet one does not
GRIP = 0.7  # of a tyre on a dry road
SPRUNG = 0.75  # what tyres and springs leave of the bound
SPRING_RAISE_M = 0.10  # a spring pack and an axle tube, where nobody measured
ANGLES = 91


class Ride(msgspec.Struct, frozen=True):
    """Spring over or under the axle: what each gives [m, degrees, g]."""

    name: str
    floor_m: float | None
    coupler_m: float
    departure_deg: float | None
    cg_m: float
    roll_g: float | None


class Turning(msgspec.Struct, frozen=True):
    """Nearest distance of the nose to a car while it turns [m], and the angle between them then [degrees].

    from_deg: the angle from which on they meet; None where they do nowhere.
    """

    vehicle_id: str
    name: str
    gap_m: float
    at_deg: float
    nose_id: str
    nose: str
    from_deg: float | None = None


class TyreUse(msgspec.Struct, frozen=True):
    """The heaviest tyre [kg] against its load, the speed that its symbol allows [km/h] and the cold pressure it wants [kPa]."""

    load_kg: float
    rated_kg: float | None
    speed_kmh: int | None
    pressure_kpa: float | None
    least_known: bool = False


def tyre_use(s: Studied) -> TyreUse | None:
    """What the tyres do in the worst case; None without axles.

    Pressure goes with the load, never under the maker's least; where that is not given the rated one is told, no less.
    """
    limit = next((limit for limit in s.limits if limit.id == "tyre"), None)
    tyre = s.build.rig.tyre
    speed = SPEED_KMH.get(tyre.speed_symbol.strip().upper()[:1]) if tyre.speed_symbol else None
    if limit is None:
        return TyreUse(0.0, None, speed, None) if speed else None
    pressure = None
    if tyre.rated_kpa and not tyre.least_kpa:
        pressure = tyre.rated_kpa
    elif tyre.rated_kpa and tyre.least_kpa:
        pressure = min(max(tyre.rated_kpa * limit.value / limit.limit, tyre.least_kpa), tyre.rated_kpa)
    return TyreUse(limit.value, limit.limit, speed, pressure, bool(tyre.least_kpa))


class Statics(msgspec.Struct, frozen=True):
    """What the road's sums start from in one case: ball load, whole weight [kg], axle, weight's height, hitch's height [m]."""

    tongue_kg: float
    total_kg: float
    axle_m: float
    cg_height_m: float
    hitch_m: float

    def stopping_kg(self, decel_g: float, braked: bool) -> float:
        """Ball load in a stop [kg]; ``braked``: the trailer brakes itself, else the car holds all of it.

        With D the push on the ball: T + (W d z - D h) / a. The brakes hold what the road does: at most GRIP of the wheels' load.
        """
        push = self.total_kg * decel_g
        if not braked:
            return self.tongue_kg + push * (self.cg_height_m - self.hitch_m) / self.axle_m
        alone = self.tongue_kg + push * self.cg_height_m / self.axle_m
        if push <= GRIP * (self.total_kg - alone):
            return alone
        # the wheels slide: B = GRIP (W - T_b), D = W d - B, solved for T_b
        gripped = push * (self.cg_height_m - self.hitch_m) + GRIP * self.total_kg * self.hitch_m
        return (self.tongue_kg * self.axle_m + gripped) / (self.axle_m + GRIP * self.hitch_m)

    def brakes_n(self, decel_g: float) -> float:
        """What the trailer's own wheels brake with [N], all of them: the whole W d, at most GRIP of what stands on them."""
        wheels = self.total_kg - self.stopping_kg(decel_g, braked=True)
        return min(self.total_kg * decel_g, GRIP * wheels) * GRAVITY

    def pushes_n(self, decel_g: float) -> float:
        """What its own brakes leave for the ball to hold [N], along the road."""
        return self.total_kg * decel_g * GRAVITY - self.brakes_n(decel_g)

    def on_grade_kg(self, grade: float) -> float:
        """Ball load standing or held by the car on a grade [kg]; nose down is positive."""
        slope = math.atan(grade)
        rise = self.cg_height_m - self.hitch_m
        return self.tongue_kg * math.cos(slope) + self.total_kg * math.sin(slope) * rise / self.axle_m


def statics_of(s: Studied, row: int) -> Statics | None:
    """The statics of a towing case, or None where it has no reading."""
    if not 0 <= row < len(s.table.cases) or s.build.rig.carrier != "ball":
        return None
    told = (
        float(s.readings.tongue_kg[row]),
        float(s.readings.total_kg[row]),
        float(s.readings.effective_axle_m[row]),
        float(s.readings.cg_m[row, 2]),
    )
    if not all(map(math.isfinite, told)) or told[1] <= 0 or told[2] <= 0:
        return None
    return Statics(*told, ball_height_m(s.build))


def roll_g(s: Studied, row: int, raised_m: float = 0.0) -> float | None:
    """Sideways acceleration that lifts a wheel of a rigid body [g]; None without a track."""
    track = s.support.track_m if s.support else None
    share, height = float(s.readings.share[row]), float(s.readings.cg_m[row, 2]) + raised_m
    arm = height - share * (ball_height_m(s.build) + raised_m)
    if not track or not math.isfinite(share) or arm <= 0:
        return None
    return track * (1 - share) / (2 * arm)


def rides(s: Studied, row: int, raise_m: float | None = None) -> tuple[Ride, ...]:
    """The rig as it is and with its springs on the other side of the axle; () where no ride can be told (torsion arms have no spring)."""
    rig = s.build.rig
    if rig.carrier != "ball" or not rig.axles or s.framed.body is None or rig.suspension == "independent":
        return ()
    if not math.isfinite(s.readings.cg_m[row, 2]):
        return ()
    over = s.build.rig.spring_side == "over"
    step = raise_m if raise_m is not None else SPRING_RAISE_M
    body = s.framed.body
    angle = departure_deg(s.build, body)
    made = []
    for name, by in (("spring under the axle", -step if over else 0.0), ("spring over the axle", 0.0 if over else step)):
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


class WheelSwap(msgspec.Struct, frozen=True):
    """What wheels of another height do: everything rises by half the difference, and the fender loses as much [m, g]."""

    raised_m: float
    coupler_m: float
    cg_m: float | None
    over_tyre_m: float | None  # room that is left over the tyre
    roll_g: float | None


def wheel_swap(s: Studied, row: int, diameter_m: float) -> WheelSwap | None:
    """The rig on wheels of another diameter; None where today's is not known. Source: half of the difference in height."""
    rig = s.build.rig
    if rig.carrier != "ball" or not rig.tyre.diameter or not 0.2 <= diameter_m <= 1.5:
        return None
    by = (diameter_m - rig.tyre.diameter.si) / 2
    height = float(s.readings.cg_m[row, 2]) if len(s.readings.cg_m) else math.nan
    gap = tyre_gap(s)
    return WheelSwap(
        by,
        ball_height_m(s.build) + by,
        height + by if math.isfinite(height) else None,
        gap.over_m - by if gap is not None and gap.over_m is not None else None,
        roll_g(s, row, by) if len(s.readings.share) else None,
    )


def _angle_gain(s: Studied, by_m: float) -> float:
    """What raising the body adds to the departure angle [degrees], by its tail's distance behind the axle."""
    body = s.framed.body
    assert body is not None
    behind = body.front + body.length - max(a.station.si for a in s.build.rig.axles)
    return math.degrees(math.atan2(by_m, behind)) if behind > 0.1 else 0.0


class Nose(msgspec.Struct, frozen=True):
    """What stands foremost on the trailer, from above: its front behind the ball, half its width, its length, its middle [m]."""

    id: str
    name: str
    behind_m: float
    half_m: float
    long_m: float
    y_m: float = 0.0


def noses(s: Studied) -> tuple[Nose, ...]:
    """Body, nose box, and what is carried outside behind the ball."""
    if s.build.rig.carrier != "ball":
        return ()
    made = []
    body, box = s.framed.body, s.build.shell.nose_box
    if body is not None:
        made.append(Nose("shell", "the body", body.front, body.width / 2, body.length))
        if box is not None:
            made.append(Nose("nose-box", "the nose box", body.front - box.length.si, box.width.si / 2, box.length.si))
    for thing in s.build.stow.things:
        long, wide, _ = standing_size_m(thing, thing.turn)
        if thing.outside and thing.x.si > 0 and min(long, wide) > 0 and not thing.taken_out:
            made.append(Nose(thing.id, lower_name(thing.name), thing.x.si, wide / 2, long, thing.y.si))
    return tuple(made)


def lower_name(name: str) -> str:
    """A thing within a sentence."""
    return f"the {name[:1].lower()}{name[1:]}"


def _of_noses(s: Studied) -> tuple[object, ...]:
    outside = tuple(thing for thing in s.build.stow.things if thing.outside)
    return s.build.rig, s.framed, s.build.shell, s.build.brief, s.facts, *outside


@keep(_of_noses, most=4)
def turning(s: Studied) -> tuple[Turning, ...]:
    """What stands foremost against each car that says how wide it is and how far its bumper is from the ball."""
    made = []
    found = noses(s)
    for car in vehicles_of(s.build.brief, s.facts):
        if found and car.width and car.bumper and car.width.si > 0:
            meets = [(at, nose) for nose in found if (at := meets_from_deg(nose, car)) is not None]
            # what meets it first counts, else what comes nearest
            nose = min(meets, key=lambda meet: meet[0])[1] if meets else min(found, key=lambda nose: nearest_m(nose, car)[0])
            gap, angle = nearest_m(nose, car)
            made.append(
                Turning(car.id, car.name, gap_m=gap, at_deg=angle, nose_id=nose.id, nose=nose.name, from_deg=meets_from_deg(nose, car))
            )
    return tuple(made)


def corner_at(nose: Nose, degrees: float, side: int = 1) -> tuple[float, float]:
    """Where a nose's front corner is, turned about the ball: behind it, and to its side [m]; side 1 swings to the car."""
    x, y = nose.behind_m, nose.y_m + side * nose.half_m
    angle = math.radians(degrees)
    return x * math.cos(angle) - y * math.sin(angle), x * math.sin(angle) + y * math.cos(angle)


def gap_m(nose: Nose, car: Vehicle, degrees: float) -> float:
    """Distance of its front corners to the car's tail, turned either way [m]; less than nothing where they meet."""
    assert car.width and car.bumper
    gaps = []
    for each_nose in (nose, replace(nose, y_m=-nose.y_m)):  # a bend to the other side is this one seen in a mirror
        x, y = corner_at(each_nose, degrees)
        # the car's tail is ahead of the ball by the bumper's distance
        dx, dy = x + car.bumper.si, max(abs(y) - car.width.si / 2, 0.0)
        gaps.append(math.hypot(max(dx, 0.0), dy) if dx > 0 or dy > 0 else dx)
    return min(gaps)


def nearest_m(nose: Nose, car: Vehicle) -> tuple[float, float]:
    """Least gap over 0 to 90 degrees [m], and the angle at which it is [degrees]."""
    degrees = np.linspace(0, 90, ANGLES)
    gaps = _gaps_m(nose, car, np.radians(degrees))
    at = int(np.argmin(gaps))
    return float(gaps[at]), float(degrees[at])


def meets_from_deg(nose: Nose, car: Vehicle) -> float | None:
    """The angle from which on a nose stands in the car's tail [degrees]; None where it does at none up to 90."""
    degrees = np.linspace(0, 90, ANGLES)
    under = _gaps_m(nose, car, np.radians(degrees)) < 0
    return float(degrees[int(np.argmax(under))]) if under.any() else None


def _gaps_m(nose: Nose, car: Vehicle, turned: NDArray[np.float64]) -> NDArray[np.float64]:
    """The same at many angles [rad]."""
    assert car.width and car.bumper
    found = []
    for y in (nose.y_m, -nose.y_m):  # a bend to the other side is this one seen in a mirror
        x, y = nose.behind_m, y + nose.half_m
        dx = x * np.cos(turned) - y * np.sin(turned) + car.bumper.si
        dy = np.maximum(np.abs(x * np.sin(turned) + y * np.cos(turned)) - car.width.si / 2, 0.0)
        found.append(np.where((dx > 0) | (dy > 0), np.hypot(np.maximum(dx, 0.0), dy), dx))
    return np.minimum(*found)
