"""How fast before it wags: a linear car and trailer, damping of the trailer's swing over the speed, what each mass costs.

Standard single-track dynamics at constant speed V. q = (lateral of the car, its yaw, the trailer's yaw); states here are the
four that matter: lateral speed and yaw rate of the car, yaw rate of the trailer, articulation (car's heading less trailer's).
An axle at n . q' has the slip angle n . q' / V less its heading; its force is -C of that. C is 7.5 per rad times its load.
M symmetric: m1 u1 u1' + I1 u2 u2' + m2 n2 n2' + I2 u3 u3', n2 = (1, -d, -e). Turning left is positive.
It flatters: no lag of tyres, no driver, no wind but one gust, no play, no springs. Source: any text of vehicle dynamics.
"""

from __future__ import annotations

import math

import msgspec
import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.document.brief import Vehicle
from uncle_sled.core.document.edits import Op, apply, set_to
from uncle_sled.core.document.placing import longer_drawbar_ops
from uncle_sled.core.engine import keep
from uncle_sled.core.reading.band import vehicles_of
from uncle_sled.core.reading.limits import front_axle_of, own_weight_kg, rear_axle_of, riding_in_car
from uncle_sled.core.reading.studied import Studied, study
from uncle_sled.core.units import GRAVITY

Floats = NDArray[np.float64]
TYRE = 7.5  # cornering stiffness of an axle per rad, times its load
TYRES = (0.7, 1.2)  # soft or worn to stiff and hard
SPEEDS_KMH: Floats = np.arange(40.0, 141.0, 2.5)
MOST_KMH = 200.0
FINE_KMH = 0.1
GOOD, POOR = 0.1, 0.05
USUAL_KMH = 100.0
MARGIN = 1.3
LONGER_M = 0.5
GUST_S, GUST_M_S, TRACE_S, STEP_S = 0.5, 15.0, 9.0, 0.02
AIR = 0.6
LEFT_OUT = "Left out: lag of the tyres, the driver, springs and play, more wind than one gust. It flatters: where none is found up to the last speed tried, it is not safe there."
CAUTION = "Screening only: it compares one layout with another. Makers' figures, local rules and a licensed engineer decide."


class Train(msgspec.Struct, frozen=True):
    """A car and its trailer [kg, kg m2, m, N/rad]: b1, d aft of the car's centre; e, l aft of the ball."""

    m1: float
    i1: float
    a1: float
    b1: float
    d: float
    m2: float
    i2: float
    e: float
    l: float  # noqa: E741
    cf: float
    cr: float
    ct: float

    @property
    def mass(self) -> Floats:
        """The mass matrix over (lateral, yaw of the car, yaw of the trailer)."""
        n2 = np.array([1.0, -self.d, -self.e])
        return np.diag([self.m1, self.i1, self.i2]) + self.m2 * np.outer(n2, n2)


class Swaying(msgspec.Struct, frozen=True, eq=False):
    """One case: damping of the trailer's swing over SPEEDS_KMH; the speeds where it falls to 0.1, 0.05 and 0 [km/h], else None.

    oversteer_kmh: where the car itself turns away without swinging; at_kmh and damping_at: the brief's fastest, or a usual speed.
    """

    case_id: str
    name: str
    vehicle_id: str
    train: Train
    damping: Floats
    good_until_kmh: float | None
    poor_until_kmh: float | None
    critical_kmh: float | None
    oversteer_kmh: float | None
    at_kmh: float
    damping_at: float


class Sway(msgspec.Struct, frozen=True, eq=False):
    """All towing cases; why: what keeps it from being answered. said: whether the brief says how fast."""

    cases: tuple[Swaying, ...]
    at_kmh: float
    said: bool
    why: str


class Cost(msgspec.Struct, frozen=True):
    """What one mass costs: damping with it taken out less damping with it; mass [kg] and place aft of the axle [m]."""

    id: str
    name: str
    kg: float
    behind_axle_m: float
    gain: float
    tank: bool


