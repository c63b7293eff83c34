"""A changed size changes the name that tells it: a tank of 80 L is not called "Fresh tank 70 L".

No fact is taken from a name: where the number of a figure stands in it with its unit, and the figure changes, the number goes
along. A name that tells another number, or was changed by the same hand, stays as it is.
"""

from __future__ import annotations

import re
from collections.abc import Iterator

from msgspec.structs import replace

from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.sameness import places_changed


def sizes_told(thing: Thing) -> Iterator[tuple[str, float | None]]:
    """Figures that a name may tell: unit, and value in it; None where nothing is said. Each figure stands at the same place for all."""
    f, tank = thing.figures, thing.tank
    yield "L", tank.volume.si * 1000 if tank is not None and tank.volume is not None else None
    yield "Ah", f.amp_hours if f is not None else None
    yield "kWh", f.store_wh / 1000 if f is not None and f.store_wh is not None else None
    yield "W", f.solar_wp if f is not None else None
    yield "W", f.power_w if f is not None else None
    yield "kW", f.power_w / 1000 if f is not None and f.power_w is not None else None
    yield "m", thing.length.si


def sized_name(name: str, before: Thing, after: Thing) -> str:
    """The name of a thing after its figures changed."""
    for (unit, old), (_, new) in zip(sizes_told(before), sizes_told(after), strict=True):
        if old is not None and new is not None and new != old:
            name = re.sub(
                rf"(?<![\w.,]){re.escape(f'{old:.4g}')} {unit}(?!\w)", f"{new:.3g} {unit}" if new < 1000 else f"{new:.0f} {unit}", name
            )
    return name


def with_sized_names(build: Build, before: Build) -> Build:
    """The build with the names of things whose size changed since, told by them; the same object where none did."""
    if build.stow.things is before.stow.things:
        return build
    renamed = [
        (at, again) for at, thing, was in _others(build.stow.things, before.stow.things) if (again := _renamed(thing, was)) is not thing
    ]
    if not renamed:
        return build
    things = list(build.stow.things)
    for at, thing in renamed:
        things[at] = thing
    return replace(build, stow=replace(build.stow, things=tuple(things)))


def _others(now: tuple[Thing, ...], before: tuple[Thing, ...]) -> list[tuple[int, Thing, Thing | None]]:
    """Things that are not the same objects as before: place, thing, and what it was."""
    if len(now) == len(before):
        places = places_changed(before, now)
        if all(now[at].id == before[at].id for at in places):
            return [(at, now[at], before[at]) for at in places]
    same = set(map(id, before))
    new = [(at, thing) for at, thing in enumerate(now) if id(thing) not in same]
    ids = {thing.id for _, thing in new}
    were = {thing.id: thing for thing in before if thing.id in ids}
    return [(at, thing, were.get(thing.id)) for at, thing in new]


def _renamed(thing: Thing, before: Thing | None) -> Thing:
    if before is None or before is thing or before.name != thing.name:
        return thing
    name = sized_name(thing.name, before, thing)
    return thing if name == thing.name else replace(thing, name=name)
