"""Which states of tanks and cargo does the build go through, and what weighs what in each?

Standing cases are made from the tanks and things that exist; a builder's own case of the same id
takes the place of a standing one. Cases that come out equal in mass and place are kept once.
"""

from __future__ import annotations

import math
from functools import lru_cache

import msgspec
import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.document.placing import Stand, stand_of
from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Level, LoadCase, Mode, Thing
from uncle_sled.core.engine import from_last, keep
from uncle_sled.core.parts.from_stow import home_of, part_of_thing
from uncle_sled.core.parts.from_wiring import MADE_BY
from uncle_sled.core.parts.part import CONTENTS_SHARE, DENSITY, PLACED_M, SHARED_BIAS, Part
from uncle_sled.core.sameness import places_changed

Floats = NDArray[np.float64]
ON_GROUND_M = 0.02  # underside of what is set down beside the rig
Bools = NDArray[np.bool_]


@keep(most=4)
def columns_of(ids: tuple[str, ...]) -> dict[str, tuple[int, ...]]:
    """The columns of a table that belong to one part, its contents with it."""
    found: dict[str, tuple[int, ...]] = {}
    for at, id in enumerate(ids):
        key = id.split("/", 1)[0]
        found[key] = (*found.get(key, ()), at)
    return found


class Owners(msgspec.Struct, frozen=True, eq=False):
    """ids: of each part; of: (n,) which of them a column belongs to; first: the first column of each."""

    ids: tuple[str, ...]
    of: NDArray[np.int_]
    first: tuple[int, ...]

    def sums(self, values: Floats) -> Floats:
        """Sums of a row of a table (n,) by part."""
        return np.asarray(np.bincount(self.of, values, len(self.ids)), dtype=float)


@keep(most=4)
def owners_of(ids: tuple[str, ...]) -> Owners:
    """What of a table is one part: itself and its contents."""
    columns = columns_of(ids)
    owner = np.zeros(len(ids), dtype=int)
    for k, of in enumerate(columns.values()):
        owner[list(of)] = k
    return Owners(tuple(columns), owner, tuple([of[0] for of in columns.values()]))


# Level of each kind of contents in the standing cases.
_LEVELS: dict[str, tuple[str, dict[str, float]]] = {
    "going-out": ("Going out", {"fresh": 1.0, "gas": 1.0, "petrol": 1.0, "diesel": 1.0}),
    "coming-home": ("Coming home", {"grey": 1.0, "black": 1.0, "urine": 1.0, "solids": 1.0, "gas": 0.5, "petrol": 0.5, "diesel": 0.5}),
    "all-full": ("All full", dict.fromkeys(DENSITY, 1.0)),
    "all-empty": ("All empty", {}),
    "gas-low": ("Gas low", {"fresh": 1.0, "gas": 0.1, "petrol": 1.0, "diesel": 1.0}),
}


class Case(msgspec.Struct, frozen=True):
    """A load case with what it is in words, and the names of cases that weigh the same."""

    case: LoadCase
    mode: Mode
    says: str
    same_as: tuple[str, ...] = ()

    @property
    def id(self) -> str:
        """That of its load case."""
        return self.case.id

    @property
    def name(self) -> str:
        """That of its load case."""
        return self.case.name


class MassTable(msgspec.Struct, frozen=True):
    """Every mass in every case. Rows are cases (c), columns masses (n): parts, then contents.

    mass_kg, x_m, y_m, z_m, sigma_kg have shape (c, n); sigma_x_m shape (n,); bias maps a
    material group to its columns; learnt: columns that are wrong together, each by a share of its mass, one sigma.
    """

    cases: tuple[Case, ...]
    ids: tuple[str, ...]
    names: tuple[str, ...]
    groups: tuple[str, ...]
    mass_kg: Floats
    x_m: Floats
    y_m: Floats
    z_m: Floats
    sigma_kg: Floats
    sigma_x_m: Floats
    bias: tuple[tuple[str, tuple[int, ...]], ...]
    learnt: tuple[tuple[tuple[int, ...], tuple[float, ...]], ...] = ()

    def together(self) -> list[tuple[list[int], Floats]]:
        """Columns that are wrong together, with the share of their masses: groups of a material, and what tickets left."""
        made = [(list(columns), np.full(len(columns), SHARED_BIAS)) for _, columns in self.bias]
        return [*made, *((list(columns), np.array(shares)) for columns, shares in self.learnt)]

    def row(self, case_id: str) -> int:
        """Row of a case. Raises: StopIteration: no such case."""
        return next(at for at, case in enumerate(self.cases) if case.id == case_id)