class WhatIf(msgspec.Struct, frozen=True):
    """One change tried: damping at the speed asked and the critical speed it leaves."""

    says: str
    damping: float
    critical_kmh: float | None
    ops: tuple[Op, ...] = ()  # that would make it so, where there are any


class Trace(msgspec.Struct, frozen=True, eq=False):
    """After a gust from the right: seconds, articulation [rad], yaw of the car [rad], lateral of the ball [m]; force [N] or kick."""

    t_s: Floats
    bend_rad: Floats
    car_rad: Floats
    ball_m: Floats
    gust_n: float | None


def state_matrix(trains: list[Train], v_m_s: Floats) -> Floats:
    """A of x' = A x. Args: trains (n); v (k), or (n, k) where each has its own. Returns: (n, k, 4, 4)."""
    v = np.atleast_2d(np.asarray(v_m_s, dtype=float))

    def col(name: str) -> Floats:
        return np.array([getattr(train, name) for train in trains])[:, None]

    shape = np.broadcast_shapes((len(trains), 1), v.shape)
    point = np.ones(shape)
    mass = np.array([t.mass for t in trains])
    slips, forces = [], []
    for c, n1, n2, heading in (
        (col("cf"), col("a1"), 0.0 * point, 0.0),
        (col("cr"), -col("b1"), 0.0 * point, 0.0),
        (col("ct"), -col("d"), -col("l"), 1.0),
    ):
        slips.append(np.stack([point / v, n1 * point / v, n2 * point / v, heading * point], axis=-1))
        forces.append(np.stack([-c * point, -c * n1 * point, -c * n2 * point], axis=-1))
    right = sum(f[..., :, None] * s[..., None, :] for f, s in zip(forces, slips, strict=True))
    top = np.linalg.solve(np.broadcast_to(mass[:, None], (*shape, 3, 3)), right)
    top[..., 0, 1] -= v  # q1'' = v' + V r1 along the car
    made = np.zeros((*shape, 4, 4))
    made[..., :3, :] = top
    made[..., 3, 1], made[..., 3, 2] = 1.0, -1.0
    return made


def damping_of(a: Floats) -> tuple[Floats, NDArray[np.bool_]]:
    """Least damping ratio of what swings (1 where nothing does), and whether something runs away without swinging."""
    roots = np.linalg.eigvals(a)
    swings = np.abs(roots.imag) > 1e-6
    ratio = np.where(swings, -roots.real / np.maximum(np.abs(roots), 1e-12), np.inf)
    least = ratio.min(axis=-1)
    away = ((~swings) & (roots.real > 1e-9)).any(axis=-1)
    return np.where(np.isfinite(least), np.minimum(least, 1.0), 1.0), away


def damping(train: Train, kmh: float) -> float:
    """Damping of the swing at a speed [share of critical]; below 0 it grows. Source: as ``state_matrix``."""
    return float(damping_of(state_matrix([train], np.array([kmh / 3.6])))[0][0, 0])


def falls_to(train: Train, least: float, most_kmh: float = MOST_KMH) -> float | None:
    """The lowest speed over 10 km/h at which damping falls under a value, to 0.1 km/h; None where it never does up to most."""
    return _over_speeds([train], (least,), most_kmh)[0][0][0]


CAR_DOUBT = 0.15  # of the car's inertia, which is a guess: m a b, one sigma


def critical_span(train: Train) -> tuple[float | None, float | None]:
    """The speed from which swings grow [km/h] with the car's inertia a sigma less and more; None where none is found."""
    found = [falls_to(msgspec.structs.replace(train, i1=train.i1 * by), 0.0) for by in (1 - CAR_DOUBT, 1 + CAR_DOUBT)]
    return found[0], found[1]


