"""What stands there when a task is done: its mass, and what of it is on the ball, on each axle and on each side.

Tasks in the order in which the calendar ends them; tanks are empty and nothing rides along that belongs to trips only. The same
statics as of the whole build (``reading/balance.py``), so the last day is the case "as built". Source: any statics text.
"""

from __future__ import annotations

import msgspec
import numpy as np

from uncle_sled.core.document.stow import LoadCase, Mode
from uncle_sled.core.engine import keep
from uncle_sled.core.reading.balance import balance
from uncle_sled.core.reading.load_cases import Case, MassTable
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.build.brought import START, Brought, brought
from uncle_sled.core.studies.build.schedule import Schedule


class Standing(msgspec.Struct, frozen=True):
    """After a task. brings_kg: by this task; tongue_kg, share: None where there is nothing to stand on, or it is not known.

    on_wheels: its axles are there; band_kg: what the ball should have, of what stands then.
    """

    task: str
    brings_kg: float
    total_kg: float
    tongue_kg: float | None
    share: float | None
    band_kg: tuple[float, float] | None
    on_wheels: bool

    @property
    def off_band(self) -> int:
        """−1: too light on the ball to be towed so, 1: too heavy, 0: neither, or not known."""
        if self.tongue_kg is None or self.band_kg is None:
            return 0
        return -1 if self.tongue_kg < self.band_kg[0] else 1 if self.tongue_kg > self.band_kg[1] else 0


def standing(s: Studied, schedule: Schedule) -> tuple[Standing, ...]:
    """After each task of a calendar, in the order in which they end; none where nothing was placed in it."""
    order = tuple([placed.task.id for placed in sorted(schedule.placed, key=lambda placed: (placed.end, placed.begin))])
    return _standing(s, order)


@keep("s.build", "s.facts", "order", most=4)
def _standing(s: Studied, order: tuple[str, ...]) -> tuple[Standing, ...]:
    pieces = brought(s.build, s.facts)
    if not order:
        return ()
    at = {task: k for k, task in enumerate(order)}
    never = len(order)  # what rides along on trips, and what a task brings for which no day was found
    since = np.array([-1 if piece.by == START else at.get(piece.by, never) for piece in pieces], dtype=int)
    mass = np.array([piece.mass_kg for piece in pieces], dtype=float)
    there = since[None, :] <= np.arange(len(order))[:, None]
    read = balance(_table(pieces, order, np.where(there, mass, 0.0)), s.support, s.band)
    axles = {axle.id for axle in s.build.rig.axles if axle.mass is not None and axle.mass.si > 0}
    wheels = np.array([piece.part.id in axles for piece in pieces], dtype=bool)
    made = []
    for k, task in enumerate(order):
        rolls = s.build.rig.carrier != "ball" or not axles or bool(there[k, wheels].all())
        known = rolls and not np.isnan(read.tongue_kg[k]) and read.total_kg[k] > 0
        low, high = (float(v) for v in read.band_kg[k])
        made.append(
            Standing(
                task,
                brings_kg=float(mass[since == k].sum()),
                total_kg=float(read.total_kg[k]),
                tongue_kg=float(read.tongue_kg[k]) if known else None,
                share=float(read.share[k]) if known else None,
                band_kg=(low, high) if known and not np.isnan(low) else None,
                on_wheels=rolls,
            )
        )
    return tuple(made)


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
