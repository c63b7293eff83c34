"""What holds a body without sticks together: a fillet of thickened resin in every joint, a strip of cloth on both sides of it.

Of a fillet of radius r in a square corner (1 - pi / 4) r^2; filled resin 1,000 kg/m3; two strips 75 mm wide of 200 g/m2 with as
much resin. Check r 25 mm: 0.134 + 0.060 = 0.194 kg/m. Source: boat builders' practice, figures of resin makers.
"""

from __future__ import annotations

import math

import msgspec

from uncle_sled.core.document.shell import Shell
from uncle_sled.core.framing.no_sticks import WITHOUT_STICKS
from uncle_sled.core.geometry.body_joints import Joint

RADIUS_M, FILLED_KG_M3 = 0.025, 1000.0
STRIPS, STRIP_M, STRIP_KG_M2 = 2, 0.075, 0.4
TURNS_DEG = 12.0  # less than that the panel is bent over it


class Filleted(msgspec.Struct, frozen=True):
    """All joints of a body: metres, filled resin and strips with their resin [kg], strips [m]."""

    length_m: float
    resin_kg: float
    strips_m: float
    strips_kg: float

    @property
    def mass_kg(self) -> float:
        """Both together."""
        return self.resin_kg + self.strips_kg


def radius_m(shell: Shell) -> float:
    """Of the fillets, a usual one where nobody said [m]."""
    said = shell.framing.fillet
    return said.si if said is not None and said.si > 0 else RADIUS_M


def filleted(shell: Shell, joints: tuple[Joint, ...]) -> Filleted | None:
    """Of a body without sticks; None of any other."""
    if shell.framing.school not in WITHOUT_STICKS:
        return None
    long = sum(joint.length_m for joint in joints if joint.b and joint.turn_deg >= TURNS_DEG)
    resin = long * (1 - math.pi / 4) * radius_m(shell) ** 2 * FILLED_KG_M3
    strips = long * STRIPS
    return Filleted(long, resin, strips, strips * STRIP_M * STRIP_KG_M2)
