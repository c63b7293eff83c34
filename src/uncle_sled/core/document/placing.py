"""Edits of where things stand: at home, or in the mode that is shown."""

from __future__ import annotations

from uncle_sled.core.document.edits import Op, add_to, remove, set_to
from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Mode, Thing

Spot = tuple[float, float, float]


def is_home(build: Build, mode: Mode) -> bool:
    """Whether places of this mode are the things' own: the first towing mode is home."""
    towing = [m for m in build.stow.modes if m.towing]
    return mode.id == (towing[0] if towing else build.stow.modes[0]).id


def spot_of(thing: Thing, mode: Mode) -> tuple[Spot, int]:
    """Front edge, middle and underside [m] of a thing in a mode, and its turn."""
    for place in mode.places:
        if place.id == thing.id:
            return (place.x.si, place.y.si, place.z.si), place.turn
    return (thing.x.si, thing.y.si, thing.z.si), thing.turn


def place_ops(build: Build, mode: Mode, thing: Thing, spot: Spot, turn: int | None = None) -> list[Op]:
    """Ops that put a thing at a spot in a mode; what does not change keeps the words it was typed in."""
    (x, y, z), turned = spot_of(thing, mode)
    turn = turned if turn is None else turn
    new = {"x": (x, round(spot[0], 4)), "y": (y, round(spot[1], 4)), "z": (z, round(spot[2], 4))}
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


def delete_ops(build: Build, ids: tuple[str, ...]) -> list[Op]:
    """Ops that take things out of the build, and out of every mode and case that names them."""
    ops: list[Op] = []
    gone = set(ids)
    for mode in build.stow.modes:
        ops += [remove(f"stow.modes.{mode.id}.places.{place.id}") for place in mode.places if place.id in gone]
        if gone & set(mode.absent):
            ops.append(set_to(f"stow.modes.{mode.id}.absent", [id for id in mode.absent if id not in gone]))
    for case in build.stow.cases:
        ops += [remove(f"stow.cases.{case.id}.levels.{level.id}") for level in case.levels if level.id in gone]
        ops += [remove(f"stow.cases.{case.id}.aboard.{one.id}") for one in case.aboard if one.id in gone]
    return ops + [remove(f"stow.things.{id}") for id in ids if any(t.id == id for t in build.stow.things)]