def _over_speeds(
    trains: list[Train], levels: tuple[float, ...], most_kmh: float = MOST_KMH
) -> list[tuple[list[float | None], float | None]]:
    """Of each train the speed at which damping falls under each level and the one from which on it runs away.

    All trains and levels are halved at once: as many solutions as one alone would take.
    """
    grid = np.arange(10.0, most_kmh + 0.1, 5.0)
    ratio, away = damping_of(state_matrix(trains, grid / 3.6))
    falls: list[list[float | None]] = [[None] * len(levels) for _ in trains]
    open_: list[tuple[int, int, float, float]] = []
    for n in range(len(trains)):
        for k, least in enumerate(levels):
            under = ratio[n] < least
            at = int(np.argmax(under))
            if under[at] and at == 0:
                falls[n][k] = float(grid[0])
            elif under[at]:
                open_.append((n, k, float(grid[at - 1]), float(grid[at])))
    while open_:
        middles = [(low + high) / 2 for _, _, low, high in open_]
        each = [trains[n] for n, _, _, _ in open_]
        under_now = damping_of(state_matrix(each, np.array(middles)[:, None] / 3.6))[0][:, 0]
        ends = [
            (n, k, low, middle) if value < levels[k] else (n, k, middle, high)
            for (n, k, low, high), middle, value in zip(open_, middles, under_now, strict=True)
        ]
        open_ = []
        for n, k, low, high in ends:
            if high - low > FINE_KMH:
                open_.append((n, k, low, high))
            else:
                falls[n][k] = (low + high) / 2
    return [(falls[n], float(grid[int(np.argmax(away[n]))]) if away[n].any() else None) for n in range(len(trains))]


def inertia_kgm2(s: Studied, row: int) -> float:
    """Of the trailer about its own upright axis: every mass at its place, each as a box of its own size."""
    table = s.table
    kg = table.mass_kg[row]
    cg = s.readings.cg_m[row]
    r2 = (table.x_m[row] - cg[0]) ** 2 + (table.y_m[row] - cg[1]) ** 2
    return float((kg * (r2 + _own_m2(s))).sum())


@keep("s.parts", "s.table.ids", most=4)
def _own_m2(s: Studied) -> Floats:
    """Of every mass of the table, the square of the radius of gyration of a box of its size [m2], shape (n,)."""
    sizes = {part.id: (part.size_m[0] ** 2 + part.size_m[1] ** 2) / 12 for part in s.parts}
    return np.array([sizes.get(id.split("/", 1)[0], 0.0) for id in s.table.ids])


def train_of(s: Studied, row: int, car: Vehicle) -> tuple[Train | None, str]:
    """A case behind a car, or what is missing in words."""
    if car.wheelbase is None or car.ball_overhang is None or car.front_empty is None or car.rear_empty is None:
        return (None, f"wheelbase, ball behind the rear axle and empty axle loads of the {car.name} are not all said (Brief)")
    tongue, total = float(s.readings.tongue_kg[row]), float(s.readings.total_kg[row])
    axle = float(s.readings.effective_axle_m[row])
    if not all(math.isfinite(v) for v in (tongue, total, axle)) or total <= 0:
        return None, "the trailer has no reading yet"
    riding = riding_in_car(s.build)
    front, rear = front_axle_of(car, s.readings.tongue_kg, riding), rear_axle_of(car, s.readings.tongue_kg, riding)
    m1 = own_weight_kg(car, riding)
    if front is None or rear is None or m1 is None or m1 <= 0:
        return None, f"where the rows of the {car.name} are is not said (Brief)"
    base = car.wheelbase.si
    alone = rear_axle_of(car, np.zeros(1), riding)
    assert alone is not None
    a1 = base * float(alone[0]) / m1
    b1 = base - a1
    if a1 <= 0 or b1 <= 0 or min(float(front[row]), float(rear[row])) <= 0:
        return None, f"the axle loads of the {car.name} leave one of them in the air"
    cg = float(s.readings.cg_m[row, 0])
    wheels = total - tongue
    if wheels <= 0:
        return None, "nothing stands on the trailer's wheels"
    c = TYRE * GRAVITY
    own = s.build.rig.tyre.grip or 1.0
    return Train(
        m1,
        m1 * a1 * b1,
        a1=a1,
        b1=b1,
        d=b1 + car.ball_overhang.si,
        m2=total,
        i2=inertia_kgm2(s, row),
        e=cg,
        l=axle,
        cf=c * float(front[row]),
        cr=c * float(rear[row]),
        ct=c * own * wheels,
    ), ""


