"""The shipped library of materials: what each is, and its figures. What a material is called decides nothing. Every figure is the trade's usual one, to be replaced by a data sheet.

Prices and hours are estimates in the user's own money, for comparing one face with another only.
"""

from __future__ import annotations

from functools import lru_cache
from typing import Literal

import msgspec

from uncle_sled.core.material_words import Family, Form
from uncle_sled.core.tables import table

TIMBER = "softwood"  # id of what sticks are of where nobody said otherwise, and of what yards sell planed


class Material(msgspec.Struct, frozen=True):
    """Density, conductivity and vapour resistance; or weight and R per m2 of what comes in one thickness."""

    id: str
    name: str
    density_kg_m3: float | None
    conductivity_w_mk: float | None
    mu: float | None
    kg_m2: float | None
    r_m2k_w: float | None
    money_m3: float | None
    money_m2: float | None
    hours_m2: float
    bends: str
    source: str
    form: Form = ""  # as it is bought and cut; "" where nobody said
    family: Family = ""  # what kind of stuff it is; "" where nobody said
    screwed: bool = False  # its sheets are screwed on; others are bonded
    heat_j_kgk: float | None = None
    pack_m2: float | None = None  # area of a board as it is sold
    skin_e_gpa: float | None = None  # as the skin of a sandwich: stiffness, and strength
    skin_mpa: float | None = None
    core_e_mpa: float | None = None  # as its core: stiffness, shear stiffness, shear strength, and what crushes it
    core_g_mpa: float | None = None
    core_shear_mpa: float | None = None
    core_crush_mpa: float | None = None
    cover_mm: float | None = None  # of a sheet with ribs: how wide one lies beside the next; they come as long as they are asked for
    longest_mm: float | None = None  # and no longer than that
    air: Literal["", "still", "vented"] = ""  # a gap: shut, or open to the outside above and below

    @property
    def skin_pa(self) -> tuple[float, float] | None:
        """Stiffness and strength of a skin [Pa]; None where nobody gave them."""
        if self.skin_e_gpa is None or self.skin_mpa is None:
            return None
        return self.skin_e_gpa * 1e9, self.skin_mpa * 1e6

    @property
    def core_pa(self) -> tuple[float, float, float, float] | None:
        """Stiffness, shear stiffness, shear strength and crushing of a core [Pa]; None where nobody gave them."""
        given = (self.core_e_mpa, self.core_g_mpa, self.core_shear_mpa, self.core_crush_mpa)
        e, g, shear, crush = ((one or 0.0) * 1e6 for one in given)
        return None if None in given else (e, g, shear, crush)

    def weight_kg_m2(self, thickness_m: float) -> float:
        """Mass of a square metre at a thickness [kg/m2]."""
        return self.kg_m2 if self.kg_m2 is not None else (self.density_kg_m3 or 0.0) * thickness_m

    def resistance_m2k_w(self, thickness_m: float) -> float:
        """Resistance to heat at a thickness [m2 K/W]; None where nothing is known."""
        if self.r_m2k_w is not None:
            return self.r_m2k_w
        return thickness_m / self.conductivity_w_mk if self.conductivity_w_mk else 0.0

    def price_m2(self, thickness_m: float) -> float:
        """What a square metre costs at a thickness, in the builder's money."""
        return self.money_m2 if self.money_m2 is not None else (self.money_m3 or 0.0) * thickness_m


@lru_cache(maxsize=1)
def materials() -> dict[str, Material]:
    """The library by id."""
    return {material.id: material for material in table("catalogue/materials.csv", Material)}
