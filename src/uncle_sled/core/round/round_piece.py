"""One piece of the build in the round: its solid, what it is, which task brings it and what a click on it means."""

from __future__ import annotations

import msgspec

from uncle_sled.core.round.mesh import Mesh

Way = tuple[float, float, float]


class RoundPiece(msgspec.Struct, frozen=True, eq=False):
    """part: id of the part whose mass it is of, where that is another one. id: what a click means everywhere; key: of the piece that is cut, "" where nothing is.

    what: its kind by ``catalogue/brings.csv``; by: the task that brings it; stop: where it is worked on; of: the face that it goes
    off with; out: which way and how far it is drawn when all is drawn apart [m]; mass_kg: None where it is known with others only;
    filled: share of the solid that is stuff, as of a tube; ink: its colour by stuff.
    """

    id: str
    mesh: Mesh
    what: str
    by: str
    stop: str
    key: str = ""
    of: str = ""
    out: Way = (0.0, 0.0, 0.0)
    mass_kg: float | None = None
    filled: float = 1.0
    ink: str = "wood"
    made: str = ""  # the task in which it is put together; "": in that which brings it
    part: str = ""

    @property
    def volume_m3(self) -> float:
        """Of what it is made of [m3]."""
        return self.mesh.volume_m3 * self.filled
