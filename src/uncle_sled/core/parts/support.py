"""What the body stands on, and how independently sprung axles share what stands on them."""

from __future__ import annotations

import msgspec
import numpy as np
from msgspec.structs import replace
from numpy.typing import NDArray

from uncle_sled.core.document.rig import Rig
from uncle_sled.core.errors import GeometryError
from uncle_sled.core.units import GRAVITY

Floats = NDArray[np.float64]


class Support(msgspec.Struct, frozen=True):
    """What the body stands on; stations aft of the ball [m] (aft of the front axle for a bed)."""

    carrier: str
    axles_m: tuple[float, ...]
    independent: bool
    track_m: float | None
    stiffness_n_m: float = 0.0  # per wheel
    level_kg: float = 0.0  # axle-group load at which the frame rides level
    nose_up_m: float = 0.0  # ball above its reference height

    @property
    def mean_axle_m(self) -> float:
        """Station of the middle of the axles [m from the ball]."""
        return sum(self.axles_m) / len(self.axles_m)


def support_of(rig: Rig) -> Support | None:
    """What the rig stands on, or None while there is nothing to stand on.

    Raises: GeometryError: an axle at or ahead of the ball, a wheelbase of nothing, more on the ball than there is.
    """
    if rig.carrier == "vehicle bed":
        if not rig.bed.wheelbase:
            return None
        if rig.bed.wheelbase.si <= 0:
            raise GeometryError("The wheelbase is not longer than nothing: measure from front axle to rear axle.")
        return Support(
            "vehicle bed",
            (0.0, rig.bed.wheelbase.si),
            independent=False,
            track_m=rig.bed.track.si if rig.bed.track and rig.bed.track.si > 0 else None,
        )
    if not rig.axles:
        return None
    if rig.base == "as bought" and rig.bought_total and rig.bought_ball and rig.bought_ball.si > rig.bought_total.si:
        raise GeometryError(
            "More was weighed on the ball than the whole trailer weighs: one of the two is typed wrong, or they are swapped."
        )
    up = (rig.ball_height.si - rig.reference_height.si) if rig.ball_height and rig.reference_height else 0.0
    return _on_axles(rig, 0.0, up)


def support_weighed(rig: Rig) -> Support | None:
    """What a bought trailer stood on when it was weighed: the axles where they were, the ball as high as it was, else level.

    Raises: GeometryError: an axle at or ahead of the ball.
    """
    if not rig.axles:
        return None
    now = sum(axle.station.si for axle in rig.axles) / len(rig.axles)
    moved = rig.bought_axle.si - now if rig.bought_axle else 0.0
    up = rig.bought_hitch.si - rig.reference_height.si if rig.bought_hitch and rig.reference_height else 0.0
    return _on_axles(rig, moved, up)


def _on_axles(rig: Rig, moved_m: float, nose_up_m: float) -> Support:
    """Raises: GeometryError: an axle at or ahead of the ball."""
    stations = tuple(sorted(axle.station.si + moved_m for axle in rig.axles))
    if stations[0] <= 0:
        raise GeometryError("An axle stands at or ahead of the ball: its place is measured aft of the ball and must be more than 0.")
    independent = rig.suspension == "independent" and len(stations) > 1
    rate = rig.spring_rate.si if rig.spring_rate and rig.spring_rate.si > 0 else 0.0
    if independent and rate <= 0:
        # Rubber torsion arms come down about 60 mm at their rating; without a rate this stands for it.
        ratings = [a.rating.si for a in rig.axles if a.rating and a.rating.si > 0]
        rate = (sum(ratings) / len(ratings) if ratings else 1000.0) * GRAVITY / 2 / 0.06
    level = rig.level_load.si if rig.level_load else sum(a.rating.si for a in rig.axles if a.rating) * 0.8
    track = rig.track.si if rig.track and rig.track.si > 0 else None
    return Support("ball", stations, independent=independent, track_m=track, stiffness_n_m=rate, level_kg=level, nose_up_m=nose_up_m)


