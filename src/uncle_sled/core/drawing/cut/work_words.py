"""How a piece is worked, in words: its ends off square, what is ripped, notched and sawn out of it. The same on every paper."""

from __future__ import annotations

from collections.abc import Sequence

from uncle_sled.core.framing.worked import Notch
from uncle_sled.core.studies.cut.take_off import Piece
from uncle_sled.core.words import Words

EDGES = ("one edge", "other edge", "through")


def ends_words(ends_deg: tuple[float, float]) -> str:
    """Off square, the beginning first; nothing where both ends are square. Their sign says to which side they lean."""
    if all(abs(deg) < 0.05 for deg in ends_deg):
        return ""
    return " / ".join(f"{deg:.1f}°".replace("-", "−") for deg in ends_deg)


def work_words(notches: Sequence[Notch], rip_m: float | None, words: Words, edges: tuple[str, str, str] = EDGES) -> str:
    """Rips and notches of a stick, each with its place from the beginning."""
    made = [f"rip to {words.cut(rip_m)}"] if rip_m is not None else []
    made += [f"notch {words.cut(n.long_m)} × {words.cut(n.deep_m)} at {words.cut(n.at_m)}, {edges[n.side]}" for n in notches]
    return "; ".join(made)


def holes_words(piece: Piece, words: Words) -> str:
    """Holes of a board with their places from the low left corner of its box."""
    made = []
    for ring in piece.holes:
        (left, low), (right, high) = ((f(p[0] for p in ring), f(p[1] for p in ring)) for f in (min, max))
        made.append(f"hole {words.cut(right - left)} × {words.cut(high - low)} at {words.cut(left)}, {words.cut(low)}")
    return "; ".join(made)


def piece_work(piece: Piece, words: Words) -> str:
    """All of it: ends, rips, notches, holes, and that it has an outline of its own."""
    ends = ends_words(piece.ends_deg)
    told = [f"ends {ends} off square" if ends else "", work_words(piece.notches, piece.rip_m, words), holes_words(piece, words)]
    told.append("outline as drawn" if piece.outline else "")
    told.append(piece.joined)
    return "; ".join(text for text in told if text)
