"""Bars for the Balance bench: every limit with its number and case, the doubt of every case, who owns it, what moves.

In points, y up, in a field of width by height; nothing is drawn below its foot.
"""

from __future__ import annotations

import math

from uncle_sled.core.drawing.bar_rows import Scale, bar, named, unchecked_bar
from uncle_sled.core.drawing.plot import ticks, unit_kg
from uncle_sled.core.drawing.primitives import Circle, Primitive, Text, line
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.reading.band import vehicles_of
from uncle_sled.core.reading.limits import Limit, Unchecked, riding_in_car, row_loads_kg, use
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.balance.sureness import Owner, chances, load_kg, load_sigma_kg
from uncle_sled.core.studies.balance.sweep import span_kg
from uncle_sled.core.words import Words, lower_first

ROW, EDGE, NAME = 25.0, 12.0, 150.0
MOST = 1.15  # of the limit, at which a bar ends
VALUE, CASE = 140.0, 110.0
# ink of a bar by its severity; where all is well a weighed number is green and a computed one blue, never green
INKS = {"stop": "primer", "mind": "ochre", None: "spruce", "note": "spruce"}


def rows_high(count: int) -> float:
    """Height that so many rows take with their heading."""
    return 2 * EDGE + 34 + ROW * count


def _scale(known: list[float], margin: float, left: float, right: float) -> Scale:
    """Weights [kg] between two edges, with a margin over the range of those known."""
    low, high = min(known), max(known)
    pad = max(margin * (high - low), 1.0)
    return Scale(left, right, high + pad, low - pad)


def limit_bars(
    s: Studied, limits: tuple[Limit, ...], unchecked: tuple[Unchecked, ...], words: Words, width: float, height: float
) -> tuple[Primitive, ...]:
    """A bar a limit, nearest first: value as a share of its limit, the limit as a post, and the case it is worst in.

    Under them those that could not be checked, each an empty dashed bar with its reason.
    """
    names = {case.id: case.name for case in s.table.cases}
    long = max(width - 2 * EDGE - NAME - VALUE - CASE - 20, 60.0)
    scale = Scale(EDGE + NAME, EDGE + NAME + long, MOST)
    shapes: list[Primitive] = []
    y = height - EDGE - 32
    for limit in limits:
        if y < EDGE:
            break
        ink = ink_of(limit)
        floor = limit.id.startswith("least-")
        value = words.bare_kg(limit.value) if limit.unit == "kg" else words.of_unit(limit.value, limit.unit)
        says = f"{value} {'of at least' if floor else 'of'} {words.of_unit(limit.limit, limit.unit)}"
        strong = limit.severity is not None
        shapes += [
            named(EDGE, y, limit.name, NAME - 8, strong=strong, id=limit.id),
            scale.whole(y),
            scale.bar(y, min(use(limit), MOST), ink, id=limit.id),
            scale.post(y, 1.0),
            Text((scale.right + 10, y), says, 13, "primer" if limit.severity == "stop" else "ink", "text", "left"),
            Text((width - EDGE, y), elided(lower_first(names.get(limit.case_id, "")), 11, CASE - 6), 11, "pencil", "text", "right"),
        ]
        y -= ROW
    for missing in unchecked:
        if y < EDGE:
            break
        shapes += [
            named(EDGE, y, missing.name, NAME - 8, ink="pencil", id=missing.id),
            unchecked_bar(scale.left, y, scale.room),
            named(scale.right + 10, y, f"not checked: {missing.why}", VALUE + CASE - 4, 11, ink="pencil", id=missing.id),
        ]
        y -= ROW
    return tuple(shapes)


def ink_of(limit: Limit) -> str:
    """The ink of a limit's bar: only what was weighed is green where all is well."""
    return INKS[limit.severity] if limit.severity or limit.face == "measured" else "chalk"


CAR_ROWS = (
    ("ball/", "On its ball"),
    ("towed/", "Towed"),
    ("unbraked/", "Without brakes"),
    ("car-rear/", "Rear axle"),
    ("car-front/", "Front axle"),
    ("train/", "Car and trailer"),
)
CARS_BESIDE = 3


def cars_high() -> float:
    """Height that the cars' columns take with their headings."""
    return 2 * EDGE + 58 + ROW * len(CAR_ROWS)


