"""Judgements on the wiring: sizes that are not enough, and what in the diagram can hurt somebody."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from uncle_sled.core.document.edits import Op, add_to, fresh_id, remove, set_to
from uncle_sled.core.document.project import Build
from uncle_sled.core.document.systems import Wire
from uncle_sled.core.findings.finding import Finding, Severity
from uncle_sled.core.findings.rule import Cure, Rule
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.systems.hazards import FUSE_NEAR_M, Hazard, hazards_of
from uncle_sled.core.wiring.conductors import START_DROP
from uncle_sled.core.wiring.wire_up import loose_of, wire_up_ops
from uncle_sled.core.wiring.wired import LIMIT_THEMSELVES, NO_PLACE, Laid, Wired, wired_of
from uncle_sled.core.words import Words, lower_first

SOURCE = "ISO 10133 and NEC habit for conductors and fuses"  # of every rule here, said after its reason

CAUTION = "Screening only: mains and batteries burn and kill; licensed people and local codes decide."
Made = tuple[tuple[Op, ...], str]


def wired(s: Studied) -> Wired:
    """The wires as they are laid and sized."""
    return wired_of(s.build, s.framed)


def _wire(build: Build, id: str) -> Wire | None:
    return next((wire for wire in build.systems.wires if wire.id == id), None)


def _set(field: str, value: object, says: str) -> Cure:
    def cure(s: Studied, finding: Finding) -> Made | None:
        return ((set_to(f"systems.wires.{finding.where[0]}.{field}", value),), says) if _wire(s.build, finding.where[0]) else None

    return cure


def _put_fuse(s: Studied, finding: Finding) -> Made | None:
    wire, net = _wire(s.build, finding.where[0]), wired(s).net
    if wire is None:
        return None
    both = net.ends[wire.start].kind == "battery" and net.ends[wire.end].kind == "battery"
    at_end = net.ends[wire.start].kind in LIMIT_THEMSELVES and net.ends[wire.end].kind in ("battery", "bus bar")
    fused = "both" if both or wire.fused == ("start" if at_end else "end") else "end" if at_end else "start"
    if wire.kind == "panel":
        fused = "start"
    return (set_to(f"systems.wires.{wire.id}.fused", fused),), "Put a fuse where it can be fed from"


def _by_the_table(s: Studied, finding: Finding) -> Made | None:
    wire = _wire(s.build, finding.where[0])
    if wire is None or (wire.fuse_a is None and wire.area_mm2 is None):
        return None
    ops = [set_to(f"systems.wires.{wire.id}.{field}", None) for field in ("fuse_a", "area_mm2") if getattr(wire, field) is not None]
    return tuple(ops), "Take wire and fuse by the table"


def _thicker(s: Studied, finding: Finding) -> Made | None:
    wire = _wire(s.build, finding.where[0])
    return (
        None
        if wire is None or wire.area_mm2 is None
        else ((set_to(f"systems.wires.{wire.id}.area_mm2", None),), "Take the size that the table says")
    )


def _vehicle_wire(s: Studied, finding: Finding) -> Made | None:
    wire = _wire(s.build, finding.where[0])
    if wire is None or wire.kind == "AC" or wire.insulation == "vehicle":
        return None
    return (
        set_to(f"systems.wires.{wire.id}.insulation", "vehicle"),
        set_to(f"systems.wires.{wire.id}.area_mm2", None),
    ), "Take wire printed for 105 °C"


def _serve(s: Studied, finding: Finding) -> Made | None:
    """A fuse of its own where the one before it is what no wire bears; else the class that carries more."""
    laid = wired(s).wire(finding.where[0])
    if laid is not None and laid.guard_a is not None and laid.fused in ("none", "end"):
        return _put_fuse(s, finding)
    return _vehicle_wire(s, finding)


def _between(s: Studied, wire: Wire, kind: str, name: str) -> tuple[list[Op], str]:
    """Ops that put a device into a wire, near its start: the wire ends there, and a new one goes on."""
    build, laid = s.build, wired(s).wire(wire.id)
    device = fresh_id("dv", [d.id for d in build.systems.devices])
    beyond = fresh_id("wr", [w.id for w in build.systems.wires])
    x, y, z = laid.points[0] if laid is not None else (0.0, 0.0, 0.5)
    at = {axis: {"si": round(v, 3), "typed": None} for axis, v in (("x", x + 0.1), ("y", y), ("z", z + 0.1))}
    record = {"id": device, "name": name, "kind": kind, **at}
    onward = {
        "id": beyond,
        "start": device,
        "end": wire.end,
        "kind": wire.kind,
        "fused": "none" if wire.fused != "both" else "end",
        "insulation": wire.insulation,
    }
    return [
        add_to("systems.devices", record),
        set_to(f"systems.wires.{wire.id}.end", device),
        set_to(f"systems.wires.{wire.id}.bends", []),
        add_to("systems.wires", onward),
    ], device


def _main_switch(s: Studied, finding: Finding) -> Made | None:
    battery = finding.where[0]
    net = wired(s).net
    out = [
        id for id in net.out[battery] if net.wires[id].kind == "DC" and net.ends[net.wires[id].end].kind not in ("battery", "main switch")
    ]
    if not out:
        return None
    main = next((id for id, end in net.ends.items() if end.kind == "main switch"), None)
    if main is not None:  # there is one: what goes past it hangs on what lies behind it
        behind = next((id for id, end in net.ends.items() if end.kind == "bus bar"), main)
        ops = [set_to(f"systems.wires.{id}.{field}", value) for id in out for field, value in (("start", behind), ("bends", []))]
        return tuple(ops), f"Hang it on the {lower_first(net.ends[behind].name)}, behind the main switch"
    first = _wire(s.build, out[0])
    assert first is not None
    made, device = _between(s, first, "main switch", "Main switch")
    made += [set_to(f"systems.wires.{id}.end", device) for id in out[1:] if net.wires[id].end == first.end]
    ops += [set_to(f"systems.wires.{id}.start", device) for id in out[1:] if net.wires[id].end != first.end]
    return tuple(ops), "Put a main switch behind the battery"


def _rcd(s: Studied, finding: Finding) -> Made | None:
    net = wired(s).net
    out = [id for id in net.out[finding.where[0]] if net.wires[id].kind == "AC"]
    wire = _wire(s.build, out[0]) if out else None
    if wire is None:
        return None
    ops, device = _between(s, wire, "RCD", "RCD")
    ops += [set_to(f"systems.wires.{id}.start", device) for id in out[1:]]
    return tuple(ops), "Put an RCD right behind it"


def _transfer(s: Studied, finding: Finding) -> Made | None:
    """Both sources end at a transfer switch, which goes on to where they met."""
    net, meet = wired(s).net, finding.where[0]
    into = [id for id in net.into[meet] if net.wires[id].kind == "AC"]
    if len(into) < 2:
        return None
    first = _wire(s.build, into[0])
    assert first is not None
    ops, device = _between(s, first, "transfer switch", "Transfer switch")
    ops += [set_to(f"systems.wires.{id}.end", device) for id in into[1:]]
    return tuple(ops), "Put a transfer switch where they meet"


def _feed_from_hookup(s: Studied, finding: Finding) -> Made | None:
    """The charger's mains from a board that only the hookup feeds."""
    net, charger = wired(s).net, finding.where[0]
    wire = next((id for id in net.into[charger] if net.wires[id].kind == "AC"), None)
    boards = [id for id, end in net.ends.items() if end.kind == "AC board" and _only_shore(s, id)]
    if wire is None or not boards:
        return None
    return (
        set_to(f"systems.wires.{wire}.start", boards[0]),
        set_to(f"systems.wires.{wire}.bends", []),
    ), f"Feed the {lower_first(net.ends[charger].name)} from the {lower_first(net.ends[boards[0]].name)}"


