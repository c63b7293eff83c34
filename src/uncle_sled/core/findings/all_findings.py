"""All judgements of a build, worst first. Remedies are looked for apart, when the hand rests."""

from __future__ import annotations

from uncle_sled.core.engine import keep_last
from uncle_sled.core.findings.balance import balance_findings
from uncle_sled.core.findings.finding import RANK, Finding
from uncle_sled.core.findings.stow import stow_findings
from uncle_sled.core.findings.words import Words
from uncle_sled.core.studies.reading import Studied

TRAIL = ("Brief", "Rig", "Shell", "Stow", "Balance", "Systems", "Cut", "Build", "Road")


@keep_last(6)
def findings(studied: Studied) -> tuple[Finding, ...]:
    """Every finding without its remedy, stops first; of one code and place the first only."""
    words = Words(studied.build.brief.reading.shown())
    seen: dict[tuple[str, tuple[str, ...]], Finding] = {}
    for found in (*balance_findings(studied, words), *stow_findings(studied, words)):
        seen.setdefault(found.key, found)
    return tuple(sorted(seen.values(), key=lambda f: (RANK[f.severity], TRAIL.index(f.stop))))


def to_settle(found: tuple[Finding, ...], stop: str | None = None) -> int:
    """How many stop and mind findings there are, of one stop of the trail or of all."""
    return sum(1 for f in found if f.severity != "note" and (stop is None or f.stop == stop))
