"""What a thing is drawn as, in one word: as typed, else by what it holds, what it does and its kind."""

from __future__ import annotations

from uncle_sled.core.document.roles import FIGURES_DRAWN
from uncle_sled.core.document.stow import Thing

BY_ROLE = {
    "cooks": "stove",
    "keeps food cold": "fridge",
    "tap or sink": "sink",
    "shower": "shower",
    "toilet": "toilet",
    "warms the room": "heater",
    "warms water": "heater",
    "cools the room": "cooler",
    "airs": "fan",
    "lights": "light",
    "mattress": "bed",
    "seat": "chair",
    "table": "table",
}
BY_KIND = {
    "tank": "tank",
    "battery": "battery",
    "solar": "panel",
    "charger": "charger",
    "cabinet": "cabinet",
    "bed": "bed",
    "spare wheel": "wheel",
    "outside carrier": "box",
    "vehicle aboard": "bicycle",
    "furniture": "table",
    "appliance": "box",
    "gear": "box",
    "kit": "bag",
}


def figure_of(thing: Thing) -> str:
    """One of FIGURES_DRAWN: as typed, else by what it holds, what it does and its kind; never by what it is called."""
    if thing.figure in FIGURES_DRAWN:
        return thing.figure
    if thing.tank is not None:
        if thing.tank.contents == "gas":
            return "cylinder"
        return {"jug": "jug", "cylinder": "drum"}.get(thing.tank.shape, "tank")
    if thing.cabinet is not None:
        return "cabinet"
    if thing.kind != "cabinet":
        does = next((BY_ROLE[role] for role in thing.roles if role in BY_ROLE), None)
        if does is not None:
            return does
    return BY_KIND.get(thing.kind, "box")
