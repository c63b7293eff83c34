"""Will the sheet go round? Tightest radius by material, thickness and direction, and two thin sheets for one thick.

Source: the trade's radius table for cold, dry sheets (docs/methods.md); linear between the listed thicknesses.
"""

from __future__ import annotations

from typing import Literal

import msgspec
import numpy as np

from uncle_sled.core.geometry.profile import Points

# Thickness [m] to tightest radius [m]: curve running across the face grain (the easy way), and along it.
PLYWOOD = {
    0.003: (0.30, 0.76),
    0.006: (0.61, 1.52),
    0.008: (0.61, 1.83),
    0.009: (0.91, 2.44),
    0.012: (1.83, 3.66),
    0.015: (2.44, 4.88),
    0.018: (3.66, 6.10),
}
# Solid sheets as multiples of their thickness.
TIMES_THICKNESS = {"polycarbonate": 100.0, "acrylic": 330.0, "aluminium": 50.0, "grp": 200.0}
WARN_WITHIN = 1.15  # nearer to the tightest than this wants a test strip


class Bend(msgspec.Struct, frozen=True):
    """Whether a sheet takes a radius: allowed, warned (test-bend a strip) or refused, and its tightest [m]."""

    verdict: Literal["allowed", "warned", "refused"]
    tightest_m: float


def tightest_radius_m(bends: str, thickness_m: float, along_grain: bool = False) -> float:
    """Tightest radius that a sheet takes cold [m]; infinite for what does not bend."""
    if bends == "plywood":
        stops = sorted(PLYWOOD)
        radii = [PLYWOOD[t][1 if along_grain else 0] for t in stops]
        if thickness_m < stops[0]:
            return radii[0] * thickness_m / stops[0]
        return float(np.interp(thickness_m, stops, radii)) if thickness_m <= stops[-1] else radii[-1] * thickness_m / stops[-1]
    if bends in TIMES_THICKNESS:
        return TIMES_THICKNESS[bends] * thickness_m
    return float("inf")


def judge(bends: str, thickness_m: float, radius_m: float, along_grain: bool = False) -> Bend:
    """Whether a sheet goes round a radius. A sheet at exactly its tightest is allowed with a warning."""
    tightest = tightest_radius_m(bends, thickness_m, along_grain)
    if radius_m < tightest - 1e-9:
        return Bend("refused", tightest)
    return Bend("warned" if radius_m < tightest * WARN_WITHIN else "allowed", tightest)


def sprung_radius_m(formed_m: float, layers: int) -> float:
    """Radius after the clamps come off n equal glued layers: it grows by 1 / (1 - 1/n^2); a single one springs flat."""
    return float("inf") if layers < 2 else formed_m / (1 - 1 / layers**2)


def least_radius_m(chain: Points) -> float:
    """Tightest radius along a chain of points [m], by circles through three; corners over 30 degrees are joints, not bends."""
    if len(chain) < 3:
        return float("inf")
    a, b, c = chain[:-2], chain[1:-1], chain[2:]
    ab, bc, ca = (np.hypot(*(p - q).T) for p, q in ((a, b), (b, c), (c, a)))
    twice_area = np.abs((b[:, 0] - a[:, 0]) * (c[:, 1] - a[:, 1]) - (b[:, 1] - a[:, 1]) * (c[:, 0] - a[:, 0]))
    with np.errstate(divide="ignore", invalid="ignore"):
        radius = np.where(twice_area > 1e-12, ab * bc * ca / (2 * twice_area), np.inf)
        turn = np.degrees(np.arcsin(np.clip(twice_area / (ab * bc), 0, 1)))
    smooth = turn < 30
    return float(radius[smooth].min()) if smooth.any() else float("inf")