@keep(most=8)
def standing_cases(build: Build) -> tuple[LoadCase, ...]:
    """The builder's cases after the standing ones; towing cases first, camp after them."""
    towing = [mode for mode in build.stow.modes if mode.towing]
    road = next((mode for mode in towing if mode.id == "road"), towing[0] if towing else None)
    own = {case.id: case for case in build.stow.cases}
    made: list[LoadCase] = []
    if road:
        made += [_made(build, key, name, road.id, levels) for key, (name, levels) in _LEVELS.items()]
        made += [_made(build, mode.id, mode.name, mode.id, _LEVELS["going-out"][1]) for mode in towing if mode.id != road.id]
        made.append(LoadCase("for-sale", "For sale", road.id, "as built"))
        made.append(LoadCase("bare-shell", "Bare shell", road.id, "bare shell"))
    made += [_made(build, mode.id, mode.name, mode.id, _LEVELS["going-out"][1]) for mode in build.stow.modes if not mode.towing]
    standing = [own.pop(case.id, case) for case in made]
    at = next((i for i, case in enumerate(standing) if not _towing(build, case)), len(standing))
    return tuple(standing[:at]) + tuple(own.values()) + tuple(standing[at:])


def is_own(build: Build, case: LoadCase) -> bool:
    """Whether the builder made or changed a case."""
    return any(each_case.id == case.id for each_case in build.stow.cases)


def is_standing(build: Build, case_id: str) -> bool:
    """Whether there is a case of this id without the builder's own."""
    return case_id in {*_LEVELS, "for-sale", "bare-shell", *(mode.id for mode in build.stow.modes)}


def _towing(build: Build, case: LoadCase) -> bool:
    return next((mode.towing for mode in build.stow.modes if mode.id == case.mode), True)


def _made(build: Build, key: str, name: str, mode: str, by_contents: dict[str, float]) -> LoadCase:
    levels = tuple(Level(t.id, by_contents.get(t.tank.contents, 0.0)) for t in build.stow.things if t.tank)
    return LoadCase(key, name, mode, "loaded", levels)


def _aboard(
    _parts: tuple[Part, ...],
    is_thing: Bools,
    is_base: Bools,
    is_cargo: Bools,
    in_car: Bools,
    case: LoadCase,
    mode: Mode,
    column_of: dict[str, int],
) -> Bools:
    """Which parts ride in a case, shape (parts,): by its stage, then the mode's absent things, then what the case says itself."""
    built, loaded = case.stage != "bare shell", case.stage == "loaded"
    on = np.where(is_thing, built & (loaded | ~is_cargo), is_base | built)
    if mode.towing:
        on &= ~in_car
    for id in mode.absent:
        if id in column_of:
            on[column_of[id]] = False
    for said in case.aboard:
        if said.id in column_of:
            on[column_of[said.id]] = said.aboard and not (mode.towing and in_car[column_of[said.id]])
    return on


@lru_cache(maxsize=512)
def in_words(case: LoadCase, tanks: tuple[tuple[str, str], ...]) -> str:
    """What sets the case apart, for a heading. Args: tanks: id and contents of every tank."""
    if case.stage == "bare shell":
        return "frame and body, nothing in it"
    if case.stage == "as built":
        return "no cargo, tanks empty"
    kinds: dict[str, list[float]] = {}
    levels = {lv.id: lv.level for lv in case.levels}
    for id, contents in tanks:
        kinds.setdefault(contents, []).append(levels.get(id, 0.0))
    words = [_level_words(kind, sum(at) / len(at)) for kind, at in kinds.items()]
    return ", ".join(words[:3]) if words else "loaded"


def _level_words(kind: str, level: float) -> str:
    share = "full" if level >= 0.995 else "empty" if level <= 0.005 else f"{level:.0%}".replace("%", " %")
    return f"{kind} {share}"


