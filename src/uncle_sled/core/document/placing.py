"""Edits of where things stand: at home, or in the mode that is shown."""

from __future__ import annotations

from collections.abc import Iterable

import msgspec

from uncle_sled.core.document.edits import Op, add_to, remove, set_to
from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Mode, State, Stow, Thing

Spot = tuple[float, float, float]


def is_home(build: Build, mode: Mode) -> bool:
    """Whether places of this mode are the things' own: the first towing mode is home."""
    towing = [m for m in build.stow.modes if m.towing]
    return mode.id == (towing[0] if towing else build.stow.modes[0]).id


class Stand(msgspec.Struct, frozen=True):
    """How a thing stands in a mode [m]: front edge, middle, underside, turn, size along x, y, z, and its state."""

    x: float
    y: float
    z: float
    turn: int
    size: tuple[float, float, float]
    state: str | None = None

    @property
    def spot(self) -> Spot:
        """Front, middle across and foot [m] from the ball and the ground."""
        return self.x, self.y, self.z

    @property
    def corners(self) -> tuple[Spot, Spot]:
        """The low and the high corner of its box [m]."""
        low = (self.x, self.y - self.size[1] / 2, self.z)
        return low, (low[0] + self.size[0], low[1] + self.size[1], low[2] + self.size[2])


def stand_of(thing: Thing, mode: Mode) -> Stand:
    """Where and how a thing stands in a mode. A state that is not there any more counts as the thing as it is."""
    place = next((place for place in mode.places if place.id == thing.id), None)
    at = place or thing
    x, y, z, turn = at.x.si, at.y.si, at.z.si, at.turn
    state = state_in(thing, mode)
    size = (thing.length.si, thing.width.si, thing.height.si)
    if state is not None:
        size = (state.length.si, state.width.si, state.height.si)
        dx, dy, dz = offset_of(state)
        x, y, z = x + dx, y + dy, z + dz
    if turn % 180:
        size = (size[1], size[0], size[2])
    return Stand(x, y, z, turn, size, state.id if state else None)


def state_in(thing: Thing, mode: Mode) -> State | None:
    """The state that a mode puts a thing in; None as it is."""
    if not thing.states or not mode.states:
        return None
    wanted = next((state.state for state in mode.states if state.id == thing.id), None)
    return next((state for state in thing.states if state.id == wanted), None)


def is_bed(thing: Thing, mode: Mode) -> bool:
    """Whether one sleeps on it in a mode: a bed, or what is turned into one."""
    state = state_in(thing, mode)
    return thing.kind == "bed" if state is None else thing.kind == "bed" or state.bed


def offset_of(state: State | None) -> Spot:
    """How far a state moves its thing from its place [m]."""
    if state is None:
        return 0.0, 0.0, 0.0
    return tuple(d.si if d else 0.0 for d in (state.dx, state.dy, state.dz))  # type: ignore[return-value]


def spot_of(thing: Thing, mode: Mode) -> tuple[Spot, int]:
    """Front edge, middle and underside [m] of a thing as it stands in a mode, and its turn."""
    stand = stand_of(thing, mode)
    return stand.spot, stand.turn


def with_inner(stow: Stow, ids: Iterable[str]) -> tuple[str, ...]:
    """The ids and those of everything that is built into or stands in them, at whatever depth."""
    found = dict.fromkeys(ids)
    more = True
    while more:
        more = False
        for thing in stow.things:
            if thing.inside in found and thing.id not in found:
                found[thing.id] = None
                more = True
    return tuple(found)


def state_ops(mode: Mode, thing: Thing, state: str | None) -> list[Op]:
    """Ops that put a thing into one of its states in a mode; None: as it is."""
    path = f"stow.modes.{mode.id}.states"
    ops = [remove(f"{path}.{thing.id}")] if any(state.id == thing.id for state in mode.states) else []
    return ops + ([add_to(path, {"id": thing.id, "state": state})] if state else [])


def rolled_out(build: Build, thing: Thing) -> list[Op]:
    """Ops for a new thing that has another form only outside, an awning or a roof tent: it is out where one camps."""
    if thing.kind != "outside carrier" or len(thing.states) != 1:
        return []
    standing = [mode for mode in build.stow.modes if not mode.towing]
    return [op for mode in standing for op in state_ops(mode, thing, thing.states[0].id)]


def place_ops(build: Build, mode: Mode, thing: Thing, spot: Spot, turn: int | None = None) -> list[Op]:
    """Ops that put a thing at a spot in a mode; what does not change keeps the words it was typed in."""
    (x, y, z), turned = spot_of(thing, mode)
    dx, dy, dz = offset_of(state_in(thing, mode))
    turn = turned if turn is None else turn
    new = {"x": (x - dx, round(spot[0] - dx, 4)), "y": (y - dy, round(spot[1] - dy, 4)), "z": (z - dz, round(spot[2] - dz, 4))}
    if is_home(build, mode):
        ops = [
            set_to(f"stow.things.{thing.id}.{axis}", {"si": after, "typed": None})
            for axis, (before, after) in new.items()
            if abs(after - before) > 1e-9
        ]
        return ops + ([set_to(f"stow.things.{thing.id}.turn", turn)] if turn != turned else [])
    path = f"stow.modes.{mode.id}.places"
    record = {"id": thing.id, **{axis: {"si": after, "typed": None} for axis, (_, after) in new.items()}, "turn": turn}
    if any(place.id == thing.id for place in mode.places):
        return [remove(f"{path}.{thing.id}")] + ([] if _at_home(thing, record, turn) else [add_to(path, record)])
    return [] if _at_home(thing, record, turn) else [add_to(path, record)]


