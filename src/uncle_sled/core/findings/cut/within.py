"""Judgements on the water line within faces: seams of sheets, laps and rows of screws that nothing keeps dry."""

from __future__ import annotations

from collections.abc import Iterator

import msgspec

from uncle_sled.core.document.edits import Op, set_to
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.findings.rule import Rule
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.cut.within_faces import WithinSeam, usual_within, within_faces
from uncle_sled.core.words import Words

SOURCE = "shop rules for seams"  # of every rule here, said after its reason


def _usual(s: Studied, _finding: Finding) -> tuple[tuple[Op, ...], str] | None:
    said = {seam.id: seam for seam in s.build.shell.seams}
    for seam in within_faces(s.build, s.facts):
        usual = usual_within(seam)
        if not seam.water and usual is not None:
            said[seam.id] = usual
    return (set_to("shell.seams", [msgspec.to_builtins(seam) for seam in said.values()]),), "Make seams and screws as it is usual"


WITHIN_OPEN = Rule(
    "face-seam-open",
    "mind",
    "Shell",
    "A seam, lap or row of screws within a face that nothing keeps water out of",
    "The line that sheds water is broken there; ply swells from its edges and round its screws.",
    helps="edit",
    cure=_usual,
)
WITHIN_UNSAID = Rule(
    "face-seams-unsaid",
    "note",
    "Shell",
    "Seams and rows of screws within faces of which nobody said how they are kept dry",
    "The line that sheds water is broken there until it is made.",
    helps="edit",
    cure=_usual,
)


def within_findings(s: Studied, words: Words) -> Iterator[Finding]:
    """Which seams and rows of screws within faces leak, or are not said? Yields one for each kind; openings are judged by their seal."""
    if s.build.shell.framing.school in ("none", "bought shell"):
        return  # its maker made them
    wet = [seam for seam in within_faces(s.build, s.facts) if not seam.water and seam.what != "flange"]
    for rule, some in ((WITHIN_UNSAID, [seam for seam in wet if seam.made is None]), (WITHIN_OPEN, [seam for seam in wet if seam.made])):
        if some:
            title = "Seams and screws within the faces are not made yet" if rule is WITHIN_UNSAID else "Water gets in within a face"
            yield rule.found(title, _told(some, words), ("seams", rule.code), number=sum(seam.length_m for seam in some))


def _told(some: list[WithinSeam], words: Words) -> str:
    """How many metres of each kind, and on which face most."""
    made = []
    for what, of in (("sheets", "seams of sheets"), ("laps", "laps"), ("screws", "rows of screws")):
        mine = [seam for seam in some if seam.what == what]
        if mine:
            made.append(f"{words.m(sum(seam.length_m for seam in mine))} of {of}")
    return f"{', '.join(made)}; most on the {max(some, key=lambda seam: seam.length_m).face}."
