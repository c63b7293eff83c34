"""A sound diagram for what is aboard: the ops that join whatever has no wire yet.

Battery, main switch, shunt, bus bar, fuse box, loads; panels by their controller; mains by an RCD, hookup and inverter parted
by a transfer switch ahead of the sockets and behind the charger. What is wired already stays as it is.
"""

from __future__ import annotations

from typing import Any

from uncle_sled.core.document.edits import Op, add_to, fresh_id, set_to
from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.document.systems import WireKind
from uncle_sled.core.wiring.appliances import Runs, figures_of, loads_of, units_of

HEAVY_A = 30.0  # a load of more goes to the bus bar by a fuse of its own
BESIDE_M, OVER_M = 0.12, 0.18  # devices sit in a row beside what they belong to
FUSE_AT_M = 0.1
PUMPS = "pumps water"


class _Plan:
    """Devices and wires there are and that are added, in the order they come."""

    def __init__(self, build: Build) -> None:
        self.build, self.systems = build, build.systems
        self.ops: list[Op] = []
        self.devices: dict[str, list[str]] = {}
        for device in build.systems.devices:
            self.devices.setdefault(device.kind, []).append(device.id)
        self.device_ids = [each_device.id for each_device in build.systems.devices]
        self.wire_ids = [wire.id for wire in build.systems.wires]
        self.pairs = {(w.start, w.end, w.kind) for w in build.systems.wires}
        self.fed = {(w.end, w.kind) for w in build.systems.wires}
        self.giving = {(w.start, w.kind) for w in build.systems.wires}
        self.home, self.row = _home(build), len(build.systems.devices)

    def device(self, kind: str, name: str, at: tuple[float, float, float] | None = None, fresh: bool = False, **more: Any) -> str:
        """A device of a kind: the first there is, or a new one beside the last."""
        if not fresh and self.devices.get(kind):
            return self.devices[kind][0]
        id = fresh_id("dv", self.device_ids)
        if at is None:
            along, level = self.row % 5, self.row // 5
            at = (self.home[0] + along * BESIDE_M, self.home[1], self.home[2] + level * OVER_M)
            self.row += 1
        record = {"id": id, "name": name, "kind": kind, **dict(zip("xyz", (_si(v) for v in at), strict=True)), **more}
        self.ops.append(add_to("systems.devices", record))
        self.device_ids.append(id)
        self.devices.setdefault(kind, []).append(id)
        return id

    def wire(self, start: str, end: str, kind: WireKind = "DC", fused: str = "start", **more: Any) -> None:
        if (start, end, kind) in self.pairs or start == end:
            return
        id = fresh_id("wr", self.wire_ids)
        self.wire_ids.append(id)
        self.pairs.add((start, end, kind))
        self.fed.add((end, kind))
        self.giving.add((start, kind))
        self.ops.append(add_to("systems.wires", {"id": id, "start": start, "end": end, "kind": kind, "fused": fused, **more}))


def _si(value: float) -> dict[str, Any]:
    return {"si": round(value, 3), "typed": None}


def _home(build: Build) -> tuple[float, float, float]:
    """Where devices are put: over the fuse box, else beside the battery, inside the body [m]."""
    near = (*units_of(build, "fuse box"), *units_of(build, "station", "battery"))
    if not near:
        return (build.shell.front.si if build.shell.front else 0.5) + 0.2, 0.0, 0.8
    thing = near[0]
    along = thing.length.si if thing.turn % 180 == 0 else thing.width.si
    x, y, z = thing.x.si + along / 2, thing.y.si, thing.z.si + thing.height.si + 0.1
    shell = build.shell
    if shell.form != "none" and shell.front and shell.length:
        x = min(max(x, shell.front.si + 0.15), shell.front.si + shell.length.si - 0.6)
    return x, y, z


