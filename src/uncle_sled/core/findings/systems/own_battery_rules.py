"""Judged of what has a battery of its own: whether it lasts as it is filled, what nobody said, filling while people sleep."""

from __future__ import annotations

from collections.abc import Iterator

from uncle_sled.core.document.edits import Op, apply, set_to
from uncle_sled.core.findings.finding import Finding, Severity
from uncle_sled.core.findings.rule import Rule
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.systems.own_batteries import OnItsOwn, own_batteries
from uncle_sled.core.studies.systems.stay import USUAL_NIGHTS
from uncle_sled.core.studies.systems.systems_as_built import stay_mode
from uncle_sled.core.wiring.appliances import all_that_runs
from uncle_sled.core.words import Words, lower_first

SOURCE = "energy over power, small chargers at 85 %"
CAUTION = "Lithium packs burn: fill them where somebody is awake, off bedding, dry and above freezing, with their own charger."
SKY = "mixed"


def _by_day(s: Studied, finding: Finding) -> tuple[tuple[Op, ...], str] | None:
    """Filled by day, where it then lasts."""
    run = next((run for run in all_that_runs(s.build) if run.id == finding.where[0]), None)
    if run is None or run.battery is None or run.battery.filled == "day":
        return None
    ops = (set_to(f"{run.path}.filled", "day"),)
    after = own_batteries(apply(s.build, ops), stay_mode(s.build), SKY)
    lasts = any(thing.id == run.id and not thing.unsaid and thing.empty_days is None for thing in after.things)
    return (ops, f"Fill the {lower_first(run.name)} by day") if lasts else None


EMPTY = Rule(
    "own-empty",
    "mind",
    "Systems",
    "Something with a battery of its own that is empty before the stay is over, as it is filled",
    "It is filled where a plug is, for as long as there is power at it: what it gives between is all it has.",
    CAUTION,
    helps="edit",
    cure=_by_day,
    after=lambda _tried, _finding: "it lasts the whole stay",
    why_none="Use it less, fill it at another time, or bring a second pack.",
)
UNSAID = Rule(
    "own-unsaid",
    "note",
    "Systems",
    "Something with a battery of its own of which watts, hours or charger are not said",
    "How long it runs alone and what it takes from the battery is not checked until they are.",
    why_none="They stand on its plate and on its charger’s.",
)
ASLEEP = Rule(
    "own-by-night",
    "note",
    "Systems",
    "A battery of its own that is filled while people sleep",
    "A pack that fails does so while it is filled, and by night nobody is awake to throw it out; by night no sun feeds it either.",
    CAUTION,
    helps="edit",
    cure=_by_day,
    after=lambda _tried, _finding: "it is filled while people are up",
    why_none="Fill it by day, or outside.",
)


def own_battery_findings(s: Studied, _words: Words) -> Iterator[Finding]:
    """Silent where nothing aboard has one."""
    nights = s.build.brief.nights_off or USUAL_NIGHTS
    for thing in own_batteries(s.build, stay_mode(s.build), SKY).things:
        if thing.unsaid:
            yield UNSAID.found(f"{thing.name}: how long alone?", f"Not checked: {thing.unsaid} nobody said.", (thing.id,))
        elif thing.empty_days is not None and thing.empty_days < nights:
            own, use = thing.battery, thing.battery.use_wh or 0.0
            twice = own.filled != "home" and own.holds_wh < use <= 2 * own.holds_wh  # it can be filled once more in between
            mild: Severity | None = "note" if twice else None
            yield EMPTY.found(_title(thing), _says(thing, nights), (thing.id,), number=nights - thing.empty_days, severity=mild)
        if thing.battery.filled == "night":
            yield ASLEEP.found(f"{thing.name} is filled by night", "Its charger runs while people sleep.", (thing.id,))


def _title(thing: OnItsOwn) -> str:
    days = thing.empty_days or 0.0
    return f"{thing.name}: empty in {days * 24:.0f} h" if days < 2 else f"{thing.name}: empty after {days:.0f} days"


def _says(thing: OnItsOwn, nights: int) -> str:
    own = thing.battery
    use = own.use_wh or 0.0
    first = f"It holds {own.holds_wh:.0f} Wh and gives {use:.0f} Wh a day"
    if own.filled == "home":
        return f"{first}; it is never filled aboard, and the stay has {nights} nights."
    if use > own.holds_wh:
        return f"{first}: more than one filling."
    return f"{first}; a day wants {thing.day_fill_h or 0.0:.1f} h of filling, and there are {thing.there_h:.1f} h."
