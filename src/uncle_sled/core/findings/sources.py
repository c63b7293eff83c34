"""Where every judgement comes from: the source of the place that its rule stands in, said after its reason."""

from __future__ import annotations

from uncle_sled.core.findings.finding import Finding


def source_of(code: str) -> str:
    """The source of a rule. Raises: KeyError: no rule has that code."""
    from uncle_sled.core.findings.all_findings import place_of

    return str(place_of(code).SOURCE)


def why_of(finding: Finding) -> str:
    """Its reason, and where that comes from."""
    return f"{finding.why} Source: {source_of(finding.code)} (docs/methods.md)."
