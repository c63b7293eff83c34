"""Will the heater hold the cold night, how long does it warm up, and how hot does it get?

Loss = sum U A dT + 0.335 V dT, the heater a quarter over it; warm-up t = -(C/K) ln((Tinf - T)/(Tinf - T0)). Gain: people
75 W, faces by their sol-air rise (absorptance x I / 20; 600 W/m2 on a wall, 1,000 on a roof less 4 K of sky), glass by its
solar factor. Source: any text on building heat; films by ISO 6946.
"""

from __future__ import annotations

import math

import msgspec

from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.shell import Face, Opening, Relining
from uncle_sled.core.engine import by_value, keep
from uncle_sled.core.framing.frame_body import Framed
from uncle_sled.core.parts.face_build import R_INSIDE, R_INSIDE_WALL, R_OUTSIDE, Library, library_of
from uncle_sled.core.parts.from_shell import face_sums, net_area
from uncle_sled.core.parts.relining import relined
from uncle_sled.core.parts.rising import U_CLOTH_W_M2K, risen_of, up_in
from uncle_sled.core.wiring.appliances import figures_of

AIR_WH_M3K = 0.335
IN_HAND = 1.25
PERSON_W = 75.0
SUN_WALL_W, SUN_ROOF_W, SKY_K, OUTER_FILM = 600.0, 1000.0, 4.0, 20.0
ABSORBS = 0.5  # of a skin in a middling colour; white 0.3, dark 0.9
SOLAR = {"single": 0.85, "double": 0.75}  # of glass
GLASS_U = {"single": 5.6, "double": 2.8}
PLY_DOOR_M, PLY_W_MK = 0.018, 0.13  # a door or hatch of which nothing is known is taken as bare plywood
USUAL_AIR_M3H = 20.0
KINDS = ("floor", "left side", "right side", "roof", "front", "rear")
TIMBER_J = 1700.0  # what a kilogram holds where nobody gave it [J/kg K]


class Path(msgspec.Struct, frozen=True):
    """One way for heat to go: a face or an opening. u_w_m2k None and ``why`` where nobody can tell; rough: taken as usual."""

    id: str
    name: str
    kind: str  # of the face, or of the opening
    face: str
    area_m2: float
    u_w_m2k: float | None
    inside_film: float
    heat_j_k: float = 0.0
    rough: bool = False
    why: str = ""
    solar: float = 0.0  # solar factor, of glass
    trusted: bool = True

    def loss_w(self, dt_k: float) -> float | None:
        """What goes through at a difference of warmth [W]; None where its U is not known."""
        return None if self.u_w_m2k is None else self.u_w_m2k * self.area_m2 * dt_k


def _up_where_one_stands(build: Build) -> bool:
    """Whether the roof goes up in a mode in which one stands."""
    return any(up_in(build.shell, mode) for mode in build.stow.modes)


@keep("build.shell", "facts.materials", "framed", by_value(_up_where_one_stands), most=4)
def paths_of(build: Build, facts: Facts, framed: Framed) -> tuple[Path, ...]:
    """Every face and opening of the body; none without a body."""
    body, shell = framed.body, build.shell
    if body is None:
        return ()
    library = library_of(facts.materials)
    made = []
    for kind in KINDS:
        surfaces = body.of(kind)
        if not surfaces:
            continue
        face = next((f for f in shell.faces if f.kind == kind), None)
        lining = next((r for r in shell.relined if r.face == kind), None)
        area, _ = net_area(framed, surfaces)
        if area > 1e-3:
            made.append(_face(kind, face, lining, area, build, framed, library))
    for opening in shell.openings:
        if opening.kind in ("door", "hatch", "window", "vent", "light"):
            made.append(_opening(opening))
    risen = risen_of(shell, body)
    if risen is not None and risen.cloth_m2 > 0 and _up_where_one_stands(build):
        made.append(
            Path(
                "rising",
                "Cloth sides of the roof",
                "cloth",
                face="roof",
                area_m2=risen.cloth_m2,
                u_w_m2k=U_CLOTH_W_M2K,
                inside_film=R_INSIDE_WALL,
                rough=True,
            )
        )
    return tuple(made)


