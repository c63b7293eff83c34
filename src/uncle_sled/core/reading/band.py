"""How much of the trailer should stand on the ball? Schools by region, and the limits that always hold.

Source: towing practice of the three regions (docs/methods.md); the Australian and New
Zealand "about 10 %" is taken as 9 to 12 %, so that its floor of 8 % stays below the band.
"""

from __future__ import annotations

import msgspec

from uncle_sled.core.document.brief import Brief, Vehicle
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.rig import Rig
from uncle_sled.core.engine import keep_last


class Practice(msgspec.Struct, frozen=True):
    """Advised shares on the ball, and the share under which sway is a danger."""

    low: float
    high: float
    least: float
    says: str


PRACTICES = {
    "European": Practice(0.05, 0.07, 0.04, "European practice 5 to 7 %"),
    "North American": Practice(0.10, 0.15, 0.08, "North American practice 10 to 15 %"),
    "Australian/New Zealand": Practice(0.09, 0.12, 0.08, "Australian and New Zealand practice, about 10 %"),
}


class Band(msgspec.Struct, frozen=True):
    """The band on the ball: shares low and high, least share, and the lowest vertical limit [kg]."""

    low: float
    high: float
    least: float
    says: str
    limit_kg: float | None
    limit_says: str


def vehicles_of(brief: Brief, facts: Facts) -> tuple[Vehicle, ...]:
    """The tow vehicles that this build is meant for; all that are known where none is chosen."""
    chosen = tuple(v for v in facts.vehicles if v.id in brief.vehicles)
    return chosen or facts.vehicles


@keep_last(4)
def band_of(brief: Brief, rig: Rig, facts: Facts) -> Band:
    """The band that a build is judged by: its region's, or the builder's own, and the lowest limit stated."""
    practice = PRACTICES[brief.region]
    low = practice.low if brief.band_low is None else brief.band_low
    high = practice.high if brief.band_high is None else brief.band_high
    says = practice.says
    if brief.band_low is not None or brief.band_high is not None:
        says = f"own band {low * 100:g} to {high * 100:g} %"
    limits = [(rig.coupler_rating, "coupler"), (rig.hitch_rating, "hitch")]
    limits += [(vehicle.tongue_limit, vehicle.name) for vehicle in vehicles_of(brief, facts)]
    known = [(mass.si, name) for mass, name in limits if mass and mass.si > 0]
    limit, name = min(known, default=(None, ""))
    return Band(low, high, min(practice.least, low), says, limit, name)
