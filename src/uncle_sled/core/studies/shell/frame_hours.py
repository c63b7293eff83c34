"""How long does a body's frame take, by what each school does: sticks by the piece, tubes by the end and the fold, panels by the bond?

A stick of wood 0.25 h, a C of light steel 0.20; an end of a tube 0.20 (sawn, fitted, welded, ground) and a fold 0.25; a strip
of a glued rib 0.15 beside it; a metre of bonded corner 0.15; a metre of fillet with its strips 0.45. Source: guesses of the trade,
as the tasks have them; no first-timer's share in it.
"""

from __future__ import annotations

from uncle_sled.core.framing.light_steel import STUD
from uncle_sled.core.framing.member import Member
from uncle_sled.core.framing.welded_tube import STEEL
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.shell.seams import fillets_of

STICK_H, STUD_H, END_H, FOLD_H, STRIP_H, BOND_H_M, FILLET_H_M = 0.25, 0.20, 0.20, 0.25, 0.15, 0.15, 0.45


def frame_hours(s: Studied) -> float:
    """Of all sticks, welds, bonds and fillets of a body [h]; none where nothing is framed."""
    held = fillets_of(s.build.shell, s.framed)
    return sum(_hours(member) for member in s.framed.members) + (held.length_m * FILLET_H_M if held is not None else 0.0)


def _hours(member: Member) -> float:
    if member.role == "corner profile":
        return BOND_H_M * member.length_m
    if member.material == STEEL.id:
        return 2 * END_H + FOLD_H * len(member.cuts)
    if member.material == STUD.id:
        return STUD_H
    return STICK_H + STRIP_H * member.strips
