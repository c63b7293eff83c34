"""What is live in each state of supply: hooked up, driving, alone by day and night, on a generator, stored for winter.

The wiring as a graph: current goes both ways through what only passes it, one way through chargers and inverters. A transfer switch,
and the relay of an inverter with a charger, stand at the shore while that is there, else at what makes its own mains; in the store
every switch is open. Source: reachability over a graph (any algorithms text); break-before-make by its own build.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

import msgspec

from uncle_sled.core.engine import keep
from uncle_sled.core.wiring.network import PASSES, STORES, Network

StateId = Literal["hookup", "driving", "day", "night", "generator", "stored"]
SWITCHES = ("main switch", "switch")
SHORE = ("inlet", "generator")
OUTSIDE = (*SHORE, "panel", "car plug")


class SupplyState(msgspec.Struct, frozen=True):
    """gives: kinds of ends that give current then; open_: kinds of devices that stand open."""

    id: StateId
    name: str
    gives: tuple[str, ...]
    open_: tuple[str, ...] = ()


STATES = (
    SupplyState("hookup", "Hooked up", ("inlet", "panel", *STORES)),
    SupplyState("driving", "Driving", ("car plug", "panel", *STORES)),
    SupplyState("day", "Alone by day", ("panel", *STORES)),
    SupplyState("night", "Alone by night", STORES),
    SupplyState("generator", "Generator", ("generator", "panel", *STORES)),
    SupplyState("stored", "Stored", ("panel", "battery"), SWITCHES),  # a power station is switched off
)


class Live(msgspec.Struct, frozen=True, eq=False):
    """One state. ends, wires: ids with the ids of what their current comes from, in no order; nothing of what is dead.

    charges: (what charges, which store); meets: ends that two sources of mains reach at once; pins: plugs whose pins are live from
    inside while nothing is plugged in.
    """

    state: SupplyState
    ends: dict[str, frozenset[str]]
    wires: dict[str, frozenset[str]]
    charges: tuple[tuple[str, str], ...]
    meets: tuple[tuple[str, tuple[str, ...]], ...]
    pins: tuple[str, ...]


def states_here(net: Network, generator_in_inlet: bool = False) -> tuple[SupplyState, ...]:
    """The states that this wiring can be in. Args: generator_in_inlet: one without a wire of its own is plugged in there."""
    kinds = {end.kind for end in net.ends.values()}
    wanted = {
        "hookup": "inlet" in kinds,
        "driving": bool(kinds & {"car plug", "car charger"}),
        "day": "panel" in kinds,
        "night": bool(kinds & set(STORES)),
        "generator": "generator" in kinds or (generator_in_inlet and "inlet" in kinds),
        "stored": bool(kinds & set(STORES)),
    }
    return tuple(state for state in STATES if wanted[state.id])


@keep("net", "state.id", most=24)
def live_in(net: Network, state: SupplyState) -> Live:
    """What is live in a state, and from what."""
    spread = _Spread(net, state)
    sources = [(id, end.kind) for id, end in net.ends.items() if end.kind in state.gives]
    if state.id == "generator" and not any(kind == "generator" for _, kind in sources):
        sources += [(id, end.kind) for id, end in net.ends.items() if end.kind == "inlet"]  # plugged in there
    for id, kind in sources:
        if kind in SHORE:
            spread.reaches_shore(id)
    for id, kind in sources:
        for current in _own(kind):
            spread.give(id, current, id)
    return spread.found()


def _own(kind: str) -> tuple[str, ...]:
    """Which currents a source has by itself."""
    return {"panel": ("panel",), "inlet": ("AC",), "generator": ("AC",), "station": ("DC", "AC")}.get(kind, ("DC",))


class _Spread:
    """Walks from every source once over each end, current and source."""

    def __init__(self, net: Network, state: SupplyState) -> None:
        self.net, self.state = net, state
        self.seen: set[tuple[str, str, str]] = set()
        self.wires: dict[str, set[str]] = {}
        self.charges: dict[tuple[str, str], None] = {}
        self.shore: set[str] = set()  # ends that mains from outside reach: relays stand at it there

    def give(self, id: str, current: str, source: str) -> None:
        """All that a source's current reaches from an end on."""
        self.seen.add((id, current, source))
        todo = [(id, current, source, wire) for wire in self._ways(id, current, both=True)]
        while todo:
            at, current, source, wire_id = todo.pop()
            wire = self.net.wires[wire_id]
            self.wires.setdefault(wire_id, set()).add(source)
            other = wire.end if wire.start == at else wire.start
            if (other, current, source) in self.seen:
                continue
            self.seen.add((other, current, source))
            for more, giver, both in self._passed(other, current, source, into=wire.end == other):
                self.seen.add((other, more, giver))
                todo += [(other, more, giver, way) for way in self._ways(other, more, both) if way != wire_id]

    def reaches_shore(self, source: str) -> None:
        """Marks every end that a source's mains reach, before anything else is asked where its relay stands."""
        self.shore.add(source)
        todo = [(wire, source) for wire in self._ways(source, "AC", both=True)]
        while todo:
            wire_id, at = todo.pop()
            wire = self.net.wires[wire_id]
            other = wire.end if wire.start == at else wire.start
            kind = self.net.ends[other].kind
            if other in self.shore:
                continue
            self.shore.add(other)
            if kind in ("transfer switch", "inverter charger"):
                todo += [(way, other) for way in self._ways(other, "AC", both=False)] if wire.end == other else []
            elif kind in PASSES and kind != "inlet" and not (kind in SWITCHES and kind in self.state.open_):
                todo += [(way, other) for way in self._ways(other, "AC", both=True) if way != wire_id]

    def _ways(self, id: str, current: str, both: bool) -> list[str]:
        ways = (*self.net.out[id], *self.net.into[id]) if both else self.net.out[id]
        return [wire for wire in ways if self.net.wires[wire].kind == current]

    def _passed(self, id: str, current: str, source: str, into: bool) -> Iterator[tuple[str, str, bool]]:
        """What an end gives on of what comes to it: current, from whom, and whether both ways. Args: into: it comes by a wire that leads there."""
        kind = self.net.ends[id].kind
        shore = self.net.ends[source].kind in SHORE
        if kind in STORES:
            if current in ("DC", "panel", "AC") and source != id and self.net.ends[source].kind not in STORES:
                self.charges[source, id] = None
            if current == "DC" and kind == "battery":
                yield "DC", source, True
        elif kind in SWITCHES and kind in self.state.open_:
            return
        elif kind == "transfer switch":
            if into and (shore or id not in self.shore):
                yield current, source, False
        elif kind in PASSES and kind != "inlet":
            yield current, source, True
        elif (kind == "solar charger" and current == "panel") or (kind == "mains charger" and current == "AC" and into):
            yield "DC", id, False
        elif kind == "car charger" and current == "DC" and into:
            if self.net.ends[source].kind == "car plug":  # it starts with the car's volts, and takes nothing from the house
                yield "DC", id, False
        elif kind == "inverter" and current == "DC" and into:
            yield "AC", id, False
        elif kind == "inverter charger":
            if current == "AC" and into:
                yield "DC", id, True
                yield "AC", source, False
            elif current == "DC" and id not in self.shore:
                yield "AC", id, False

    def _from_outside(self, charger: str, ends: dict[str, set[str]]) -> bool:
        """Whether what charges gets it from outside of the stores: none fills itself from what it feeds."""
        return any(self.net.ends[source].kind in OUTSIDE for source in (charger, *ends.get(charger, ())))

    def found(self) -> Live:
        ends: dict[str, set[str]] = {}
        mains: dict[str, set[str]] = {}
        for id, current, source in self.seen:
            ends.setdefault(id, set()).add(source)
            if current == "AC":
                mains.setdefault(id, set()).add(source)
        meets = []
        for id, sources in mains.items():
            if len(sources) > 1 and self.net.ends[id].kind not in ("transfer switch", "inverter charger", *STORES):
                meets.append((id, tuple(sorted(sources))))
        plugs = [id for id, end in self.net.ends.items() if end.kind in ("car plug", "inlet") and end.kind not in self.state.gives]
        pins = tuple(id for id in plugs if ends.get(id, set()) - {id})
        return Live(
            self.state,
            {id: frozenset(sources) for id, sources in ends.items()},
            {id: frozenset(sources) for id, sources in self.wires.items()},
            charges=tuple(sorted(pair for pair in self.charges if self._from_outside(pair[0], ends))),
            meets=tuple(sorted(meets)),
            pins=pins,
        )


def leads_nowhere(net: Network, live: Live) -> tuple[str, ...]:
    """Ids of what should give in a state, has a wire, and reaches neither a store nor anything that runs; stores are left out."""
    return tuple(
        id
        for id, end in net.ends.items()
        if end.kind in live.state.gives and end.kind not in STORES and (net.out[id] or net.into[id]) and not _serves(net, live, id)
    )


def _serves(net: Network, live: Live, source: str) -> bool:
    """Whether what a source gives, by itself or by what it feeds, gets to a store or a load."""
    givers, todo = {source}, [source]
    while todo:
        giver = todo.pop()
        for id, of in live.ends.items():
            if giver not in of or id == giver:
                continue
            end = net.ends[id]
            if end.kind in STORES or end.runs is not None:
                return True
            if id not in givers and end.kind.endswith(("charger", "inverter")):
                givers.add(id)
                todo.append(id)
    return False
