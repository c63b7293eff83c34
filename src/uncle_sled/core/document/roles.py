"""What a thing does: a closed set of the trade's words. What a thing is called decides nothing; these do.

A thing may have several (a galley is a counter with a tap). What a tank holds, what a thing burns and what it is in the wiring
have fields of their own.
"""

from __future__ import annotations

from typing import Literal, get_args

Role = Literal[
    "seat",
    "counter",
    "table",
    "pet place",
    "mattress",
    "cooks",
    "keeps food cold",
    "warms the room",
    "cools the room",
    "warms water",
    "airs",
    "lights",
    "pumps water",
    "pumps by foot",
    "tap or sink",
    "shower",
    "toilet",
    "washes clothes",
    "runs on petrol",
    "rides on the roof",
    "sleeps on the roof",
    "hangs under the floor",
    "hangs at the tail",
    "CO alarm",
    "smoke alarm",
    "gas alarm",
    "extinguisher",
]
ROLES: tuple[Role, ...] = get_args(Role)
ALARMS: frozenset[Role] = frozenset({"CO alarm", "smoke alarm", "gas alarm"})
# Of two that exclude one another the thing would have to be two things.
EXCLUDE: tuple[tuple[Role, Role], ...] = (
    ("pumps water", "pumps by foot"),
    ("keeps food cold", "cooks"),
    ("mattress", "tap or sink"),
    ("mattress", "cooks"),
    ("warms the room", "keeps food cold"),
    ("rides on the roof", "hangs under the floor"),
    ("rides on the roof", "hangs at the tail"),
    ("hangs under the floor", "hangs at the tail"),
)

# What a thing can be drawn as.
FIGURES_DRAWN = (
    "bed",
    "cushion",
    "jug",
    "tank",
    "drum",
    "cylinder",
    "battery",
    "panel",
    "fridge",
    "stove",
    "sink",
    "toilet",
    "heater",
    "cooler",
    "cabinet",
    "chair",
    "table",
    "wheel",
    "bicycle",
    "motorcycle",
    "kayak",
    "box",
    "awning",
    "fan",
    "tools",
    "charger",
    "light",
    "telescope",
    "bag",
    "shower",
)


def at_odds(roles: tuple[str, ...]) -> tuple[str, str] | None:
    """The first two of some roles that no one thing has; None where they go together."""
    return next(((a, b) for a, b in EXCLUDE if a in roles and b in roles), None) if len(roles) > 1 else None
