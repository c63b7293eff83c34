"""Every wire as it is laid: its way, length, size, drop and fuse, and what it weighs where.

Nothing here is a study of the stay: it is what gets built, so that mass, cutting, buying and drawing read it alike.
"""

from __future__ import annotations

import itertools
import math
from typing import Literal

import msgspec

from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.document.systems import Device, Wire
from uncle_sled.core.engine import by_value, keep, keep_each
from uncle_sled.core.framing.frame_body import Framed
from uncle_sled.core.wiring.conductors import (
    BREAKERS_A,
    FUSES_A,
    LEAST_DROP,
    LEAST_MAINS_MM2,
    SIZES,
    Guard,
    Run,
    choose,
    copper_kg,
    derating,
    drop_v,
    fuse_for,
    judged,
)
from uncle_sled.core.wiring.in_foam import foam_m, in_trays, insulated_faces
from uncle_sled.core.wiring.near_heat import HotBox, hot_boxes, near_heat
from uncle_sled.core.wiring.network import FEEDS_BACK, Flow, Network, network_of
from uncle_sled.core.wiring.route import Inside, Spot, Ways, length_m, route, ways_of
from uncle_sled.core.wiring.rows import in_series

LIMIT_THEMSELVES = ("inverter", "inverter charger", "solar charger", "mains charger", "car charger", "generator", "panel")
NO_PLACE = "where it ends nobody said, so its length, size and drop are not known"
EARTH_MM2 = {"mm2": 6.0, "AWG": 5.26}
CORES = {"DC": 2, "panel": 2, "AC": 3, "earth": 1}
DEVICE_KG = {
    "bus bar": 0.3,
    "fuse box": 0.4,
    "main switch": 0.35,
    "switch": 0.05,
    "shunt": 0.35,
    "AC board": 1.2,
    "RCD": 0.25,
    "transfer switch": 1.5,
    "inlet": 0.6,
    "AC socket": 0.15,
    "DC socket": 0.08,
    "car plug": 0.3,
    "earth stud": 0.1,
}
FUSE_KG = ((40.0, 0.05), (math.inf, 0.25))  # with its holder, up to so many amps
COLOURS = {
    ("DC", "mm2"): "red, black",
    ("DC", "AWG"): "red, black",
    ("panel", "mm2"): "red, black",
    ("panel", "AWG"): "red, black",
    ("AC", "mm2"): "brown, blue, green-yellow",
    ("AC", "AWG"): "black, white, green",
    ("earth", "mm2"): "green-yellow",
    ("earth", "AWG"): "green",
}


class Laid(msgspec.Struct, frozen=True):
    """One wire as laid.

    number: as on its label. current_a, mm2, drop_share, fuse_a: None where unknown, and ``why`` says because of what.
    allowed: share of the volts that may be lost. points: its way, one end to the other [m].
    """

    id: str
    number: str
    kind: str
    start: str
    end: str
    volts: float
    current_a: float | None
    points: tuple[Spot, ...]
    length_m: float
    mm2: float | None
    gauge: str
    insulation: str
    derating: float
    ampacity_a: float | None
    drop_share: float | None
    start_a: float | None  # while the hardest of what is behind it starts; None where nothing does so for over a second
    start_drop_share: float | None
    allowed: float
    fused: str
    fuse_a: float | None
    fuse_wanted_a: float | None  # the next standard size over the load
    guard_a: float | None  # the fuse or breaker further up that guards it where it has none of its own
    typed_size: bool
    typed_fuse: bool
    length_face: Literal["measured", "route", "guessed"]  # guessed: an end whose place nobody said
    colour: str
    mass_kg: float
    middle_m: Spot
    in_foam_m: float = 0.0  # as typed, else what of its way lies inside insulated faces
    bundle: int = 1  # loaded wires that lie together: as typed, or as many as share its tray
    near_heat: tuple[tuple[str, float], ...] = ()  # ids of hot things that it passes, and how much of it lies near each [m]
    why: str = ""

    @property
    def slow(self) -> bool:
        """Whether its fuse holds the start of what is behind it only where it is a slow one."""
        return self.fuse_a is not None and self.start_a is not None and self.fuse_a < self.start_a - 1e-9

    @property
    def fuse_words(self) -> str:
        """Its fuse as one asks for it: 20 A, 20 A slow; "" without one."""
        return "" if self.fuse_a is None else f"{self.fuse_a:g} A{' slow' if self.slow else ''}"


