"""Judgements on what burns: how long it lasts, whether it boils off in the cold, and the air it wants."""

from __future__ import annotations

from collections.abc import Iterator

import msgspec
from msgspec.structs import replace

from uncle_sled.core.document.edits import Op, add_to, apply, fresh_id, set_to
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.findings.rule import Rule
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.stow.dangers import stays_open
from uncle_sled.core.studies.systems.gas import AIR_M3H_KW, boil_off_kw
from uncle_sled.core.studies.systems.hot_walls import LIMIT_C, HotWall, hot_walls
from uncle_sled.core.studies.systems.sweat import sleepers
from uncle_sled.core.studies.systems.systems_as_built import the_gas
from uncle_sled.core.words import Words, lower_first, upper_first

SOURCE = "boiling of butane and propane; air for flames"  # of every rule here, said after its reason

CAUTION = "Gas and flames are for licensed people where the law says so; makers' papers and local rules decide, not this flow."
FUEL = {"gas": "Gas", "diesel": "Diesel", "petrol": "Petrol"}
BESIDE_M = 0.03
UNSAID_M = 0.5  # nearer than that a wall wants to be known


def _second(s: Studied, finding: Finding) -> tuple[tuple[Op, ...], str] | None:
    """A cylinder like the first, beside it."""
    first = next((t for t in s.build.stow.things if t.tank and t.tank.contents == "gas" and not t.taken_out), None)
    if first is None or finding.where[-1] != "gas":
        return None
    id = fresh_id("t", [t.id for t in s.build.stow.things])
    wide = first.width.si if first.turn % 180 == 0 else first.length.si
    twin = msgspec.structs.replace(first, id=id, y=Length(round(first.y.si + wide + BESIDE_M, 3)))
    return (add_to("stow.things", msgspec.to_builtins(twin)),), "Take a second cylinder, beside the first"


def _the_wall(s: Studied, finding: Finding) -> HotWall | None:
    return next((one for one in hot_walls(s.build, s.facts, s.framed) if (one.thing, one.face) == finding.where[:2]), None)


def _shield(s: Studied, finding: Finding) -> tuple[tuple[Op, ...], str] | None:
    """A sheet with air behind, where that keeps the wall under the limit."""
    ops: tuple[Op, ...] = (set_to(f"stow.things.{finding.where[0]}.shielded", value=True),)
    after = _the_wall(replace(s, build=apply(s.build, ops)), finding)
    if after is None or after.up_to_c is None or after.up_to_c > LIMIT_C:
        return None
    return ops, "Put a shield with {25 mm} of air between"


def _wall_words(tried: Studied, finding: Finding) -> str:
    one = _the_wall(tried, finding)
    if one is None or one.up_to_c is None:
        return "the wall is not known"
    return f"the {one.face} gets up to {Words(tried.build.brief.reading.shown()).degrees(one.up_to_c)}"


def _hot(s: Studied, words: Words) -> Iterator[Finding]:
    """Every wall beside a fire: nearer than its papers, or, where nobody typed what they ask, too warm by its usual side."""
    for one in hot_walls(s.build, s.facts, s.framed):
        where = f"{words.thick(one.gap_m)} from the {one.face}"
        if one.near:
            yield FIRE_NEAR.found(
                f"{one.name} too near to the {one.face}",
                f"It stands {where}; its papers ask {words.thick(one.papers_m or 0.0)}.",
                (one.thing, one.face),
                number=(one.papers_m or 0.0) - one.gap_m,
            )
        elif one.papers_m is None and one.up_to_c is not None and one.up_to_c > LIMIT_C:
            yield WALL_HOT.found(
                f"{upper_first(one.face)} beside {lower_first(one.name)} gets hot",
                f"{upper_first(where)}: {words.degrees(one.at_c or 0.0)} after an evening, up to {words.degrees(one.up_to_c)}; what its papers ask nobody typed.",
                (one.thing, one.face),
                number=one.up_to_c,
            )
        elif one.papers_m is None and one.why and one.gap_m < UNSAID_M:
            yield WALL_HOT.found(
                f"{upper_first(one.face)} beside {lower_first(one.name)} is not checked",
                f"{upper_first(where)}: {one.why}, nor what its papers ask.",
                (one.thing, one.face),
                severity="note",
            )


