"""What the frame feels: two main rails on ball and hangers, on jack and axle, or lifted; shear, moment, stress, sinking.

The reactions are known from statics (an axle shares its load equally over two leaf hangers, an equalised tandem 1 : 2 : 1
over three, a torsion axle stands on one bracket), so moments are exact sums of loads spread over the things' lengths; sinking
is the moment over E I integrated twice, nought at the ball and, weighted by the shares, at the hangers. On the road 2.5 times
the static load. The body's own stiffness is left out: it helps. Source: Euler and Bernoulli's beam, any statics text.
"""

from __future__ import annotations

from typing import Literal

import msgspec
import numpy as np
from msgspec.structs import replace
from numpy.typing import NDArray

from uncle_sled.core.engine import keep
from uncle_sled.core.parts.frame_steel import BRACKETS, bars_of
from uncle_sled.core.parts.from_rig import frame_cg_m
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.sections import E_PA, YIELD_PA, BarSection, sections
from uncle_sled.core.units import GRAVITY

Floats = NDArray[np.float64]
ROAD = 2.5
LEAF_M = 0.66  # eye to eye, where nobody said
STATIONS = 401
POINT_M = 1e-4  # half of a load's length; a shorter one is as good as a point
JUST_AFT_M = 1e-4  # of a support or of the nose: what changes there is read on both its sides
SINKS = 500.0  # span over what it may sink; a cantilever counts twice its length
LIFT_AT = 0.2  # of its length from both ends
How = Literal["road", "parked", "lifted at its ends", "lifted at a fifth"]
HOWS: tuple[How, ...] = ("road", "parked", "lifted at its ends", "lifted at a fifth")
LEFT_OUT = "Rails alone: the body's own stiffness, gussets and the rise of the drawbar are left out."
CAUTION = "Screening only; welds, holes and rust are weaker. A licensed engineer decides."
LABEL: dict[str, str] = {
    "road": "on the road",
    "parked": "on jack and axle",
    "lifted at its ends": "lifted at its ends",
    "lifted at a fifth": "lifted at a fifth from both ends",
}


class Beam(msgspec.Struct, frozen=True, eq=False):
    """One case one way: arrays over x [m from the ball] of shear [N], moment [N m, sagging positive], stress [Pa], sinking [m].

    Static loads; stress with the road's factor where it is on the road. supports: place, force [N].
    """

    case_id: str
    name: str
    how: How
    x_m: Floats
    shear_n: Floats
    moment_nm: Floats
    stress_pa: Floats
    sinks_m: Floats
    supports: tuple[tuple[float, float], ...]
    worst_m: float
    worst_pa: float
    sinks_most_m: float
    sinks_limit_m: float
    tongue_pa: float  # at the first cross-member

    @property
    def moment_most_nm(self) -> float:
        """The greatest bending moment, whichever way it bends."""
        return float(np.abs(self.moment_nm).max())


class FrameUnder(msgspec.Struct, frozen=True, eq=False):
    """All cases. yield_pa: of the rail's metal, beside a weld where it is aluminium. why: what keeps it from being answered."""

    beams: tuple[Beam, ...]
    rail: BarSection | None
    leg: BarSection | None
    nose_m: float
    length_m: float
    yield_pa: float
    why: str

    @property
    def worst(self) -> Beam | None:
        """The case of the greatest stress; None where none was reckoned."""
        return max(self.beams, key=lambda beam: beam.worst_pa, default=None)

    @property
    def utilisation(self) -> float | None:
        """Greatest stress over yield; None where none was reckoned."""
        beam = self.worst
        return beam.worst_pa / self.yield_pa if beam is not None else None


class Choice(msgspec.Struct, frozen=True):
    """One section for the rails: what the frame would weigh more and put on the ball [kg], and its utilisation."""

    section: BarSection
    more_kg: float
    ball_kg: float
    utilisation: float
    sinks_m: float
    sinks_limit_m: float


def frame_fault(s: Studied) -> str:
    """Why there is no answer; nothing where there is one."""
    rig = s.build.rig
    if rig.carrier != "ball":
        return "the bed's maker built the frame"
    if rig.base != "own frame":
        return "the trailer was bought: its maker knows its rails (a frame of one's own is reckoned here)"
    if sections().get(rig.rail) is None:
        return "the rails have no section yet (Rails, on Rig)"
    if not bars_of(rig):
        return "length or width of the frame is not said, or the drawbar is longer than it (Rig)"
    if s.support is None:
        return s.trouble or "there is no axle under it yet (Rig)"
    if not np.isfinite(s.readings.tongue_kg).any():
        return "the trailer has no reading yet"
    return ""


