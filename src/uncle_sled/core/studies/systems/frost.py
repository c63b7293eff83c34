"""When does water stand at nought, when is it ice, and what keeps it from that?

Each piece of water is one lump, full: m c dT/dt = U A (T_air - T) down to 0, then 333.5 kJ/kg of ice through the same skin. The air
round it: the night's outside; inside T_out + f (T_in - T_out) e^(-t / tau), tau = what the walls hold / what goes out by the kelvin, f
1 in the open and in a shut cupboard against a wall U_front / (U_front + U_wall). Ice keeps the rest warm and things aboard hold heat:
both are left out, so that the hours are the soonest. Source: Newton's cooling; films by ISO 6946.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Literal

import msgspec

from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.parts.face_build import R_INSIDE_WALL, R_OUTSIDE
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.stow.dangers import WATERS
from uncle_sled.core.studies.systems.bank import UNDER_M, stands_outside
from uncle_sled.core.studies.systems.by_walls import faces_by
from uncle_sled.core.studies.systems.heat import Losses
from uncle_sled.core.studies.systems.systems_as_built import the_losses, the_water
from uncle_sled.core.studies.systems.water import TAP, USUAL_BORE_M, WARMS
from uncle_sled.core.words import lower_first

WATER_J_KGK, ICE_J_KG, WATER_KG_M3 = 4186.0, 333_500.0, 1000.0
TANK_R = 0.005 / 0.40  # 5 mm of polythene
HOSE_WALL_M, HOSE_W_MK = 0.002, 0.30
FRONT_R = 2 * R_INSIDE_WALL + 0.012 / 0.13  # a cupboard's front of 12 mm ply with its films
TRAP_L, TRAP_M2 = 0.30, 0.035  # usual: what stands in a trap, and its skin
TRAY_M = 0.05  # of water in a shower tray while its drain is shut
FILLED_C, KEPT_C = 10.0, 2.0  # water as it is filled outside; two degrees in hand
NIGHT_H, MOST_H = 12.0, 24.0 * 60
HALVINGS = 48  # to a fraction of a second
BODY_LEAST_H = 1e-3  # where nothing is known of what the walls hold
OPEN_AIR = ("outside", "under")

WetKind = Literal["fresh", "grey", "black", "urine", "heater", "hose", "trap"]
Place = Literal["outside", "under", "inside", "cupboard"]
Step = Literal["heater off", "empty fresh", "taps open", "heater", "trap", "empty grey", "empty black"]


PLACES: dict[Place, str] = {"outside": "outside", "under": "under the floor", "inside": "inside", "cupboard": "in a cupboard"}


class Freezing(msgspec.Struct, frozen=True):
    """Hours until water stands at nought and until all of it is ice, both at the soonest; None: not within 60 days."""

    zero_h: float | None
    solid_h: float | None

    @property
    def soon_h(self) -> float:
        """Hours until nought, to sort by: what never does is last."""
        return math.inf if self.zero_h is None else self.zero_h


class Wet(msgspec.Struct, frozen=True):
    """A piece of water. id: of its thing; wall: the face that its cupboard stands against; skin_w_k: U A.

    unheated, heated: None where it cannot be told; heated also where no heater is aboard. own_w: a pad of its own that keeps it at 2
    degrees where it stands outside; why: what is not known of it. aside_kg: full, what it puts more on the wheels of its side, and takes off the other; minus left.
    """

    id: str
    name: str
    kind: WetKind
    place: Place
    wall: str
    mass_kg: float
    skin_w_k: float
    share: float | None
    unheated: Freezing | None
    heated: Freezing | None
    own_w: float | None
    aside_kg: float | None
    why: str = ""

    @property
    def in_open_air(self) -> bool:
        """Whether the night itself is round it, and no heater reaches it."""
        return self.place in OPEN_AIR

    @property
    def stands(self) -> str:
        """Where it stands, and against which wall, in words."""
        return f"{PLACES[self.place]}, {lower_first(self.wall)}" if self.wall else PLACES[self.place]


class Drain(msgspec.Struct, frozen=True):
    """A step of emptying: what is above what would run into it again. ids: of the things."""

    step: Step
    ids: tuple[str, ...]


class Frost(msgspec.Struct, frozen=True):
    """A night of frost. body_h: time constant of the air inside [h], None where walls are not known; soonest: what they hold is not known.

    held_c: what the heater holds, None without one. least_c, least_w: air inside that keeps all water inside over nought, and its heat.
    """

    outside_c: float | None
    inside_c: float
    wets: tuple[Wet, ...]
    body_h: float | None
    soonest: bool
    held_c: float | None
    least_c: float | None
    least_w: float | None
    least_sure: bool
    drains: tuple[Drain, ...]
    why: tuple[str, ...]

    @property
    def first(self) -> Wet | None:
        """What stands at nought first while nothing heats."""
        told = [(wet.unheated.soon_h, at, wet) for at, wet in enumerate(self.wets) if wet.unheated is not None]
        soon, _, wet = min(told, default=(math.inf, 0, None))
        return wet if soon < math.inf else None


def freezing(mass_kg: float, skin_w_k: float, start_c: float, out_c: float, over_k: float, body_h: float | None) -> Freezing:
    """Hours of one lump of water to nought and to ice.

    Args: over_k: how much warmer than outside the air round it is at first; body_h: how that decays, None: it stays.
    Source: the closed form of two time constants. Check 20 kg, 5 W/K, 10 degrees into -10 degrees, over 0: 3.22 h, 40.3 h.
    """
    if out_c >= 0 or mass_kg <= 0 or skin_w_k <= 0:
        return Freezing(None, None)
    own = mass_kg * WATER_J_KGK / skin_w_k / 3600
    if body_h is None:
        stays, falls, tau = out_c + over_k, 0.0, 1.0
    else:
        tau = body_h if abs(body_h - own) > 1e-6 * own else body_h * (1 + 1e-5)
        stays, falls = out_c, over_k * tau / (tau - own)

    def water_c(hours: float) -> float:
        return stays + falls * math.exp(-hours / tau) + (start_c - stays - falls) * math.exp(-hours / own)

    zero = _when(water_c)
    if zero is None:
        return Freezing(None, None)
    ice = mass_kg * ICE_J_KG / skin_w_k / 3600  # kelvin hours
    air_over = over_k if body_h is not None else 0.0

    def liquid(hours: float) -> float:
        """What is left to freeze, in kelvin hours."""
        return ice + stays * (hours - zero) + air_over * tau * (math.exp(-zero / tau) - math.exp(-hours / tau))

    return Freezing(zero, _when(liquid, zero))


def _when(falls: Callable[[float], float], start: float = 0.0) -> float | None:
    """When something that falls is nought [h]; None where it is not within the most hours."""
    if falls(start) <= 0:
        return start
    low, high = start, MOST_H
    if falls(high) >= 0:
        return None
    for _ in range(HALVINGS):
        middle = (low + high) / 2
        low, high = (middle, high) if falls(middle) > 0 else (low, middle)
    return high


def front_share(u_wall_w_m2k: float) -> float:
    """How much of the room's warmth over outside a shut cupboard against a wall has, 0 to 1; front and wall as large as each other."""
    front = 1 / FRONT_R
    return front / (front + u_wall_w_m2k)


