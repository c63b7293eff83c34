"""Which edges of a cabinet's boards are seen once it is built, and want a band, a lipping or oil.

Of the carcass its front edges; of doors and drawer faces all four; of a worktop or lid the front and both ends; of a drawer's box
what stands up. Back, plinth, sides and the edges against others are covered. Source: shop rule.
"""

from __future__ import annotations

import msgspec

from uncle_sled.core.parts.cabinet import SHELF_BACK_M, Board, BoardKind, D, H, W

AT_FRONT_M = SHELF_BACK_M + 0.002
FRONTS: frozenset[BoardKind] = frozenset({"door", "sliding door", "drawer face"})
CARCASS: frozenset[BoardKind] = frozenset({"end", "bottom", "top", "rail", "divider", "shelf", "board"})
TOPS: frozenset[BoardKind] = frozenset({"worktop", "lid"})
BOXES: frozenset[BoardKind] = frozenset({"drawer side", "drawer end"})


class SeenEdge(msgspec.Struct, frozen=True):
    """side: as one stands before the cabinet, front, left, right, top or bottom; long_m: how much band it takes [m]."""

    side: str
    long_m: float


def seen_edges(board: Board, boards: tuple[Board, ...]) -> tuple[SeenEdge, ...]:
    """Of one board among those of its cabinet; what is cut to a curve counts by its box."""
    (w0, d0, h0), (w1, d1, h1) = board.box
    wide, deep, high = w1 - w0, d1 - d0, h1 - h0
    if board.kind in FRONTS:
        return (SeenEdge("top", wide), SeenEdge("bottom", wide), SeenEdge("left", high), SeenEdge("right", high))
    if board.kind in TOPS:
        return (SeenEdge("front", wide), SeenEdge("left", deep), SeenEdge("right", deep))
    if board.kind in BOXES:
        return (SeenEdge("top", deep if board.normal == W else wide),)
    front = min((other.box[0][D] for other in boards if other.kind in CARCASS), default=0.0)
    if board.kind in CARCASS and board.normal != D and d0 <= front + AT_FRONT_M:
        return (SeenEdge("front", wide if board.normal == H else high),)
    return ()


def band_m(boards: tuple[Board, ...]) -> float:
    """All edges that are seen, together [m]."""
    return sum(edge.long_m for board in boards for edge in seen_edges(board, boards))
