"""Where a hatch over the curve of a tail would begin and end on a drawn profile, for a first plan."""

from __future__ import annotations

import numpy as np

from uncle_sled.core.document.cutting_in import BESIDE_M, hatch_over_curve
from uncle_sled.core.document.edits import Op, add_to, set_to
from uncle_sled.core.document.shell import Shell
from uncle_sled.core.geometry.profile import outline
from uncle_sled.core.geometry.surfaces import lengths, run_at_height

TURNS_DOWN_DEG = 12.0  # where the skin falls by that, the hinge lies
FIRST_AFT, LAST_AFT = 0.5, 0.85  # of the body's length: no hinge before or behind
PLAY_M = 0.002
FOOT = 0.12  # of the body's height


def over_curve(shell: Shell) -> tuple[tuple[Op, ...], str]:
    """Ops that let the tail begin at a hinge and cut a hatch in below it, with the hatch's id; none where there is no drawn profile."""
    side = outline(shell) if shell.form == "profile" else None
    if side is None or shell.length is None or shell.height is None:
        return (), ""
    front, under = (shell.front.si if shell.front else 0.0), (shell.floor.si if shell.floor else 0.0)
    chain, high = side.skin, shell.height.si
    step = np.diff(chain, axis=0)
    fall = np.degrees(np.arctan2(-step[:, 1], step[:, 0]))
    share = (chain[:-1, 0] - front) / shell.length.si
    down = np.flatnonzero((fall >= TURNS_DOWN_DEG) & (step[:, 0] > 0) & (share >= FIRST_AFT))
    clear = [o.along.si + o.width.si + BESIDE_M for o in shell.openings if o.face == "roof"]  # of what is in the roof already
    hinge = max(float(chain[down[0], 0] - front) if len(down) else 0.0, FIRST_AFT * shell.length.si, *clear)
    hinge = min(hinge, LAST_AFT * shell.length.si)
    tail = type(side)(side.polygon, side.skin, front + hinge).chain("rear")
    foot = FOOT * high
    long = run_at_height(tail, under + foot, "rear") if len(tail) > 1 else 0.0
    if long <= 0 or float(lengths(tail)[-1]) <= 0:
        return (), ""
    begins, hatch = hatch_over_curve(shell, hinge, foot, long - PLAY_M)
    return (set_to("shell.tail_from", begins), add_to("shell.openings", hatch)), hatch["id"]