class _Found(msgspec.Struct, frozen=True):
    thing: Thing | None
    name: str
    kind: WetKind
    mass_kg: float
    skin_w_k: float


def frost_of(s: Studied) -> Frost:
    """All water aboard on the coldest night, each where it stands."""
    build, made = s.build, the_losses(s)
    out = build.brief.coldest.si if build.brief.coldest is not None else None
    inside = build.brief.inside.si if build.brief.inside is not None else FILLED_C
    found = _water_of(s)
    why = []
    if out is None:
        why.append("The coldest night is not said on Brief.")
    elif out >= 0:
        why.append(f"No frost: {{{out:.0f} °C}} on the coldest night.")
    if not found:
        why.append("Nothing aboard holds water.")
    k, holds = made.k_w_k, made.holds_j_k
    blank = bool(made.unknown) or not made.paths
    body_h = None if blank or k <= 0 else max(holds / k / 3600, BODY_LEAST_H)
    held = None
    if made.there_w is not None and out is not None and not blank and k > 0:
        held = min(inside, out + made.there_w / k) if build.brief.inside is not None else out + made.there_w / k
    wets = tuple(_wet(s, made, one_of, out, inside, body_h, held) for one_of in found) if out is not None and out < 0 else ()
    least = _least_c(wets, out) if out is not None else None
    return Frost(
        out,
        inside,
        wets=wets,
        body_h=body_h,
        soonest=holds <= 0,
        held_c=held,
        least_c=least,
        least_w=k * (least - out) if least is not None and out is not None else None,
        least_sure=not blank,
        drains=_drains(build, wets),
        why=tuple(why),
    )


def _water_of(s: Studied) -> list[_Found]:
    """Tanks, the hose between tank and tap, a trap under each sink and shower."""
    build, made = s.build, []
    for thing in build.stow.things:
        tank = thing.tank
        warms = WARMS in thing.roles
        if thing.taken_out or not (warms or (tank is not None and tank.contents in WATERS)):
            continue
        kind: WetKind = "heater" if warms or tank is None else tank.contents  # type: ignore[assignment]
        a, b, c = thing.length.si, thing.width.si, thing.height.si
        litres = tank.volume.si * WATER_KG_M3 if tank is not None and tank.volume is not None else 0.0
        made.append(_Found(thing, thing.name, kind, litres, 2 * (a * b + b * c + c * a)))
    w, taps = build.systems.water, [t for t in build.stow.things if TAP in t.roles and not t.taken_out]
    if taps and any(one_of.kind == "fresh" for one_of in made):
        bore = w.hose_bore.si if w.hose_bore is not None and w.hose_bore.si > 0 else USUAL_BORE_M
        long = the_water(s).hose_m
        from_ = next(one_of.thing for one_of in made if one_of.kind == "fresh")
        outer = bore + 2 * HOSE_WALL_M
        made.append(_Found(from_, "Hose", "hose", math.pi * bore**2 / 4 * long * WATER_KG_M3, math.pi * outer * long))
    for thing in build.stow.things:
        if not thing.taken_out and (TAP in thing.roles or "shower" in thing.roles) and (w.trap is None or w.trap.si > 0):
            made.append(_Found(thing, f"Trap, {lower_first(thing.name)}", "trap", TRAP_L, TRAP_M2))
    return made


