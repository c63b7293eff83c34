"""What hangs on what: the ends of all wires, and the current that each wire has to carry.

Wires lead from the source to what it feeds. A wire carries all that runs behind it at once (an inverter: its rating at the
battery's low voltage), and what chargers behind it push back through it, whichever is more. Source: Kirchhoff's first law,
all on at once; batteries side by side share evenly.
"""

from __future__ import annotations

import msgspec

from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Figures, Thing
from uncle_sled.core.document.systems import Device, Wire
from uncle_sled.core.engine import keep
from uncle_sled.core.wiring.appliances import (
    ASK_VOC_SHARE,
    BOOSTER_ETA,
    CHARGER_ETA,
    INVERTER_ETA,
    SHORT_OVER,
    Runs,
    all_that_runs,
    electric_key,
    figures_of,
    low_v,
    mains_v,
)
from uncle_sled.core.wiring.rows import in_series

HARD = 1.5  # a start of so many times wants a larger fuse
HOOKUP_A = {"230": 16.0, "120": 30.0}
STORES = ("battery", "station")
START_LASTS_S = 1.0  # a shorter start neither melts a fuse nor stops a motor
PASSES = ("bus bar", "fuse box", "main switch", "switch", "shunt", "AC board", "RCD", "transfer switch", "AC socket", "DC socket", "inlet")
FEEDS_BACK = ("solar charger", "mains charger", "car charger", "inverter charger")


class End(msgspec.Struct, frozen=True):
    """Something that wires end at. kind: of a device, unit of a thing, or "load"; figures of a thing."""

    id: str
    name: str
    kind: str
    figures: Figures | None = None
    runs: Runs | None = None
    rating_a: float | None = None
    breaks: str = "both"
    vents_gas: bool = False


class Flow(msgspec.Struct, frozen=True):
    """Current and volts of a wire; None and why where nobody knows. hard: something behind it starts hard.

    start_a: what it carries while the hardest of what is behind it starts and the rest runs, for over a second; None where
    nothing starts so.
    """

    current_a: float | None
    volts: float
    hard: bool = False
    why: str = ""
    start_a: float | None = None


class Network(msgspec.Struct, frozen=True, eq=False):
    """Ends by id, wires by id, and their flows."""

    ends: dict[str, End]
    wires: dict[str, Wire]
    flows: dict[str, Flow]
    out: dict[str, tuple[str, ...]]  # wires that lead away from an end
    into: dict[str, tuple[str, ...]]  # and to it
    chemistry: str
    mains: float

    def linked(self, battery: str) -> list[str]:
        """Batteries that are linked with one, itself first."""
        seen = [battery]
        for now in seen:
            for id in (*self.out[now], *self.into[now]):
                wire = self.wires[id]
                other = wire.end if wire.start == now else wire.start
                if other not in seen and self.ends[other].kind == "battery":
                    seen.append(other)
        return seen


def end_of_thing(thing: Thing, runs: Runs | None) -> End:
    """A thing as an end of wires. Args: runs: what it draws, where it draws something."""
    f = figures_of(thing)
    return End(
        thing.id, thing.name, kind=f.unit or "load", figures=f, runs=runs, rating_a=f.limit_a, breaks="both", vents_gas=thing.vents_gas
    )


def end_of_device(device: Device) -> End:
    """A fuse box, busbar, switch or socket as an end of wires."""
    return End(device.id, device.name, kind=device.kind, figures=None, runs=None, rating_a=device.rating_a, breaks=device.breaks)


def _is_fed(run: Runs | None) -> bool:
    """Whether something runs from the battery or the mains: not what is filled elsewhere."""
    return run is not None and (run.battery is None or run.battery.filled != "home")


def _named_things(build: Build) -> tuple[object, ...]:
    """What the network reads: of things without figures the names of those that wires end at."""
    ends = {end for wire in build.systems.wires for end in (wire.start, wire.end)}
    plain = tuple([(t.id, t.name) for t in build.stow.things if t.figures is None and t.id in ends])
    return electric_key(build), plain


