"""Everything physical as one kind of record, whoever made it."""

from __future__ import annotations

import math
from typing import Literal

import msgspec
import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Group = Literal["frame", "shell", "fresh", "grey", "gas", "fuel", "power", "cargo", "kit", "outside", "vehicle"]

# One standard deviation of a mass as a share of it, by where it came from; shared bias on top of
# computed ones (density, resin uptake, fasteners left out), fully correlated in its group.
SURENESS = {"weighed": 0.01, "data_sheet": 0.03, "computed": 0.06, "estimated": 0.15, "guessed": 0.30}
SHARED_BIAS = 0.04
# Standing doubts of a place, one sigma [m] or share of length.
MEMBER_M, PLACED_M, UNKNOWN_CG_SHARE, AXLE_M, CONTENTS_SHARE = 0.005, 0.015, 0.10, 0.005, 0.03
DENSITY = {
    "fresh": 1000.0,
    "grey": 1000.0,
    "black": 1000.0,
    "urine": 1015.0,
    "solids": 700.0,
    "gas": 510.0,
    "petrol": 745.0,
    "diesel": 840.0,
}


class Contents(msgspec.Struct, frozen=True):
    """What a tank can hold: its full mass, and where its box stands: middle and underside [m].

    ``centres`` tables what the centre does with the level where it does more than rise by half of it:
    rows of level, and the centre from the middle of the underside along x, y and z as the tank stands.
    """

    kind: str
    full_kg: float
    volume_m3: float
    middle_x_m: float
    middle_y_m: float
    bottom_m: float
    height_m: float
    centres: tuple[tuple[float, ...], ...] = ()

    def centres_m(self, level: Floats | float) -> tuple[Floats | float, Floats | float, Floats | float]:
        """Station, side and height of the contents' centre at levels, 0 to 1 [m]."""
        if not self.centres:
            return self.middle_x_m, self.middle_y_m, self.bottom_m + self.height_m * level / 2
        at, *off = self.centres
        dx, dy, dz = (np.interp(level, at, along) if any(along) else 0.0 for along in off)
        return self.middle_x_m + dx, self.middle_y_m + dy, self.bottom_m + dz


class Part(msgspec.Struct, frozen=True):
    """A mass at a place. Stations aft of the ball, y right of the middle, z above ground [m]."""

    id: str
    name: str
    group: Group
    made_by: str
    source: str
    mass_kg: float
    x_m: float
    y_m: float
    z_m: float
    size_m: tuple[float, float, float] = (0.0, 0.0, 0.0)  # along x, y, z as it stands
    station_sigma_m: float = PLACED_M
    bias_group: str | None = None
    contents: Contents | None = None
    cargo: bool = False
    base: bool = False  # there already at the bare-shell stage

    @property
    def sigma_kg(self) -> float:
        """One standard deviation of the empty mass [kg], without the shared bias."""
        return abs(self.mass_kg) * SURENESS[self.source]


def unknown_cg_sigma_m(length_m: float, known: bool) -> float:
    """Doubt of a placed thing's station [m]: how well it is put, and how well its own centre is known."""
    return PLACED_M if known else math.hypot(PLACED_M, UNKNOWN_CG_SHARE * length_m)
