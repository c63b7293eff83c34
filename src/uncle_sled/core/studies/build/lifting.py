"""Lift day: what is lifted, how sure its mass is, picks and slings, wind by area, tilting up, turning a frame, hands.

Source: work notes, lift day, corrections. Masses are taken as mean + 2 sigma. Refused: legs over 60 degrees from upright,
a hook no higher than the picks, wind over 8 m/s. A qualified lifter decides.
"""

from __future__ import annotations

import math
from typing import Literal

import msgspec
from shapely.geometry import Polygon

from uncle_sled.core.document.work import Lift
from uncle_sled.core.geometry.surfaces import Surface
from uncle_sled.core.parts.part import SHARED_BIAS
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.build.brought import brought
from uncle_sled.core.studies.build.machines import RIGGING_KG, chart_of, lifts_kg
from uncle_sled.core.studies.build.pieces_brought import layer_made
from uncle_sled.core.studies.build.schedule import schedule_of
from uncle_sled.core.studies.build.standing import day_of, done_by
from uncle_sled.core.studies.build.what_it_is import START, bringing_of, kind_of_sticks
from uncle_sled.core.studies.shell.built_sections import sections_of
from uncle_sled.core.studies.shell.face_weights import FaceWeight, face_weights, weights_within
from uncle_sled.core.studies.systems.carried_out import HAND_KG
from uncle_sled.core.units import GRAVITY
from uncle_sled.core.words import Words, lower_first

JERK = 1.25  # of four legs, for the jerk at the start
CHOKED, HOLD_N, CD, GUST, WIND_MOST = 0.8, 250.0, 1.6, 1.5, 8.0
WARN_DEG, REFUSE_DEG, SPREAD_DEG = 45.0, 60.0, 30.0
OVER_KG = 15.0
MOST_HANDS = 60
LINES = 2  # tag lines, a person each

Verdict = Literal["good", "warn", "refuse", "not checked", "told"]  # told: a number without a limit of its own


class Said(msgspec.Struct, frozen=True):
    """One number of a lift: its name, value with unit in words later, limit where it has one, and how it stands."""

    name: str
    value: float
    unit: str  # N, m, deg, kg, m/s, N m, people
    limit: float | None = None
    verdict: Verdict = "told"


class Lifted(msgspec.Struct, frozen=True):
    """A lift worked out. mass_kg: the mean; sigma_kg; taken_kg: mean + 2 sigma, by which all is reckoned.

    size_m: length and height of what hangs there; cg_m: from its left end and its foot; refusals: in words; crew: who stands where.
    """

    lift: Lift
    name: str
    mass_kg: float
    sigma_kg: float
    size_m: tuple[float, float]
    cg_m: tuple[float, float]
    said: tuple[Said, ...]
    refusals: tuple[str, ...]
    hands: int
    crew: tuple[str, ...]
    why: str = ""  # why nothing is known

    @property
    def taken_kg(self) -> float:
        """What is reckoned with: the mean and two sigma."""
        return self.mass_kg + 2 * self.sigma_kg

    @property
    def limit_broken(self) -> bool:
        """Whether anything says that it is not lifted so."""
        return bool(self.refusals)


def two_legs(mass_kg: float, a_m: float, b_m: float, hook_m: float) -> dict[str, tuple[float, float]]:
    """Forces, tensions [N], angles from upright [deg] and lengths [m] of two legs a and b from the centre, hook over it.

    Check 260 kg, 1.1 and 1.7 m, hook 1.9 over: 1,548 and 1,002 N; 30.1 and 41.8 deg; 1,789 and 1,344 N; 2.195 and 2.550 m.
    """
    weight = mass_kg * GRAVITY
    up = weight * b_m / (a_m + b_m), weight * a_m / (a_m + b_m)
    angles = math.atan2(a_m, hook_m), math.atan2(b_m, hook_m)
    return {
        "up_n": up,
        "deg": (math.degrees(angles[0]), math.degrees(angles[1])),
        "tension_n": (up[0] / math.cos(angles[0]), up[1] / math.cos(angles[1])),
        "leg_m": (math.hypot(a_m, hook_m), math.hypot(b_m, hook_m)),
    }