@keep("build.systems", "build.brief", _named_things, most=4)
def network_of(build: Build) -> Network:
    """The whole network. Places of things play no part in it."""
    runs = {run.id: run for run in all_that_runs(build)}
    ends: dict[str, End] = {}
    named = {end for wire in build.systems.wires for end in (wire.start, wire.end)}
    for thing in build.stow.things:
        if thing.id in named or _is_fed(runs.get(thing.id)) or figures_of(thing).unit:
            ends[thing.id] = end_of_thing(thing, runs.get(thing.id))
    for load in build.systems.loads:
        if load.id in named or _is_fed(runs[load.id]):
            ends[load.id] = End(load.id, load.name, "load", None, runs[load.id])
    for device in build.systems.devices:
        ends[device.id] = end_of_device(device)
    wires = {w.id: w for w in build.systems.wires if w.start in ends and w.end in ends}
    out: dict[str, list[str]] = {id: [] for id in ends}
    into: dict[str, list[str]] = {id: [] for id in ends}
    for id, wire in wires.items():
        out[wire.start].append(id)
        into[wire.end].append(id)
    stores = [e.figures for e in ends.values() if e.kind == "battery" and e.figures is not None]
    chemistry = stores[0].chemistry if stores else ""
    net = Network(
        ends,
        wires,
        flows={},
        out={k: tuple(v) for k, v in out.items()},
        into={k: tuple(v) for k, v in into.items()},
        chemistry=chemistry,
        mains=mains_v(build.brief),
    )
    flows = _Flows(net, build).all()
    return msgspec.structs.replace(net, flows=flows)