def moment_of_axle_loads_kg_m(wheels_kg: float, support: Support) -> float:
    """Moment about the ball [kg m] with which independent axles carry so much together [kg].

    The load on the wheels rises with the moment, so it is halved in on. Raises: GeometryError: without a spring rate.
    """
    low, high = 0.0, max(support.axles_m) * max(wheels_kg, 1.0) * 4
    for _ in range(80):
        middle = (low + high) / 2
        if float(independent_axle_loads_kg(np.array(middle), support).sum()) < wheels_kg:
            low = middle
        else:
            high = middle
    return (low + high) / 2


def independent_axle_loads_kg(moment_kg_m: Floats, support: Support, axles_m: Floats | None = None) -> Floats:
    """Load of each independently sprung axle [kg] under a rigid frame held at the ball.

    Compression of axle k is c0 - h + theta x_k, never below nothing; theta from the moments about the ball.

    Args:
        moment_kg_m: Moments of the masses about the ball [kg m], any shape.
        axles_m: Other stations than the support's [m], shape (..., axles), to be judged many at a time.
    Returns: Loads, with one more dimension than the moments: (..., axles).
    Raises: GeometryError: without a spring rate.
    Source: a rigid beam on springs held at one end (any structures text).
    """
    if support.stiffness_n_m <= 0:
        raise GeometryError("Independent axles need a spring rate to share a load.")
    x = np.array(support.axles_m) if axles_m is None else axles_m
    rate = 2 * support.stiffness_n_m / GRAVITY  # kg per m of an axle
    level = support.level_kg / (rate * x.shape[-1]) - support.nose_up_m
    moment = np.asarray(moment_kg_m, dtype=float)[..., None]
    carrying = np.ones(np.broadcast_shapes((*moment.shape[:-1], x.shape[-1]), x.shape), dtype=bool)
    squeeze = np.zeros(carrying.shape)
    for _ in range(x.shape[-1]):
        reach = np.where(carrying, x, 0.0)
        theta = (moment / rate - level * reach.sum(axis=-1, keepdims=True)) / np.maximum((reach**2).sum(axis=-1, keepdims=True), 1e-12)
        squeeze = level + theta * x
        lifted = carrying & (squeeze < 0)
        # the last axle keeps its load: a wheel line cannot pull the road up, and something must carry
        carrying &= ~lifted | (carrying.sum(axis=-1, keepdims=True) == 1)
        if not lifted.any():
            break
    return np.where(carrying, rate * np.maximum(squeeze, 0.0), 0.0)


HITCH_M, REFERENCE_M, RATE_SHARE = 0.010, 0.010, 0.10  # doubt of independent springs, one sigma


def wheels_per_kg_m(moment_kg_m: Floats, support: Support) -> Floats:
    """What the wheels together take for each kg m more about the ball [1/m]: sum x / sum x^2 of the axles that carry."""
    step = 1e-3 * np.maximum(np.abs(moment_kg_m), 1.0)
    above, below = (independent_axle_loads_kg(moment_kg_m + sign * step, support).sum(axis=-1) for sign in (1.0, -1.0))
    return np.asarray((above - below) / (2 * step))


def springs_kg2(moment_kg_m: Floats, support: Support) -> Floats:
    """Variance of the ball that hitch height, reference height and spring rate leave [kg2], first order.

    Rubber creeps and sticks; that is not in it. Source: propagation of errors (any statistics text).
    """

    def ball(changed: Support) -> Floats:
        return np.asarray(-independent_axle_loads_kg(moment_kg_m, changed).sum(axis=-1))

    heights = (ball(replace(support, nose_up_m=support.nose_up_m + by)) for by in (0.001, -0.001))
    per_m = np.subtract(*heights) / 0.002
    rates = (ball(replace(support, stiffness_n_m=support.stiffness_n_m * by)) for by in (1.01, 0.99))
    per_share = np.subtract(*rates) / 0.02
    return np.asarray(per_m**2 * (HITCH_M**2 + REFERENCE_M**2) + (per_share * RATE_SHARE) ** 2)
