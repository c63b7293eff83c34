"""The shop card: one bench's answer in type that is read from two metres, with the worst that is to be settled."""

from __future__ import annotations

import math

import msgspec
import numpy as np

from uncle_sled.core.drawing.page import Page
from uncle_sled.core.drawing.paper import paper_of
from uncle_sled.core.drawing.primitives import Primitive, Text, line
from uncle_sled.core.drawing.text_width import elided, text_width
from uncle_sled.core.findings.finding import Finding, to_settle
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.balance.sway import sway
from uncle_sled.core.studies.balance.sway import worst as worst_swing
from uncle_sled.core.studies.build.schedule import schedule_of, startable
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.core.studies.shell.shell_measures import measures
from uncle_sled.core.studies.stow.restraints import restraints
from uncle_sled.core.studies.systems.systems_as_built import the_stay, the_water
from uncle_sled.core.trail import TRAIL
from uncle_sled.core.words import Words, count_of

EDGE = 44.0
BIG, NAME, LEAST, MOST_LINES = 58.0, 22.0, 26.0, 4
UNKNOWN = "not known"


class Line(msgspec.Struct, frozen=True):
    """What it is, and its answer."""

    name: str
    says: str
    wrong: bool = False


def card_lines(stop: str, s: Studied, found: tuple[Finding, ...]) -> tuple[Line, ...]:
    """The answers of one stop, four at most, and what is to be settled there."""
    words = Words(s.build.brief.reading.shown())
    lines = {
        "Brief": _brief,
        "Rig": _rig,
        "Shell": _shell,
        "Stow": _stow,
        "Balance": _balance,
        "Systems": _systems,
        "Cut": _cut,
        "Build": _work,
        "Road": _road,
    }[stop](s, words)
    mine = [finding for finding in found if finding.stop == stop and finding.set_aside is None and finding.severity != "note"]
    settle = (
        Line("To settle", mine[0].title + (f", {len(mine) - 1} more" if len(mine) > 1 else ""), wrong=True)
        if mine
        else Line("To settle", "nothing here")
    )
    return (*lines[:MOST_LINES], settle)


def _brief(s: Studied, _words: Words) -> list[Line]:
    cars = [car.name for car in s.facts.vehicles][:1]
    return [
        Line(
            "Sleep in it", str(len([p for p in s.facts.people if not s.build.brief.sleepers or p.id in s.build.brief.sleepers])) or UNKNOWN
        ),
        Line("Towed by", cars[0] if cars else UNKNOWN),
        Line("Nights off the grid", str(s.build.brief.nights_off) if s.build.brief.nights_off is not None else UNKNOWN),
    ]


def _rig(s: Studied, words: Words) -> list[Line]:
    rig = s.build.rig
    at = s.support.mean_axle_m if s.support is not None else None
    return [
        Line(
            "Ball to axle", words.cut(at) if at is not None and rig.carrier == "ball" else "on a bed" if rig.carrier != "ball" else UNKNOWN
        ),
        Line("Track", words.cut(rig.track.si) if rig.track else UNKNOWN),
        Line("Frame", f"{words.cut(rig.frame_length.si)} long" if rig.frame_length else UNKNOWN),
    ]


def _shell(s: Studied, words: Words) -> list[Line]:
    body, m = s.framed.body, measures(s)
    if body is None:
        return [Line("Body", "not drawn yet")]
    return [
        Line("Outside", f"{words.cut(body.length)} × {words.cut(body.width)}"),
        Line("High", words.cut(body.height)),
        Line("Head room", words.m(m.inside_height_m) if m and m.inside_height_m else UNKNOWN),
        Line("Sticks", str(len(s.framed.members))),
    ]


def _stow(s: Studied, _words: Words) -> list[Line]:
    held = [hold for hold in restraints(s.build, s.table) if hold.fault not in ("", "unrated")]
    return [
        Line("Aboard", count_of(len(s.build.stow.things), "thing")),
        Line("Held on the road", "all" if not held else f"not {held[0].name}"),
    ]


