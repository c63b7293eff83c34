"""Judgements on the doors inside: what their leaves swing or slide into, and what is fixed over a pocket."""

from __future__ import annotations

from collections.abc import Iterator

from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.findings.rule import Rule
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.stow.clashes import modes_in_use
from uncle_sled.core.studies.stow.inner_doors import at_pockets, leaves_hit
from uncle_sled.core.words import Words, lower_first

SOURCE = "plane geometry of a leaf that turns or slides"  # of every rule here, said after its reason

LEAF_HITS = Rule(
    "inner-door-hits",
    "mind",
    "Stow",
    "A door inside that swings or slides into something",
    "It opens half, and somebody in a hurry does not get past.",
    why_none="Hang it the other way, let it open to the other side, make it slide, or move what stands there.",
)
ON_POCKET = Rule(
    "screws-over-pocket",
    "mind",
    "Stow",
    "Something is fixed over the pocket of a door",
    "A screw that goes through the skin there scratches the leaf, or nails it fast.",
    why_none="Glue it, fix it to the sticks beside the pocket, or let the door go to the other side.",
)


def inner_door_findings(s: Studied, words: Words) -> Iterator[Finding]:
    """Do doors inside the body open, each in every mode? Yields what is in their way, and what is screwed over a pocket."""
    if not s.build.shell.partitions:
        return
    modes = tuple(mode for mode in s.build.stow.modes if mode.id in modes_in_use(s.build))
    names = {mode.id: f" in {lower_first(mode.name)}" for mode in s.build.stow.modes}
    for hit in leaves_hit(s.build, s.facts, s.framed.body, modes):
        opened = f"It opens {90 * hit.free:.0f}° of 90°" if hit.turns else f"It slides {100 * hit.free:.0f} % of its way"
        yield LEAF_HITS.found(
            f"{hit.wall_name}: its door hits {lower_first(hit.thing_name)}",
            f"{opened}{names.get(hit.mode, '')}.",
            tuple(id for id in (hit.wall, hit.thing) if id),
            number=1.0 - hit.free,
        )
    for fixed in at_pockets(s.build, s.facts, s.framed.body, modes):
        yield ON_POCKET.found(
            f"{fixed.thing_name} stands against the pocket of {lower_first(fixed.wall_name)}",
            f"No screw over {words.thick(fixed.longest_m)} there.",
            (fixed.wall, fixed.thing),
            number=-fixed.longest_m,
        )
