"""How are the rafters of a slope cut: plumb at ridge and tail, with a bird's mouth over the plate?

On a slope of angle a a level seat of p is sawn p sin a deep into a rafter and its heel is p tan a high; more than a third of the
rafter is never sawn out, there the seat is the shorter. It begins over the wall's outside, overhang / cos a from the tail. Rafters
meet each other over a ridge beam. Source: carpenters' practice. Check 26.57 deg, plate 70, rafter 95: sawn 31.3, heel 35.0 mm.
"""

from __future__ import annotations

import math

import msgspec

from uncle_sled.core.geometry.surfaces import Surface
from uncle_sled.core.reading.studied import Studied

LEAST_DEG = 3.0  # flatter, a rafter lies on its plate as it is
MOST_SHARE = 1 / 3
LEAST_SEAT_M = 0.038  # what a rafter wants to bear on


class RafterCuts(msgspec.Struct, frozen=True):
    """Of one slope. cut_deg: of ridge and tail, off square; seat_m level, notch_m square to the rafter, heel_m plumb.

    at_m: of the heel from the tail, along its underside; plate_m: how wide the plate is; many: rafters.
    """

    surface: str
    many: int
    section_m: tuple[float, float]
    long_m: float
    cut_deg: float
    seat_m: float
    notch_m: float
    heel_m: float
    at_m: float
    plate_m: float
    ridge: bool

    @property
    def too_short(self) -> bool:
        """Whether it bears on less than it wants."""
        return self.seat_m < LEAST_SEAT_M - 1e-9


def seat(slope_deg: float, plate_m: float, deep_m: float) -> tuple[float, float, float]:
    """Seat, how deep it is sawn, and its heel [m]."""
    turn = math.radians(slope_deg)
    level = min(plate_m, MOST_SHARE * deep_m / max(math.sin(turn), 1e-9))
    return level, level * math.sin(turn), level * math.tan(turn)


def rafter_cuts(s: Studied) -> tuple[RafterCuts, ...]:
    """Every slope that has rafters; none of a flat roof, a swept one, or one that is not framed with them."""
    body, sizes = s.framed.body, s.framed.sizes
    if body is None or sizes is None:
        return ()
    over = s.build.shell.roof_overhang.si if s.build.shell.roof_overhang is not None else 0.0
    made = []
    for surface in body.of("roof"):
        rafters = [member for member in s.framed.on(surface.id) if member.role == "rafter"]
        slope = slope_deg(surface)
        if surface.chain is not None or not rafters or slope < LEAST_DEG:
            continue
        first = max(rafters, key=lambda member: member.length_m)
        level, notch, heel = seat(slope, sizes.stick[1], first.section_m[1])
        made.append(
            RafterCuts(
                surface.id,
                len(rafters),
                section_m=first.section_m,
                long_m=first.length_m,
                cut_deg=slope,
                seat_m=level,
                notch_m=notch,
                heel_m=heel,
                at_m=over / math.cos(math.radians(slope)),
                plate_m=sizes.stick[1],
                ridge=s.build.shell.form in ("gable", "butterfly"),
            )
        )
    return tuple(made)


def slope_deg(surface: Surface) -> float:
    """How steep a flat surface is [degrees], 0 level."""
    return math.degrees(math.acos(min(abs(surface.inward[2]), 1.0)))