def hangers_m(s: Studied) -> list[list[tuple[float, float]]]:
    """Of every axle (of the group, where it is equalised): place and share of each hanger."""
    rig = s.build.rig
    stations = sorted(axle.station.si for axle in rig.axles)
    half = LEAF_M / 2
    if rig.suspension == "independent":
        return [[(x, 1.0)] for x in stations]
    if rig.suspension == "equalised" and len(stations) == 2:
        a, b = stations
        return [[(a - half, 0.25), ((a + b) / 2, 0.5), (b + half, 0.25)]]
    return [[(x - half, 0.5), (x + half, 0.5)] for x in stations]


def _spreads(s: Studied) -> tuple[Floats, Floats]:
    """Half length of every mass of the table along x [m], and whether it lies on the frame; wheels and axles do not."""
    sizes = {part.id: part.size_m[0] / 2 for part in s.parts}
    axles = {axle.id for axle in s.build.rig.axles}
    half = np.array([sizes.get(id.split("/")[0], 0.0) for id in s.table.ids])
    on = np.array([id not in axles for id in s.table.ids])
    return half, on.astype(float)


def _ramps(x: Floats, begin: Floats, slope: Floats) -> tuple[Floats, Floats]:
    """Sums of slope times what of x lies past each begin, and of half its square. Shapes: x (k), begin and slope (n); (k) each."""
    order = np.argsort(begin)
    begin, slope = begin[order], slope[order]
    many = begin.searchsorted(x, side="right")
    none, once, twice = (np.concatenate([[0.0], np.cumsum(slope * begin**power)])[many] for power in (0, 1, 2))
    return none * x - once, (none * x * x - 2 * once * x + twice) / 2


def beam_of(x: Floats, loads: tuple[Floats, Floats, Floats], supports: list[tuple[float, float]]) -> tuple[Floats, Floats]:
    """Shear and moment [N, N m]. Args: loads: weights [N], middles and half lengths [m] (n); supports: place, force up.

    An even load is a ramp that begins at its one end less one that begins at its other, so that many loads cost a sort.
    Check: 4 m on two ends, 1 kN in the middle: 1,000 N m; even 1 kN/m: 2,000; overhangs by any table to rounding.
    """
    weight, at, half = loads
    even = half > POINT_M
    slope = weight[even] / (2 * half[even])
    (begun, bent), (ended, unbent) = (_ramps(x, at[even] + side * half[even], slope) for side in (-1, 1))
    order = np.argsort(at[~even])
    point, force = at[~even][order], weight[~even][order]
    left = point.searchsorted(x, side="left")
    push, pull = (np.concatenate([[0.0], np.cumsum(force * point**power)])[left] for power in (0, 1))
    shear, moment = ended - begun - push, unbent - bent - (push * x - pull)
    for place, up in supports:
        right = x > place - 1e-9
        shear = shear + up * right
        moment = moment + up * np.maximum(x - place, 0.0)
    return shear, moment


def sinking(x: Floats, moment: Floats, ei: Floats, holds: list[list[tuple[float, float]]]) -> Floats:
    """Down [m]. holds: two groups of places with shares whose weighted sinking is nought."""
    bend = moment / ei
    step = np.diff(x)
    slope = np.concatenate([[0.0], np.cumsum((bend[1:] + bend[:-1]) / 2 * step)])
    down = np.concatenate([[0.0], np.cumsum((slope[1:] + slope[:-1]) / 2 * step)])
    # w'' = M / EI with w up for sagging: w = down + c0 + c1 x
    rows, right = [], []
    for group in holds:
        total = sum(share for _, share in group)
        rows.append([1.0, sum(place * share for place, share in group) / total])
        right.append(-sum(float(np.interp(place, x, down)) * share for place, share in group) / total)
    c = np.linalg.solve(np.array(rows), np.array(right))
    return np.asarray(-(down + c[0] + c[1] * x))


READS = ("s.readings", "s.table", "s.build.rig", "s.parts")


