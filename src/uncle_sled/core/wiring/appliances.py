"""What each thing aboard draws, stores or gives, and at which voltage: the figures of things and of own lines as one kind of record.

Unknown stays unknown: a thing without watts or amps draws nobody knows what.
"""

from __future__ import annotations

from collections.abc import Container, Iterable

import msgspec

from uncle_sled.core.document.brief import Brief
from uncle_sled.core.document.project import Build
from uncle_sled.core.document.roles import Role
from uncle_sled.core.document.stow import Figures, Filled, Thing
from uncle_sled.core.document.systems import Load, Systems
from uncle_sled.core.engine import keep, keep_each

INVERTER_ETA = 0.88
CHARGER_ETA = 0.88  # of what is taken from the mains
BOOSTER_ETA = 0.92  # of a charger from the car
PACK_ETA = 0.85  # of what a small charger takes, what its battery gives back: an estimate for lithium packs
AC_FROM_V = 100.0  # from here on volts are mains
DEPTH = {"LFP": 0.9, "AGM": 0.5, "lead": 0.5}
LOW_V = {"LFP": 11.0, "AGM": 10.5, "lead": 10.5, "": 11.0}  # of a 12 V battery that is nearly empty and under load
CELL_V = {"LFP": 12.8, "AGM": 12.0, "lead": 12.0, "": 12.0}
ASK_VOC_SHARE = 0.82  # of the open voltage at which a panel gives most
SHORT_OVER = 1.07  # its short current over the one at its best
AC_SOURCES = ("inlet", "inverter", "inverter charger", "generator", "station")


class OwnBattery(msgspec.Struct, frozen=True):
    """What a thing runs on that has a battery of its own: what it takes from that while it runs, and how that is filled.

    use_w: on the mean while it runs [W]; use_h: hours a day; holds_wh: what it gives when full; charge_w: its charger's at its plug.
    """

    use_w: float | None
    use_h: float | None
    holds_wh: float
    charge_w: float | None
    filled: Filled

    @property
    def use_wh(self) -> float | None:
        """What it gives in a day [Wh]; None where nobody said what it draws or how long."""
        return None if self.use_w is None or self.use_h is None else self.use_w * self.use_h


class Runs(msgspec.Struct, frozen=True):
    """A load: power at its own socket [W], current at its volts, and when; None where nobody said.

    own: a line of Systems and no thing. battery: what it runs on by itself; then power and hours are those of its charger.
    """

    id: str
    name: str
    ac: bool
    power_w: float | None
    hours_day: float | None
    duty: float
    surge: float
    when: str
    must_run: bool
    own: bool
    roles: tuple[str, ...] = ()
    start_s: float | None = None  # how long it draws what it draws when it starts
    battery: OwnBattery | None = None

    @property
    def path(self) -> str:
        """Where its figures stand in the build."""
        return f"systems.loads.{self.id}" if self.own else f"stow.things.{self.id}.figures"

    @property
    def unsaid(self) -> str:
        """The figures that its day wants and nobody said, in words; "" where all are said."""
        if self.battery is None:
            return "watts or hours" if self.power_w is None or self.hours_day is None else ""
        own = self.battery
        charger = own.charge_w is None and own.filled != "home"
        told = [("its watts", own.use_w is None), ("its hours a day", own.use_h is None), ("what its charger takes", charger)]
        return ", ".join([what for what, blank in told if blank])

    @property
    def daily_wh(self) -> float | None:
        """At its own socket, without what an inverter takes."""
        if self.power_w is None or self.hours_day is None:
            return None
        return self.power_w * self.duty * self.hours_day


class Electric(msgspec.Struct, frozen=True):
    """What power and wiring read of a thing, its place apart. always: whether they read it though no wire ends there."""

    id: str
    name: str
    figures: Figures | None
    taken_out: bool
    vents_gas: bool
    roles: tuple[Role, ...]
    burns: str
    always: bool


