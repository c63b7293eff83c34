"""Roles and figures for things of older files and of plain lists, guessed once from what they are called.

Files of the first version said what a thing does only by its name. Whoever reads one gets the guess of that time, written into
the build, and is told where it stood on one word alone. Nothing else reads a name.
"""

from __future__ import annotations

import re
from typing import Any

import msgspec

from uncle_sled.core.document.roles import FIGURES_DRAWN, at_odds
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.parts.figure_of import BY_KIND, BY_ROLE

FROM_VERSION = 2  # files of this version and later say it themselves
# Words of a name, in the order in which they decide; whole words or beginnings of them.
WORDS: tuple[tuple[str, str], ...] = (
    ("food", "bag"),
    ("clothes", "bag"),
    ("books", "box"),
    ("mattress", "bed"),
    ("bunk", "bed"),
    ("bed board", "box"),
    ("cushion", "cushion"),
    ("pillow", "cushion"),
    ("sun shower", "bag"),
    ("shower", "shower"),
    ("jug", "jug"),
    ("can", "jug"),
    ("tube tank", "drum"),
    ("solar panel", "panel"),
    ("panel", "panel"),
    ("battery", "battery"),
    ("power station", "battery"),
    ("air conditioner", "cooler"),
    ("cooler", "fridge"),
    ("cool box", "fridge"),
    ("fridge", "fridge"),
    ("freezer", "fridge"),
    ("water heater", "heater"),
    ("heater", "heater"),
    ("stove", "stove"),
    ("hob", "stove"),
    ("burner", "stove"),
    ("cooker", "stove"),
    ("grill", "stove"),
    ("oven", "stove"),
    ("sink", "sink"),
    ("basin", "sink"),
    ("toilet", "toilet"),
    ("roof fan", "fan"),
    ("fan", "fan"),
    ("table and chairs", "table"),
    ("chair", "chair"),
    ("stool", "chair"),
    ("seat", "chair"),
    ("bench box", "box"),
    ("bench", "table"),
    ("worktop", "table"),
    ("table", "table"),
    ("desk", "table"),
    ("wheel", "wheel"),
    ("motorcycle", "motorcycle"),
    ("motorbike", "motorcycle"),
    ("moped", "motorcycle"),
    ("scooter", "motorcycle"),
    ("bicycle", "bicycle"),
    ("bike", "bicycle"),
    ("kayak", "kayak"),
    ("canoe", "kayak"),
    ("board on the roof", "kayak"),
    ("awning", "awning"),
    ("roof tent", "awning"),
    ("charger", "charger"),
    ("inverter", "charger"),
    ("fuse", "charger"),
    ("converter", "charger"),
    ("light", "light"),
    ("lamp", "light"),
    ("telescope", "telescope"),
    ("scope", "telescope"),
    ("mount", "telescope"),
    ("bag", "bag"),
    ("cloth", "bag"),
    ("bedding", "cushion"),
    ("tool", "tools"),
    ("vice", "tools"),
    ("jack", "tools"),
    ("cylinder", "cylinder"),
    ("gas", "cylinder"),
    ("cupboard", "cabinet"),
    ("galley", "cabinet"),
    ("kitchen", "cabinet"),
    ("wardrobe", "cabinet"),
    ("drawer", "cabinet"),
    ("box", "box"),
)

MOST_SAID = 12


def roles_guessed(thing: dict[str, Any]) -> list[str]:
    """Roles of a thing told as plain data, by its kind, its figures and the words of its name."""
    name, kind = str(thing.get("name", "")).lower(), thing.get("kind")
    figures, tank = thing.get("figures") or {}, thing.get("tank") or {}
    if not (isinstance(figures, dict) and isinstance(tank, dict)):
        return []  # the reader says what is wrong with it
    made = [thing["role"]] if isinstance(thing.get("role"), str) and thing["role"] else []

    def word(*words: str) -> bool:
        return any(re.search(rf"\b{re.escape(word)}s?\b", name) for word in words)

    moving = kind != "gear"
    if word("pump") and moving and not word("generator"):
        made.append("pumps by foot" if word("foot") else "pumps water")
    if moving and word("heater", "boiler") and word("water", "boiler"):
        made.append("warms water")
    if figures.get("heat_w") is not None or (
        moving and word("heater", "wood stove", "stove and hearth", "radiator") and not word("water") and not tank
    ):
        made.append("warms the room")
    if kind in ("appliance", "charger") and word("light", "lamp"):
        made.append("lights")
    if kind in ("appliance", "cabinet") and word("sink", "tap", "galley", "kitchen", "basin"):
        made.append("tap or sink")
    if kind == "appliance" and word("shower"):
        made.append("shower")
    if kind in ("appliance", "gear") and word("toilet", "bucket seat"):
        made.append("toilet")
    if moving and word("fridge", "cool box", "freezer"):
        made.append("keeps food cold")
    if kind == "appliance" and word("stove", "hob", "oven", "cooker", "grill") and not word("wood", "hearth"):
        made.append("cooks")
    if figures.get("cool_w") is not None or word("air conditioner"):
        made.append("cools the room")
    if kind == "appliance" and word("roof fan", "fan", "ventilator"):
        made.append("airs")
    if word("mattress"):
        made.append("mattress")
    if kind != "vehicle aboard" and word("generator", "chain saw"):
        made.append("runs on petrol")
    if kind == "vehicle aboard" and word("motorbike", "motorcycle", "moped", "quad"):
        made.append("runs on petrol")
    if kind == "outside carrier" and name.startswith("roof"):
        made.append("rides on the roof")
    if kind == "outside carrier" and word("roof tent"):
        made.append("sleeps on the roof")
    if word("gas alarm", "gas detector"):
        made.append("gas alarm")
    kept = list(dict.fromkeys(made))
    while (odd := at_odds(tuple(kept))) is not None:  # a guess keeps no file from being read: the first word counts
        kept.remove(max(odd, key=kept.index))
    return kept


