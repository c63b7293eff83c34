"""How many days does the gas last, and does it still boil off in the cold?

kg/h = kW/12.87 of propane; a kW of flame makes 127 g/h of water and 0.126 m3/h of CO2, and wants 27.5 m3/h of fresh air where
it burns into the room. Boil-off: wetted wall A = pi D h + pi D2/4 takes 8 A (T + 35) from the air, 400 kJ a kilogram. Other
fuels by their own heat. Source: heat of propane; limits are screening. Vent sizes of a law are typed, never asserted.
"""

from __future__ import annotations

import math

import msgspec

from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.wiring.appliances import figures_of

KWH_KG = {"gas": 12.87, "diesel": 11.9, "spirit": 7.4, "wood": 4.0}
WATER_G_KWH, CO2_M3_KWH, AIR_M3H_KW = 127.0, 0.126, 27.5
BOILS_C, FILM_W_M2K, LATENT_KJ_KG = -35.0, 8.0, 400.0
KG_L = {"gas": 0.51, "diesel": 0.84, "petrol": 0.745}
SHARE_FULL = 0.8  # of a gas cylinder's volume; the catalogue's volumes are those of what it holds when full
TEMPS_C = (20.0, 10.0, 0.0, -10.0, -20.0, -30.0)
LEVELS = (1.0, 0.5, 0.2)


class Burner(msgspec.Struct, frozen=True):
    """What burns aboard: its fuel, kW and kg a day; None where nobody said."""

    id: str
    name: str
    fuel: str
    kw: float | None
    kg_day: float | None
    sealed: bool
    flued: bool = False
    warms: bool = False  # the room, by what it does; what burns and is not said to cook, cool or heat water does


class Gas(msgspec.Struct, frozen=True):
    """Kilograms and days by fuel; boil-off of the gas cylinder by level and temperature [kW]; most that burns at once [kW]."""

    burners: tuple[Burner, ...]
    kg: dict[str, float]
    kg_day: dict[str, float]
    days: dict[str, float | None]
    wanted_days: float | None
    boil_off_kw: tuple[tuple[float, tuple[float, ...]], ...]  # temperature, by level
    most_kw: float
    open_kw: float  # of flames that burn into the room
    why: tuple[str, ...]


def boil_off_kw(diameter_m: float, liquid_m: float, celsius: float) -> float:
    """Flame that a cylinder keeps up [kW]. Args: liquid_m: height of the liquid in it; nothing at or under -35 degrees."""
    area = math.pi * diameter_m * liquid_m + math.pi * diameter_m**2 / 4
    return max(FILM_W_M2K * area * (celsius - BOILS_C), 0.0) / 1000 / LATENT_KJ_KG * 3600 * KWH_KG["gas"]


def burner_of(thing: Thing) -> Burner | None:
    """What a thing burns and how much; None where it burns nothing."""
    f = figures_of(thing)
    if thing.burns == "none" or thing.taken_out:
        return None
    kw = None
    if thing.burns == "gas" and f.gas_g_h is not None:
        kw = f.gas_g_h / 1000 * KWH_KG["gas"]
    elif f.heat_w is not None:
        kw = f.heat_w / 1000 / (0.8 if thing.burns != "wood" else 0.65)
    kg = None if kw is None or f.hours_day is None else kw * f.hours_day / KWH_KG[thing.burns]
    warms = "warms the room" in thing.roles or not {"cooks", "keeps food cold", "warms water"} & set(thing.roles)
    return Burner(thing.id, thing.name, fuel=thing.burns, kw=kw, kg_day=kg, sealed=thing.room_sealed, flued=thing.flued, warms=warms)


def gas_of(build: Build) -> Gas:
    """Everything that burns and what feeds it."""
    burners = tuple(burner for t in build.stow.things if (burner := burner_of(t)) is not None)
    kg = dict[str, float]()
    cylinders = []
    for t in build.stow.things:
        if t.tank is not None and t.tank.contents in KG_L and t.tank.volume is not None and not t.taken_out:
            kg[t.tank.contents] = kg.get(t.tank.contents, 0.0) + t.tank.volume.si * 1000 * KG_L[t.tank.contents]
            if t.tank.contents == "gas":
                cylinders.append(t)
    day = dict[str, float]()
    why = []
    for burner in burners:
        if burner.kw is not None and burner.kw <= 0:
            why.append(f"{burner.name}: 0 kW burn nothing; what does it give")
        elif burner.kg_day is None:
            why.append(f"{burner.name}: {'what it gives' if burner.kw is None else 'its hours a day'} is not said")
        elif burner.fuel in KG_L:
            day[burner.fuel] = day.get(burner.fuel, 0.0) + burner.kg_day
    blank = [t for t in build.stow.things if t.tank is not None and t.tank.contents in KG_L and not t.tank.volume and not t.taken_out]
    why += [f"{t.name}: how much it holds is not said" for t in blank]
    unsaid = {t.tank.contents for t in blank if t.tank is not None}
    days = {fuel: (kg.get(fuel, 0.0) / used if used > 0 and fuel not in unsaid else None) for fuel, used in day.items()}
    table: list[tuple[float, tuple[float, ...]]] = []
    if cylinders:
        first = max(cylinders, key=lambda t: t.tank.volume.si if t.tank and t.tank.volume else 0.0)
        d, h = min(first.length.si, first.width.si), first.height.si * 0.75 * SHARE_FULL
        table = [(t, tuple(boil_off_kw(d, h * level, t) * len(cylinders) for level in LEVELS)) for t in TEMPS_C]
    gas_kw = [each_burner.kw for each_burner in burners if each_burner.fuel == "gas" and each_burner.kw is not None]
    wanted = build.systems.water.days if build.systems.water.days is not None else build.brief.nights_off
    return Gas(
        burners,
        kg,
        kg_day=day,
        days=days,
        wanted_days=float(wanted) if wanted is not None else None,
        boil_off_kw=tuple(table),
        most_kw=sum(gas_kw),
        open_kw=sum(
            each_burner.kw for each_burner in burners if each_burner.kw is not None and not each_burner.sealed and not each_burner.flued
        ),
        why=tuple(why),
    )
