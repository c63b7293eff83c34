"""How many days of water, when is the grey tank full, and does the pump reach the tap?

Need: people x (drinking and cooking + dishes + the basin) + showers + clothes + machines + what a toilet takes of it; grey is
what is used less 2 L drunk a person and day, and less what rinses the toilet. Pump: head
9.81 kPa a metre, hose f/D rho v2/2 with f = 0.316/Re^0.25 (64/Re where it runs smooth), 30 kPa at the tap. Source: any text on pipes.
"""

from __future__ import annotations

import math

import msgspec

from uncle_sled.core.document.project import Build
from uncle_sled.core.wiring.appliances import figures_of
from uncle_sled.core.words import lower_first

DRUNK_L = 2.0
WEEK_D, USES_DAY, FLUSH_L = 7.0, 5.0, 0.4  # a person's uses of a toilet a day, and litres a use where nobody said
TAP_KPA, HEAD_KPA_M, PUMP_ETA = 30.0, 9.81, 0.4
NU_M2_S, RHO = 1.3e-6, 1000.0  # of water at 10 degrees
MOST_DAYS = 400  # drawn and listed
USUAL_BORE_M, USUAL_HOSE_M, USUAL_TAP_M, USUAL_FLOW = 0.010, 3.0, 0.8, 6.0
HEAT_WH_LK = 1.163
TAP, WARMS, PUMPS, WASHES = "tap or sink", "warms water", "pumps water", "washes clothes"
LEAST_FALL, LEAST_TRAP_M = 1 / 50, 0.05
WARM_BY_K, GAS_ETA = 35.0, 0.8


class Water(msgspec.Struct, frozen=True):
    """Litres. days_*: None where there is no such tank, or nobody uses any; left and grey: by the day."""

    people: int
    need_l_day: float
    grey_l_day: float
    fresh_l: float
    grey_room_l: float
    days_fresh: float | None
    days_grey: float | None
    wanted_days: float | None
    left_l: tuple[float, ...]
    grey_l: tuple[float, ...]
    pump_w: float | None
    pump_kpa: float | None
    hose_kpa_m: float
    speed_m_s: float
    hose_m: float
    hose_said: bool
    heat_wh: float | None  # for one shower
    fall_ok: bool | None
    why: tuple[str, ...]
    unsaid: tuple[str, ...] = ()  # contents of tanks aboard whose volume nobody said: what they hold is not known


def hose_kpa_m(flow_l_min: float, bore_m: float) -> tuple[float, float]:
    """Loss a metre [kPa/m] and speed [m/s] in a hose."""
    v = flow_l_min / 60_000 / (math.pi * bore_m**2 / 4)
    re = v * bore_m / NU_M2_S
    if re <= 0:
        return 0.0, 0.0
    f = 64 / re if re < 2300 else 0.316 / re**0.25
    return f / bore_m * RHO * v**2 / 2 / 1000, v


def need_l(build: Build, people: int) -> float:
    """Litres a day of everybody; what nobody said of basin and clothes is not in it (``uncounted``)."""
    w = build.systems.water
    each = w.drink_l + w.dishes_l + (w.basin_l or 0.0)
    return people * each + w.showers_day * w.shower_l + (w.laundry_l or 0.0) / WEEK_D + machines_l(build) + rinsed_l(build, people)


def machines_l(build: Build) -> float:
    """Litres a day of what washes clothes aboard, as said at each."""
    return sum(figures_of(t).water_l_day or 0.0 for t in build.stow.things if WASHES in t.roles and not t.taken_out)


def rinsed_l(build: Build, people: int) -> float:
    """Litres a day that a rinsed toilet takes from the fresh tank."""
    w = build.systems.water
    if w.flush_from == "own" or not holds(build, "black"):
        return 0.0
    return people * w.toilet_share * flushed_l(build)


def flushed_l(build: Build) -> float:
    """Litres a day with which a person rinses the toilet."""
    flush = build.systems.water.flush_l
    return USES_DAY * (FLUSH_L if flush is None else flush)


def holds(build: Build, contents: str) -> bool:
    """Whether something aboard is there to hold it."""
    return any(t.tank is not None and t.tank.contents == contents and not t.taken_out for t in build.stow.things)


def uncounted(build: Build) -> tuple[str, ...]:
    """What of the use of water nobody said, in words: no litres of it are counted."""
    w = build.systems.water
    washing = w.laundry_l is None and not machines_l(build)
    return tuple([name for name, blank in (("washing at the basin", w.basin_l is None), ("clothes", washing)) if blank])