def figure_guessed(thing: dict[str, Any], roles: list[str]) -> str:
    """What a thing was drawn as by its name; nothing where its kind, contents and roles say the same."""
    name, kind = str(thing.get("name", "")).lower(), str(thing.get("kind", ""))
    tank = thing.get("tank")
    if isinstance(tank, dict):
        jug = tank.get("contents") != "gas" and tank.get("shape") != "jug" and re.search(r"\b(can|jug)\b", name)
        return "jug" if jug else ""
    if thing.get("cabinet"):
        return ""
    plain = next((BY_ROLE[role] for role in roles if role in BY_ROLE and kind != "cabinet"), BY_KIND.get(kind, "box"))
    told = next((what for word, what in WORDS if re.search(rf"\b{re.escape(word)}", name)), BY_KIND.get(kind, "box"))
    return told if told != plain and told in FIGURES_DRAWN else ""


def with_roles_guessed(thing: Thing) -> Thing:
    """A thing of a list that has no column for roles, with those that its name gives away."""
    plain = msgspec.to_builtins(thing)
    roles = roles_guessed(plain)
    return msgspec.structs.replace(thing, roles=tuple(roles), figure=thing.figure or figure_guessed(plain, roles))


def with_roles_said(body: dict[str, Any], version: int) -> tuple[str, ...]:
    """Gives the things and loads of an older file their roles; changes ``body``. Returns what was thin, with its place."""
    if version >= FROM_VERSION:
        return ()
    thin: list[str] = []
    facts = body.get("facts")
    for things in (_list(facts, "things"), *(_list(b.get("stow"), "things") for b in _list(body, "variants"))):
        for thing in things:
            _say_roles(thing, thin)
    for build in _list(body, "variants"):
        for load in _list(build.get("systems"), "loads"):
            name = str(load.get("name", "")).lower()
            roles = [role for role, words in (("lights", "light|lamp"), ("pumps water", "pump")) if re.search(words, name)]
            if roles and "roles" not in load:
                load["roles"] = roles[:1]
    more = len(thin) - MOST_SAID
    return (*thin[:MOST_SAID], *((f"And {more} more things whose roles were taken from one word.",) if more > 0 else ()))


def _say_roles(thing: dict[str, Any], thin: list[str]) -> None:
    if "roles" in thing:
        thing.pop("role", None)
        return
    roles = roles_guessed(thing)
    thing.pop("role", None)
    if not thing.get("figure") and (drawn := figure_guessed(thing, roles)):
        thing["figure"] = drawn
    if roles:
        thing["roles"] = roles
    if thing.get("burns") == "wood" and not thing.get("room_sealed") and "flued" not in thing:
        thing["flued"] = True  # nobody burns wood in a body without a flue
    tank = thing.get("tank")
    if (
        isinstance(tank, dict)
        and tank.get("contents") == "fresh"
        and "warms water" not in roles
        and "heater" in str(thing.get("name", "")).lower()
    ):
        thin.append(f"{str(thing.get('name', ''))[:60]}: taken for a tank to drink from, not for a water heater; say In hand what it does.")
    elif thing.get("burns") not in (None, "none") and not roles:
        thin.append(f"{str(thing.get('name', ''))[:60]}: it burns, and whether it cooks or warms the room was not said; say so In hand.")


def _list(node: Any, key: str) -> list[dict[str, Any]]:
    found = node.get(key) if isinstance(node, dict) else None
    return [one for one in found if isinstance(one, dict)] if isinstance(found, list) else []
