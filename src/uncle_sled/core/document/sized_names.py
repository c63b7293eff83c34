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
from uncle_sled.core.sameness import places_anew


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
    new = places_anew(before.stow.things, build.stow.things)
    ids = {build.stow.things[at].id for at in new}
    were = {thing.id: thing for thing in before.stow.things if thing.id in ids}
    renamed = [(at, again) for at in new if (again := _renamed(thing := build.stow.things[at], were.get(thing.id))) is not thing]
    if not renamed:
        return build
    things = list(build.stow.things)
    for at, thing in renamed:
        things[at] = thing
    return replace(build, stow=replace(build.stow, things=tuple(things)))


def _renamed(thing: Thing, before: Thing | None) -> Thing:
    if before is None or before is thing or before.name != thing.name:
        return thing
    name = sized_name(thing.name, before, thing)
    return thing if name == thing.name else replace(thing, name=name)
