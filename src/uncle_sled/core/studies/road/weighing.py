"""From readings of a scale to the ball and the total, each with the doubt of the scale; and which load case it was like.

Source: balance notes, "Reaching the scale", with their corrections. Doubt of a reading: step / sqrt(12) and its class.
Checks: hitched 1,180 + 1,420, trailer 760, alone 1,225 + 1,290: ball 85, total 845; jack 62 kg at 0.45, axle 3.10: 53.0;
plank 42 and 3 kg, 1.2 and 0.4 m: 117; tilted 700 kg, a 3.0, r 0.30, h_c 0.45, 12 deg, 60 and 38 kg: z 0.752 m.
"""

from __future__ import annotations

import math

import msgspec

from uncle_sled.core.document.road import Modelled, Ticket, WeighWay
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.road.by_ruler import Ruled, tilted_ball_kg, wheels_by_ruler
from uncle_sled.core.words import Words

# What is read, by the way of weighing: id, and where the wheels stand.
READINGS: dict[WeighWay, tuple[tuple[str, str], ...]] = {
    "platform with the car": (
        ("steer", "hitched: front wheels of the car"),
        ("drive", "hitched: rear wheels of the car"),
        ("trailer", "hitched: wheels of the trailer"),
        ("steer alone", "car alone: front wheels"),
        ("drive alone", "car alone: rear wheels"),
    ),
    "trailer on its jack": (("whole", "trailer alone, wheels and jack"), ("axles", "wheels only, the jack beside the scale")),
    "total and ball": (("total", "the whole trailer, unhitched, on any scale"), ("ball", "coupler on a scale, level")),
    "plank": (("plank", "scale with the coupler on the plank"), ("bare plank", "scale with the plank alone")),
    "tongue scale": (("ball", "coupler on the scale"),),
    "wheel pads": (("left", "pads under the left wheels"), ("right", "pads under the right wheels"), ("ball", "coupler on a scale")),
    "ruler": (("jack", "bathroom scale under the jack, unhitched"),),
    "vehicle axles": (("steer", "front wheels alone on the scale"), ("drive", "rear wheels alone on the scale")),
    "tilted": (("level", "coupler on the scale, level"), ("raised", "coupler on the scale, nose raised"), ("total", "the whole trailer")),
}
# What a reading is called where there is little room.
SHORT = {
    "steer": "Car, front",
    "drive": "Car, rear",
    "trailer": "Trailer wheels",
    "steer alone": "Car alone, front",
    "drive alone": "Car alone, rear",
    "whole": "Wheels and jack",
    "axles": "Wheels only",
    "plank": "Coupler on plank",
    "bare plank": "Plank alone",
    "ball": "On the ball",
    "left": "Left wheels",
    "right": "Right wheels",
    "level": "Ball, level",
    "raised": "Ball, nose raised",
    "total": "In all",
    "jack": "Under the jack",
}
WAY_WORDS = {
    "platform with the car": "Public platform, two tickets: hitched with slack bars, and the car alone.",
    "trailer on its jack": "Trailer alone on the platform, on its jack; then with the jack beside it.",
    "total and ball": "The whole trailer on any scale, and the coupler on another.",
    "plank": "A plank as a lever over a bathroom scale.",
    "tongue scale": "A scale under the coupler, level.",
    "wheel pads": "A pad under each wheel, a scale under the coupler.",
    "ruler": "Unhitched on its jack: sag of both springs or prints of both tyres, and a bathroom scale under the jack.",
    "vehicle axles": "The vehicle with its box: front wheels on the platform, then its rear wheels.",
    "tilted": "The nose level, then raised ten degrees or more; wheels free, springs blocked.",
}
ON_A_BED = ("vehicle axles",)  # ways for what is carried on a vehicle's bed; all others are for what hangs on a ball
BAND_SHARE = 0.25  # of the width of the band that a doubt may be, to say anything
LB = 0.45359237
CHANGED, CHANGED_KG = 0.05, 3.0  # of total or ball, from which on it is another trailer


