"""What does it take to put the roof up, does it stay there, and what meets it when it is down?

Straight up, a strut from a mount on the body to one on the roof leans: seen from its side dx level and dz up, L = hypot(dx, dz
+ up), it pushes F dz / L upward, F by its length and the cold as any gas strut. To raise by hand: W - n (F - f) dz / L, to pull
down: n (F + f) dz / L - W. About an edge: the lid's own sums. W: roof, openings in it, what is fixed on it, its fittings and
half of its cloth. Source: stow notes, struts; statics.
"""

from __future__ import annotations

import msgspec
import numpy as np

from uncle_sled.core.document.joinery import Strut
from uncle_sled.core.document.placing import gone_in, on_roof
from uncle_sled.core.document.project import Build
from uncle_sled.core.document.shell import Rising
from uncle_sled.core.engine import keep
from uncle_sled.core.geometry.surfaces import Body
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.rising import Risen, cloth_kg, fittings_kg, risen_of
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.stow.clashes import Clash, clashes
from uncle_sled.core.studies.stow.struts import (
    COLD_C,
    FORCES_N,
    HOT_C,
    SELF_N,
    SHORT_M,
    SIZES_M,
    TEMPERATURES,
    Floats,
    Turning,
    Verdict,
    against_limits,
    badness,
    force_n,
    strut_at,
)
from uncle_sled.core.units import GRAVITY

HAND_N, HANDS = 200.0, 2  # of one person with both hands at the roof's edge, overhead (practice); two lift it
RAISE_N, CLOSE_N = HANDS * HAND_N, HANDS * HAND_N
STEPS = 40
LONG_SIZES_M = ((0.490, 0.885, 0.395), (0.590, 1.085, 0.495))  # as for lids of large boxes
ON_TOP_M = 0.03  # so near to the roof what stands outside is fixed on it


class LiftCurve(msgspec.Struct, frozen=True):
    """Over the way up at one temperature; up_m from down [m], forces [N]: all struts upward, the hand up and down."""

    t_c: float
    up_m: Floats
    length_m: Floats
    gas_n: Floats
    raise_n: Floats
    close_n: Floats


class RoofUp(msgspec.Struct, frozen=True, eq=False):
    """The roof that goes up. mass_kg: what rises, None where a part of it is not known; unknown: of what.

    curves: straight up, at three temperatures; turning: about an edge; why: what keeps it from being judged.
    """

    risen: Risen
    mass_kg: float | None
    unknown: tuple[str, ...]
    strut: Strut | None
    curves: tuple[LiftCurve, ...]
    verdict: Verdict | None
    turning: Turning | None
    why: str

    @property
    def by_hand_n(self) -> float | None:
        """What it takes without any strut: all of it straight up, half of it about an edge [N]."""
        if self.mass_kg is None:
            return None
        return self.mass_kg * GRAVITY * (1.0 if self.risen.lifts else 0.5)


@keep("s.build.shell", "s.build.stow", "s.parts", "s.framed", "s.facts.materials", most=3)
def roof_up(s: Studied) -> RoofUp | None:
    """Of a build; None where its roof stays down."""
    rising, body = s.build.shell.rising, s.framed.body
    risen = risen_of(s.build.shell, body)
    if rising is None or risen is None or body is None:
        return None
    if risen.fault:
        return RoofUp(risen, None, (), strut=rising.strut, curves=(), verdict=None, turning=None, why=f"it {risen.fault}")
    mass, unknown = raised_kg(s, rising, risen, body)
    turning = None if risen.lifts or risen.folds or mass is None else turning_of(risen, mass)
    if mass is None or mass <= 0:
        return RoofUp(risen, None, unknown, strut=rising.strut, curves=(), verdict=None, turning=None, why="what rises weighs is not known")
    if risen.folds:
        why = "it is let down and lifted by hand, half of its weight at its edge"
        return RoofUp(risen, mass, unknown, strut=None, curves=(), verdict=None, turning=None, why=why)
    if rising.strut is None:
        why = "no struts are said: it is lifted by hand"
        return RoofUp(risen, mass, unknown, strut=None, curves=(), verdict=None, turning=turning, why=why)
    if not risen.lifts:
        return RoofUp(risen, mass, unknown, strut=rising.strut, curves=(), verdict=None, turning=turning, why="")
    fault = lift_fault(rising.strut)
    if fault:
        return RoofUp(risen, mass, unknown, strut=rising.strut, curves=(), verdict=None, turning=None, why=fault)
    curves = tuple([lift_curve(mass, rising.strut, risen.rise_m, t) for t in TEMPERATURES])
    return RoofUp(
        risen,
        mass,
        unknown,
        strut=rising.strut,
        curves=curves,
        verdict=lift_verdict(mass, rising.strut, risen.rise_m),
        turning=None,
        why="",
    )


