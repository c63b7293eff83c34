"""A pick-up's cab seen from its left, as it is drawn: nothing is reckoned from it."""

from __future__ import annotations


def cab_outline(wheel_m: float, bed_front_m: float) -> tuple[tuple[float, float], ...]:
    """Stations and heights [m], the front axle at nought. Args: wheel_m: radius of its wheels; bed_front_m: where the bed begins."""
    return (
        (-0.85, wheel_m * 0.8),
        (-0.85, 1.05),
        (-0.45, 1.18),
        (0.05, 1.95),
        (bed_front_m - 0.1, 2.0),
        (bed_front_m - 0.1, wheel_m * 0.8),
    )
