"""Which surfaces sweat on that night, what stops it, and what does that cost?

Vapour: e_s = 611.2 exp(17.62 T/(243.12 + T)), c = e/(461.5 T), inside c_i = c_out + G/V'. A surface has
T_si = T_i - (R_loc/R')(T_i - T_e) with R' = 1/U - R_si + R_loc: R_loc 0.13 in the open and at windows, 0.25 in corners; a
mattress or cushion is a layer of its own, and the surface lies behind it. Source: ISO 13788. The flow against sweat is no
flow for safe air beside a flame.
"""

from __future__ import annotations

import math

import msgspec

from uncle_sled.core.document.placing import is_bed
from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.framing.frame_body import Framed
from uncle_sled.core.studies.stow.beds import LEAST_WIDE_M
from uncle_sled.core.studies.systems.by_walls import faces_by
from uncle_sled.core.studies.systems.heat import AIR_WH_M3K, USUAL_AIR_M3H, Path, paths_of

SLEEPER_G_H = 50.0
R_OPEN, R_CORNER, R_MATTRESS = 0.13, 0.25, 1.5
STEEL_POST_R = 0.02  # what a bare steel post adds over its films
WHEEL_BOX_R = 0.012 / 0.13
GAS_J_KGK, KELVIN = 461.5, 273.15


def saturation_pa(celsius: float) -> float:
    """Pressure of saturated vapour [Pa]. Source: Magnus."""
    return 611.2 * math.exp(17.62 * celsius / (243.12 + celsius))


def dew_c(pressure_pa: float) -> float:
    """Temperature at which so much vapour is saturated [C]."""
    x = math.log(max(pressure_pa, 1e-6) / 611.2)
    return 243.12 * x / (17.62 - x)


def vapour_kg_m3(pressure_pa: float, celsius: float) -> float:
    """Water in air by its pressure [kg/m3]. Source: ideal gas."""
    return pressure_pa / (GAS_J_KGK * (celsius + KELVIN))


def surface_c(u_w_m2k: float, film: float, local: float, inside_c: float, outside_c: float, behind: float = 0.0) -> float:
    """Temperature of an inner surface [C]. Args: film: as the U counts it; local: as it is there; behind: of what lies before it."""
    if u_w_m2k <= 0:  # nothing goes through it
        return inside_c
    r = 1 / u_w_m2k - film + local + behind
    return inside_c - (local + behind) / r * (inside_c - outside_c)


def flow_against_m3h(made_g_h: float, surface: float, inside_c: float, out_kg_m3: float) -> float | None:
    """Air change under which a surface stays dry [m3/h]; None where no air will: it is damper outside than that."""
    room = saturation_pa(surface) / (GAS_J_KGK * (inside_c + KELVIN)) - out_kg_m3
    return made_g_h / 1000 / room if room > 1e-9 else None


class Surface(msgspec.Struct, frozen=True):
    """One surface on that night: temperature [C], whether it sweats, the air change that stops it, its price [W]."""

    id: str
    name: str
    where: str  # of the path, or of the thing before it
    face: str
    t_c: float
    sweats: bool
    vent_m3h: float | None
    price_w: float | None
    rough: bool


class Night(msgspec.Struct, frozen=True):
    """Air inside on that night, every surface from the coldest, and what nobody said."""

    inside_c: float | None
    outside_c: float | None
    made_g_h: float
    air_m3h: float
    air_said: bool
    inside_rh: float | None
    dew_c: float | None
    out_kg_m3: float | None
    surfaces: tuple[Surface, ...]
    unknown: tuple[str, ...]
    why: tuple[str, ...]

    @property
    def wet(self) -> tuple[Surface, ...]:
        """The surfaces that sweat."""
        return tuple(face for face in self.surfaces if face.sweats)


def sleepers(build: Build, facts: Facts) -> int:
    """How many sleep in it: those the brief names, else all there are, else as many as its beds hold."""
    return len(build.brief.sleepers) or len(facts.people) or bed_places(build)


def bed_places(build: Build) -> int:
    """How many the beds of the fullest mode hold [people], by 550 mm across each; nobody named them, and they sleep there."""
    most = 0
    for mode in build.stow.modes:
        beds = [
            thing
            for thing in build.stow.things
            if not thing.taken_out and not thing.rides and thing.id not in mode.absent and is_bed(thing, mode)
        ]
        most = max(most, sum(max(int(min(thing.length.si, thing.width.si) / LEAST_WIDE_M + 1e-6), 1) for thing in beds))
    return most


def made_g_h(build: Build, facts: Facts) -> float:
    """Vapour that sleepers and wet gear give off [g/h]."""
    return sleepers(build, facts) * SLEEPER_G_H + (build.brief.wet_gear_g_h or 0.0)


def rh_at(made: float, air_m3h: float, inside_c: float, out_kg_m3: float) -> float:
    """Humidity inside at an air change, over 1 where it would be more than the air holds."""
    c = out_kg_m3 + made / 1000 / max(air_m3h, 1e-6)
    return c * GAS_J_KGK * (inside_c + KELVIN) / saturation_pa(inside_c)


