"""Judgements on the rig as it drives: its size and speed, what hangs low, what leans, what floats, what cannot be."""

from __future__ import annotations

from collections.abc import Iterator

from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.findings.rule import Rule
from uncle_sled.core.reading.studied import Studied, tail_m
from uncle_sled.core.studies.balance.emptying import emptying
from uncle_sled.core.studies.balance.road_checks import roll_g
from uncle_sled.core.studies.balance.road_size import WAYS, every_limit, low_tail, worst_size
from uncle_sled.core.studies.shell.shell_measures import measures
from uncle_sled.core.studies.stow.floating import floating
from uncle_sled.core.words import Words, lower_first, upper_first

SOURCE = "plates and papers; tyre load and speed tables; statics on a grade and in a stop"  # of every rule here, said after its reason

ROLL_MIND_G, DEPARTURE_MIND_DEG, OVERHANG_NOTE_M = 0.35, 12.0, 0.30
CAUTION = "Screening only: the rule where you drive, bridges and garages decide."

ADJECTIVES = {"height": "high", "width": "wide", "length": "long"}
TOO_LARGE = Rule(
    "too-large",
    "stop",
    stop="Brief",
    when="Higher, wider or longer on the road than the brief allows",
    why="The limit is your own, from the rule where you drive, a garage or a ferry.",
    caution=CAUTION,
    why_none="Take off what reaches out, or lower it; a limit typed wrong is put right on Brief.",
)
TOO_FAST = Rule(
    "too-fast",
    "stop",
    stop="Rig",
    when="Towed faster than the tyres' speed symbol allows",
    why="A tyre over its speed overheats and bursts, the sooner the fuller it is loaded.",
    caution=CAUTION,
    why_none="Drive no faster than the letter says, or other tyres.",
)
ROLLS = Rule(
    "rolls",
    "mind",
    stop="Balance",
    when="A wheel lifts at less than 0.35 g sideways",
    why="A hurried bend asks for 0.3 to 0.4 g.",
    caution="Screening only: springs, tyres and road take their share.",
    why_none="Weight lower down, or a wider track.",
)
LOW_TAIL = Rule(
    "low-tail",
    "mind",
    stop="Rig",
    when="Under 12 degrees of free ground behind the wheels",
    why="A driveway or a ferry's ramp drags what hangs lower.",
    caution=CAUTION,
    why_none="Raise what hangs there, or bring it nearer the axle.",
)
PAST_FRAME = Rule(
    "past-frame",
    "note",
    "Shell",
    "The body reaches over {0.3 m} past its frame",
    "What hangs past the frame stands on the floor alone.",
    why_none="Carry the floor there, or lengthen the frame.",
)
NOT_THERE = Rule(
    "not-there",
    "note",
    "Rig",
    "Jack, stabilisers or axle stand where no frame is",
    "They hang on the frame.",
    why_none="Type where it really is, on Rig.",
)
FLOATS = Rule(
    "floats",
    "note",
    "Stow",
    "A thing stands over nothing",
    "On the road nothing carries it there.",
    why_none="Set it on the floor, say what it stands in, or that it is outside.",
)


def road_findings(s: Studied, words: Words) -> Iterator[Finding]:
    """Does size, speed and the law of the road allow it? Yields what does not."""
    yield from _size(s, words)
    yield from _speed(s, words)
    yield from _rolls(s)
    yield from _low(s)
    yield from _places(s, words)
    yield from _floating(s, words)
    yield from _emptying(s, words)
    yield from _reserve(s, words)


def _size(s: Studied, words: Words) -> Iterator[Finding]:
    limits = {limit.id: limit for limit in every_limit(s).limits}
    for way in WAYS:
        limit, size = limits.get(f"road-{way}"), worst_size(s, way)
        if limit is None or limit.severity is None or size is None:
            continue
        yield TOO_LARGE.found(
            f"Too {ADJECTIVES[way]} for the road: {lower_first(size.mode.name)}",
            f"{upper_first(size.by)} makes it {words.m(limit.value)}, and {words.m(limit.limit)} is the limit: {words.m(limit.value - limit.limit)} too much.",
            ("shell", limit.id),
            number=limit.value / limit.limit,
        )


def _speed(s: Studied, words: Words) -> Iterator[Finding]:
    limit = next((limit for limit in every_limit(s).limits if limit.id == "speed"), None)
    if limit is not None and limit.severity is not None:
        yield TOO_FAST.found(
            "Faster than its tyres",
            f"The brief says {words.kmh(limit.value)}, and the letter {s.build.rig.tyre.speed_symbol.strip().upper()[:1]} on the tyres allows {words.kmh(limit.limit)}.",
            ("wheels", limit.id),
            number=limit.value / limit.limit,
        )


def _rolls(s: Studied) -> Iterator[Finding]:
    if s.build.rig.carrier != "ball":
        return
    known = [(g, row) for row in s.towing_rows if (g := roll_g(s, row)) is not None]
    if not known or min(known)[0] >= ROLL_MIND_G:
        return
    least, row = min(known)
    yield ROLLS.found(
        f"Rolls early: {lower_first(s.table.cases[row].name)}",
        f"{s.table.cases[row].name}: a wheel lifts at {least:.2f} g sideways, want {ROLL_MIND_G:.2f} g at least.",
        ("wheels",),
        case_id=s.table.cases[row].id,
        number=ROLL_MIND_G - least,
    )


