"""One part for each thing, at home; modes move it and load cases fill it."""

from __future__ import annotations

import math
from functools import lru_cache

from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.parts.part import DENSITY, Contents, Group, Part, unknown_cg_sigma_m

GROUP_OF_KIND: dict[str, Group] = {
    "battery": "power",
    "solar": "power",
    "charger": "power",
    "appliance": "kit",
    "cabinet": "kit",
    "bed": "kit",
    "kit": "kit",
    "furniture": "kit",
    "gear": "cargo",
    "vehicle aboard": "cargo",
    "outside carrier": "outside",
    "spare wheel": "outside",
}
GROUP_OF_CONTENTS: dict[str, Group] = {
    "fresh": "fresh",
    "grey": "grey",
    "black": "grey",
    "gas": "gas",
    "petrol": "fuel",
    "diesel": "fuel",
}


def group_of(thing: Thing) -> Group:
    return GROUP_OF_CONTENTS[thing.tank.contents] if thing.tank else GROUP_OF_KIND.get(thing.kind, "kit")


def standing_size_m(thing: Thing, turn: int) -> tuple[float, float, float]:
    """Size along x, y, z as the thing stands after its turn [m]."""
    length, width = thing.length.si, thing.width.si
    return (length, width, thing.height.si) if turn % 180 == 0 else (width, length, thing.height.si)


def _si(q: Length | None) -> float:
    return q.si if q else 0.0


def part_of_thing(
    thing: Thing, x_m: float | None = None, y_m: float | None = None, z_m: float | None = None, turn: int | None = None
) -> Part:
    """The thing as a part, at home or at the place given (front edge, middle, underside)."""
    turn = thing.turn if turn is None else turn
    size = standing_size_m(thing, turn)
    x, y, z = (
        (thing.x.si if x_m is None else x_m),
        (thing.y.si if y_m is None else y_m),
        (thing.z.si if z_m is None else z_m),
    )
    dx, dy = _si(thing.cg_dx), _si(thing.cg_dy)
    angle = math.radians(turn)
    known = thing.cg_dx is not None or thing.tank is not None
    contents = None
    if thing.tank and thing.tank.volume and thing.tank.volume.si > 0:
        volume = thing.tank.volume.si
        contents = Contents(thing.tank.contents, volume * DENSITY[thing.tank.contents], volume, z, size[2])
    return Part(
        thing.id,
        thing.name,
        group_of(thing),
        f"stow.things.{thing.id}",
        thing.source,
        -thing.mass.si if thing.taken_out else thing.mass.si,
        x + size[0] / 2 + dx * math.cos(angle) - dy * math.sin(angle),
        y + dx * math.sin(angle) + dy * math.cos(angle),
        z + size[2] / 2 + _si(thing.cg_dz),
        size,
        unknown_cg_sigma_m(size[0], known),
        None,
        contents,
        thing.cargo,
    )


class _Holder:
    """Keeps a thing by identity, so that an untouched thing keeps its part."""

    __slots__ = ("thing",)

    def __init__(self, thing: Thing) -> None:
        self.thing = thing

    def __hash__(self) -> int:
        return id(self.thing)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Holder) and other.thing is self.thing


@lru_cache(maxsize=4096)
def _kept(holder: _Holder) -> Part:
    return part_of_thing(holder.thing)


def parts_of_things(things: tuple[Thing, ...]) -> tuple[Part, ...]:
    return tuple(_kept(_Holder(thing)) for thing in things)
