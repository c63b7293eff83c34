"""What in the wiring can hurt somebody or burn: the diagram read as a graph.

Wires lead from source to load. A transfer switch is break-before-make by its own build: of all that comes into it only one
goes on. Practice: ABYC E-11 and ISO 13297 for the fuses near the battery and the return through one point, IEC 60364-7-721 and
NEC 551 for mains in what is towed. Screening only: licensed people and local codes decide.
"""

from __future__ import annotations

from collections.abc import Iterator

import msgspec

from uncle_sled.core.document.project import Build
from uncle_sled.core.engine import keep
from uncle_sled.core.studies.systems.bank import stands_outside, temperatures_c
from uncle_sled.core.studies.systems.stay import power_key
from uncle_sled.core.wiring.appliances import AC_SOURCES, figures_of
from uncle_sled.core.wiring.network import End, Network
from uncle_sled.core.wiring.reachable import AC, DC, EARTHED, after, before, behind, joined, rings
from uncle_sled.core.wiring.rows import in_series, panel_rows
from uncle_sled.core.wiring.wired import LIMIT_THEMSELVES, Laid, Wired

FUSE_NEAR_M = 0.2
UNEVEN = 0.1  # of length between batteries side by side
PANELS_UNFUSED = 2  # strings side by side that need no fuse of their own
SPREADS = ("battery", "station", "bus bar", "fuse box")  # what a wire must be fused at
METERED = ("bus bar", "fuse box", "inverter", "inverter charger", "solar charger", "mains charger", "car charger", "load")
PUMPS = "pumps water"


class Hazard(msgspec.Struct, frozen=True):
    """One hazard: its code, the wires and ends it is at (the one to look at first), and names and numbers for the sentence."""

    code: str
    where: tuple[str, ...]
    names: tuple[str, ...] = ()
    value: float | None = None
    limit: float | None = None


def _power_and_wires(build: Build, wired: Wired) -> tuple[object, ...]:
    laid = tuple([(w.id, w.fuse_a, w.ampacity_a, w.length_m, w.current_a) for w in wired.wires])
    return power_key(build), laid


@keep("wired.net", _power_and_wires, most=6)
def hazards_of(build: Build, wired: Wired) -> tuple[Hazard, ...]:
    """All hazards, by kind. None where nothing is wired."""
    net = wired.net
    if not net.wires:
        return ()
    found: list[Hazard] = []
    for one in (_meeting(net), _loops(net), _fuses(net, wired, build.systems.panels_in_series), _main(net), _mains(build, net)):
        found += one
    for one in (_pumps(net), _sockets(net, wired), _batteries(build, net, wired), _switches(net)):
        found += one
    return tuple(found)


def ac_feeds(net: Network) -> dict[str, frozenset[str]]:
    """Which sources of mains can be on an end at the same time.

    What passes a transfer switch counts as one: whichever of them it stands at.
    """
    feeds: dict[str, frozenset[str]] = {id: frozenset() for id in net.ends}
    for _ in range(len(net.ends) + 1):
        changed = False
        for id in net.ends:
            came: set[str] = set()
            for source in before(net, id, AC):
                came |= _gives(net, source, feeds)
            fed = frozenset(came)
            if fed != feeds[id]:
                feeds[id], changed = fed, True
        if not changed:
            break
    return feeds


def _gives(net: Network, id: str, feeds: dict[str, frozenset[str]]) -> set[str]:
    end = net.ends[id]
    if end.kind == "transfer switch":
        return {f"{id} of {len(feeds[id])}"} if feeds[id] else set()
    if end.kind == "inverter charger":
        return {id}  # its own relay parts what comes in from what it makes
    own = {id} if end.kind in AC_SOURCES else set()
    if end.kind == "mains charger":
        return set()
    return own | set(feeds[id]) if end.kind not in ("inverter",) else own | set()