class Weighed(msgspec.Struct, frozen=True):
    """What a ticket says. total_kg, tongue_kg: None where the way does not tell; sigmas of them, and their covariance.

    faults: why it says nothing; minds: what to mind about it. cg_m: height of the centre, with what 1 kg of the scale does.
    """

    ticket: Ticket
    total_kg: float | None
    tongue_kg: float | None
    sigma_total_kg: float
    sigma_tongue_kg: float
    cov_kg2: float
    axle_kg: float | None
    left_kg: float | None
    right_kg: float | None
    cg_m: float | None
    cg_per_kg_m: float | None
    faults: tuple[str, ...]
    minds: tuple[str, ...]


def reading_sigma_kg(step_kg: float, grade: float, kg: float) -> float:
    """Check steps of 20 kg: 5.8."""
    return math.hypot(step_kg / math.sqrt(12.0), grade * abs(kg))


def plank_kg(reading: float, bare: float, scale_m: float, coupler_m: float) -> float:
    """Ball load by a bathroom scale under a plank [kg]. Source: moments about the plank's far end."""
    return (reading - bare) * scale_m / coupler_m


def jack_tongue_kg(jack_kg: float, jack_m: float, axle_m: float) -> float:
    """Ball load by a scale under the jack [kg]. Source: moments about the axle."""
    return jack_kg * (axle_m - jack_m) / axle_m


def tilted_height_m(total: float, level: float, raised: float, axle_m: float, radius_m: float, coupler_m: float, deg: float) -> float:
    """Height of the centre of gravity by weighing the ball level and raised [m]."""
    return radius_m + ((level - raised) * axle_m / math.tan(math.radians(deg)) + raised * (coupler_m - radius_m)) / total


def ways_for(s: Studied) -> tuple[WeighWay, ...]:
    """The ways in which what is drawn can be weighed, the usual one first."""
    on_bed = s.build.rig.carrier == "vehicle bed"
    return tuple(way for way in READINGS if (way in ON_A_BED) == on_bed)


