"""All judgements of a build, worst first. Remedies are looked for apart, when the hand rests.

Two tiers: what fits a frame, and what is judged when the hand rests (``at_rest``, in the worker where there is one).
"""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial
from types import ModuleType

from msgspec.structs import replace

from uncle_sled.core.document.project import SetAside
from uncle_sled.core.engine import keep
from uncle_sled.core.findings import faulted
from uncle_sled.core.findings.balance import ball, clearances, on_the_road, towing
from uncle_sled.core.findings.build import plan_of_work
from uncle_sled.core.findings.cut import shop, within
from uncle_sled.core.findings.faulted import checked
from uncle_sled.core.findings.finding import RANK, Finding, told
from uncle_sled.core.findings.road import scale
from uncle_sled.core.findings.rule import Rule, rules_in
from uncle_sled.core.findings.shell import body, holds, inner, joints, surveyed
from uncle_sled.core.findings.stow import (
    alarm_places,
    cabinets,
    clash,
    dangerous,
    fitting,
    inner_door_leaves,
    rising,
    single_things,
    tanks,
    tie_downs,
)
from uncle_sled.core.findings.systems import (
    air_rules,
    gas_rules,
    own_battery_rules,
    power,
    supply_rules,
    toilet_rules,
    warmth,
    water_rules,
    wiring,
)
from uncle_sled.core.reading.studied import Studied, whole
from uncle_sled.core.slow import Tell, slow
from uncle_sled.core.trail import TRAIL
from uncle_sled.core.units import Shown, in_units
from uncle_sled.core.words import Words

WORSE_BY = 0.1
# Where a check stands, its rules stand beside it; here is the one list of the places, by when they are judged.
# What fits a frame, by place.
IN_FRAME = (
    (ball, ball.balance_findings),
    (clearances, clearances.clearance_findings),
    (on_the_road, on_the_road.road_findings),
    (body, body.shell_findings),
    (inner, inner.inner_findings),
    (surveyed, surveyed.survey_findings),
    (single_things, single_things.stow_findings),
    (tanks, tanks.tank_findings),
    (clash, clash.clash_findings),
)
# What is judged when the hand rests, by place.
AT_REST = (
    (towing, towing.towing_findings),
    (holds, holds.holds_findings),
    (joints, joints.joint_findings),
    (fitting, fitting.fitting_findings),
    (tie_downs, tie_downs.held_findings),
    (cabinets, cabinets.built_findings),
    (inner_door_leaves, inner_door_leaves.inner_door_findings),
    (rising, rising.rising_findings),
    (dangerous, dangerous.danger_findings),
    (alarm_places, alarm_places.alarm_findings),
    (power, power.power_findings),
    (own_battery_rules, own_battery_rules.own_battery_findings),
    (wiring, wiring.wiring_findings),
    (supply_rules, supply_rules.supply_findings),
    (water_rules, water_rules.water_findings),
    (toilet_rules, toilet_rules.toilet_findings),
    (gas_rules, gas_rules.gas_findings),
    (air_rules, air_rules.air_findings),
    (warmth, warmth.warmth_findings),
    (within, within.within_findings),
    (shop, shop.cut_findings),
    (plan_of_work, plan_of_work.build_findings),
    (scale, scale.scale_findings),
)
COSTLY = (holds, joints, fitting, plan_of_work, towing, within, shop)  # the dearest last
PLACES = (*(place for place, _ in (*IN_FRAME, *AT_REST)), faulted)
RULES: dict[str, Rule] = {rule.code: rule for place in PLACES for rule in rules_in(place)}
_PLACE_OF = {rule.code: place for place in PLACES for rule in rules_in(place)}


def place_of(code: str) -> ModuleType:
    """The module that a rule stands in. Raises: KeyError: no rule has that code."""
    return _PLACE_OF[code]


@keep(most=6)
def findings(studied: Studied) -> tuple[Finding, ...]:
    """Every finding without its remedy, stops first; of one code and place the first only."""
    return merged(studied, _in_frame(studied, _words(studied)), _at_rest(studied))


@slow(whole, lane="findings")
def at_rest(studied: Studied, tell: Tell) -> tuple[Finding, ...]:
    """What is judged when the hand rests: who fits and gets out, and what holds things."""
    tell(None, "judging how one gets about")
    return _at_rest(studied)


