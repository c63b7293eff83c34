"""What stops the work that a paper is for, in words: nobody cuts, wires or lifts by a paper that keeps it to itself."""

from __future__ import annotations

from collections.abc import Collection

from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.findings.finding import told
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.words import Words


def stop_words(s: Studied, stops: Collection[str], where: Collection[str] = ()) -> list[str]:
    """Findings of these stops of the trail that stop it, set aside or not, as sentences; with ``where`` of these things only."""
    words, here = Words(s.build.brief.reading.shown()), set(where)
    found = [f for f in findings(s) if f.severity == "stop" and f.stop in stops and (not here or here & set(f.where))]
    return [f"{f.title}: {f.says}" for f in (told(f, words) for f in found)]