def wire_up_ops(build: Build) -> list[Op]:
    """Ops that join all that has no wire yet; none where nothing is missing or nothing gives power."""
    plan = _Plan(build)
    batteries, stations = units_of(build, "battery"), units_of(build, "station")
    runs = {appliance.id: appliance for appliance in loads_of(build)}
    dc = [appliance for appliance in runs.values() if not appliance.ac and (appliance.id, "DC") not in plan.fed]
    ac = [appliance for appliance in runs.values() if appliance.ac and (appliance.id, "AC") not in plan.fed]
    inverters = units_of(build, "inverter", "inverter charger")
    if not batteries and not stations and not _shore(build) and not build.systems.plugged:
        return []
    hub: str | None
    if batteries:
        hub = _bank(plan, batteries)
        box = _fuse_box(plan, hub, bool(dc))
        for thing in inverters:
            if (thing.id, "DC") not in plan.fed:
                plan.wire(hub, thing.id, drop=0.03)
        _chargers(plan, hub)
    else:
        station = stations[0].id if stations else None
        hub, box = station, _fuse_box(plan, station, bool(dc)) if station else None
        if station is not None:
            for panel in units_of(build, "panel"):
                if (panel.id, "panel") not in plan.giving:
                    plan.wire(panel.id, station, "panel", "none")
    if hub is not None:
        for load in dc:
            amps = (load.power_w or 0.0) / float(build.systems.volts)
            start = hub if amps > HEAVY_A and batteries else box or hub
            plan.wire(start, load.id, switched=PUMPS in load.roles, drop=0.10 if "lights" in load.roles else 0.03)
    _mains(plan, inverters, stations, ac, bool(batteries))
    return plan.ops


def _bank(plan: _Plan, batteries: tuple[Thing, ...]) -> str:
    """Batteries to the bus bar, past the main switch and the shunt."""
    new = not plan.devices.get("bus bar")
    hub = plan.device("bus bar", "Bus bar")
    main, shunt = plan.device("main switch", "Main switch"), plan.device("shunt", "Battery monitor shunt")
    if new or (main, shunt, "DC") not in plan.pairs:
        plan.wire(main, shunt, fused="none")
        plan.wire(shunt, hub, fused="none")
    for k, thing in enumerate(batteries):
        if (thing.id, "DC") in plan.giving or (thing.id, "DC") in plan.fed:
            continue
        if k == 0:
            plan.wire(thing.id, main, fuse_from=_si(FUSE_AT_M))
        else:  # in a row, plus taken from one end of it and minus from the other, so that all share evenly
            plan.wire(batteries[k - 1].id, thing.id, fused="both", far_minus=True, fuse_from=_si(FUSE_AT_M))
    return hub


def _fuse_box(plan: _Plan, hub: str, wanted: bool) -> str | None:
    things = units_of(plan.build, "fuse box")
    box = things[0].id if things else plan.devices.get("fuse box", [None])[0]
    if box is None and wanted:
        box = plan.device("fuse box", "Fuse box")
    if box is not None and (box, "DC") not in plan.fed:
        plan.wire(hub, box)
    return box


def _chargers(plan: _Plan, hub: str) -> None:
    build = plan.build
    solar = units_of(build, "solar charger")
    for thing in solar:
        if (thing.id, "DC") not in plan.giving:
            plan.wire(thing.id, hub, fused="end")
    panels = [t for t in units_of(build, "panel") if (t.id, "panel") not in plan.giving]
    for k, panel in enumerate(panels):
        if solar:
            plan.wire(panel.id, solar[k % len(solar)].id, "panel", "none")
    for thing in units_of(build, "car charger"):
        if (thing.id, "DC") not in plan.fed:
            plug = plan.device("car plug", "Car plug", at=(0.05, 0.0, 0.5), rating_a=25.0)
            plan.wire(plug, thing.id, drop=0.10)
            plan.wire(thing.id, hub, fused="end")
    for thing in units_of(build, "mains charger"):
        if (thing.id, "DC") not in plan.giving:
            plan.wire(thing.id, hub, fused="end")


def _shore(build: Build) -> bool:
    return bool(units_of(build, "inlet", "mains charger", "inverter charger"))


