"""What is joined to what by wire, hose or gas pipe, and how far apart: along the axes, as they are laid."""

from __future__ import annotations

from collections.abc import Iterator

import msgspec

from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Thing

WATER, SINK = ("fresh", "grey"), {"tap or sink", "pumps water", "pumps by foot", "shower", "warms water"}
STORES = ("battery", "station")


class Join(msgspec.Struct, frozen=True):
    """Two things, or a thing and a place [m] where a device sits. battery: one of them stores current."""

    a: str
    b: str
    at_m: tuple[float, float, float] | None
    kind: str  # wire, hose or gas
    battery: bool = False


def joins_of(build: Build) -> tuple[Join, ...]:
    """Everything that is joined, each pair once; what ends where nobody said is left out."""
    seen: dict[tuple[str, str, str], Join] = {}
    for join in (*_wires(build), *_hoses(build), *_pipes(build)):
        seen.setdefault((*sorted((join.a, join.b)), join.kind), join)  # type: ignore[arg-type]
    return tuple(seen.values())


def _aboard(build: Build) -> list[Thing]:
    return [thing for thing in build.stow.things if not thing.taken_out and not thing.rides]


def _wires(build: Build) -> Iterator[Join]:
    things = {thing.id: thing for thing in _aboard(build)}
    places = {device.id: (device.x.si, device.y.si, device.z.si) for device in build.systems.devices}
    places |= {load.id: (load.x.si, load.y.si, load.z.si) for load in build.systems.loads if load.x and load.y and load.z}
    stores = {id for id, thing in things.items() if thing.figures is not None and thing.figures.unit in STORES}
    for wire in build.systems.wires:
        for a, b in ((wire.start, wire.end), (wire.end, wire.start)):
            if a in things and b in things:
                yield Join(a, b, None, "wire", a in stores or b in stores)
                break
            if a in things and b in places:
                yield Join(a, b, places[b], "wire", a in stores)
                break


def _hoses(build: Build) -> Iterator[Join]:
    things = _aboard(build)
    taps = [thing for thing in things if SINK & {*thing.roles}]
    for tank in things:
        if tank.tank is not None and tank.tank.contents in WATER and not tank.tank.carried:
            for tap in taps:
                yield Join(tank.id, tap.id, None, "hose")


def _pipes(build: Build) -> Iterator[Join]:
    things = _aboard(build)
    burners = [thing for thing in things if thing.burns == "gas"]
    for cylinder in things:
        if cylinder.tank is not None and cylinder.tank.contents == "gas":
            for burner in burners:
                yield Join(cylinder.id, burner.id, None, "gas")
