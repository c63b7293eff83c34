"""Gas struts on a hatch, lid or lifting bed: lever, force over angle and temperature, hand force, and a search over what is sold.

In the side plane of the lid: hinge at 0, x toward its free end when level, z up [m]. Angles in degrees; beta from shut.
L = |P - B|; lever e = (P_x (P_z - B_z) - P_z (P_x - B_x)) / L, positive where it opens.
F = F1 (273.15 + T) / 293.15 (1 + (k - 1) (L_open - L) / stroke). Hand at r_h: to raise (m g r cos phi - n (F - f) e) / r_h,
to close (n (F + f) e - m g r cos phi) / r_h. Source: stow notes; their table is a test.
"""

from __future__ import annotations

import math
from collections.abc import Iterable

import msgspec
import numpy as np
from msgspec.structs import replace
from numpy.typing import NDArray

from uncle_sled.core.document.joinery import Strut
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.errors import GeometryError
from uncle_sled.core.units import GRAVITY

Floats = NDArray[np.float64]
COLD_C, MILD_C, HOT_C = -10.0, 20.0, 40.0
TEMPERATURES = (COLD_C, MILD_C, HOT_C)
HOLD_SHARE, RAISE_N, CLOSE_N, SELF_N = 1.10, 120.0, 100.0, 80.0
SHORT_M, LONG_M = 0.005, 0.003  # left of the stroke at both ends
STEP_DEG = 2.0
SIZES_M = (
    (0.240, 0.385, 0.145),
    (0.290, 0.485, 0.195),
    (0.340, 0.585, 0.245),
    (0.390, 0.685, 0.295),
)  # shut, open, stroke, as usual in trade lists
FORCES_N = tuple(range(100, 801, 50))
KEPT, STRONG_N = 6, 1500.0
ORDER = ("self-raise", "raise", "close", "shut", "hold")  # what may give way first; hold never
SAYS = {
    "self-raise": "flies up by itself in the heat",
    "raise": "is heavy to raise in the cold",
    "close": "is hard to shut in the heat",
    "shut": "does not stay shut by itself",
    "hold": "does not stay open in frost",
}


class Turning(msgspec.Struct, frozen=True):
    """What turns on a hinge: mass [kg], distance and direction (shut) of its centre, how far it opens, where the hand is [m]."""

    mass_kg: float
    r_m: float
    shut_deg: float  # of the centre's line over level, negative where it hangs down
    opens_deg: float
    hand_m: float


class Swing(msgspec.Struct, frozen=True):
    """Over the angle at one temperature; arrays over beta."""

    t_c: float
    beta_deg: Floats
    length_m: Floats
    lever_m: Floats
    force_n: Floats
    gas_nm: Floats
    gravity_nm: Floats
    raise_n: Floats
    close_n: Floats


class Verdict(msgspec.Struct, frozen=True):
    """What limits say: share of the gas over gravity open in frost (None: it hangs past upright), hand forces [N], what fails."""

    hold_share: float | None
    raise_n: float
    close_n: float
    self_n: float
    stays_shut: bool
    fits: bool  # within its stroke all the way
    fails: tuple[str, ...]

    @property
    def good(self) -> bool:
        """Whether it fits in and fails nowhere."""
        return self.fits and not self.fails


def strut_fault(strut: Strut, turning: Turning) -> str:
    """What cannot be, in words; nothing where it can."""
    if strut.open.si <= strut.shut.si:
        return (
            f"the strut is {{{strut.open.si * 1000:.0f} mm}} open and {strut.shut.si * 1000:.0f} shut: longer open than shut would be right"
        )
    if strut.stroke.si <= 0 or strut.stroke.si > strut.open.si - strut.shut.si + 1e-6:
        return f"a stroke of {{{strut.stroke.si * 1000:.0f} mm}} is not in a strut from {strut.shut.si * 1000:.0f} to {{{strut.open.si * 1000:.0f} mm}}"
    if math.hypot(strut.body_x.si, strut.body_z.si) < 0.01 or math.hypot(strut.lid_x.si, strut.lid_z.si) < 0.01:
        return "a mount lies on the hinge: there it turns nothing"
    if strut.many < 1 or strut.force_n <= 0:
        return "no strut, or one without force"
    if turning.r_m < 0.01:
        return "the lid's centre lies on the hinge"
    if turning.mass_kg <= 0:
        return "what the lid weighs is not known"
    return ""


