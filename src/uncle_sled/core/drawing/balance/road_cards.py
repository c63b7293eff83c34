"""What the road does to one load case, a small drawing each: a stop, a grade, a lean, the tail, the springs, a bend.

Each function fills a field of width by height, in points, y up, and gives () where it has nothing to draw.
"""

from __future__ import annotations

import math

import numpy as np

from uncle_sled.core.document.brief import Vehicle
from uncle_sled.core.drawing.plot import Plot, axes, kg_ticks, ticks
from uncle_sled.core.drawing.primitives import Circle, Point, Poly, Primitive, Text, line, placed, rect
from uncle_sled.core.drawing.rig.rig_views import side_body, side_wheels
from uncle_sled.core.drawing.stow.rear_view import rear_size_m, rear_view
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.reading.band import vehicles_of
from uncle_sled.core.reading.parked import PERSON_KG, jack_with_person_kg
from uncle_sled.core.reading.studied import Studied, tail_m
from uncle_sled.core.studies.balance import road_checks
from uncle_sled.core.units import FOOT_M
from uncle_sled.core.words import Words

TITLE, FOOT, LINE = 26.0, 20.0, 16.0  # room for the title, under the words, and of one line of them
LEFT, RIGHT = 56.0, 20.0
MOST_DECEL_G, MOST_GRADE = 0.6, 0.2


def _words(lines: list[tuple[str, str]], width: float) -> list[Primitive]:
    """Lines of words along the foot, the first on top: (text, ink)."""
    return [
        Text((12, FOOT - 6 + LINE * (len(lines) - 1 - at)), elided(says, 12, width - 24), 12, ink, anchor="left")
        for at, (says, ink) in enumerate(lines)
    ]


def _plot(x0: float, x1: float, ys: np.ndarray, lines: int, width: float, height: float) -> Plot:
    """A field over all the values and nothing, above so many lines of words."""
    low, high = min(float(ys.min()), 0.0), max(float(ys.max()), 1.0)
    pad = 0.08 * (high - low)
    foot = FOOT + LINE * (lines - 1) + 46
    top = max(height - TITLE - 20, foot + 30)
    return Plot(x0, x1, y0=low - (pad if low < 0 else 0), y1=high + pad, left=LEFT, low=foot, right=max(width - RIGHT, LEFT + 40), top=top)