@keep(most=6)
def findings_now(studied: Studied, rested: tuple[Finding, ...]) -> tuple[Finding, ...]:
    """All findings of a build, those of the slower tier as they were last judged."""
    return merged(studied, _in_frame(studied, _words(studied)), rested)


@keep(most=6)
def findings_in_hand(studied: Studied, taken_up: Studied, mode: str, rested: tuple[Finding, ...]) -> tuple[Finding, ...]:
    """The same while a hand drags in a mode: clashes of the other modes stay those of when it was taken up."""
    return merged(studied, _in_frame(studied, _words(studied), mode), (*rested, *_elsewhere(taken_up, mode)))


@keep(most=2)
def _elsewhere(taken_up: Studied, mode: str) -> tuple[Finding, ...]:
    words = _words(taken_up)
    others = [m.id for m in taken_up.build.stow.modes if m.id != mode]
    return tuple([found for other in others for found in _clashes(taken_up, words, other)])


def _words(s: Studied) -> Words:
    return Words(s.build.brief.reading.shown())


def _in_frame(s: Studied, words: Words, only: str | None = None) -> tuple[Finding, ...]:
    before = [found for place, check in IN_FRAME if place is not clash for found in checked(check, s, words)]
    return (*before, *_clashes(s, words, only))


def _clashes(s: Studied, words: Words, only: str | None) -> Iterator[Finding]:
    """Clashes of one mode, or of all."""
    check = partial(clash.clash_findings, only=only)
    check.__name__ = clash.clash_findings.__name__  # type: ignore[attr-defined]  # said where it falls
    return checked(check, s, words)


@keep(most=4)
def _at_rest(s: Studied) -> tuple[Finding, ...]:
    words = _words(s)
    return tuple([found for _, check in AT_REST for found in checked(check, s, words)])


def judged(s: Studied, first: str) -> Iterator[Finding]:
    """The findings of a build one by one, as they are judged, for whoever stops at the first that decides.

    Each key once, in no order but this: the place of the code ``first`` before all others, and what asks much last.
    """
    words, aside, seen = _words(s), {said.id: said for said in s.build.set_aside}, set()
    soonest = {place: at for at, place in enumerate(COSTLY, 1)} | {_PLACE_OF.get(first): -1}
    for _, check in sorted((*IN_FRAME, *AT_REST), key=lambda one: soonest.get(one[0], 0)):
        for found in checked(check, s, words):
            if found.key not in seen:
                seen.add(found.key)
                yield _aside(found, aside.get(found.id))


def merged(studied: Studied, *tiers: tuple[Finding, ...]) -> tuple[Finding, ...]:
    """Findings of several tiers as one list, each once, those set aside last."""
    aside, words = {said.id: said for said in studied.build.set_aside}, _words(studied)
    seen: dict[tuple[str, tuple[str, ...]], Finding] = {}
    for tier in tiers:
        for found in tier:
            if found.key not in seen:
                seen[found.key] = told(_aside(found, aside.get(found.id)) if aside else found, words)
    return tuple(sorted(seen.values(), key=lambda f: (f.set_aside is not None, RANK[f.severity], TRAIL.index(f.stop))))


def with_answers(found: tuple[Finding, ...], settled: tuple[Finding, ...]) -> tuple[Finding, ...]:
    """Findings, each with the remedy (or the reason for none) that was found for it."""
    by_key = {finding.key: finding for finding in settled}
    return tuple([by_key.get(finding.key, finding) for finding in found])


def _aside(found: Finding, said: SetAside | None) -> Finding:
    """A finding set aside stays so until its number worsens by a tenth."""
    if said is None or (found.number is not None and said.number is not None and found.number > said.number + WORSE_BY * abs(said.number)):
        return found
    return replace(found, set_aside=said)


def table_of_codes() -> str:
    """Every code with what it finds, as a table for the docs (Markdown)."""
    rows = ["| Code | Stop | At worst | What it finds | What is tried |", "|---|---|---|---|---|"]
    tried = {"nothing": "", "edit": "one plain edit", "moves": "moves", "free place": "the nearest free place"}
    for rule in sorted(RULES.values(), key=lambda r: (TRAIL.index(r.stop), RANK[r.severity], r.code)):
        rows.append(f"| `{rule.code}` | {rule.stop} | {rule.severity} | {rule.when} | {tried[rule.helps]} |")
    return in_units("\n".join(rows) + "\n", Shown())