@keep(
    *("thing.id", "thing.name", "thing.figures", "thing.taken_out", "thing.vents_gas", "thing.roles", "thing.burns", "thing.kind"),
    most=32768,
)
def _electric(thing: Thing) -> Electric:
    """The same object while nothing of it changes, however often the thing is moved."""
    always = thing.figures is not None or thing.kind == "appliance"
    return Electric(
        thing.id,
        thing.name,
        figures=thing.figures,
        taken_out=thing.taken_out,
        vents_gas=thing.vents_gas,
        roles=thing.roles,
        burns=thing.burns,
        always=always,
    )


_electric_each = keep_each(_electric)


def electric_key(build: Build) -> tuple[Electric, ...]:
    """All of the things that power and wiring read, places apart: a key for what is kept of them."""
    return _fed(_electric_each(build.stow.things), build.systems)


@keep()
def _fed(things: tuple[Electric, ...], systems: Systems) -> tuple[Electric, ...]:
    fed = fed_by_wire(systems)
    return tuple([each for each in things if each.always or each.id in fed])


def mains_v(brief: Brief) -> float:
    """Volts of the mains: as the brief says, or by its practice."""
    return float(brief.mains or ("120" if brief.region == "North American" else "230"))


def is_ac(figures: Figures) -> bool:
    """Whether an appliance runs on mains."""
    if figures.current:
        return figures.current == "AC"
    return figures.volts is not None and figures.volts >= AC_FROM_V


RUN_ON_POWER = frozenset({"keeps food cold", "lights", "pumps water", "cools the room", "airs"})


def is_load(thing: Thing, fed: Container[str]) -> bool:
    """Whether a thing draws current, known or not: by its figures, by a wire that feeds it, or by what it does.

    Args: fed: ids that wires of the battery's volts or of the mains end at.
    """
    f = figures_of(thing)
    if f.unit or thing.taken_out:
        return False
    if f.power_w is not None or f.amps is not None or f.volts is not None or f.current or thing.id in fed:
        return True
    if f.surge is not None or f.duty is not None or f.store_wh is not None:
        return True
    return thing.burns == "none" and thing.kind == "appliance" and bool(RUN_ON_POWER & set(thing.roles))


def fed_by_wire(systems: Systems) -> frozenset[str]:
    """Ids of what wires of the battery's volts or of the mains lead to."""
    return frozenset(wire.end for wire in systems.wires if wire.kind in ("DC", "AC"))


def runs_of_thing(thing: Thing, systems: Systems, mains: float, fed: Container[str] = ()) -> Runs | None:
    """A thing as a load, with power None where nobody said; None for what only stores, gives or hands on."""
    if not is_load(thing, fed):
        return None
    f = figures_of(thing)
    ac = is_ac(f)
    volts = mains if ac else f.volts if f.volts else float(systems.volts)
    power = f.power_w if f.power_w is not None else None if f.amps is None else f.amps * volts
    duty = 1.0 if f.duty is None else f.duty
    made = Runs(
        thing.id,
        thing.name,
        ac=ac,
        power_w=power,
        hours_day=f.hours_day,
        duty=duty,
        surge=f.surge or 1.0,
        when=f.when,
        must_run=f.must_run,
        own=False,
        roles=thing.roles,
        start_s=f.start_s,
    )
    return _on_its_own(made, f, systems)


def runs_of_line(load: Load, systems: Systems, mains: float) -> Runs:
    """What a load that is no thing draws. Args: mains: their volts."""
    ac = load.current == "AC"
    volts = mains if ac else load.volts or float(systems.volts)
    power = load.power_w if load.power_w is not None else None if load.amps is None else load.amps * volts
    made = Runs(
        load.id,
        load.name,
        ac=ac,
        power_w=power,
        hours_day=load.hours_day,
        duty=load.duty,
        surge=load.surge or 1.0,
        when=load.when,
        must_run=load.must_run,
        own=True,
        roles=load.roles,
        start_s=load.start_s,
    )
    return _on_its_own(made, load, systems)


