"""What there is to weld on a body: ends of tubes and folds, their run, and the metal that goes into it.

An end that meets another tube is welded all round; a fold on its inner face and both flanks, the outer wall is whole. A weld
as thick as the tube's wall, square in section. Source: shop rule; without the fits and the ends ground flush.
"""

from __future__ import annotations

import msgspec

from uncle_sled.core.framing.member import Member
from uncle_sled.core.framing.welded_tube import STEEL
from uncle_sled.core.reading.studied import Studied

STEEL_KG_M3 = 7850.0
CAUTION = "Weld only what you know how to weld; screen, gloves, air, and nothing that burns behind it."


class Welds(msgspec.Struct, frozen=True):
    """Ends and folds to weld, the run of weld [m] and the weld metal [kg]."""

    ends: int
    folds: int
    run_m: float
    metal_kg: float


def welds(s: Studied) -> Welds | None:
    """Of all tubes of the body; None where it has none that is of steel."""
    return welds_of(tuple(m for m in s.framed.members if m.wall_m > 0 and m.material == STEEL.id))


def welds_of(tubes: tuple[Member, ...]) -> Welds | None:
    """Check: one 30 x 30 x 2 with two folds: 2 ends of 120 mm, 2 folds of 90: 0.42 m, 13.2 g."""
    if not tubes:
        return None
    ends = folds = 0
    run = metal = 0.0
    for member in tubes:
        wide, deep = member.section_m
        long = 2 * 2 * (wide + deep) + len(member.cuts) * (wide + 2 * deep)
        ends, folds, run = ends + 2, folds + len(member.cuts), run + long
        metal += long * member.wall_m**2 * STEEL_KG_M3
    return Welds(ends, folds, run, metal)


def weld_words(made: Welds, metres: str, kg: str) -> str:
    """Welds of a frame in one line. Args: metres, kg: as they are shown."""
    folds = f" and {made.folds} folds" if made.folds else ""
    return f"{made.ends} ends{folds} to weld, {metres} of run, {kg} of wire or rod"