class _Laid(msgspec.Struct, frozen=True):
    """Every case's row before those that weigh the same are taken together, and what it was laid from."""

    build: Build
    parts: tuple[Part, ...]
    cases: tuple[LoadCase, ...]
    modes: tuple[Mode, ...]  # of each case
    says: tuple[str, ...]
    first: int  # column of the first thing
    tank_at: NDArray[np.int_]
    tank_column: dict[str, int]
    levels: Floats
    on: Bools
    mass: Floats
    x: Floats
    y: Floats
    z: Floats
    sigma: Floats
    sigma_x: Floats
    ids: tuple[str, ...]
    names: tuple[str, ...]
    groups: tuple[str, ...]
    bias: tuple[tuple[str, tuple[int, ...]], ...]


AROUND = 8  # moved things up to which only their columns are laid again


@keep(most=4)
def mass_table(build: Build, parts: tuple[Part, ...]) -> MassTable:
    """Masses, places and doubts of every case of the build. Source: first principles."""
    laid = _laid(build, parts)
    kept, same = _once(laid)
    cases = laid.cases
    described = tuple([Case(cases[r], laid.modes[r], laid.says[r], tuple([cases[s].name for s in same[r]])) for r in kept])
    return MassTable(
        described,
        laid.ids,
        names=laid.names,
        groups=laid.groups,
        mass_kg=laid.mass[kept],
        x_m=laid.x[kept],
        y_m=laid.y[kept],
        z_m=laid.z[kept],
        sigma_kg=laid.sigma[kept],
        sigma_x_m=laid.sigma_x,
        bias=laid.bias,
    )


def _stand_in(laid: _Laid, row: int, mode: Mode, thing: Thing, spot: int) -> None:
    """Lay a thing where a mode puts it."""
    stand = stand_of(thing, mode)
    there = part_of_thing(thing, stand)
    if thing.cabinet is not None:
        there = _carried(thing, laid.parts[spot], there, stand)
    laid.x[row, spot], laid.y[row, spot], laid.z[row, spot] = there.x_m, there.y_m, there.z_m
    tank = laid.tank_column.get(thing.id)
    if not mode.towing and stand.z < ON_GROUND_M:  # set up beside the rig, it stands on its own feet
        laid.mass[row, spot] = laid.sigma[row, spot] = 0.0
        if tank is not None:
            laid.mass[row, tank] = laid.sigma[row, tank] = 0.0
    if there.contents is not None and tank is not None:
        level = laid.levels[row, tank - len(laid.parts)]
        laid.x[row, tank], laid.y[row, tank], laid.z[row, tank] = there.contents.centres_m(level)


def _carried(thing: Thing, home: Part, there: Part, stand: Stand) -> Part:
    """Where the centre of what is made of boards goes with it: as far from the box's middle as at home, turned along."""
    at = home_of(thing)
    dx, dy = home.x_m - at.x - at.size[0] / 2, home.y_m - at.y
    turn = math.radians(stand.turn - at.turn)
    return msgspec.structs.replace(
        there,
        x_m=stand.x + stand.size[0] / 2 + dx * math.cos(turn) - dy * math.sin(turn),
        y_m=stand.y + dx * math.sin(turn) + dy * math.cos(turn),
        z_m=stand.z + home.z_m - at.z,
    )


def _moved(old: _Laid, build: Build, parts: tuple[Part, ...]) -> list[int] | None:
    """Places in their list of those things that only stand elsewhere; None where more has changed, or too many."""
    was, now = old.build.stow, build.stow
    if now.cases is not was.cases or len(parts) != len(old.parts) or len(now.things) != len(was.things):
        return None
    if len(now.modes) != len(was.modes) or _head_moved(old, parts) is None:
        return None
    moved = places_changed(was.things, now.things)
    if len(moved) > AROUND:
        return None
    for at in moved:
        a, b = was.things[at], now.things[at]
        if a.tank is not b.tank or a.rides != b.rides or _weighs(old.parts[old.first + at]) != _weighs(parts[old.first + at]):
            return None
    elsewhere: set[str] = set()
    for m, n in zip(was.modes, now.modes, strict=True):
        if m is n:
            continue
        if (m.id, m.name, m.towing, m.absent, m.states) != (n.id, n.name, n.towing, n.absent, n.states):
            return None
        kept = {id(place) for place in m.places} & {id(place) for place in n.places}
        elsewhere |= {place.id for place in (*m.places, *n.places) if id(place) not in kept}
    if elsewhere:
        moved = [at for at, thing in enumerate(now.things) if at in moved or thing.id in elsewhere]
    return moved if len(moved) <= AROUND else None


