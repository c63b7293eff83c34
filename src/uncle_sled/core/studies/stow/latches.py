"""Does a cupboard's door stay shut against what leans on it: contents times the pull in the direction it opens?

A shelf's lip counts for half of its rating; sliding doors across the travel cannot be pushed open fore and aft.
Source: cargo practice (docs/methods.md); screening only.
"""

from __future__ import annotations

import msgspec

from uncle_sled.core.document.placing import stand_of
from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.studies.stow.restraints import ACROSS_G, ALONG_G
from uncle_sled.core.studies.stow.solids import side_of
from uncle_sled.core.units import GRAVITY

LIP_SHARE = 0.5


class Latched(msgspec.Struct, frozen=True):
    """One door: what leans on it in the direction it opens, and what its latch holds [N]; None where nobody said."""

    id: str
    name: str
    opens: str  # as it stands: front, rear, left, right
    leans_n: float | None
    holds_n: float | None

    @property
    def fault(self) -> str:
        """none, weak, or not rated."""
        if self.leans_n is None or self.holds_n is None:
            return "unrated"
        return "weak" if self.holds_n < self.leans_n - 0.5 else ""


def latches(build: Build) -> tuple[Latched, ...]:
    """Every door of a thing that rides in the first towing mode, in the order of the build."""
    mode = next((mode for mode in build.stow.modes if mode.towing), build.stow.modes[0])
    return tuple(
        _latched(thing, stand_of(thing, mode).turn)
        for thing in build.stow.things
        if thing.latch is not None and not thing.taken_out and thing.id not in mode.absent
    )


def _latched(thing: Thing, turn: int) -> Latched:
    latch = thing.latch
    assert latch is not None
    opens = side_of(latch.opens, turn)
    along = opens in ("front", "rear")
    leans = latch.leans.si * GRAVITY * (ALONG_G if along else ACROSS_G) if latch.leans else None
    if latch.kind == "none":
        holds: float | None = 0.0
    elif latch.kind == "sliding" and along:
        holds = leans  # its travel is across the pull
    elif latch.rated_n is None:
        holds = None
    else:
        holds = latch.rated_n * (LIP_SHARE if latch.kind == "lip" else 1.0)
    return Latched(thing.id, thing.name, opens, leans, holds)