GAS_SHORT = Rule(
    "fuel-short",
    "mind",
    "Systems",
    "A fuel that does not last the days",
    "It runs out at the coldest hour, when most is burnt.",
    CAUTION,
    helps="edit",
    cure=_second,
    why_none="More of it, or less burnt.",
)
GAS_COLD = Rule(
    "gas-cold",
    "mind",
    "Systems",
    "A cylinder that cannot boil off what is burnt on the coldest night",
    "It frosts over and the flame sinks; butane gives nothing under freezing.",
    CAUTION,
    why_none="Propane, a larger cylinder, two side by side, or a fuller one.",
)
FIRE_NEAR = Rule(
    "fire-too-near",
    "stop",
    "Systems",
    "A fire nearer to a wall than its papers allow",
    "What is behind the lining dries out for months and takes fire one evening.",
    CAUTION,
    helps="free place",
    why_none="Move it off the wall as far as its papers ask, or what they allow behind a shield.",
)
WALL_HOT = Rule(
    "wall-hot",
    "mind",
    "Systems",
    f"A wall beside a fire that may pass {{{LIMIT_C:.0f} °C}} in an evening",
    "Wood that is kept so warm chars with the years, and takes fire at less and less.",
    CAUTION,
    helps="edit",
    cure=_shield,
    after=lambda tried, finding: _wall_words(tried, finding),
    why_none="More room, a shield with air behind, or a lining that does not burn; its papers decide.",
)
FLAME_AIR = Rule(
    "flame-air",
    "mind",
    "Systems",
    "A flame in the room whose fresh air nobody said",
    "{27.5 m3/h} a kilowatt keep its carbon dioxide under half a percent; small openings by warmth alone carry a tenth of that.",
    CAUTION,
    why_none="A room-sealed heater; or openings as its papers and local rules ask, typed under Gas.",
)
NOT_SEALED = Rule(
    "heater-not-sealed",
    "mind",
    "Systems",
    "A heater that burns into the room where people sleep",
    "Its water and fumes stay with them.",
    CAUTION,
    why_none="A room-sealed one; say so In hand where it is.",
)
NO_SMOKE_ALARM = Rule(
    "no-smoke-alarm",
    "note",
    "Systems",
    "Nobody is woken by smoke",
    "A small room fills in two minutes.",
    why_none="Add a smoke alarm from the catalogue, or say In hand what serves as one.",
)
LOCKER = Rule(
    "gas-locker",
    "mind",
    "Systems",
    "A cylinder's locker that is not said to drain outside, or a gas system without a detector",
    "Gas is heavier than air: it lies on the floor and finds a spark.",
    CAUTION,
    why_none="Tight to the inside, a hole in its floor to the outside; a detector low down.",
)


def _blank(s: Studied, fuel: str) -> bool:
    """Whether a can or cylinder of a fuel is aboard whose volume nobody said."""
    return any(t.tank and t.tank.contents == fuel and not t.tank.volume and not t.taken_out for t in s.build.stow.things)


def _locker(s: Studied, cylinder: Thing) -> Iterator[Finding]:
    """Where gas that leaks goes, and what warns of it: said, denied, or said by nobody, each in its own words."""
    air, things = s.build.systems.air, [t for t in s.build.stow.things if not t.taken_out]
    drains = "yes" if cylinder.room_sealed else air.locker_drains
    detector = "yes" if any("gas alarm" in t.roles for t in things) else air.gas_detector
    denied = [
        says for told, says in ((drains, "its locker does not drain outside"), (detector, "there is no gas detector")) if told == "no"
    ]
    unsaid = [
        says for told, says in ((drains, "whether its locker drains outside"), (detector, "whether a gas detector is there")) if not told
    ]
    if denied:
        yield LOCKER.found("Gas may lie inside", f"Said so: {' and '.join(denied)}.", ("gas", "locker", cylinder.id))
    if unsaid:
        yield LOCKER.found(
            "Gas: nobody said",
            f"{upper_first(' and '.join(unsaid))} nobody said.",
            ("gas", "unsaid", cylinder.id),
            severity="note" if denied else None,
        )


