"""Beams, sandwich panels and wind for the screening of a body: nothing here is a design, a licensed engineer decides.

Source: shell notes with their corrections. Checks: 45 x 70 at 0.40, span 2.20, snow 1.05 and 0.25 kPa dead: 314.6 N m, 8.56 of
11.90 MPa, 13.7 mm of 9.2; a person bare 720.5 N m, 19.6 of 11.25. Header 45 x 120 over 1.20: 271.8 N m, 2.52 MPa, 0.7 mm.
"""

from __future__ import annotations

import math
from typing import Literal

import msgspec

PERSON_N = 1200.0
SOFTWOOD_PA, SOFTWOOD_E = 6.0e6, 9.0e9
PLY_PA, PLY_E = 15.0e6, 9.0e9
STEEL_E, STEEL_YIELD, STEEL_SAFETY = 200e9, 235e6, 1.5
SNOW, MINUTES, TOGETHER = (1.15, 1.25, 1.15)  # shares of the allowable: snow only, a person for minutes, three or more together
SOFT = 240.0  # span over what it may sink
SHARE_SHEATHED, SHARE_BARE = 0.6, 1.0
LEAST_SHEATH_M, CLOSE_M = 0.009, 0.43  # that spread a person's load to the neighbours
TOWING_PA, EDGE_CP, FACING_CP = 735.0, 1.2, 0.8
RACKING_G, RACKING_N_M, RACKING_M = 0.8, 2500.0, 0.009
CD_PARKED, AIR = 1.3, 0.6
FLOOR_PA = 1900.0

Stuff = Literal["softwood", "plywood", "steel"]


class Beam(msgspec.Struct, frozen=True):
    """Bending moment [N m], stress [Pa], and how far it sinks [m]."""

    moment_nm: float
    stress_pa: float
    sinks_m: float


class Section(msgspec.Struct, frozen=True):
    """Second moment [m4], modulus [m3] and stiffness [Pa] of a stick on edge."""

    inertia_m4: float
    modulus_m3: float
    e_pa: float


BUCKLES = 0.7  # of a thin C's modulus that counts


def solid(wide_m: float, deep_m: float, e_pa: float = SOFTWOOD_E) -> Section:
    """Inertia and modulus of a solid rectangle bent over its depth [m4, m3]. Source: any statics text."""
    return Section(wide_m * deep_m**3 / 12, wide_m * deep_m**2 / 6, e_pa)


def tube(wide_m: float, deep_m: float, wall_m: float) -> Section:
    """A steel tube. Check 100 x 50 x 4: 144 cm4."""
    a, b = wide_m - 2 * wall_m, deep_m - 2 * wall_m
    inertia = (wide_m * deep_m**3 - max(a, 0.0) * max(b, 0.0) ** 3) / 12
    return Section(inertia, inertia / (deep_m / 2), STEEL_E)


def channel(wide_m: float, deep_m: float, wall_m: float) -> Section:
    """A C folded of thin steel, its lips not counted; what it may be bent by is reckoned with 0.7 of its modulus, as its edges buckle.

    Check 40 x 100 x 1.2: (40 x 100^3 - 38.8 x 97.6^3) / 12 = 32.7 cm4. Source: statics; 0.7 by practice, a maker's table goes before it.
    """
    inertia = (wide_m * deep_m**3 - max(wide_m - wall_m, 0.0) * max(deep_m - 2 * wall_m, 0.0) ** 3) / 12
    return Section(inertia, BUCKLES * inertia / (deep_m / 2), STEEL_E)


def of_sheet(wide_m: float, deep_m: float, wall_m: float, *, open_c: bool) -> Section:
    """A tube, or a C where it is open at one side."""
    return channel(wide_m, deep_m, wall_m) if open_c else tube(wide_m, deep_m, wall_m)


def beam(section: Section, span_m: float, even_n_m: float, point_n: float = 0.0) -> Beam:
    """Simply supported: w L^2/8 + P L/4; 5 w L^4/(384 E I) + P L^3/(48 E I)."""
    moment = even_n_m * span_m**2 / 8 + point_n * span_m / 4
    ei = section.e_pa * section.inertia_m4
    sinks = 5 * even_n_m * span_m**4 / (384 * ei) + point_n * span_m**3 / (48 * ei)
    return Beam(moment, moment / section.modulus_m3, sinks)


