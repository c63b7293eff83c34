"""Independent axles share by the hitch's height: ball and both axles of one case over the ball's height.

Source: a rigid frame on springs, held at the ball (studies/balance.py).
"""

from __future__ import annotations

import msgspec
import numpy as np
from msgspec.structs import replace

from uncle_sled.core.parts.support import independent_axle_loads_kg
from uncle_sled.core.reading.load_cases import Floats
from uncle_sled.core.reading.studied import Studied

SPAN_M, STEPS, LEAST_M, MOST_M = 0.15, 31, 0.2, 3.0  # no hitch is higher


class HitchCurve(msgspec.Struct, frozen=True):
    """Ball heights above the ground [m], shape (k,); ball load (k,) and axle loads (k, axles) [kg]; the height now."""

    height_m: Floats
    tongue_kg: Floats
    axle_kg: Floats
    now_m: float


def hitch_curve(s: Studied, row: int) -> HitchCurve | None:
    """The curve of a towing case; None for one or equalised axles, which do not ask, and without a ball height."""
    rig, support = s.build.rig, s.support
    if support is None or not support.independent or rig.ball_height is None or rig.reference_height is None:
        return None
    if not 0 <= row < len(s.table.cases) or not s.table.cases[row].mode.towing:
        return None
    now = rig.ball_height.si
    if not 0 < now < MOST_M:
        return None
    heights = np.linspace(max(now - SPAN_M, min(LEAST_M, now)), now + SPAN_M, STEPS)
    moment = float((s.table.mass_kg[row] * s.table.x_m[row]).sum())
    total = float(s.table.mass_kg[row].sum())
    axles = np.stack(
        [independent_axle_loads_kg(np.array(moment), replace(support, nose_up_m=float(h) - rig.reference_height.si)) for h in heights]
    )
    return HitchCurve(heights, total - axles.sum(axis=1), axles, now)
