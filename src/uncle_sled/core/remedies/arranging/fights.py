"""Which wishes cannot be had together: the smallest set of them that leaves no arrangement, and whether that is proven.

The program of the arrangement without its aim is asked for any arrangement at all; where even its relaxation has none, none
exists on the grid. Source: irreducible infeasible sets by deletion (Chinneck 2008).
"""

from __future__ import annotations

import itertools

import msgspec
import numpy as np

from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.remedies.arranging.program import Program, wished
from uncle_sled.core.remedies.arranging.wishes import Wish
from uncle_sled.core.remedies.least_moves import Allowed
from uncle_sled.core.remedies.spans import asks_of
from uncle_sled.core.solver import solved

NODES = 40  # of the search tree, where the relaxation has an answer


class Fight(msgspec.Struct, frozen=True):
    """``says``: the wishes, as words that end "it must be so that …". proven: no place on the grid can keep to all of them; smallest:
    and to any fewer of them some can, as far as that was worked out."""

    ids: tuple[str, ...]
    says: tuple[str, ...]
    why: str
    proven: bool
    smallest: bool


def fight_of(s: Studied, wishes: tuple[Wish, ...], program: Program) -> Fight | None:
    """The smallest set of wishes that fights; None where none is proven to."""
    broken = [wish for wish in wishes if wish.broken]
    if broken:
        return Fight((broken[0].id,), (broken[0].says,), broken[0].broken, proven=True, smallest=True)
    near = s.build.stow.arranging.battery
    near_m = near.si if near is not None else None
    allowed = list(asks_of(s))[-1][1]

    def none(some: tuple[Wish, ...], nodes: int = 0) -> bool:
        return _none(program, some, allowed, near_m, nodes)

    if none(()):
        return Fight((), (), "what may move finds no room beside what stays", proven=True, smallest=True)
    for wish in wishes:
        if none((wish,)):
            return _fight((wish,), smallest=True)
    nodes = 0
    if not none(wishes):
        nodes = NODES
        if not none(wishes, nodes):
            return None
    left = wishes
    for wish in wishes:
        fewer = tuple(other for other in left if other is not wish)
        if none(fewer, nodes):
            left = fewer
    if len(left) > 2:
        for pair in itertools.combinations(wishes, 2):
            if none(pair, nodes):
                return _fight(pair, smallest=nodes == 0)
    return _fight(left, smallest=nodes == 0 and len(left) <= 3)


def _fight(wishes: tuple[Wish, ...], smallest: bool) -> Fight:
    return Fight(
        tuple(wish.id for wish in wishes),
        tuple(wish.says for wish in wishes),
        "with the room as it is and what stays where it is",
        proven=True,
        smallest=smallest,
    )


def _none(program: Program, wishes: tuple[Wish, ...], allowed: Allowed, near_m: float | None, nodes: int) -> bool:
    """Whether it is proven that no arrangement keeps to these wishes. Args: nodes: 0: by the relaxation alone."""
    more, top = wished(program, wishes, allowed, near_m)
    whole = np.zeros(len(top), dtype=bool)
    if nodes:
        whole[: int(program.first[-1])] = True
    return solved(np.zeros(len(top)), program.rows.joined(more), top, whole, max(nodes, 1)).none
