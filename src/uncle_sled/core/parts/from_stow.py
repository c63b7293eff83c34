"""One part for each thing, at home; modes move it and load cases fill it."""

from __future__ import annotations

import math

import numpy as np

from uncle_sled.core.document.placing import Stand
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.engine import keep_each
from uncle_sled.core.geometry.vessel import vessel_of
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
    "urine": "grey",
    "solids": "grey",
    "gas": "gas",
    "petrol": "fuel",
    "diesel": "fuel",
}


def group_of(thing: Thing) -> Group:
    """To which group of masses a thing counts: a tank by what it holds, the rest by its kind."""
    return GROUP_OF_CONTENTS[thing.tank.contents] if thing.tank else GROUP_OF_KIND.get(thing.kind, "kit")


def standing_size_m(thing: Thing, turn: int) -> tuple[float, float, float]:
    """Size along x, y, z as the thing stands after its turn [m]."""
    length, width = thing.length.si, thing.width.si
    return (length, width, thing.height.si) if turn % 180 == 0 else (width, length, thing.height.si)


def _si(q: Length | None) -> float:
    return q.si if q else 0.0


def home_of(thing: Thing) -> Stand:
    """The thing at home, as it is."""
    return Stand(thing.x.si, thing.y.si, thing.z.si, thing.turn, standing_size_m(thing, thing.turn))


def part_of_thing(thing: Thing, stand: Stand | None = None) -> Part:
    """The thing as a part, at home or as it stands in a mode."""
    stand = stand or home_of(thing)
    size = stand.size
    dx, dy = _si(thing.cg_dx), _si(thing.cg_dy)
    angle = math.radians(stand.turn)
    known = thing.cg_dx is not None or thing.tank is not None
    return Part(
        thing.id,
        thing.name,
        group=group_of(thing),
        made_by=f"stow.things.{thing.id}",
        source=thing.source,
        mass_kg=-thing.mass.si if thing.taken_out else thing.mass.si,
        x_m=stand.x + size[0] / 2 + dx * math.cos(angle) - dy * math.sin(angle),
        y_m=stand.y + dx * math.sin(angle) + dy * math.cos(angle),
        z_m=stand.z + size[2] / 2 + _si(thing.cg_dz),
        size_m=size,
        station_sigma_m=unknown_cg_sigma_m(size[0], known),
        bias_group=None,
        contents=contents_of(thing, stand),
        cargo=thing.cargo,
    )


def contents_of(thing: Thing, stand: Stand) -> Contents | None:
    """What a tank can hold where it stands; None for what holds nothing."""
    if thing.tank is None or thing.tank.volume is None or thing.tank.volume.si <= 0 or thing.taken_out:
        return None  # taken out it holds nothing
    volume, vessel = thing.tank.volume.si, vessel_of(thing)
    centres: tuple[tuple[float, ...], ...] = ()
    if vessel is not None and not vessel.linear:
        turned = round(math.cos(math.radians(stand.turn))), round(math.sin(math.radians(stand.turn)))
        off = np.array(vessel.along)
        dx, dy = (off, 0 * off) if vessel.plane == "xz" else (0 * off, off)
        centres = (vessel.shares, tuple(dx * turned[0] - dy * turned[1]), tuple(dx * turned[1] + dy * turned[0]), vessel.up)
    return Contents(
        thing.tank.contents,
        volume * DENSITY[thing.tank.contents],
        volume_m3=volume,
        middle_x_m=stand.x + stand.size[0] / 2,
        middle_y_m=stand.y,
        bottom_m=stand.z,
        height_m=stand.size[2],
        centres=centres,
    )


parts_of_things = keep_each(part_of_thing)  # an untouched thing keeps its part
homes_of = keep_each(home_of)
