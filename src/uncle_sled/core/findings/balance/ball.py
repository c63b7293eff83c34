"""Judgements on the ball, the wheels, the plates and the parked trailer.

Sources of the thresholds: docs/methods.md.
"""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from uncle_sled.core.findings.finding import Finding, Severity
from uncle_sled.core.findings.rule import Helps, Rule
from uncle_sled.core.reading.limits import JACK_FACTOR, Limit
from uncle_sled.core.reading.parked import PERSON_KG
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.balance.sureness import chances, load_kg, load_sigma_kg, weigh_first
from uncle_sled.core.studies.balance.sweep import span_kg
from uncle_sled.core.words import Words, lower_first, upper_first

SOURCE = "moments about the axle; advised bands of the region"  # of every rule here, said after its reason

LEAN_SHARE = 0.05
LEAST_CHANCE = 0.80
TOW_CAUTION = "Weigh it before you tow; the papers of car and coupler and local law decide."
SCREEN_CAUTION = "Screening only: plates, papers and local law decide."


def balance_findings(s: Studied, words: Words) -> Iterator[Finding]:
    """Is the ball in its band in every case, and how sure is that? Yields what is not; silent where all is well."""
    yield from _no_reading(s)
    if s.build.rig.carrier == "ball" and s.support is not None and s.towing_rows:
        yield from _ball_light(s, words)
        yield from _ball_heavy(s, words)
        yield from _bare(s, words)
        yield from _chance(s, words)
        yield from _parked(s, words)
    if s.support is not None:
        if s.support.carrier == "vehicle bed" and s.readings.axle_kg.shape[1] == 2:
            yield from _bed_chance(s, words)
        yield from _lean(s, words)
        yield from _over_limits(s, words)


NO_STATICS = Rule(
    "no-statics",
    "stop",
    "Rig",
    "Coupler and axles are where no body can stand on them",
    "A body stands on the ball and on wheels behind it.",
    why_none="Only the right measure helps: type it on the Rig stop.",
)
NO_AXLE = Rule(
    "no-axle",
    "note",
    "Rig",
    "No axle or wheelbase is known yet",
    "Nothing can be balanced on nothing.",
    why_none="Type it on the Rig stop.",
)
NO_MASS = Rule(
    "no-mass",
    "note",
    "Stow",
    "Nothing weighs anything yet",
    "The reading needs one mass at least.",
    why_none="Type a weight on the Rig stop or add a thing on the Stow stop.",
)


NOT_KNOWN = Rule(
    "not-known",
    "mind",
    "Rig",
    "A weight or place that the reading hangs on was not given",
    "What nobody gave is not nothing: a reading without it would be wrong by just that.",
    why_none="Type or weigh it; nothing else helps.",
)


def _no_reading(s: Studied) -> Iterator[Finding]:
    rig = s.build.rig
    for unknown in s.unknown:
        hidden = unknown.hides == "reading"
        if unknown.hides == "axles":
            yield NOT_KNOWN.found(
                f"Told as if level: {unknown.says}",
                f"{upper_first(unknown.says)} is not known, so what each axle and tyre carries is not checked. {unknown.ask}",
                ("rig", unknown.field),
            )
            continue
        title = f"No reading yet: {unknown.says}" if hidden else f"Left out: {unknown.says}"
        so = "is not known" if hidden else "is not known, so every reading is without it and no limit counts as kept"
        yield NOT_KNOWN.found(title, f"{upper_first(unknown.says)} {so}. {unknown.ask}", ("rig", unknown.field))
    if s.trouble:
        yield NO_STATICS.found("No reading from this rig", s.trouble, ("rig",))
    elif any(each_unknown.hides == "reading" for each_unknown in s.unknown):
        return
    elif s.support is None:
        what = "Tell the wheelbase of the vehicle" if rig.carrier == "vehicle bed" else "Tell where the axle stands, or will stand"
        yield NO_AXLE.found("No axle yet", f"{what}, and the reading on the ball appears.", ("rig",))
    elif s.towing_rows and float(np.nanmax(np.abs(s.readings.total_kg[s.towing_rows]))) < 1e-9:
        yield NO_MASS.found("Nothing weighs anything yet", "Give the frame a weight, or put a thing in.", ("rig",))


