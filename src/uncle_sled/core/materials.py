"""The shipped library of materials. Every figure is the trade's usual one, to be replaced by a data sheet.

Prices and hours are estimates in the user's own money, for comparing one face with another only.
"""

from __future__ import annotations

import csv
from functools import lru_cache

import msgspec

from uncle_sled.shipped import shipped


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
    form: str = ""  # as it is bought and cut: sheet, fill, roll, coat or board; "" for one's own, of which nobody said

    def weight_kg_m2(self, thickness_m: float) -> float:
        return self.kg_m2 if self.kg_m2 is not None else (self.density_kg_m3 or 0.0) * thickness_m

    def resistance_m2k_w(self, thickness_m: float) -> float:
        if self.r_m2k_w is not None:
            return self.r_m2k_w
        return thickness_m / self.conductivity_w_mk if self.conductivity_w_mk else 0.0

    def price_m2(self, thickness_m: float) -> float:
        return self.money_m2 if self.money_m2 is not None else (self.money_m3 or 0.0) * thickness_m


@lru_cache(maxsize=1)
def materials() -> dict[str, Material]:
    """The library by id."""
    text = shipped("catalogue/materials.csv").decode()

    def number(cell: str) -> float | None:
        return float(cell) if cell else None

    made = {}
    for line in csv.DictReader(text.splitlines()):
        numbers = {
            key: number(line[key]) for key in line if key not in ("id", "name", "bends", "form", "source", "hours_m2")
        }
        made[line["id"]] = Material(
            line["id"],
            line["name"],
            hours_m2=float(line["hours_m2"]),
            bends=line["bends"],
            form=line["form"],
            source=line["source"],
            **numbers,
        )
    return made
