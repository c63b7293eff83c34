"""Judgements on joints: seams that nothing keeps water out of, and lines that part a face where they cannot."""

from __future__ import annotations

from collections.abc import Iterator

import msgspec

from uncle_sled.core.document.edits import Op, set_to
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.findings.rule import Rule
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.shell.bought_panels import panels
from uncle_sled.core.studies.shell.built_sections import sections_of
from uncle_sled.core.studies.shell.seams import seams, usual_seams
from uncle_sled.core.words import Words, upper_first

SOURCE = "shop rules for seams and sections"  # of every rule here, said after its reason


def _usual(s: Studied, _finding: Finding) -> tuple[tuple[Op, ...], str] | None:
    made = usual_seams(s)
    kept = {seam.id: seam for seam in made}
    for seam in seams(s):  # what was said and does not keep water out is made as usual too
        if not seam.water and seam.made is not None:
            kept[seam.id] = msgspec.structs.replace(kept[seam.id], trim=kept[seam.id].trim or "angle", sealant="bead")
    return (set_to("shell.seams", [msgspec.to_builtins(seam) for seam in kept.values()]),), "Make every joint as it is usual"


SEAM_OPEN = Rule(
    "seam-open",
    "mind",
    "Shell",
    "A joint that nothing keeps water out of",
    "Bodies rot at their joints, not in their faces: the outermost layer has to go on over each.",
    helps="edit",
    cure=_usual,
)
SEAMS_UNSAID = Rule(
    "seams-unsaid",
    "note",
    "Shell",
    "Joints of which nobody said how they are kept dry",
    "Bodies rot at their joints, not in their faces.",
    helps="edit",
    cure=_usual,
)
SPLIT_WRONG = Rule(
    "split-wrong",
    "mind",
    "Shell",
    "A face parted through an opening, or next to nothing",
    "A section wants whole sticks at its edges.",
    why_none="Part it beside the opening (Joints, Sections).",
)
PANEL_WRONG = Rule(
    "panel-wrong",
    "mind",
    "Shell",
    "A sandwich panel that cannot be",
    "Bought panels neither bend nor lose more at their edges than they are wide.",
    why_none="Thinner panels, a smaller bevel, or another school for this face.",
)


def joint_findings(s: Studied, words: Words) -> Iterator[Finding]:
    """Which seams leak, part or are not made? Yields one for each kind."""
    made = seams(s)
    wet = [seam for seam in made if not seam.water]
    unsaid, open_ = [seam for seam in wet if seam.made is None], [seam for seam in wet if seam.made is not None]
    if unsaid and s.build.shell.framing.school != "bought shell":  # else its maker made them
        long = sum(seam.joint.length_m for seam in unsaid)
        told = f"{len(unsaid)} joints, {words.m(long)} long, have neither trim nor tape."
        yield SEAMS_UNSAID.found("Joints are not made yet", told, ("seams", "unsaid"))
    if open_:
        long = sum(seam.joint.length_m for seam in open_)
        yield SEAM_OPEN.found(
            "Water gets in at a joint",
            f"{open_[0].name}{f' and {len(open_) - 1} more' if len(open_) > 1 else ''}: {words.m(long)} that nothing keeps water out of.",
            ("seams", "open"),
            number=long,
        )
    for fault in sections_of(s).faults if s.build.shell.splits else ():
        yield SPLIT_WRONG.found("A face cannot be parted there", fault, ("seams", fault[:40]))
    if s.build.shell.framing.school == "sandwich panels":
        for panel in panels(s):
            if panel.fault:
                yield PANEL_WRONG.found(f"{upper_first(panel.id)} cannot be a panel", f"{upper_first(panel.fault)}.", ("seams", panel.id))