def _head_moved(old: _Laid, parts: tuple[Part, ...]) -> list[int] | None:
    """Columns of wires that a move made longer or shorter; None where frame or body are others, or other wires are there."""
    changed = [at for at in range(old.first) if old.parts[at] is not parts[at]]
    for at in changed:
        a, b = old.parts[at], parts[at]
        if a.id != b.id or a.name != b.name or not (a.made_by == b.made_by and b.made_by.startswith(MADE_BY)):
            return None
    return changed


def _weighs(part: Part) -> tuple[object, ...]:
    """Everything of a part but its place."""
    held = part.contents and (part.contents.kind, part.contents.full_kg)
    what = (part.id, part.name, part.group, part.made_by, part.source, part.mass_kg)
    return (*what, part.station_sigma_m, part.bias_group, part.cargo, part.base, held)


def _laid_again(old: _Laid, build: Build, parts: tuple[Part, ...]) -> _Laid | None:
    """The rows with the columns of what moved laid anew; None where more has changed."""
    moved = _moved(old, build, parts)
    if moved is None:
        return None
    modes = {mode.id: mode for mode in build.stow.modes}
    laid = msgspec.structs.replace(
        old,
        build=build,
        parts=parts,
        modes=tuple([modes.get(case.mode, build.stow.modes[0]) for case in old.cases]),
        mass=old.mass.copy(),
        x=old.x.copy(),
        y=old.y.copy(),
        z=old.z.copy(),
        sigma=old.sigma.copy(),
    )
    for at in _head_moved(old, parts) or ():
        part, aboard = parts[at], laid.on[:, at]
        laid.x[:, at], laid.y[:, at], laid.z[:, at] = part.x_m, part.y_m, part.z_m
        laid.mass[:, at], laid.sigma[:, at] = part.mass_kg * aboard, part.sigma_kg * aboard
    touching = [(row, mode, mode.touched) for row, mode in enumerate(laid.modes) if mode.places or mode.states]
    for at in moved:
        thing, spot = build.stow.things[at], old.first + at
        part, aboard = parts[spot], laid.on[:, spot]
        laid.x[:, spot], laid.y[:, spot], laid.z[:, spot] = part.x_m, part.y_m, part.z_m
        laid.mass[:, spot], laid.sigma[:, spot] = part.mass_kg * aboard, part.sigma_kg * aboard
        tank = laid.tank_column.get(thing.id)
        if tank is not None and part.contents is not None:
            full, levels = part.contents.full_kg, laid.levels[:, tank - len(parts)]
            laid.mass[:, tank], laid.sigma[:, tank] = full * levels, CONTENTS_SHARE * full * (levels > 0)
            laid.x[:, tank], laid.y[:, tank], laid.z[:, tank] = part.contents.centres_m(levels)
        for row, mode, touched in touching:
            if thing.id in touched:
                _stand_in(laid, row, mode, thing, spot)
    return laid