def weighed(ticket: Ticket, s: Studied) -> Weighed:
    """What a ticket says of what is drawn."""
    if ticket.way not in ways_for(s):
        other = "a trailer on its ball" if ticket.way not in ON_A_BED else "what is carried on a vehicle's bed"
        return _nothing(ticket, (f"this way weighs {other}; choose another",))
    kg = {reading.id: reading.kg for reading in ticket.readings}
    axle = _axle_m(s)
    minds: list[str] = []
    wanted = [id for id, _ in READINGS[ticket.way] if id not in kg]
    faults = [f"{where} is not typed" for id, where in READINGS[ticket.way] if id in wanted]
    faults += [
        f"{id}: {Words(s.build.brief.reading.shown()).kg(value)} is below nothing; look at the sign"
        for id, value in kg.items()
        if value < 0
    ]
    if faults:
        return _nothing(ticket, tuple(faults))

    def sigma(*ids: str) -> float:
        return math.sqrt(sum(reading_sigma_kg(ticket.step_kg, ticket.grade, kg[id]) ** 2 for id in ids))

    total = tongue = on_axle = left = right = height = per_kg = None
    sigma_total = sigma_tongue = cov = 0.0
    if ticket.way == "platform with the car":
        car = ticket.car_kg or 0.0
        tongue = kg["steer"] + kg["drive"] - kg["steer alone"] - kg["drive alone"] - car
        on_axle, total = kg["trailer"], kg["trailer"] + tongue
        sigma_tongue = sigma("steer", "drive", "steer alone", "drive alone")
        sigma_total, cov = math.hypot(sigma_tongue, sigma("trailer")), sigma_tongue**2
        if kg["steer"] > kg["steer alone"]:
            minds.append("the front wheels of the car became heavier: were bars under load, or is it typed the wrong way round?")
    elif ticket.way == "trailer on its jack":
        if axle is None or ticket.jack is None:
            return _nothing(ticket, ("the jack's place from the ball, or the axle's, is not known",))
        jack = kg["whole"] - kg["axles"]
        if jack < 0:
            return _nothing(ticket, ("the axles alone read more than the whole: the two are typed the wrong way round",))
        tongue, total, on_axle = jack_tongue_kg(jack, ticket.jack.si, axle), kg["whole"], None
        share = (axle - ticket.jack.si) / axle
        sigma_total, sigma_tongue = sigma("whole"), sigma("whole", "axles") * share
        cov = share * sigma("whole") ** 2
    elif ticket.way == "plank":
        if ticket.plank_scale is None or ticket.plank_coupler is None or ticket.plank_coupler.si <= 0:
            return _nothing(ticket, ("the plank's two lengths from its pivot are not typed",))
        lever = ticket.plank_scale.si / ticket.plank_coupler.si
        tongue = plank_kg(kg["plank"], kg["bare plank"], ticket.plank_scale.si, ticket.plank_coupler.si)
        sigma_tongue = lever * sigma("plank", "bare plank")
    elif ticket.way == "total and ball":
        total, tongue = kg["total"], kg["ball"]
        if tongue >= total:
            return _nothing(ticket, ("the ball cannot carry more than the whole trailer weighs: the two are typed the wrong way round",))
        sigma_total, sigma_tongue = sigma("total"), sigma("ball")
    elif ticket.way == "ruler":
        ruled = wheels_by_ruler(ticket, s)
        if not isinstance(ruled, Ruled):
            return _nothing(ticket, ruled)
        jack_at = ticket.jack.si if ticket.jack is not None else s.build.rig.jack_station.si if s.build.rig.jack_station else None
        if axle is None or jack_at is None:
            return _nothing(ticket, ("the jack's place from the ball, or the axle's, is not known",))
        left, right = ruled.left_kg, ruled.right_kg
        on_axle, total = left + right, left + right + kg["jack"]
        share = (axle - jack_at) / axle
        tongue, tilt_kg = jack_tongue_kg(kg["jack"], jack_at, axle), 0.0
        if ticket.tilt_deg:
            over_hub = _over_hub_m(s, ticket)
            told_kg = tilted_ball_kg(tongue, total, over_hub, axle, ticket.tilt_deg)
            tilt_kg, tongue = abs(told_kg - tongue) / 2, told_kg
            minds.append("its nose was not level: what that did is reckoned with the model's own height, and half of it left open")
        jack_kg = sigma("jack")
        sigma_tongue = math.hypot(share * jack_kg, kg["jack"] * JACK_M / axle, tilt_kg)
        sigma_total, cov = math.hypot(ruled.sigma_kg, jack_kg), share * jack_kg**2
        if ruled.apart_kg is not None and abs(ruled.apart_kg) > 0.25 * on_axle:
            minds.append(f"springs and prints are {Words(s.build.brief.reading.shown()).kg(abs(ruled.apart_kg))} apart: measure both again")
    elif ticket.way == "vehicle axles":
        total, on_axle = kg["steer"] + kg["drive"], kg["drive"]
        sigma_total = sigma("steer", "drive")
    elif ticket.way == "tongue scale":
        tongue, sigma_tongue = kg["ball"], sigma("ball")
    elif ticket.way == "wheel pads":
        left, right, tongue = kg["left"], kg["right"], kg["ball"]
        on_axle, total = left + right, left + right + tongue
        sigma_tongue, sigma_total, cov = sigma("ball"), sigma("left", "right", "ball"), sigma("ball") ** 2
    else:
        total, tongue = kg["total"], kg["level"]
        sigma_total, sigma_tongue = sigma("total"), sigma("level")
        if axle is None or ticket.coupler_height is None or ticket.wheel_radius is None or not ticket.tilt_deg:
            minds.append("the height of the centre wants coupler height, wheel radius and the angle")
        else:
            told = (total, kg["level"], kg["raised"], axle, ticket.wheel_radius.si, ticket.coupler_height.si, ticket.tilt_deg)
            height = tilted_height_m(*told)
            per_kg = abs(tilted_height_m(told[0], told[1] + 1.0, *told[2:]) - height)
            if ticket.tilt_deg < 10:
                minds.append("under ten degrees a kilogram of the scale moves the centre far")
    if tongue is not None and tongue < 0:
        minds.append("the ball comes out below nothing: typed the wrong way round, or it lifts the car")
    minds += _too_coarse(s, sigma_tongue)
    minds += _pounds(ticket, s, total, tongue)
    return Weighed(
        ticket,
        total,
        tongue_kg=tongue,
        sigma_total_kg=sigma_total,
        sigma_tongue_kg=sigma_tongue,
        cov_kg2=cov,
        axle_kg=on_axle,
        left_kg=left,
        right_kg=right,
        cg_m=height,
        cg_per_kg_m=per_kg,
        faults=(),
        minds=tuple(minds),
    )