def lift_fault(strut: Strut) -> str:
    """What struts cannot be that lift straight up, in words; nothing where they can."""
    if strut.open.si <= strut.shut.si:
        return (
            f"the strut is {{{strut.open.si * 1000:.0f} mm}} open and {strut.shut.si * 1000:.0f} shut: longer open than shut would be right"
        )
    if strut.stroke.si <= 0 or strut.stroke.si > strut.open.si - strut.shut.si + 1e-6:
        return f"a stroke of {{{strut.stroke.si * 1000:.0f} mm}} is not in a strut from {strut.shut.si * 1000:.0f} to {{{strut.open.si * 1000:.0f} mm}}"
    if strut.many < 1 or strut.force_n <= 0:
        return "no strut, or one without force"
    if strut.lid_z.si - strut.body_z.si < -1e-9:
        return "its mount on the roof is under the one on the body: it would pull the roof down"
    return ""


def raised_kg(s: Studied, rising: Rising, risen: Risen, body: Body) -> tuple[float | None, tuple[str, ...]]:
    """Mass of what rises [kg], and of what nobody knows the weight; None where the roof itself is not known."""
    share = min(risen.long_m / max(body.length, 1e-9), 1.0)
    kind = {"fold left": "left side", "fold right": "right side"}.get(risen.way, "roof")
    roofs = [face for face in s.build.shell.faces if face.kind == kind]
    by_id = {part.id: part for part in s.parts}
    unknown = [face.name for face in roofs if face.id not in by_id]
    if not roofs or len(unknown) == len(roofs):
        return None, tuple(unknown or ["the roof"])
    mass = sum(by_id[face.id].mass_kg for face in roofs if face.id in by_id) * share
    mass += sum(part.mass_kg for part in s.parts if part.made_by.startswith(kind)) * share
    for opening in s.build.shell.openings:
        part = by_id.get(opening.id)
        if opening.face == kind and part is not None and risen.a_m - 1e-6 <= part.x_m <= risen.b_m + 1e-6:
            mass += part.mass_kg
    for id in fixed_on(s.build, risen) if not risen.folds else ():
        if id in by_id:
            mass += by_id[id].mass_kg
        else:
            unknown.append(next(thing.name for thing in s.build.stow.things if thing.id == id))
    library = library_of(s.facts.materials)
    mass += fittings_kg(risen, rising)[0] / 2 + (cloth_kg(risen, rising, library) or 0.0) / 2
    return mass, tuple(unknown)


def fixed_on(build: Build, risen: Risen) -> tuple[str, ...]:
    """Things that stand or lie on the part of the roof that goes up, in a mode where it goes up."""
    standing = [mode for mode in build.stow.modes if not mode.towing] or list(build.stow.modes)
    gone = gone_in(build.stow, standing[0])
    made = []
    for thing in build.stow.things:
        if thing.id in gone or thing.taken_out or not thing.outside:
            continue
        middle = thing.x.si + thing.length.si / 2
        if risen.a_m <= middle <= risen.b_m and (on_roof(thing) or thing.z.si >= risen.top_down_m - ON_TOP_M):
            made.append(thing.id)
    return tuple(made)


def turning_of(risen: Risen, mass_kg: float) -> Turning:
    """About an edge: its centre half way, the hand at the other edge."""
    run = risen.long_m if risen.way in ("front", "rear") else risen.wide_m
    return Turning(mass_kg, run / 2, 0.0, risen.turn_deg, run)