@from_last(_laid_again)
def _laid(build: Build, parts: tuple[Part, ...]) -> _Laid:
    cases = standing_cases(build)
    modes = {mode.id: mode for mode in build.stow.modes}
    columns = len(parts)
    tanks = [(at, part) for at, part in enumerate(parts) if part.contents]
    c = len(cases)
    tank_at = np.array([at for at, _ in tanks], dtype=int)
    home = np.array([(p.mass_kg, p.x_m, p.y_m, p.z_m, p.sigma_kg, p.station_sigma_m) for p in parts]).reshape(-1, 6)
    mass, x, y, z = (np.repeat(np.concatenate([home[:, k], home[tank_at, k]])[None, :], c, axis=0) for k in range(4))
    sigma = np.repeat(np.concatenate([home[:, 4], np.zeros(len(tanks))])[None, :], c, axis=0)
    sigma_x = np.concatenate([home[:, 5], np.full(len(tanks), PLACED_M)])
    column_of = {part.id: at for at, part in enumerate(parts)}
    tank_column = {part.id: columns + k for k, (_, part) in enumerate(tanks)}
    things = {thing.id: thing for thing in build.stow.things}
    full = np.array([p.contents.full_kg for _, p in tanks if p.contents])
    bottom = np.array([p.contents.bottom_m for _, p in tanks if p.contents])
    tall = np.array([p.contents.height_m for _, p in tanks if p.contents])
    is_thing = np.array([p.made_by.startswith("stow.") for p in parts], dtype=bool)
    is_base = np.array([p.base for p in parts], dtype=bool)
    is_cargo = np.array([p.cargo for p in parts], dtype=bool)
    in_car = np.array([p.id in things and bool(things[p.id].rides) for p in parts], dtype=bool)
    middle = np.array([(p.contents.middle_x_m, p.contents.middle_y_m) for _, p in tanks if p.contents]).reshape(-1, 2)
    x[:, columns:], y[:, columns:] = middle[:, 0], middle[:, 1]
    shaped = [k for k, (_, p) in enumerate(tanks) if p.contents and p.contents.centres]
    placed = tuple([modes.get(case.mode, build.stow.modes[0]) for case in cases])
    on = np.array(
        [_aboard(parts, is_thing, is_base, is_cargo, in_car, case, mode, column_of) for case, mode in zip(cases, placed, strict=True)],
        dtype=bool,
    ).reshape(c, columns)
    levels = np.zeros((c, len(tanks)))
    for row, case in enumerate(cases):
        for lv in case.levels:
            if lv.id in tank_column:
                levels[row, tank_column[lv.id] - columns] = lv.level
    levels = np.clip(levels, 0.0, 1.0) * on[:, tank_at]
    mass[:, :columns] *= on
    sigma[:, :columns] *= on
    mass[:, columns:] = full * levels
    sigma[:, columns:] = CONTENTS_SHARE * full * (levels > 0)
    z[:, columns:] = bottom + tall * levels / 2
    for k in shaped:
        held = tanks[k][1].contents
        if held is not None:
            x[:, columns + k], y[:, columns + k], z[:, columns + k] = held.centres_m(levels[:, k])
    groups: dict[str, list[int]] = {}
    for at, part in enumerate(parts):
        if part.bias_group:
            groups.setdefault(part.bias_group, []).append(at)
    kinds = tuple((t.id, t.tank.contents) for t in build.stow.things if t.tank)
    laid = _Laid(
        build,
        parts,
        cases=cases,
        modes=placed,
        says=tuple([in_words(case, kinds) for case in cases]),
        first=columns - len(build.stow.things),
        tank_at=tank_at,
        tank_column=tank_column,
        levels=levels,
        on=on,
        mass=mass,
        x=x,
        y=y,
        z=z,
        sigma=sigma,
        sigma_x=sigma_x,
        ids=tuple(p.id for p in parts) + tuple(f"{p.id}/contents" for _, p in tanks),
        names=tuple(p.name for p in parts) + tuple(p.name for _, p in tanks),
        groups=tuple(p.group for p in parts) + tuple(p.group for _, p in tanks),
        bias=tuple((g, tuple(at)) for g, at in groups.items()),
    )
    for row, mode in enumerate(placed):
        for id in mode.touched & things.keys() & column_of.keys():
            _stand_in(laid, row, mode, things[id], column_of[id])
    return laid


def _once(laid: _Laid) -> tuple[list[int], dict[int, list[int]]]:
    """Rows that differ in mass or place, and those that are the same as each."""
    kept: list[int] = []
    same: dict[int, list[int]] = {}
    seen: dict[tuple[bool, bytes], int] = {}
    there = laid.mass != 0
    rows = np.concatenate([laid.mass, laid.x * there, laid.y * there], axis=1)
    for row, mode in enumerate(laid.modes):
        key = (mode.towing, rows[row].tobytes())
        if key in seen:
            same[seen[key]].append(row)
        else:
            seen[key] = row
            kept.append(row)
            same[row] = []
    return kept, same