JACK_M = 0.01  # the jack's place is read to so much


def _over_hub_m(s: Studied, ticket: Ticket) -> float:
    """How high the model's centre stands over the hubs [m]; nought where it is not known."""
    rows = s.towing_rows
    high = float(s.readings.cg_m[rows[0], 2]) if rows else math.nan
    tyre = s.build.rig.tyre.diameter
    radius = ticket.wheel_radius.si if ticket.wheel_radius is not None else tyre.si / 2 if tyre is not None else 0.3
    return max(high - radius, 0.0) if math.isfinite(high) else 0.0


def _axle_m(s: Studied) -> float | None:
    rows = s.towing_rows
    if not rows or s.support is None or s.support.carrier != "ball":
        return None
    at = float(s.readings.effective_axle_m[rows[0]])
    return at if math.isfinite(at) and at > 0 else None


def _nothing(ticket: Ticket, faults: tuple[str, ...]) -> Weighed:
    return Weighed(
        ticket,
        None,
        tongue_kg=None,
        sigma_total_kg=0.0,
        sigma_tongue_kg=0.0,
        cov_kg2=0.0,
        axle_kg=None,
        left_kg=None,
        right_kg=None,
        cg_m=None,
        cg_per_kg_m=None,
        faults=faults,
        minds=(),
    )


def _too_coarse(s: Studied, sigma_kg: float) -> list[str]:
    """Whether the doubt of the scale leaves anything to say of the ball's band."""
    rows, words = s.towing_rows, Words(s.build.brief.reading.shown())
    if not rows or sigma_kg <= 0:
        return []
    low, high = (float(kg) for kg in s.readings.band_kg[rows[0]])
    if not math.isfinite(high - low) or sigma_kg <= BAND_SHARE * max(high - low, 1e-9):
        return []
    return [
        f"plus or minus {words.kg(sigma_kg)} on the ball, and its band is {words.kg(max(high - low, 0))} wide: not enough; use a plank or a tongue scale"
    ]


def _pounds(_ticket: Ticket, s: Studied, total: float | None, tongue: float | None) -> list[str]:
    """Pounds that were typed as kilograms, or the other way round, are suspected where that would fit far better."""
    if total is None:
        return []
    nearest = nearest_case(s, total, tongue)
    if nearest is None:
        return []
    model, words = float(s.readings.total_kg[nearest]), Words(s.build.brief.reading.shown())
    for factor, says in ((LB, "pounds were typed as kilograms"), (1 / LB, "kilograms were typed as pounds")):
        other = nearest_case(s, total * factor, None if tongue is None else tongue * factor)
        if other is None:
            continue
        if abs(total / model - 1) > 0.35 and abs(total * factor / float(s.readings.total_kg[other]) - 1) < 0.12:
            return [f"{words.kg(total)} is far from any case, {words.kg(total * factor)} is not: perhaps {says}"]
    if abs(total / model - 1) > 0.5:
        return [f"{words.kg(total)} is far from any case of this build ({words.kg(model)}): is it the ticket of another trailer?"]
    return []


