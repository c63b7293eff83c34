"""What a piece of the build in the round is called, from what made it."""

from __future__ import annotations

from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.engine import keep
from uncle_sled.core.parts.all_parts import framed_of, parts_of
from uncle_sled.core.round.round_piece import RoundPiece
from uncle_sled.core.studies.cut.numbers import numbers_of


@keep(most=2)
def _named(build: Build, facts: Facts) -> tuple[dict[str, str], dict[str, str]]:
    """Names by id of what is chosen, and by key of what is cut with its number."""
    by_id = {part.id: part.name for part in parts_of(build, facts)}
    by_id.update({opening.id: opening.name for opening in build.shell.openings})
    by_id.update({thing.id: thing.name for thing in build.stow.things})
    by_id.update({member.id: f"{member.face}: {member.kind}" for member in framed_of(build, facts).members})
    by_id.setdefault("frame", "Frame")
    by_key = {}
    for numbered in numbers_of(build, facts).named:
        by_key[numbered.piece.key] = f"{numbered.label} {numbered.piece.name}"
        by_key.setdefault(numbered.piece.whole, by_key[numbered.piece.key])
    return by_id, by_key


def piece_name(piece: RoundPiece, build: Build, facts: Facts) -> str:
    """Its number and what it is called where it is cut, else its name."""
    by_id, by_key = _named(build, facts)
    return by_key.get(piece.key) or by_id.get(piece.id) or piece.what
