"""Judgements on water: how long it lasts, where the grey goes, and what freezes."""

from __future__ import annotations

from collections.abc import Iterator

from uncle_sled.core.document.edits import Op, set_to
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.findings.rule import Rule
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.stow.dangers import WATERS
from uncle_sled.core.studies.systems.bank import stands_outside
from uncle_sled.core.studies.systems.frost import NIGHT_H, Frost, frost_of
from uncle_sled.core.studies.systems.heat import heaters_of
from uncle_sled.core.studies.systems.systems_as_built import the_water
from uncle_sled.core.studies.systems.water import LEAST_TRAP_M
from uncle_sled.core.wiring.appliances import figures_of
from uncle_sled.core.words import Words, lower_first

SOURCE = "litres a day against what is aboard"  # of every rule here, said after its reason

MOST_GROWN = 2.5
CAUTION = "Drinking water wants tanks and hoses made for it."


def _bigger_tank(s: Studied, _finding: Finding) -> tuple[tuple[Op, ...], str] | None:
    """The largest fresh tank grown in length by what is lacking, its weight with it."""
    made = the_water(s)
    tanks = [t for t in s.build.stow.things if t.tank and t.tank.contents == "fresh" and t.tank.volume and not t.taken_out]
    if not tanks or made.wanted_days is None:
        return None
    tank = max(tanks, key=lambda t: t.tank.volume.si if t.tank and t.tank.volume else 0.0)
    assert tank.tank is not None and tank.tank.volume is not None
    lacking = made.need_l_day * made.wanted_days - made.fresh_l
    grown = (tank.tank.volume.si * 1000 + lacking) / (tank.tank.volume.si * 1000)
    if not 1 < grown <= MOST_GROWN:
        return None
    path = f"stow.things.{tank.id}"
    litres = tank.tank.volume.si * grown
    ops = (
        set_to(f"{path}.tank.volume", {"si": round(litres, 5), "typed": None}),
        set_to(f"{path}.length", {"si": round(tank.length.si * grown, 3), "typed": None}),
        set_to(f"{path}.mass", {"si": round(tank.mass.si * grown, 2), "typed": None}),
    )
    return ops, f"Take a {lower_first(tank.name)} of {Words(s.build.brief.reading.shown()).m3(litres)}"


WATER_SHORT = Rule(
    "water-short",
    "mind",
    "Systems",
    "Less fresh water than the days between two fillings",
    "The first thing that one drives home for.",
    CAUTION,
    helps="edit",
    cure=_bigger_tank,
    why_none="A larger tank, a second one, or filling up on the way.",
)
GREY_SHORT = Rule(
    "grey-short",
    "mind",
    "Systems",
    "A grey tank that is full before the days are over",
    "What comes back has to go somewhere, and not on the ground.",
    why_none="A grey tank as large as what is used, or a jug beside it.",
)
UNVENTED = Rule(
    "tank-unvented",
    "mind",
    "Systems",
    "A tank that takes in no air",
    "It is sucked flat, or the pump starves.",
    helps="edit",
    cure=lambda _s, _finding: ((set_to("systems.water.vented", "yes"),), "Give it a vent as wide as the filler's air"),
)
PIPES_FREEZE = Rule(
    "pipes-freeze",
    "mind",
    "Systems",
    "Water that cannot be drained before a frost",
    "A burst pipe is found at the thaw.",
    helps="edit",
    cure=lambda _s, _finding: ((set_to("systems.water.low_drain", "yes"),), "Put a drain at the lowest point of all of it"),
)
DRAIN_FLAT = Rule(
    "drain-flat",
    "mind",
    "Systems",
    "A drain that falls less than 1 in 50, or a trap under {50 mm}",
    "It stands in the pipe, and its smell comes back.",
    why_none="More fall, a shorter run, a deeper trap.",
)
PUMP_WEAK = Rule(
    "pump-weak",
    "mind",
    "Systems",
    "A pump that is weaker than its hose and height ask",
    "It runs, and little comes.",
    why_none="A wider hose, a shorter one, or a stronger pump.",
)
TANK_FREEZES = Rule(
    "tank-freezes",
    "mind",
    "Systems",
    "A tank of water outside, in frost",
    "Ice is a tenth larger than water: seams and valves go first.",
    why_none="Empty it before the frost, bring it inside, or a tank heater by its maker's paper.",
)
WATER_ICES = Rule(
    "water-ices",
    "mind",
    "Systems",
    "Water inside that stands at nought within a night of frost",
    "What stands behind a shut front against a cold wall freezes while the bed is warm.",
    why_none="Holes low and high in the cupboard's front, foam behind it, more heat, or drain it (Systems, Frost).",
)
NO_GREY = Rule(
    "no-grey",
    "mind",
    "Systems",
    "Water is used and nothing catches it",
    "What is used has to go somewhere, and not on the ground.",
    why_none="Add a grey tank or jug as large as what is used between two emptyings.",
)