class Wired(msgspec.Struct, frozen=True, eq=False):
    """All wires as laid, the devices they end at, and the network they make."""

    wires: tuple[Laid, ...]
    devices: tuple[Device, ...]
    net: Network
    gauge: str
    row: int = 1  # batteries in series for the volts of the build

    def in_row(self, a: str, b: str) -> bool:
        """Whether two linked batteries stand in one row in series, and not side by side."""
        if self.row < 2:
            return False
        linked = self.net.linked(a)
        return b in linked and len(linked) <= self.row

    def wire(self, id: str) -> Laid | None:
        """A wire as it was laid; None where there is none of that id."""
        return next((laid for laid in self.wires if laid.id == id), None)


def gauge_of(build: Build) -> str:
    """Whether sizes are in mm2 or AWG: as chosen, or by the practice of the brief."""
    return build.systems.gauge or ("AWG" if build.brief.region == "North American" else "mm2")


@keep_each
def _middles(thing: Thing) -> tuple[str, Spot]:
    along = thing.length.si if thing.turn % 180 == 0 else thing.width.si
    return thing.id, (thing.x.si + along / 2, thing.y.si, thing.z.si + thing.height.si / 2)


def spots_of(build: Build) -> dict[str, Spot]:
    """Where wires end, by id [m]: the middle of each thing, and the place of each device and load of Systems."""
    spots: dict[str, Spot] = dict(_middles(build.stow.things))
    for d in build.systems.devices:
        spots[d.id] = (d.x.si, d.y.si, d.z.si)
    home = next((spots[d.id] for d in build.systems.devices if d.kind == "fuse box"), None)
    if home is None:
        home = next((spots[t.id] for t in build.stow.things if t.figures and t.figures.unit in ("fuse box", "station")), (1.0, 0.0, 0.5))
    for load in build.systems.loads:
        if load.x is not None and load.y is not None and load.z is not None:
            spots[load.id] = (load.x.si, load.y.si, load.z.si)
        else:
            spots[load.id] = (home[0] + 0.5, home[1], home[2])
    return spots


@keep()
def wired_of(build: Build, framed: Framed) -> Wired:
    """Every wire laid, sized and fused; the way of each is kept while its ends and the body stay."""
    net, gauge = network_of(build), gauge_of(build)
    if not net.wires:
        return Wired((), build.systems.devices, net, gauge, in_series(build))
    ways, spots = ways_of(build, framed), spots_of(build)
    inside = ways.inside if ways is not None else None
    practice = "120" if net.mains < 200 else "230"
    laid: dict[str, Laid] = {}
    insulated, hot = insulated_faces(build.shell), hot_boxes(build.stow.things)
    runs = {id: _way(wire, spots[wire.start], spots[wire.end], ways) for id, wire in net.wires.items()}
    together = in_trays(runs, net.wires, build.systems.trays) if build.systems.trays else {}
    lost = {load.id for load in build.systems.loads if load.x is None or load.y is None or load.z is None}

    def lay(id: str, seen: frozenset[str]) -> Laid:
        """The wires that lead to it first: their fuse may be the one that guards it."""
        if id not in laid:
            wire = net.wires[id]
            guard = None if wire.fused in ("start", "both") else guard_of(wire, seen)
            points = runs[id]
            foam = wire.in_foam.si if wire.in_foam is not None else _foam(points, inside, insulated)
            about = (foam, together.get(id, 1), _near(points, (wire.start, wire.end), hot))
            laid[id] = _laid(wire, points, net.flows[id], gauge, practice, guard, wire.start in lost or wire.end in lost, about)
        return laid[id]

    def guard_of(wire: Wire, seen: frozenset[str]) -> float | None:
        if wire.kind not in ("DC", "AC") or net.ends[wire.start].kind in LIMIT_THEMSELVES:
            return None
        if net.ends[wire.start].kind == "inlet":
            return net.flows[wire.id].current_a
        before = [id for id in net.into[wire.start] if id not in seen and net.wires[id].kind == wire.kind and id != wire.id]
        guards = [lay(id, seen | {wire.id}) for id in before]
        told = [laid.fuse_a if _guards_on(laid, net) else laid.guard_a for laid in guards]
        known = [one for one in told if one is not None]
        if not known:
            return None
        return sum(known) if wire.kind == "DC" else max(known)  # batteries side by side all push at once

    return Wired(tuple(lay(id, frozenset()) for id in net.wires), build.systems.devices, net, gauge, in_series(build))


