"""What stands on the ball, on each axle and on each side, in every load case, and how sure is it?

Statics of a body on two supports (any statics text): the ball and the axle group, or the two axles of
a vehicle under a bed. Doubt is first order, with the bias that computed masses share.
"""

from __future__ import annotations

from collections.abc import Callable

import msgspec
import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.parts.part import AXLE_M
from uncle_sled.core.parts.support import Support, independent_axle_loads_kg, springs_kg2, wheels_per_kg_m
from uncle_sled.core.reading.band import NEAR_LIMIT, Band, band_kg
from uncle_sled.core.reading.load_cases import Floats, MassTable


def _gauss_legendre(n: int) -> tuple[Floats, Floats]:
    """Nodes and weights on [-1, 1] by Newton's method. Source: any text of numerical analysis.

    Without linear algebra: an eigenvalue problem of this size wakes BLAS threads while the window waits for its
    import, 2 ms on one thread and 250 ms on two busy cores.
    """
    x = np.cos(np.pi * (np.arange(n, 0, -1) - 0.25) / (n + 0.5))
    slope = x
    for _ in range(4):
        before, now = np.ones(n), x
        for k in range(2, n + 1):
            before, now = now, ((2 * k - 1) * x * now - (k - 1) * before) / k
        slope = n * (x * now - before) / (x * x - 1)
        x = x - now / slope
    return x, 2 / ((1 - x * x) * slope * slope)


_NODES, _WEIGHTS = _gauss_legendre(96)


class Balance(msgspec.Struct, frozen=True):
    """One row per case (c). Unknown is NaN. tongue_sigma and chance are first order."""

    total_kg: Floats
    tongue_kg: Floats
    share: Floats
    axle_kg: Floats  # (c, axles); for a vehicle bed (c, 2): front, rear
    left_kg: Floats
    right_kg: Floats
    cg_m: Floats  # (c, 3)
    effective_axle_m: Floats
    tongue_sigma_kg: Floats
    total_sigma_kg: Floats
    covariance_kg2: Floats
    chance: Floats
    band_kg: Floats  # (c, 2)


def balance(table: MassTable, support: Support | None, band: Band) -> Balance:
    """The reading of every case. Shapes as in MassTable. Never raises: what is unknown is NaN."""
    mass, x, y, z = table.mass_kg, table.x_m, table.y_m, table.z_m
    total = mass.sum(axis=1)
    moment = (mass * x).sum(axis=1)
    roll = (mass * y).sum(axis=1)
    some = np.where(np.abs(total) > 1e-9, total, np.nan)
    cg = np.stack([moment / some, roll / some, (mass * z).sum(axis=1) / some], axis=1)
    none = np.full(len(total), np.nan)
    if support is None:
        return Balance(
            total,
            none,
            share=none,
            axle_kg=np.empty((len(total), 0)),
            left_kg=none,
            right_kg=none,
            cg_m=cg,
            effective_axle_m=none,
            tongue_sigma_kg=none,
            total_sigma_kg=_total_sigma(table),
            covariance_kg2=none,
            chance=none,
            band_kg=np.full((len(total), 2), np.nan),
        )
    if support.carrier == "vehicle bed":
        rear = moment / support.axles_m[1]
        half, lean = total / 2, roll / support.track_m if support.track_m else none
        return Balance(
            total,
            none,
            share=none,
            axle_kg=np.stack([total - rear, rear], axis=1),
            left_kg=half - lean,
            right_kg=half + lean,
            cg_m=cg,
            effective_axle_m=np.full(len(total), support.axles_m[1]),
            tongue_sigma_kg=none,
            total_sigma_kg=_total_sigma(table),
            covariance_kg2=none,
            chance=none,
            band_kg=np.full((len(total), 2), np.nan),
        )
    if support.independent:
        axle = independent_axle_loads_kg(moment, support)
        carried = axle.sum(axis=1)
        effective = np.where(
            carried > 0, (axle * np.array(support.axles_m)).sum(axis=1) / np.where(carried > 0, carried, 1), support.mean_axle_m
        )
        tongue = total - carried
    else:
        effective = np.full(len(total), support.mean_axle_m)
        tongue = total - moment / effective
        axle = np.repeat(((total - tongue) / len(support.axles_m))[:, None], len(support.axles_m), axis=1)
    group = total - tongue
    lean = roll / support.track_m if support.track_m else none
    low, high = band_kg(band, total)
    per_m = wheels_per_kg_m(moment, support) if support.independent else 1 / effective
    axle_kg2 = (group / effective * AXLE_M) ** 2
    if support.independent:
        axle_kg2 = axle_kg2 + springs_kg2(moment, support)
    variance_t, variance_w, covariance = joint_doubt(table, 1 - table.x_m * per_m[:, None], per_m, axle_kg2)
    return Balance(
        total,
        tongue,
        share=tongue / some,
        axle_kg=axle,
        left_kg=group / 2 - lean,
        right_kg=group / 2 + lean,
        cg_m=cg,
        effective_axle_m=effective,
        tongue_sigma_kg=np.sqrt(variance_t),
        total_sigma_kg=np.sqrt(variance_w),
        covariance_kg2=covariance,
        chance=chance_in_band(tongue, total, variance_t, variance_w, covariance, band),
        band_kg=np.stack([low, high], axis=1),
    )


