"""Bodies without sticks: ply panels stitched and glued along fillets, or foam laid over with cloth inside and outside.

Their joints hold them: a fillet of thickened resin with a strip of cloth on both sides. What they carry nobody can tell from
their sizes alone; it stands as not checked. Source: shell notes, bodies without sticks.
"""

from __future__ import annotations

from uncle_sled.core.framing.cutter import Cutter
from uncle_sled.core.framing.school import Hole, SchoolOf, Sizes

EVERY_FORM = ("profile", "box", "flat", "shed", "gable", "butterfly", "bevelled")


def _nothing(_cut: Cutter, _sizes: Sizes, _holes: list[Hole]) -> None:
    """No stick is laid."""


def _school(name: str, says: str) -> SchoolOf:
    size = (0.0, 0.0)
    return SchoolOf(
        name,
        says,
        sizes=Sizes(0.40, 0.40, stick=size, rib=size, joist=size, sheet_width=1.22, sheet_length=2.44, side_thick=0.0),
        imperial=Sizes(0.4064, 0.4064, stick=size, rib=size, joist=size, sheet_width=1.2192, sheet_length=2.4384, side_thick=0.0),
        wall=_nothing,
        ribs=_nothing,
        forms=EVERY_FORM,
        feet=False,
    )


STITCHED = _school("stitched ply", "Ply panels stitched along their edges, glued with fillets under cloth; no sticks")
CLOTHED = _school("foam and cloth", "Foam boards glued edge to edge, laid over with cloth inside and outside; no sticks")
WITHOUT_STICKS = (STITCHED.name, CLOTHED.name)
