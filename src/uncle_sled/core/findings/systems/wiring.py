"""Judgements on the wiring: sizes that are not enough, and what in the diagram can hurt somebody."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from uncle_sled.core.findings.finding import Finding, Severity
from uncle_sled.core.findings.rule import Cure, Rule
from uncle_sled.core.findings.systems.wiring_cures import (
    bond_it,
    breaks_plus,
    by_the_table,
    earth_it,
    even_out,
    feed_from_hookup,
    from_its_mains,
    one_to_serve,
    past_shunt,
    put_fuse,
    put_main_switch,
    put_rcd,
    put_transfer,
    set_cure,
    take_off,
    thicker,
    vehicle_wire,
    wire_up,
    wired,
)
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.systems.hazards import FUSE_NEAR_M, Hazard, hazards_of
from uncle_sled.core.wiring.conductors import START_DROP
from uncle_sled.core.wiring.near_heat import near_m
from uncle_sled.core.wiring.reachable import behind
from uncle_sled.core.wiring.wire_up import loose_of
from uncle_sled.core.wiring.wired import NO_PLACE, Laid, Wired
from uncle_sled.core.words import Words, lower_first

SOURCE = "ISO 10133 and NEC habit for conductors and fuses"  # of every rule here, said after its reason


CAUTION = "Screening only: mains and batteries burn and kill; licensed people and local codes decide."


def _rule(
    code: str, severity: Severity, when: str, why: str, cure: Cure | None = None, why_none: str | None = None, more: tuple[Cure, ...] = ()
) -> Rule:
    return Rule(
        code,
        severity,
        stop="Systems",
        when=when,
        why=why,
        caution=CAUTION,
        why_none=why_none,
        helps="edit" if cure is not None else "nothing",
        cure=cure,
        more=more,
    )


AC_MEET = _rule(
    "ac-meet",
    "stop",
    "Two sources of mains that can meet",
    "They burn each other out, or put mains on bare pins; only a switch that breaks before it makes may part them.",
    put_transfer,
    None,
)


LIVE_PINS = _rule(
    "live-pins",
    "stop",
    "An inlet whose pins can have voltage while its plug is out",
    "Somebody takes hold of them.",
    None,
    "Part the inlet from the other source by a transfer switch.",
)


LOOP = _rule(
    "charger-loop",
    "stop",
    "A charger fed by the inverter that the same battery feeds",
    "It goes round until the battery is empty, and warms the wires.",
    feed_from_hookup,
)


BOOSTER_LOOP = _rule(
    "booster-loop",
    "stop",
    "A charger meant for the car that is fed by the battery it charges",
    "It goes round until the battery is empty, and warms the wires.",
    None,
    "Lead its input to the car's plug.",
)


JOINED = _rule("outputs-joined", "stop", "Two outlets of one station joined", "Each pushes into the other.", take_off)


UNFUSED = _rule(
    "unfused", "stop", "A wire that a battery can feed, without a fuse there", "A short burns it along its whole length.", put_fuse
)


OVER_WIRE = _rule(
    "fuse-over-wire", "stop", "A fuse that lets more through than its wire carries", "The wire is the fuse then.", by_the_table
)


FUSE_FAR = _rule(
    "fuse-far",
    "mind",
    f"A main fuse further than {{{FUSE_NEAR_M * 1000:.0f} mm}} from the battery",
    "What lies before it is guarded by nothing.",
    set_cure("fuse_from", {"si": 0.1, "typed": None}, "Set the fuse within a hand of the battery"),
)


NO_MAIN = _rule(
    "no-main-disconnect",
    "mind",
    "A battery that no main switch parts from what it feeds",
    "In smoke one wants one handle.",
    put_main_switch,
)


NO_RCD = _rule(
    "no-rcd",
    "stop",
    "Mains that reaches a load or socket past no RCD (GFCI)",
    "A fault to the frame is not felt by a breaker, but by who touches it.",
    put_rcd,
)


NO_EARTH = _rule("no-earth", "stop", "Mains without an earth to the frame", "A fault leaves the whole body live.", earth_it)


BOND = _rule(
    "neutral-bond",
    "mind",
    "Neutral and earth joined at two places, or at none",
    "At two, current runs in the earth and the RCD trips or sleeps; at none, no breaker sees a fault.",
    bond_it,
)


PUMP = _rule(
    "pump-no-switch",
    "mind",
    "A pump without a switch of its own",
    "A burst hose empties the tank into the body while nobody looks.",
    set_cure("switched", value=True, says="Give the pump a switch of its own"),
)


SOCKET = _rule(
    "socket-over", "stop", "An outlet that is asked for more than it gives", "It shuts off in the middle of it, or melts.", from_its_mains
)


SHUNT = _rule(
    "shunt-bypassed",
    "mind",
    "A wire at the battery past the shunt",
    "The monitor does not see it, and shows a battery that is fuller than it is.",
    past_shunt,
)


UNEVEN = _rule(
    "parallel-uneven", "mind", "Batteries side by side that do not share evenly", "The nearest does the work and wears out first.", even_out
)


POLARITY = _rule("polarity-switch", "mind", "A switch that parts the minus only", "What is off still has plus on it.", breaks_plus)


COLD = _rule(
    "lfp-cold-charge",
    "mind",
    "An LFP battery that may be charged below freezing",
    "It plates out and is ruined at the first frosty morning in the sun.",
    None,
    "Take one that keeps itself from charging in frost, or bring it into the warm; say so at the battery.",
)


NO_SIZE = _rule(
    "no-size",
    "mind",
    "A wire that no size in the table serves",
    "What is laid must bear what the fuse before it lets through.",
    one_to_serve,
    None,
    (vehicle_wire,),
)


THIN = _rule(
    "wire-thin", "stop", "A wire that carries more than it may", "It gets hot where nobody sees it.", thicker, None, (vehicle_wire,)
)


DROPS = _rule(
    "wire-drops", "mind", "A wire that loses more volts than allowed", "Fridges stop, lamps yellow, chargers never fill.", thicker
)


START_FUSE = _rule(
    "start-over-fuse",
    "mind",
    "A fuse smaller than what its load draws while it starts",
    "Compressors and glow plugs draw several times their running current for seconds to minutes.",
    by_the_table,
    "A slow fuse by the maker's paper, or a larger fuse with the wire for it.",
)


START_DROPS = _rule(
    "start-drops",
    "mind",
    "A wire that loses too much while its load starts",
    "A heater gives up on its glow plug, a compressor tries again and again.",
    thicker,
    "A shorter way or a thicker wire.",
)


NEAR_HEAT = _rule(
    "wire-near-heat",
    "mind",
    "A wire that passes close to a stove, cooker or heater",
    "Warm insulation carries less, ages fast, and melts where it touches.",
    None,
    "Drag it another way on Systems, Wires, or put it in conduit that stands the heat.",
)


NO_PLACE_SAID = _rule(
    "wire-placeless",
    "note",
    "A wire whose end nobody placed",
    "Its length, and with it size, drop and weight, cannot be told.",
    None,
    "Give it a place on Systems, Loads, or measure the wire.",
)


LOOSE = _rule(
    "not-wired", "note", "Something that runs or gives and has no wire", "It weighs nothing in wire and is on no diagram yet.", wire_up
)


NO_SOURCE = _rule(
    "no-source",
    "mind",
    "A wire that no source feeds",
    "Nothing comes out of it.",
    None,
    "Join its beginning to a battery, a station or a hookup.",
)


BY_CODE = {
    rule.code: rule
    for rule in (
        AC_MEET,
        LIVE_PINS,
        LOOP,
        BOOSTER_LOOP,
        JOINED,
        UNFUSED,
        OVER_WIRE,
        FUSE_FAR,
        NO_MAIN,
        NO_RCD,
        NO_EARTH,
        BOND,
        PUMP,
        SOCKET,
        SHUNT,
        UNEVEN,
        POLARITY,
        COLD,
    )
}


def wiring_findings(s: Studied, words: Words) -> Iterator[Finding]:
    """Are wires, fuses and mains sound? Yields hazards, each with what mends it."""
    laid = wired(s)
    for hazard in hazards_of(s.build, laid):
        title, says = _SAYS[hazard.code](hazard, words)
        yield BY_CODE[hazard.code].found(title, says, hazard.where, number=None if hazard.value is None else abs(hazard.value))
    for wire in laid.wires:
        yield from _sized(wire, laid, words)
    yield from _warm(s, laid, words)
    lost = [wire for wire in laid.wires if wire.length_face == "guessed"]
    if lost:
        ends = " and ".join(dict.fromkeys(lower_first(laid.net.ends[wire.end].name) for wire in lost[:2]))
        more = f" and {len(lost) - 2} more" if len(lost) > 2 else ""
        yield NO_PLACE_SAID.found(
            "Wires without a place",
            f"Where {ends}{more} end nobody said: length, size and drop of their wires are not known.",
            tuple(wire.id for wire in lost[:6]),
        )
    fed = _fed(laid)
    for wire in laid.wires:
        if wire.kind != "earth" and wire.start not in fed:
            yield NO_SOURCE.found(
                f"Wire {wire.number} hangs on nothing",
                f"{_run(laid, wire)}: no battery, station, panel or hookup feeds {laid.net.ends[wire.start].name}.",
                (wire.id,),
            )
    loose = loose_of(s.build)
    if loose:
        names = [laid.net.ends[id].name for id in loose[:2] if id in laid.net.ends]
        more = f" and {len(loose) - len(names)} more" if len(loose) > len(names) else ""
        yield LOOSE.found(f"{len(loose)} not wired yet", f"{' and '.join(names)}{more}: no wire ends there.", loose[:6])


def _fed(laid: Wired) -> set[str]:
    net = laid.net
    sources = ("battery", "station", "panel", "inlet", "generator", "car plug")
    return {reached for id, end in net.ends.items() if end.kind in sources for reached in behind(net, id)}


def _run(laid: Wired, wire: Laid) -> str:
    return f"{laid.net.ends[wire.start].name} to {lower_first(laid.net.ends[wire.end].name)}"


def _warm(s: Studied, laid: Wired, words: Words) -> Iterator[Finding]:
    """Wires that pass something hot, each with the one that it lies beside the longest."""
    things = {thing.id: thing for thing in s.build.stow.things}
    for wire in laid.wires:
        if not wire.near_heat or wire.kind == "earth":
            continue
        hot, long = max(wire.near_heat, key=lambda pair: pair[1])
        yield NEAR_HEAT.found(
            f"{words.m(long)} of a wire beside {lower_first(things[hot].name)}",
            f"{_run(laid, wire)}: within {words.thick(near_m(things[hot]))} of it a wire carries {wire.derating * 100:.0f} %, and its insulation grows soft.",
            (wire.id, hot),
            number=long,
        )


def _sized(wire: Laid, laid: Wired, words: Words) -> Iterator[Finding]:
    if wire.kind == "earth":
        return
    run = _run(laid, wire)
    if wire.why == NO_PLACE:
        return
    if wire.typed_size and wire.ampacity_a is None and wire.current_a is not None and wire.mm2 is not None:
        yield THIN.found(
            f"{wire.gauge} is too thin to judge",
            f"{run}: thinner than any wire in the table{' for mains' if wire.kind == 'AC' else ''}; nobody says what it carries.",
            (wire.id,),
            number=1.0 / max(wire.mm2, 1e-6),
        )
    if wire.mm2 is None and wire.current_a is not None and wire.why:
        behind = wire.guard_a is not None and wire.fused in ("none", "end") and wire.guard_a > wire.current_a
        yield NO_SIZE.found(
            f"No fuse behind the {wire.guard_a:g} A one" if behind else f"No wire for {wire.current_a:.0f} A",
            f"{run}, {words.m(wire.length_m)}: {wire.why}.",
            (wire.id,),
            number=wire.current_a,
        )
    if wire.ampacity_a is not None and wire.current_a is not None and wire.current_a > wire.ampacity_a + 1e-9:
        yield THIN.found(
            f"{wire.current_a:.0f} A through {wire.gauge}",
            f"{run}: it carries {wire.ampacity_a:.0f} A there, {wire.insulation} class.",
            (wire.id,),
            number=wire.current_a / max(wire.ampacity_a, 0.1),
        )
    yield from _starts(wire, run, words)
    if wire.drop_share is not None and wire.drop_share > wire.allowed + 1e-4:
        yield DROPS.found(
            f"Loses {wire.drop_share * 100:.1f} %",
            f"{run}, {words.m(wire.length_m)} of {wire.gauge} at {wire.current_a:.0f} A; {wire.allowed * 100:.0f} % is allowed.",
            (wire.id,),
            number=wire.drop_share,
        )


def _starts(wire: Laid, run: str, words: Words) -> Iterator[Finding]:
    """What the start of a motor or glow plug asks, where fuse or copper does not hold it."""
    if wire.start_a is None:
        return
    if wire.slow:
        yield START_FUSE.found(
            f"{wire.fuse_a:g} A fuse may blow at the start",
            f"{run}: {wire.start_a:.0f} A while it starts. It holds only where the fuse is a slow one and the start is short.",
            (wire.id,),
            number=wire.start_a - (wire.fuse_a or 0.0),
        )
    most = max(wire.allowed, START_DROP)
    if wire.start_drop_share is not None and wire.start_drop_share > most + 1e-4:
        yield START_DROPS.found(
            f"Loses {wire.start_drop_share * 100:.0f} % while it starts",
            f"{run}, {words.m(wire.length_m)} of {wire.gauge} at {wire.start_a:.0f} A; {most * 100:.0f} % is the most then.",
            (wire.id,),
            number=wire.start_drop_share,
        )


def _bears(h: Hazard) -> str:
    return f"the wire carries {h.limit:.0f} A" if h.limit is not None else "the wire is thinner than any in the table"


Says = Callable[[Hazard, Words], tuple[str, str]]


_SAYS: dict[str, Says] = {
    "ac-meet": lambda h, _w: (
        "Two mains can meet",
        f"{h.names[1]} both reach {lower_first(h.names[0])} with nothing that breaks one before it makes the other.",
    ),
    "live-pins": lambda h, _w: (f"{h.names[0]}: live pins", f"{h.names[1]} puts voltage on its pins while the plug is out."),
    "charger-loop": lambda h, _w: (
        "It charges itself from itself",
        f"{h.names[0]} is fed by {lower_first(h.names[1])}, and charges what feeds that.",
    ),
    "booster-loop": lambda h, _w: (
        "It charges itself from itself",
        f"{h.names[0]} takes from {lower_first(h.names[1])} what it puts into it; no car feeds it.",
    ),
    "outputs-joined": lambda h, _w: (
        "Two outlets joined",
        f"Two outlets of {lower_first(h.names[0])} both feed {lower_first(h.names[1])}.",
    ),
    "unfused": lambda h, _w: (
        (
            "No fuse of its own",
            f"{h.names[0]}: {_bears(h)}, and the fuse before it lets {h.value:g} A through; it wants one of its own at {lower_first(h.names[1])}.",
        )
        if h.value is not None
        else ("No fuse", f"{h.names[0]}: nothing guards the wire at {lower_first(h.names[1])}.")
    ),
    "fuse-over-wire": lambda h, _w: (
        f"{h.value:g} A fuse on a thinner wire",
        f"{h.names[0]}: the wire carries {h.limit:.0f} A, its fuse lets {h.value:g} A through.",
    ),
    "fuse-far": lambda h, w: (
        "Fuse too far off",
        f"{h.names[0]}: the fuse sits {w.cut(h.value or 0.0)} along; {w.cut(FUSE_NEAR_M)} is the most from a battery.",
    ),
    "no-main-disconnect": lambda h, _w: ("No main switch", f"{h.names[0]} reaches {lower_first(h.names[1])} past no main switch."),
    "no-rcd": lambda h, _w: ("Mains without an RCD", f"{h.names[0]} reaches {lower_first(h.names[1])} past no RCD (GFCI)."),
    "no-earth": lambda h, _w: ("No earth", f"Nothing joins the earth of {lower_first(h.names[0])} to the frame."),
    "neutral-bond": lambda h, _w: (
        ("Neutral bonded twice", f"{h.names[0]}: the pedestal bonds neutral and earth, and {lower_first(h.names[1])} does it again.")
        if h.names[1]
        else (
            "Neutral bonded at no place" if not h.value else "Neutral bonded twice",
            f"{h.names[0]}: neutral and earth are joined at {h.value:.0f} places behind it; one is right.",
        )
    ),
    "pump-no-switch": lambda h, _w: ("A pump nobody can shut off", f"{h.names[0]} has no switch of its own."),
    "socket-over": lambda h, _w: (
        f"{h.value:.0f} A from a socket of {h.limit:.0f} A",
        f"{h.names[0]}: what hangs on its 12 V outlet may ask for {h.value:.1f} A; it gives {h.limit:.0f} A.",
    ),
    "shunt-bypassed": lambda h, _w: (
        "Past the shunt",
        f"{h.names[0]} and {lower_first(h.names[1])} are joined where the monitor does not see it.",
    ),
    "parallel-uneven": lambda h, w: (
        ("Batteries share unevenly", f"Their wires are {w.m(h.limit or 0.0)} and {w.m(h.value or 0.0)} long.")
        if h.value is not None
        else ("Batteries share unevenly", f"{h.names[0]}: plus and minus are taken at the same end of the row.")
    ),
    "polarity-switch": lambda h, _w: (f"{h.names[0]} parts the minus", f"{h.names[0]} breaks the minus only."),
    "lfp-cold-charge": lambda h, w: (
        "May charge in frost",
        f"{h.names[0]} may be at {w.degrees(h.value or 0.0)} and nothing keeps it from charging.",
    ),
}
