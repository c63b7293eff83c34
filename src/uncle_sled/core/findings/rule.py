"""A rule is a record beside its check: what it finds, how bad, whose stop it is, why, and what helps.

The table of all codes in docs/findings.md is printed from these records.
"""

from __future__ import annotations

from collections.abc import Callable
from types import ModuleType
from typing import Literal

import msgspec

from uncle_sled.core.document.edits import Op
from uncle_sled.core.findings.finding import Finding, Severity
from uncle_sled.core.reading.studied import Studied

# What a finding's remedy is looked for among: one plain edit, places that shift the balance, the nearest free place.
Helps = Literal["nothing", "edit", "moves", "free place"]
# The ops of one plain edit that settles a finding, and what they do in words; None where it cannot be had.
Cure = Callable[[Studied, Finding], tuple[tuple[Op, ...], str] | None]


def rules_in(place: ModuleType) -> tuple[Rule, ...]:
    """Every rule that stands in a module, alone or in a table of its own: a rule enters itself by being there.

    Of two with one code the later stands: it says more of what the table says shortly.
    """
    found: dict[str, Rule] = {}
    for var in vars(place).values():
        for rule in var.values() if isinstance(var, dict) else (var,):
            if isinstance(rule, Rule):
                found[rule.code] = rule
    return tuple(found.values())


class Rule(msgspec.Struct, frozen=True):
    """``severity`` is the worst that it says; ``when`` stands in the table of codes.

    ``more``: cures that are tried after the first; ``after``: what a tried cure leaves, in words, where that is not the ball;
    ``why_none``: what to do by hand where nothing helps by itself, or what was tried does not do.
    """

    code: str
    severity: Severity
    stop: str
    when: str
    why: str
    caution: str = ""
    why_none: str | None = None
    helps: Helps = "nothing"
    cure: Cure | None = None
    more: tuple[Cure, ...] = ()
    after: Callable[[Studied, Finding], str] | None = None

    def found(
        self,
        title: str,
        says: str,
        where: tuple[str, ...],
        case_id: str | None = None,
        number: float | None = None,
        severity: Severity | None = None,
        why: str | None = None,
        why_none: str | None = None,
    ) -> Finding:
        """What the rule found: its numbers, and where. ``why`` and ``why_none`` only where they differ from the rule's,
        ``severity`` where it is milder than the rule's, which is the worst it gives.
        """
        return Finding(
            code=self.code,
            severity=severity or self.severity,
            stop=self.stop,
            title=title,
            says=says,
            why=self.why if why is None else why,
            where=where,
            case_id=case_id,
            number=number,
            caution=self.caution,
            # where something helps by itself that is tried first; what the rule says stands only where it did not do
            why_none=(self.why_none if self.helps == "nothing" else None) if why_none is None else why_none,
        )