def _only_shore(s: Studied, board: str) -> bool:
    net = wired(s).net
    seen = [board]
    for now in seen:
        seen += [net.wires[w].start for w in net.into[now] if net.wires[w].kind == "AC" and net.wires[w].start not in seen]
    kinds = {net.ends[id].kind for id in seen}
    return "inlet" in kinds and not kinds & {"inverter", "inverter charger", "station", "generator"}


def _from_its_mains(s: Studied, finding: Finding) -> Made | None:
    """What asks too much of a station's small socket: an inverter gives way to the station's own mains outlet."""
    net, build = wired(s).net, s.build
    station = finding.where[0]
    if net.ends[station].kind != "station":
        return None
    laid = [w for id in finding.where[1:] if (w := wired(s).wire(id)) is not None]
    worst = max(laid, key=lambda w: w.current_a or 0.0, default=None)
    if worst is None:
        return None
    end = net.ends[worst.end]
    if end.kind == "inverter":
        ops = [remove(f"systems.wires.{worst.id}")]
        for id in net.out[worst.end]:
            if net.wires[id].kind == "AC":
                ops += [set_to(f"systems.wires.{id}.start", station), set_to(f"systems.wires.{id}.bends", [])]
        ops += [remove(f"systems.wires.{id}") for id in net.out[worst.end] if net.wires[id].kind == "earth"]
        if worst.end in build.systems.bonds:
            ops.append(set_to("systems.bonds", [b for b in build.systems.bonds if b != worst.end]))
        return tuple(ops), f"Run what the {lower_first(end.name)} feeds from the station's own mains outlet"
    if end.runs is not None and not end.runs.own:
        ops = [set_to(f"stow.things.{end.id}.figures.current", "AC"), set_to(f"stow.things.{end.id}.figures.volts", None)]
        ops += [set_to(f"systems.wires.{worst.id}.kind", "AC"), set_to(f"systems.wires.{worst.id}.fused", "none")]
        return tuple(ops), f"Take a mains version of the {lower_first(end.name)}, on the station's mains outlet"
    return None


