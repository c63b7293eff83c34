"""How do the variants of a project stand beside each other? Each is studied whole, in its own worst case."""

from __future__ import annotations

from datetime import date, timedelta

import msgspec
import numpy as np

from uncle_sled.core.document.project import Build, Facts, Project
from uncle_sled.core.engine import keep
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.from_shell import face_sums
from uncle_sled.core.reading.limits import use
from uncle_sled.core.reading.studied import Studied, study
from uncle_sled.core.studies.balance.frame_beam import frame_under
from uncle_sled.core.studies.balance.sway import sway
from uncle_sled.core.studies.balance.sway import worst as worst_swing
from uncle_sled.core.studies.build.schedule import schedule_of
from uncle_sled.core.studies.cut.buying import lines_of
from uncle_sled.core.studies.cut.cut_from_stock import QUICK, plan_of
from uncle_sled.core.studies.cut.money import money_of
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.core.studies.shell.compare_ways import worst_row
from uncle_sled.core.studies.shell.shell_measures import measures
from uncle_sled.core.studies.systems.systems_as_built import the_losses, the_stay, the_water
from uncle_sled.core.trail import STOPS


class Standing(msgspec.Struct, frozen=True):
    """One variant: masses [kg], worst ball [kg] and share with its case, axles, room [m], warmth, days, money, hours.

    What nobody knows is None. axle_kg, axle_share: the axle nearest to its rating, and how near; r_m2k_w: R over the layered
    faces; loss_w: on the coldest night; days_off_grid: the least over every string of weather, None where nothing
    goes dark in the stay or nothing draws (then off_grid_says); unpriced: lines of the list without a price.
    """

    id: str
    name: str
    parent: str | None
    form: str
    school: str
    body_kg: float
    total_kg: float | None
    total_measured: bool
    worst_case: str
    worst_ball_kg: float | None
    worst_share: float | None
    least_chance: float | None
    axle_kg: float | None
    axle_share: float | None
    sticks: int
    inside_length_m: float | None
    inside_width_m: float | None
    inside_height_m: float | None
    r_m2k_w: float | None
    loss_w: float | None
    days_off_grid: float | None
    off_grid_says: str
    days_of_water: float | None
    money: float | None
    money_low: float | None
    money_high: float | None
    unpriced: int
    hours: float | None
    finish: date | None
    sway_damping: float | None  # in the worst case at the speed asked; sway_kmh: that speed
    sway_kmh: float | None
    critical_kmh: float | None  # the lowest of all cases; None where none is found up to 200
    frame_use: float | None  # of the rails' yield, at worst


def compare_variants(project: Project) -> tuple[Standing, ...]:
    """Every variant in the order of the file."""
    return tuple(standing_of(build, project.facts) for build in project.variants)


def same_stops(build: Build, first: Build) -> tuple[str, ...]:
    """Stops of which a variant says what the first says."""
    return tuple(
        stop.name
        for stop in STOPS
        for root in stop.owns
        if hasattr(build, root) and (getattr(build, root) is getattr(first, root) or getattr(build, root) == getattr(first, root))
    )


@keep(most=8)
def standing_of(build: Build, facts: Facts) -> Standing:
    """One variant over everything; money by the first cutting plan, the finish by the schedule of the mean hours."""
    s = study(build, facts)
    b, row, measured = s.readings, worst_row(s), s.measured
    chances = [float(b.chance[r]) for r in s.towing_rows if not np.isnan(b.chance[r])] if len(b.chance) else []
    heaviest = max(s.towing_rows, key=lambda r: float(b.total_kg[r]), default=None)
    axle = max((limit for limit in s.limits if limit.id.startswith(("axle/", "front-axle", "rear-axle"))), key=use, default=None)
    m = measures(s)
    losses, water = the_losses(s), the_water(s)
    days, says = _off_grid(s)
    lines = lines_of(s, plan_of(build, facts, QUICK))
    money = money_of(build, facts, lines, take_off(build, facts)) if lines else None
    priced = money is not None and money.total.unknown < len(lines)
    schedule = schedule_of(build, facts)
    finish = schedule.finish_day if schedule.placed and not schedule.loop else None
    swings = worst_swing(sway(s))
    return Standing(
        build.id,
        build.name,
        parent=build.parent,
        form=build.shell.form,
        school=build.shell.framing.school,
        body_kg=sum(p.mass_kg for p in s.parts if p.made_by.startswith("shell.")),
        total_kg=None if heaviest is None else float(b.total_kg[heaviest]),
        total_measured=heaviest is not None and measured is not None and bool(measured.total[heaviest]),
        worst_case="" if row is None else s.table.cases[row].name,
        worst_ball_kg=None if row is None else float(b.tongue_kg[row]),
        worst_share=None if row is None else float(b.share[row]),
        least_chance=min(chances, default=None),
        axle_kg=None if axle is None else axle.value,
        axle_share=None if axle is None else use(axle),
        sticks=len(s.framed.members),
        inside_length_m=m.inside_length_m if m else None,
        inside_width_m=m.inside_width_m if m else None,
        inside_height_m=m.inside_height_m if m else None,
        r_m2k_w=_resistance(s),
        loss_w=losses.loss_w if not losses.unknown else None,
        days_off_grid=days,
        off_grid_says=says,
        days_of_water=water.days_fresh,
        money=money.total.mean if money is not None and priced else None,
        money_low=money.total.low if money is not None and priced else None,
        money_high=money.total.high if money is not None and priced else None,
        unpriced=money.total.unknown if money is not None else 0,
        hours=sum(placed.task.mean_h for placed in schedule.placed) if schedule.placed else None,
        finish=schedule.begin + timedelta(days=finish) if finish is not None else None,
        sway_damping=swings.damping_at if swings is not None else None,
        sway_kmh=swings.at_kmh if swings is not None else None,
        critical_kmh=min((swaying.critical_kmh for swaying in sway(s).cases if swaying.critical_kmh is not None), default=None),
        frame_use=frame_under(s).utilisation,
    )


def _off_grid(s: Studied) -> tuple[float | None, str]:
    """Days until something goes dark under the worst string of weather; else what is to be said instead."""
    stay = the_stay(s)
    if not stay.strings:
        return None, "not known" if stay.demand.loads else "nothing draws"
    hours = [string.first_dark_h for string in stay.strings if string.first_dark_h is not None]
    if not hours:
        return None, f"all {stay.nights} nights"
    return min(hours) / 24.0, ""


def _resistance(s: Studied) -> float | None:
    """R over the layered faces, by their losses [m2K/W]."""
    area = loss = 0.0
    library = library_of(s.facts.materials)
    for face in s.build.shell.faces if s.framed.body is not None else ():
        sums = face_sums(face, s.build.shell, s.framed, library)
        if sums.build is not None:
            area += sums.area_m2
            loss += sums.area_m2 * sums.build.u_w_m2k
    return area / loss if loss > 0 else None
