"""What size of battery, panel, controller, charger and inverter carries the stay, and what would each school of battery mean?

Sizes as they are sold, with their usual weight, size and price, to be replaced by a data sheet. Each is tried on the stay
itself: the smallest under which nothing goes dark.
"""

from __future__ import annotations

from collections.abc import Callable

import msgspec

from uncle_sled.core.document.edits import Op, apply, set_to
from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Thing, Unit
from uncle_sled.core.engine import keep
from uncle_sled.core.studies.systems.bank import cold_share, temperatures_c
from uncle_sled.core.studies.systems.stay import Stay, power_key, stay_of
from uncle_sled.core.studies.systems.sun import skies
from uncle_sled.core.wiring.appliances import CELL_V, DEPTH, figures_of, loads_of, low_v, units_of
from uncle_sled.core.wiring.rows import in_series

IN_HAND = 1.25  # of an inverter over what runs on it
STEP_AH = (50.0, 80.0, 100.0, 150.0, 200.0, 280.0, 300.0, 400.0, 500.0, 600.0, 800.0)
PANELS = (  # W peak, length and width [m], kg
    (50.0, 0.68, 0.50, 4.0),
    (100.0, 1.05, 0.54, 6.5),
    (130.0, 1.20, 0.54, 7.5),
    (160.0, 1.48, 0.68, 9.2),
    (200.0, 1.50, 0.77, 11.0),
    (250.0, 1.65, 0.85, 14.0),
    (400.0, 1.72, 1.13, 21.0),
)
CONTROLLERS_A = (10.0, 15.0, 20.0, 30.0, 40.0, 50.0, 60.0, 80.0, 100.0)
INVERTERS_W = (300.0, 600.0, 1000.0, 1500.0, 2000.0, 3000.0)
CHARGE_C = 0.2  # of the amp hours: what a mains charger should give


class School(msgspec.Struct, frozen=True):
    """A kind of battery: weight and price of each kWh as sold, how much of it is used, how often."""

    id: str
    name: str
    chemistry: str
    kg_kwh: float
    money_kwh: float
    cycles: int
    in_frost: str


SCHOOLS = (
    School("lead", "Lead, flooded", chemistry="lead", kg_kwh=26.0, money_kwh=140.0, cycles=400, in_frost="gives less, charges slowly"),
    School("agm", "AGM", chemistry="AGM", kg_kwh=25.0, money_kwh=220.0, cycles=600, in_frost="gives less, charges slowly"),
    School("lfp", "LFP", chemistry="LFP", kg_kwh=9.8, money_kwh=350.0, cycles=3000, in_frost="must not charge below freezing"),
    School(
        "station", "Power station", chemistry="LFP", kg_kwh=12.5, money_kwh=600.0, cycles=2500, in_frost="must not charge below freezing"
    ),
)


class Way(msgspec.Struct, frozen=True):
    """One school at the size that carries the stay. ball_kg: what it puts on the ball where the battery stands now."""

    school: School
    usable_wh: float
    whole_wh: float
    mass_kg: float
    money: float
    cold: float | None
    ball_kg: float | None


class Needs(msgspec.Struct, frozen=True):
    """Least sizes for one string of weather; None where nothing known, or none that is sold carries it."""

    sky: str
    battery_wh: float | None
    panel_wp: float | None


MOST_WH = 1e9  # more than a field of a thing takes, and than anything is


def _with_bank(build: Build, usable: float) -> Build:
    """The build with its batteries scaled to a usable energy [Wh]."""
    stores = units_of(build, "battery", "station")
    ops: list[Op] = []
    for thing in stores:
        f = msgspec.structs.replace(figures_of(thing), amp_hours=None, store_wh=usable / len(stores))
        ops.append(set_to(f"stow.things.{thing.id}.figures", msgspec.to_builtins(f)))
    return apply(build, ops)


def _with_panels(build: Build, wp: float) -> Build:
    panels = units_of(build, "panel")
    ops = [set_to(f"stow.things.{t.id}.figures.solar_wp", wp / len(panels)) for t in panels]
    chargers = units_of(build, "solar charger")
    ops += [set_to(f"stow.things.{t.id}.figures.charge_w", None) for t in chargers]
    return apply(build, ops)