def _take_off(s: Studied, finding: Finding) -> Made | None:
    return ((remove(f"systems.wires.{finding.where[0]}"),), "Take the second wire off") if _wire(s.build, finding.where[0]) else None


def _past_shunt(s: Studied, finding: Finding) -> Made | None:
    """The wire at the battery goes to what lies behind the shunt instead."""
    net, wire = wired(s).net, _wire(s.build, finding.where[0])
    shunt = next((id for id, end in net.ends.items() if end.kind == "shunt"), None)
    if wire is None or shunt is None:
        return None
    behind = next((net.wires[w].end for w in net.out[shunt] if net.wires[w].kind == "DC"), shunt)
    end = "start" if net.ends[wire.start].kind == "battery" else "end"
    if getattr(wire, "end" if end == "start" else "start") == behind:
        return (remove(f"systems.wires.{wire.id}"),), "Take the wire past the shunt off"
    return (
        set_to(f"systems.wires.{wire.id}.{end}", behind),
        set_to(f"systems.wires.{wire.id}.bends", []),
    ), f"Join it to the {lower_first(net.ends[behind].name)}"


def _even(s: Studied, finding: Finding) -> Made | None:
    wire = _wire(s.build, finding.where[0])
    if wire is None:
        return None
    net = wired(s).net
    if net.ends[wire.start].kind == "battery" and net.ends[wire.end].kind == "battery":
        return (set_to(f"systems.wires.{wire.id}.far_minus", value=True),), "Take plus from one end of the row and minus from the other"
    longest = max((w for id in finding.where if (w := wired(s).wire(id)) is not None), key=lambda w: w.length_m, default=None)
    if longest is None:
        return None
    equal = {"si": round(longest.length_m, 3), "typed": None}
    return tuple(
        set_to(f"systems.wires.{id}.length", equal) for id in finding.where if _wire(s.build, id)
    ), "Cut them to one length, that of the longer"


def _breaks_plus(_s: Studied, finding: Finding) -> Made | None:
    return (set_to(f"systems.devices.{finding.where[0]}.breaks", "plus"),), "Put it into the plus wire"


def _bond(s: Studied, finding: Finding) -> Made | None:
    source = finding.where[0]
    net = wired(s).net
    bonds = list(s.build.systems.bonds)
    if net.ends[source].kind == "inlet":
        return (set_to("systems.bonds", [b for b in bonds if b != finding.where[1]]),), "Open the bond aboard: the pedestal has it"
    behind = [b for b in bonds if b != source]
    if source in bonds:
        return (set_to("systems.bonds", [source, *[b for b in behind if b not in finding.where]]),), "Keep the bond at the source only"
    return (set_to("systems.bonds", [*bonds, source]),), "Bond neutral and earth at the source"


def _earth(s: Studied, finding: Finding) -> Made | None:
    build, net = s.build, wired(s).net
    stud = next((d.id for d in build.systems.devices if d.kind == "earth stud"), None)
    board = next((id for id, end in net.ends.items() if end.kind == "AC board"), finding.where[0])
    ops: list[Op] = []
    if stud is None:
        stud = fresh_id("dv", [d.id for d in build.systems.devices])
        x = wired(s).wires[0].points[0][0] if wired(s).wires else 1.0
        at = {"x": {"si": round(x, 3), "typed": None}, "y": {"si": 0.0, "typed": None}, "z": {"si": 0.5, "typed": None}}
        ops.append(add_to("systems.devices", {"id": stud, "name": "Earth stud on the frame", "kind": "earth stud", **at}))
    start = board if _joined_by_mains(net_of=s, a=finding.where[0], b=board) else finding.where[0]
    id = fresh_id("wr", [w.id for w in build.systems.wires])
    ops.append(add_to("systems.wires", {"id": id, "start": start, "end": stud, "kind": "earth", "fused": "none"}))
    return tuple(ops), "Join its earth to the frame"


def _joined_by_mains(net_of: Studied, a: str, b: str) -> bool:
    net, seen = wired(net_of).net, [a]
    for now in seen:
        seen += [net.wires[w].end for w in net.out[now] if net.wires[w].kind == "AC" and net.wires[w].end not in seen]
    return b in seen


