"""What stands there when a task is done: its mass, its centre, what is on the ball and on the axles, what is open to rain.

Tasks in the order in which the calendar ends them; tanks are empty and nothing rides along that belongs to trips only. The same
statics as of the whole build (``reading/balance.py``), so the last day is the case "as built". Source: any statics text.
"""

from __future__ import annotations

import msgspec
import numpy as np

from uncle_sled.core.document.stow import LoadCase, Mode
from uncle_sled.core.engine import by_value, keep
from uncle_sled.core.reading.balance import balance
from uncle_sled.core.reading.load_cases import Case, MassTable
from uncle_sled.core.reading.studied import Studied, length_m
from uncle_sled.core.studies.build.brought import Brought, brought
from uncle_sled.core.studies.build.schedule import Placed, Schedule
from uncle_sled.core.studies.build.what_it_is import START

PERSON_KG = 100.0  # with what is in the hands
SPOILT = ("floor sheet", "insulation", "lining", "new lining", "inner wall", "built in", "equipment", "wiring", "loft")
# what keeps rain out, and by which kinds: the first of them that the build has must be there
SKINS = (
    ("roof", ("roof sheet", "panel")),
    ("walls", ("plywood side", "panel", "sheathing", "boards")),
    ("doors and windows", ("opening",)),
)
HOLES = "holes"  # the task that cuts them: before it no window is missing


class Standing(msgspec.Struct, frozen=True):
    """After a task. brings_kg: by this task; tongue_kg, share: None where there is nothing to stand on, or it is not known.

    on_wheels: its axles are there; band_kg: what the ball should have, of what stands then; centre_m: x, y, z; axle_kg: by axle.
    lifts_kg: how much at its tail lifts the nose off its jack, 0 or less: it tips by itself; None where that is not known.
    rain: what of the skin is not on yet while something stands there that rain spoils.
    """

    task: str
    brings_kg: float
    total_kg: float
    tongue_kg: float | None
    share: float | None
    band_kg: tuple[float, float] | None
    on_wheels: bool
    centre_m: tuple[float, float, float] | None = None
    axle_kg: tuple[float, ...] = ()
    lifts_kg: float | None = None
    rain: tuple[str, ...] = ()

    @property
    def tips(self) -> bool:
        """Whether it must not stand on its jack alone: somebody at its tail would lift the nose."""
        return self.lifts_kg is not None and self.lifts_kg < PERSON_KG

    @property
    def off_band(self) -> int:
        """−1: too light on the ball to be towed so, 1: too heavy, 0: neither, or not known."""
        if self.tongue_kg is None or self.band_kg is None:
            return 0
        return -1 if self.tongue_kg < self.band_kg[0] else 1 if self.tongue_kg > self.band_kg[1] else 0


def standing(s: Studied, schedule: Schedule) -> tuple[Standing, ...]:
    """After each task of a calendar, in the order in which they end; none where nothing was placed in it."""
    return _standing(s, order_of(schedule))[1:]


def states_of(s: Studied, schedule: Schedule) -> tuple[Standing, ...]:
    """The same with what was there from the start before them."""
    return _standing(s, order_of(schedule))


def order_of(schedule: Schedule) -> tuple[str, ...]:
    """Tasks in the order in which a calendar ends them."""
    return tuple([placed.task.id for placed in _ended(schedule)])


def done_by(schedule: Schedule, day: float) -> frozenset[str]:
    """Tasks that are done when so many days have gone by since the first."""
    return frozenset(placed.task.id for placed in schedule.placed if placed.end <= day + 1e-9)


def on_day(s: Studied, schedule: Schedule, day: float) -> Standing | None:
    """What stands there then; before the first task what was there from the start. None where nothing is planned."""
    made = _standing(s, order_of(schedule))
    return made[len(done_by(schedule, day))] if made else None


def _ended(schedule: Schedule) -> list[Placed]:
    return sorted(schedule.placed, key=lambda placed: (placed.end, placed.begin))


def standing_of(s: Studied, done: frozenset[str]) -> Standing | None:
    """What stands there when just these tasks are done, in the order of no calendar; None where nothing ever weighs."""
    made = _standing(s, tuple(sorted(done)))
    return made[-1] if made else None


def day_of(schedule: Schedule, task: str) -> float | None:
    """When a task is done, in days since the first."""
    placed = schedule.of(task)
    return placed.end if placed is not None else None