def _total_sigma(table: MassTable) -> Floats:
    variance = (table.sigma_kg**2).sum(axis=1)
    for columns, shares in table.together():
        variance = variance + (table.mass_kg[:, columns] * shares).sum(axis=1) ** 2
    return np.asarray(np.sqrt(variance))


def joint_doubt(table: MassTable, arm: Floats, per_m: Floats, axle_kg2: Floats) -> tuple[Floats, Floats, Floats]:
    """Variances of a load and of the total and their covariance [kg2], each shape (c,), first order.

    Args:
        arm: What a kilogram of each mass puts on the load, shape (c, n).
        per_m: What a metre of station does for each kilogram [1/m], shape (c,).
        axle_kg2: Variance that the axle's own place adds [kg2], shape (c,).
    Source: propagation of errors (any statistics text).
    """
    own = table.sigma_kg**2
    load = (arm**2 * own).sum(axis=1) + ((table.mass_kg * per_m[:, None] * table.sigma_x_m) ** 2).sum(axis=1) + axle_kg2
    total, both = own.sum(axis=1), (arm * own).sum(axis=1)
    for columns, shares in table.together():
        biased = shares * table.mass_kg[:, columns]
        t, w = (arm[:, columns] * biased).sum(axis=1), biased.sum(axis=1)
        load, total, both = load + t**2, total + w**2, both + t * w
    return load, total, both


def normal_cdf(value: NDArray[np.float64]) -> NDArray[np.float64]:
    """Standard normal distribution function to 1.5e-7. Source: Abramowitz and Stegun 7.1.26."""
    w = np.abs(value) / np.sqrt(2.0)
    t = 1 / (1 + 0.3275911 * w)
    tail = t * (0.254829592 + t * (-0.284496736 + t * (1.421413741 + t * (-1.453152027 + t * 1.061405429)))) * np.exp(-w * w)
    return np.asarray(np.where(value >= 0, 1 - tail / 2, tail / 2))


def chance_in_band(tongue: Floats, total: Floats, variance_t: Floats, variance_w: Floats, covariance: Floats, band: Band) -> Floats:
    """Chance per case that the ball is in its band (see ``band_kg``), T and W jointly normal; shape (c,).

    Given T = t the total must lie in [t/p_hi, t/p_lo], or over what the lowest limit is the low share of while t is near
    that limit. Source: conditional normal distribution (any statistics text).
    """
    doubt = (variance_t, variance_w, covariance)
    most = np.inf if band.limit_kg is None else band.limit_kg
    chance = chance_between(
        tongue,
        total,
        doubt,
        most,
        lambda t: t / band.high if band.high > 0 else np.full_like(t, np.inf),
        lambda t: t / band.low if band.low > 0 else np.full_like(t, np.inf),
        0.0 if band.low > 0 else -np.inf,
    )
    cut = band.cut_at_kg()
    if np.isfinite(cut) and (total + 7 * np.sqrt(np.maximum(variance_w, 0)) > cut).any():
        near = (lambda t: np.full_like(t, cut)), (lambda t: np.full_like(t, np.inf))
        least = np.maximum(NEAR_LIMIT * most, band.least_kg(total))
        chance = chance + chance_between(tongue, total, doubt, most, *near, least)
        chance = np.where(band.served(total), chance, 0.0)
    return np.minimum(chance, 1.0)


def chance_between(
    load: Floats,
    total: Floats,
    doubt: tuple[Floats, Floats, Floats],
    most_kg: float,
    least_total: Callable[[Floats], Floats],
    most_total: Callable[[Floats], Floats],
    least_kg: Floats | float = -np.inf,
) -> Floats:
    """Chance per case, shape (c,), that a load [kg] lies from least_kg to most_kg and the total within ends that go with it.

    Load and total are jointly normal with variances and covariance ``doubt`` [kg2]. Given the load t, the total is
    normal too; its chance is integrated over t by Gauss-Legendre, to seven sigmas.
    """
    variance, variance_w, covariance = doubt
    sigma = np.sqrt(np.maximum(variance, 1e-12))
    end = np.minimum(load + 7 * sigma, most_kg)
    start = np.maximum(load - 7 * sigma, least_kg)
    width = np.maximum(end - start, 0.0)[:, None]
    t = start[:, None] + width * (_NODES + 1) / 2
    slope = (covariance / sigma**2)[:, None]
    mean = total[:, None] + slope * (t - load[:, None])
    spread = np.sqrt(np.maximum(variance_w[:, None] - slope * covariance[:, None], 1e-9))
    high, low = most_total(t), least_total(t)
    inside = np.where(high > low, normal_cdf((high - mean) / spread) - normal_cdf((low - mean) / spread), 0.0)
    density = np.exp(-0.5 * ((t - load[:, None]) / sigma[:, None]) ** 2) / (sigma[:, None] * np.sqrt(2 * np.pi))
    return np.asarray(np.clip((np.maximum(inside, 0.0) * density * _WEIGHTS).sum(axis=1) * width[:, 0] / 2, 0.0, 1.0))