def car_of(s: Studied) -> tuple[Vehicle | None, str]:
    """The first car of the brief whose papers say enough; else why none does."""
    if s.build.rig.carrier != "ball":
        return None, "what is carried on a vehicle's bed does not sway behind it"
    if s.support is None:
        return None, s.trouble or "the trailer has no axle or no weight yet (Rig)"
    why = "no car is said (Brief)"
    rows = s.towing_rows
    if not rows:
        return None, "no case is towed"
    for car in vehicles_of(s.build.brief, s.facts):
        train, why = train_of(s, rows[0], car)
        if train is not None:
            return car, ""
    return None, why


READS = ("s.readings", "s.table", "s.build.brief", "s.build.rig", "s.build.stow", "s.facts")


@keep(*READS, most=3)
def sway(s: Studied) -> Sway:
    """All towing cases behind the first car that is known."""
    fastest = s.build.brief.fastest_kmh
    at_kmh = min(max(float(fastest), 10.0), MOST_KMH) if fastest else USUAL_KMH
    car, why = car_of(s)
    if car is None:
        return Sway((), at_kmh, bool(fastest), why)
    found, trains = [], []
    for row in s.towing_rows:
        train, why = train_of(s, row, car)
        if train is not None:
            found.append(row)
            trains.append(train)
    if not trains:
        return Sway((), at_kmh, bool(fastest), why)
    curves = damping_of(state_matrix(trains, SPEEDS_KMH / 3.6))[0]
    at_speed = damping_of(state_matrix(trains, np.array([at_kmh / 3.6])))[0][:, 0]
    made = []
    for row, train, curve, ((good, poor, none), away), now in zip(
        found, trains, curves, _over_speeds(trains, (GOOD, POOR, 0.0)), at_speed, strict=True
    ):
        case = s.table.cases[row]
        made.append(
            Swaying(
                case.id,
                case.name,
                vehicle_id=car.id,
                train=train,
                damping=curve,
                good_until_kmh=good,
                poor_until_kmh=poor,
                critical_kmh=none,
                oversteer_kmh=away,
                at_kmh=at_kmh,
                damping_at=float(now),
            )
        )
    return Sway(tuple(made), at_kmh, bool(fastest), "")


def worst(made: Sway) -> Swaying | None:
    """The case that is damped least at the speed asked; None without cases."""
    return min(made.cases, key=lambda swaying: swaying.damping_at, default=None)


def with_trailer(train: Train, m2: float, e: float, i2: float) -> Train | None:
    """The same car with another trailer behind it: its axles take the ball that goes with it. None: it stands on nothing."""
    reach = train.l
    if m2 <= 1.0 or i2 <= 0 or e <= 0:
        return None
    c = train.ct / max(train.m2 * train.e / train.l, 1e-9)  # of its tyres, a kilogram
    base, over = train.a1 + train.b1, train.d - train.b1
    more = m2 * (1 - e / reach) - train.m2 * (1 - train.e / train.l)
    per = (train.cf + train.cr) / max(train.m1 + train.m2 * (1 - train.e / train.l), 1e-9)
    cf, cr = train.cf - per * more * over / base, train.cr + per * more * (base + over) / base
    if min(cf, cr) <= 0:
        return None
    return msgspec.structs.replace(train, m2=m2, i2=i2, e=e, l=reach, cf=cf, cr=cr, ct=c * m2 * e / reach)