@keep("s.build", "s.facts", by_value("order"), most=4)
def _standing(s: Studied, order: tuple[str, ...]) -> tuple[Standing, ...]:
    """At the start and after each of the tasks."""
    pieces = brought(s.build, s.facts)
    if not order:
        return ()
    at = {task: k + 1 for k, task in enumerate(order)}
    never = len(order) + 1  # what rides along on trips, and what a task brings for which no day was found
    since = np.array([0 if piece.by == START else at.get(piece.by, never) for piece in pieces], dtype=int)
    mass = np.array([piece.mass_kg for piece in pieces], dtype=float)
    there = since[None, :] <= np.arange(len(order) + 1)[:, None]
    rows = ("", *order)
    read = balance(_table(pieces, rows, np.where(there, mass, 0.0)), s.support, s.band)
    axles = {axle.id for axle in s.build.rig.axles if axle.mass is not None and axle.mass.si > 0}
    wheels = np.array([piece.part.id in axles for piece in pieces], dtype=bool)
    rain = _rain(pieces, since, at.get(HOLES, 0), len(rows))
    made = []
    for k, task in enumerate(rows):
        rolls = s.build.rig.carrier != "ball" or not axles or bool(there[k, wheels].all())
        known = rolls and not np.isnan(read.tongue_kg[k]) and read.total_kg[k] > 0
        low, high = (float(v) for v in read.band_kg[k])
        tongue = float(read.tongue_kg[k]) if known else None
        centre = tuple(float(v) for v in read.cg_m[k])
        made.append(
            Standing(
                task,
                brings_kg=float(mass[since == k].sum()),
                total_kg=float(read.total_kg[k]),
                tongue_kg=tongue,
                share=float(read.share[k]) if known else None,
                band_kg=(low, high) if known and not np.isnan(low) else None,
                on_wheels=rolls,
                centre_m=centre if read.total_kg[k] > 0 and not np.isnan(centre[0]) else None,  # type: ignore[arg-type]
                axle_kg=tuple(float(v) for v in read.axle_kg[k]) if known else (),
                lifts_kg=_lifts_kg(s, tongue),
                rain=rain[k],
            )
        )
    return tuple(made)


def _lifts_kg(s: Studied, tongue_kg: float | None) -> float | None:
    """What at its tail takes all weight off the jack, by moments about the middle of its axles.

    Check: 40 kg on the ball, axles at 2.5 m, tail at 4.0 m: 40 x 2.5 / 1.5 = 66.7 kg.
    """
    if tongue_kg is None or s.support is None or s.build.rig.carrier != "ball" or not len(s.support.axles_m):
        return None
    axle = s.support.mean_axle_m
    behind = length_m(s.build) - axle
    return tongue_kg * axle / behind if behind > 0.05 else None


def _rain(pieces: tuple[Brought, ...], since: np.ndarray, holes: int, many: int) -> list[tuple[str, ...]]:
    """What is not on yet, at the start and after each task; nothing while there is nothing that rain spoils."""
    last = int(since.max(initial=0)) + 1
    of: dict[str, list[int]] = {}
    for piece, when in zip(pieces, since.tolist(), strict=True):
        if piece.mass_kg > 0:
            of.setdefault(piece.what, []).append(when)
    spoilt = min((when for what in SPOILT for when in of.get(what, ())), default=last)
    shut = []
    for name, kinds in SKINS:
        kind = next((kind for kind in kinds if kind in of), None)
        if kind is not None:
            shut.append((name, max(of[kind]), holes if name == SKINS[-1][0] else 0))
    return [tuple(name for name, on, opened in shut if spoilt <= k < on and k >= opened) for k in range(many)]


def _table(pieces: tuple[Brought, ...], order: tuple[str, ...], mass: np.ndarray) -> MassTable:
    """Rows are days, columns pieces; a doubt of a day is not asked for."""
    parts = [piece.part for piece in pieces]
    mode = Mode("built", "as built", towing=True)
    x, y, z = (np.broadcast_to([getattr(part, name) for part in parts], mass.shape) for name in ("x_m", "y_m", "z_m"))
    return MassTable(
        tuple([Case(LoadCase(task, task, mode.id, "as built"), mode, "") for task in order]),
        tuple([part.id for part in parts]),
        names=tuple([part.name for part in parts]),
        groups=tuple([part.group for part in parts]),
        mass_kg=mass,
        x_m=np.asarray(x, dtype=float),
        y_m=np.asarray(y, dtype=float),
        z_m=np.asarray(z, dtype=float),
        sigma_kg=np.zeros(mass.shape),
        sigma_x_m=np.zeros(len(parts)),
        bias=(),
    )