@keep(*READS, most=3)
def frame_under(s: Studied) -> FrameUnder:
    """Every towing case on the road; the heaviest of them parked and lifted."""
    why = frame_fault(s)
    if why:
        return FrameUnder((), None, leg=None, nose_m=0.0, length_m=0.0, yield_pa=0.0, why=why)
    rig = s.build.rig
    assert rig.frame_length is not None
    rail = sections()[rig.rail]
    leg = sections().get(rig.drawbar, rail)
    length = rig.frame_length.si
    nose = min(rig.drawbar_length.si if rig.drawbar_length else 0.3 * length, length)
    rows = s.towing_rows or list(range(len(s.table.cases)))
    heavy = max(rows, key=lambda row: float(np.nan_to_num(s.readings.total_kg[row])))
    beams = [_one(s, row, "road", rail, leg, nose, length) for row in rows]
    for how in HOWS[1:]:
        beams.append(_one(s, heavy, how, rail, leg, nose, length))
    return FrameUnder(
        tuple(beam for beam in beams if beam is not None),
        rail,
        leg=leg,
        nose_m=nose,
        length_m=length,
        yield_pa=YIELD_PA[rail.metal],
        why="",
    )


def _one(s: Studied, row: int, how: How, rail: BarSection, leg: BarSection, nose: float, length: float) -> Beam | None:
    half, on = _spreads(s)
    kg, at = s.table.mass_kg[row] * on, s.table.x_m[row]
    if how.startswith("lifted"):  # off the ground the axles hang on the frame, at their hangers
        hung = [(place, q * kilos) for place, q, kilos in _hung(s, row, on)]
        kg, at = np.concatenate([kg, [m for _, m in hung]]), np.concatenate([at, [p for p, _ in hung]])
        half = np.concatenate([half, np.zeros(len(hung))])
    place = np.clip(at, 0.0, length)
    half = np.minimum(half, np.minimum(np.maximum(place, 0.0), np.maximum(length - place, 0.0)))
    weight = kg * GRAVITY
    total, moment = float(weight.sum()), float((weight * place).sum())
    held = _supports(s, row, how, total, moment, length)
    if held is None:
        return None
    supports, holds = held
    points = np.array([p for p, _ in supports] + [nose])
    ends = np.concatenate([place - half, place + half])
    asked = np.concatenate([points, points + JUST_AFT_M, ends])
    x = np.unique(np.concatenate([np.linspace(0.0, length, STATIONS), asked[(asked >= 0) & (asked <= length)].round(6)]))
    shear, bend = beam_of(x, (weight, place, half), supports)
    x = np.unique(np.concatenate([x, _peaks(x, shear)]))  # the moment is most where the shear passes nought
    shear, bend = beam_of(x, (weight, place, half), supports)
    in_leg = x <= nose
    modulus = 2 * np.where(in_leg, leg.modulus_m3, rail.modulus_m3)
    ei = 2 * np.where(in_leg, leg.inertia_m4 * E_PA[leg.metal], rail.inertia_m4 * E_PA[rail.metal])
    stress = np.abs(bend) / modulus * (ROAD if how == "road" else 1.0)
    down = sinking(x, bend, ei, holds)
    a, b = sum(p for p, _ in holds[0]) / len(holds[0]), sum(p for p, _ in holds[1]) / len(holds[1])
    span, tail = abs(b - a), max(length - max(a, b), min(a, b))
    between = (x >= min(a, b)) & (x <= max(a, b))
    in_span, in_tail = np.abs(down[between]).max(initial=0.0), np.abs(down[~between]).max(initial=0.0)
    limits = (span / SINKS, 2 * tail / SINKS)
    uses = (in_span / max(limits[0], 1e-9), in_tail / max(limits[1], 1e-9))
    which = int(uses[1] > uses[0])
    worst = int(np.argmax(stress))
    case = s.table.cases[row]
    return Beam(
        case.id,
        case.name,
        how=how,
        x_m=x,
        shear_n=shear,
        moment_nm=bend,
        stress_pa=stress,
        sinks_m=down,
        supports=tuple(supports),
        worst_m=float(x[worst]),
        worst_pa=float(stress[worst]),
        sinks_most_m=float((in_span, in_tail)[which]),
        sinks_limit_m=limits[which],
        tongue_pa=float(np.interp(nose, x, stress)),
    )


