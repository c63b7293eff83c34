"""Everything aboard in the round: cabinets board by board, tanks by their shape, the rest as boxes of their size."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.parts.cabinet import ACROSS, FASTENERS, Board, polygons
from uncle_sled.core.parts.cabinet_cut import Fitted, Placing
from uncle_sled.core.parts.face_build import Library
from uncle_sled.core.parts.from_stow import group_of
from uncle_sled.core.parts.part import Part
from uncle_sled.core.round.mesh import Floats, Mesh, Place, block, prism_of
from uncle_sled.core.round.round_piece import RoundPiece, Way
from uncle_sled.core.studies.build.what_it_is import Bringing, kind_of_thing
from uncle_sled.core.studies.stow.solids import AXES, Solid, solids_in

LIFTED_M = 1.4  # things go up and out of the body when all is drawn apart
OUTSIDE_M = 0.25
INKS = {"fresh": "water", "grey": "water", "black": "water", "gas": "gas", "fuel": "gas", "power": "power", "cargo": "cargo", "kit": "kit"}


def of_things(
    build: Build, cabinets: dict[str, Fitted], library: Library, bringing: Bringing, parts: dict[str, Part]
) -> Iterator[RoundPiece]:
    """All that stands there at home and does not go home with the people. Args: parts: what weighs, by id."""
    if not build.stow.modes:
        return
    things = {thing.id: thing for thing in build.stow.things}
    home = build.stow.modes[0]
    plain = type(home)(home.id, home.name)  # as it stands at home: nothing put elsewhere
    for solid in solids_in(build.stow, plain):
        thing = things[solid.id]
        if thing.cargo or thing.rides:
            continue
        what = kind_of_thing(thing)
        by, out = bringing.by(thing.id, what), _out(thing)
        fitted = cabinets.get(thing.id)
        if fitted is not None and fitted.good:
            yield from _boards(thing, fitted, library, what, by, out)
            continue
        part = parts.get(thing.id)
        ink = INKS.get(group_of(thing), "wood" if what == "built in" else "zinc")
        kg = part.mass_kg if part is not None and part.mass_kg > 0 else None
        yield RoundPiece(thing.id, _shape(solid), what, by, "stow", out=out, mass_kg=kg, ink=ink)


def _out(thing: Thing) -> Way:
    return (0.0, 0.0, OUTSIDE_M if thing.outside else LIFTED_M)


def _shape(solid: Solid) -> Mesh:
    if solid.shape is None or solid.plane is None:
        return block(solid.low, solid.high)
    a, b, across = AXES[solid.plane]

    def place(s: Floats, t: Floats, depth: float) -> Floats:
        made = np.zeros((len(s), 3))
        made[:, a], made[:, b], made[:, across] = s, t, depth
        return made

    return prism_of(solid.shape, place, (solid.low[across], solid.high[across]))


def _boards(thing: Thing, fitted: Fitted, library: Library, what: str, by: str, out: Way) -> Iterator[RoundPiece]:
    for board in fitted.boards:
        whole = polygons(board.shape)
        for k, shape in enumerate(whole, 1):
            key = f"{thing.id}/{board.id}" + (f"/{k}" if len(whole) > 1 else "")
            a, b = ACROSS[board.normal]
            place = _placed(board, fitted.placing, a, b)
            mesh = prism_of(shape, place, (board.at, board.at + board.thick))
            kg = library[board.material].weight_kg_m2(board.thick) * float(shape.area) * (1 + FASTENERS)
            yield RoundPiece(thing.id, mesh, what, by, "stow", key=key, out=out, mass_kg=kg)


def _placed(board: Board, placing: Placing, a: int, b: int) -> Place:
    axes, origin = np.array(placing.axes, dtype=float), np.array(placing.origin, dtype=float)

    def place(s: Floats, t: Floats, depth: float) -> Floats:
        own = np.zeros((len(s), 3))
        own[:, a], own[:, b], own[:, board.normal] = s, t, depth
        return np.asarray(origin + own @ axes)

    return place
