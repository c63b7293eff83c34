"""What schools frame with beside the library of materials, by id."""

from __future__ import annotations

from uncle_sled.core.framing.bought_shell import HAT
from uncle_sled.core.framing.light_steel import STUD
from uncle_sled.core.framing.sandwich_panels import ALUMINIUM
from uncle_sled.core.framing.welded_tube import STEEL
from uncle_sled.core.materials import Material

FRAME_STUFF: dict[str, Material] = {material.id: material for material in (STEEL, STUD, ALUMINIUM, HAT)}
