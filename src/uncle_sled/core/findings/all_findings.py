"""All judgements of a build, worst first. Remedies are looked for apart, when the hand rests."""

from __future__ import annotations

from msgspec.structs import replace

from uncle_sled.core.document.project import SetAside
from uncle_sled.core.engine import keep_last
from uncle_sled.core.findings.balance.ball import balance_findings
from uncle_sled.core.findings.balance.clearances import clearance_findings
from uncle_sled.core.findings.finding import RANK, TRAIL, Finding, to_settle
from uncle_sled.core.findings.shell.body import shell_findings
from uncle_sled.core.findings.stow.fitting import clash_findings, fitting_findings
from uncle_sled.core.findings.stow.held import held_findings
from uncle_sled.core.findings.stow.tanks import tank_findings
from uncle_sled.core.findings.stow.things import stow_findings
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.words import Words

__all__ = ["TRAIL", "findings", "findings_in_hand", "to_settle"]
WORSE_BY = 0.1


@keep_last(6)
def findings(studied: Studied) -> tuple[Finding, ...]:
    """Every finding without its remedy, stops first; of one code and place the first only."""
    words = Words(studied.build.brief.reading.shown())
    return _judged(studied, (*_in_frame(studied, words), *_at_rest(studied, words)))


@keep_last(6)
def findings_in_hand(studied: Studied, rested: Studied, mode: str) -> tuple[Finding, ...]:
    """The same while a hand drags in a mode: what takes longer than a frame is kept from when it last rested."""
    words = Words(studied.build.brief.reading.shown())
    return _judged(studied, (*_in_frame(studied, words, mode), *_rested(rested, mode)))


@keep_last(2)
def _rested(rested: Studied, mode: str) -> tuple[Finding, ...]:
    words = Words(rested.build.brief.reading.shown())
    others = [m.id for m in rested.build.stow.modes if m.id != mode]
    return (*_at_rest(rested, words), *(found for one in others for found in clash_findings(rested, words, one)))


def _in_frame(s: Studied, words: Words, only: str | None = None) -> tuple[Finding, ...]:
    return (
        *balance_findings(s, words),
        *clearance_findings(s, words),
        *shell_findings(s, words),
        *stow_findings(s, words),
        *tank_findings(s, words),
        *clash_findings(s, words, only),
    )


def _at_rest(s: Studied, words: Words) -> tuple[Finding, ...]:
    return (*fitting_findings(s, words), *held_findings(s, words))


def _judged(studied: Studied, all_found: tuple[Finding, ...]) -> tuple[Finding, ...]:
    aside = {said.id: said for said in studied.build.set_aside}
    seen: dict[tuple[str, tuple[str, ...]], Finding] = {}
    for found in all_found:
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
