"""The paper that everything of a build is printed on: as chosen on Brief, else what is sold in its region."""

from __future__ import annotations

import msgspec

from uncle_sled.core.document.project import Build
from uncle_sled.core.drawing.page import POINTS_PER_M


class Paper(msgspec.Struct, frozen=True):
    """A sheet upright [points]. roll: as long as is wanted, ``wide`` is its width."""

    name: str
    wide: float
    high: float
    roll: bool = False

    @property
    def wide_m(self) -> float:
        """Its width upright [m]."""
        return self.wide / POINTS_PER_M

    @property
    def high_m(self) -> float:
        """Its height upright [m]."""
        return self.high / POINTS_PER_M

    @property
    def lying(self) -> tuple[float, float]:
        """Width and height with the long edge below."""
        return self.high, self.wide

    @property
    def upright(self) -> tuple[float, float]:
        """Width and height with the short edge below."""
        return self.wide, self.high


PAPERS = {
    "A4": Paper("A4", 0.210 * POINTS_PER_M, 0.297 * POINTS_PER_M),
    "Letter": Paper("Letter", 612.0, 792.0),
    "A3": Paper("A3", 0.297 * POINTS_PER_M, 0.420 * POINTS_PER_M),
    "Tabloid": Paper("Tabloid", 792.0, 1224.0),
}
LARGER = {"A4": "A3", "Letter": "Tabloid", "A3": "A3", "Tabloid": "Tabloid"}


def paper_of(build: Build) -> Paper:
    """What is chosen, else Letter where it is sold and A4 elsewhere."""
    return PAPERS[build.brief.paper or ("Letter" if build.brief.region == "North American" else "A4")]


def larger_of(build: Build) -> Paper:
    """The next size of the same kind, for what would be too small to read."""
    return PAPERS[LARGER[paper_of(build).name]]
