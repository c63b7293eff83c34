"""Judgements on the leaves of doors inside: what they swing into."""

from __future__ import annotations

from collections.abc import Iterator

from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.findings.rule import Rule
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.stow.clashes import modes_in_use
from uncle_sled.core.studies.stow.inner_doors import leaves_hit
from uncle_sled.core.words import Words, lower_first

SOURCE = "plane geometry of a leaf that turns"  # of every rule here, said after its reason

LEAF_HITS = Rule(
    "inner-door-hits",
    "mind",
    "Stow",
    "A door inside that swings into something",
    "It opens half, and somebody in a hurry does not get past.",
    why_none="Hang it the other way, let it open to the other side, make it slide, or move what stands there.",
)


def inner_door_findings(s: Studied, _words: Words) -> Iterator[Finding]:
    """Do doors inside the body open, each in every mode? Yields what stands in their way."""
    if not s.build.shell.partitions:
        return
    modes = tuple(mode for mode in s.build.stow.modes if mode.id in modes_in_use(s.build))
    names = {mode.id: lower_first(mode.name) for mode in s.build.stow.modes}
    for hit in leaves_hit(s.build, s.facts, s.framed.body, modes):
        yield LEAF_HITS.found(
            f"{hit.wall_name}: its door hits {lower_first(hit.thing_name)}",
            f"It opens {hit.opens_deg:.0f}° of 90° in {names[hit.mode]}.",
            (hit.wall, hit.thing),
            number=90.0 - hit.opens_deg,
        )