def _meeting(net: Network) -> Iterator[Hazard]:
    feeds = ac_feeds(net)
    told: set[frozenset[str]] = set()
    # where they come together first, not what hangs behind
    order = sorted(net.ends, key=lambda id: len([w for w in net.into[id] if net.wires[w].kind == "AC"]) < 2)
    for id in order:
        end = net.ends[id]
        fed = set(feeds[id])
        if end.kind in ("inlet", "generator", "inverter") and fed and end.kind != "inverter":
            yield Hazard("live-pins", (id, *sorted(_plain(fed))), (end.name, _names(net, fed)))
            continue
        if end.kind == "inverter" and fed:
            fed.add(id)
        if len(fed) > 1 and end.kind not in ("transfer switch", "inverter charger") and frozenset(fed) not in told:
            told.add(frozenset(fed))
            yield Hazard("ac-meet", (id, *sorted(_plain(fed))), (end.name, _names(net, fed)))
    for id, end in net.ends.items():
        # an inlet's pins are live where what it leads to is fed by something else as well, with nothing that parts them
        if end.kind != "inlet" or feeds[id]:
            continue
        for reached in _reached(net, id):
            if net.ends[reached].kind in ("transfer switch", "inverter charger"):
                continue
            others = {feed for feed in feeds[reached] if feed != id and " of " not in feed}
            if others and id in feeds[reached]:
                yield Hazard("live-pins", (id, *sorted(others)), (end.name, _names(net, others)))
                break
    station: dict[str, list[str]] = {}
    for id in net.ends:
        for wire in net.out[id]:
            if net.ends[id].kind == "station" and net.wires[wire].kind == "DC":
                station.setdefault(f"{id}\n{net.wires[wire].end}", []).append(wire)
    for key, wires in station.items():
        if len(wires) > 1:
            id, _, at = key.partition("\n")
            yield Hazard("outputs-joined", (wires[-1], id), (net.ends[id].name, net.ends[at].name))


def _reached(net: Network, id: str) -> list[str]:
    """Ends behind one, up to the next transfer switch or inverter charger."""
    seen = [id]
    for now in seen:
        if now != id and net.ends[now].kind in ("transfer switch", "inverter charger"):
            continue
        seen += [end for end in dict.fromkeys(after(net, now, AC)) if end not in seen]
    return seen


def _plain(fed: set[str]) -> set[str]:
    return {one.partition(" of ")[0] for one in fed}


def _names(net: Network, fed: set[str]) -> str:
    return " and ".join(sorted(net.ends[one].name for one in _plain(fed)))


def _loops(net: Network) -> Iterator[Hazard]:
    """Rings that pass an inverter or station and a charger, or a battery and a charger meant for the car: it charges itself from itself."""
    for group in rings(net):
        kinds = {id: net.ends[id].kind for id in group}
        makers = [id for id, kind in kinds.items() if kind in ("inverter", "station", "inverter charger")]
        chargers = [id for id, kind in kinds.items() if kind in ("mains charger", "station", "inverter charger")]
        if len(group) > 1 and makers and chargers and any(to in group for id in group for to in after(net, id, AC)):
            charger = next((id for id in chargers if kinds[id] == "mains charger"), chargers[0])
            maker = next((id for id in makers if kinds[id] != "mains charger" and id != charger), makers[0])
            yield Hazard("charger-loop", (charger,), (net.ends[charger].name, net.ends[maker].name))
        store = next((id for id, kind in kinds.items() if kind in ("battery", "station")), None)
        for id in (id for id, kind in kinds.items() if kind == "car charger"):
            if store is not None and all(start in kinds for start in before(net, id, DC)):  # no car feeds it
                yield Hazard("booster-loop", (id,), (net.ends[id].name, net.ends[store].name))


def _fuses(net: Network, wired: Wired, series: int) -> Iterator[Hazard]:
    yield from _panel_rows(net, wired, series)
    for laid in wired.wires:
        wire = net.wires[laid.id]
        start, end = net.ends[wire.start], net.ends[wire.end]
        name = _run(net, laid.id)
        if wire.kind == "DC":
            yield from _unguarded(laid, start, end, name, wired)
        elif wire.kind == "AC" and start.kind == "AC board" and laid.fused == "none":
            yield Hazard("unfused", (laid.id,), (name, start.name))
        if laid.fuse_a is not None and laid.ampacity_a is not None and laid.fuse_a > laid.ampacity_a + 1e-9:
            yield Hazard("fuse-over-wire", (laid.id,), (name,), laid.fuse_a, laid.ampacity_a)
        at = wire.fuse_from.si if wire.fuse_from is not None else None
        guards_battery = (start.kind == "battery" and laid.fused in ("start", "both")) or (
            end.kind == "battery" and laid.fused in ("end", "both")
        )
        if at is not None and at > FUSE_NEAR_M and guards_battery:
            yield Hazard("fuse-far", (laid.id,), (name,), at, FUSE_NEAR_M)