def car_bars(s: Studied, words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """The cars side by side, a column each: what its papers allow, and what the worst case asks."""
    cars = vehicles_of(s.build.brief, s.facts)[:CARS_BESIDE]
    if s.build.rig.carrier != "ball" or not cars:
        return ()
    by_id = {limit.id: limit for limit in s.limits}
    names = {case.id: lower_first(case.name) for case in s.table.cases}
    name = 110.0
    column = (width - 2 * EDGE - name) / len(cars)
    shapes: list[Primitive] = []
    for at, car in enumerate(cars):
        left = EDGE + name + at * column
        y = height - EDGE - 32
        bare = "" if row_loads_kg(car, riding_in_car(s.build)) else ", car empty"
        shapes.append(named(left, y, f"{car.name}{bare}", column - 20, strong=True))
        room = min(column - 20.0, 220.0) if column < 360 else column - 260.0
        beside = column >= 360
        for kind, _ in CAR_ROWS:
            y -= ROW
            if y < EDGE:
                break
            limit = by_id.get(kind + car.id)
            if limit is None:
                why = next((f"not checked: {unchecked.why}" for unchecked in s.unchecked if unchecked.id == kind + car.id), "it has brakes")
                shapes.append(named(left, y, why, column - 20, 11, ink="pencil", id=kind + car.id))
                continue
            ink = "primer" if limit.severity == "stop" else "ink"
            says = f"{words.bare_kg(limit.value)} of {words.kg(limit.limit)}"
            worst = f"{says}, {names.get(limit.case_id, '')}"
            long = room if beside else min(room * 0.4, 90.0)
            scale = Scale(left, left + long, MOST)
            shapes += [
                scale.whole(y),
                scale.bar(y, min(use(limit), MOST), ink_of(limit), id=limit.id),
                scale.post(y, 1.0, half=9.0),
                named(left + long + 8, y, worst, column - long - 24, 12, ink=ink, id=limit.id),
            ]
    y = height - EDGE - 32
    for _, says in CAR_ROWS:
        y -= ROW
        if y < EDGE:
            break
        shapes.append(Text((EDGE, y), says, 13, "ink", "text", "left"))
    return tuple(shapes)


def sure_bars(s: Studied, row_shown: int, words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """Each towing case: what it may have, its load with the doubt as a soft width of two sigmas, and its chance.

    The load is that on the ball, or on the rear axle of a vehicle with a bed.
    """
    rows = s.towing_rows
    if s.support is None or not rows:
        return ()
    load, sigmas, chance_of = load_kg(s), load_sigma_kg(s), chances(s)
    low, high = span_kg(s, s.readings.total_kg)
    bed = s.support.carrier == "vehicle bed"
    ends = [float(v) for r in rows for v in (low[r], high[r], load[r] - 2 * sigmas[r], load[r] + 2 * sigmas[r])]
    known = [v for v in ends if math.isfinite(v)]
    if not known:
        return ()
    left, right = EDGE + NAME, width - EDGE - 96
    scale = _scale(known, 0.06, left, right)
    shapes: list[Primitive] = []
    y = height - EDGE - 32
    for row in rows:
        if y < EDGE:
            break
        tongue, sigma, chance = float(load[row]), float(sigmas[row]), float(chance_of[row])
        if not math.isfinite(tongue):
            continue
        band = [max(float(low[row]), min(known)), min(float(high[row]), max(known))]
        name = s.table.cases[row].name
        ink = "spruce" if chance >= 0.8 else "primer" if chance < 0.2 else "ochre word"
        shapes += [
            named(EDGE, y, name, NAME - 8, strong=row == row_shown),
            line((left, y), (right, y), "rule", 1.0),
            scale.span(y, band[0], band[1], half=8.0, stroke="spruce", fill="spruce wash"),
            scale.span(y, tongue - 2 * sigma, tongue + 2 * sigma, half=4.0, stroke="", fill="foam"),
            scale.span(y, tongue - sigma, tongue + sigma, half=4.0, stroke="", fill="wood"),
            Circle((scale.x(tongue), y), 4.5, "ink", "ink", 1.0),
            Text((width - EDGE, y), f"{words.share(chance, 0)} {'within' if bed else 'in band'}", 13, ink, "strong", "right"),
        ]
        y -= ROW
    y -= 2
    if y > EDGE + 10:
        for kg in ticks(min(known), max(known), 4, unit_kg(words)):
            at = scale.x(kg)
            shapes += [line((at, y + 16), (at, y + 12), "pencil"), Text((at, y + 3), words.kg(kg), 11, "pencil")]
    return tuple(shapes)


def owner_bars(found: tuple[Owner, ...], sigma_kg: float, words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """Who owns the doubt: a bar of the share each, and what would be left once it is weighed."""
    left, right = EDGE + NAME, width - EDGE - 330
    shapes: list[Primitive] = []
    y = height - EDGE - 32
    most = max((each_owner.share for each_owner in found), default=1.0)
    for owner in found:
        if y < EDGE:
            break
        long = max((right - left) * owner.share / most, 1.0)
        how = "weighed" if owner.left_weighed_kg - owner.left_kg < 0.05 * sigma_kg else "weighed, its balance point found"
        says = f"{how}: {words.fine_kg(sigma_kg)} to {words.fine_kg(owner.left_kg)}"
        shapes += [
            named(EDGE, y, owner.name, NAME - 8, id=owner.id),
            bar(left, y, long, "chalk", id=owner.id),
            Text((left + long + 6, y), words.share(owner.share, 0), 13, "ink", "strong", "left"),
            Text((width - EDGE, y), says, 13, "pencil", "text", "right"),
        ]
        y -= ROW
    return tuple(shapes)


def bed_bars(s: Studied, words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """Front and rear axle of a bed's vehicle in every case against their ratings and the front's least."""
    bed, b = s.build.rig.bed, s.readings
    if b.axle_kg.shape[1] != 2:
        return ()
    ratings = (bed.front_rating.si if bed.front_rating else None, bed.rear_rating.si if bed.rear_rating else None)
    most = max([float(b.axle_kg.max()), *(r for r in ratings if r)]) * 1.08
    half = (width - 2 * EDGE - NAME - 30) / 2
    shapes: list[Primitive] = []
    starts = (EDGE + NAME, EDGE + NAME + half + 30)
    for at, name in enumerate(("front axle", "rear axle")):
        rating = ratings[at]
        says = name + (f", rated {words.kg(rating)}" if rating else ", no rating yet")
        shapes.append(Text((starts[at], height - EDGE - 24), says, 13, "ink", "strong", "left"))
    y = height - EDGE - 50
    for row, case in enumerate(s.table.cases):
        if y < EDGE:
            break
        shapes.append(named(EDGE, y, case.name, NAME - 8))
        for at in (0, 1):
            kg, rating = float(b.axle_kg[row, at]), ratings[at]
            if not math.isfinite(kg):
                continue
            over = rating is not None and kg > rating
            scale = Scale(starts[at], starts[at] + half - 86, most)
            shapes += [
                scale.whole(y),
                scale.bar(y, kg, "primer" if over else "spruce"),
                Text((starts[at] + half - 4, y), words.kg(kg), 13, "primer" if over else "ink", "text", "right"),
            ]
            if rating:
                shapes.append(scale.post(y, rating))
        y -= ROW
    return tuple(shapes)


def ghost_rows(
    before: tuple[tuple[str, float], ...],
    after: dict[str, float],
    bands: dict[str, tuple[float, float]],
    words: Words,
    width: float,
    height: float,
) -> tuple[Primitive, ...]:
    """Every case before and after a move: its band, a ring where it stands and a disc where it would."""
    known = [v for _, v in before] + list(after.values()) + [v for pair in bands.values() for v in pair]
    if not known:
        return ()
    left, right = EDGE + NAME, width - EDGE - 120
    scale = _scale(known, 0.08, left, right)
    shapes: list[Primitive] = []
    y = height - EDGE - 32
    for name, kg in before:
        if y < EDGE:
            break
        then = after.get(name, kg)
        band = bands.get(name)
        good = band is None or band[0] - 0.05 <= then <= band[1] + 0.05
        shapes += [named(EDGE, y, name, NAME - 8), line((left, y), (right, y), "rule", 1.0)]
        if band:
            shapes.append(scale.span(y, band[0], band[1], half=8.0, stroke="spruce", fill="spruce wash"))
        if abs(then - kg) > 0.01:
            shapes.append(line((scale.x(kg), y), (scale.x(then), y), "chalk", 1.6))
        shapes += [
            Circle((scale.x(kg), y), 4.5, "ink", "", 1.4),
            Circle((scale.x(then), y), 4.5, "chalk", "chalk" if good else "primer", 1.0),
            Text((width - EDGE, y), f"{words.bare_kg(kg)} to {words.kg(then)}", 13, "ink" if good else "primer", "text", "right"),
        ]
        y -= ROW
    return tuple(shapes)
