"""What a thing is, in one word, for its figure and for those who ask whether it is a stove: as typed, else by kind and name."""

from __future__ import annotations

import re

from uncle_sled.core.document.stow import Thing

FIGURES = (
    "bed", "cushion", "jug", "tank", "drum", "cylinder", "battery", "panel", "fridge", "stove", "sink", "toilet", "heater", "cooler",
    "cabinet", "chair", "table", "wheel", "bicycle", "motorcycle", "kayak", "box", "awning", "fan", "tools", "charger", "light",
    "telescope", "bag", "shower",
)  # fmt: skip
# Words of a name, in the order in which they decide; whole words or beginnings of them.
WORDS = (
    ("food", "bag"), ("clothes", "bag"), ("books", "box"),
    ("mattress", "bed"), ("bunk", "bed"), ("bed board", "box"), ("cushion", "cushion"), ("pillow", "cushion"), ("sun shower", "bag"),
    ("shower", "shower"), ("jug", "jug"), ("can", "jug"), ("tube tank", "drum"), ("solar panel", "panel"), ("panel", "panel"),
    ("battery", "battery"), ("power station", "battery"), ("air conditioner", "cooler"), ("cooler", "fridge"), ("cool box", "fridge"),
    ("fridge", "fridge"), ("freezer", "fridge"), ("water heater", "heater"), ("heater", "heater"), ("stove", "stove"), ("hob", "stove"),
    ("burner", "stove"), ("cooker", "stove"), ("grill", "stove"), ("oven", "stove"), ("sink", "sink"), ("basin", "sink"),
    ("toilet", "toilet"), ("roof fan", "fan"), ("fan", "fan"), ("table and chairs", "table"), ("chair", "chair"), ("stool", "chair"),
    ("seat", "chair"), ("bench box", "box"), ("bench", "table"), ("worktop", "table"), ("table", "table"), ("desk", "table"),
    ("wheel", "wheel"), ("motorcycle", "motorcycle"), ("motorbike", "motorcycle"), ("moped", "motorcycle"), ("scooter", "motorcycle"),
    ("bicycle", "bicycle"), ("bike", "bicycle"), ("kayak", "kayak"), ("canoe", "kayak"), ("board on the roof", "kayak"), ("awning", "awning"),
    ("roof tent", "awning"), ("charger", "charger"), ("inverter", "charger"), ("fuse", "charger"), ("converter", "charger"), ("light", "light"),
    ("lamp", "light"), ("telescope", "telescope"), ("scope", "telescope"), ("mount", "telescope"), ("bag", "bag"), ("cloth", "bag"),
    ("bedding", "cushion"), ("tool", "tools"), ("vice", "tools"), ("jack", "tools"), ("cylinder", "cylinder"), ("gas", "cylinder"),
    ("cupboard", "cabinet"), ("galley", "cabinet"), ("kitchen", "cabinet"), ("wardrobe", "cabinet"), ("drawer", "cabinet"), ("box", "box"),
)  # fmt: skip
BY_KIND = {
    "tank": "tank", "battery": "battery", "solar": "panel", "charger": "charger", "cabinet": "cabinet", "bed": "bed", "spare wheel": "wheel",
    "outside carrier": "box", "vehicle aboard": "bicycle", "furniture": "table", "appliance": "box", "gear": "box", "kit": "bag",
}  # fmt: skip
KITCHEN = frozenset({"stove", "sink", "fridge"})


def figure_of(thing: Thing) -> str:
    """One of FIGURES. A tank is drawn by its shape and contents, whatever it is called."""
    if thing.figure in FIGURES:
        return thing.figure
    if thing.tank is not None:
        if thing.tank.contents == "gas":
            return "cylinder"
        if re.search(r"\b(can|jug)\b", thing.name.lower()):
            return "jug"
        return {"jug": "jug", "cylinder": "drum"}.get(thing.tank.shape, "tank")
    if thing.cabinet is not None:
        return "cabinet"
    name = thing.name.lower()
    for word, what in WORDS:
        if re.search(rf"\b{re.escape(word)}", name):
            return what
    return BY_KIND.get(thing.kind, "box")