def _case_list(s: Studied, rows: list[int], worst: int) -> str:
    others = [lower_first(s.table.cases[row].name) for row in rows if row != worst]
    return f" Also {', '.join(others[:3])}." if others else ""


BALL_LIGHT = Rule(
    "ball-light", "stop", "Balance", "The ball carries less than the band in a towing case", "", caution=TOW_CAUTION, helps="moves"
)


def _ball_light(s: Studied, words: Words) -> Iterator[Finding]:
    b, rows = s.readings, s.towed_rows
    low = b.band_kg[:, 0]
    least = np.asarray(s.band.least_kg(b.total_kg))
    light = [row for row in rows if b.total_kg[row] > 0 and b.tongue_kg[row] < max(low[row], least[row]) - 1e-6]
    if not light:
        return
    worst = min(light, key=lambda row: b.share[row])
    tongue, case = float(b.tongue_kg[worst]), s.table.cases[worst]
    severity: Severity = "stop" if any(b.tongue_kg[row] < least[row] - 1e-6 for row in light) else "mind"
    served = bool(s.band.served(float(b.total_kg[worst])))
    title = f"Nose lifts: {lower_first(case.name)}" if tongue < 0 else f"Nose goes light: {lower_first(case.name)}"
    says = (
        f"{upper_first(case.says)}: {words.bare_kg(tongue)} of {words.kg(float(b.total_kg[worst]))} on the ball, "
        f"{_wanted(s, worst, served, words)}.{_case_list(s, light, worst)}"
    )
    yield BALL_LIGHT.found(
        title,
        says,
        ("ball",),
        case_id=case.id,
        number=float(max(low[worst], least[worst]) - tongue),
        severity=severity,
        why=f"{s.band.says}{_limit_words(s, words)}.{_crossed(s, worst, words)} A light nose sways.",
    )


def _wanted(s: Studied, row: int, served: bool, words: Words) -> str:
    b = s.readings
    if served:
        return f"want {words.bare_kg(float(b.band_kg[row, 0]))} to {words.kg(float(b.band_kg[row, 1]))}"
    least, most = float(s.band.least_kg(float(b.total_kg[row]))), s.band.limit_kg or 0.0
    return f"it wants {words.kg(least)} at least, and {words.kg(most)} are allowed ({s.band.limit_says}): no place of axle or load serves"


def _limit_words(s: Studied, words: Words) -> str:
    return f", never over {words.kg(s.band.limit_kg)} ({s.band.limit_says})" if s.band.limit_kg is not None else ""


def _crossed(s: Studied, row: int, words: Words) -> str:
    """Where the lowest limit lies under what practice asks for: both, by name."""
    total, limit = float(s.readings.total_kg[row]), s.band.limit_kg
    if limit is None or total <= s.band.cut_at_kg():
        return ""
    asks, least = s.band.low * total, float(s.band.least_kg(total))
    said = f" {words.share(s.band.low, 0)} would be {words.kg(asks)}, and the limit of {s.band.limit_says} is {words.kg(limit)}: as near under that as can be."
    return f"{said} Even {words.kg(least)}, under which it sways, is over that limit." if least > limit else said


BALL_HEAVY = Rule(
    "ball-heavy", "stop", "Balance", "The ball carries more than the band in a towing case", "", caution=TOW_CAUTION, helps="moves"
)


def _ball_heavy(s: Studied, words: Words) -> Iterator[Finding]:
    b, rows = s.readings, s.towed_rows
    high = b.band_kg[:, 1]
    heavy = [row for row in rows if b.total_kg[row] > 0 and b.tongue_kg[row] > high[row] + 1e-6]
    if not heavy:
        return
    worst = max(heavy, key=lambda row: b.tongue_kg[row] - high[row])
    tongue, case = float(b.tongue_kg[worst]), s.table.cases[worst]
    says = (
        f"{upper_first(case.says)}: {words.kg(tongue)} on the ball, {words.share(float(b.share[worst]))} of {words.kg(float(b.total_kg[worst]))}; "
        f"want {words.kg(float(high[worst]))} at most.{_case_list(s, heavy, worst)}"
    )
    severity: Severity = "stop" if s.band.limit_kg is not None and max(b.tongue_kg[row] for row in heavy) > s.band.limit_kg else "mind"
    yield BALL_HEAVY.found(
        f"Nose is heavy: {lower_first(case.name)}",
        says,
        ("ball",),
        case_id=case.id,
        number=float(tongue - high[worst]),
        severity=severity,
        why=f"{s.band.says}{_limit_words(s, words)}.{_crossed(s, worst, words)} A heavy nose loads the car's rear axle.",
    )