def _panel_rows(net: Network, wired: Wired, series: int) -> Iterator[Hazard]:
    """More than two rows side by side can feed a fault in one of them: each wants a fuse. Rows count, not wires."""
    for at in net.ends:
        into = tuple(id for id in net.into[at] if net.wires[id].kind == "panel" and net.ends[at].kind != "panel")
        rows = panel_rows(net.wires, into, net.into, series)
        if len(rows) <= PANELS_UNFUSED:
            continue
        for row in rows:
            laid = [one for id in row if (one := wired.wire(id)) is not None]
            if laid and all(each_laid.fused == "none" for each_laid in laid):
                yield Hazard("unfused", (laid[0].id,), (_run(net, laid[0].id), net.ends[net.wires[laid[0].id].start].name))


def _unguarded(laid: Laid, start: End, end: End, name: str, wired: Wired) -> Iterator[Hazard]:
    """A wire of the battery's volts wants a fuse at each end that can feed it, or one before it that it can bear."""
    fused = laid.fused
    if start.kind == "battery" and end.kind == "battery":
        if fused == "none" or (fused != "both" and not wired.in_row(start.id, end.id)):
            yield Hazard("unfused", (laid.id,), (name, end.name))
        return
    if start.kind in SPREADS and fused not in ("start", "both"):
        yield Hazard("unfused", (laid.id,), (name, start.name))
    elif fused not in ("end", "both") and (
        (end.kind == "battery" and start.kind not in ("bus bar", "fuse box")) or (end.kind == "bus bar" and start.kind in LIMIT_THEMSELVES)
    ):
        yield Hazard("unfused", (laid.id,), (name, end.name))
    elif (
        fused not in ("start", "both")
        and laid.guard_a is not None
        and laid.ampacity_a is not None
        and laid.guard_a > laid.ampacity_a + 1e-9
    ):
        # what only passes current on guards nothing: the fuse before it lets through what this wire cannot bear
        yield Hazard("unfused", (laid.id,), (name, start.name), laid.guard_a, laid.ampacity_a)
    elif laid.typed_size and laid.ampacity_a is None and laid.guard_a is not None and fused not in ("start", "both"):
        yield Hazard("unfused", (laid.id,), (name, start.name), laid.guard_a)


def _run(net: Network, id: str) -> str:
    wire = net.wires[id]
    return f"{net.ends[wire.start].name} to {net.ends[wire.end].name}"


def _main(net: Network) -> Iterator[Hazard]:
    """From every battery to all that it feeds: past a main switch, and past the shunt where there is one."""
    shunts = [id for id, end in net.ends.items() if end.kind == "shunt"]
    for id, end in net.ends.items():
        if end.kind != "battery" or not net.out[id]:
            continue
        free = _without(net, id, ("main switch",))
        if free:
            yield Hazard("no-main-disconnect", (id,), (end.name, net.ends[free[0]].name))
        if shunts:
            past = _without(net, id, ("shunt",))
            if past:
                wire = next((w for w in net.out[id] if net.wires[w].end == past[0]), net.out[id][0])
                yield Hazard("shunt-bypassed", (wire, id), (net.ends[past[0]].name, end.name))
    for id, end in net.ends.items():
        if end.kind == "shunt" or not shunts:
            continue
        for wire in net.into[id]:  # what charges the battery itself goes past the shunt as well
            if end.kind == "battery" and net.ends[net.wires[wire].start].kind in METERED and net.wires[wire].kind == "DC":
                other = net.ends[net.wires[wire].start]
                yield Hazard("shunt-bypassed", (wire, id), (other.name, end.name))


def _without(net: Network, battery: str, gates: tuple[str, ...]) -> list[str]:
    """What a battery reaches by DC wires without passing one of some devices: things that use or spread, nearest first."""
    seen, found = [battery], []
    for now in seen:
        for wire in net.out[now]:
            to = net.wires[wire].end
            kind = net.ends[to].kind
            if net.wires[wire].kind != "DC" or to in seen or kind in gates:
                continue
            seen.append(to)
            if kind in METERED:
                found.append(to)
    return found