def force_n(strut: Strut, length_m: float | Floats, t_c: float) -> float | Floats:
    """Of one strut [N]. Check 290/485, 300 N, k 1.25, L 0.354, 20 degC: 350.2."""
    pushed = (strut.open.si - length_m) / strut.stroke.si
    return strut.force_n * (273.15 + t_c) / 293.15 * (1 + (strut.rise - 1) * pushed)


def swing(turning: Turning, strut: Strut, t_c: float, betas: Floats | None = None) -> Swing:
    """Raises: GeometryError: what the strut or its mounts cannot be."""
    fault = strut_fault(strut, turning)
    if fault:
        raise GeometryError(fault)
    beta = betas if betas is not None else angles(turning.opens_deg)
    turn = np.radians(beta)
    px = strut.lid_x.si * np.cos(turn) - strut.lid_z.si * np.sin(turn)
    pz = strut.lid_x.si * np.sin(turn) + strut.lid_z.si * np.cos(turn)
    dx, dz = px - strut.body_x.si, pz - strut.body_z.si
    long = np.hypot(dx, dz)
    lever = (px * dz - pz * dx) / np.maximum(long, 1e-9)
    force = np.asarray(force_n(strut, long, t_c))
    gravity = turning.mass_kg * GRAVITY * turning.r_m * np.cos(np.radians(turning.shut_deg + beta))
    gas = strut.many * force * lever
    rub = strut.many * strut.friction_n * np.abs(lever)
    up = (gravity - gas + rub) / turning.hand_m  # friction hinders whichever way it goes
    down = (gas + rub - gravity) / turning.hand_m
    return Swing(t_c, beta, length_m=long, lever_m=lever, force_n=force, gas_nm=gas, gravity_nm=gravity, raise_n=up, close_n=down)


def angles(opens_deg: float) -> Floats:
    """Angles at which a lid is looked at [degrees], shut and open with them."""
    many = max(math.ceil(opens_deg / STEP_DEG), 1)
    return np.linspace(0.0, opens_deg, many + 1)


def verdict(turning: Turning, strut: Strut) -> Verdict:
    """Against the limits; cold for holding and raising, hot for shutting and flying up. Raises: GeometryError."""
    cold, hot = swing(turning, strut, COLD_C), swing(turning, strut, HOT_C)
    gravity, gas = float(cold.gravity_nm[-1]), float(cold.gas_nm[-1])
    share = gas / gravity if gravity > 1e-6 else None
    up, down = float(cold.raise_n.max()), float(hot.close_n.max())
    rub = strut.many * strut.friction_n * np.abs(hot.lever_m)
    flies = float(((hot.gas_nm - rub - hot.gravity_nm) / turning.hand_m).max())
    shut = bool(hot.gravity_nm[0] > hot.gas_nm[0])
    return against_limits(strut, cold.length_m, (share, up, down), self_n=flies, flies=flies > SELF_N, shut=shut)


def against_limits(
    strut: Strut,
    length_m: Floats,
    felt: tuple[float | None, float, float],
    *,
    self_n: float,
    flies: bool,
    shut: bool,
    most_n: tuple[float, float] = (RAISE_N, CLOSE_N),
) -> Verdict:
    """What the limits say of a strut on its way, turning or straight.

    Args: length_m: it takes, (n,); felt: share of the weight that the gas holds open in frost, hands to raise and to pull down [N];
    self_n: with which it goes up by itself in the heat; flies: whether that counts; shut: it stays down by its weight;
    most_n: what the hands may do, up and down.
    """
    share, up, down = felt
    failed = {
        "self-raise": flies,
        "raise": up > most_n[0],
        "close": down > most_n[1],
        "shut": not shut,
        "hold": share is not None and share < HOLD_SHARE,
    }
    shortest, longest = strut.open.si - strut.stroke.si + SHORT_M, strut.open.si - LONG_M
    fits = bool(length_m.min() >= shortest - 1e-9 and length_m.max() <= longest + 1e-9)
    fails = tuple([what for what in ORDER if failed[what]])
    return Verdict(share, up, close_n=down, self_n=max(self_n, 0.0), stays_shut=shut, fits=fits, fails=fails)


def strut_at(size_m: tuple[float, float, float], force_n: float, many: int, mounts_m: Iterable[float]) -> Strut:
    """A strut that is sold, to the millimetre. Args: size_m: shut, open, stroke; mounts_m: on the body along and up, on the lid the same."""
    shut, opened, stroke = (Length(size) for size in size_m)
    bx, bz, lx, lz = (Length(round(float(at), 3)) for at in mounts_m)
    return Strut(shut, opened, stroke=stroke, force_n=float(force_n), many=many, body_x=bx, body_z=bz, lid_x=lx, lid_z=lz)


