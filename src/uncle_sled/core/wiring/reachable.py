"""What can be reached over the wires of some kinds: along them, either way, and in rings."""

from __future__ import annotations

from collections.abc import Container

from uncle_sled.core.wiring.network import Network

AC, DC, PANEL, EARTHED = ("AC",), ("DC",), ("panel",), ("AC", "earth")
ANY = ("DC", "AC", "panel", "earth")


def after(net: Network, id: str, kinds: Container[str] = ANY) -> list[str]:
    """Where the wires of these kinds lead from an end, a wire an entry."""
    return [net.wires[wire].end for wire in net.out[id] if net.wires[wire].kind in kinds]


def before(net: Network, id: str, kinds: Container[str] = ANY) -> list[str]:
    """Where the wires of these kinds come from that lead to an end, a wire an entry."""
    return [net.wires[wire].start for wire in net.into[id] if net.wires[wire].kind in kinds]


def behind(net: Network, id: str, kinds: Container[str] = ANY, gates: Container[str] = ()) -> set[str]:
    """All ends that are reached along the wires from one, itself among them; ends of the kinds of gates are reached, not passed."""
    seen = [id]
    for now in seen:
        if now != id and net.ends[now].kind in gates:
            continue
        seen += [end for end in dict.fromkeys(after(net, now, kinds)) if end not in seen]
    return set(seen)


def joined(net: Network, id: str, kinds: Container[str] = ANY) -> set[str]:
    """All ends that hang together with one, whichever way the wires lead, itself among them."""
    seen = [id]
    for now in seen:
        seen += [end for end in dict.fromkeys((*after(net, now, kinds), *before(net, now, kinds))) if end not in seen]
    return set(seen)


def rings(net: Network) -> list[list[str]]:
    """Groups of ends of which each is reached from each other, by name. Ends that are in no ring stand alone."""
    reached = {id: behind(net, id) for id in net.ends}
    groups = {id: sorted(other for other in reached[id] if id in reached[other]) for id in net.ends}
    return sorted({tuple(group): group for group in groups.values()}.values())