def _on_its_own(run: Runs, said: Figures | Load, systems: Systems) -> Runs:
    """A load that has a battery of its own: what its charger takes, as long as a day's use wants and its hours let it.

    A day's use over ``PACK_ETA`` goes in; where the hours are too short only so much as they hold.
    """
    if said.store_wh is None:
        return run
    mean_w = None if run.power_w is None else run.power_w * run.duty
    own = OwnBattery(mean_w, run.hours_day, said.store_wh, said.charge_w, said.filled)
    hours = None
    if own.filled == "home":
        hours = 0.0
    elif own.use_wh is not None and own.charge_w is not None:
        wanted = own.use_wh / PACK_ETA / own.charge_w if own.charge_w > 0 else 0.0
        hours = min(wanted, filling_hours(own.filled, systems))
    power = 0.0 if own.filled == "home" else own.charge_w
    return msgspec.structs.replace(
        run,
        power_w=power,
        hours_day=hours,
        duty=1.0,
        surge=1.0,
        start_s=None,
        when="any" if own.filled == "home" else own.filled,
        battery=own,
    )


def filling_hours(filled: Filled, systems: Systems) -> float:
    """Hours a day in which something that has a battery of its own can be filled."""
    return {"day": 12.0, "night": 12.0, "driving": systems.drive_hours, "home": 0.0}[filled]


def loads_of(build: Build) -> tuple[Runs, ...]:
    """Every load of the battery or the mains: things first, in the order of the file, then own lines."""
    return _loads(build)[0]


def all_that_runs(build: Build) -> tuple[Runs, ...]:
    """The loads, and with them what runs on a battery of its own that is never filled aboard."""
    return _loads(build)[1]


@keep("build.systems", "build.brief", electric_key, most=4)
def _loads(build: Build) -> tuple[tuple[Runs, ...], tuple[Runs, ...]]:
    systems, mains = build.systems, mains_v(build.brief)
    fed = fed_by_wire(systems)
    made = [one for thing in build.stow.things if (one := runs_of_thing(thing, systems, mains, fed)) is not None]
    every = (*made, *(runs_of_line(load, systems, mains) for load in systems.loads))
    return tuple([run for run in every if run.battery is None or run.battery.filled != "home"]), every


def left_off(systems: Systems, mode: str, stay: bool) -> frozenset[str]:
    """Ids of loads that are off in a mode; ``stay``: also those left off for the stay that is reckoned."""
    return frozenset(off_.id for off_ in systems.off if mode in off_.modes or (stay and off_.stay))


def units_of(build: Build, *units: str) -> tuple[Thing, ...]:
    """Things that are one of some units of the wiring, in the order of the file."""
    return tuple(t for t in build.stow.things if t.figures is not None and t.figures.unit in units and not t.taken_out)


def figures_of(thing: Thing) -> Figures:
    """A thing's figures; all unknown where nobody gave any."""
    return thing.figures or Figures()


def amp_hours(f: Figures) -> float | None:
    """A battery's amp hours as sold, or what its watt hours come to at its volts."""
    if f.amp_hours is not None:
        return f.amp_hours
    if f.store_wh is None or not f.volts:
        return None
    return f.store_wh / f.volts / (1.0 if f.unit == "station" else depth_of(f))


def depth_of(f: Figures) -> float:
    """How deep a battery may be drawn, 0 to 1: as said, else by its chemistry."""
    return f.depth if f.depth is not None else DEPTH.get(f.chemistry, 0.5)


def usable_wh(f: Figures) -> float | None:
    """What a battery or station gives at 20 degrees [Wh]: volts by amp hours by depth, or as typed."""
    if f.amp_hours is not None:
        return (f.volts or CELL_V[f.chemistry]) * f.amp_hours * depth_of(f)
    return f.store_wh


def low_v(volts: float, chemistry: str) -> float:
    """Volts of a bank that is nearly empty and under load [V]."""
    return LOW_V[chemistry] * volts / 12.0


def names(things: Iterable[Thing]) -> str:
    """Things by their names, in one line."""
    return ", ".join(thing.name for thing in things)
