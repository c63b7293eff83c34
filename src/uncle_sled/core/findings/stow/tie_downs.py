"""Judgements on what holds things on the road, and the straps that would."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from uncle_sled.core.document.edits import Op, set_to
from uncle_sled.core.document.quantity import Mass
from uncle_sled.core.document.stow import Hold
from uncle_sled.core.findings.finding import Finding, Severity
from uncle_sled.core.findings.rule import Rule
from uncle_sled.core.parts.holding import capacities_n
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.stow.latches import latches
from uncle_sled.core.studies.stow.restraints import WAY_WORDS, Restraint, restraints
from uncle_sled.core.units import GRAVITY
from uncle_sled.core.words import Words, lower_first

SOURCE = "direct lashing, EN 12195-1, and cargo practice"  # of every rule here, said after its reason

STRAP_KG, BOLT_KG = 250.0, 300.0  # working loads of a 25 mm strap with its ring, and of an M8 through framing
WHY = "Design pulls of 1.0 g fore and aft, 0.8 g sideways, 1.0 g up; a vehicle aboard twice its mass."
CAUTION = "Screening only: what flies in a stop can kill. Rings and straps hold what their makers say."


def hold_remedy(s: Studied, finding: Finding) -> tuple[tuple[Op, ...], str] | None:
    """Enough straps, or bolts for what is heavy and stays; of many loose things all at once."""
    found = [r for r in restraints(s.build, s.table) if r.id in finding.where]
    if not found:
        return None
    words = Words(s.build.brief.reading.shown())
    ops, says = [], ""
    for restraint in found:
        pull = restraint.along_n / GRAVITY
        heavy = pull > 4 * STRAP_KG
        kind: Literal["bolt", "strap"] = "bolt" if heavy else "strap"
        each = BOLT_KG if heavy else STRAP_KG
        many = _enough(restraint, kind, each)
        into = "frame" if restraint.vehicle or heavy else "framing"
        record = {"kind": kind, "many": many, "rated": {"si": each, "typed": None}, "into": into}
        ops.append(set_to(f"stow.things.{restraint.id}.hold", record))
        says = f"Hold the {lower_first(restraint.name)} with {many} {kind}s good for {words.kg(each)} each"
    if len(found) > 1:
        says = f"Two straps good for {words.kg(STRAP_KG)} each over each of the {len(found)}, more where it is heavy"
    return tuple(ops), says


def _enough(hold: Restraint, kind: Literal["bolt", "strap"], each_kg: float) -> int:
    """The least even number of straps, or of bolts, that holds a thing every way."""
    for many in range(2, 200, 2 if kind == "strap" else 1):
        has = capacities_n(Hold(kind, many, Mass(each_kg)), hold.mass_kg * GRAVITY, 0.0)
        if all(has[way] >= wanted for way, wanted in hold.wanted_n.items()):
            return many
    return 200


HELD = {
    "weak": Rule(
        "held-weak", "stop", "Stow", "What holds a thing is weaker than its pull in a stop", WHY, CAUTION, helps="edit", cure=hold_remedy
    ),
    "jumps": Rule("held-jumps", "mind", "Stow", "A thing held sideways, but not down", WHY, CAUTION, helps="edit", cure=hold_remedy),
    "skin": Rule(
        "held-skin",
        "mind",
        stop="Stow",
        when="A heavy thing tied to the floor's skin",
        why=WHY,
        caution=CAUTION,
        why_none="Carry the rings down to the frame.",
    ),
}


LATCH_OPENS = Rule(
    "latch-opens",
    "mind",
    stop="Stow",
    when="A cupboard's latch is weaker than what leans on its door",
    why="In a stop everything inside leans on the door with its whole weight.",
    caution=CAUTION,
    why_none="A stronger latch, a lip inside, or a door that slides across the travel.",
)


HELD_UNRATED = Rule(
    "held-unrated",
    "note",
    "Stow",
    "What holds a thing has no rating",
    WHY,
    caution=CAUTION,
    why_none="Type the working load that stands on strap, ring or latch.",
)


def _latch_findings(s: Studied, words: Words) -> Iterator[Finding]:
    for latched in latches(s.build):
        if latched.fault == "weak":
            yield LATCH_OPENS.found(
                f"{latched.name} opens in a stop",
                f"{words.fine_newtons(latched.leans_n or 0.0)} lean on its door to the {latched.opens}; its latch holds {words.fine_newtons(latched.holds_n or 0.0)}.",
                (latched.id,),
                number=latched.leans_n,
            )


def held_findings(s: Studied, words: Words) -> Iterator[Finding]:
    """Is everything held on the road, with what holds as much as it has to? Yields what is not."""
    yield from _latch_findings(s, words)
    found = restraints(s.build, s.table)
    things = {thing.id: thing for thing in s.build.stow.things}
    begun = any(restraint.hold is not None or things[restraint.id].held_by for restraint in found)
    unrated = [
        restraint for restraint in found if restraint.fault == "unrated" or (restraint.fault == "loose" and things[restraint.id].held_by)
    ]
    loose = [restraint for restraint in found if restraint.fault == "loose" and not things[restraint.id].held_by]
    for hold in found:
        if hold.fault in ("weak", "jumps", "skin"):
            yield _finding(hold, words)
    if loose:
        yield _loose(sorted(loose, key=lambda restraint: -restraint.mass_kg), begun, words)
    if unrated:
        heaviest = sorted(unrated, key=lambda restraint: -restraint.mass_kg)
        yield HELD_UNRATED.found(
            _many(len(unrated), "hangs", "hang") + " on something unrated",
            f"Nobody said what holds {_names(heaviest)} is good for.",
            tuple(restraint.id for restraint in heaviest),
            number=float(len(unrated)),
        )


def _many(count: int, one: str, more: str) -> str:
    return f"1 thing {one}" if count == 1 else f"{count} things {more}"


def _names(heaviest: list[Restraint]) -> str:
    names = [lower_first(hold.name) for hold in heaviest[:3]]
    return ", ".join(names) + (" and others" if len(heaviest) > 3 else "")


HELD_LOOSE = Rule("held-loose", "mind", "Stow", "Nothing is said to hold a thing", WHY, caution=CAUTION, helps="edit", cure=hold_remedy)


def _loose(heaviest: list[Restraint], begun: bool, words: Words) -> Finding:
    """One line for all of them; a mere note while nobody has begun with holding things down."""
    total = sum(hold.along_n for hold in heaviest) / GRAVITY
    return HELD_LOOSE.found(
        _many(len(heaviest), "rides", "ride") + " loose",
        f"Nothing is said to hold {_names(heaviest)}: {words.kg(total)} of pull in a stop.",
        tuple(hold.id for hold in heaviest),
        number=total,
        severity="mind" if begun else "note",
    )


def _finding(hold: Restraint, words: Words) -> Finding:
    pull = words.kg(hold.along_n / GRAVITY)
    title, says = {
        "weak": (f"{hold.name} is held too weakly", _weak_words(hold, words)),
        "jumps": (
            f"{hold.name} can jump out",
            f"A {hold.hold.kind if hold.hold else 'lip'} holds it sideways, but not down: {words.kg(hold.wanted_n['up'] / GRAVITY)} upward over a bump.",
        ),
        "skin": (f"{hold.name} is tied to the skin", f"{pull} fore and aft tears out of a floor skin; its rings belong into the frame."),
    }[hold.fault]
    severity: Severity = "stop" if hold.fault == "weak" and hold.vehicle else "mind"
    return HELD[hold.fault].found(title, says, (hold.id,), number=hold.along_n, severity=severity)


def _weak_words(hold: Restraint, words: Words) -> str:
    """The weakest direction, what it must hold and what holds it there."""
    least = hold.weakest
    if least is None:
        return "What holds it has no rating."
    took = " Angles of 45° were taken, since nobody measured them." if hold.assumed else ""
    return f"It pulls {words.kg(least.wanted_n / GRAVITY)} {WAY_WORDS[least.way]}; what holds it is good for {words.kg(least.capacity_n / GRAVITY)} that way.{took}"


def held_words(s: Studied, id: str, words: Words) -> str:
    """What holds a thing against what it pulls, for the end of a remedy's sentence."""
    found = next((r for r in restraints(s.build, s.table) if r.id == id), None)
    least = found.weakest if found is not None else None
    if least is None:
        return "held"
    return f"{words.kg(least.capacity_n / GRAVITY)} {WAY_WORDS[least.way]} against a pull of {words.kg(least.wanted_n / GRAVITY)}"
