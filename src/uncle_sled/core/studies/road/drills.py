"""Drills from one's own build: where the ball falls, which wire is too thin, and five things to put in their places.

A drill is made from a seed, so the same one comes back; its answer is that of the reading, not of a rule of thumb. The build
is never changed by it.
"""

from __future__ import annotations

import random
from typing import Literal

import msgspec
import numpy as np

from uncle_sled.core.document.edits import Op, apply, set_to
from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.reading.balance import balance
from uncle_sled.core.reading.load_cases import columns_of
from uncle_sled.core.reading.studied import Studied, study
from uncle_sled.core.wiring.conductors import SIZES
from uncle_sled.core.wiring.near_heat import hot_boxes
from uncle_sled.core.wiring.wired import wired_of

Change = Literal["filled", "emptied", "moved"]
LEAST_KG = 1.0  # on the ball: less than that nobody could point at
SURE_KG = 2.0  # as near as that is right
MANY = 5
THIN = 1.4  # times the allowed drop, that the thin one has at least


class BallDrill(msgspec.Struct, frozen=True):
    """A tank filled or emptied, or a thing moved, in one case. Stations from the ball [m], masses [kg].

    at_m, to_m: where the mass is before and after; low, high: what the gauge shows.
    """

    row: int
    id: str
    name: str
    change: Change
    kg: float
    at_m: float
    to_m: float
    axle_m: float
    before_kg: float
    after_kg: float
    low: float
    high: float


class Wire(msgspec.Struct, frozen=True):
    """One wire as it is shown: there and back it drops a share of its volts; allowed: what it may."""

    id: str
    name: str
    current_a: float
    length_m: float
    volts: float
    mm2: float
    size: str
    drop: float
    allowed: float


class WireDrill(msgspec.Struct, frozen=True):
    """Wires of the build, of which one was made too thin."""

    wires: tuple[Wire, ...]
    thin: str


class FiveDrill(msgspec.Struct, frozen=True):
    """Things to put: their ids, where their front edges begin, and between which they may stand [m].

    best: the most cases that any place of them all brings into the band, of so many.
    """

    ids: tuple[str, ...]
    begin_m: tuple[float, ...]
    spans_m: tuple[tuple[float, float], ...]
    best: int
    cases: int