def film_of(kind: str) -> float:
    """Resistance of the air inside a face [m2K/W], as its U counts it."""
    return R_INSIDE.get(kind, R_INSIDE_WALL)


def _face(kind: str, face: Face | None, lining: Relining | None, area: float, build: Build, framed: Framed, library: Library) -> Path:
    id, name = (face.id, face.name) if face is not None else (kind, kind.capitalize())
    film = film_of(kind)
    if lining is not None:
        done = relined(lining, build.shell, framed, library)
        if done is not None:
            warm = done.after
            u = 1 / (warm.r_m2k_w if warm.trusted else warm.lower_m2k_w)
            return Path(
                id,
                name,
                kind=kind,
                face=kind,
                area_m2=area,
                u_w_m2k=u,
                inside_film=film,
                heat_j_k=0.0,
                rough=not warm.trusted,
                trusted=warm.trusted,
            )
    if face is not None and face.u_w_m2k is not None:
        return Path(id, name, kind=kind, face=kind, area_m2=area, u_w_m2k=face.u_w_m2k, inside_film=film)
    if face is not None and face.layers and (blank := blank_layer(face, library)):
        why = f"{name}: what {blank} lets through is not said (its conductivity, or R, under Materials)"
        return Path(id, name, kind=kind, face=kind, area_m2=area, u_w_m2k=None, inside_film=film, why=why)
    if face is not None and face.layers:
        sums = face_sums(face, build.shell, framed, library)
        if sums.build is not None:
            warm = sums.build.warmth
            u = 1 / (warm.r_m2k_w if warm.trusted else warm.lower_m2k_w)
            holds = sum(holds_j_m2k(layer.material, layer.thickness.si, library) for layer in face.layers) * area
            return Path(id, name, kind=kind, face=kind, area_m2=area, u_w_m2k=u, inside_film=film, heat_j_k=holds, trusted=warm.trusted)
    why = f"{name}: what it is made of is not said (layers on Shell, Faces, or U of its data sheet)"
    return Path(id, name, kind=kind, face=kind, area_m2=area, u_w_m2k=None, inside_film=film, why=why)


def blank_layer(face: Face, library: Library) -> str:
    """Name of the first material of a face that has neither conductivity nor R; nothing where all are known."""
    of = (library.get(layer.material) for layer in face.layers)
    return next(
        (material.name for material in of if material is not None and material.conductivity_w_mk is None and material.r_m2k_w is None), ""
    )


def holds_j_m2k(material: str, thickness_m: float, library: Library) -> float:
    """What a layer holds [J/m2K]."""
    found = library.get(material)
    if found is None:
        return 0.0
    return found.weight_kg_m2(thickness_m) * (found.heat_j_kgk or TIMBER_J)


def _opening(opening: Opening) -> Path:
    area = opening.width.si * opening.height.si
    if opening.u_w_m2k is not None:
        return Path(
            opening.id,
            opening.name,
            kind=opening.kind,
            face=opening.face,
            area_m2=area,
            u_w_m2k=opening.u_w_m2k,
            inside_film=film_of(opening.face),
            solar=_solar(opening),
        )
    if opening.kind in ("window", "light", "vent"):
        glass = opening.glazing or "single"
        return Path(
            opening.id,
            opening.name,
            kind=opening.kind,
            face=opening.face,
            area_m2=area,
            u_w_m2k=GLASS_U[glass],
            inside_film=film_of(opening.face),
            rough=not opening.glazing,
            solar=_solar(opening),
        )
    film = film_of(opening.face)
    return Path(
        opening.id,
        opening.name,
        kind=opening.kind,
        face=opening.face,
        area_m2=area,
        u_w_m2k=1 / (film + PLY_DOOR_M / PLY_W_MK + R_OUTSIDE),
        inside_film=film,
        rough=True,
    )


def _solar(opening: Opening) -> float:
    return SOLAR[opening.glazing or "single"] if opening.kind in ("window", "light") else 0.0


