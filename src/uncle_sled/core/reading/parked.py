"""What stands on the jack when it is unhitched, and does somebody on the tail tip it?

The body on jack and axle group, moments about the axle (any statics text).
Stabilisers wound snug are taken to carry nothing but the tail's overload.
"""

from __future__ import annotations

import msgspec
import numpy as np

from uncle_sled.core.document.rig import Rig
from uncle_sled.core.reading.balance import Balance
from uncle_sled.core.reading.load_cases import Floats

PERSON_KG = 100.0


class Parked(msgspec.Struct, frozen=True):
    """Per case [kg], shape (c,): jack load at rest, and with a person standing on the tail."""

    jack_kg: Floats
    jack_tail_loaded_kg: Floats


def parked(rig: Rig, readings: Balance, tail_m: float | None) -> Parked | None:
    """Jack loads, or None for a vehicle bed or where the jack's place is not known.

    Args: tail_m: station where a person can stand at the rear [m].
    """
    if rig.carrier != "ball" or not rig.jack_station or np.isnan(readings.tongue_kg).all():
        return None
    axle = readings.effective_axle_m
    arm = axle - rig.jack_station.si
    if (arm <= 0).any():
        return None
    jack = readings.tongue_kg * axle / arm
    behind = 0.0 if tail_m is None else np.maximum(tail_m - axle, 0.0)
    return Parked(jack, jack - PERSON_KG * behind / arm)


def jack_with_person_kg(rig: Rig, readings: Balance, row: int, at_m: Floats) -> Floats | None:
    """Jack load of one case with a person standing at each place [m], shape of ``at_m``; None where it is not known."""
    there = parked(rig, readings, None)
    if there is None or rig.jack_station is None:
        return None
    axle = float(readings.effective_axle_m[row])
    return np.asarray(there.jack_kg[row] - PERSON_KG * (at_m - axle) / (axle - rig.jack_station.si))