def squeeze_n(up_n: float, deg: float) -> float:
    """What two legs press a panel together with [N]. Check: 1,548 N at 30.1 degrees: 896 N."""
    return up_n * math.tan(math.radians(deg))


def four_legs_n(mass_kg: float, deg: float) -> float:
    """Tension of a leg of four on something stiff, of which two carry, with the start [N]. Check 420 kg, 35 deg: 3,143 N."""
    return mass_kg * GRAVITY / (2 * math.cos(math.radians(deg))) * JERK


def wind_hold_m_s(area_m2: float, people: int) -> float:
    """Gust at which people on tag lines still hold a panel [m/s]. Check 4.8 x 2.4 m, two: 6.7 m/s."""
    return math.sqrt(people * HOLD_N / (0.6 * CD * area_m2)) if area_m2 > 0 else math.inf


def wind_n(area_m2: float, speed_m_s: float) -> float:
    """Check 4.8 x 2.4 m at 8 m/s: 708 N."""
    return CD * 0.6 * speed_m_s**2 * area_m2


def tilt_kg(mass_kg: float, cg_m: float, hands_m: float, deg: float = 0.0) -> float:
    """What hands at a height bear of a wall that is tilted up about its foot [kg]. Check 96 kg, 1.0, 1.9: 50.5; at 60 deg 25."""
    return mass_kg * cg_m / hands_m * math.cos(math.radians(deg))


def turning(mass_kg: float, wide_m: float, z_m: float) -> tuple[float, float, float]:
    """Force at the far rail to start [N], angle at which it goes over by itself [deg], moment to hold at 90 [N m].

    Check 210 kg, 2.1 wide, centre 0.25 above: 1,030 N, 76.6 deg, 515 N m.
    """
    weight = mass_kg * GRAVITY
    return weight * (wide_m / 2) / wide_m, math.degrees(math.atan2(wide_m / 2, z_m)), weight * z_m


ROOF = "whole roof"


def liftable(s: Studied) -> tuple[tuple[str, str], ...]:
    """What can be lifted: (id, name): every wall, floor and roof, its sections, a pitched roof as one, the whole body, the frame."""
    body = s.framed.body
    made = [(surface.id, surface.id) for surface in body.surfaces] if body is not None else []
    if body is not None:
        made += [(section.id, lower_first(section.name)) for section in sections_of(s).sections if section.id not in dict(made)]
        if len(body.of("roof")) > 1 and not any(surface.swept for surface in body.of("roof")):
            made.append((ROOF, "the roof as one"))
    if made:
        made.append(("body", "whole body"))
    if any(part.group == "frame" for part in s.parts):
        made.append(("frame", "the frame"))
    return tuple(made)


def lifts_of(s: Studied) -> tuple[Lifted, ...]:
    """Every planned lift with its loads."""
    return tuple(lifted(s, lift) for lift in s.build.work.lifts)


class Load(msgspec.Struct, frozen=True):
    """What hangs there. size_m: length and height; cg_m: from its left end and its foot; area_m2: that wind takes hold of."""

    mass_kg: float
    sigma_kg: float
    size_m: tuple[float, float]
    cg_m: tuple[float, float]
    area_m2: float


def load_of(s: Studied, lift: Lift) -> Load | None:
    """The load of a lift, as it is after the task that it says; None where nothing is known of its weight."""
    there = _there(s, lift.after)
    if lift.what in ("body", "frame"):
        return _whole(s, lift.what, there)
    body = s.framed.body
    if body is None:
        return None
    if lift.what == ROOF:
        return _roof(s, there)
    surface = next((face for face in body.surfaces if face.id == lift.what), None)
    if surface is not None:
        return _region(s, surface, surface.polygon, there)
    section = next((section for section in sections_of(s).sections if section.id == lift.what), None)
    if section is None:
        return None
    return _region(s, next(face for face in body.surfaces if face.id == section.face), section.shape, there)


