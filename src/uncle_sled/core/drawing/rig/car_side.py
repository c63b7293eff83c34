"""A car from its left side, as long as its papers say."""

from __future__ import annotations

from uncle_sled.core.document.brief import Vehicle
from uncle_sled.core.drawing.primitives import Circle, Point, Poly, Primitive, line

NOSE_M, TAIL_M, HIGH_M, WHEEL_M = 0.85, 0.15, 1.45, 0.33
GUESSED_BASE_M, GUESSED_OVERHANG_M, GUESSED_BUMPER_M = 2.7, 1.1, 0.12  # drawn where nobody said


def outline_of_car(base_m: float, tail_m: float) -> tuple[Point, ...]:
    """Corners of an estate car [m]: x aft of its front axle, z above the ground; ``tail_m`` is where its tail ends."""
    return ((-NOSE_M, 0.35), (-NOSE_M + 0.1, 0.75), (-0.1, 0.90), (0.75, HIGH_M), (base_m + 0.3, HIGH_M), (tail_m, 0.95), (tail_m, 0.35))


def car_stations(car: Vehicle) -> tuple[float, float, float]:
    """Front axle, rear axle and tail from the ball [m], all negative: forward of it; guessed where nobody said."""
    rear = -(car.ball_overhang.si if car.ball_overhang else GUESSED_OVERHANG_M)
    front = rear - (car.wheelbase.si if car.wheelbase else GUESSED_BASE_M)
    return front, rear, -(car.bumper.si if car.bumper else GUESSED_BUMPER_M)


def car_side(car: Vehicle, ball_m: float) -> tuple[Primitive, ...]:
    """The car ahead of a ball at the origin, ``ball_m`` above the ground."""
    front, rear, tail = car_stations(car)
    corners = tuple((x + front, z) for x, z in outline_of_car(rear - front, tail - front))
    shapes: list[Primitive] = [
        line((front - NOSE_M - 0.2, 0.0), (0.0, 0.0), "pencil", 1.4),
        Poly(corners, "vehicle", "vehicle", 1.2, tint=0.35, id=car.id),
        line((tail, ball_m - 0.06), (0.0, ball_m - 0.06), "zinc", 2.4, id=car.id),
    ]
    for at in (front, rear):
        shapes += [
            Circle((at, WHEEL_M), WHEEL_M, "ink", "tyre", 1.0, id=car.id),
            Circle((at, WHEEL_M), WHEEL_M * 0.56, "ink", "hub", 1.0, id=car.id),
        ]
    return tuple(shapes)