def gas_findings(s: Studied, words: Words) -> Iterator[Finding]:
    """Is gas stored, vented, led and burned as it must be? Yields what is not, and what nobody said."""
    made, build = the_gas(s), s.build
    yield from _hot(s, words)
    for fuel, days in made.days.items():
        if made.kg.get(fuel, 0.0) <= 0 and not _blank(s, fuel):
            yield GAS_SHORT.found(
                f"No {FUEL[fuel].lower()} aboard",
                f"{words.fine_kg(made.kg_day[fuel])} a day are burnt, and no tank or can of it is aboard.",
                ("gas", fuel),
                severity="note",
            )
            continue
        if days is not None and made.wanted_days is not None and days < made.wanted_days - 1e-6:
            yield GAS_SHORT.found(
                f"{FUEL[fuel]} for {days:.1f} days",
                f"{words.fine_kg(made.kg_day[fuel])} a day of {words.fine_kg(made.kg.get(fuel, 0.0))} aboard; {made.wanted_days:.0f} days are wanted.",
                ("gas", fuel),
                number=made.wanted_days - days,
            )
    cylinder = next((t for t in build.stow.things if t.tank and t.tank.contents == "gas" and not t.taken_out), None)
    if cylinder is not None and build.brief.coldest is not None and made.most_kw > 0:
        d, h = min(cylinder.length.si, cylinder.width.si), cylinder.height.si * 0.75 * 0.8 * 0.5
        many = sum(1 for t in build.stow.things if t.tank and t.tank.contents == "gas" and not t.taken_out)
        gives = boil_off_kw(d, h, build.brief.coldest.si) * many
        if gives < made.most_kw - 1e-6:
            yield GAS_COLD.found(
                "Gas too cold to boil",
                f"Half full at {words.degrees(build.brief.coldest.si)} it keeps up {gives:.1f} kW of {made.most_kw:.1f} kW (propane).",
                ("gas", "cold", cylinder.id),
                number=made.most_kw - gives,
            )
    people = sleepers(build, s.facts)
    air = build.systems.air
    if cylinder is not None:
        yield from _locker(s, cylinder)
    vents = sum(stays_open(opening) for opening in build.shell.openings)
    for burner in made.burners:
        if burner.flued and not burner.sealed and people and not air.low_cm2 and not vents:
            yield FLAME_AIR.found(
                f"Air for {lower_first(burner.name)} is not said",
                "Its smoke goes up the flue and its air comes from the room: an opening that stays open is not said.",
                ("gas", "air", burner.id),
            )
    if made.open_kw > 0 and people and not (air.high_cm2 and air.low_cm2):
        yield FLAME_AIR.found(
            "Air for the flame is not said",
            f"{made.open_kw:.1f} kW burn into the room and want {words.of(made.open_kw * AIR_M3H_KW, 'm3/h', 0)}; fixed openings high and low are not typed.",
            ("gas", "air"),
            number=made.open_kw,
        )
    for burner in made.burners:
        if burner.warms and not burner.sealed and not burner.flued and people:
            yield NOT_SEALED.found(
                f"{burner.name} burns into the room", f"{burner.name} is said to be neither room-sealed nor flued.", ("gas", burner.id)
            )
    if people and s.framed.body is not None and not any("smoke alarm" in t.roles for t in build.stow.things):
        yield NO_SMOKE_ALARM.found("No smoke alarm", "Nothing aboard serves as a smoke alarm.", ("gas", "smoke"))