def _there(s: Studied, after: str) -> frozenset[str] | None:
    """Tasks that are done when it is lifted; None: all of it is lifted."""
    if not after:
        return None
    schedule = schedule_of(s.build, s.facts)
    end = day_of(schedule, after)
    return done_by(schedule, end) if end is not None else None


def _on(s: Studied, one: FaceWeight, there: frozenset[str] | None) -> bool:
    """Whether a piece of a face is on it by then: put together by one of these tasks, or there from the start."""
    if there is None:
        return True
    by = bringing_of(s.build, s.facts)
    if one.kind == "layer":
        made = layer_made(s.build, s.facts, one.part, one.id)
    elif one.kind == "stick":
        made = by.made(one.part, kind_of_sticks(one.part, s.build.shell))
    else:
        made = by.made(one.part, "opening" if one.kind == "opening" else "sheathing")
    return made == START or made in there


def _sum(found: list[tuple[FaceWeight, float, float, float]]) -> tuple[float, float, float, float]:
    """Mass, one sigma with what all share [kg], and centre on the face laid flat [m]."""
    mass = sum(kg for _, kg, _, _ in found)
    own: dict[str, float] = {}  # what one part is wrong by, all its pieces are
    for one, kg, _, _ in found:
        own[one.part] = own.get(one.part, 0.0) + kg * one.rel
    sigma = math.hypot(math.sqrt(sum(each**2 for each in own.values())), SHARED_BIAS * mass)
    return mass, sigma, sum(kg * x for _, kg, x, _ in found) / mass, sum(kg * y for _, kg, _, y in found) / mass


def _region(s: Studied, surface: Surface, region: Polygon, there: frozenset[str] | None) -> Load | None:
    found = weights_within((one for one in face_weights(s, surface) if _on(s, one, there)), region)
    if sum(kg for _, kg, _, _ in found) <= 0:
        return None
    mass, sigma, x, y = _sum(found)
    x0, y0, x1, y1 = region.bounds
    return Load(mass, sigma, (x1 - x0, y1 - y0), (x - x0, y - y0), float(region.area))


def _roof(s: Studied, there: frozenset[str] | None) -> Load | None:
    """All slopes as one: as long as the longest, as high as they rise; wind takes hold of it along its slope."""
    body = s.framed.body
    assert body is not None
    masses, own, x_m, z_m, areas, spots = 0.0, 0.0, 0.0, 0.0, [0.0], []
    for surface in body.of("roof"):
        found = weights_within((one for one in face_weights(s, surface) if _on(s, one, there)), surface.polygon)
        spots += [surface.place(float(a), float(b)) for a, b in surface.polygon.exterior.coords]
        areas.append(surface.area_m2)
        if sum(kg for _, kg, _, _ in found) > 0:
            mass, sigma, a, b = _sum(found)
            x, _, z = surface.place(a, b)
            masses, own, x_m, z_m = masses + mass, own + sigma, x_m + mass * x, z_m + mass * z  # they are wrong together
    if masses <= 0:
        return None
    x0, x1, z0, z1 = min(p[0] for p in spots), max(p[0] for p in spots), min(p[2] for p in spots), max(p[2] for p in spots)
    return Load(masses, own, (x1 - x0, max(z1 - z0, 0.1)), (x_m / masses - x0, z_m / masses - z0), max(areas))


