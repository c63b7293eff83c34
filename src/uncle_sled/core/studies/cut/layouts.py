"""What a plan of sheets is: layouts with their pieces and cuts, and how good the plan is. Words as in the shop notes."""

from __future__ import annotations

from collections.abc import Sequence

import msgspec

from uncle_sled.core.studies.cut.wanted import Wanted, ring_area_m2


class Lies(msgspec.Struct, frozen=True):
    """A piece on its sheet: its corner from the sheet's corner, its sizes as it lies [m].

    ring: its outline as it lies, where it was laid by that and not by its box; pinned: it was held there.
    deg: how far it is turned then, anticlockwise by quarters.
    """

    piece: str
    x_m: float
    y_m: float
    w_m: float
    h_m: float
    turned: bool
    ring: tuple[tuple[float, float], ...] = ()
    pinned: bool = False
    deg: int = 0

    @property
    def turn_deg(self) -> int:
        """0, 90, 180 or 270, anticlockwise."""
        return self.deg if self.ring else 90 if self.turned else 0


class Cut(msgspec.Struct, frozen=True):
    """One cut edge to edge over a part of the sheet. along: 'x' parts the length; fence_m: from the part's corner.

    part: (x, y, w, h) of what is in hand [m]; level: cuts before it on this part.
    """

    along: str
    fence_m: float
    part: tuple[float, float, float, float]
    level: int


class Layout(msgspec.Struct, frozen=True):
    """One sheet with its pieces and its cuts in the order of sawing."""

    stock: str
    length_m: float
    width_m: float
    pieces: tuple[Lies, ...]
    cuts: tuple[Cut, ...]


class SheetPlan(msgspec.Struct, frozen=True):
    """Sheets of one material. used: sheets that hold a piece; bound: the least number there can be; gap: used less bound.

    waste_share: 1 less pieces over sheets by area. cost: None where some stock has no price. unplaced: (id, how many).
    """

    material: str
    layouts: tuple[Layout, ...]
    used: int
    bound: int
    cost: float | None
    waste_share: float
    unplaced: tuple[tuple[str, int], ...]

    @property
    def gap(self) -> int:
        """How many sheets lie between it and the least there can be."""
        return self.used - self.bound


def plan_with(
    pieces: Sequence[Wanted], layouts: Sequence[Layout], bound: int, cost: float | None, unplaced: tuple[tuple[str, int], ...]
) -> SheetPlan:
    """The plan that consists of these layouts. Args: pieces: of one material, all that were asked for."""
    by_id = {wanted.id: wanted for wanted in pieces}
    whole = sum(layout.length_m * layout.width_m for layout in layouts)
    filled = sum(piece_area_m2(by_id[piece.piece]) for layout in layouts for piece in layout.pieces)
    waste = 1 - filled / whole if whole else 0.0
    return SheetPlan(
        pieces[0].material if pieces else "",
        tuple(layouts),
        used=len(layouts),
        bound=bound,
        cost=cost,
        waste_share=waste,
        unplaced=unplaced,
    )


def piece_area_m2(piece: Wanted) -> float:
    """By its outline, or its box."""
    return ring_area_m2(piece.outline) if piece.outline else piece.length_m * piece.width_m