def _mains(build: Build, net: Network) -> Iterator[Hazard]:
    sources = [id for id, end in net.ends.items() if end.kind in AC_SOURCES and after(net, id, AC)]
    for id in sources:
        end = net.ends[id]
        bare = _without_rcd(net, id)
        if bare and end.kind != "station":  # a station guards its own sockets
            yield Hazard("no-rcd", (id, bare[0]), (end.name, net.ends[bare[0]].name))
        if end.kind == "station":
            continue
        together = joined(net, id, EARTHED)
        if not any(net.ends[one].kind == "earth stud" for one in together):
            yield Hazard("no-earth", (id,), (end.name,))
        live = _reached(net, id)
        bonds = [bond for bond in build.systems.bonds if bond in live]
        if end.kind == "inlet":
            if bonds:
                yield Hazard("neutral-bond", (id, bonds[0]), (end.name, net.ends[bonds[0]].name), len(bonds) + 1.0, 1.0)
        elif end.kind in ("inverter", "inverter charger", "generator"):
            fed = behind(net, id, AC)
            bound = [bond for bond in build.systems.bonds if bond in fed]
            if len(bound) != 1:
                yield Hazard("neutral-bond", (id, *bound[:1]), (end.name, ""), float(len(bound)), 1.0)


def _without_rcd(net: Network, id: str) -> list[str]:
    """Loads and sockets that a source of mains reaches past no RCD."""
    seen, found = [id], []
    for now in seen:
        for to in after(net, now, AC):
            kind = net.ends[to].kind
            if to in seen or kind == "RCD":
                continue
            seen.append(to)
            if kind in ("load", "AC socket", "mains charger", "inverter charger"):
                found.append(to)
    return found


def _pumps(net: Network) -> Iterator[Hazard]:
    for id, end in net.ends.items():
        if end.runs is None or PUMPS not in end.runs.roles:
            continue
        for wire in net.into[id]:
            if not net.wires[wire].switched and not _switch_before(net, id):
                yield Hazard("pump-no-switch", (wire, id), (end.name,))


def _switch_before(net: Network, id: str) -> bool:
    """Whether a switch of its own stands on the way to an end, before the wire branches."""
    now = id
    for _ in range(len(net.ends)):
        before = [net.wires[w].start for w in net.into[now]]
        if len(before) != 1:
            return False
        now = before[0]
        if net.ends[now].kind == "switch":
            return True
        if len(net.out[now]) > 1:
            return False
    return False


def _sockets(net: Network, wired: Wired) -> Iterator[Hazard]:
    """Outlets asked for more than they give: of stations, and devices with a rating."""
    for id, end in net.ends.items():
        if end.kind == "station":
            asked = [wired.wire(w) for w in net.out[id] if net.wires[w].kind == "DC"]
            limit = end.rating_a
        elif end.kind.endswith("socket") or end.kind == "car plug":
            asked = [wired.wire(w) for w in net.out[id]]
            limit = end.rating_a
        else:
            continue
        amps = [laid.current_a for laid in asked if laid is not None and laid.current_a is not None]
        if limit is not None and sum(amps) > limit + 1e-9:
            yield Hazard("socket-over", (id, *(laid.id for laid in asked if laid is not None)), (end.name,), sum(amps), limit)


def _batteries(build: Build, net: Network, wired: Wired) -> Iterator[Hazard]:
    batteries = [id for id, end in net.ends.items() if end.kind == "battery"]
    links = [w for w in net.wires.values() if w.start in batteries and w.end in batteries]
    series = in_series(build)
    if len(batteries) > series:
        for wire in links:
            if not wire.far_minus and not wired.in_row(wire.start, wire.end):
                yield Hazard("parallel-uneven", (wire.id, wire.start, wire.end), (_run(net, wire.id),))
    if not links and len(batteries) > 1:
        lengths = [(laid.length_m, laid.id) for laid in wired.wires if laid.start in batteries and laid.kind == "DC"]
        if len(lengths) > 1 and max(lengths)[0] > min(lengths)[0] * (1 + UNEVEN) + 0.05:
            yield Hazard("parallel-uneven", (min(lengths)[1], max(lengths)[1]), ("", ""), max(lengths)[0], min(lengths)[0])
    coldest = build.brief.coldest
    if coldest is None:
        return
    for thing in build.stow.things:
        f = figures_of(thing)
        if f.unit != "battery" or f.chemistry != "LFP" or f.cold_cut:
            continue
        outside = stands_outside(build, thing)
        if min(temperatures_c(coldest.si, outside)) < 0 and net.into.get(thing.id, ()) + net.out.get(thing.id, ()):
            yield Hazard("lfp-cold-charge", (thing.id,), (thing.name,), min(temperatures_c(coldest.si, outside)), 0.0)


def _switches(net: Network) -> Iterator[Hazard]:
    for id, end in net.ends.items():
        if end.kind in ("switch", "main switch") and end.breaks == "minus":
            yield Hazard("polarity-switch", (id,), (end.name,))