class Losses(msgspec.Struct, frozen=True):
    """The coldest night. Watts by path where known; air_w; heater_w with a quarter in hand; what is aboard gives there_w.

    ua_w_k and loss_w count what is known only: with anything in ``unknown`` they are too little. ``why``: what nobody said.
    """

    inside_c: float | None
    outside_c: float | None
    paths: tuple[Path, ...]
    ua_w_k: float
    k_w_k: float  # by paths and air together
    air_m3h: float
    air_said: bool
    loss_w: float | None
    heater_w: float | None
    there_w: float | None
    unrated: tuple[str, ...]
    warm_up_h: float | None
    holds_c: float | None
    unknown: tuple[str, ...]
    why: tuple[str, ...]

    @property
    def holds_j_k(self) -> float:
        """What the layers of all faces hold [J/K]; too little where a face has only a figure for its U."""
        return sum(path.heat_j_k for path in self.paths)

    @property
    def sure(self) -> bool:
        """Whether nothing that counts is unknown."""
        return not self.unknown and not self.why


def heaters_of(build: Build) -> tuple[tuple[str, float | None], ...]:
    """Things that warm the room, with what they give [W]; None where nobody said."""
    made = []
    for thing in build.stow.things:
        f = figures_of(thing)
        if thing.taken_out:
            continue
        if f.heat_w is not None or "warms the room" in thing.roles:
            made.append((thing.name, f.heat_w))
    return tuple(made)


def warm_up_h(heat_j_k: float, k_w_k: float, power_w: float, start_c: float, wanted_c: float, outside_c: float) -> float | None:
    """How long a heater takes [h]; None where it never gets there."""
    if k_w_k <= 0 or heat_j_k <= 0:
        return 0.0 if wanted_c <= start_c else None
    most = outside_c + power_w / k_w_k
    if most <= wanted_c:
        return None
    return max(-(heat_j_k / k_w_k) * math.log((most - wanted_c) / (most - start_c)) / 3600, 0.0) if most > start_c else None


def losses(build: Build, facts: Facts, framed: Framed) -> Losses:
    """The night by the brief's coldest and wished inside temperature."""
    brief, air = build.brief, build.systems.air
    paths = paths_of(build, facts, framed)
    inside = brief.inside.si if brief.inside is not None else None
    outside = brief.coldest.si if brief.coldest is not None else None
    why = []
    if not paths:
        why.append("There is no body to keep warm yet.")
    if inside is None:
        why.append("How warm it should be inside is not said on Brief.")
    if outside is None:
        why.append("The coldest night is not said on Brief.")
    if inside is not None and outside is not None and outside >= inside:
        why.append(f"Outside ({{{outside:.0f} °C}}) is warmer than wished inside ({{{inside:.0f} °C}}): nothing to heat.")
    ua = sum((p.u_w_m2k or 0.0) * p.area_m2 for p in paths)
    vent = air.vent_m3h if air.vent_m3h is not None else USUAL_AIR_M3H
    flow = vent * (1 - (air.recovery or 0.0))
    k = ua + AIR_WH_M3K * flow
    heaters = heaters_of(build)
    rated = [watts for _, watts in heaters if watts is not None]
    there = sum(rated) if rated else None
    unknown = tuple(p.why for p in paths if p.u_w_m2k is None)
    if why or inside is None or outside is None:
        return Losses(
            inside,
            outside,
            paths=paths,
            ua_w_k=ua,
            k_w_k=k,
            air_m3h=vent,
            air_said=air.vent_m3h is not None,
            loss_w=None,
            heater_w=None,
            there_w=there,
            unrated=tuple(n for n, w in heaters if w is None),
            warm_up_h=None,
            holds_c=None,
            unknown=unknown,
            why=tuple(why),
        )
    loss = k * (inside - outside)
    holds = sum(p.heat_j_k for p in paths)
    up = warm_up_h(holds, k, there, max(outside, min(outside, inside)), inside, outside) if there is not None and holds > 0 else None
    return Losses(
        inside,
        outside,
        paths=paths,
        ua_w_k=ua,
        k_w_k=k,
        air_m3h=vent,
        air_said=air.vent_m3h is not None,
        loss_w=loss,
        heater_w=loss * IN_HAND,
        there_w=there,
        unrated=tuple(n for n, w in heaters if w is None),
        warm_up_h=up,
        holds_c=None if there is None or k <= 0 else outside + there / k,
        unknown=unknown,
        why=(),
    )