def _balance(s: Studied, words: Words) -> list[Line]:
    b = s.readings
    rows = [row for row in s.towing_rows if math.isfinite(float(b.tongue_kg[row]))]
    if not rows or s.support is None:
        return [Line("On the ball", UNKNOWN)]
    heavy = max(rows, key=lambda r: float(b.total_kg[r]))
    swing = worst_swing(sway(s))
    if s.build.rig.carrier != "ball":
        return [Line("Heaviest", words.kg(float(b.total_kg[heavy]))), Line("Rear axle", words.kg(float(np.nanmax(b.axle_kg[:, -1]))))]
    low, high = (min if k == 0 else max for k in (0, 1))
    tongue = [float(b.tongue_kg[row]) for row in rows]
    return [
        Line("On the ball", f"{words.bare_kg(low(tongue))} to {words.kg(high(tongue))}"),
        Line("In all", words.kg(float(b.total_kg[heavy]))),
        Line("Swing", f"damping {swing.damping_at:.2f} at {words.kmh(swing.at_kmh)}" if swing is not None else "not checked"),
    ]


def _systems(s: Studied, _words: Words) -> list[Line]:
    stay, water = the_stay(s), the_water(s)
    hours = [string.first_dark_h for string in stay.strings if string.first_dark_h is not None]
    power = f"{min(hours) / 24:.1f} days" if hours else f"all {stay.nights} nights" if stay.strings else UNKNOWN
    fresh = f"{water.days_fresh:.1f} days" if water.days_fresh is not None else UNKNOWN
    return [Line("Power lasts", power), Line("Water lasts", fresh)]


def _cut(s: Studied, _words: Words) -> list[Line]:
    pieces = take_off(s.build, s.facts).pieces
    bars, sheets = sum(p.kind == "bar" for p in pieces), sum(p.kind == "sheet" for p in pieces)
    return [Line("To cut", f"{len(pieces)} pieces"), Line("From bars", str(bars)), Line("From sheets", str(sheets))]


def _work(s: Studied, _words: Words) -> list[Line]:
    schedule = schedule_of(s.build, s.facts)
    nexts = [placed.task.name for placed in startable(schedule)][:3]
    return [Line("Next", name) for name in nexts] or [Line("Next", "nothing planned")]


def _road(s: Studied, _words: Words) -> list[Line]:
    tickets = s.build.road.tickets
    return [Line("Weighed", tickets[-1].on if tickets else "never"), Line("Trips", str(len(s.build.road.trips)))]


def shop_card(stop: str, s: Studied, found: tuple[Finding, ...], name: str, printed: str) -> Page:
    """One lying page. Args: stop: of the trail, else its first."""
    stop = stop if stop in TRAIL else TRAIL[0]
    lines = card_lines(stop, s, found)
    wide, high = paper_of(s.build).lying
    shapes: list[Primitive] = [
        Text((EDGE, high - 50), stop, 34, "ink", "head", "left"),
        Text((wide - EDGE, high - 46), elided(f"{name}, {s.build.name}", 20, 420), 20, "pencil", "text", "right"),
        line((EDGE, high - 74), (wide - EDGE, high - 74), "ink", 2.0),
    ]
    each = (high - 74 - 60) / len(lines)
    for k, each_line in enumerate(lines):
        y = high - 74 - each * (k + 0.5)
        size = min(BIG, each * 0.62)
        while size > LEAST and text_width(each_line.says, size, "head") > wide - 2 * EDGE - 210:
            size -= 2
        ink = "primer" if each_line.wrong else "ink"
        shapes += [
            Text((EDGE, y), each_line.name, NAME, "pencil", "strong", "left"),
            Text((EDGE + 210, y), elided(each_line.says, size, wide - 2 * EDGE - 210, "head"), size, ink, "head", "left"),
        ]
    shapes.append(
        Text(
            (EDGE, 26),
            f"{printed}. {to_settle(found)} to settle in all. Screening only: measure and weigh before you trust it.",
            14,
            "pencil",
            "text",
            "left",
        )
    )
    return Page(wide, high, tuple(shapes), f"{name}: {stop}")