def _wet(s: Studied, made: Losses, found: _Found, out: float, inside: float, body_h: float | None, held: float | None) -> Wet:
    build, thing = s.build, found.thing
    place, wall, share = _stands(s, made, thing) if thing is not None else ("inside", "", 1.0)
    open_air = place in OPEN_AIR
    blank = found.mass_kg <= 0
    why = (
        "how much it holds is not said"
        if blank
        else "its walls are not known"
        if not open_air and (share is None or body_h is None)
        else ""
    )
    wall_r = HOSE_WALL_M / HOSE_W_MK if found.kind == "hose" else TANK_R
    skin = found.skin_w_k / ((R_OUTSIDE if open_air else R_INSIDE_WALL) + wall_r)
    track = build.rig.track
    aside = None
    if thing is not None and track is not None and track.si > 0 and found.kind != "hose":
        aside = found.mass_kg * thing.y.si / track.si
    unheated = heated = None
    if blank:
        pass  # nobody said how much it holds
    elif open_air:
        unheated = heated = freezing(found.mass_kg, skin, FILLED_C, out, 0.0, None)
    elif share is not None and body_h is not None:
        unheated = freezing(found.mass_kg, skin, inside, out, share * (inside - out), body_h)
        if held is not None:
            heated = freezing(found.mass_kg, skin, held, out, share * (held - out), None)
    return Wet(
        thing.id if thing is not None else "",
        found.name,
        kind=found.kind,
        place=place,
        wall=wall,
        mass_kg=found.mass_kg,
        skin_w_k=skin,
        share=None if open_air else share,
        unheated=unheated,
        heated=heated,
        own_w=skin * (KEPT_C - out) if open_air else None,
        aside_kg=aside,
        why=why,
    )


def _stands(s: Studied, made: Losses, thing: Thing) -> tuple[Place, str, float | None]:
    """Where a thing is, the wall that its cupboard stands against, and its share of the room's warmth; None: wall not known."""
    build, shell = s.build, s.build.shell
    if stands_outside(build, thing):
        under = shell.floor is not None and thing.z.si + thing.height.si <= shell.floor.si + UNDER_M
        return ("under" if under else "outside"), "", None
    host = next((t for t in build.stow.things if t.id == thing.inside), thing)
    if host.cabinet is None and "counter" not in host.roles:
        return "inside", "", 1.0
    by = faces_by(shell, s.framed, host)
    walls = [path for path in made.paths if path.kind == path.face and path.face in by]
    if not walls:
        return "cupboard", "", 1.0
    if any(path.u_w_m2k is None for path in walls):
        return "cupboard", next(path.name for path in walls if path.u_w_m2k is None), None
    worst = max(walls, key=lambda path: path.u_w_m2k or 0.0)
    return "cupboard", worst.name, front_share(worst.u_w_m2k or 0.0)


def _least_c(wets: tuple[Wet, ...], out: float) -> float | None:
    """Air inside that keeps every piece of water inside at two degrees; None where there is none, or it cannot be told."""
    shares = [wet.share for wet in wets if wet.place in ("inside", "cupboard")]
    known = [share for share in shares if share is not None]
    if not known or len(known) < len(shares):
        return None
    return out + (KEPT_C - out) / min(known)


def _drains(build: Build, wets: tuple[Wet, ...]) -> tuple[Drain, ...]:
    """From the top: a heater that boils dry is ruined, a hose fills again from a tank that is not empty, a trap from the hose."""
    high = {thing.id: thing.z.si for thing in build.stow.things}

    def of(kind: WetKind) -> tuple[str, ...]:
        return tuple(wet.id for wet in sorted(wets, key=lambda wet: -high.get(wet.id, 0.0)) if wet.kind == kind)

    heaters = tuple(t.id for t in build.stow.things if WARMS in t.roles and not t.taken_out)
    steps: tuple[tuple[Step, tuple[str, ...]], ...] = (
        ("heater off", heaters),
        ("empty fresh", of("fresh")),
        ("taps open", of("hose")),
        ("heater", heaters),
        ("trap", of("trap")),
        ("empty grey", of("grey")),
        ("empty black", (*of("black"), *of("urine"))),
    )
    return tuple(Drain(step, ids) for step, ids in steps if ids) if wets else ()