def lift_curve(mass_kg: float, strut: Strut, rise_m: float, t_c: float) -> LiftCurve:
    """Straight up. Check 60 kg, four of 300 N (k 1), dx 0.30, dz 0.05, up 0.40 at 20 degC: dz 0.45, L 0.5408, 998 N against 588."""
    up = np.linspace(0.0, rise_m, STEPS + 1)
    dx = strut.lid_x.si - strut.body_x.si
    dz = strut.lid_z.si - strut.body_z.si + up
    long = np.hypot(dx, dz)
    steep = dz / np.maximum(long, 1e-9)
    force = np.asarray(force_n(strut, long, t_c))
    gas, rub = strut.many * force * steep, strut.many * strut.friction_n * steep
    weight = mass_kg * GRAVITY
    return LiftCurve(t_c, up, length_m=long, gas_n=gas, raise_n=weight - gas + rub, close_n=gas + rub - weight)


def lift_verdict(mass_kg: float, strut: Strut, rise_m: float) -> Verdict:
    """Against the limits: cold for holding and raising, hot for pulling down and flying up."""
    cold, hot = lift_curve(mass_kg, strut, rise_m, COLD_C), lift_curve(mass_kg, strut, rise_m, HOT_C)
    weight = mass_kg * GRAVITY
    share = float(cold.gas_n[-1]) / weight
    up, down = float(cold.raise_n.max()), float(hot.close_n.max())
    rub = strut.many * strut.friction_n * np.abs(hot.gas_n) / np.maximum(strut.many * np.asarray(force_n(strut, hot.length_m, HOT_C)), 1e-9)
    flies = float((hot.gas_n - rub - weight).max())
    stays = bool(weight > float(hot.gas_n[0]))
    return against_limits(
        strut, cold.length_m, (share, up, down), self_n=flies, flies=flies > SELF_N and not stays, shut=stays, most_n=(RAISE_N, CLOSE_N)
    )


def meets_when_down(s: Studied) -> tuple[Clash, ...]:
    """What stands where the roof comes down, on the road: each thing once."""
    risen = risen_of(s.build.shell, s.framed.body)
    if risen is None or risen.fault or risen.folds:
        return ()
    found: dict[str, Clash] = {}
    modes = {mode.id for mode in s.build.stow.modes if mode.towing}
    for mode, some in clashes(s.build, s.facts).items():
        for clash in some if mode in modes else ():
            if clash.kind == "body" and clash.b == "shell":
                found.setdefault(clash.a, clash)
    return tuple(found.values())


def struts_for(roof: RoofUp) -> Strut | None:
    """The struts to be proposed for a roof that goes straight up and whose weight is known: as many as it has, else four."""
    if roof.mass_kg is None or not roof.risen.lifts:
        return None
    return search_lift(roof.mass_kg, roof.risen.rise_m, max(roof.strut.many, 2) if roof.strut is not None else 4)


def search_lift(mass_kg: float, rise_m: float, many: int = 4) -> Strut | None:
    """The weakest strut that is sold and its mounts that meet every limit straight up; else what fails least, None: none is long enough.

    A grid over sizes, forces and mounts: between its points may be better.
    """
    best: tuple[tuple[tuple[bool, int], float], Strut] | None = None
    for shut, opened, stroke in (*SIZES_M, *LONG_SIZES_M):
        for dx in np.arange(0.04, opened, 0.02):
            top = opened**2 * 0.98 - dx**2
            if top <= 0:
                continue
            low = float(np.sqrt(top)) - rise_m
            if low < 0.02 or float(np.hypot(dx, low)) < opened - stroke + SHORT_M:
                continue
            for force in FORCES_N:
                strut = strut_at((shut, opened, stroke), force, many, (0.0, 0.0, dx, low))
                judged = lift_verdict(mass_kg, strut, rise_m)
                if not judged.fits:
                    continue
                key = (badness(judged), float(force))
                if best is None or key < best[0]:
                    best = (key, strut)
    return best[1] if best is not None else None
