"""How wide a text is in the shipped fonts, so that screen and paper set it alike.

The advances were read from the font files by fontTools into widths.json; a test reads the
fonts again and compares. Headings are set with tabular figures, and so are their advances. Kerning is left out: it takes under 2 % of a label.
"""

from __future__ import annotations

from functools import lru_cache

import msgspec

from uncle_sled.shipped import shipped


@lru_cache(maxsize=1)
def _advances() -> dict[str, dict[str, float]]:
    faces = msgspec.json.decode(shipped("fonts/widths.json"))
    return {face: record["advance"] for face, record in faces.items()}


@lru_cache(maxsize=8192)
def text_width(text: str, size: float, face: str = "text") -> float:
    """Width in the unit of ``size`` of a text in one of the faces: text, strong, head."""
    advances = _advances()[face]
    return size * sum(advances.get(sign, 0.56) for sign in text)


def elided(text: str, size: float, room: float, face: str = "text") -> str:
    """The text, or its two ends with an ellipsis between them where it is wider than the room."""
    if text_width(text, size, face) <= room:
        return text

    def short(keep: int) -> str:
        head = (keep + 1) // 2
        return text[:head].rstrip() + "…" + (text[-(keep - head) :].lstrip() if keep > head else "")

    # the more is kept, the wider it is: the most that fits is halved in on
    fits, wide = 1, len(text)
    while wide - fits > 1:
        middle = (fits + wide) // 2
        if text_width(short(middle), size, face) <= room:
            fits = middle
        else:
            wide = middle
    if fits > 1:
        return short(fits)
    return "…" if text_width("…", size, face) <= room else ""


NARROWEST = 0.1  # of its size: no letter is narrower


def _that_fit(text: str, size: float, room: float, face: str) -> list[str]:
    """The words of a text; one that is wider than the room by itself is parted."""
    words = []
    for word in text.split(" "):
        while len(word) > 1 and text_width(word, size, face) > room:
            # the more letters, the wider: the most that fit are halved in on, among no more than can fit at all
            low, high = 1, min(len(word), int(room / max(size * NARROWEST, 0.1)) + 2)
            while high - low > 1:
                middle = (low + high) // 2
                low, high = (middle, high) if text_width(word[:middle], size, face) <= room else (low, middle)
            words.append(word[:low])
            word = word[low:]
        if word:
            words.append(word)
    return words


def wrapped(text: str, size: float, room: float, face: str = "text") -> list[str]:
    """A text broken into lines that fit the room."""
    lines: list[str] = []
    for word in _that_fit(text, size, room, face):
        joined = f"{lines[-1]} {word}" if lines else word
        if lines and text_width(joined, size, face) <= room:
            lines[-1] = joined
        else:
            lines.append(word)
    return lines
