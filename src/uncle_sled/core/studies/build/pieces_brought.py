"""Which task brings which piece that is cut, and which area of rolls and tins; every one of them exactly once.

By the same kinds and the same table as the masses (``what_it_is.py``). A piece whose kind no task here brings is there from the start.
"""

from __future__ import annotations

import msgspec

from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.engine import keep
from uncle_sled.core.parts.all_parts import framed_of
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.from_shell import sticks_group, sticks_part
from uncle_sled.core.parts.ridge_sticks import ridge_sticks
from uncle_sled.core.studies.build.what_it_is import bringing_of, kind_of_sticks, kind_of_thing, kinds_of_layers
from uncle_sled.core.studies.cut.numbers import runs_of
from uncle_sled.core.studies.cut.piece import Piece, Spread
from uncle_sled.core.studies.cut.take_off import take_off


class PieceBrought(msgspec.Struct, frozen=True):
    """A piece, its kind, the task that brings it and the one in which it is put together."""

    piece: Piece
    what: str
    by: str
    made: str


class SpreadBrought(msgspec.Struct, frozen=True):
    """What comes on rolls or in tins, its kind and its task."""

    spread: Spread
    what: str
    by: str


class _Known(msgspec.Struct, frozen=True):
    """What ids mean in this build. sticks: part and kind by a stick's key; layers: part and kind by face and layer."""

    sticks: dict[str, tuple[str, str]]
    layers: dict[tuple[str, str], tuple[str, str]]
    stuff: dict[tuple[str, str], tuple[str, str]]  # part and kind by face and material
    things: dict[str, str]
    openings: frozenset[str]
    inner: frozenset[str]


@keep(most=2)
def _known(build: Build, facts: Facts) -> _Known:
    framed, shell, library = framed_of(build, facts), build.shell, library_of(facts.materials)
    sticks: dict[str, tuple[str, str]] = {}
    for member in framed.members:
        part = sticks_part(sticks_group(member))
        sticks[member.id] = (part, kind_of_sticks(part, shell))
    for stick in ridge_sticks(shell, framed.body) if framed.body is not None else ():
        sticks[f"roof/{stick.id}"] = (stick.id, "roof sticks")
    layers: dict[tuple[str, str], tuple[str, str]] = {}
    stuff: dict[tuple[str, str], tuple[str, str]] = {}
    for face in shell.faces:
        if all(layer.material in library for layer in face.layers):
            for layer, what in zip(face.layers, kinds_of_layers(face, shell, library), strict=True):
                for surface in framed.body.of(face.kind) if framed.body is not None else ():
                    layers[surface.id, layer.id] = (face.id, what)
                    stuff[surface.id, layer.material] = (face.id, what)
    return _Known(
        sticks,
        layers,
        stuff,
        things={thing.id: kind_of_thing(thing) for thing in build.stow.things},
        openings=frozenset(opening.id for opening in shell.openings),
        inner=frozenset(inner.id for inner in shell.inner),
    )


def layer_made(build: Build, facts: Facts, face: str, layer: str) -> str:
    """The task in which a layer of a face is put on; "" where there is none such. Args: face, layer: ids."""
    part, what = next((known for (_, id), known in _known(build, facts).layers.items() if id == layer and known[0] == face), ("", ""))
    return bringing_of(build, facts).made(part, what) if what else ""


@keep(most=2)
def pieces_brought(build: Build, facts: Facts) -> tuple[PieceBrought, ...]:
    """Every piece of the take-off and every wire, in their order."""
    known, bringing = _known(build, facts), bringing_of(build, facts)
    made = []
    for piece in (*take_off(build, facts).pieces, *runs_of(build, facts)):
        part, what = _of(piece, known)
        made.append(PieceBrought(piece, what, bringing.by(part, what), bringing.made(part, what)))
    return tuple(made)


@keep(most=2)
def spreads_brought(build: Build, facts: Facts) -> tuple[SpreadBrought, ...]:
    """Every area of the take-off."""
    known, bringing = _known(build, facts), bringing_of(build, facts)
    made = []
    for spread in take_off(build, facts).spreads:
        part, what = known.stuff.get((spread.of, spread.made_of), ("", "new lining"))
        if spread.of == "rising":
            part, what = "rising-cloth", "roof that rises"
        made.append(SpreadBrought(spread, what, bringing.by(part, what)))
    return tuple(made)


def _of(piece: Piece, known: _Known) -> tuple[str, str]:
    """Part and kind of a piece."""
    if piece.kind == "wire":
        return "wiring", "wiring"
    if piece.inner:
        return piece.of, "inner wall"
    if piece.lining:
        return "", "new lining"
    if piece.kind == "trim":
        return "", "trim"
    if piece.of == "frame":
        return "frame", "frame"
    if piece.whole in known.sticks:
        return known.sticks[piece.whole]
    if piece.of in known.things:
        return piece.of, known.things[piece.of]
    if piece.of in known.openings:
        return piece.of, "leaf"
    made_by = piece.key.split("/")[1] if "/" in piece.key else ""
    return known.layers.get((piece.of, made_by), ("", "panel"))


def by_task(build: Build, facts: Facts) -> dict[str, list[PieceBrought]]:
    """The pieces that each task puts together, those of no task under ""."""
    made: dict[str, list[PieceBrought]] = {}
    for brought in pieces_brought(build, facts):
        made.setdefault(brought.made, []).append(brought)
    return made