class Found(msgspec.Struct, frozen=True):
    """The best strut that is sold and where it goes; fails: limits that none meets; tried: how many were weighed up."""

    strut: Strut
    verdict: Verdict
    tried: int


def search(turning: Turning, many: int = 2, rise: float = 1.25, friction_n: float = 40.0) -> Found | None:
    """Over sizes, forces and mounts: what meets all limits with the least hand force, else what fails least by ORDER.

    None where no size stays within its stroke through the swing, or nothing turns. A grid: between its points may be better.
    """
    if turning.mass_kg <= 0 or turning.r_m < 0.01 or turning.opens_deg <= 0 or turning.hand_m <= 0:
        return None
    reach = turning.hand_m
    beta = np.radians(np.linspace(0.0, turning.opens_deg, 13))
    bx, bz = np.meshgrid(np.linspace(0.02, 0.40, 10) * reach, -np.linspace(0.05, 0.65, 13) * reach)
    out, off = np.meshgrid(np.linspace(0.06, 0.5, 12) * reach, np.radians(turning.shut_deg + np.array([-25.0, -12.0, 0.0])))
    lx, lz = (out * np.cos(off)).ravel(), (out * np.sin(off)).ravel()
    # shapes: body mounts x lid mounts x angles
    px = lx[:, None] * np.cos(beta) - lz[:, None] * np.sin(beta)
    pz = lx[:, None] * np.sin(beta) + lz[:, None] * np.cos(beta)
    dx, dz = px[None] - bx.ravel()[:, None, None], pz[None] - bz.ravel()[:, None, None]
    long = np.hypot(dx, dz)
    lever = (px[None] * dz - pz[None] * dx) / np.maximum(long, 1e-9)
    gravity = turning.mass_kg * GRAVITY * turning.r_m * np.cos(np.radians(turning.shut_deg) + beta)
    least, most = long.min(axis=2), long.max(axis=2)
    best: list[tuple[tuple[float, float], Strut]] = []
    tried = 0
    for shut, opened, stroke in SIZES_M:
        at = np.argwhere((least >= opened - stroke + SHORT_M) & (most <= opened - LONG_M))
        if not len(at):
            continue
        el, ll = lever[at[:, 0], at[:, 1]], long[at[:, 0], at[:, 1]]
        unit = (1 + (rise - 1) * (opened - ll) / stroke) / 293.15
        for force in FORCES_N:
            tried += len(at)
            cold = many * force * unit * (273.15 + COLD_C) * el
            hot = many * force * unit * (273.15 + HOT_C) * el
            rub = many * friction_n * np.abs(el)
            up = (gravity - cold + rub).max(axis=1) / reach
            down = (hot + rub - gravity).max(axis=1) / reach
            flies = (hot - rub - gravity).max(axis=1) / reach
            hold = cold[:, -1] / gravity[-1] if gravity[-1] > 1e-6 else np.full(len(at), np.inf)
            stays = gravity[0] > hot[:, 0]
            fails = np.stack([hold < HOLD_SHARE, ~stays, down > CLOSE_N, up > RAISE_N, flies > SELF_N], axis=1)
            weight = fails @ np.array([16.0, 8.0, 4.0, 2.0, 1.0])
            worst = np.maximum(up / RAISE_N, down / CLOSE_N)
            easy = worst + force / STRONG_N  # a weaker strut pulls less at its mounts
            for k in np.lexsort((easy, weight))[:KEPT].tolist():
                b, p = at[k]
                mounts = (bx.ravel()[b], bz.ravel()[b], lx[p], lz[p])
                strut = replace(strut_at((shut, opened, stroke), force, many, mounts), rise=rise, friction_n=friction_n)
                best.append(((float(weight[k]), float(easy[k])), strut))
    found: Found | None = None
    for _, strut in sorted(best, key=lambda pair: pair[0])[: 4 * KEPT]:  # to the millimetre, as they are marked out
        judged = verdict(turning, strut)
        if found is None or badness(judged) < badness(found.verdict):
            found = Found(strut, judged, tried)
        if judged.good:
            break
    return found


def badness(verdict: Verdict) -> tuple[bool, int]:
    """To sort by: what does not fit is worse than any limit that fails, and of these the weightiest counts."""
    return not verdict.fits, sum(1 << ORDER.index(what) for what in verdict.fails)