BARE_OUT = Rule(
    "bare-shell-out",
    "note",
    "Balance",
    "The empty body would be out of its band, if it were towed so",
    "It matters only on the way to the painter or home from the maker.",
    caution=TOW_CAUTION,
    why_none="Put something in the nose or the tail for that one trip, or carry it on another trailer.",
)


def _bare(s: Studied, words: Words) -> Iterator[Finding]:
    """The standing bare shell, which nobody tows: told once, and never more than a note."""
    b, towed = s.readings, set(s.towed_rows)
    for row in s.towing_rows:
        if row in towed or not b.total_kg[row] > 0:
            continue
        ball, (low, high) = float(b.tongue_kg[row]), (float(kg) for kg in b.band_kg[row])
        if not low - 1e-6 <= ball <= high + 1e-6:
            out = "light" if ball < low else "heavy"
            yield BARE_OUT.found(
                f"Empty, its nose is {out}",
                f"Frame and body alone: {words.bare_kg(ball)} of {words.kg(float(b.total_kg[row]))} on the ball, {words.bare_kg(low)} to {words.kg(high)} would be right.",
                ("ball", "bare"),
                case_id=s.table.cases[row].id,
                number=max(low - ball, ball - high),
            )


BALL_UNSURE = Rule(
    "ball-unsure",
    "mind",
    "Balance",
    "In the band as drawn, but with a chance under 80 %",
    "Guessed and estimated masses leave this doubt; a weighing shrinks it.",
    caution=TOW_CAUTION,
    helps="moves",
)


def _chance(s: Studied, words: Words) -> Iterator[Finding]:
    b = s.readings
    inside = [row for row in s.towed_rows if b.band_kg[row, 0] <= b.tongue_kg[row] <= b.band_kg[row, 1] and b.chance[row] < LEAST_CHANCE]
    if not inside:
        return
    worst = min(inside, key=lambda row: b.chance[row])
    case = s.table.cases[worst]
    first = weigh_first(s, worst, 2)
    names = " and ".join(lower_first(name) for _, name, _ in first)
    says = (
        f"{case.name}: {words.bare_kg(float(b.tongue_kg[worst]))} give or take {words.kg(float(b.tongue_sigma_kg[worst]))}. "
        f"The chance to be in the band is {words.share(float(b.chance[worst]), 0)}, want 80 %. Weigh first: {names}."
    )
    yield BALL_UNSURE.found(
        f"Not sure of the ball: {lower_first(case.name)}", says, ("ball",), case_id=case.id, number=float(1 - b.chance[worst])
    )


AXLES_UNSURE = Rule(
    "axles-unsure",
    "mind",
    "Balance",
    "A bed's axles keep their limits as drawn, but with a chance under 80 %",
    "Guessed and estimated masses leave this doubt; a weighing shrinks it.",
    caution=SCREEN_CAUTION,
    why_none="Weigh what is named, or leave some of the load at home.",
)


def _bed_chance(s: Studied, words: Words) -> Iterator[Finding]:
    """Cases that keep both axles' limits as drawn, but not for sure."""
    load, chance = load_kg(s), chances(s)
    low, high = span_kg(s, s.readings.total_kg)
    unsure = [row for row in s.towing_rows if low[row] <= load[row] <= high[row] and chance[row] < LEAST_CHANCE]
    if not unsure:
        return
    worst = min(unsure, key=lambda row: chance[row])
    case, sigma = s.table.cases[worst], float(load_sigma_kg(s)[worst])
    names = " and ".join(lower_first(name) for _, name, _ in weigh_first(s, worst, 2))
    yield AXLES_UNSURE.found(
        f"Not sure of the axles: {lower_first(case.name)}",
        f"{case.name}: rear axle {words.bare_kg(float(load[worst]))} give or take {words.kg(sigma)}. The chance that both "
        f"axles keep their limits is {words.share(float(chance[worst]), 0)}, want 80 %. Weigh first: {names}.",
        ("wheels",),
        case_id=case.id,
        number=float(1 - chance[worst]),
    )


