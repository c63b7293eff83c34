"""What the leaf of a door inside is made of: a ring of sticks with a middle rail between two skins, or one board.

A hinged leaf is 3 mm smaller than its opening at both sides; one that slides on the wall laps it by 25 mm, one in a pocket stays
20 mm in it. Source: joiners' practice.
"""

from __future__ import annotations

import msgspec

from uncle_sled.core.document.shell import Partition
from uncle_sled.core.materials import TIMBER, materials
from uncle_sled.core.parts.face_build import Library

LEAF_M = 0.022  # of a leaf of sticks and skins
SKIN_M = 0.004  # of a skin where nobody said
LEAST_CORE_M = 0.008  # of its sticks between the skins
RAIL_M = 0.045
GAP_M, LAP_M, STAYS_M = 0.003, 0.025, 0.020
HINGES_KG, TRACK_KG, TRACK_KG_M = 0.6, 0.8, 1.5  # fittings: estimates; of the track a metre, twice as long as the opening


class InnerLeaf(msgspec.Struct, frozen=True):
    """Of one door. wide, high, thick [m]; skin_m: thickness of one skin, or of the board; sticks: (kind, length [m]), all of one section."""

    wide_m: float
    high_m: float
    thick_m: float
    skin_m: float
    section_m: tuple[float, float]
    sticks: tuple[tuple[str, float], ...]
    mass_kg: float

    @property
    def skins(self) -> int:
        """Two over sticks, one where it is a board."""
        return 2 if self.sticks else 1


def skin_m(partition: Partition) -> float:
    """Of one skin of a wall inside and of its door, a usual one where nobody said [m]."""
    return partition.skin_thickness.si if partition.skin_thickness is not None else SKIN_M


def leaf_of(partition: Partition, wide_m: float, high_m: float, library: Library) -> InnerLeaf | None:
    """The leaf of a clear opening [m]; None where there is none. Its weight [kg] with hinges or track."""
    if partition.door in ("none", "opening"):
        return None
    more = {"hinged": -2 * GAP_M, "sliding": 2 * LAP_M, "pocket": STAYS_M}[partition.door]
    wide, high = max(wide_m + more, 0.01), max(high_m + (LAP_M if partition.door == "sliding" else -2 * GAP_M), 0.01)
    skin = library.get(partition.skin)
    fittings = HINGES_KG if partition.door == "hinged" else TRACK_KG + TRACK_KG_M * 2 * wide_m
    if partition.made == "panel":
        thick = partition.thick.si
        kg = (skin.weight_kg_m2(thick) if skin is not None else 0.0) * wide * high
        return InnerLeaf(wide, high, thick_m=thick, skin_m=thick, section_m=(0.0, 0.0), sticks=(), mass_kg=kg + fittings)
    thick_skin = min(skin_m(partition), (LEAF_M - LEAST_CORE_M) / 2)
    section = (RAIL_M, LEAF_M - 2 * thick_skin)
    rail = wide - 2 * RAIL_M
    sticks = (("stile", high), ("stile", high), *((("rail", rail),) * 3 if rail > 0 else ()))
    wood = sum(long for _, long in sticks) * section[0] * section[1] * (materials()[TIMBER].density_kg_m3 or 450.0)
    skins = 2 * (skin.weight_kg_m2(thick_skin) if skin is not None else 0.0) * wide * high
    return InnerLeaf(
        wide, high, thick_m=LEAF_M, skin_m=thick_skin, section_m=section, sticks=sticks, mass_kg=(wood + skins) * 1.04 + fittings
    )
