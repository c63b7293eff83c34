"""What does the survey of a bought frame and shell say: is it square, is it flat, is the axle straight, how old are the tyres?

Racked by the diagonals, s = (d1^2 - d2^2) / (4 L); twist by the four corners' heights; a bow's radius from its chord and
crown, R = (L^2 / 4 + c^2) / (2 c). Source: plane geometry; the limits are the trade's practice (docs/methods.md).
"""

from __future__ import annotations

import math
from datetime import date, timedelta

import msgspec

from uncle_sled.core.document.project import Build
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import Shell, Survey
from uncle_sled.core.parts.inside import thickness_m
from uncle_sled.core.words import Words, lower_first

TOUCH_M = 0.006  # nearer to the old wall than this a thing was set against it
DAYS_A_YEAR = 365.25


class Planned(msgspec.Struct, frozen=True):
    """What was planned on a size that turned out otherwise: its id, in words, and how far it would have to go [m]."""

    id: str
    says: str
    dx_m: float = 0.0
    dy_m: float = 0.0


class Surveyed(msgspec.Struct, frozen=True):
    """Values of a survey [m, years]; None where it was not measured.

    racked_m: how far the rear stands aside of square, positive to the right. twist_m: how far one corner stands out of the
    plane of the others. toe_m: positive where the wheels close ahead. impossible: why no quadrangle has these sizes.
    """

    racked_m: float | None
    twist_m: float | None
    width_spread_m: float | None
    toe_m: float | None
    bow_radius_m: float | None
    bow_arc_m: float | None
    tyre_years: float | None
    impossible: str
    tyre_fault: str


def _si(value: Length | None) -> float | None:
    return value.si if value is not None else None


def surveyed_of(shell: Shell, words: Words) -> Surveyed | None:
    """What the survey comes to; None where there is none."""
    survey = shell.survey
    if survey is None:
        return None
    long, wide = _si(shell.length), _si(shell.width)
    racked, impossible = None, ""
    d1, d2 = _si(survey.diagonal_left), _si(survey.diagonal_right)
    if d1 is not None and d2 is not None and long and wide:
        for name, d in (("From the left front", d1), ("From the right front", d2)):
            if not abs(long - wide) <= d <= long + wide:
                impossible = f"{name} the diagonal is {words.cut(d)}; with {words.cut(long)} by {words.cut(wide)} it is {words.cut(abs(long - wide))} to {words.cut(long + wide)}."
        if not impossible:
            impossible = _no_rectangle(d1, d2, long, wide, _si(shell.wall) or 0.0, words)
        racked = None if impossible else (d1**2 - d2**2) / (4 * long)
    corners = [_si(length) for length in (survey.left_front, survey.right_rear, survey.right_front, survey.left_rear)]
    twist = None
    if all(corner is not None for corner in corners):
        fl, rr, fr, rl = (corner or 0.0 for corner in corners)
        twist = fl + rr - fr - rl
    widths = [w for w in (_si(survey.width_front), _si(survey.width_middle), _si(survey.width_rear)) if w is not None]
    ahead, behind = _si(survey.toe_front), _si(survey.toe_rear)
    radius = arc = None
    crown = _si(survey.bow_crown)
    if crown is not None and crown > 0 and wide:
        radius = (wide**2 / 4 + crown**2) / (2 * crown)
        arc = 2 * radius * math.asin(min(wide / (2 * radius), 1.0))
    years, fault = tyre_years(survey)
    return Surveyed(
        racked,
        twist,
        width_spread_m=max(widths) - min(widths) if len(widths) > 1 else None,
        toe_m=behind - ahead if ahead is not None and behind is not None else None,
        bow_radius_m=radius,
        bow_arc_m=arc,
        tyre_years=years,
        impossible=impossible,
        tyre_fault=fault,
    )


DIAGONAL_OFF_M = 0.05  # what a tape over two corners may be off


def _no_rectangle(d1: float, d2: float, long: float, wide: float, wall: float, words: Words) -> str:
    """Why two diagonals belong to no body of these sides; nothing where they may, measured outside or inside its walls.

    In a parallelogram d1^2 + d2^2 = 2 (L^2 + W^2), however racked it is. Source: the parallelogram law.
    """
    mean = math.sqrt((d1**2 + d2**2) / 2)
    inside = math.hypot(max(long - 2 * wall, 0.0), max(wide - 2 * wall, 0.0))
    outside = math.hypot(long, wide)
    if inside - DIAGONAL_OFF_M <= mean <= outside + DIAGONAL_OFF_M:
        return ""
    return f"The diagonals are {words.cut(d1)} and {words.cut(d2)}; a body {words.cut(long)} by {words.cut(wide)} has {words.cut(outside)}, racked or not. One of the four is measured wrong."


def tyre_years(survey: Survey) -> tuple[float | None, str]:
    """Age of the tyres on the day of the survey [years], and what is wrong with what was typed."""
    text = survey.tyre_date.strip()
    if not text:
        return None, ""
    if not (len(text) == 4 and text.isdigit() and 1 <= int(text[:2]) <= 53):
        return None, f"“{text}” is no date of a tyre; week and year, such as 2319, would be right."
    try:
        day = date.fromisoformat(survey.date.strip())
    except ValueError:
        return None, "" if not survey.date else f"“{survey.date}” is no date; 2026-05-31 would be right."
    made = date(2000 + int(text[2:]), 1, 4) + timedelta(weeks=int(text[:2]) - 1)
    if made > day + timedelta(days=14):
        return None, f"Tyres of week {int(text[:2])} of {made.year} are younger than the survey of {day.isoformat()}."
    return max((day - made).days, 0) / DAYS_A_YEAR, ""


def planned_on_old(build: Build, words: Words) -> tuple[Planned, ...]:
    """Things that stood against a wall that turned out elsewhere, and openings that were placed by the old size."""
    shell = build.shell
    survey, made = shell.survey, list[Planned]()
    if survey is None or not (shell.length and shell.width and shell.front):
        return ()
    wide, long = _si(survey.planned_width), _si(survey.planned_length)
    if wide is not None and abs(wide - shell.width.si) > 0.0005:
        by = (shell.width.si - wide) / 2
        for thing in build.stow.things:
            across = (thing.width if thing.turn % 180 == 0 else thing.length).si
            for side, sign in (("left side", -1.0), ("right side", 1.0)):
                inner = wide / 2 - thickness_m(shell, side)
                if not thing.outside and abs(sign * thing.y.si + across / 2 - inner) < TOUCH_M:
                    said = "stands off it" if by > 0 else "stands in it"
                    name = lower_first(thing.name)
                    made.append(Planned(thing.id, f"{name} stood against the {side}, and {said} by {words.cut(abs(by))}", 0.0, sign * by))
        for opening in shell.openings:
            if opening.face in ("front", "rear", "roof", "floor"):
                made.append(Planned(opening.id, f"{lower_first(opening.name)} was placed across the old width"))
    if long is not None and abs(long - shell.length.si) > 0.0005:
        by = shell.length.si - long
        for thing in build.stow.things:
            deep = (thing.length if thing.turn % 180 == 0 else thing.width).si
            inner = shell.front.si + long - thickness_m(shell, "rear")
            if not thing.outside and abs(thing.x.si + deep - inner) < TOUCH_M:
                said = "stands off it" if by > 0 else "stands in it"
                made.append(
                    Planned(thing.id, f"{lower_first(thing.name)} stood against the rear, and {said} by {words.cut(abs(by))}", by, 0.0)
                )
    return tuple(made)