LEANS = Rule(
    "leans",
    "mind",
    "Balance",
    "Left and right wheels carry more than 5 % apart",
    "Uneven wheels wear tyres, pull on the brakes and lean on bends.",
    caution=SCREEN_CAUTION,
    helps="moves",
)


def _lean(s: Studied, words: Words) -> Iterator[Finding]:
    b = s.readings
    rows = [row for row in s.towed_rows if b.total_kg[row] > 0 and not np.isnan(b.left_kg[row])]
    wheels = {row: float(b.left_kg[row] + b.right_kg[row]) for row in rows}
    leaning = [row for row in rows if wheels[row] > 0 and abs(b.right_kg[row] - b.left_kg[row]) > LEAN_SHARE * wheels[row]]
    if not leaning:
        return
    worst = max(leaning, key=lambda row: abs(b.right_kg[row] - b.left_kg[row]) / wheels[row])
    case, side = s.table.cases[worst], "right" if b.right_kg[worst] > b.left_kg[worst] else "left"
    apart = abs(float(b.right_kg[worst] - b.left_kg[worst]))
    says = (
        f"{case.name}: {words.bare_kg(float(b.left_kg[worst]))} left, {words.kg(float(b.right_kg[worst]))} right. "
        f"{words.share(apart / wheels[worst])} apart, want 5 % at most.{_case_list(s, leaning, worst)}"
    )
    yield LEANS.found(f"Heavy on the {side}", says, ("wheels",), case_id=case.id, number=apart / wheels[worst])


HOT_TYRE = "A tyre near its load runs hot. Never under its minimum pressure."
PLATE = "The number on the plate or in the papers holds whatever the drawing says."
STEERING = "A body behind the rear axle lifts the front: 30 % of the whole and 90 % of its empty load should stay."


_Over = tuple[str, str, str, str, Helps]  # kind of limit, title (empty: its own name), when, why, what helps
_OVER: tuple[_Over, ...] = (
    ("gross", "Over the plate", "The whole weighs more than its plate", PLATE, "nothing"),
    ("axle-group", "Axle group over its plate", "The axles together carry more than their plate", PLATE, "nothing"),
    ("axle", "", "One axle carries more than its rating", PLATE, "moves"),
    ("tyre", "Tyres", "A tyre carries more than 85 % of its load index", PLATE, "moves"),
    ("coupler", "Coupler over its rating", "The ball carries more than the coupler's rating", PLATE, "nothing"),
    ("hitch", "Hitch over its rating", "The ball carries more than the hitch's rating", PLATE, "nothing"),
    ("towed", "", "The trailer weighs more than the car may tow", PLATE, "nothing"),
    ("unbraked", "Brakes are wanted", "A trailer without brakes weighs more than its car may tow so", PLATE, "nothing"),
    ("train", "", "Car and trailer together weigh more than their papers say", PLATE, "nothing"),
    ("car-rear", "", "The ball loads the car's rear axle over its rating", PLATE, "nothing"),
    ("car-front", "", "The car's front axle is over its rating", PLATE, "nothing"),
    ("chains", "Chain under the trailer's weight", "A safety chain holds less than the trailer", PLATE, "nothing"),
    ("stabiliser", "Stabilisers are too small", "A stabiliser takes more than its rating, somebody on the tail", PLATE, "nothing"),
    (
        "jack",
        "Jack is too small",
        "The jack lifts more than two thirds of its rating",
        "A jack is rated for half as much again as it lifts.",
        "nothing",
    ),
    ("front-axle", "Front axle over its rating", "A bed vehicle's front axle is over its rating", PLATE, "moves"),
    ("rear-axle", "Rear axle over its rating", "A bed vehicle's rear axle is over its rating", PLATE, "moves"),
    ("least-front", "Front axle lightened", "The front axle carries under 90 % of its empty load", STEERING, "moves"),
    ("least-front-share", "Front axle carries too little", "The front axle carries under 30 % of the whole", STEERING, "moves"),
)
OVER_TITLES = {kind: title for kind, title, *_ in _OVER}
OVER: dict[str, Rule] = {
    kind: Rule(
        f"over-{kind}",
        "mind" if kind in ("stabiliser", "least-front", "least-front-share") else "stop",
        stop="Rig" if kind == "jack" else "Balance",
        when=when,
        why=why,
        caution=SCREEN_CAUTION,
        why_none="Only less weight or a higher rating helps." if helps == "nothing" else None,
        helps=helps,
    )
    for kind, _, when, why, helps in _OVER
}