def _frost(s: Studied, words: Words) -> Iterator[Finding]:
    """Water on a night of frost: pipes without a low drain, or nobody said; tanks that stand outside."""
    build, cold = s.build, s.build.brief.coldest
    if cold is None or cold.si >= 0:
        return
    wet = [t for t in build.stow.things if not t.taken_out and t.tank is not None and t.tank.contents in WATERS]
    if not wet:
        return
    told = build.systems.water.low_drain
    if told != "yes":
        yield PIPES_FREEZE.found(
            "Pipes may freeze" if told else "Frost: nobody said",
            f"{words.degrees(cold.si)} on the coldest night, and {'no drain at the lowest point' if told else 'whether all of it drains at the lowest point nobody said'}.",
            ("water", "frost"),
        )
    made = frost_of(s)
    outside = [t for t in wet if stands_outside(build, t)]
    if outside:
        many = f" and {len(outside) - 1} more" if len(outside) > 1 else ""
        hours = [f.unheated.zero_h for f in made.wets if f.in_open_air and f.unheated is not None and f.unheated.zero_h]
        soon = f" {words.degrees(0)} after {min(hours):.0f} h, full and still." if hours else ""
        yield TANK_FREEZES.found(
            f"{outside[0].name}{many} may freeze",
            f"{'They stand' if many else 'It stands'} outside, and {words.degrees(cold.si)} come on the coldest night.{soon}",
            tuple(t.id for t in outside[:6]),
        )
    yield from _ices_inside(s, made, words)


def _ices_inside(s: Studied, made: Frost, words: Words) -> Iterator[Finding]:
    """With the heater on; where none is aboard, without."""
    heats = bool(heaters_of(s.build))
    inside = [(wet, wet.heated if heats else wet.unheated) for wet in made.wets if not wet.in_open_air]
    soon = [(told.soon_h, at, wet) for at, (wet, told) in enumerate(inside) if told is not None and told.soon_h <= NIGHT_H]
    if soon:  # the soonest is enough: the view lists them
        hours, _, wet = min(soon)
        how = "with the heater on" if heats else "and no heater is aboard"
        yield WATER_ICES.found(
            f"{wet.name} freezes {'while it is heated' if heats else 'in a night'}",
            f"It stands {wet.stands}: {words.degrees(0)} after {hours:.0f} h {how}.",
            ("frost", wet.id),
            number=hours,
        )


def water_findings(s: Studied, words: Words) -> Iterator[Finding]:
    """Does the water last, run and drain? Yields what does not."""
    made, w = the_water(s), s.build.systems.water
    yield from _frost(s, words)
    tanks = [t for t in s.build.stow.things if t.tank and t.tank.contents in ("fresh", "grey") and not t.taken_out]
    if not tanks:
        return
    fresh = tuple(t.id for t in tanks if t.tank and t.tank.contents == "fresh")
    if made.days_fresh is not None and made.wanted_days is not None and made.days_fresh < made.wanted_days - 1e-6:
        yield WATER_SHORT.found(
            f"Water for {made.days_fresh:.1f} days",
            f"{made.people} {'person uses' if made.people == 1 else 'people use'} {words.m3(made.need_l_day / 1000)} a day; {words.m3(made.fresh_l / 1000)} are aboard for {made.wanted_days:.0f} days.",
            ("water", *fresh[:1]),
            number=made.wanted_days - made.days_fresh,
        )
    if made.days_grey is not None and made.wanted_days is not None and made.days_grey < made.wanted_days - 0.05:
        yield GREY_SHORT.found(
            f"Grey is full on day {int(made.days_grey) + 1}",
            f"{words.m3(made.grey_l_day / 1000)} a day come back, and {words.m3(made.grey_room_l / 1000)} have room: {made.days_grey:.1f} days; {made.wanted_days:.0f} are wanted.",
            ("water", "grey"),
            number=made.wanted_days - made.days_grey,
        )
    if fresh and len(fresh) == len(tanks) and made.people and made.grey_l_day > 0:
        yield NO_GREY.found(
            "No grey tank",
            f"{words.m3(made.grey_l_day / 1000)} of used water a day come back, and no grey tank or jug is aboard.",
            ("water", "grey"),
        )
    if w.vented == "no":
        yield UNVENTED.found("No vent", "Said to have none: it takes in no air while it empties.", ("water", "vent"))
    if made.fall_ok is False or (w.trap is not None and w.trap.si < LEAST_TRAP_M - 1e-9):
        yield DRAIN_FLAT.found(
            "The drain lies flat", "1 in 50 at the least ({32 mm} over {1.6 m}), and {50 mm} of water in the trap.", ("water", "drain")
        )
    pump = next((t for t in s.build.stow.things if "pumps water" in t.roles and figures_of(t).power_w), None)
    if pump is not None and made.pump_w is not None and made.pump_w > (figures_of(pump).power_w or 0.0):
        yield PUMP_WEAK.found(
            "The pump is weak",
            f"{words.of(made.pump_kpa or 0, 'kPa', 0)} at that flow want {made.pump_w:.0f} W; it has {figures_of(pump).power_w:.0f} W.",
            ("water", pump.id),
            number=made.pump_w,
        )
