"""A sheet taken apart by edge-to-edge cuts: the tree of cuts, where its pieces lie, and the order of sawing.

All sizes are hundredths of a millimetre. A cut takes the kerf; what is left beside a piece is cut off last.
"""

from __future__ import annotations

from collections.abc import Iterator

import msgspec


class Leaf(msgspec.Struct, frozen=True):
    """A piece as it lies: its sizes along x and y, turned or not."""

    piece: int
    w: int
    h: int
    turned: bool


class Node(msgspec.Struct, frozen=True):
    """Two blocks beside each other (along x) or above each other (along y), with a kerf between them."""

    along: str
    w: int
    h: int
    first: Node | Leaf
    second: Node | Leaf


Block = Node | Leaf


class Placed(msgspec.Struct, frozen=True):
    """A piece at its corner, in a block of sheet that a cut has left."""

    piece: int
    x: int
    y: int
    w: int
    h: int
    turned: bool


class Saw(msgspec.Struct, frozen=True):
    """One cut over the whole of what is in hand: parted along x or y, so far from its corner; what falls off.

    level: how many cuts came before it on this part; keeps: (w, h) of what is cut off the fence side.
    """

    along: str
    fence: int
    x: int
    y: int
    w: int
    h: int
    level: int


def joined(a: Block, b: Block, along: str, kerf: int) -> Node:
    """Two blocks beside each other along an axis with one saw cut between them [hundredths of mm]."""
    if along == "x":
        return Node("x", a.w + kerf + b.w, max(a.h, b.h), a, b)
    return Node("y", max(a.w, b.w), a.h + kerf + b.h, a, b)


def leaves(block: Block) -> Iterator[Leaf]:
    """The pieces of a block, from its low left on."""
    if isinstance(block, Leaf):
        yield block
    else:
        yield from leaves(block.first)
        yield from leaves(block.second)


def placed(block: Block, kerf: int, x: int = 0, y: int = 0) -> Iterator[Placed]:
    """Where every piece of a block lies when the block's corner is at x, y."""
    if isinstance(block, Leaf):
        yield Placed(block.piece, x, y, block.w, block.h, block.turned)
        return
    yield from placed(block.first, kerf, x, y)
    if block.along == "x":
        yield from placed(block.second, kerf, x + block.first.w + kerf, y)
    else:
        yield from placed(block.second, kerf, x, y + block.first.h + kerf)


def saw_cuts(block: Block, w: int, h: int, kerf: int, x: int = 0, y: int = 0, level: int = 0) -> Iterator[Saw]:
    """Cuts that take a part of w by h down to the pieces of a block in its corner: the largest parts first.

    The part is trimmed to the block only where the block is a piece, or where a cut through both is to be edge to edge.
    """
    if isinstance(block, Leaf):
        if block.w < w:
            yield Saw("x", block.w, x=x, y=y, w=w, h=h, level=level)
            level, w = level + 1, block.w
        if block.h < h:
            yield Saw("y", block.h, x=x, y=y, w=w, h=h, level=level)
        return
    a, b = block.first, block.second
    if block.along == "x":
        yield Saw("x", a.w, x=x, y=y, w=w, h=h, level=level)
        parts = ((a, a.w, h, x, y), (b, w - a.w - kerf, h, x + a.w + kerf, y))
    else:
        yield Saw("y", a.h, x=x, y=y, w=w, h=h, level=level)
        parts = ((a, w, a.h, x, y), (b, w, h - a.h - kerf, x, y + a.h + kerf))
    for part, pw, ph, px, py in sorted(parts, key=lambda part: -part[1] * part[2]):
        yield from saw_cuts(part, pw, ph, kerf, px, py, level + 1)
