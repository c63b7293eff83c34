"""Timber as it is sold: which section a stick comes out of, whole, ripped, or glued up, and how many from each.

Planed softwood as usual yards have it; the builder's own sizes win where they are said. Source: usual planed sizes in Europe and
nominal sizes in North America; a rip takes a kerf.
"""

from __future__ import annotations

import itertools
import math
from functools import lru_cache
from typing import Literal

import msgspec

from uncle_sled.core.document.project import Build
from uncle_sled.core.materials import TIMBER
from uncle_sled.core.studies.cut.piece import Piece

SAME_M = 0.0012  # planed so much more or less is the same stick
THICK_MM, WIDE_MM = (18.0, 22.0, 28.0, 34.0, 45.0), (45.0, 70.0, 95.0, 120.0, 145.0, 170.0, 195.0, 220.0)
AMERICAN_MM = ((19.05, 38.1, 63.5, 88.9, 139.7), (38.1, 38.1, 63.5, 88.9, 139.7, 184.2, 235.0, 285.8))  # 1 by and 2 by, actual


class AsSold(msgspec.Struct, frozen=True):
    """How a section comes about. from_m: wide and thick of what is bought; many: sticks from each along its length.

    plies: of how many it is glued up, with between_m of plywood between them [m].
    """

    how: Literal["sold", "ripped", "glued up", "not sold"]
    from_m: tuple[float, float] = (0.0, 0.0)
    many: int = 1
    plies: int = 1
    between_m: float = 0.0


def sections_sold_m(imperial: bool) -> tuple[tuple[float, float], ...]:
    """Wide and thick of planed softwood that is usually sold [m], the smallest first."""
    if imperial:
        made = [(wide, thick) for thick, *wides in AMERICAN_MM for wide in wides]
    else:
        made = [(wide, thick) for thick, wide in itertools.product(THICK_MM, WIDE_MM) if wide >= thick]
    return tuple(sorted(((wide / 1000, thick / 1000) for wide, thick in made), key=lambda size: (size[0] * size[1], size)))


@lru_cache(maxsize=2048)
def as_sold(section_m: tuple[float, float], imperial: bool, kerf_m: float) -> AsSold:
    """The cheapest way by what is wasted. Args: section_m: its two sides [m]."""
    wide, thin = max(section_m), min(section_m)
    sold = sections_sold_m(imperial)
    if any(abs(w - wide) <= SAME_M and abs(t - thin) <= SAME_M for w, t in sold):
        return AsSold("sold", (wide, thin))
    ways = []
    for w, t in sold:
        for a, b in ((wide, thin), (thin, wide)):  # its wide side along the board's, or across it
            if a <= w + SAME_M and b <= t + SAME_M:
                many = _times(w, a, kerf_m) * _times(t, b, kerf_m)
                ways.append((w * t / many, AsSold("ripped", (w, t), many)))
    if ways:
        return min(ways, key=lambda way: way[0])[1]
    for w, t in sold:
        plies = math.floor((thin + SAME_M) / t)
        if w >= wide - SAME_M and plies >= 2 and thin - plies * t < t:
            between = max(thin - plies * t, 0.0)
            ways.append((w * t * plies, AsSold("glued up", (w, t), 1, plies, between if between > SAME_M else 0.0)))
    return min(ways, key=lambda way: way[0])[1] if ways else AsSold("not sold")


def _times(board: float, stick: float, kerf: float) -> int:
    """How many of a width come out of a board, a kerf between them."""
    return max(math.floor((board + 1e-4 + kerf) / (stick + kerf)), 1)


def comes_from(piece: Piece, build: Build) -> AsSold | None:
    """How a stick of softwood comes about; None of what is no such stick, and where the builder said which size is bought."""
    if piece.kind != "bar" or piece.made_of != TIMBER or piece.cladding:
        return None
    if any(size.stuff == piece.stuff or size.material == piece.material for size in build.cut.sizes):
        return None
    return as_sold((piece.width_m, piece.thickness_m), build.brief.region == "North American", build.cut.kerf.si)
