"""What must be true of a trailer or frame that is not there yet, by how much: measured at the dealer before anything hangs on it.

Walls and panels hang on the floor that is drawn; the real frame must agree with it. The axle's place by how far the ball may go:
the ball is M (1 - c / x) for a centre of mass c before axles at x, so that a step of the axle moves it by M c / x^2 a metre.
Source: first principles; shop rules where it says so.
"""

from __future__ import annotations

import math

import msgspec

from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.sections import sections
from uncle_sled.core.studies.build.schedule import Schedule

SQUARE_M, LEVEL_M, LENGTH_M, USUAL_M, TYRE_M = 0.003, 0.005, 0.020, 0.005, 0.025
NOT_THERE_YET = ("frame", "axle", "floor-on", "survey")  # tasks after which the real thing has been measured anyhow
BOLT_SHARE = 0.25  # of a rail's width on either side, for a bolt through its middle


class ToSurvey(msgspec.Struct, frozen=True):
    """One size: as drawn [m], by how much it may be off [m], and what gives where it is off more. within_m: None: not known."""

    name: str
    drawn_m: float
    within_m: float | None
    why: str


def to_survey(s: Studied) -> tuple[ToSurvey, ...]:
    """All of them; nothing where no body hangs on a ball's frame."""
    rig, body, shell = s.build.rig, s.framed.body, s.build.shell
    if rig.carrier != "ball" or body is None or body.width <= 0:
        return ()
    made = []
    if rig.frame_width is not None:
        rail = sections().get(rig.rail)
        within = rail.wide * BOLT_SHARE if rail is not None else USUAL_M
        made.append(ToSurvey("width over the rails", rig.frame_width.si, within, "bolts through the floor miss the rails"))
    if rig.frame_length is not None:
        made.append(ToSurvey("ball to the tail of the frame", rig.frame_length.si, LENGTH_M, "the floor's end hangs over or stands short"))
    made.append(
        ToSurvey(
            "both diagonals of the rails, alike", math.hypot(body.length, body.width), SQUARE_M, "doors bind in a box that is not square"
        )
    )
    if rig.frame_top is not None:
        made.append(ToSurvey("height of the frame's top, level", rig.frame_top.si, LEVEL_M, "the floor twists as it is bolted down"))
    if s.support is not None and len(s.support.axles_m):
        made.append(ToSurvey("ball to the middle of its axles", s.support.mean_axle_m, axle_within_m(s), "the ball leaves its band"))
    if shell.wheel_boxes is not None:
        made.append(ToSurvey("between the wheel boxes", body.width - 2 * shell.wheel_boxes.width.si, TYRE_M / 2, "a tyre rubs"))
    return tuple(made)


def still_to_survey(s: Studied, schedule: Schedule) -> tuple[ToSurvey, ...]:
    """The same while the real thing is not there yet; nothing once a task is done after which it has been measured anyhow."""
    waits = any(placed.task.id in NOT_THERE_YET and not placed.task.done for placed in schedule.placed)
    return to_survey(s) if waits else ()


def axle_within_m(s: Studied) -> float | None:
    """How far the axles may be off before the first case that is in its band leaves it [m]; None where no case is in it.

    Check 800 kg, centre 2.3 m, axle 2.5 m: 64 kg on the ball, 294 kg a metre; 10 kg to its edge: 34 mm.
    """
    if s.support is None or not len(s.support.axles_m):
        return None
    at = s.support.mean_axle_m
    found = []
    for row in s.towing_rows:
        tongue, total = float(s.readings.tongue_kg[row]), float(s.readings.total_kg[row])
        low, high = (float(v) for v in s.readings.band_kg[row])
        rate = (total - tongue) / at  # M c / x^2 with c = x (1 - T / M)
        if low <= tongue <= high and rate > 0:
            found.append(min(tongue - low, high - tongue) / rate)
    return min(found, default=None)
