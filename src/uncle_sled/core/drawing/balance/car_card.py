"""The car in front with what it carries hung under it: rows, hook and ball, and what that makes of its two axles."""

from __future__ import annotations

from uncle_sled.core.document.brief import Vehicle
from uncle_sled.core.drawing.primitives import Circle, Point, Poly, Primitive, Text, line
from uncle_sled.core.drawing.rig.car_side import HIGH_M, NOSE_M, TAIL_M, WHEEL_M, outline_of_car
from uncle_sled.core.drawing.text_width import elided, text_width
from uncle_sled.core.reading.band import vehicles_of
from uncle_sled.core.reading.limits import front_axle_of, rear_axle_of, riding_in_car, row_loads_kg
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.words import Words

TITLE, FOOT, LINE = 26.0, 20.0, 16.0
ROW_NAMES = {"front": "in front", "rear": "behind", "boot": "boot", "roof": "roof"}


def car_card(s: Studied, row: int, words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """The first car that tells its axles, its left side; bobs sized by weight hang where the rows are."""
    case = s.table.cases[row]
    riding = riding_in_car(s.build)
    for car in vehicles_of(s.build.brief, s.facts):
        tongue = s.readings.tongue_kg[row : row + 1]
        front, rear = front_axle_of(car, tongue, riding), rear_axle_of(car, tongue, riding)
        if front is None or rear is None or not case.mode.towing or tongue[0] != tongue[0]:
            continue
        return _drawn(car, float(tongue[0]), float(front[0]), float(rear[0]), riding, words, width, height)
    return ()


def _drawn(
    car: Vehicle,
    tongue_kg: float,
    front_kg: float,
    rear_kg: float,
    riding: tuple[tuple[str, float], ...],
    words: Words,
    width: float,
    height: float,
) -> tuple[Primitive, ...]:
    assert car.wheelbase and car.ball_overhang
    base, ball = car.wheelbase.si, car.wheelbase.si + car.ball_overhang.si
    long = NOSE_M + ball + TAIL_M
    ground = FOOT + 3 * LINE + 58
    scale = max(min((width - 32) / long, (height - TITLE - 10 - ground) / HIGH_M), 8.0)
    x0 = (width - long * scale) / 2 + NOSE_M * scale

    def at(x: float, z: float) -> Point:
        return x0 + x * scale, ground + z * scale

    tail = ball - (car.bumper.si if car.bumper else 0.12)
    outline = outline_of_car(base, tail)
    shapes: list[Primitive] = [
        line((8, ground), (width - 8, ground), "pencil", 1.2),
        Poly(tuple(at(*corner) for corner in outline), "vehicle", "vehicle", 1.4, tint=0.35),
        line(at(tail, 0.42), at(ball, 0.42), "zinc", 2.4),
        Circle(at(ball, 0.46), 3.5, "ink", "zinc", 1.0),
    ]
    for x in (0.0, base):
        shapes.append(Circle(at(x, WHEEL_M), WHEEL_M * scale, "ink", "tyre", 1.2))
    hung = [("ball", tongue_kg, ball), ("hook", car.hook.si if car.hook else 0.0, ball)]
    places = {str(load.id): load.at.si for load in car.loads if load.at}
    hung += [(ROW_NAMES.get(id, id), kg, places[id]) for id, kg in row_loads_kg(car, riding).items() if id in places]
    ends: list[float] = []  # right ends of the labels on each line
    for name, kg, x in sorted((one for one in hung if abs(one[1]) > 0.05), key=lambda one: one[2]):
        spot = at(x, 0.0)
        size = min(max(3.0, 1.1 * abs(kg) ** 0.5 / 2), 9.0)
        label = f"{name} {words.kg(kg)}"
        left = min(max(spot[0] - text_width(label, 11) / 2, 8.0), width - 8 - text_width(label, 11))
        level = next((k for k, end in enumerate(ends) if left > end + 6), len(ends))
        if level == len(ends):
            ends.append(0.0)
        ends[level] = left + text_width(label, 11)
        low = ground - 16 - 14 * min(level, 2)
        shapes += [
            line(spot, (spot[0], low + 6), "pencil", 0.8),
            Circle((spot[0], low + 6), size / 2, "ink", "ochre", 0.8),
            Text((left, low - 5), label, 11, "ink", anchor="left", ground="paper"),
        ]
    bare = "" if row_loads_kg(car, riding) else ", car empty"
    told = "with a driver of {75 kg} in its empty weights" if car.driver_counted else "empty weights without a driver"
    lines = [
        (f"{car.name}{bare}: {told}.", "pencil"),
        _axle("Front axle", front_kg, car.front_axle_rating.si if car.front_axle_rating else None, words),
        _axle("Rear axle", rear_kg, car.rear_axle_rating.si if car.rear_axle_rating else None, words),
    ]
    for k, (says, ink) in enumerate(lines):
        spot = (12.0, FOOT - 6 + LINE * (len(lines) - 1 - k))
        shapes.append(Text(spot, elided(says, 12, width - 24), 12, ink, anchor="left"))
    return tuple(shapes)


def _axle(name: str, kg: float, rating_kg: float | None, words: Words) -> tuple[str, str]:
    if rating_kg is None:
        return f"{name} {words.kg(kg)}; its rating is not given.", "pencil"
    over = kg > rating_kg
    return f"{name} {words.bare_kg(kg)} of {words.kg(rating_kg)}.", "primer" if over else "ink"