def _over_limits(s: Studied, words: Words) -> Iterator[Finding]:
    for limit in s.limits:
        if limit.severity is None or limit.id.startswith("ball/"):
            continue  # the ball's own finding names the vehicle
        yield _over(s, limit, words)


def _over(s: Studied, limit: Limit, words: Words) -> Finding:
    kind = limit.id.split("/")[0]
    case = next(c for c in s.table.cases if c.id == limit.case_id)
    why: str | None = None
    title = OVER_TITLES[kind] or f"{limit.name} over its rating"
    if kind == "tyre":
        title = "Tyres over their load" if limit.severity == "stop" else "Tyres near their load"
    if kind.startswith("least-"):
        says = f"{case.name}: the front axle carries {words.kg(limit.value)}, want {words.kg(limit.limit)} at least, or steering suffers."
    elif kind == "jack":
        says = f"{case.name}: {words.kg(limit.value)} stand on the jack; it is rated {words.kg(limit.limit)}, want {JACK_FACTOR:g} times what it lifts."
    elif kind == "tyre" and limit.severity == "mind":
        says = f"{case.name}: {words.bare_kg(limit.value)} of {words.kg(limit.limit)}; 15 % in reserve is advised."
        why = HOT_TYRE
    else:
        says = f"{case.name}: {words.kg(limit.value)}, and {words.kg(limit.limit)} is the limit: {words.kg(limit.value - limit.limit)} too much."
    where = limit.id.split("/")[1] if limit.id.startswith("axle/") else "rig"
    number = limit.value / limit.limit if limit.limit else None
    severity: Severity = "stop" if limit.severity == "stop" else "mind"
    return OVER[kind].found(title, says, (where, limit.id), case.id, number, severity, why)


JACK_LIFTS = Rule(
    "jack-lifts",
    "stop",
    "Balance",
    "Unhitched, the jack would have to pull down",
    "More weight stands behind the axle than ahead of it.",
    caution="Never unhitch it like this.",
    helps="moves",
)
TAIL_TIPS = Rule(
    "tail-tips",
    "mind",
    "Rig",
    "A person on the tail lifts the jack, with no stabilisers",
    "Rear stabilisers, wound down first, carry that.",
    caution="Set rear stabilisers before anyone climbs in at the back.",
)


def _parked(s: Studied, words: Words) -> Iterator[Finding]:
    if s.at_rest is None:
        return
    jack, tail = s.at_rest.jack_kg, s.at_rest.jack_tail_loaded_kg
    row = int(np.argmin(jack))
    case = s.table.cases[row]
    if jack[row] < 0:
        yield JACK_LIFTS.found(
            "Tips onto its tail",
            f"{case.name}, unhitched: the jack would have to pull down {words.kg(-float(jack[row]))}.",
            ("jack",),
            case_id=case.id,
            number=float(-jack[row]),
        )
    elif tail[row] < 0 and s.build.rig.stabiliser_station is None:
        yield TAIL_TIPS.found(
            "A person on the tail tips it",
            f"{case.name}, unhitched: {words.kg(PERSON_KG)} on the tail takes the jack from {words.bare_kg(float(jack[row]))} to {words.kg(float(tail[row]))}.",
            ("jack",),
            case_id=case.id,
            number=float(-tail[row]),
        )