def _whole(s: Studied, what: str, there: frozenset[str] | None) -> Load | None:
    """The body or the frame by its parts."""
    group, body = "shell" if what == "body" else "frame", s.framed.body
    pieces = [one for one in brought(s.build, s.facts) if one.part.group == group and one.mass_kg > 0]
    if there is not None:
        pieces = [one for one in pieces if one.by == START or one.by in there]
    if not pieces:
        return None
    mass = sum(one.mass_kg for one in pieces)
    own = math.sqrt(sum((one.part.sigma_kg * one.share) ** 2 for one in pieces))
    sigma = math.hypot(own, SHARED_BIAS * mass if what == "body" else 0.0)
    parts = [one.part for one in pieces]
    x0, x1 = min(p.x_m - p.size_m[0] / 2 for p in parts), max(p.x_m + p.size_m[0] / 2 for p in parts)
    if what == "body" and body is not None:
        x0, x1 = body.front, body.front + body.length
        sides = [face.polygon.bounds[3] - face.polygon.bounds[1] for face in body.surfaces if face.kind in ("left side", "right side")]
        high = max(sides, default=2.0)
        foot = body.under
    else:
        high = s.build.rig.frame_width.si if s.build.rig.frame_width else 1.6
        x1 = max(x1, s.build.rig.frame_length.si if s.build.rig.frame_length else x1)
        x0, foot = min(x0, 0.0), min(p.z_m - p.size_m[2] / 2 for p in parts)
    long, tall = max(x1 - x0, 0.5), max(high, 0.3)
    cg = sum(one.part.x_m * one.mass_kg for one in pieces) / mass - x0
    up = sum(one.part.z_m * one.mass_kg for one in pieces) / mass - foot if what == "body" else high / 2
    return Load(mass, sigma, (long, tall), (min(max(cg, 0.05), x1 - x0), min(max(up, 0.05), high)), long * tall)


def lifted(s: Studied, lift: Lift) -> Lifted:
    """One lift. Sizes that were not typed: picks a quarter of the length from the ends, hook as high as they are apart."""
    load = load_of(s, lift)
    name = dict(liftable(s)).get(lift.what, lift.what)
    if load is None:
        return Lifted(
            lift,
            name,
            mass_kg=0.0,
            sigma_kg=0.0,
            size_m=(0.0, 0.0),
            cg_m=(0.0, 0.0),
            said=(),
            refusals=(),
            hands=0,
            crew=(),
            why="nothing is known of its weight yet",
        )
    mass, sigma, size, cg, area = load.mass_kg, load.sigma_kg, load.size_m, load.cg_m, load.area_m2
    words = Words(s.build.brief.reading.shown())
    made = {"crane": _crane, "tilt up": _tilt, "by hand": _carry, "turn over": _turn}[lift.way]
    said, refusals, hands, crew = made(words, lift, mass + 2 * sigma, size, cg, area)
    if lift.way == "crane":
        _machine(words, lift, mass + 2 * sigma, said, refusals)
    wind = lift.wind_m_s
    if wind is not None and lift.way in ("crane", "tilt up"):
        hold = (
            min(wind_hold_m_s(area, LINES), WIND_MOST)
            if lift.way == "crane"
            else min(wind_hold_m_s(area, max(lift.people - 1, 1)), WIND_MOST)
        )
        bad = wind * GUST > hold + 1e-9
        said.append(Said("wind, in gusts", wind * GUST, "m/s", hold, "refuse" if bad else "good"))
        if bad:
            refusals.append(f"gusts of {_pace(wind * GUST, words)}: at most {_pace(hold, words)} are held on {words.m2(area)}")
    elif lift.way in ("crane", "tilt up"):
        most = min(wind_hold_m_s(area, LINES), WIND_MOST) / GUST
        said.append(Said("mean wind at the most", most, "m/s"))
    if hands > lift.people:
        refusals.append(f"{hands} people are wanted and {lift.people} are there")
    said.append(Said("people", float(hands), "people", float(lift.people), "refuse" if hands > lift.people else "good"))
    return Lifted(
        lift,
        name,
        mass_kg=mass,
        sigma_kg=sigma,
        size_m=size,
        cg_m=cg,
        said=tuple(said),
        refusals=tuple(refusals),
        hands=hands,
        crew=tuple(crew),
    )


