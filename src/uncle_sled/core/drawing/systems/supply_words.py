"""A state of supply in words: what is live, what charges what, what must never meet, what arrives from the car, what draws in the store."""

from __future__ import annotations

from collections.abc import Iterator

from uncle_sled.core.studies.systems.supply import CAR_V, PIN_A, Arrives, Supply
from uncle_sled.core.wiring.network import Network
from uncle_sled.core.words import all_of, count_of

MOST = 6


def supply_words(supply: Supply, net: Network) -> tuple[str, ...]:
    """Sentences, what can hurt first."""
    return tuple(_said(supply, net))


def stop_words_of(supply: Supply, net: Network) -> tuple[str, ...]:
    """What can hurt in this state alone."""
    live = supply.live
    told = [
        f"{net.ends[id].name}: fed by {all_of([net.ends[source].name for source in sources])} at once; they must never meet."
        for id, sources in live.meets
    ]
    told += [f"{net.ends[id].name}: its pins are live from inside while nothing is plugged in." for id in live.pins]
    return tuple(told)


def _said(supply: Supply, net: Network) -> Iterator[str]:
    live = supply.live
    yield from stop_words_of(supply, net)
    dead = [end.name for id, end in net.ends.items() if end.runs is not None and id not in live.ends and (net.into[id] or net.out[id])]
    runs = sum(1 for id, end in net.ends.items() if end.runs is not None and id in live.ends)
    yield f"{count_of(runs, 'thing')} can run." + (f" Dead: {_some(dead)}." if dead else "")
    if live.charges:
        pairs = [f"{net.ends[source].name} charges {net.ends[store].name}" for source, store in live.charges]
        watts = f", {supply.charge_w:.0f} W at the most" if supply.charge_w is not None else ", with watts that nobody said"
        yield f"{_some(pairs)}{watts}."
    elif live.state.id not in ("night", "stored"):
        yield "Nothing charges."
    if supply.arrives is not None:
        yield from _arrives(supply.arrives)
    elif live.state.id == "driving":
        yield "No way leads from the car's plug to a charger or a battery."
    if live.state.id == "stored":
        yield from _stored(supply)


def _arrives(arrives: Arrives) -> Iterator[str]:
    if arrives.ohm is None:
        yield "What arrives from the car is not known: one of its wires has no size."
    elif arrives.falls:
        yield f"Over {arrives.ohm:.2f} ohm {arrives.booster} never gets its watts: it lets go and tries again. Thicker wire, or less of it."
    elif arrives.amps is None or arrives.volts is None or arrives.watts is None:
        yield f"What arrives from the car is not known: {arrives.booster or 'its charger'} has no watts."
    else:
        over = f" Its plug is fused at {PIN_A:.0f} A: that is too much." if arrives.over else ""
        if arrives.booster:
            yield f"From {CAR_V:.1f} V in the car {arrives.amps:.1f} A flow through {arrives.ohm:.2f} ohm, {arrives.volts:.1f} V arrive at {arrives.booster}, {arrives.watts:.0f} W go into the battery.{over}"
        else:
            yield f"Without a charger of its own {arrives.amps:.1f} A flow from {CAR_V:.1f} V in the car, {arrives.watts:.0f} W, as long as the battery takes them.{over} A lithium battery wants a booster between."


def _stored(supply: Supply) -> Iterator[str]:
    always = [draw for draw in supply.draws if draw.always and draw.stored]
    if always:
        told = ", ".join(
            f"{draw.name} {draw.watts:.1f} W" if draw.watts is not None else f"{draw.name}, nobody knows how much" for draw in always[:MOST]
        )
        last = f" All that is stored is gone in {supply.days:.0f} days." if supply.days is not None else ""
        yield f"With every switch open still draws: {told}.{last}"
    else:
        yield "With every switch open nothing draws from the battery."
    other = [draw.name for draw in supply.draws if not draw.always and draw.stored]
    if other:
        yield f"Not parted from it: {_some(other)}."
    if any(not draw.stored for draw in supply.draws):
        yield "By day the panels feed what lies behind the open switch with no battery there, which many controllers do not bear: cover the panels, or part them."


def _some(names: list[str]) -> str:
    more = f" and {len(names) - MOST} more" if len(names) > MOST else ""
    return ", ".join(names[:MOST]) + more