def nearest_case(s: Studied, total: float | None, tongue: float | None) -> int | None:
    """The row of the case that a weighing was most like; None where there is no case to compare with."""
    best, at = math.inf, None
    for row in s.towing_rows:
        off = 0.0
        if total is not None:
            off += abs(float(s.readings.total_kg[row]) - total) / max(total * 0.05, 1.0)
        if tongue is not None and math.isfinite(float(s.readings.tongue_kg[row])):
            off += abs(float(s.readings.tongue_kg[row]) - tongue) / max(abs(tongue) * 0.15, 5.0)
        if off < best:
            best, at = off, row
    return at


def case_row(s: Studied, ticket: Ticket) -> int | None:
    """The case that the ticket says was aboard; None where it says none: nobody guesses what was in it."""
    for row, case in enumerate(s.table.cases):
        if ticket.case and ticket.case in (case.id, *case.same_as) and case.mode.towing:
            return row
    return None


class Aboard(msgspec.Struct, frozen=True):
    """A case that a ticket may have been like, and what the ticket has more than the model says of it [kg]; None: not weighed.

    rear_more_kg: on the vehicle's rear axle, where there is no ball.
    """

    row: int
    more_kg: float | None
    ball_more_kg: float | None
    rear_more_kg: float | None = None


def cases_like(s: Studied, what: Weighed) -> tuple[Aboard, ...]:
    """Every towing case with what the ticket has more than it, the likest first; nothing of a ticket that says nothing."""
    if what.faults:
        return ()
    made = []
    for row in s.towing_rows:
        total, ball = float(s.readings.total_kg[row]), float(s.readings.tongue_kg[row])
        more = None if what.total_kg is None or not math.isfinite(total) else what.total_kg - total
        ball_more = None if what.tongue_kg is None or not math.isfinite(ball) else what.tongue_kg - ball
        rear = float(s.readings.axle_kg[row, -1]) if what.ticket.way in ON_A_BED and s.readings.axle_kg.shape[1] else math.nan
        rear_more = None if what.axle_kg is None or not math.isfinite(rear) else what.axle_kg - rear
        made.append(Aboard(row, more, ball_more, rear_more))
    off = lambda aboard: abs(aboard.more_kg or 0.0) / 10 + abs(aboard.ball_more_kg or 0.0) + abs(aboard.rear_more_kg or 0.0)
    return tuple(sorted(made, key=off))


class Stale(msgspec.Struct, frozen=True):
    """By how much the model has changed since a ticket: share of the total, and the ball [kg]."""

    total: float
    tongue_kg: float


def modelled(s: Studied) -> tuple[Modelled, ...]:
    """What the build says of every towing case now, to be kept with a ticket."""
    b = s.readings
    return tuple(
        Modelled(s.table.cases[row].id, float(b.total_kg[row]), float(b.tongue_kg[row]) if math.isfinite(float(b.tongue_kg[row])) else None)
        for row in s.towing_rows
        if float(b.total_kg[row]) > 0
    )


def stale(ticket: Ticket, s: Studied, row: int | None) -> Stale | None:
    """What changed since the ticket, where it is another trailer now: over 5 % of the total, or as much of the ball and 3 kg.

    An accepted ticket is held against what its correction made of the model.
    """
    if row is None:
        return None
    case = s.table.cases[row]
    keys = (case.id, *case.same_as)
    held = next((correction for correction in reversed(s.build.road.corrections) if ticket.id in correction.tickets), None)
    if held is not None:
        last = s.build.road.corrections[-1]
        seen = next((seen for seen in last.seen if seen.case in keys), None)
        then = None if seen is None else (seen.model_kg, seen.model_tongue_kg)
    else:
        found = next((modelled for modelled in ticket.model if modelled.case in keys), None)
        then = None if found is None else (found.total_kg, found.tongue_kg)
    if then is None or then[0] <= 0:
        return None
    off = float(s.readings.total_kg[row]) / then[0] - 1
    ball = float(s.readings.tongue_kg[row]) - then[1] if then[1] is not None else 0.0
    ball = ball if math.isfinite(ball) else 0.0
    if abs(off) <= CHANGED and abs(ball) <= max(CHANGED * abs(then[1] or 0.0), CHANGED_KG):
        return None
    return Stale(off, ball)
