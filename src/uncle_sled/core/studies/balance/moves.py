"""How far may one thing slide so that every case stands in its band?

T is linear in the station of each thing, so each case gives an interval, and they are intersected.
Source: moments about the axle, solved for each thing's station.
"""

from __future__ import annotations

import numpy as np

from uncle_sled.core.document.stow import Thing
from uncle_sled.core.parts.from_stow import standing_size_m
from uncle_sled.core.reading.studied import Studied, tail_m


def slide_window_m(s: Studied, thing_id: str) -> tuple[float, float] | None:
    """Least and most shift aft [m] that puts every towing case in band, or None where there is none.

    A case in which the thing weighs nothing is skipped if it is in band and empties the answer if not.
    """
    if s.support is None or s.support.carrier != "ball":
        return None
    columns = [at for at, id in enumerate(s.table.ids) if id.split("/")[0] == thing_id]
    low, high = -np.inf, np.inf
    for row in s.towing_rows:
        total, tongue = float(s.readings.total_kg[row]), float(s.readings.tongue_kg[row])
        least, most = s.readings.band_kg[row]
        mass = float(s.table.mass_kg[row, columns].sum())
        if mass <= 1e-9 or total <= 0:
            if total > 0 and not least <= tongue <= most:
                return None
            continue
        axle = float(s.readings.effective_axle_m[row])
        low, high = max(low, (tongue - most) * axle / mass), min(high, (tongue - least) * axle / mass)
    return (float(low), float(high)) if low <= high and np.isfinite(low) else None


def ball_per_100_mm_kg(s: Studied, thing_id: str, row: int) -> float | None:
    """What 100 mm forward puts on the ball in one case [kg]."""
    if s.support is None or s.support.carrier != "ball" or np.isnan(s.readings.effective_axle_m[row]):
        return None
    columns = [at for at, id in enumerate(s.table.ids) if id.split("/")[0] == thing_id]
    return float(0.1 * s.table.mass_kg[row, columns].sum() / s.readings.effective_axle_m[row])


def stays_inside(s: Studied, thing: Thing, by_m: float) -> bool:
    """Whether a thing that slides so far stays where it can be: in the body, or on the rig where there is none."""
    x0 = thing.x.si + by_m
    x1 = x0 + standing_size_m(thing, thing.turn)[0]
    body = s.framed.body
    if thing.outside or body is None:
        reach = tail_m(s.build)
        return x0 >= 0.0 and (reach is None or x1 <= reach + 0.5)
    return body.front - 1e-6 <= x0 and x1 <= body.front + body.length + 1e-6