def ball_drill(s: Studied, seed: int) -> BallDrill | None:
    """Where will the ball reading fall? None where there is no ball or nothing that moves it."""
    if s.support is None or s.support.carrier != "ball" or not s.towing_rows:
        return None
    rng = random.Random(seed)
    offers = [offer for row in s.towing_rows for offer in _offers(s, row, rng)]
    if not offers:
        return None
    row, thing, change, mass, x, _ = rng.choice(sorted(offers, key=lambda offer: -offer[5])[: max(len(offers) // 2, 1)])
    after = _tongue(s, row, mass, x)
    before = float(s.readings.tongue_kg[row])
    at = list(columns_of(s.table.ids)[thing.id])
    was, now = s.table.mass_kg[row, at], mass[at]
    moved = change == "moved"
    column = int(at[int(np.argmax(np.abs(now - was)))]) if not moved else at[0]
    kg = float(now.sum()) if moved else abs(float(now.sum() - was.sum()))
    low, high = min(before, after, 0.0), max(before, after, float(np.nan_to_num(s.readings.band_kg[row, 1])))
    span = max(high - low, 10.0)
    return BallDrill(
        row,
        thing.id,
        name=thing.name,
        change=change,
        kg=kg,
        at_m=float(s.table.x_m[row, column]),
        to_m=float(x[column]),
        axle_m=float(s.readings.effective_axle_m[row]),
        before_kg=before,
        after_kg=after,
        low=low - 0.35 * span,
        high=high + 0.35 * span,
    )


Offer = tuple[int, Thing, Change, np.ndarray, np.ndarray, float]  # the last: by how much the ball goes [kg]


def _offers(s: Studied, row: int, rng: random.Random) -> list[Offer]:
    """Changes of a case that move the ball enough to point at."""
    columns, table = columns_of(s.table.ids), s.table
    hot = {id for id, _, _ in hot_boxes(s.build.stow.things)}  # the copper of wires beside it changes where it goes
    made: list[Offer] = []
    for thing in s.build.stow.things:
        at = list(columns.get(thing.id, ()))
        if not at or thing.taken_out or not table.mass_kg[row, at].any():
            continue
        mass, x = table.mass_kg[row].copy(), table.x_m[row].copy()
        change: Change = "moved"
        if thing.tank is not None and thing.tank.volume is not None and len(at) > 1:
            water = at[-1]  # its contents stand behind its own mass
            full = float(table.mass_kg[:, water].max())
            if full <= 0:
                continue
            change = "emptied" if mass[water] > full / 2 else "filled"
            mass[water] = 0.0 if change == "emptied" else full
        elif _is_free(s, thing) and thing.id not in hot:
            low, high = span_of(s, thing)
            edge = thing.x.si
            to = low if edge - low > high - edge else high
            to = edge + (to - edge) * rng.choice((0.5, 0.75, 1.0))
            x[at] += to - edge
        else:
            continue
        off = abs(_tongue(s, row, mass, x) - float(s.readings.tongue_kg[row]))
        if off >= LEAST_KG:
            made.append((row, thing, change, mass, x, off))
    return made


def _tongue(s: Studied, row: int, mass: np.ndarray, x: np.ndarray) -> float:
    """The ball of a case with other masses at other stations [kg]."""
    table = msgspec.structs.replace(
        s.table,
        cases=(s.table.cases[row],),
        mass_kg=mass[None],
        x_m=x[None],
        y_m=s.table.y_m[row : row + 1],
        z_m=s.table.z_m[row : row + 1],
        sigma_kg=s.table.sigma_kg[row : row + 1],
    )
    return float(balance(table, s.support, s.band).tongue_kg[0])


def ball_score(drill: BallDrill, guess_kg: float) -> int:
    """100 within 2 kg, nothing from the size of the change on."""
    off = max(abs(guess_kg - drill.after_kg) - SURE_KG, 0.0)
    return round(100 * max(0.0, 1 - off / max(abs(drill.after_kg - drill.before_kg), 8.0)))


def wire_drill(s: Studied, seed: int) -> WireDrill | None:
    """Which wire is too thin? None where fewer than three wires of the build are known and right."""
    rng = random.Random(seed)
    wired = wired_of(s.build, s.framed)
    ends = wired.net.ends
    known = [
        Wire(
            laid.id,
            f"{ends[laid.start].name} to {ends[laid.end].name}",
            current_a=laid.current_a,
            length_m=laid.length_m,
            volts=laid.volts,
            mm2=laid.mm2,
            size=laid.gauge or f"{laid.mm2:g} mm²",
            drop=laid.drop_share,
            allowed=laid.allowed,
        )
        for laid in wired.wires
        if laid.current_a
        and laid.length_m
        and laid.volts
        and laid.mm2
        and laid.drop_share is not None
        and laid.allowed
        and laid.drop_share <= laid.allowed
    ]
    thinned = {wire.id: made for wire in known if (made := _thinner(wire, wired.gauge)) is not None}
    if len(known) < 3 or not thinned:
        return None
    thin = rng.choice(sorted(thinned))
    others = rng.sample([wire for wire in known if wire.id != thin], min(MANY - 1, len(known) - 1))
    shown = [thinned[thin], *others]
    rng.shuffle(shown)
    return WireDrill(tuple(shown), thin)


def _thinner(wire: Wire, gauge: str) -> Wire | None:
    """The same wire in the largest size in which it drops far too much: the drop goes by one over its area."""
    for size in reversed(SIZES[gauge]):
        drop = wire.drop * wire.mm2 / size.mm2
        if size.mm2 < wire.mm2 and drop >= THIN * wire.allowed:
            return msgspec.structs.replace(wire, mm2=size.mm2, size=size.name, drop=drop)
    return None


def five_drill(s: Studied, seed: int) -> FiveDrill | None:
    """Five things (or as many as are free) somewhere along the body; None where fewer than two are free or nothing reads."""
    if s.support is None or s.support.carrier != "ball" or not s.towing_rows:
        return None
    free = sorted((thing for thing in s.build.stow.things if _is_free(s, thing)), key=lambda thing: -thing.mass.si)[:MANY]
    if len(free) < 2:
        return None
    spans = tuple(span_of(s, thing) for thing in free)
    ids = tuple(thing.id for thing in free)
    best = max(in_band(s, ids, tuple(low + f * (high - low) for low, high in spans)) for f in np.linspace(0, 1, 33))
    rng = random.Random(seed)
    begin: tuple[float, ...] = ()
    for _ in range(24):  # one that is not solved already
        begin = tuple(low + rng.random() * (high - low) for low, high in spans)
        if in_band(s, ids, begin) < best:
            break
    return FiveDrill(ids, begin, spans, best, len(s.towing_rows))


def _is_free(s: Studied, thing: Thing) -> bool:
    """Whether a thing can be asked about: loose, inside, with a weight, and at one place in every mode."""
    return (
        thing.mass.si > 1.0
        and not (thing.stays or thing.taken_out or thing.outside or thing.rides or thing.tank)
        and thing.inside is None
        and all(thing.id not in mode.touched and thing.id not in mode.absent for mode in s.build.stow.modes)
        and span_of(s, thing)[1] - span_of(s, thing)[0] > 0.2
    )


def span_of(s: Studied, thing: Thing) -> tuple[float, float]:
    """Between which its front edge may stand [m]: within the body, or on the frame where there is none."""
    shell, rig = s.build.shell, s.build.rig
    long = thing.length.si if thing.turn % 180 == 0 else thing.width.si
    if shell.form != "none" and shell.front is not None and shell.length is not None:
        return shell.front.si, max(shell.front.si + shell.length.si - long, shell.front.si)
    end = rig.frame_length.si if rig.frame_length is not None else 0.0
    return 0.5, max(end - long, 0.5)


def placed_ops(ids: tuple[str, ...], at_m: tuple[float, ...]) -> list[Op]:
    """Edits that put things at stations [m], for a drill to be tried on the build."""
    return [set_to(f"stow.things.{id}.x", {"si": float(round(x, 4)), "typed": None}) for id, x in zip(ids, at_m, strict=True)]


def put(s: Studied, ids: tuple[str, ...], at_m: tuple[float, ...]) -> Studied:
    """The build with the things there, read anew; the build itself stays."""
    build: Build = apply(s.build, placed_ops(ids, at_m))
    return study(build, s.facts)


def in_band(s: Studied, ids: tuple[str, ...], at_m: tuple[float, ...]) -> int:
    """How many towing cases have their ball in its band with the things there."""
    b = put(s, ids, at_m).readings
    return sum(bool(b.band_kg[row, 0] - 1e-9 <= b.tongue_kg[row] <= b.band_kg[row, 1] + 1e-9) for row in s.towing_rows)


def five_score(s: Studied, drill: FiveDrill, at_m: tuple[float, ...]) -> int:
    """Of 100: cases in the band, of the most that can be."""
    return round(100 * in_band(s, drill.ids, at_m) / drill.best) if drill.best else 0
