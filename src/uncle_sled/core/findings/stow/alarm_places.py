"""Judgements on where alarms hang."""

from __future__ import annotations

from collections.abc import Iterator

from uncle_sled.core.document.edits import Op, set_to
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.findings.rule import Rule
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.stow.alarm_places import HIGH_M, LOW_M, AlarmPlace, misplaced
from uncle_sled.core.words import Words, lower_first

SOURCE = "the usual rules of alarms' places; their own papers decide"  # of every rule here, said after its reason
CAUTION = "Screening only: its papers and local rules decide. Test it every month, and mind its last day."


def _where_right(s: Studied, finding: Finding) -> tuple[tuple[Op, ...], str] | None:
    found = next((one for one in misplaced(s) if one.id == finding.where[0]), None)
    if found is None:
        return None
    return (set_to(f"stow.things.{found.id}.z", {"si": round(found.z_m, 4), "typed": None}),), f"Hang the {found.role} where it is right"


GAS_HIGH = Rule(
    "gas-alarm-high",
    "mind",
    "Stow",
    f"A gas alarm over {{{LOW_M * 1000:.0f} mm}} from the floor",
    "Propane and butane are heavier than air and lie along the floor.",
    CAUTION,
    helps="edit",
    cure=_where_right,
    after=lambda _tried, _finding: "it is low down",
    why_none="Another free place near the floor.",
)
SMOKE_LOW = Rule(
    "smoke-alarm-low",
    "mind",
    "Stow",
    f"A smoke alarm over {{{HIGH_M * 1000:.0f} mm}} under the ceiling",
    "Smoke gathers under the ceiling; lower down it warns late.",
    CAUTION,
    helps="edit",
    cure=_where_right,
    after=lambda _tried, _finding: "it is under the ceiling",
    why_none="Another free place under the ceiling.",
)
CO_LOW = Rule(
    "co-alarm-low",
    "mind",
    "Stow",
    "A CO alarm lower than those who sleep",
    "It tells of the air down there, and not of the air that they breathe.",
    CAUTION,
    helps="edit",
    cure=_where_right,
    after=lambda _tried, _finding: "it is where they breathe",
    why_none="Another free place beside the heads.",
)
RULE_OF = {"gas alarm": GAS_HIGH, "smoke alarm": SMOKE_LOW, "CO alarm": CO_LOW}


def alarm_findings(s: Studied, words: Words) -> Iterator[Finding]:
    """Does every alarm hang where what it warns of comes first?"""
    for one in misplaced(s):
        yield RULE_OF[one.role].found(
            f"{one.name} hangs {_amiss(one)}", f"By {words.thick(one.off_m)}: {_why(one)}.", (one.id,), number=one.off_m
        )


def _amiss(one: AlarmPlace) -> str:
    return "too high" if one.role == "gas alarm" else "too low"


def _why(one: AlarmPlace) -> str:
    return {
        "gas alarm": f"its top is to be within {{{LOW_M * 1000:.0f} mm}} of the floor",
        "smoke alarm": f"its top is to be within {{{HIGH_M * 1000:.0f} mm}} of the ceiling over it",
        "CO alarm": f"the lowest bed is over {lower_first(one.name)}",
    }[one.role]
