"""What mends a fault of the wiring: operations on the build and one sentence that says them."""

from __future__ import annotations

from uncle_sled.core.document.edits import Op, add_to, fresh_id, remove, set_to
from uncle_sled.core.document.project import Build
from uncle_sled.core.document.systems import Wire
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.findings.rule import Cure
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.wiring.reachable import AC, behind
from uncle_sled.core.wiring.wire_up import wire_up_ops
from uncle_sled.core.wiring.wired import LIMIT_THEMSELVES, Wired, wired_of
from uncle_sled.core.words import lower_first

Made = tuple[tuple[Op, ...], str]


def wired(s: Studied) -> Wired:
    """The wires as they are laid and sized."""
    return wired_of(s.build, s.framed)


def wire_of(build: Build, id: str) -> Wire | None:
    return next((wire for wire in build.systems.wires if wire.id == id), None)


def set_cure(field: str, value: object, says: str) -> Cure:
    def cure(s: Studied, finding: Finding) -> Made | None:
        return ((set_to(f"systems.wires.{finding.where[0]}.{field}", value),), says) if wire_of(s.build, finding.where[0]) else None

    return cure


def put_fuse(s: Studied, finding: Finding) -> Made | None:
    wire, net = wire_of(s.build, finding.where[0]), wired(s).net
    if wire is None:
        return None
    both = net.ends[wire.start].kind == "battery" and net.ends[wire.end].kind == "battery"
    at_end = net.ends[wire.start].kind in LIMIT_THEMSELVES and net.ends[wire.end].kind in ("battery", "bus bar")
    fused = "both" if both or wire.fused == ("start" if at_end else "end") else "end" if at_end else "start"
    if wire.kind == "panel":
        fused = "start"
    return (set_to(f"systems.wires.{wire.id}.fused", fused),), "Put a fuse where it can be fed from"


def by_the_table(s: Studied, finding: Finding) -> Made | None:
    wire = wire_of(s.build, finding.where[0])
    if wire is None or (wire.fuse_a is None and wire.area_mm2 is None):
        return None
    ops = [set_to(f"systems.wires.{wire.id}.{field}", None) for field in ("fuse_a", "area_mm2") if getattr(wire, field) is not None]
    return tuple(ops), "Take wire and fuse by the table"


def thicker(s: Studied, finding: Finding) -> Made | None:
    wire = wire_of(s.build, finding.where[0])
    return (
        None
        if wire is None or wire.area_mm2 is None
        else ((set_to(f"systems.wires.{wire.id}.area_mm2", None),), "Take the size that the table says")
    )


def vehicle_wire(s: Studied, finding: Finding) -> Made | None:
    wire = wire_of(s.build, finding.where[0])
    if wire is None or wire.kind == "AC" or wire.insulation == "vehicle":
        return None
    return (
        set_to(f"systems.wires.{wire.id}.insulation", "vehicle"),
        set_to(f"systems.wires.{wire.id}.area_mm2", None),
    ), "Take wire printed for 105 °C"


def one_to_serve(s: Studied, finding: Finding) -> Made | None:
    """A fuse of its own where the one before it is what no wire bears; else the class that carries more."""
    laid = wired(s).wire(finding.where[0])
    if laid is not None and laid.guard_a is not None and laid.fused in ("none", "end"):
        return put_fuse(s, finding)
    return vehicle_wire(s, finding)


def put_between(s: Studied, wire: Wire, kind: str, name: str) -> tuple[list[Op], str]:
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


def put_main_switch(s: Studied, finding: Finding) -> Made | None:
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
    first = wire_of(s.build, out[0])
    assert first is not None
    made, device = put_between(s, first, "main switch", "Main switch")
    made += [set_to(f"systems.wires.{id}.end", device) for id in out[1:] if net.wires[id].end == first.end]
    made += [set_to(f"systems.wires.{id}.start", device) for id in out[1:] if net.wires[id].end != first.end]
    return tuple(made), "Put a main switch behind the battery"


def put_rcd(s: Studied, finding: Finding) -> Made | None:
    net = wired(s).net
    out = [id for id in net.out[finding.where[0]] if net.wires[id].kind == "AC"]
    wire = wire_of(s.build, out[0]) if out else None
    if wire is None:
        return None
    ops, device = put_between(s, wire, "RCD", "RCD")
    ops += [set_to(f"systems.wires.{id}.start", device) for id in out[1:]]
    return tuple(ops), "Put an RCD right behind it"