class Gains(msgspec.Struct, frozen=True):
    """A hot day: what comes in through faces, glass, air and people [W]; the cooler wanted, what is aboard, hours on the battery."""

    hottest_c: float | None
    inside_c: float
    faces_w: float
    glass_w: float
    air_w: float
    people_w: float
    cooling_w: float | None
    there_w: float | None
    draws_w: float | None
    why: tuple[str, ...]


WISHED_SUMMER_C = 26.0


def sol_air_k(absorbs: float, roof: bool) -> float:
    """How much warmer than the air a sunny skin seems [K]."""
    return absorbs * SUN_ROOF_W / OUTER_FILM - SKY_K if roof else absorbs * SUN_WALL_W / OUTER_FILM


def gains(build: Build, facts: Facts, framed: Framed, people: int) -> Gains:
    """A hot day with the sun on the roof and one long side."""
    hottest = build.brief.hottest.si if build.brief.hottest is not None else None
    coolers = [figures_of(t) for t in build.stow.things if figures_of(t).cool_w is not None]
    there = sum(f.cool_w or 0.0 for f in coolers) if coolers else None
    draws = sum(f.power_w or 0.0 for f in coolers) if coolers else None
    paths = paths_of(build, facts, framed)
    why = [] if hottest is not None else ["The hottest day is not said on Brief."]
    why += [p.why for p in paths if p.u_w_m2k is None]
    if hottest is None:
        return Gains(
            None,
            WISHED_SUMMER_C,
            faces_w=0.0,
            glass_w=0.0,
            air_w=0.0,
            people_w=0.0,
            cooling_w=None,
            there_w=there,
            draws_w=draws,
            why=tuple(why),
        )
    dt = hottest - WISHED_SUMMER_C
    sunny = "left side"
    faces = glass = 0.0
    for p in paths:
        rise = sol_air_k(ABSORBS, roof=True) if p.face == "roof" else sol_air_k(ABSORBS, roof=False) if p.face == sunny else 0.0
        if p.solar:
            glass += p.area_m2 * (
                (p.u_w_m2k or 0.0) * dt
                + p.solar * (SUN_ROOF_W if p.face == "roof" else SUN_WALL_W if p.face == sunny else 0.15 * SUN_WALL_W)
            )
        elif p.u_w_m2k is not None:
            faces += p.u_w_m2k * p.area_m2 * (dt + rise)
    vent = build.systems.air.vent_m3h if build.systems.air.vent_m3h is not None else USUAL_AIR_M3H
    moved = AIR_WH_M3K * vent * dt
    body = PERSON_W * people
    whole = faces + glass + moved + body
    return Gains(
        hottest,
        WISHED_SUMMER_C,
        faces_w=faces,
        glass_w=glass,
        air_w=moved,
        people_w=body,
        cooling_w=max(whole, 0.0),
        there_w=there,
        draws_w=draws,
        why=tuple(why),
    )


class Ducts(msgspec.Struct, frozen=True):
    """Air that a heater blows: speed in each duct and at the return [m/s], and the return opening that keeps it to 2.5 m/s."""

    speed_m_s: float | None
    return_m_s: float | None
    return_cm2: float
    hole_m: float | None


MOST_RETURN_M_S, MOST_DUCT_M_S = 2.5, 6.0


def ducts_of(build: Build) -> Ducts | None:
    """None where nobody said what the heater blows."""
    air = build.systems.air
    if not air.heater_m3h:
        return None
    flow = air.heater_m3h / 3600
    bore = air.duct_bore.si if air.duct_bore is not None else None
    speed = flow / (air.ducts * math.pi * bore**2 / 4) if bore and air.ducts else None
    back = flow / (air.return_cm2 * 1e-4) if air.return_cm2 else None
    return Ducts(speed, back, flow / MOST_RETURN_M_S * 1e4, bore + 0.003 if bore else None)
