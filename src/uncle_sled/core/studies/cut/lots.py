"""Pieces that are alike as one line of the list to be cut."""

from __future__ import annotations

import msgspec

from uncle_sled.core.studies.cut.piece import Piece
from uncle_sled.core.studies.cut.take_off import TakeOff
from uncle_sled.core.studies.cut.wanted import CutKind, Wanted


class Lot(msgspec.Struct, frozen=True):
    """Equal pieces as one line of the list to be cut, and which pieces they are."""

    wanted: Wanted
    pieces: tuple[Piece, ...]


def wanted_of(off: TakeOff) -> tuple[Wanted, ...]:
    """What is to be cut, pieces that are alike in one line."""
    return tuple(lot.wanted for lot in lots_of(off))


def lots_of(off: TakeOff) -> tuple[Lot, ...]:
    """Pieces as a list to be cut: what is cut with a saw, equal ones together, in the order in which they were taken off."""
    found: dict[tuple[object, ...], list[Piece]] = {}
    for piece in off.pieces:
        if piece.kind == "fill":
            continue
        width = piece.width_m if piece.kind == "sheet" else 0.0
        ends = piece.ends_deg if piece.kind == "bar" else ()
        size = (piece.kind, piece.material, round(piece.length_m, 4), round(width, 4), piece.grain, piece.outline, ends)
        found.setdefault(size, []).append(piece)
    out: list[Lot] = []
    taken: dict[str, int] = {}
    for same in found.values():
        first = same[0]
        word = f"{first.of} {first.name}" if first.kind == "bar" else first.name
        taken[word] = taken.get(word, 0) + 1
        id = word if taken[word] == 1 else f"{word} ({taken[word]})"
        width = first.width_m if first.kind == "sheet" else 0.0
        kind: CutKind = "sheet" if first.kind == "sheet" else "bar"
        wanted = Wanted(
            id,
            kind,
            material=first.material,
            length_m=first.length_m,
            width_m=width,
            qty=len(same),
            grain=first.grain,
            outline=first.outline,
            metal=first.kg_m is not None,
            sold_m=first.sold_m,
        )
        out.append(Lot(wanted, tuple(same)))
    return tuple(out)