def stop_card(s: Studied, row: int, words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """The ball over how hard it brakes, with the trailer's own brakes and without."""
    statics = road_checks.statics_of(s, row)
    if statics is None:
        return ()
    hard = np.linspace(0.0, MOST_DECEL_G, 31)
    alone, held = (np.array([statics.stopping_kg(float(d), own) for d in hard]) for own in (True, False))
    plot = _plot(0.0, MOST_DECEL_G, np.concatenate([alone, held]), 3, width, height)
    shapes = axes(
        plot,
        ticks(0, MOST_DECEL_G, 6),
        kg_ticks(plot, words, 4),
        lambda g: f"{g:g}",
        words.bare_kg,
        "braking, g",
        f"on the ball, {words.shown.mass}",
    )
    shapes += plot.curve(hard, alone, "chalk", 2.0) + plot.curve(hard, held, "ink", 1.6, (5, 3))
    at = road_checks.BRAKING_G
    shapes += [Circle(plot.at(at, statics.stopping_kg(at, own)), 4, "ink", ink, 1.0) for own, ink in ((True, "chalk"), (False, "paper"))]
    firm, other = statics.stopping_kg(at, braked=True), statics.stopping_kg(at, braked=False)
    says = f"{at:g} g: {words.bare_kg(statics.tongue_kg)} to {words.kg(firm)} on its own brakes,"
    brakes = f"Its brakes take {words.newtons(statics.brakes_n(at))}, the ball {words.newtons(statics.pushes_n(at))}."
    told = [(says, "chalk"), (brakes, "ink"), (f"{words.kg(other)} where the car stops it (dashes).", "ink")]
    return (*shapes, *_words(told, width))


def grade_card(s: Studied, row: int, words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """The ball over the grade, nose up to nose down."""
    statics = road_checks.statics_of(s, row)
    if statics is None:
        return ()
    grades = np.linspace(-MOST_GRADE, MOST_GRADE, 41)
    loads = np.array([statics.on_grade_kg(float(g)) for g in grades])
    plot = _plot(-MOST_GRADE, MOST_GRADE, loads, 2, width, height)
    shapes = axes(
        plot,
        [-0.2, -0.1, 0.0, 0.1, 0.2],
        kg_ticks(plot, words, 4),
        lambda g: words.share(g, 0),
        words.bare_kg,
        "nose up · grade · nose down",
        f"on the ball, {words.shown.mass}",
    )
    shapes += plot.curve(grades, loads, "chalk", 2.0)
    at = road_checks.GRADE
    for grade in (-at, at):
        shapes.append(Circle(plot.at(grade, statics.on_grade_kg(grade)), 4, "ink", "chalk", 1.0))
    says = [
        (f"Nose down {words.share(at, 0)}: {words.kg(statics.on_grade_kg(at))}.", "ink"),
        (f"Nose up {words.share(at, 0)}: {words.kg(statics.on_grade_kg(-at))}; {words.kg(statics.tongue_kg)} on the level.", "ink"),
    ]
    return (*shapes, *_words(says, width))


def lean_card(s: Studied, row: int, words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """From behind: the weight over the outer wheel, and the sideways push that lifts the inner one."""
    lifts = road_checks.roll_g(s, row) if s.build.rig.carrier == "ball" else None
    if lifts is None:
        return ()
    half, top = rear_size_m(s, ())
    room = height - TITLE - FOOT - 2 * LINE
    scale = max(min((width - 24) / (2 * half), room / top), 4.0)
    foot: Point = (width / 2, FOOT + LINE + 12)
    shapes = list(placed(rear_view(s, row, (), scale), scale, *foot))
    cg = s.readings.cg_m[row]
    track = s.support.track_m if s.support else None
    side = 1.0 if float(cg[1]) >= 0 else -1.0
    weight, wheel = (foot[0] + float(cg[1]) * scale, foot[1] + float(cg[2]) * scale), foot
    if track:
        wheel = (foot[0] + side * track / 2 * scale, foot[1])
    push = min(lifts, 1.2) * (weight[1] - foot[1])
    shapes += [
        line(weight, wheel, "chalk", 1.6, (5, 3)),
        line(weight, (weight[0] + side * push, weight[1]), "primer", 2.0),
        Circle((weight[0] + side * push, weight[1]), 3, "primer", "primer", 1.0),
        Text((weight[0] + side * push / 2, weight[1] + 11), f"{lifts:.2f} g", 12, "primer", "strong", ground="body"),
    ]
    ink = "primer" if lifts * road_checks.SPRUNG < road_checks.ROLL_LEAST_G * road_checks.SPRUNG else "ink"
    says = [
        (f"A wheel lifts at {lifts:.2f} g sideways at the most;", ink),
        (f"nearer {lifts * road_checks.SPRUNG:.2f} g on its springs. Weight {words.m(float(cg[2]))} up.", ink),
    ]
    return (*shapes, *_words(says, width))


def tail_card(s: Studied, row: int, words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """The jack while somebody walks to the tail, unhitched."""
    tail, axle = (tail_m(s.build), float(s.readings.effective_axle_m[row]) if len(s.readings.effective_axle_m) else math.nan)
    if tail is None or not math.isfinite(axle) or tail <= axle:
        return ()
    spots = np.linspace(axle, tail, 31)
    loads = jack_with_person_kg(s.build.rig, s.readings, row, spots)
    if loads is None or not np.isfinite(loads).all():
        return ()
    plot = _plot(axle, tail, loads, 2, width, height)
    shapes = axes(
        plot,
        ticks(axle, tail, 4, FOOT_M if words.shown.imperial else 1.0),
        kg_ticks(plot, words, 4),
        words.m,
        words.bare_kg,
        "where somebody stands",
        f"on the jack, {words.shown.mass}",
    )
    tips = float(loads.min()) < 0
    if tips:
        shapes.append(line(plot.at(axle, 0.0), plot.at(tail, 0.0), "primer", 1.2))
    shapes += plot.curve(spots, loads, "primer" if tips else "chalk", 2.0)
    shapes.append(Circle(plot.at(tail, float(loads[-1])), 4, "ink", "primer" if tips else "chalk", 1.0))
    end = f"{words.kg(PERSON_KG)} there: the jack {words.bare_kg(float(loads[0]))} to {words.kg(float(loads[-1]))}."
    says = [
        (end, "primer" if tips else "ink"),
        ("It tips: set the rear stabilisers first." if tips else "It stays down.", "primer" if tips else "ink"),
    ]
    return (*shapes, *_words(says, width))


def rides_card(s: Studied, row: int, words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """Spring under and over the axle side by side, each with its heights."""
    found = road_checks.rides(s, row)
    body = s.framed.body
    if len(found) < 2 or body is None:
        return ()
    long = body.front + body.length + 0.2
    tall = body.under + body.height + road_checks.SPRING_RAISE_M
    half = width / 2
    scale = max(min((half - 20) / long, (height - TITLE - FOOT - 6 * LINE - 8) / tall), 4.0)
    shapes: list[Primitive] = []
    over = s.build.rig.spring_side == "over"
    for at, ride in enumerate(found):
        foot = (at * half + 10 + max(half - 20 - long * scale, 0) / 2, FOOT + 6 * LINE - 6)
        raised = (ride.floor_m or body.under) - body.under
        shapes.append(line((at * half + 8, foot[1]), ((at + 1) * half - 8, foot[1]), "pencil", 1.2))
        shapes += placed(side_body(s.build), scale, foot[0], foot[1] + raised * scale)
        hitch = (foot[0], foot[1] + ride.coupler_m * scale)
        shapes += [
            line(hitch, (foot[0] + body.front * scale, foot[1] + (body.under + raised) * scale), "zinc", 2.4),
            Circle(hitch, 3, "ink", "zinc", 1.0),
        ]
        shapes += placed(side_wheels(s.build), scale, *foot)
        now = (at == 1) == over
        says = [
            f"{'Over' if at else 'Under'} the axle" + (" (as it is)" if now and s.build.rig.spring_side else ""),
            f"floor {words.m(ride.floor_m or 0.0)} up",
            f"coupler {words.m(ride.coupler_m)} up",
            f"weight {words.m(ride.cg_m)} up",
            "" if ride.departure_deg is None else f"departure {ride.departure_deg:.0f}°",
            "" if ride.roll_g is None else f"lifts at {ride.roll_g:.2f} g",
        ]
        for k, text in enumerate(says):
            face, ink = ("strong", "ink") if k == 0 else ("text", "ink")
            spot = (at * half + 12, FOOT - 6 + LINE * (5 - k))
            shapes.append(Text(spot, elided(text, 12, half - 18), 12, ink, face, "left"))  # type: ignore[arg-type]
    return tuple(shapes)


def bend_card(s: Studied, words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """From above: what stands foremost against the tail of the car that comes nearest, turned as far as it takes."""
    found = road_checks.turning(s)
    if not found:
        return ()
    worst = min(found, key=lambda turning: turning.gap_m)
    car = next(vehicle for vehicle in vehicles_of(s.build.brief, s.facts) if vehicle.id == worst.vehicle_id)
    meets = worst.gap_m < 0
    told = "it meets" if meets else f"{words.m(worst.gap_m)} to"
    says = [(f"{car.name} at {worst.at_deg:.0f}°: {told}", "primer" if meets else "ink")]
    rest = [f"{turning.name} {'meets' if turning.gap_m < 0 else words.m(turning.gap_m)}" for turning in found if turning is not worst]
    says.append((f"{worst.nose}; {', '.join(rest) if rest else 'mind an open tailgate'}.", "primer" if meets else "ink"))
    return (*_bend(s, worst, car, width, height), *_words(says, width))


def _bend(s: Studied, worst: road_checks.Turning, car: Vehicle, width: float, height: float) -> list[Primitive]:
    assert car.width and car.bumper
    wide, gap = car.width.si, car.bumper.si
    turn = math.radians(worst.at_deg)
    noses = road_checks.noses(s)
    each_nose = next(nose for nose in noses if nose.id == worst.nose_id)
    # turned to the side on which it comes nearest
    mirror = -1.0 if each_nose.y_m < 0 else 1.0

    def turned(x: float, y: float) -> Point:
        """A place of the trailer, behind the ball and to its side, seen from above: the car's front to the left."""
        return x * math.cos(turn) - mirror * y * math.sin(turn), x * math.sin(turn) + mirror * y * math.cos(turn)

    near_m = min(nose.behind_m for nose in noses)
    outlines: list[tuple[road_checks.Nose, tuple[Point, ...]]] = []
    for nose in noses:
        end = nose.behind_m + min(nose.long_m, 1.6)
        sides = (nose.y_m - nose.half_m, nose.y_m + nose.half_m)
        ring = ((nose.behind_m, sides[0]), (nose.behind_m, sides[1]), (end, sides[1]), (end, sides[0]))
        if nose.behind_m < near_m + 1.6:
            outlines.append((nose, tuple(turned(*corner) for corner in ring)))
    long = 1.2  # of the car
    xs = [-gap - long, *(x for _, ring in outlines for x, _ in ring)]
    ys = [-wide / 2, wide / 2, *(y for _, ring in outlines for _, y in ring)]
    room = (width - 24, height - TITLE - FOOT - 2 * LINE)
    scale = max(min(room[0] / (max(xs) - min(xs)), room[1] / (max(ys) - min(ys))), 4.0)
    at = (
        12 + (room[0] - scale * (max(xs) - min(xs))) / 2 - scale * min(xs),
        FOOT + LINE + 10 + (room[1] - scale * (max(ys) - min(ys))) / 2 - scale * min(ys),
    )
    drawn: list[Primitive] = [
        rect(-gap - long, -wide / 2, long, wide, stroke="vehicle", fill="vehicle", tint=0.35, width=1.2),
        line((-gap, 0.0), (0.0, 0.0), "zinc", 2.4),
    ]
    rails = next((nose for nose in noses if nose.id == "shell"), None)
    if rails is not None:
        legs = [turned(rails.behind_m, side * rails.half_m * 0.85) for side in (-1, 1)]
        drawn.append(Poly((legs[0], (0.0, 0.0), legs[1]), "zinc", "", 2.4, closed=False))
    for nose, outline in outlines:
        body = nose.id == "shell"
        drawn.append(Poly(outline, "ink", "body" if body else "outside", 1.6 if body else 1.2, tint=1.0 if body else 0.6, id=nose.id))
    drawn.append(Circle((0.0, 0.0), 0.05, "ink", "zinc", 1.2))
    x, y = turned(each_nose.behind_m, each_nose.y_m + mirror * each_nose.half_m)
    foot = (min(x, -gap), min(max(y, -wide / 2), wide / 2))
    drawn += [line((x, y), foot, "primer", 2.0), Circle((x, y), 0.035, "primer", "primer", 1.0)]
    return list(placed(drawn, scale, *at))
