"""Rails that panels lie on over a roof of ribbed sheets: two a panel, screwed through the ribs' tops, a hand longer than the panel.

Source: shop practice; an aluminium rail with its clamps weighs some 0.9 kg/m.
"""

from __future__ import annotations

import msgspec

from uncle_sled.core.document.placing import on_roof
from uncle_sled.core.document.shell import Shell
from uncle_sled.core.document.stow import Stow
from uncle_sled.core.framing.frame_body import face_of
from uncle_sled.core.parts.face_build import Library

OVER_M, RAILS, KG_M = 0.10, 2, 0.9


class Rails(msgspec.Struct, frozen=True):
    """Of one panel: its thing, how long both rails are together [m], and where its middle is."""

    thing: str
    name: str
    length_m: float
    at_m: tuple[float, float, float]

    @property
    def mass_kg(self) -> float:
        """With clamps and feet."""
        return KG_M * self.length_m


def ribbed(shell: Shell, library: Library) -> bool:
    """Whether the roof's outermost layer is a sheet with ribs."""
    roof = face_of(shell, "roof")
    known = library.get(roof.layers[0].material) if roof is not None and roof.layers else None
    return known is not None and known.cover_mm is not None


def rails_of(shell: Shell, stow: Stow, library: Library) -> tuple[Rails, ...]:
    """Of every panel on such a roof; none on any other."""
    if shell.form == "none" or not ribbed(shell, library):
        return ()
    made = []
    for thing in stow.things:
        if thing.kind == "solar" and on_roof(thing) and not thing.taken_out:
            long = RAILS * (max(thing.length.si, thing.width.si) + OVER_M)
            made.append(Rails(thing.id, thing.name, long, (thing.x.si + thing.length.si / 2, thing.y.si, thing.z.si)))
    return tuple(made)