def _way(wire: Wire, start: Spot, end: Spot, ways: Ways | None) -> tuple[Spot, ...]:
    """A post that moves leads anew what rises beside it, and nothing else."""
    if ways is None:
        return _routed(wire, start, end, None, None)
    return _routed(wire, start, end, ways.inside, ways.rises(start, end))


@keep("wire.bends", by_value("start"), by_value("end"), "inside", by_value("rises"), most=1000)
def _routed(wire: Wire, start: Spot, end: Spot, inside: Inside | None, rises: tuple[float, float] | None) -> tuple[Spot, ...]:
    return route(start, end, wire.bends, inside, rises)


@keep(by_value("points"), "inside", by_value("insulated"), most=1000)
def _foam(points: tuple[Spot, ...], inside: Inside | None, insulated: frozenset[str]) -> float:
    return foam_m(points, inside, insulated)


@keep(by_value("points"), by_value("ends"), by_value("hot"), most=1000)
def _near(points: tuple[Spot, ...], ends: tuple[str, str], hot: tuple[HotBox, ...]) -> tuple[tuple[str, float], ...]:
    return near_heat(points, ends, hot)


def _guards_on(laid: Laid, net: Network) -> bool:
    """Whether the fuse of a wire also guards what hangs behind its end: at its beginning, or at its end from a source."""
    return laid.fused in ("start", "both") or (laid.fused == "end" and net.ends[laid.start].kind not in FEEDS_BACK)


