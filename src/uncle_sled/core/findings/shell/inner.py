"""Judgements on walls and lofts inside the body: what cannot be built as typed, and how one gets up and does not fall."""

from __future__ import annotations

from collections.abc import Iterator

from shapely import box

from uncle_sled.core.document.edits import Op, set_to
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.findings.rule import Rule
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.inside import inside_of
from uncle_sled.core.parts.partitions import decks_of, walls_of
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.words import Words, lower_first

SOURCE = "model house code for tiny houses; the local rule decides"  # of every rule here, said after its reason

GUARD_M, GUARD_SHARE = 0.914, 0.5  # of a loft's open edge, or half of the height over it where that is less
OVER_LOFT_M = 0.9  # to crawl and sit up half
CAUTION = "Screening only: local code and a licensed engineer decide."


def _guard(s: Studied, finding: Finding) -> tuple[tuple[Op, ...], str] | None:
    wanted = _wanted_guard(s, finding.where[0])
    if wanted is None:
        return None
    return (set_to(f"shell.lofts.{finding.where[0]}.guard", {"si": round(wanted, 3), "typed": None}),), "Guard its open edge"


WALL_WRONG = Rule(
    "wall-wrong",
    "mind",
    "Shell",
    "A wall of the inside that cannot be built as typed",
    "It is left out of room and weight until it is mended.",
    why_none="Mend it In hand.",
)
LOFT_WRONG = Rule(
    "loft-wrong",
    "mind",
    "Shell",
    "A loft that cannot be built as typed",
    "It is left out of room and weight until it is mended.",
    why_none="Mend it In hand.",
)
NO_CLIMB = Rule(
    "loft-no-climb",
    "mind",
    "Shell",
    "A loft without ladder or stair",
    "Nobody climbs up by the shelf for long.",
    CAUTION,
    why_none="Say In hand how one gets up.",
)
NO_GUARD = Rule(
    "loft-guard",
    "mind",
    "Shell",
    "A loft whose open edge is not guarded high enough",
    f"Practice: {{{GUARD_M:.2f} m}}, or half of the height over the loft where that is less.",
    CAUTION,
    helps="edit",
    cure=_guard,
)
LOW_LOFT = Rule(
    "loft-low",
    "note",
    "Shell",
    f"Less than {{{OVER_LOFT_M:.1f} m}} over a loft",
    "One sleeps there and does not sit up.",
    why_none="Lower the loft, or raise the roof.",
)


def inner_findings(s: Studied, words: Words) -> Iterator[Finding]:
    """Do partitions, lofts and inner doors stand and leave their ways? Yields what does not."""
    body, shell = s.framed.body, s.build.shell
    if body is None:
        return
    for wall in walls_of(shell, body, library_of(s.facts.materials)) if shell.partitions else ():
        if wall.fault:
            yield WALL_WRONG.found(f"{wall.name} cannot stand so", f"{wall.name} {wall.fault}.", (wall.id,))
    for deck, loft in zip(decks_of(shell, body), shell.lofts, strict=True):
        if deck.fault:
            yield LOFT_WRONG.found(f"{deck.name} cannot be so", f"{deck.name} {deck.fault}.", (deck.id,))
            continue
        if not loft.climb:
            yield NO_CLIMB.found(f"No way up to the {lower_first(deck.name)}", "Neither ladder nor stair is said.", (deck.id,))
        wanted = _wanted_guard(s, deck.id)
        have = loft.guard.si if loft.guard is not None else 0.0
        if wanted is not None and have < wanted - 1e-3:
            told = f"Its open edge has {words.cut(have)}" if have else "Its open edge has none"
            yield NO_GUARD.found(
                f"{deck.name} wants a guard", f"{told}, and {words.cut(wanted)} is the least.", (deck.id,), number=wanted - have
            )
        over = _over_m(s, deck.id)
        if over is not None and over < OVER_LOFT_M:
            yield LOW_LOFT.found(f"Low over the {lower_first(deck.name)}", f"{words.cut(over)} at the most.", (deck.id,), number=-over)


def _over_m(s: Studied, id: str) -> float | None:
    """Greatest height over a loft [m]."""
    body = s.framed.body
    deck = next((deck for deck in decks_of(s.build.shell, body) if deck.id == id), None) if body is not None else None
    if deck is None or deck.fault or body is None:
        return None
    side = inside_of(s.build.shell, body)
    over = side.intersection(box(deck.low[0], deck.high[2], deck.high[0], deck.high[2] + 10))
    return None if over.is_empty else float(over.bounds[3] - deck.high[2])


def _wanted_guard(s: Studied, id: str) -> float | None:
    """Height of a guard along a loft's open edges [m]; None where it has none: from end wall to end wall."""
    body = s.framed.body
    deck = next((deck for deck in decks_of(s.build.shell, body) if deck.id == id), None) if body is not None else None
    over = _over_m(s, id)
    if deck is None or over is None or body is None:
        return None
    left, _, right, _ = inside_of(s.build.shell, body).bounds
    if deck.low[0] < left + 0.02 and deck.high[0] > right - 0.02:
        return None
    return min(GUARD_M, GUARD_SHARE * over)
