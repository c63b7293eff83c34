"""What becomes of cabinets where they stand: drawers pulled against something, doors and drawers that the body cuts."""

from __future__ import annotations

import msgspec

from uncle_sled.core.document.placing import stand_of
from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.stow import Mode
from uncle_sled.core.engine import keep
from uncle_sled.core.parts.all_parts import cabinets_of
from uncle_sled.core.parts.cabinet_cut import placing_of
from uncle_sled.core.studies.stow.clashes import related
from uncle_sled.core.studies.stow.solids import solids_in

TOUCH_M = 0.004


class Blocked(msgspec.Struct, frozen=True):
    """A drawer that does not come out: how far it would, how far it does [m], and against what."""

    cabinet: str
    bay: str
    travel_m: float
    free_m: float
    by: str


@keep("build.rig", "build.shell", "build.stow", "facts.materials", "mode", most=6)
def blocked_drawers(build: Build, facts: Facts, mode: Mode) -> tuple[Blocked, ...]:
    """Every bay of drawers against what stands before it in a mode."""
    solids = solids_in(build.stow, mode)
    holder = {solid.id: solid.inside for solid in solids}
    made = []
    for id, board in cabinets_of(build, facts).items():
        thing = next(t for t in build.stow.things if t.id == id)
        if thing.cabinet is None or id not in holder:
            continue
        at = placing_of(thing, thing.cabinet, stand_of(thing, mode))
        for bay in thing.cabinet.bays:
            if bay.front != "drawers":
                continue
            faces = [b for b in board.boards if b.bay == bay.id and b.kind == "drawer face"]
            sides = [b for b in board.boards if b.bay == bay.id and b.kind == "drawer side"]
            if not faces or not sides:
                continue
            low = [min(b.box[0][k] for b in faces) for k in range(3)]
            high = [max(b.box[1][k] for b in faces) for k in range(3)]
            travel = max(b.box[1][1] - b.box[0][1] for b in sides)
            corners = at.world((low[0], 0.0, low[2])), at.world((high[0], -travel, high[2]))
            zone = [sorted((corners[0][k], corners[1][k])) for k in range(3)]
            axis, way = at.across(1)
            for solid in solids:
                if solid.id == id or related(solid.id, id, holder):
                    continue
                if any(min(zone[k][1], solid.high[k]) - max(zone[k][0], solid.low[k]) <= TOUCH_M for k in range(3)):
                    continue
                free = corners[0][axis] - solid.high[axis] if way > 0 else solid.low[axis] - corners[0][axis]
                made.append(Blocked(id, bay.id, travel, max(float(free), 0.0), solid.id))
    return tuple(made)


def cut_fronts(build: Build, facts: Facts) -> tuple[tuple[str, str, str], ...]:
    """Doors and drawers that curve or wheel box cut: cabinet, board, by what. A cut drawer is no box any more."""
    return tuple(
        (id, board, what)
        for id, fitted in cabinets_of(build, facts).items()
        for board, what in (*fitted.by, *((lost, "curve") for lost in fitted.lost))
        if board.startswith(("drawer", "door"))
    )