def _lasts(build: Build, mode: str, sky: str) -> bool:
    string = stay_of(build, mode, sky).of(sky)
    return string is not None and string.first_dark_h is None


def _least(low: float, high: float, lasts: Callable[[float], bool], tries: int = 12) -> float | None:
    """The least value that lasts, by halving; None where even the highest does not."""
    if not lasts(high):
        return None
    for _ in range(tries):
        middle = (low + high) / 2
        low, high = (low, middle) if lasts(middle) else (middle, high)
    return high


def needs_of(build: Build, mode: str) -> tuple[Needs, ...]:
    """For each string of weather the least battery with the panels there are, and the least panels with the battery."""
    found = [needs_under(build, mode, sky.id) for sky in skies()]
    return tuple([needs for needs in found if needs is not None])


@keep(power_key, "mode", "sky", most=12)
def needs_under(build: Build, mode: str, sky: str) -> Needs | None:
    """The least battery and the least panels under one sky, each with the other as it is; None where no stay is told."""
    stay = stay_of(build, mode)
    if stay.why or stay.bank is None or stay.of(sky) is None:
        return None
    most = min(max(stay.demand.daily_wh, 1.0) * stay.nights * 1.6 + 2 * stay.reserve_wh + 500, MOST_WH)
    battery = _least(0.0, most, lambda wh: _lasts(_with_bank(build, wh), mode, sky))
    panel = _least(0.0, 6000.0, lambda wp: _lasts(_with_panels(build, wp), mode, sky)) if units_of(build, "panel") else None
    return Needs(sky, battery, panel)


def next_size(wanted: float, sold: tuple[float, ...]) -> float | None:
    """The next size that is sold; None where the largest is too small."""
    return next((one for one in sold if one >= wanted - 1e-6), None)


def ways_of(build: Build, stay: Stay, needed_wh: float, ball_share: float | None) -> tuple[Way, ...]:
    """Every school at a usable energy. Args: ball_share: what a kilogram at the battery puts on the ball."""
    coldest = build.brief.coldest
    made = []
    for school in SCHOOLS:
        depth = DEPTH[school.chemistry]
        outside = stay.bank.outside if stay.bank is not None else False
        cold = cold_share(school.chemistry, min(temperatures_c(coldest.si, outside))) if coldest is not None else None
        whole = needed_wh / depth / (cold or 1.0)
        ah = next_size(whole / CELL_V[school.chemistry], STEP_AH)
        whole = ah * CELL_V[school.chemistry] if ah is not None and school.id != "station" else whole
        mass = whole / 1000 * school.kg_kwh
        ball = None if ball_share is None else mass * ball_share
        made.append(
            Way(
                school,
                whole * depth * (cold or 1.0),
                whole_wh=whole,
                mass_kg=mass,
                money=whole / 1000 * school.money_kwh,
                cold=cold,
                ball_kg=ball,
            )
        )
    return tuple(made)


def battery_ops(thing: Thing, usable_wh: float) -> tuple[tuple[Op, ...], float] | None:
    """Ops that make a battery the next size sold that gives so much, and its amp hours; None where none is sold.

    Weight follows; the box grows in length, so that what stands beside it is judged.
    """
    f = figures_of(thing)
    volts = f.volts or CELL_V[f.chemistry]
    depth = f.depth if f.depth is not None else DEPTH.get(f.chemistry, 0.5)
    ah = next_size(usable_wh / volts / depth, STEP_AH)
    was = f.amp_hours or (f.store_wh or 0.0) / volts / depth
    if ah is None or ah <= was or was <= 0:
        return None
    kg_kwh = next((s.kg_kwh for s in SCHOOLS if s.chemistry == f.chemistry and s.id != "station"), 10.0)
    path = f"stow.things.{thing.id}"
    grown = min((ah / was), 4.0)
    made = (
        set_to(f"{path}.figures.amp_hours", ah),
        set_to(f"{path}.figures.store_wh", None),
        set_to(f"{path}.figures.limit_a", None if f.limit_a is None else f.limit_a * ah / was),
        set_to(f"{path}.figures.charge_w", None if f.charge_w is None else f.charge_w * ah / was),
        set_to(f"{path}.mass", {"si": round(thing.mass.si + (ah - was) * volts / 1000 * kg_kwh, 2), "typed": None}),
        set_to(f"{path}.length", {"si": round(thing.length.si * grown, 3), "typed": None}),
    )
    return made, ah