def _machine(words: Words, lift: Lift, mass: float, said: list[Said], refusals: list[str]) -> None:
    """What hangs on the hook against the machine's chart at its reach; not checked where either is not said."""
    hook, chart = mass + RIGGING_KG, chart_of(lift)
    if not chart or lift.reach is None:
        said.append(Said("on the hook with its slings", hook, "kg", None, "not checked"))
        return
    most = lifts_kg(chart, lift.reach.si)
    bad = most is None or hook > most
    said.append(
        Said(f"on the hook with its slings, machine at {words.m(lift.reach.si)}", hook, "kg", most or 0.0, "refuse" if bad else "good")
    )
    if most is None:
        refusals.append(f"the machine's chart ends before {words.m(lift.reach.si)}")
    elif bad:
        refusals.append(f"{words.kg(hook)} hang on the hook and the machine lifts {words.kg(most)} at {words.m(lift.reach.si)}")


def hand_loads_kg(mass_kg: float, cg_m: float, long_m: float, hands: int) -> tuple[tuple[float, float], ...]:
    """Where so many stand along something stiff, spread evenly, and what each bears: (from its left end [m], [kg]).

    The heavy end bears more: W/n + W e (x - m) / sum (x - m)^2, for m the middle of the people and e how far the centre is off it.
    Check 100 kg, 4.0 m long, centre at 2.5, four people at 0.5, 1.5, 2.5, 3.5: 10, 20, 30, 40 kg.
    """
    places = [long_m * (k + 0.5) / hands for k in range(hands)]
    middle = sum(places) / hands
    spread = sum((x - middle) ** 2 for x in places)
    lean = (cg_m - middle) / spread if spread > 1e-12 else 0.0
    return tuple((x, mass_kg * (1 / hands + lean * (x - middle))) for x in places)


def picks_m(lift: Lift, long_m: float, cg_m: float) -> tuple[float, float, float]:
    """Front and rear pick from the centre of gravity, and the hook over them [m]; what was not typed as ``lifted`` takes it."""
    front = lift.pick_front.si if lift.pick_front is not None else max(cg_m - long_m / 4, long_m / 8)
    rear = lift.pick_rear.si if lift.pick_rear is not None else max(long_m * 3 / 4 - cg_m, long_m / 8)
    return front, rear, lift.hook.si if lift.hook is not None else front + rear


def hands_up_m(lift: Lift, tall_m: float) -> float:
    """How high hands hold a wall that is tilted up [m]: as typed, else as high as they reach."""
    return lift.hands_at.si if lift.hands_at is not None else min(tall_m, 1.9)


Worked = tuple[list[Said], list[str], int, list[str]]


def _pace(m_s: float, words: Words) -> str:
    return words.kmh(m_s * 3.6) if words.shown.imperial else words.of(m_s, "m/s", 1)


def _crane(words: Words, lift: Lift, mass: float, size: tuple[float, float], cg: tuple[float, float], _area: float) -> Worked:
    a, b, hook = picks_m(lift, size[0], cg[0])
    refusals: list[str] = []
    if hook <= 0:
        return [], ["the hook is no higher than the picks"], 0, []
    if a <= 0 or b <= 0:
        return [], ["the centre of gravity must hang between the picks"], 0, []
    legs = two_legs(mass, a, b, hook)
    body = lift.what in ("body", ROOF)
    worst = max(legs["deg"])
    tension = four_legs_n(mass, worst) if body else max(legs["tension_n"])
    verdict: Verdict = "refuse" if worst > REFUSE_DEG else "warn" if worst > WARN_DEG else "good"
    if worst > REFUSE_DEG:
        refusals.append(f"a leg stands {worst:.0f}° from upright; over 60° nothing is lifted")
    mark = None if lift.sling_n is None else lift.sling_n * (CHOKED if lift.choked else 1.0)
    bad = mark is not None and tension > mark
    if bad and mark is not None:
        refusals.append(f"a leg pulls {words.fine_newtons(tension)} and its sling holds {words.fine_newtons(mark)}")
    squeeze = squeeze_n(legs["up_n"][0], legs["deg"][0])
    spread = worst > SPREAD_DEG and not lift.spreader
    said = [
        Said("front leg from upright", legs["deg"][0], "deg", REFUSE_DEG, verdict),
        Said("rear leg from upright", legs["deg"][1], "deg", REFUSE_DEG, verdict),
        Said(
            "pull of a leg" if not body else "pull of a leg, two of four carry",
            tension,
            "N",
            mark,
            "not checked" if mark is None else "refuse" if bad else "good",
        ),
        Said("front leg", legs["leg_m"][0], "m"),
        Said("rear leg", legs["leg_m"][1], "m"),
        Said("pressed together with" if not lift.spreader else "a spreader takes", squeeze, "N", None, "warn" if spread else "told"),
    ]
    crew = [
        "one at the machine, who follows one signaller only",
        "one signaller, in sight of the machine",
        "one on each tag line, front and rear, never under it",
        "one at the place, with braces at hand before the hook is let go",
    ]
    return said, refusals, 5, crew


