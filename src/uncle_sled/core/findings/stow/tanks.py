"""Judgements on tanks: their shape, their levels, and the habit of equal jugs."""

from __future__ import annotations

from collections.abc import Iterator

from uncle_sled.core.document.edits import Op, set_to
from uncle_sled.core.document.stow import LoadCase, Thing
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.findings.rule import Rule
from uncle_sled.core.geometry.vessel import outline_fault, vessel_of
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.words import Words, lower_first

SOURCE = "volumes and moments of what the tanks hold"  # of every rule here, said after its reason

TOL_M3 = 1e-6


def match_ops(fresh: Thing, grey: Thing) -> tuple[Op, ...]:
    """Ops that make a grey tank the twin of a fresh one, where it stands."""
    assert fresh.tank and fresh.tank.volume
    path = f"stow.things.{grey.id}"
    made = [
        set_to(f"{path}.{field}", getattr(fresh, field))
        for field in ("length", "width", "height", "mass")
        if getattr(fresh, field) != getattr(grey, field)
    ]
    shape = {name: getattr(fresh.tank, name) for name in ("volume", "shape", "axis", "thin", "thin_height", "slant", "outline")}
    return (*made, *(set_to(f"{path}.tank.{name}", value) for name, value in shape.items()))


def _right_level(s: Studied, finding: Finding) -> tuple[tuple[Op, ...], str] | None:
    thing = next(t for t in s.build.stow.things if t.id == finding.where[0])
    case = next(c for c in s.build.stow.cases if c.id == finding.where[1])
    now = next(level.level for level in case.levels if level.id == thing.id)
    right = 1.0 if now > 1 else 0.0
    ops = (set_to(f"stow.cases.{case.id}.levels.{thing.id}.level", right),)
    return ops, f"Have the {lower_first(thing.name)} {'full' if right else 'empty'} there"


def _as_large(s: Studied, finding: Finding) -> tuple[tuple[Op, ...], str] | None:
    """The grey tank as large as the fresh one, where there is one of each."""
    fresh = [t for t in s.build.stow.things if t.tank and t.tank.contents == "fresh" and t.tank.volume]
    grey = [t for t in s.build.stow.things if t.id in finding.where]
    if len(fresh) != 1 or len(grey) != 1:
        return None
    says = f"Take a {lower_first(grey[0].name)} as large as the {lower_first(fresh[0].name)}"
    return match_ops(fresh[0], grey[0]), says


def tank_findings(s: Studied, words: Words) -> Iterator[Finding]:
    """Are tanks what they say, and do they stand where their kind may? Yields what does not."""
    for thing in s.build.stow.things:
        if thing.tank is not None:
            yield from _shape(thing, words)
    yield from _levels(s)
    yield from _equal_jugs(s, words)


TANK_OUTLINE = Rule(
    "tank-outline",
    "mind",
    "Stow",
    "A tank's own outline is none",
    "An outline is three corners or more, going round once, within the tank's own box.",
    why_none="Draw it again in In hand, or take a shape from the list.",
)
TANK_NEGATIVE = Rule(
    "tank-negative",
    "mind",
    "Stow",
    "A tank that holds less than nothing",
    "A tank holds nothing or more.",
    why_none="Type how much it holds.",
)
TANK_TOO_SMALL = Rule(
    "tank-too-small",
    "mind",
    "Stow",
    "A tank said to hold more than its outside",
    "A tank holds less than its outside.",
    why_none="Measure the tank again, or type the right volume.",
)


def _shape(thing: Thing, words: Words) -> Iterator[Finding]:
    assert thing.tank is not None
    fault = outline_fault(thing.tank)
    if fault is not None:
        yield TANK_OUTLINE.found(
            f"The outline of {lower_first(thing.name)} {fault}",
            "It is drawn and reckoned as a box until its outline is right.",
            (thing.id,),
        )
    held, vessel = thing.tank.volume, vessel_of(thing)
    if held is not None and held.si < 0:
        yield TANK_NEGATIVE.found(
            f"{thing.name} holds less than nothing",
            f"{words.m3(held.si)} cannot be; it is taken as empty. Its outside is {words.m3(vessel.volume_m3)}."
            if vessel
            else f"{words.m3(held.si)} cannot be; it is taken as empty.",
            (thing.id,),
        )
    elif held is not None and vessel is not None and held.si > vessel.volume_m3 + TOL_M3:
        yield TANK_TOO_SMALL.found(
            f"{thing.name} cannot hold that",
            f"{thing.name} is said to hold {words.m3(held.si)}, but its outside is {words.m3(vessel.volume_m3)}.",
            (thing.id,),
        )


def _levels(s: Studied) -> Iterator[Finding]:
    tanks = {t.id: t for t in s.build.stow.things if t.tank}
    for case in s.build.stow.cases:
        for level in case.levels:
            thing = tanks.get(level.id)
            if thing is not None and not 0.0 <= level.level <= 1.0:
                yield _odd_level(case, thing, level.level)


LEVEL_ODD = Rule(
    "level-odd",
    "mind",
    "Stow",
    "A tank more than full or less than empty in a case",
    "A tank is between empty and full, 0 to 100 %.",
    helps="edit",
    cure=_right_level,
)


def _odd_level(case: LoadCase, thing: Thing, level: float) -> Finding:
    return LEVEL_ODD.found(
        f"{thing.name} is {level:.0%} full".replace("%", " %"),
        f"{case.name} has it at {level:.0%}; it is reckoned as {'full' if level > 1 else 'empty'}.".replace("%", " %"),
        (thing.id, case.id),
        number=abs(level),
    )


def volumes_m3(s: Studied) -> tuple[float, float]:
    """What all fresh and all grey tanks hold [m3]."""
    sums = {"fresh": 0.0, "grey": 0.0}
    for thing in s.build.stow.things:
        if thing.tank and thing.tank.volume and thing.tank.contents in sums and not thing.taken_out:
            sums[thing.tank.contents] += max(thing.tank.volume.si, 0.0)
    return sums["fresh"], sums["grey"]


GREY_SMALL = Rule(
    "grey-small",
    "note",
    "Stow",
    "Less grey than fresh",
    "Equal containers, filled and emptied in turn, are the habit to keep.",
    helps="edit",
    cure=_as_large,
)


def _equal_jugs(s: Studied, words: Words) -> Iterator[Finding]:
    fresh, grey = volumes_m3(s)
    if grey > 0 and grey < fresh - TOL_M3:
        greys = tuple(t.id for t in s.build.stow.things if t.tank and t.tank.contents == "grey")
        yield GREY_SMALL.found(
            "Less grey than fresh",
            f"Fresh holds {words.m3(fresh)}, grey {words.m3(grey)}: it runs over before fresh is empty.",
            greys,
            number=fresh - grey,
        )