@keep("wire", by_value("points"), by_value("flow"), "gauge", "practice", "guard", "guessed", by_value("about"), most=1000)
def _laid(
    wire: Wire,
    points: tuple[Spot, ...],
    flow: Flow,
    gauge: str,
    practice: str,
    guard: float | None,
    guessed: bool,
    # how much of it lies in foam [m], how many wires in one tray with it, what is hot beside it
    about: tuple[float, int, tuple[tuple[str, float], ...]],
) -> Laid:
    foam_m, beside, hot = about
    long = wire.length.si if wire.length is not None else length_m(points)
    sizes = SIZES[gauge]
    if wire.kind == "AC":
        sizes = tuple(size for size in sizes if size.mm2 >= LEAST_MAINS_MM2)
    bundle = max(wire.bundle, beside)
    left = derating(bundle, foam_m, wire.near_engine or bool(hot))
    placeless = guessed and wire.length is None  # its length is a guess: nothing is told from it
    insulation = "building" if wire.kind == "AC" else wire.insulation  # mains stays on the cautious class
    allowed = wire.drop if wire.drop is not None else LEAST_DROP
    fused = "none" if wire.kind == "earth" else wire.fused
    standard = BREAKERS_A[practice] if wire.kind == "AC" else FUSES_A
    typed = wire.area_mm2 or None  # no copper is no size that somebody gave
    mm2, name, carries, share, fuse, wanted, why = typed, "", None, None, wire.fuse_a, None, flow.why
    start = flow.start_a
    start_share = None
    if wire.kind == "earth":
        mm2 = mm2 or EARTH_MM2[gauge]
    elif flow.current_a is not None and flow.volts > 0:
        amps = flow.current_a
        wanted = fuse_for(amps, math.inf, flow.hard, standard, start or 0.0) if fused != "none" else None
        if mm2 is not None:
            carries, lost = judged(mm2, long, amps, insulation, left, sizes)  # type: ignore[arg-type]
            share = None if placeless else lost / flow.volts
            fuse = fuse if fuse is not None else wanted
        elif placeless:
            fuse = fuse if fuse is not None else wanted
            why = NO_PLACE
        else:
            run = Run(long, amps, flow.volts, allowed, start or 0.0)
            by = Guard(flow.hard, fused != "none", standard, wire.fuse_a, guard or 0.0)
            found = choose(run, insulation, left, sizes, by)  # type: ignore[arg-type]
            if found.size is None and start:  # what runs is served, and that its start is not is said
                found = choose(run._replace(start_a=0.0), insulation, left, sizes, by)  # type: ignore[arg-type]
            if found.size is not None:
                mm2, carries, share = found.size.mm2, found.ampacity_a, found.drop_v / flow.volts
                fuse = found.fuse_a
            why = found.why
    if mm2 is not None and start and flow.volts > 0 and not placeless:
        start_share = drop_v(long, start, mm2, carries or 0.0) / flow.volts
    if mm2 is not None:
        name = next((s.name for s in sizes if abs(s.mm2 - mm2) < 0.01 * mm2), f"{mm2:g} mm²")
    mass, middle = _weight(long, points, mm2, CORES[wire.kind], fuse if fused != "none" else None, fused)
    return Laid(
        id=wire.id,
        number=wire.id.lstrip("abcdefghijklmnopqrstuvwxyz") or wire.id,
        kind=wire.kind,
        start=wire.start,
        end=wire.end,
        volts=flow.volts,
        current_a=flow.current_a,
        points=points,
        length_m=long,
        mm2=mm2,
        gauge=name,
        insulation=insulation,
        derating=left,
        ampacity_a=carries,
        drop_share=share,
        start_a=start,
        start_drop_share=start_share,
        allowed=allowed,
        fused=fused,
        fuse_a=fuse if fused != "none" else None,
        fuse_wanted_a=wanted,
        guard_a=guard,
        typed_size=typed is not None,
        typed_fuse=wire.fuse_a is not None,
        length_face="measured" if wire.length is not None else "guessed" if guessed else "route",
        colour=wire.colour or COLOURS[wire.kind, gauge],
        mass_kg=mass,
        middle_m=middle,
        in_foam_m=foam_m,
        bundle=bundle,
        near_heat=hot,
        why=why,
    )


def _weight(long_m: float, points: tuple[Spot, ...], mm2: float | None, cores: int, fuse_a: float | None, fused: str) -> tuple[float, Spot]:
    """What a wire weighs with its fuses [kg], and the middle of its way [m]; without a size it weighs nothing yet."""
    pairs = list(itertools.pairwise(points))
    runs = [math.dist(a, b) for a, b in pairs]
    whole = sum(runs)
    if whole <= 0:
        middle = points[0]
    else:
        x, y, z = (sum((a[k] + b[k]) / 2 * run for (a, b), run in zip(pairs, runs, strict=True)) / whole for k in range(3))
        middle = (x, y, z)
    if mm2 is None:
        return 0.0, middle
    holders = 2 if fused == "both" else 1
    fuse = holders * next(kg for most, kg in FUSE_KG if fuse_a <= most) if fuse_a is not None else 0.0
    return copper_kg(long_m, mm2, cores) + fuse, middle


def device_kg(device: Device) -> float:
    """What a device weighs [kg]: as said, else what its kind usually does."""
    return device.mass.si if device.mass is not None else DEVICE_KG[device.kind]
