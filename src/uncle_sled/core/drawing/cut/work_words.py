"""How a piece is worked, in words: its ends off square, what is ripped, notched and sawn out of it. The same on every paper."""

from __future__ import annotations

from uncle_sled.core.document.project import Build
from uncle_sled.core.studies.cut.as_sold import SAME_M, comes_from
from uncle_sled.core.studies.cut.piece import Piece
from uncle_sled.core.words import Words

EDGES = ("one edge", "other edge", "through")


def ends_words(ends_deg: tuple[float, float]) -> str:
    """Off square, the beginning first; nothing where both ends are square. Their sign says to which side they lean."""
    if all(abs(deg) < 0.05 for deg in ends_deg):
        return ""
    return " / ".join(f"{deg:.1f}°".replace("-", "−") for deg in ends_deg)


def work_words(piece: Piece, words: Words, edges: tuple[str, str, str] = EDGES) -> str:
    """Rips, notches and shaped ends of a stick, each with its place from the beginning; of how many it is joined."""
    made = [f"rip to {words.cut(piece.rip_m)}"] if piece.rip_m is not None else []
    made += [f"notch {words.cut(n.long_m)} × {words.cut(n.deep_m)} at {words.cut(n.at_m)}, {edges[n.side]}" for n in piece.notches]
    if piece.corners:
        made.append("shaped, corners along and across: " + "; ".join(f"{_bare(a, words)}, {_bare(b, words)}" for a, b in piece.corners))
    return "; ".join([*made, *([piece.joined] if piece.joined else [])])


def holes_words(piece: Piece, words: Words) -> str:
    """Holes of a board with their places from the low left corner of its box."""
    made = []
    for ring in piece.holes:
        (left, low), (right, high) = ((f(p[0] for p in ring), f(p[1] for p in ring)) for f in (min, max))
        made.append(f"hole {words.cut(right - left)} × {words.cut(high - low)} at {words.cut(left)}, {words.cut(low)}")
    return "; ".join(made)


def sold_words(piece: Piece, build: Build, words: Words) -> str:
    """What a stick of softwood comes out of; nothing where it is sold so, where its size was said, or where it is no timber."""
    made = comes_from(piece, build)
    if made is None:
        return ""
    size, own = words.section(made.from_m), words.section((piece.width_m, piece.thickness_m))
    if made.how == "ripped":
        return f"{own} is ripped from {size}" + (f", {made.many} from each" if made.many > 1 else "")
    if made.how == "glued up":
        between = f" with {words.thick(made.between_m)} of plywood between them" if made.between_m else ""
        rip = f" ripped to {words.thick(piece.width_m)}" if made.from_m[0] > piece.width_m + SAME_M else ""
        return f"{own} is glued up of {made.plies} of {size}{rip}{between}"
    return f"{own} is not sold and does not come out of what is: ask for it, or take another" if made.how == "not sold" else ""


MOST_CORNERS = 12


def outline_words(piece: Piece, words: Words) -> str:
    """The corners of a board that is no rectangle, from the low left corner of its box; of a curve that its template has it."""
    if not piece.outline:
        return ""
    if len(piece.outline) > MOST_CORNERS:
        return "curved: by its template or the offsets"
    return "corners " + "; ".join(f"{_bare(x, words)}, {_bare(y, words)}" for x, y in piece.outline)


def _bare(metres: float, words: Words) -> str:
    return words.cut(metres).removesuffix(" mm")


def board_work(piece: Piece, words: Words) -> str:
    """Outline, slanted ends, holes and joints of a board."""
    ends = ends_words(piece.ends_deg)
    return "; ".join(
        text for text in (outline_words(piece, words), ends and f"ends {ends}", holes_words(piece, words), piece.joined) if text
    )


def piece_work(piece: Piece, words: Words) -> str:
    """All of it: ends, rips, notches, holes, and that it has an outline of its own."""
    ends = ends_words(piece.ends_deg)
    told = [f"ends {ends} off square" if ends else "", work_words(piece, words), board_work(piece, words) if piece.kind != "bar" else ""]
    return "; ".join(text for text in told if text)
