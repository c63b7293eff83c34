"""Bars of metal by their section: area, second moment, modulus and mass a metre, for the frame, the tube school and the saw.

From flat plates, without fillets and rounded corners: a rolled bar is up to 5 % heavier. Sections of one's own are built
up from the same numbers. Source: any statics text.
"""

from __future__ import annotations

from functools import lru_cache
from typing import Literal

import msgspec

from uncle_sled.core.tables import table
from uncle_sled.core.units import Shown, show

Kind = Literal["tube", "channel", "I", "angle", "built-up"]
Metal = Literal["steel", "aluminium"]
KG_M3: dict[str, float] = {"steel": 7850.0, "aluminium": 2700.0}
E_PA: dict[str, float] = {"steel": 200e9, "aluminium": 69e9}
YIELD_PA: dict[str, float] = {"steel": 235e6, "aluminium": 115e6}  # mild steel; 6061-T6 beside a weld


class BarSection(msgspec.Struct, frozen=True):
    """One section as sold [m]. ``deep`` stands upright, ``wide`` lies; walls are of one thickness but for rolled flanges."""

    id: str
    kind: Kind
    metal: Metal
    deep: float
    wide: float
    wall: float
    flange: float
    inches: bool  # sold where sizes are in inches
    source: str

    @property
    def area_m2(self) -> float:
        """Area of metal across the bar."""
        return sum(w * h for w, h, _ in self._plates())

    @property
    def centre_m(self) -> float:
        """Height of the centroid over the foot [m]."""
        plates = self._plates()
        return sum(w * h * z for w, h, z in plates) / sum(w * h for w, h, _ in plates)

    @property
    def inertia_m4(self) -> float:
        """Second moment about the level axis through the centroid [m4]."""
        middle = self.centre_m
        return sum(w * h**3 / 12 + w * h * (z - middle) ** 2 for w, h, z in self._plates())

    @property
    def modulus_m3(self) -> float:
        """Of the fibre furthest from the centroid [m3]."""
        return self.inertia_m4 / max(self.centre_m, self.deep - self.centre_m)

    @property
    def kg_m(self) -> float:
        """Mass of a metre."""
        return self.area_m2 * KG_M3[self.metal]

    def _plates(self) -> tuple[tuple[float, float, float], ...]:
        """Upright and level plates: width, height, height of the middle [m]."""
        d, b, t, f = self.deep, self.wide, self.wall, self.flange or self.wall
        if self.kind in ("tube", "built-up"):  # two channels toe to toe, or plates welded to a box
            web = (2 * t, d - 2 * f, d / 2)
            return ((b, f, f / 2), web, (b, f, d - f / 2))
        if self.kind == "angle":
            return ((b, t, t / 2), (t, d - t, (d + t) / 2))
        web = (t, d - 2 * f, d / 2)  # channel and I are alike about the level axis
        return ((b, f, f / 2), web, (b, f, d - f / 2))

    def says(self, shown: Shown, short: bool = False) -> str:
        """As it is asked for over the counter; short: for a narrow field, what is rolled in millimetres to a hundredth of an inch."""
        word = {"tube": "tube", "channel": "channel", "I": "beam", "angle": "angle", "built-up": "box built up"}[self.kind]
        metal = "" if self.metal == "steel" else f"{self.metal} "
        sizes = (self.deep, self.wide, self.wall)
        if shown.imperial and short and not self.inches:
            told = " × ".join(f"{size / 0.0254:.2f}".rstrip("0").rstrip(".") for size in sizes) + '"'
        elif shown.imperial:
            told = " × ".join(_inches(size) for size in sizes)
        else:
            told = " × ".join(show(size, "length", "mm", 1).split(" ")[0].removesuffix(".0") for size in sizes) + " mm"
        return f"{metal}{word} {told}"


def _inches(metres: float) -> str:
    """A side in inches: sixteenths as they are, what is rolled in millimetres to a thousandth."""
    inches = metres / 0.0254
    in_sixteenths = abs(inches * 16 - round(inches * 16)) < 1e-6
    return f'{inches if in_sixteenths else round(inches, 3):.4g}"'


class _Line(msgspec.Struct, frozen=True):
    """A line of the table, in millimetres."""

    id: str
    kind: Kind
    metal: Metal
    deep_mm: float
    wide_mm: float
    sold: str
    source: str
    wall_mm: float = 0.0
    flange_mm: float = 0.0


@lru_cache(maxsize=1)
def sections() -> dict[str, BarSection]:
    """The shipped table by id."""
    return {
        line.id: BarSection(
            line.id,
            line.kind,
            metal=line.metal,
            deep=line.deep_mm / 1000,
            wide=line.wide_mm / 1000,
            wall=line.wall_mm / 1000,
            flange=line.flange_mm / 1000,
            inches=line.sold == "in",
            source=line.source,
        )
        for line in table("catalogue/sections.csv", _Line)
    }


def tube_kg_m(deep: float, wide: float, wall: float, metal: Metal = "steel") -> float:
    """Mass of a square or oblong tube of one's own [kg/m]. Check 30 x 30 x 2: 1.758."""
    return BarSection("", "tube", metal=metal, deep=deep, wide=wide, wall=wall, flange=0.0, inches=False, source="").kg_m