def softwood_pa(deep_m: float, lasts: float, together: bool) -> float:
    """Allowable bending. Args: lasts: SNOW, MINUTES or 1; together: three or more at 600 mm or less. Check 70, snow: 11.90."""
    size = 1.5 if deep_m <= 0.102 else 1.3 if deep_m <= 0.153 else 1.2 if deep_m <= 0.204 else 1.0
    return SOFTWOOD_PA * size * lasts * (TOGETHER if together else 1.0)


def allowable_pa(stuff: Stuff, deep_m: float, lasts: float, together: bool) -> float:
    """What a stuff may be bent by [Pa]. Args: lasts: factor of the load's time; together: sticks share their load."""
    if stuff == "steel":
        return STEEL_YIELD / STEEL_SAFETY
    return PLY_PA if stuff == "plywood" else softwood_pa(deep_m, lasts, together)


def snow_pa(ground_pa: float, slope_deg: float, american: bool, heated: bool, valley: bool = False) -> float:
    """On the roof, on its plan area. Check 1.5 kPa: 1.05 and 1.26 by ASCE 7 practice, 1.20 by EN 1991-1-3, 0.60 at 45 degrees."""
    if american:
        load = (0.7 if heated else 0.84) * ground_pa
    else:
        load = 0.8 * ground_pa * min(max((60.0 - slope_deg) / 30.0, 0.0), 1.0)
    return load * (2.0 if valley else 1.0)


class Panel(msgspec.Struct, frozen=True):
    """A sandwich, a metre wide: D [N m2], S [N], face stress a N m [1/m2], core shear a N [1/m]; strengths [Pa]."""

    d_nm2: float
    s_n: float
    face_m: float
    core_m: float
    face_pa: float
    shear_pa: float
    crush_pa: float


def sandwich(
    face_m: float, core_m: float, face_e: float, face_pa: float, core_e: float, core_g: float, shear_pa: float, crush_pa: float
) -> Panel:
    """Source: H. G. Allen. Check 1.5/30/1.5 of GRP and PU: D 7,442 N m2, S 99.2 kN. Allowed: half of the lesser of strength and wrinkling."""
    d = core_m + face_m
    wrinkle = 0.5 * (face_e * core_e * core_g) ** (1 / 3)
    return Panel(
        face_e * face_m * d**2 / 2,
        core_g * d**2 / core_m,
        face_m=face_m * d,
        core_m=d,
        face_pa=min(face_pa, wrinkle) / 2,
        shear_pa=shear_pa / 2,
        crush_pa=crush_pa,
    )


def panel_even(panel: Panel, span_m: float, even_pa: float) -> tuple[float, float, float]:
    """Sinks [m], face stress and core shear [Pa] under an even load. Check 1.60, 1.05 kPa: 15.4 mm, 7.1, 0.027 MPa."""
    sinks = 5 * even_pa * span_m**4 / (384 * panel.d_nm2) + even_pa * span_m**2 / (8 * panel.s_n)
    return sinks, even_pa * span_m**2 / 8 / panel.face_m, even_pa * span_m / 2 / panel.core_m


def panel_point(panel: Panel, span_m: float, point_n: float, strip_m: float = 0.6) -> tuple[float, float, float]:
    """The same under somebody on a strip. Check 1.2 kN, 1.60, 0.6 m: 31 mm, 16.9 MPa."""
    per_m = point_n / strip_m
    sinks = per_m * span_m**3 / (48 * panel.d_nm2) + per_m * span_m / (4 * panel.s_n)
    return sinks, per_m * span_m / 4 / panel.face_m, per_m / 2 / panel.core_m


def racking_n_m(mass_kg: float, sheathed_m: float) -> float:
    """Shear a metre of the walls that run one way. Check 900 kg on 2 x 2.6 m: 1.36 kN/m."""
    return RACKING_G * 9.80665 * mass_kg / sheathed_m if sheathed_m > 0 else math.inf


def tips_at_m_s(mass_kg: float, track_m: float, area_m2: float, height_m: float) -> float:
    """Wind from the side at which a parked trailer tips. Check 900 kg, 1.7, 10.08, 1.8: 23.0."""
    return math.sqrt(mass_kg * 9.80665 * track_m / 2 / (AIR * CD_PARKED * area_m2 * height_m))


def facing_n(area_m2: float) -> float:
    """What towing air pushes on what faces it. Check 2.1 x 1.83: 2.26 kN."""
    return FACING_CP * TOWING_PA * area_m2


def uplift_n(area_m2: float) -> float:
    """What towing air pulls up. Check 2.4 x 1.8: 3.81 kN."""
    return EDGE_CP * TOWING_PA * area_m2