@keep(*READS, "s.parts", "row", most=6)
def costs(s: Studied, row: int) -> tuple[Cost, ...]:
    """What every thing and every tank's content costs in a case at the speed asked, dearest first."""
    made = sway(s)
    car, _ = car_of(s)
    if car is None or row not in s.towing_rows:
        return ()
    train, _ = train_of(s, row, car)
    if train is None:
        return ()
    table = s.table
    kg, x, y = table.mass_kg[row], table.x_m[row], table.y_m[row]
    things = {thing.id: thing.name for thing in s.build.stow.things}
    at = [k for k, id in enumerate(table.ids) if id.split("/")[0] in things and kg[k] > 0.5]
    trains, kept = [], []
    cg = s.readings.cg_m[row]
    r2 = (x - cg[0]) ** 2 + (y - cg[1]) ** 2
    for k in at:
        left = train.m2 - kg[k]
        if left <= 1.0:
            continue
        e = (train.m2 * train.e - kg[k] * x[k]) / left
        cy = (train.m2 * cg[1] - kg[k] * y[k]) / left
        i2 = train.i2 - kg[k] * r2[k] - left * ((e - train.e) ** 2 + (cy - cg[1]) ** 2)
        other = with_trailer(train, float(left), float(e), float(i2))
        if other is not None:
            trains.append(other)
            kept.append(k)
    if not trains:
        return ()
    base = damping(train, made.at_kmh)
    got = damping_of(state_matrix(trains, np.array([made.at_kmh / 3.6])))[0][:, 0]
    found = [
        Cost(table.ids[k], table.names[k], float(kg[k]), float(x[k] - train.l), float(value - base), "/" in table.ids[k])
        for k, value in zip(kept, got, strict=True)
    ]
    return tuple(sorted(found, key=lambda cost: -cost.gain))


@keep(*READS, "s.parts", "s.build", "row", most=4)
def what_ifs(s: Studied, row: int) -> tuple[WhatIf, ...]:
    """The dearest masses taken out, a longer drawbar, harder and softer tyres; tried on the case, nothing is changed."""
    car, _ = car_of(s)
    train, _ = train_of(s, row, car) if car is not None else (None, "")
    if train is None or car is None:
        return ()
    at = sway(s).at_kmh
    tried: list[tuple[str, Train, tuple[Op, ...]]] = [("as it is", train, ())]
    for cost in [cost for cost in costs(s, row) if cost.gain > 0][:2]:
        out = _without(s, row, train, cost.id)
        if out is not None:
            tried.append((f"{cost.name} {'empty' if cost.tank else 'left at home'}", out, ()))
        thing = next((t for t in s.build.stow.things if t.id == cost.id), None)
        over = _moved(s, row, train, cost.id) if thing is not None and not thing.inside else None
        if thing is not None and over is not None:
            x = round(thing.x.si - cost.behind_axle_m, 3)
            tried.append((f"{cost.name} over the axle", over, (set_to(f"stow.things.{thing.id}.x", {"si": x, "typed": None}),)))
    ops = tuple(longer_drawbar_ops(s.build, LONGER_M))
    after = study(apply(s.build, list(ops)), s.facts)  # the frame grows with it, so the whole build is asked
    longer, _ = train_of(after, row, car) if row < len(after.table.cases) else (None, "")
    if longer is not None:
        tried.append(("drawbar half a metre longer", longer, ops))
    own = s.build.rig.tyre.grip or 1.0
    for factor, says in ((TYRES[0], "tyres soft or worn"), (TYRES[1], "tyres hard and new")):
        tried.append((says, msgspec.structs.replace(train, ct=train.ct * factor / own), (set_to("rig.tyre.grip", factor),)))
    return tuple(WhatIf(says, damping(train, at), falls_to(train, 0.0), ops) for says, train, ops in tried)


def _moved(s: Studied, row: int, train: Train, id: str) -> Train | None:
    """The case with a mass over the axle."""
    k = s.table.ids.index(id)
    kg, x = float(s.table.mass_kg[row, k]), float(s.table.x_m[row, k])
    e = train.e + kg * (train.l - x) / train.m2
    i2 = train.i2 + kg * ((train.l - train.e) ** 2 - (x - train.e) ** 2) - train.m2 * (e - train.e) ** 2
    return with_trailer(train, train.m2, e, i2)


