"""What a holding takes in each direction: straps by the way they lead, bolts and latches every way.

Source: direct lashing, EN 12195-1, and cargo practice for light trailers (docs/methods.md); screening only.
"""

from __future__ import annotations

import math
from typing import Literal

from uncle_sled.core.document.stow import Hold
from uncle_sled.core.units import GRAVITY

HOLDS_DOWN = {"strap", "bolt", "latch", "built in"}  # a lip or a rail lets a thing jump
USUAL_DEG = 45.0  # of a strap where nobody measured
FRICTION = {"": 0.0, "wood": 0.3, "metal": 0.2, "rubber": 0.6}  # of what a thing stands on

Way = Literal["fore", "aft", "side", "up"]
WAYS: tuple[Way, ...] = ("fore", "aft", "side", "up")


def capacities_n(hold: Hold, weight_n: float, friction: float) -> dict[Way, float]:
    """What a rated holding takes each way [N], by the direction of its straps; bolts and latches take it every way.

    Forward counts only straps that lead aft from the thing, and so on: of straps that lead both ways half of them each.
    Friction helps along the floor with the weight and the straps' own pull down. Raises: nothing; unrated is nothing.
    """
    each = hold.rated.si * GRAVITY if hold.rated else 0.0
    if hold.kind != "strap":
        every = hold.many * each
        return {"fore": every, "aft": every, "side": every, "up": every if hold.kind in HOLDS_DOWN else 0.0}
    a = math.radians(USUAL_DEG if hold.elevation_deg is None else hold.elevation_deg)
    b = math.radians(USUAL_DEG if hold.plan_deg is None else hold.plan_deg)
    half = hold.many // 2
    aft_leading = {"both ways": half, "aft": hold.many, "fore": 0}[hold.leads]
    fore_leading = {"both ways": half, "aft": 0, "fore": hold.many}[hold.leads]

    def taken(straps: int, share: float) -> float:
        rubs = friction * (weight_n + straps * each * math.sin(a))
        return straps * each * share + (rubs if hold.many else 0.0)

    along, across = math.cos(a) * math.cos(b), math.cos(a) * math.sin(b)
    return {
        "fore": taken(aft_leading, along),
        "aft": taken(fore_leading, along),
        "side": taken(half, across),
        "up": hold.many * each * math.sin(a),
    }
