"""What stops the work that a paper is for, in words: nobody cuts, wires or lifts by a paper that keeps it to itself."""

from __future__ import annotations

from collections.abc import Collection

from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.findings.finding import Finding, told
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.words import Words


def stops_of(s: Studied, stops: Collection[str] = (), codes: Collection[str] = (), where: Collection[str] = ()) -> tuple[Finding, ...]:
    """Findings that stop it, set aside or not: of these stops of the trail or of these codes; with ``where`` of these things only."""
    words = Words(s.build.brief.reading.shown())
    found = [f for f in findings(s) if f.severity == "stop" and (f.stop in stops or f.code in codes)]
    return tuple(told(f, words) for f in found if not where or set(f.where) & set(where))


def stop_words(s: Studied, stops: Collection[str] = (), codes: Collection[str] = (), where: Collection[str] = ()) -> list[str]:
    """The same as sentences."""
    return [f"{f.title}: {f.says}" for f in stops_of(s, stops, codes, where)]