def _without(s: Studied, row: int, train: Train, id: str) -> Train | None:
    k = s.table.ids.index(id)
    kg, x = float(s.table.mass_kg[row, k]), float(s.table.x_m[row, k])
    left = train.m2 - kg
    if left <= 1.0:
        return None
    e = (train.m2 * train.e - kg * x) / left
    return with_trailer(train, left, e, train.i2 - kg * (x - train.e) ** 2 - left * (e - train.e) ** 2)


def tyre_band(train: Train, kmh: float, many: int = 200, seed: int = 7) -> tuple[float, float]:
    """Damping at a speed over tyres that nobody tested: 5th and 95th per cent of uniform factors for every axle."""
    rng = np.random.default_rng(seed)
    factors = rng.uniform(*TYRES, (many, 3))
    trains = [msgspec.structs.replace(train, cf=train.cf * f[0], cr=train.cr * f[1], ct=train.ct * f[2]) for f in factors]
    got = damping_of(state_matrix(trains, np.array([kmh / 3.6])))[0][:, 0]
    low, high = np.percentile(got, [5, 95])
    return float(low), float(high)


def gust_n(area_m2: float) -> float:
    """Side force of a gust of 15 m/s, drag of one. Check 4.2 m2: 567 N."""
    return AIR * GUST_M_S**2 * area_m2


def _exponential(a: Floats) -> Floats:
    """e to a small square matrix, by its series at a size under 1/8 and squaring. Source: Moler and Van Loan 2003, method 3."""
    halvings = max(int(np.ceil(np.log2(max(float(np.abs(a).sum(axis=1).max()), 1e-300)))) + 3, 0)
    small = a / 2.0**halvings
    term = made = np.eye(len(a))
    for k in range(1, 13):
        term = term @ small / k
        made = made + term
    for _ in range(halvings):
        made = made @ made
    return made


def trace(train: Train, kmh: float, force_n: float | None, at_m: float) -> Trace:
    """What it does after half a second of side force at a place aft of the ball [m]; None: after a kick of 2 degrees.

    Steps of 20 ms by the exponential of A, exact for a force that is steady within a step.
    """
    v = kmh / 3.6
    a = state_matrix([train], np.array([v]))[0, 0]
    push = np.zeros(4)
    if force_n is not None:
        push[:3] = np.linalg.solve(train.mass, np.array([1.0, -train.d, -at_m]) * -force_n)
    whole = np.zeros((7, 7))  # states, heading of the car, its lateral, and the force as a state that stays
    whole[:4, :4], whole[:4, 6] = a, push
    whole[4, 1] = 1.0
    whole[5, 0], whole[5, 4] = 1.0, v
    blown = _exponential(whole * STEP_S)
    still = whole.copy()
    still[:4, 6] = 0.0
    calm = _exponential(still * STEP_S)
    many = int(TRACE_S / STEP_S)
    x = np.zeros(7)
    x[6] = 1.0
    if force_n is None:
        x[3] = math.radians(2.0)
    rows = [x]
    for k in range(many):
        x = (blown if force_n is not None and (k + 0.5) * STEP_S < GUST_S else calm) @ x
        if not np.isfinite(x).all() or np.abs(x[:6]).max() > 1e3:
            break
        rows.append(x)
    got = np.array(rows)
    t = np.arange(len(rows), dtype=np.float64) * STEP_S
    return Trace(t, got[:, 3], got[:, 4], got[:, 5] - train.d * got[:, 4], force_n)


def settles_s(got: Trace) -> float | None:
    """When the bend stays under a tenth of its most [s]; None: not within the trace."""
    size = abs(got.bend_rad)
    most = float(size.max(initial=0.0))
    over = [k for k, value in enumerate(size.tolist()) if value > 0.1 * most]
    last = over[-1] if over else 0
    return None if last >= len(size) - 2 else last * STEP_S
