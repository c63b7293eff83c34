"""How much of the trailer should stand on the ball? Schools by region, and the limits that always hold.

Source: towing practice of the three regions (docs/methods.md); the Australian and New
Zealand "about 10 %" is taken as 9 to 12 %, so that its floor of 8 % stays below the band.
"""

from __future__ import annotations

import msgspec
import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.document.brief import Brief, Vehicle
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.rig import Rig
from uncle_sled.core.engine import keep

Floats = NDArray[np.float64]


class Practice(msgspec.Struct, frozen=True):
    """Advised shares on the ball, and the share under which sway is a danger."""

    low: float
    high: float
    least: float
    says: str
    least_most_kg: float | None = None  # so much is enough, whatever the share


PRACTICES = {
    "European": Practice(0.05, 0.07, 0.04, "European practice 5 to 7 %", 25.0),
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
    least_most_kg: float | None = None

    def least_kg(self, total_kg: Floats | float) -> Floats | float:
        """Under so much on the ball sway is a danger [kg]: European practice says the smaller of 4 % and 25 kg."""
        share = self.least * total_kg
        return share if self.least_most_kg is None else np.minimum(share, self.least_most_kg)

    def served(self, total_kg: Floats | float) -> NDArray[np.bool_]:
        """Whether any load on the ball keeps both the least share and the lowest limit, for totals [kg]."""
        if self.limit_kg is None:
            return np.ones(np.shape(total_kg), dtype=bool)
        return np.asarray(np.asarray(self.least_kg(total_kg)) <= self.limit_kg + 1e-9)

    def cut_at_kg(self) -> float:
        """Total over which the lowest limit lies under the band [kg]: there the aim is as near that limit as one can."""
        return np.inf if self.limit_kg is None or self.low <= 0 else self.limit_kg / self.low


NEAR_LIMIT = 0.9  # of the lowest limit, where that lies under the band


def band_kg(band: Band, total_kg: Floats) -> tuple[Floats, Floats]:
    """Least and most load on the ball that the band advises for totals [kg]; the lowest limit caps the most.

    Where that limit lies under the band itself, the aim is from 0.9 of it to it, and never under the least share of the
    practice; where even that is over the limit, no place serves, and both ends are the limit: least never lies over most.
    """
    if band.limit_kg is None:
        return band.low * total_kg, band.high * total_kg
    near = np.minimum(np.maximum(NEAR_LIMIT * band.limit_kg, band.least_kg(total_kg)), band.limit_kg)
    low = np.where(total_kg > band.cut_at_kg(), near, band.low * total_kg)
    return low, np.minimum(np.maximum(band.high * total_kg, low), band.limit_kg)


def vehicles_of(brief: Brief, facts: Facts) -> tuple[Vehicle, ...]:
    """The tow vehicles that this build is meant for; all that are known where none is chosen."""
    chosen = tuple(v for v in facts.vehicles if v.id in brief.vehicles)
    return chosen or facts.vehicles


@keep(most=4)
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
    return Band(
        low,
        max(high, low),
        least=min(practice.least, low),
        says=says,
        limit_kg=limit,
        limit_says=name,
        least_most_kg=practice.least_most_kg,
    )
