"""What a piece that is cut already misses by, in words."""

from __future__ import annotations

from uncle_sled.core.studies.cut.as_built import Miss
from uncle_sled.core.words import Words


def miss_words(miss: Miss, words: Words) -> str:
    """To be cut, right, or so much too long or too short; what is too long can be trimmed."""
    if miss.state in ("to cut", "right"):
        return {"to cut": "", "right": "right"}[miss.state]
    parts = [
        f"{words.cut(abs(by))} too {less if by < 0 else more}"
        for by, less, more in ((miss.long_m, "short", "long"), (miss.wide_m, "narrow", "wide"))
        if abs(by) > 0.001
    ]
    return ", ".join(parts) + (": trim it" if miss.state == "too long" else ": cut it anew")
