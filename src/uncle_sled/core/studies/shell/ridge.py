"""What holds a pitched roof together at its ridge, or a butterfly at its valley?

A rafter is held at its foot and at a ridge only where the ridge is held itself: by a beam on posts or walls, w = (snow + dead) B / 2
a metre of it, M = w L^2 / 8 between what carries it; or by ties at the feet against the thrust w B^2 / (8 rise) a metre, or
collars at a height y over the plates against w B^2 / (8 (rise - y)). B is the whole width, w on the plan. Without one of them
neither rafter nor ridge is checked. Source: statics of a three-hinged roof (any structures text). Screening only.
"""

from __future__ import annotations

import math

import msgspec

from uncle_sled.core.document.shell import Ridge, Shell
from uncle_sled.core.geometry.surfaces import Body, section_points
from uncle_sled.core.parts.ridge_sticks import PITCHED
from uncle_sled.core.studies.shell import strength as st

# Beams as sold, thickness and depth [m], the least first; two of 45 side by side are 90.
BEAMS_M = tuple((thick, deep) for deep in (0.095, 0.120, 0.145, 0.170, 0.195, 0.220, 0.245, 0.295) for thick in (0.045, 0.070, 0.090))
BEAMS_IN_M = tuple((n * 0.0381, d * 0.0254) for d in (3.5, 5.5, 7.25, 9.25, 11.25) for n in (1, 2, 3))


class Pitch(msgspec.Struct, frozen=True):
    """A roof of two slopes: whole width, rise from the plates to the ridge, length and height of the ridge over the ground [m]."""

    wide_m: float
    rise_m: float
    long_m: float
    at_m: float
    valley: bool


def pitch_of(shell: Shell, body: Body | None) -> Pitch | None:
    """The two slopes of a body; None where its roof has no ridge and no valley."""
    if body is None or shell.form not in PITCHED or body.width <= 0:
        return None
    points = section_points(shell, body)
    plate, ridge = points[1][1], points[2][1]
    if abs(ridge - plate) < 1e-6:
        return None
    return Pitch(body.width, abs(ridge - plate), body.length, body.under + ridge, shell.form == "butterfly")


def held(ridge: Ridge | None, pitch: Pitch) -> bool:
    """Whether something is said that holds the ridge: a beam of known size, or ties or collars; a valley wants a beam."""
    if ridge is None or not ridge.held_by:
        return False
    if ridge.held_by == "beam":
        return ridge.beam is not None and min(ridge.beam.thick.si, ridge.beam.deep.si) > 0
    return not pitch.valley


def beam_n_m(load_pa: float, pitch: Pitch) -> float:
    """What a metre of ridge or valley beam carries [N/m]: half of each slope's plan. Check 1.3 kPa, 2.4 m: 1,560 N/m."""
    return load_pa * pitch.wide_m / 2


def thrust_n_m(load_pa: float, pitch: Pitch, up_m: float = 0.0) -> float:
    """Thrust at the feet a metre of roof, or what a collar so high over the plates takes [N/m].

    Check 1.3 kPa, B 2.4, rise 0.6: 1,560 N/m; collar at 0.3: 3,120. Infinite at the ridge.
    """
    left = pitch.rise_m - up_m
    return load_pa * pitch.wide_m**2 / (8 * left) if left > 1e-9 else math.inf


def carries(thick_m: float, deep_m: float, span_m: float, load_n_m: float) -> tuple[float, float, float]:
    """Of a softwood beam on edge: bending over its allowable, sinking over a 240th of its span, and its moment [N m]."""
    made = st.beam(st.solid(thick_m, deep_m), span_m, load_n_m)
    return (
        made.stress_pa / st.allowable_pa("softwood", deep_m, st.SNOW, together=False),
        made.sinks_m / (span_m / st.SOFT),
        made.moment_nm,
    )


def proposed(pitch: Pitch, load_pa: float, span_m: float, inches: bool) -> tuple[float, float] | None:
    """The least beam as sold that carries its load and does not sink too far [m]; None where none does over that span."""
    load = beam_n_m(load_pa, pitch)
    for thick, deep in BEAMS_IN_M if inches else BEAMS_M:
        bends, sinks, _ = carries(thick, deep, span_m, load + thick * deep * 4500.0)
        if bends <= 1 and sinks <= 1:
            return thick, deep
    return None