def _at_home(thing: Thing, record: dict[str, object], turn: int) -> bool:
    return turn == thing.turn and all(abs(record[a]["si"] - getattr(thing, a).si) < 1e-9 for a in ("x", "y", "z"))  # type: ignore[index]


LEAST_AXLE_M = 0.1


def gone_in(stow: Stow, mode: Mode) -> frozenset[str]:
    """Things that are not on the rig in a mode: left out of it, or riding in the car."""
    riding = [thing.id for thing in stow.things if thing.rides] if mode.towing else []
    return frozenset((*mode.absent, *riding)) if riding else frozenset(mode.absent)


def axle_shift_ops(build: Build, by_m: float) -> list[Op]:
    """Ops that shift the whole axle group along the frame [m], the foremost never nearer than 0.1 m to the ball."""
    axles = build.rig.axles
    if not axles:
        return []
    by_m = max(by_m, LEAST_AXLE_M - min(axle.station.si for axle in axles))
    weighed = []
    if build.rig.base == "as bought" and build.rig.bought_axle is None and abs(by_m) > 1e-9:
        # the weighing was made with the axles where they stand now; the centre it found stays when they move
        middle = sum(axle.station.si for axle in axles) / len(axles)
        weighed = [set_to("rig.bought_axle", {"si": round(middle, 6), "typed": None})]
    return weighed + [
        set_to(f"rig.axles.{axle.id}.station", {"si": round(axle.station.si + by_m, 4), "typed": None})
        for axle in axles
        if abs(by_m) > 1e-9
    ]


def longer_drawbar_ops(build: Build, by_m: float) -> list[Op]:
    """Ops that set the whole trailer further behind the ball [m]: axles, body, things, and where they stand in other modes."""
    rig = build.rig
    paths = [(f"rig.axles.{axle.id}.station", axle.station.si) for axle in rig.axles]
    paths += [
        (f"rig.{name}", getattr(rig, name).si)
        for name in ("frame_length", "drawbar_length", "frame_cg", "stabiliser_station", "bought_axle", "frame_mended")
        if getattr(rig, name) is not None
    ]
    if build.shell.front is not None:
        paths.append(("shell.front", build.shell.front.si))
    paths += [(f"shell.faces.{face.id}.weight_at", face.weight_at.si) for face in build.shell.faces if face.weight_at is not None]
    body = build.shell.front.si if build.shell.front is not None else (rig.drawbar_length.si if rig.drawbar_length else 0.0)
    behind = {thing.id for thing in build.stow.things if not thing.rides and thing.x.si >= body - LEAST_AXLE_M}
    paths += [(f"stow.things.{thing.id}.x", thing.x.si) for thing in build.stow.things if thing.id in behind]
    paths += [
        (f"stow.modes.{mode.id}.places.{place.id}.x", place.x.si)
        for mode in build.stow.modes
        for place in mode.places
        if place.id in behind or place.x.si >= body
    ]
    return [set_to(path, {"si": round(value + by_m, 4), "typed": None}) for path, value in paths]


def delete_ops(build: Build, ids: tuple[str, ...]) -> list[Op]:
    """Ops that take things out of the build, and out of every mode and case that names them."""
    ops: list[Op] = []
    gone = set(ids)
    for mode in build.stow.modes:
        ops += [remove(f"stow.modes.{mode.id}.places.{place.id}") for place in mode.places if place.id in gone]
        if gone & set(mode.absent):
            ops.append(set_to(f"stow.modes.{mode.id}.absent", [id for id in mode.absent if id not in gone]))
        ops += [remove(f"stow.modes.{mode.id}.states.{state.id}") for state in mode.states if state.id in gone]
    ops += [set_to(f"stow.things.{t.id}.inside", None) for t in build.stow.things if t.inside in gone and t.id not in gone]
    ops += [remove(f"stow.arranging.locked.{place.id}") for place in build.stow.arranging.locked if place.id in gone]
    for case in build.stow.cases:
        ops += [remove(f"stow.cases.{case.id}.levels.{level.id}") for level in case.levels if level.id in gone]
        ops += [remove(f"stow.cases.{case.id}.aboard.{aboard.id}") for aboard in case.aboard if aboard.id in gone]
    return ops + [remove(f"stow.things.{id}") for id in ids if any(t.id == id for t in build.stow.things)]


def on_roof(thing: Thing) -> bool:
    """Solar panels, and what rides on the roof by its role: a box, a tent."""
    return thing.outside and (thing.kind == "solar" or "rides on the roof" in thing.roles)