def put_transfer(s: Studied, finding: Finding) -> Made | None:
    """Both sources end at a transfer switch, which goes on to where they met."""
    net, meet = wired(s).net, finding.where[0]
    into = [id for id in net.into[meet] if net.wires[id].kind == "AC"]
    if len(into) < 2:
        return None
    first = wire_of(s.build, into[0])
    assert first is not None
    ops, device = put_between(s, first, "transfer switch", "Transfer switch")
    ops += [set_to(f"systems.wires.{id}.end", device) for id in into[1:]]
    return tuple(ops), "Put a transfer switch where they meet"


def feed_from_hookup(s: Studied, finding: Finding) -> Made | None:
    """The charger's mains from a board that only the hookup feeds."""
    net, charger = wired(s).net, finding.where[0]
    wire = next((id for id in net.into[charger] if net.wires[id].kind == "AC"), None)
    boards = [id for id, end in net.ends.items() if end.kind == "AC board" and only_shore(s, id)]
    if wire is None or not boards:
        return None
    return (
        set_to(f"systems.wires.{wire}.start", boards[0]),
        set_to(f"systems.wires.{wire}.bends", []),
    ), f"Feed the {lower_first(net.ends[charger].name)} from the {lower_first(net.ends[boards[0]].name)}"


def only_shore(s: Studied, board: str) -> bool:
    net = wired(s).net
    seen = [board]
    for now in seen:
        seen += [net.wires[w].start for w in net.into[now] if net.wires[w].kind == "AC" and net.wires[w].start not in seen]
    kinds = {net.ends[id].kind for id in seen}
    return "inlet" in kinds and not kinds & {"inverter", "inverter charger", "station", "generator"}


def from_its_mains(s: Studied, finding: Finding) -> Made | None:
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


def take_off(s: Studied, finding: Finding) -> Made | None:
    return ((remove(f"systems.wires.{finding.where[0]}"),), "Take the second wire off") if wire_of(s.build, finding.where[0]) else None


def past_shunt(s: Studied, finding: Finding) -> Made | None:
    """The wire at the battery goes to what lies behind the shunt instead."""
    net, wire = wired(s).net, wire_of(s.build, finding.where[0])
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


def even_out(s: Studied, finding: Finding) -> Made | None:
    wire = wire_of(s.build, finding.where[0])
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
        set_to(f"systems.wires.{id}.length", equal) for id in finding.where if wire_of(s.build, id)
    ), "Cut them to one length, that of the longer"


def breaks_plus(_s: Studied, finding: Finding) -> Made | None:
    return (set_to(f"systems.devices.{finding.where[0]}.breaks", "plus"),), "Put it into the plus wire"


def bond_it(s: Studied, finding: Finding) -> Made | None:
    source = finding.where[0]
    net = wired(s).net
    bonds = list(s.build.systems.bonds)
    if net.ends[source].kind == "inlet":
        return (set_to("systems.bonds", [b for b in bonds if b != finding.where[1]]),), "Open the bond aboard: the pedestal has it"
    behind = [b for b in bonds if b != source]
    if source in bonds:
        return (set_to("systems.bonds", [source, *[b for b in behind if b not in finding.where]]),), "Keep the bond at the source only"
    return (set_to("systems.bonds", [*bonds, source]),), "Bond neutral and earth at the source"


def earth_it(s: Studied, finding: Finding) -> Made | None:
    build, net = s.build, wired(s).net
    stud = next((d.id for d in build.systems.devices if d.kind == "earth stud"), None)
    board = next((id for id, end in net.ends.items() if end.kind == "AC board"), finding.where[0])
    ops: list[Op] = []
    if stud is None:
        stud = fresh_id("dv", [d.id for d in build.systems.devices])
        x = wired(s).wires[0].points[0][0] if wired(s).wires else 1.0
        at = {"x": {"si": round(x, 3), "typed": None}, "y": {"si": 0.0, "typed": None}, "z": {"si": 0.5, "typed": None}}
        ops.append(add_to("systems.devices", {"id": stud, "name": "Earth stud on the frame", "kind": "earth stud", **at}))
    start = board if board in behind(wired(s).net, finding.where[0], AC) else finding.where[0]
    id = fresh_id("wr", [w.id for w in build.systems.wires])
    ops.append(add_to("systems.wires", {"id": id, "start": start, "end": stud, "kind": "earth", "fused": "none"}))
    return tuple(ops), "Join its earth to the frame"


def wire_up(s: Studied, _finding: Finding) -> Made | None:
    ops = wire_up_ops(s.build)
    return (tuple(ops), "Wire up what is loose") if ops else None
