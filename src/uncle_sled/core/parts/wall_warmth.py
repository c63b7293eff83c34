"""How warm is a wall with sticks in it? Both bounds of its resistance, and their mean.

Upper: heat goes through sticks and fill side by side. Lower: it spreads out between layers as it likes. Source: ISO 6946,
combined method; where the bounds lie over 1.5 apart (metal through foam) the standard does not hold, and both are shown.
"""

from __future__ import annotations

import msgspec

from uncle_sled.core.errors import GeometryError

TRUSTED = 1.5
STEEL_W_MK, HOLLOW_M2K_W = 50.0, 0.18  # of steel; of the air inside of a tube or hat


class Slice(msgspec.Struct, frozen=True):
    """One layer: resistance of its fill [m2K/W], and of the stick and its share where sticks go through it."""

    fill_m2k_w: float
    stick_m2k_w: float | None = None
    share: float = 0.0


class Warmth(msgspec.Struct, frozen=True):
    """Resistance [m2K/W] with its films: upper and lower bound."""

    upper_m2k_w: float
    lower_m2k_w: float

    @property
    def r_m2k_w(self) -> float:
        """Mean of both bounds, as ISO 6946 has it."""
        return (self.upper_m2k_w + self.lower_m2k_w) / 2

    @property
    def u_w_m2k(self) -> float:
        """What goes through a square metre for a degree."""
        return 1 / self.r_m2k_w

    @property
    def trusted(self) -> bool:
        """Whether the mean says anything; else the lower bound is the one to go by."""
        return self.upper_m2k_w <= TRUSTED * self.lower_m2k_w


def warmth(slices: tuple[Slice, ...], films_m2k_w: float, crossing: tuple[Slice, ...] = ()) -> Warmth:
    """Both bounds of layers in a row. ``crossing``: layers whose sticks run across those of ``slices``.

    Sticks of ``slices`` lie behind each other. Raises: GeometryError: a share outside of 0 to 1, or a layer of no resistance
    beside a stick.
    """
    for slice_ in (*slices, *crossing):
        if not 0 <= slice_.share <= 1:
            raise GeometryError(f"A share of sticks of {slice_.share:g} cannot be; 0 to 1 would be right.")
    upper = 0.0
    for share_a, stick_a in _ways(slices):
        for share_b, stick_b in _ways(crossing):
            through = films_m2k_w + sum(_of(layer, stick_a) for layer in slices) + sum(_of(layer, stick_b) for layer in crossing)
            upper += share_a * share_b / through
    lower = films_m2k_w
    for slice_ in (*slices, *crossing):
        if slice_.share <= 0 or slice_.stick_m2k_w is None:
            lower += slice_.fill_m2k_w
        else:
            lower += 1 / (slice_.share / max(slice_.stick_m2k_w, 1e-6) + (1 - slice_.share) / max(slice_.fill_m2k_w, 1e-6))
    return Warmth(1 / upper, lower)


def _ways(slices: tuple[Slice, ...]) -> tuple[tuple[float, bool], ...]:
    share = max((slice_.share for slice_ in slices), default=0.0)
    return ((share, True), (1 - share, False)) if share > 0 else ((1.0, False),)


def _of(slice_: Slice, stick: bool) -> float:
    return slice_.stick_m2k_w if stick and slice_.stick_m2k_w is not None and slice_.share > 0 else slice_.fill_m2k_w


def tube_m2k_w(deep_m: float, wide_m: float, wall_m: float) -> float:
    """Resistance through a steel tube or hat across a wall: its webs beside its hollow. Source: as above."""
    share = min(2 * wall_m / wide_m, 1.0)
    return 1 / (share / (deep_m / STEEL_W_MK) + (1 - share) / HOLLOW_M2K_W)
