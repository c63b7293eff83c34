"""Weighing with a ruler: sag of both springs, prints of the tyres by their pressure, the jack on a bathroom scale, a level's tilt.

Springs: load = rate x sag / g + what is under them. Prints: pressure x length x width / g; the casing carries a little too, so an
eighth is left open. Either may be missing; of both the surer counts for more (weights by inverse variance). Source: Hooke's law,
contact of a tyre with the road (any text of tyres). Checks: 60 kN/m, 45 mm: 275 kg a wheel; 250 kPa, 130 x 110 mm: 365 kg.
"""

from __future__ import annotations

import math

import msgspec

from uncle_sled.core.document.road import Ticket
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.units import GRAVITY

RULER_M, GAUGE = 0.002, 0.03  # a sag or an edge is read to 2 mm, a pressure to 3 %
RATE, CASING = 0.08, 0.125  # what a rate off a plate leaves open, and what the casing carries


class Side(msgspec.Struct, frozen=True):
    """What the wheels of one side carry [kg] by springs and by prints; None where it was not measured."""

    springs_kg: float | None
    prints_kg: float | None


class Ruled(msgspec.Struct, frozen=True):
    """What a ruler says of the wheels. kg: of both sides, sigma_kg its doubt; apart_kg: by how much springs and prints disagree."""

    left_kg: float
    right_kg: float
    sigma_kg: float
    left: Side
    right: Side
    apart_kg: float | None


def spring_kg(rate_n_m: float, sag_m: float) -> float:
    """Load on a spring of a wheel [kg]. Check 60 kN/m, 45 mm: 275."""
    return rate_n_m * sag_m / GRAVITY


def print_kg(pressure_kpa: float, long_m: float, wide_m: float) -> float:
    """Load on a tyre by its print [kg]. Check 250 kPa, 130 x 110 mm: 365."""
    return pressure_kpa * 1e3 * long_m * wide_m / GRAVITY


def tilted_ball_kg(read_kg: float, total_kg: float, over_hub_m: float, axle_m: float, nose_up_deg: float) -> float:
    """The load at the coupler, level, from that with the nose up by an angle [kg]: raised, the centre moves aft over the hubs."""
    return read_kg + total_kg * over_hub_m * math.tan(math.radians(nose_up_deg)) / axle_m


def wheels_by_ruler(ticket: Ticket, s: Studied) -> Ruled | tuple[str, ...]:
    """What the wheels carry, or what is still wanted for it."""
    rig = s.build.rig
    axles = max(len(rig.axles), 1)
    rate = ticket.rate or rig.spring_rate
    unsprung = ticket.unsprung.si if ticket.unsprung is not None else sum(axle.mass.si for axle in rig.axles if axle.mass is not None)
    wanted = []
    by_springs = ticket.sag_left is not None and ticket.sag_right is not None
    if by_springs and rate is None:
        wanted.append("the springs' rate of one wheel is not known: by its plate, or on Rig")
        by_springs = False
    some_print = ticket.print_left is not None or ticket.print_right is not None
    by_prints = ticket.print_left is not None and ticket.print_right is not None and bool(ticket.print_wide) and bool(ticket.pressure_kpa)
    if some_print and not by_prints:
        wanted.append("of the prints both lengths, the width and the pressure are wanted")
    if not by_springs and not by_prints:
        return (*wanted, "sag of both springs with their rate, or prints of both tyres with their pressure, are not typed")
    sides = []
    for sag, long in ((ticket.sag_left, ticket.print_left), (ticket.sag_right, ticket.print_right)):
        springs = axles * spring_kg(rate.si, sag.si) + unsprung / 2 if by_springs and rate is not None and sag is not None else None
        prints = None
        if by_prints and long is not None and ticket.print_wide is not None and ticket.pressure_kpa is not None:
            prints = axles * print_kg(ticket.pressure_kpa, long.si, ticket.print_wide.si)
        sides.append(Side(springs, prints))
    sums = [_sum(sides, "springs_kg"), _sum(sides, "prints_kg")]
    doubts = [_spring_sigma(axles, rate.si, sums[0] - unsprung) if sums[0] is not None and rate is not None else None, None]
    if sums[1] is not None and ticket.print_left is not None and ticket.print_right is not None and ticket.print_wide is not None:
        mean = (ticket.print_left.si + ticket.print_right.si) / 2
        doubts[1] = sums[1] * math.hypot(
            GAUGE, CASING, RULER_M / max(ticket.print_wide.si, RULER_M), RULER_M / math.sqrt(2) / max(mean, RULER_M)
        )
    weights = [1 / doubt**2 if doubt else 0.0 for doubt in doubts]
    share = [weight / sum(weights) for weight in weights]

    def of(side: Side) -> float:
        return share[0] * (side.springs_kg or 0.0) + share[1] * (side.prints_kg or 0.0)

    apart = sums[1] - sums[0] if sums[0] is not None and sums[1] is not None else None
    return Ruled(of(sides[0]), of(sides[1]), 1 / math.sqrt(sum(weights)), sides[0], sides[1], apart)


def _sum(sides: list[Side], of: str) -> float | None:
    values = [getattr(side, of) for side in sides]
    return None if any(value is None for value in values) else float(sum(values))


def _spring_sigma(axles: int, rate_n_m: float, sprung_kg: float) -> float:
    """Doubt of both sides together: the rate is one and the same for all, each sag is read by itself."""
    read = math.sqrt(2) * axles * rate_n_m * RULER_M / GRAVITY
    return math.hypot(RATE * max(sprung_kg, 0.0), read)
