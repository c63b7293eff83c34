"""The rig as it is seen from its left: frame, body with what is cut into it, wheels. Metres from the ball, over the ground."""

from __future__ import annotations

from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.rig.rig_views import side_body, side_rig, side_wheels
from uncle_sled.core.drawing.shell.openings_seen import openings_seen
from uncle_sled.core.reading.studied import Studied


def trailer_side(s: Studied) -> tuple[Primitive, ...]:
    """All of it without the ground; what there is of it, where something is not drawn yet."""
    return (*side_rig(s.build, ground=False), *side_body(s.build), *openings_seen(s, "side"), *side_wheels(s.build))