class _Flows:
    """Walks the network once a wire, from its far end on; what goes round in a ring is counted once."""

    def __init__(self, net: Network, build: Build) -> None:
        self.net, self.build = net, build
        self.volts = float(build.systems.volts)
        self.low = low_v(self.volts, net.chemistry)
        self.series = build.systems.panels_in_series
        self.row = in_series(build)
        self.hookup = build.systems.hookup_a or HOOKUP_A["120" if net.mains < 200 else "230"]

    def all(self) -> dict[str, Flow]:
        return {id: self.flow(wire) for id, wire in self.net.wires.items()}

    def flow(self, wire: Wire) -> Flow:
        volts = self.volts_of(wire)
        if wire.kind == "earth":
            return Flow(0.0, volts)
        if wire.amps is not None:
            more = self._start_more(wire.end, wire.kind, {wire.start})
            return Flow(wire.amps, volts, self._hard(wire.end, set()), start_a=wire.amps + more if more else None)
        if wire.kind == "panel":
            return self._panel(wire)
        start, end = self.net.ends[wire.start], self.net.ends[wire.end]
        if start.kind in FEEDS_BACK and wire.kind == "DC":
            return self._charging(start, volts)
        if wire.kind == "AC" and start.kind == "inlet":
            return Flow(self.hookup, volts)
        if start.kind == "battery" and end.kind == "battery":
            return self._link(wire, volts)
        demand, why = self._demand(wire.end, wire.kind, {wire.start})
        back = self._pushed_back(wire.end, {wire.start}) if wire.kind == "DC" else 0.0
        if demand is None:
            return Flow(None, volts, why=why)
        current = max(demand, back)
        if start.kind == "battery":
            current /= max(self._beside(wire), 1)
        more = self._start_more(wire.end, wire.kind, {wire.start})
        beside = max(self._beside(wire), 1) if start.kind == "battery" else 1
        start_a = current + more / beside if more else None
        return Flow(current, volts, self._hard(wire.end, {wire.start}), start_a=start_a)

    def volts_of(self, wire: Wire) -> float:
        """Nominal volts of a wire: of the mains, of the panels, of a load behind it with volts of its own, or of the bank."""
        if wire.kind in ("AC", "earth"):
            return self.net.mains
        start, end = self.net.ends[wire.start], self.net.ends[wire.end]
        if wire.kind == "panel":
            f = start.figures
            return (f.voc_v or 0.0) * ASK_VOC_SHARE * self.series if f is not None else 0.0
        if start.kind == "station" or "car plug" in (start.kind, end.kind):
            return 12.0
        return self.volts

    def _panel(self, wire: Wire) -> Flow:
        f = self.net.ends[wire.start].figures
        volts = self.volts_of(wire)
        if f is None or not f.solar_wp:
            return Flow(None, volts, why="its panel has no watts")
        if not f.voc_v:
            return Flow(None, volts, why="its panel has no open voltage (V, from its plate)")
        return Flow(f.solar_wp / (f.voc_v * ASK_VOC_SHARE) * SHORT_OVER, volts)

    def _charging(self, charger: End, volts: float) -> Flow:
        f = charger.figures
        if f is None or f.charge_w is None:
            return Flow(None, volts, why=f"{charger.name} has no charging watts")
        return Flow(f.charge_w / volts, volts)

    def _link(self, wire: Wire, volts: float) -> Flow:
        """Between batteries: what the end of the row gives, its share of all that runs."""
        firsts = [w for b in self.net.linked(wire.start) for w in self.net.out[b] if self.net.ends[self.net.wires[w].end].kind != "battery"]
        demand = 0.0
        for first in firsts:
            told, why = self._demand(self.net.wires[first].end, "DC", {self.net.wires[first].start})
            if told is None:
                return Flow(None, volts, why=why)
            demand += max(told, self._pushed_back(self.net.wires[first].end, {self.net.wires[first].start}))
        many = len(self.net.linked(wire.start))
        if many <= self.row:  # a row in series: all of it runs through each of its links
            return Flow(demand, volts)
        return Flow(demand * (many - 1) / max(many, 1), volts)

    def _beside(self, wire: Wire) -> int:
        """How many batteries feed the same point by wires of their own."""
        return sum(1 for id in self.net.into[wire.end] if self.net.ends[self.net.wires[id].start].kind == "battery")

    def _demand(self, at: str, kind: str, seen: set[str]) -> tuple[float | None, str]:
        """Amps that run at an end and behind it, all at once, in the volts of the wire that comes there."""
        end = self.net.ends[at]
        if at in seen:
            return 0.0, ""
        seen = seen | {at}
        f = end.figures or Figures()
        mains = self.net.mains
        if end.runs is not None:
            if end.runs.power_w is None:
                return None, f"{end.name} has no watts"
            return end.runs.power_w / (mains if kind == "AC" else (f.volts or self.volts) if not end.runs.ac else mains), ""
        if end.kind in ("inverter", "inverter charger") and kind == "DC":
            if f.power_w is None:
                return None, f"{end.name} has no rating"
            return f.power_w / (INVERTER_ETA * self.low), ""
        if end.kind in ("mains charger", "inverter charger") and kind == "AC":
            return (None, f"{end.name} has no charging watts") if f.charge_w is None else (f.charge_w / CHARGER_ETA / mains, "")
        if end.kind == "station" and kind == "AC":
            return (None, f"{end.name} has no charging watts") if f.charge_w is None else (f.charge_w / CHARGER_ETA / mains, "")
        if end.kind in ("car charger", "solar charger") and kind == "DC":
            return (None, f"{end.name} has no charging watts") if f.charge_w is None else (f.charge_w / BOOSTER_ETA / 12.0, "")
        if end.kind in STORES:
            return 0.0, ""
        total = 0.0
        for id in self.net.out[at]:
            wire = self.net.wires[id]
            if wire.kind != kind:
                continue
            if wire.amps is not None:
                total += wire.amps
                continue
            told, why = self._demand(wire.end, kind, seen)
            if told is None:
                return None, why
            total += told
        if not self.net.out[at] and end.kind.endswith("socket") and end.rating_a:
            total = end.rating_a
        return total, ""

    def _pushed_back(self, at: str, seen: set[str]) -> float:
        """Amps that chargers give into an end and all that hangs on it by DC wires."""
        if at in seen:
            return 0.0
        seen.add(at)
        total = 0.0
        for id in self.net.into[at]:
            wire = self.net.wires[id]
            start = self.net.ends[wire.start]
            if wire.kind == "DC" and start.kind in FEEDS_BACK:
                total += self._charging(start, self.volts).current_a or 0.0
        for id in self.net.out[at]:
            if self.net.wires[id].kind == "DC" and self.net.ends[at].kind not in FEEDS_BACK:
                total += self._pushed_back(self.net.wires[id].end, seen)
        return total

    def _start_more(self, at: str, kind: str, seen: set[str]) -> float:
        """Amps over what runs while the hardest at an end or behind it starts, where that lasts over a second."""
        if at in seen:
            return 0.0
        seen = seen | {at}
        end = self.net.ends[at]
        runs = end.runs
        if runs is not None:
            told, _ = self._demand(at, kind, seen - {at})
            lasts = runs.start_s is None or runs.start_s > START_LASTS_S
            return (told or 0.0) * max(runs.surge - 1.0, 0.0) if lasts else 0.0
        if end.kind not in PASSES:
            return 0.0
        behind = [self.net.wires[id] for id in self.net.out[at] if self.net.wires[id].kind == kind]
        return max((self._start_more(wire.end, kind, seen) for wire in behind), default=0.0)

    def _hard(self, at: str, _seen: set[str]) -> bool:
        """Whether what a wire feeds alone starts hard: a load at its very end."""
        end = self.net.ends[at]
        return end.runs is not None and end.runs.surge > HARD