def _low(s: Studied) -> Iterator[Finding]:
    low = low_tail(s)
    if low is not None and low.degrees < DEPARTURE_MIND_DEG:
        yield LOW_TAIL.found(
            "The tail drags",
            f"{upper_first(low.name)} leaves {max(low.degrees, 0.0):.1f}° free behind the wheels, want {DEPARTURE_MIND_DEG:.0f}° at least.",
            (low.id,),
            number=DEPARTURE_MIND_DEG - low.degrees,
        )


def _places(s: Studied, words: Words) -> Iterator[Finding]:
    rig, m = s.build.rig, measures(s)
    if m is not None and m.overhang_m is not None and m.overhang_m > OVERHANG_NOTE_M:
        yield PAST_FRAME.found(
            "The body reaches past its frame",
            f"By {words.m(m.overhang_m)}; over {words.m(OVERHANG_NOTE_M)} its floor carries the tail.",
            ("shell",),
            number=m.overhang_m,
        )
    end = rig.frame_length.si if rig.frame_length else tail_m(s.build)
    if rig.carrier != "ball" or end is None:
        return
    spots = [("The jack", rig.jack_station, "jack"), ("The stabilisers", rig.stabiliser_station, "jack")]
    spots += [("An axle" if len(rig.axles) > 1 else "The axle", axle.station, axle.id) for axle in rig.axles]
    for name, at, id in spots:
        if at is not None and not 0.0 <= at.si <= end + 1e-6:
            way = "ahead of the ball" if at.si < 0 else f"{words.m(at.si - end)} behind the frame's end"
            yield NOT_THERE.found(f"{name} where no frame is", f"{name} is {way}.", (id, name))


def _floating(s: Studied, words: Words) -> Iterator[Finding]:
    """Things inside, on the road, whose underside is over nothing: no floor, no other thing, no holder."""
    for each_floating in floating(s):
        yield FLOATS.found(
            f"{each_floating.name} floats",
            f"Its underside is {words.m(each_floating.over_m)} over what is under it, and nothing is said to hold it.",
            (each_floating.id,),
            number=each_floating.over_m,
        )


EMPTYING = Rule(
    "emptying-order",
    "mind",
    stop="Stow",
    when="Tanks of one kind that leave the band while they are emptied one after the other",
    why="In between, one is full and the other empty, and no standing case shows that.",
    caution="Weigh it before you tow; the papers of car and coupler and local law decide.",
    why_none="Empty them in the order that is named, or a little of each in turn.",
)


def _emptying(s: Studied, words: Words) -> Iterator[Finding]:
    told = emptying(s)
    tanks = {id for each_emptying in told for id in (*each_emptying.worst.tanks, *each_emptying.best.tanks)}
    names = {thing.id: lower_first(thing.name) for thing in s.build.stow.things if thing.id in tanks} if tanks else {}
    for each_emptying in told:
        if each_emptying.worst.out_kg <= 0.5 or each_emptying.worst.out_kg <= each_emptying.best.out_kg + 0.5:
            continue  # it makes no odds, or is as far out full or empty: a standing case says so
        case = next(c for c in s.table.cases if c.id == each_emptying.case_id)
        where = "on the ball" if s.build.rig.carrier == "ball" else "on the rear axle"
        wrong, right = (", then ".join(names[id] for id in order.tanks) for order in (each_emptying.worst, each_emptying.best))
        stays = "stays in the band" if each_emptying.best.out_kg <= 0.5 else f"is out by {words.kg(each_emptying.best.out_kg)} at the most"
        yield EMPTYING.found(
            f"Empty {right.partition(',')[0]} first",
            f"{case.name}: {wrong} comes to {words.kg(each_emptying.worst.load_kg)} {where}, {words.kg(each_emptying.worst.out_kg)} out of the band; {right} {stays}.",
            each_emptying.best.tanks,
            case_id=case.id,
            number=each_emptying.worst.out_kg,
        )


AXLE_RESERVE = Rule(
    "axle-reserve",
    "note",
    stop="Rig",
    when="Equalised axles with less than 10 % in reserve",
    why="They share evenly only without friction; leaves and shackles rub, and one carries more.",
    caution="Screening only: plates and makers decide.",
    why_none="Weigh each axle loaded, or take axles of a higher rating.",
)


def _reserve(s: Studied, words: Words) -> Iterator[Finding]:
    if s.support is None or s.build.rig.suspension != "equalised" or len(s.support.axles_m) < 2:
        return
    near = [limit for limit in s.limits if limit.id.startswith("axle/") and limit.severity is None and limit.value > 0.9 * limit.limit]
    if near:
        worst = max(near, key=lambda limit: limit.value / limit.limit)
        yield AXLE_RESERVE.found(
            "Little in reserve on the axles",
            f"{words.bare_kg(worst.value)} of {words.kg(worst.limit)} if they share evenly; 10 % in reserve is wanted.",
            ("wheels", worst.id),
            case_id=worst.case_id,
            number=worst.value / worst.limit,
        )
