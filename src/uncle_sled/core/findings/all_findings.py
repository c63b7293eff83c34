"""All judgements of a build, worst first. Remedies are looked for apart, when the hand rests."""

from __future__ import annotations

from dataclasses import replace

from uncle_sled.core.document.project import SetAside
from uncle_sled.core.engine import keep_last
from uncle_sled.core.findings.balance import balance_findings
from uncle_sled.core.findings.finding import RANK, Finding
from uncle_sled.core.findings.fitting import fitting_findings
from uncle_sled.core.findings.held import held_findings
from uncle_sled.core.findings.shell import shell_findings
from uncle_sled.core.findings.stow import stow_findings
from uncle_sled.core.findings.tanks import tank_findings
from uncle_sled.core.findings.words import Words
from uncle_sled.core.studies.reading import Studied

WORSE_BY = 0.1
TRAIL = ("Brief", "Rig", "Shell", "Stow", "Balance", "Systems", "Cut", "Build", "Road")


@keep_last(6)
def findings(studied: Studied) -> tuple[Finding, ...]:
    """Every finding without its remedy, stops first; of one code and place the first only."""
    aside = {said.id: said for said in studied.build.set_aside}
    words = Words(studied.build.brief.reading.shown())
    seen: dict[tuple[str, tuple[str, ...]], Finding] = {}
    for found in (
        *balance_findings(studied, words),
        *shell_findings(studied, words),
        *stow_findings(studied, words),
        *tank_findings(studied),
        *fitting_findings(studied, words),
        *held_findings(studied, words),
    ):
        seen.setdefault(found.key, _aside(found, aside.get(found.id)))
    return tuple(sorted(seen.values(), key=lambda f: (f.set_aside is not None, RANK[f.severity], TRAIL.index(f.stop))))


def _aside(found: Finding, said: SetAside | None) -> Finding:
    """A finding set aside stays so until its number worsens by a tenth."""
    if said is None or (
        found.number is not None
        and said.number is not None
        and found.number > said.number + WORSE_BY * abs(said.number)
    ):
        return found
    return replace(found, set_aside=said)


def to_settle(found: tuple[Finding, ...], stop: str | None = None) -> int:
    """How many stop and mind findings there are, of one stop of the trail or of all."""
    return sum(1 for f in found if f.severity != "note" and f.set_aside is None and (stop is None or f.stop == stop))