def night_of(build: Build, facts: Facts, framed: Framed) -> Night:
    """The coldest night with all sleepers in bed."""
    brief, air = build.brief, build.systems.air
    inside = brief.inside.si if brief.inside is not None else None
    outside = brief.coldest.si if brief.coldest is not None else None
    paths = paths_of(build, facts, framed)
    made, flow = made_g_h(build, facts), air.vent_m3h if air.vent_m3h is not None else USUAL_AIR_M3H
    why = []
    if inside is None:
        why.append("How warm it should be inside is not said on Brief.")
    if outside is None:
        why.append("The coldest night is not said on Brief.")
    if brief.humidity_out is None:
        why.append("How damp it is outside is not said on Brief.")
    if made <= 0:
        why.append("Nobody sleeps in it and nothing wet dries in it: nothing makes vapour.")
    if inside is not None and outside is not None and outside >= inside:
        why.append("Outside is warmer than inside: this is no night that sweats from within.")
    if not paths:
        why.append("There is no body yet.")
    unknown = tuple(p.why for p in paths if p.u_w_m2k is None)
    if why or inside is None or outside is None or brief.humidity_out is None:
        return Night(
            inside,
            outside,
            made_g_h=made,
            air_m3h=flow,
            air_said=air.vent_m3h is not None,
            inside_rh=None,
            dew_c=None,
            out_kg_m3=None,
            surfaces=(),
            unknown=unknown,
            why=tuple(why),
        )
    # air that comes in is warmed, and keeps its pressure of vapour, not its vapour for each m3 (ISO 13788)
    c_out = vapour_kg_m3(brief.humidity_out * saturation_pa(outside), inside)
    rh = rh_at(made, flow, inside, c_out)
    held = min(rh, 1.0)
    dew = dew_c(held * saturation_pa(inside))
    surfaces = []
    for id, name, where, face, t, rough in _surfaces(build, framed, paths, inside, outside):
        stops = flow_against_m3h(made, t, inside, c_out)
        price = None if stops is None else AIR_WH_M3K * stops * (inside - outside)
        surfaces.append(Surface(id, name, where=where, face=face, t_c=t, sweats=t < dew - 1e-9, vent_m3h=stops, price_w=price, rough=rough))
    surfaces.sort(key=lambda face: (face.t_c, face.name))
    return Night(
        inside,
        outside,
        made_g_h=made,
        air_m3h=flow,
        air_said=air.vent_m3h is not None,
        inside_rh=rh,
        dew_c=dew,
        out_kg_m3=c_out,
        surfaces=tuple(surfaces),
        unknown=unknown,
        why=(),
    )


Told = tuple[str, str, str, str, float, bool]


def _surfaces(build: Build, framed: Framed, paths: tuple[Path, ...], inside: float, outside: float) -> list[Told]:
    made: list[Told] = []
    for p in paths:
        if p.u_w_m2k is None:
            continue
        u, film = p.u_w_m2k, p.inside_film
        if p.kind == p.face:  # a face
            made.append((p.id, p.name, p.id, p.face, surface_c(u, film, R_OPEN, inside, outside), p.rough))
            made.append((f"{p.id}/corner", f"{p.name}, corner", p.id, p.face, surface_c(u, film, R_CORNER, inside, outside), p.rough))
            if build.shell.framing.school == "bought shell":
                steel = 1 / (film + STEEL_POST_R + 0.04)
                made.append((f"{p.id}/post", f"{p.name}, steel post", p.id, p.face, surface_c(steel, film, R_OPEN, inside, outside), True))
        else:
            made.append((p.id, p.name, p.id, p.face, surface_c(u, film, R_OPEN, inside, outside), p.rough))
    if build.shell.wheel_boxes is not None:
        box = 1 / (R_OPEN + WHEEL_BOX_R + 0.04)
        made.append(("wheel-box", "Wheel box", "shell", "floor", surface_c(box, R_OPEN, R_OPEN, inside, outside), True))
    made += _behind(build, framed, paths, inside, outside)
    return made


def _behind(build: Build, framed: Framed, paths: tuple[Path, ...], inside: float, outside: float) -> list[Told]:
    """Walls that a mattress lies against, and the boards under one that lies on the floor."""
    body, shell = framed.body, build.shell
    if body is None:
        return []
    by_face = {p.face: p for p in paths if p.kind == p.face and p.u_w_m2k is not None}
    made: list[Told] = []
    for thing in build.stow.things:
        if "mattress" not in thing.roles and thing.kind != "bed":
            continue
        for face in faces_by(shell, framed, thing):
            p = by_face.get(face)
            if p is not None and p.u_w_m2k is not None:
                t = surface_c(p.u_w_m2k, p.inside_film, R_OPEN, inside, outside, R_MATTRESS)
                made.append((f"{p.id}/{thing.id}", f"{p.name}, behind the {thing.name.lower()}", thing.id, face, t, p.rough))
    return made


class Fan(msgspec.Struct, frozen=True):
    """What a roof fan's inlet costs it: pressure [Pa] and speed [m/s]; inlet wanted for 1.5 m/s [cm2]."""

    pressure_pa: float | None
    speed_m_s: float | None
    wanted_cm2: float


def inlet_pa(flow_m3h: float, inlet_cm2: float) -> float:
    """Pressure that air loses through an opening [Pa]. Source: orifice, 0.61, air of 1.2 kg/m3."""
    v = flow_m3h / 3600 / (inlet_cm2 * 1e-4) / 0.61
    return 1.2 * v**2 / 2


def fan_of(build: Build) -> Fan | None:
    """What the roof fan and its inlet do; None without a fan."""
    air = build.systems.air
    if not air.fan_m3h:
        return None
    wanted = air.fan_m3h / 3600 / 1.5 * 1e4
    if not air.inlet_cm2:
        return Fan(None, None, wanted)
    return Fan(inlet_pa(air.fan_m3h, air.inlet_cm2), air.fan_m3h / 3600 / (air.inlet_cm2 * 1e-4), wanted)