def panel_ops(thing: Thing, wp: float) -> tuple[tuple[Op, ...], float] | None:
    """Ops that make a panel the next size sold, its middle where it was; None where none is sold."""
    found = next((panel for panel in PANELS if panel[0] >= wp - 1e-6), None)
    if found is None or found[0] <= (figures_of(thing).solar_wp or 0.0):
        return None
    watts, long, wide, kg = found
    if thing.length.si < thing.width.si:
        long, wide = wide, long
    path = f"stow.things.{thing.id}"
    along = (long, thing.length.si) if thing.turn % 180 == 0 else (wide, thing.width.si)
    x = thing.x.si - (along[0] - along[1]) / 2
    made = [
        set_to(f"{path}.figures.solar_wp", watts),
        set_to(f"{path}.mass", {"si": kg, "typed": None}),
        set_to(f"{path}.length", {"si": long, "typed": None}),
        set_to(f"{path}.width", {"si": wide, "typed": None}),
        set_to(f"{path}.x", {"si": round(x, 3), "typed": None}),
    ]
    return tuple(made), watts


class Least(msgspec.Struct, frozen=True):
    """A size that is wanted beside what is there, in watts or amps; None where it is not known or not there."""

    units: tuple[Unit, ...]  # what meets it
    name: str
    wanted: float | None
    there: float | None
    unit: str
    why: str


def least_of(build: Build) -> tuple[Least, ...]:
    """Controller, mains charger and inverter: what is wanted by panels, battery and loads, and what is there."""
    chemistry = next((figures_of(t).chemistry for t in units_of(build, "battery") if figures_of(t).chemistry), "")
    volts = float(build.systems.volts)
    made = []
    wp = sum(figures_of(t).solar_wp or 0.0 for t in units_of(build, "panel"))
    solar = [figures_of(t).charge_w for t in units_of(build, "solar charger")]
    if wp > 0 and (solar or units_of(build, "battery")):
        amps = wp / low_v(volts, chemistry)
        there = sum(w for w in solar if w is not None) / volts if solar and None not in solar else None
        made.append(
            Least(
                ("solar charger",),
                "Charge controller",
                next_size(amps, CONTROLLERS_A),
                there,
                "A",
                "panel watts at the battery's low volts",
            )
        )
    ah = [f.amp_hours for f in (figures_of(t) for t in units_of(build, "battery")) if f.amp_hours is not None]
    if ah:
        rows = len(ah) / in_series(build)
        charge = [figures_of(t).charge_w for t in units_of(build, "mains charger", "inverter charger")]
        there = sum(w for w in charge if w is not None) / volts if charge and None not in charge else None
        made.append(
            Least(
                ("mains charger", "inverter charger"),
                "Mains charger",
                next_size(CHARGE_C * sum(ah) / len(ah) * rows, CONTROLLERS_A),
                there,
                "A",
                "a fifth of the amp hours",
            )
        )
    ac = [appliance.power_w for appliance in loads_of(build) if appliance.ac and appliance.power_w]
    inverters = [figures_of(t).power_w for t in units_of(build, "inverter", "inverter charger", "station")]
    if ac and (inverters or ah):
        there = max((w for w in inverters if w is not None), default=None)
        made.append(
            Least(
                ("inverter", "inverter charger"),
                "Inverter",
                next_size(max(ac) * IN_HAND, INVERTERS_W),
                there,
                "W",
                "the largest of what runs on mains, with a quarter in hand",
            )
        )
    return tuple(made)