def _peaks(x: Floats, shear: Floats) -> Floats:
    """Where the shear passes nought between two stations [m], by the straight line between them."""
    turn = np.flatnonzero((shear[:-1] * shear[1:]) < 0)
    return np.asarray(x[turn] + (x[turn + 1] - x[turn]) * shear[turn] / (shear[turn] - shear[turn + 1]))


def _hung(s: Studied, row: int, on: Floats) -> list[tuple[float, float, float]]:
    """Place [m], share and mass [kg] of what hangs at each hanger while the wheels are off the ground."""
    groups = hangers_m(s)
    kilos = float((s.table.mass_kg[row] * (1.0 - on)).sum()) / max(len(groups), 1)
    return [(place, share, kilos) for group in groups for place, share in group]


def _supports(
    s: Studied, row: int, how: How, total: float, moment: float, length: float
) -> tuple[list[tuple[float, float]], list[list[tuple[float, float]]]] | None:
    """Forces on the frame and what holds it level; None where it cannot stand so."""
    groups = hangers_m(s)
    flat = [pair for group in groups for pair in group]
    if how in ("lifted at its ends", "lifted at a fifth"):
        a, b = (0.0, length) if how == "lifted at its ends" else (LIFT_AT * length, (1 - LIFT_AT) * length)
        right = (moment - total * a) / (b - a)
        return [(a, total - right), (b, right)], [[(a, 1.0)], [(b, 1.0)]]
    foot = 0.0
    if how == "parked":
        if s.build.rig.jack_station is None:
            return None
        foot = s.build.rig.jack_station.si
    loads = s.readings.axle_kg[row] if len(groups) > 1 else None
    if loads is not None and np.isfinite(loads).all() and loads.sum() > 0 and len(loads) == len(groups):
        shares = loads / loads.sum()  # as independent axles share by the height of the ball
    else:
        shares = np.full(len(groups), 1.0 / len(groups))
    middle = sum(float(share) * sum(p * q for p, q in group) for share, group in zip(shares, groups, strict=True))
    if middle - foot <= 1e-6:
        return None
    wheels = (moment - total * foot) / (middle - foot)
    forces = [(place, wheels * float(share) * q) for share, group in zip(shares, groups, strict=True) for place, q in group]
    weights = [(place, float(share) * q) for share, group in zip(shares, groups, strict=True) for place, q in group]
    return [(foot, total - wheels), *forces], [[(foot, 1.0)], weights or flat]


@keep(*READS, most=2)
def choices(s: Studied) -> tuple[Choice, ...]:
    """Every section of the table for the rails (legs where they are of the same), lightest first: weight against stress."""
    made = frame_under(s)
    rig = s.build.rig
    if made.rail is None or made.worst is None:
        return ()
    now = sum(bar.mass_kg for bar in bars_of(rig)) * (1 + BRACKETS)
    axle = float(np.nanmean(s.readings.effective_axle_m))
    found = []
    for section in sections().values():
        other = replace(rig, rail=section.id)
        bars = bars_of(other)
        if not bars:
            continue
        more = sum(bar.mass_kg for bar in bars) * (1 + BRACKETS) - now
        at = frame_cg_m(other)
        legs = section if not rig.drawbar else made.leg
        assert legs is not None
        stress, sinks = 0.0, (0.0, 1.0)
        for beam in made.beams:
            z = np.where(beam.x_m <= made.nose_m, legs.modulus_m3, section.modulus_m3)
            z_now = np.where(beam.x_m <= made.nose_m, made.leg.modulus_m3 if made.leg else 1.0, made.rail.modulus_m3)
            stress = max(stress, float((beam.stress_pa * z_now / z).max()))
            stiff = made.rail.inertia_m4 * E_PA[made.rail.metal] / (section.inertia_m4 * E_PA[section.metal])
            if beam.how == "road" and beam.sinks_most_m * stiff / beam.sinks_limit_m > sinks[0] / sinks[1]:
                sinks = (beam.sinks_most_m * stiff, beam.sinks_limit_m)
        ball = more * (1 - at / axle)
        found.append(Choice(section, more, ball, stress / YIELD_PA[section.metal], *sinks))
    return tuple(sorted(found, key=lambda choice: choice.section.kg_m))