def _mains(plan: _Plan, inverters: tuple[Thing, ...], stations: tuple[Thing, ...], ac: list[Runs], bank: bool) -> None:
    build = plan.build
    chargers = [t for t in units_of(build, "mains charger") if (t.id, "AC") not in plan.fed]
    both = [t for t in inverters if figures_of(t).unit == "inverter charger"]
    shore = _shore(build) or build.systems.plugged
    inlets = units_of(build, "inlet")
    board: str | None = None
    boards: list[str] = []
    if shore and (chargers or ac or both or stations):
        inlet = inlets[0].id if inlets else plan.device("inlet", "Hookup inlet", at=_inlet_at(build))
        rcd = plan.device("RCD", "RCD of the hookup")
        board = plan.device("AC board", "Hookup board")
        boards.append(board)
        plan.wire(inlet, rcd, "AC", "none")
        plan.wire(rcd, board, "AC", "none")
        for thing in chargers:
            plan.wire(board, thing.id, "AC")
        for thing in both:
            plan.wire(board, thing.id, "AC")
        if not bank:
            for thing in stations[:1]:
                plan.wire(board, thing.id, "AC")
    makers = [t.id for t in inverters]
    if bank and makers and ac:
        sockets = _socket_board(plan, makers[0], board if not both else None)
        boards.append(sockets)
        for appliance in ac:
            plan.wire(sockets, appliance.id, "AC")
    elif not bank and stations:
        for appliance in ac:
            plan.wire(stations[0].id, appliance.id, "AC", "none")
    elif board is not None:
        for appliance in ac:
            plan.wire(board, appliance.id, "AC")
    _earth(plan, boards, makers if bank else [])


def _socket_board(plan: _Plan, maker: str, shore: str | None) -> str:
    """The board of the sockets behind an RCD; where a hookup feeds it too, a transfer switch parts the two."""
    start = maker
    if shore is not None:
        start = plan.device("transfer switch", "Transfer switch")
        plan.wire(shore, start, "AC")
        plan.wire(maker, start, "AC", "none")
    boards = plan.devices.get("AC board", [])
    if shore is not None and len(boards) > 1:
        return boards[1]
    if shore is None and boards:
        return boards[0]
    rcd = plan.device("RCD", "RCD of the sockets", fresh=True)
    board = plan.device("AC board", "Socket board", fresh=True)
    plan.wire(start, rcd, "AC", "none")
    plan.wire(rcd, board, "AC", "none")
    if maker not in plan.systems.bonds:
        plan.ops.append(set_to("systems.bonds", [*plan.systems.bonds, maker]))
    return board


def _earth(plan: _Plan, boards: list[str], makers: list[str]) -> None:
    if not boards and not (makers and plan.devices.get("AC board")):
        return
    stud = plan.device("earth stud", "Earth stud on the frame", at=(plan.home[0], plan.home[1], 0.5))
    for one in [*boards, *[m for m in makers if (m, "AC") in plan.giving]]:
        if (one, stud, "earth") not in plan.pairs:
            plan.wire(one, stud, "earth", "none")


def _inlet_at(build: Build) -> tuple[float, float, float]:
    """On the left wall near the tail, hip high."""
    shell = build.shell
    if shell.form == "none" or not (shell.front and shell.length and shell.width):
        return 1.0, -0.5, 0.7
    floor = shell.floor.si if shell.floor else 0.5
    return shell.front.si + shell.length.si - 0.5, -shell.width.si / 2 + 0.02, floor + 0.3


def loose_of(build: Build) -> tuple[str, ...]:
    """Ids of things and own loads that run or give and have no wire yet; none while nothing is wired."""
    if not build.systems.wires:
        return ()
    ends = {end for wire in build.systems.wires for end in (wire.start, wire.end)}
    ids = [appliance.id for appliance in loads_of(build)]
    ids += [t.id for t in build.stow.things if t.figures is not None and t.figures.unit and not t.taken_out]
    return tuple(id for id in dict.fromkeys(ids) if id not in ends)