def _tilt(words: Words, lift: Lift, mass: float, size: tuple[float, float], cg: tuple[float, float], _area: float) -> Worked:
    at = hands_up_m(lift, size[1])
    if at <= 0:
        return [], ["hands at no height hold nothing"], 0, []
    start = tilt_kg(mass, cg[1], at)
    hands = math.ceil(start / HAND_KG - 1e-9) + 1  # one more at the line the other way
    said = [
        Said("at the hands, to start", start, "kg"),
        Said("at the hands, half way", tilt_kg(mass, cg[1], at, 60.0), "kg"),
        Said("each of them", start / max(hands - 1, 1), "kg", HAND_KG, "good"),
    ]
    crew = [
        f"{hands - 1} along the top, {words.kg(HAND_KG)} each, stepping in as it rises",
        "one at a line or brace the other way, set before it starts: past 80° it wants to go over",
        "stops nailed at the foot, so that it cannot slide",
    ]
    return said, [], hands, crew


def _carry(words: Words, lift: Lift, mass: float, size: tuple[float, float], cg: tuple[float, float], area: float) -> Worked:
    over = lift.hands_at is not None and lift.hands_at.si > 1.4
    each = OVER_KG if over else HAND_KG
    hands = max(math.ceil(mass / each - 1e-9), 2 if max(size) > 1.8 or area > 1.5 else 1)
    while hands < MOST_HANDS and max(kg for _, kg in hand_loads_kg(mass, cg[0], size[0], hands)) > each + 1e-9:
        hands += 1  # who stands at the heavy end bears more than the mean
    loads = hand_loads_kg(mass, cg[0], size[0], hands)
    most = max(kg for _, kg in loads)
    said = [Said("each of them, the most", most, "kg", each, "refuse" if most > each + 1e-9 else "good")]
    refusals = [f"whoever stands at its heavy end bears {words.kg(most)}; {words.kg(each)} is the most"] if most > each + 1e-9 else []
    places = ", ".join(words.m(x) for x, _ in loads)
    crew = [f"{hands} at its edges, from its left end at {places}; one of them counts", "the way is clear, the place is ready, gloves on"]
    return said, refusals, hands, crew


def _turn(words: Words, lift: Lift, mass: float, size: tuple[float, float], _cg: tuple[float, float], _area: float) -> Worked:
    z = lift.hook.si if lift.hook is not None else 0.25
    wide = size[1]
    start, over, moment = turning(mass, wide, max(z, 0.01))
    mark = None if lift.sling_n is None else lift.sling_n / 2  # hoist and beam marked for twice
    bad = mark is not None and start > mark
    refusals = [f"it pulls {words.fine_newtons(start)} to start; hoist and beam must be marked for twice as much"] if bad else []
    said = [
        Said("at the far rail, to start", start, "N", mark, "not checked" if mark is None else "refuse" if bad else "good"),
        Said("goes over by itself from", over, "deg"),
        Said("to be held when it stands", moment, "N m"),
    ]
    crew = [
        "one at the hoist",
        "one at the second line, the other way, tight before it goes over",
        "nobody between it and the way it falls",
    ]
    return said, refusals, 3, crew
