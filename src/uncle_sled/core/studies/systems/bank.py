"""What do the batteries give, warm and cold, and how long at a hard draw?

Usable = volts x amp hours x depth x cold. Cold: LFP by the usual discharge curves, lead 0.8 % a kelvin under 25 degrees.
Lead at a hard draw: Peukert, t = H (C / (I H))^1.2 at H = 20 h, never more than C.
"""

from __future__ import annotations

import msgspec
import numpy as np

from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.wiring.appliances import CELL_V, amp_hours, figures_of, low_v, units_of, usable_wh
from uncle_sled.core.wiring.rows import in_series

PEUKERT, RATED_H = 1.2, 20.0
LFP_COLD = ((-20.0, 0.6), (-10.0, 0.8), (0.0, 0.9), (20.0, 1.0))
LEAD_PER_K, LEAD_FROM_C = 0.008, 25.0
STORES_SHARE = {"LFP": 0.95, "AGM": 0.85, "lead": 0.85, "": 0.85}  # of what is charged
TAPER_FROM, TAPER = 0.8, 0.2  # lead takes its last fifth at a fifth of the current
LEAD_STEADY_C, LEAD_MINUTE_C, LFP_C = 0.2, 1.0, 1.0  # limits where none was typed, as a multiple of the amp hours
SWING_K, COLDEST_H = 8.0, 6  # over a day outside; the coldest hour of the sun


class Bank(msgspec.Struct, frozen=True):
    """All batteries and stations together.

    usable_wh: at 20 degrees; cold: share of it on the coldest night, 1 where nobody said how cold; limit_a: steady, of all
    side by side at the bank's volts; None where no amp hours are known. whole_wh and capacity_ah: as sold.
    """

    usable_wh: float
    cold: float
    cold_known: bool
    chemistry: str
    volts: float
    capacity_ah: float | None
    limit_a: float | None
    minute_a: float | None
    charge_w: float | None
    outside: bool
    cold_cut: bool
    unknown: tuple[str, ...]  # names of batteries without amp hours and watt hours

    @property
    def cold_wh(self) -> float:
        """What can be used of it in the cold [Wh]."""
        return self.usable_wh * self.cold

    @property
    def stores(self) -> float:
        """Share of what is put in that is stored."""
        return STORES_SHARE[self.chemistry]


def cold_share(chemistry: str, celsius: float) -> float:
    """Share of its use that a battery gives at a temperature, 0 to 1."""
    if chemistry == "LFP":
        at, left = zip(*LFP_COLD, strict=True)
        return float(np.interp(celsius, at, left))
    return min(max(1 - LEAD_PER_K * (LEAD_FROM_C - celsius), 0.0), 1.0)


def temperatures_c(coldest_c: float, outside: bool) -> tuple[float, ...]:
    """Of a battery by the hour of the sun, 24 of them: outside it follows the day, inside it stays at the day's middle."""
    if not outside:
        return (coldest_c + SWING_K / 2,) * 24
    turn = 2 * np.pi / 24
    return tuple(float(coldest_c + SWING_K / 2 * (1 - np.cos(turn * (h - COLDEST_H)))) for h in range(24))


UNDER_M = 0.02  # what hangs lower than the body's underside is under it


def stands_outside(build: Build, thing: Thing) -> bool:
    """Whether a thing has the night's own temperature: said to be outside, or ahead of, behind or under the body."""
    shell = build.shell
    if thing.outside or shell.form == "none" or not (shell.front and shell.length):
        return thing.outside
    middle = thing.x.si + (thing.length.si if thing.turn % 180 == 0 else thing.width.si) / 2
    if shell.floor is not None and thing.z.si + thing.height.si <= shell.floor.si + UNDER_M:
        return True
    return not shell.front.si <= middle <= shell.front.si + shell.length.si


def bank_of(build: Build) -> Bank | None:
    """The batteries as one; None where there is none."""
    stores = units_of(build, "battery", "station")
    if not stores:
        return None
    told = [(thing, figures_of(thing)) for thing in stores]
    chemistry = next((f.chemistry for _, f in told if f.chemistry), "")
    coldest = build.brief.coldest
    outside = any(stands_outside(build, t) for t in stores)
    lowest = min(temperatures_c(coldest.si, outside)) if coldest is not None else None
    batteries = [(t, f) for t, f in told if f.unit == "battery"]
    series = in_series(build)
    ah = [amp_hours(f) for _, f in batteries]
    rows = max(len(batteries) / series, 1)
    known = [one for one in ah if one is not None]
    capacity = min(known) * rows if known and len(known) == len(batteries) else None
    lead = chemistry in ("AGM", "lead")
    typed = [f.limit_a for _, f in batteries if f.limit_a is not None]
    limit = min(typed) * rows if typed and len(typed) == len(batteries) else None
    if limit is None and capacity is not None:
        limit = capacity * (LEAD_STEADY_C if lead else LFP_C)
    charges = [f.charge_w for _, f in told if f.charge_w is not None]
    return Bank(
        usable_wh=sum(usable_wh(f) or 0.0 for _, f in told),
        cold=cold_share(chemistry, lowest) if lowest is not None else 1.0,
        cold_known=lowest is not None,
        chemistry=chemistry,
        volts=float(build.systems.volts),
        capacity_ah=capacity,
        limit_a=limit,
        minute_a=capacity * LEAD_MINUTE_C if lead and capacity is not None else limit,
        charge_w=sum(charges) if charges else None,
        outside=outside,
        cold_cut=all(f.cold_cut for _, f in told),
        unknown=tuple(t.name for t, f in told if usable_wh(f) is None),
    )


def fault_a(capacity_ah: float, chemistry: str, volts: float, cable_m: float, cable_mm2: float, _many: int = 1) -> float:
    """What a short at the end of the main cable draws [A]: V / (R of the bank + R of the cable there and back).

    A battery of 100 Ah is taken as 4 milliohms, more amp hours as less. Source: Ohm's law.
    """
    own = 0.004 * 100 / max(capacity_ah, 1.0)
    return CELL_V[chemistry] * volts / 12 / (own + 2 * cable_m * 0.0175 / max(cable_mm2, 0.1))


def inverter_a(watts: float, volts: float, chemistry: str, eta: float) -> float:
    """What an inverter draws at full load while the battery is nearly empty [A]."""
    return watts / (eta * low_v(volts, chemistry))