def _way_m(build: Build) -> tuple[float, float] | None:
    """From the middle of the largest fresh tank to the tap along the three axes, and how far up [m]; None without either."""
    tanks = [
        t for t in build.stow.things if t.tank and t.tank.contents == "fresh" and t.tank.volume and WARMS not in t.roles and not t.taken_out
    ]
    taps = [t for t in build.stow.things if TAP in t.roles and not t.taken_out]
    if not tanks or not taps:
        return None
    tank, tap = max(tanks, key=lambda t: t.tank.volume.si if t.tank and t.tank.volume else 0.0), taps[0]
    a = (tank.x.si + tank.length.si / 2, tank.y.si, tank.z.si)
    b = (tap.x.si + tap.length.si / 2, tap.y.si, tap.z.si + tap.height.si)
    return sum(abs(p - q) for p, q in zip(a, b, strict=True)), max(b[2] - a[2], 0.0)


def water_of(build: Build, people: int) -> Water:
    """The tanks aboard, the way from tank to tap, and how long they last so many people."""
    w = build.systems.water
    held = {"fresh": 0.0, "grey": 0.0}
    for thing in build.stow.things:
        if (
            thing.tank is not None
            and thing.tank.volume is not None
            and thing.tank.contents in held
            and WARMS not in thing.roles
            and not thing.taken_out
        ):
            held[thing.tank.contents] += thing.tank.volume.si * 1000
    blank = [
        t
        for t in build.stow.things
        if t.tank is not None
        and t.tank.contents in held
        and not (t.tank.volume and t.tank.volume.si > 0)
        and WARMS not in t.roles
        and not t.taken_out
    ]
    unsaid = tuple(dict.fromkeys(str(t.tank.contents) for t in blank if t.tank is not None))
    need = need_l(build, people)
    grey = max(need - DRUNK_L * people - rinsed_l(build, people), 0.0)
    why = []
    if people == 0:
        why.append("Nobody sleeps in it on Brief, so nobody drinks.")
    why += [f"How much {lower_first(t.name)} holds is not said." for t in blank]
    if held["fresh"] <= 0 and "fresh" not in unsaid:
        why.append("There is no fresh tank or jug with a volume.")
    wanted = w.days if w.days is not None else build.brief.nights_off
    days = int(min(max(wanted or 0, 7), MOST_DAYS)) + 1
    left = tuple(max(held["fresh"] - need * day, 0.0) for day in range(days))
    back = tuple(min(grey * day, max(held["grey"], 0.0)) for day in range(days))
    bore = w.hose_bore.si if w.hose_bore is not None and w.hose_bore.si > 0 else USUAL_BORE_M
    by_way = _way_m(build)
    long = w.hose_length.si if w.hose_length is not None else by_way[0] if by_way is not None else USUAL_HOSE_M
    tall = w.tap_height.si if w.tap_height is not None else by_way[1] if by_way is not None else USUAL_TAP_M
    pumps = [t for t in build.stow.things if PUMPS in t.roles and not t.taken_out]
    flow = next((figures_of(t).flow_l_min for t in pumps if figures_of(t).flow_l_min), None) or USUAL_FLOW
    loss, speed = hose_kpa_m(flow, bore)
    kpa = HEAD_KPA_M * tall + loss * long + TAP_KPA
    fall = None
    if w.fall is not None and w.drain_length is not None and w.drain_length.si > 0:
        fall = w.fall.si / w.drain_length.si >= LEAST_FALL - 1e-9
    return Water(
        people,
        need,
        grey_l_day=grey,
        fresh_l=held["fresh"],
        grey_room_l=held["grey"],
        days_fresh=held["fresh"] / need if need > 0 and held["fresh"] > 0 and "fresh" not in unsaid else None,
        days_grey=held["grey"] / grey if grey > 0 and held["grey"] > 0 and "grey" not in unsaid else None,
        wanted_days=float(wanted) if wanted is not None else None,
        left_l=left,
        grey_l=back,
        pump_w=kpa * flow / 60 / PUMP_ETA if pumps else None,
        pump_kpa=kpa if pumps else None,
        hose_kpa_m=loss,
        speed_m_s=speed,
        hose_m=long,
        hose_said=w.hose_length is not None,
        heat_wh=HEAT_WH_LK * w.shower_l * WARM_BY_K if w.showers_day > 0 else None,
        fall_ok=fall,
        why=tuple(why),
        unsaid=unsaid,
    )