def _wire_up(s: Studied, _finding: Finding) -> Made | None:
    ops = wire_up_ops(s.build)
    return (tuple(ops), "Wire up what is loose") if ops else None


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
    _transfer,
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
    _feed_from_hookup,
)
JOINED = _rule("outputs-joined", "stop", "Two outlets of one station joined", "Each pushes into the other.", _take_off)
UNFUSED = _rule(
    "unfused", "stop", "A wire that a battery can feed, without a fuse there", "A short burns it along its whole length.", _put_fuse
)
OVER_WIRE = _rule(
    "fuse-over-wire", "stop", "A fuse that lets more through than its wire carries", "The wire is the fuse then.", _by_the_table
)
FUSE_FAR = _rule(
    "fuse-far",
    "mind",
    f"A main fuse further than {{{FUSE_NEAR_M * 1000:.0f} mm}} from the battery",
    "What lies before it is guarded by nothing.",
    _set("fuse_from", {"si": 0.1, "typed": None}, "Set the fuse within a hand of the battery"),
)
NO_MAIN = _rule(
    "no-main-disconnect", "mind", "A battery that no main switch parts from what it feeds", "In smoke one wants one handle.", _main_switch
)
NO_RCD = _rule(
    "no-rcd",
    "stop",
    "Mains that reaches a load or socket past no RCD (GFCI)",
    "A fault to the frame is not felt by a breaker, but by who touches it.",
    _rcd,
)
NO_EARTH = _rule("no-earth", "stop", "Mains without an earth to the frame", "A fault leaves the whole body live.", _earth)
BOND = _rule(
    "neutral-bond",
    "mind",
    "Neutral and earth joined at two places, or at none",
    "At two, current runs in the earth and the RCD trips or sleeps; at none, no breaker sees a fault.",
    _bond,
)
PUMP = _rule(
    "pump-no-switch",
    "mind",
    "A pump without a switch of its own",
    "A burst hose empties the tank into the body while nobody looks.",
    _set("switched", value=True, says="Give the pump a switch of its own"),
)
SOCKET = _rule(
    "socket-over", "stop", "An outlet that is asked for more than it gives", "It shuts off in the middle of it, or melts.", _from_its_mains
)
SHUNT = _rule(
    "shunt-bypassed",
    "mind",
    "A wire at the battery past the shunt",
    "The monitor does not see it, and shows a battery that is fuller than it is.",
    _past_shunt,
)
UNEVEN = _rule(
    "parallel-uneven", "mind", "Batteries side by side that do not share evenly", "The nearest does the work and wears out first.", _even
)
POLARITY = _rule("polarity-switch", "mind", "A switch that parts the minus only", "What is off still has plus on it.", _breaks_plus)
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
    _serve,
    None,
    (_vehicle_wire,),
)
THIN = _rule(
    "wire-thin", "stop", "A wire that carries more than it may", "It gets hot where nobody sees it.", _thicker, None, (_vehicle_wire,)
)
DROPS = _rule(
    "wire-drops", "mind", "A wire that loses more volts than allowed", "Fridges stop, lamps yellow, chargers never fill.", _thicker
)
START_FUSE = _rule(
    "start-over-fuse",
    "mind",
    "A fuse smaller than what its load draws while it starts",
    "Compressors and glow plugs draw several times their running current for seconds to minutes.",
    _by_the_table,
    "A slow fuse by the maker's paper, or a larger fuse with the wire for it.",
)
START_DROPS = _rule(
    "start-drops",
    "mind",
    "A wire that loses too much while its load starts",
    "A heater gives up on its glow plug, a compressor tries again and again.",
    _thicker,
    "A shorter way or a thicker wire.",
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
    "not-wired", "note", "Something that runs or gives and has no wire", "It weighs nothing in wire and is on no diagram yet.", _wire_up
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
    seen = [id for id, end in net.ends.items() if end.kind in ("battery", "station", "panel", "inlet", "generator", "car plug")]
    for now in seen:
        seen += [net.wires[w].end for w in net.out[now] if net.wires[w].end not in seen]
    return set(seen)


def _run(laid: Wired, wire: Laid) -> str:
    return f"{laid.net.ends[wire.start].name} to {lower_first(laid.net.ends[wire.end].name)}"


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
    if wire.fuse_a is not None and wire.fuse_a < wire.start_a - 1e-9:
        yield START_FUSE.found(
            f"{wire.fuse_a:g} A fuse may blow at the start",
            f"{run}: {wire.start_a:.0f} A while it starts. It holds only where the fuse is a slow one and the start is short.",
            (wire.id,),
            number=wire.start_a - wire.fuse_a,
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
