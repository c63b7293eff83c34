"""How a piece is told by its wall: a colour and a hatch for every face, the same on sheets, bars, body and labels."""

from __future__ import annotations

from uncle_sled.core.drawing.primitives import Hatch

LOOKS: dict[str, tuple[str, Hatch]] = {
    "floor": ("frame", "metal"),
    "left side": ("fresh", "water"),
    "right side": ("outside", "wood"),
    "roof": ("gas", "power"),
    "roof left": ("gas", "power"),
    "roof right": ("ochre", "foam"),
    "front": ("cargo", "kit"),
    "rear": ("power", "gas"),
    "nose": ("kit", "wood"),
    "bulkhead": ("spruce", "metal"),
}
SPARE: tuple[tuple[str, Hatch], ...] = (("wood", "wood"), ("kit", "metal"), ("spruce", "water"), ("zinc", "power"))


def look_of_face(of: str) -> tuple[str, Hatch]:
    """Ink and hatch of a face; a thing has one of a few, by its name."""
    if of in LOOKS:
        return LOOKS[of]
    return SPARE[sum(map(ord, of)) % len(SPARE)]
