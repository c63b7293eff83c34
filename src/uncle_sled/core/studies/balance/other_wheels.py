"""What other wheels would change: half the difference of their heights on everything that stands over the axles.

Frame, body, coupler and step rise by it; the hitch has to follow, or the frame tilts. On a vehicle its gearing and its
speedometer change by the ratio. Source: geometry. Check 0.60 to 0.65 m: 25 mm, 8.3 %.
"""

from __future__ import annotations

import math

import msgspec

from uncle_sled.core.parts.all_parts import axle_middle_m
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.balance.road_size import worst_size
from uncle_sled.core.words import Words


class OtherWheels(msgspec.Struct, frozen=True):
    """rises_m: of everything over the axles. tilt_deg: of the frame while the ball stays where it is, nose down positive.

    frame_m, floor_m, high_m: frame top, body's underside and height on the road then [m]; ball_m: where the ball would have
    to be, None where nobody said where it is; gearing: turns of the wheel for the same way, as a share of now.
    """

    now_m: float
    then_m: float
    rises_m: float
    tilt_deg: float | None
    frame_m: float | None
    floor_m: float | None
    high_m: float | None
    ball_m: float | None
    gearing: float


def other_wheels(s: Studied) -> OtherWheels | None:
    """None where no other tyre is typed, or the present one's height is not known."""
    rig = s.build.rig
    if rig.other_tyre is None or rig.tyre.diameter is None or rig.tyre.diameter.si <= 0 or rig.other_tyre.si <= 0:
        return None
    now, then = rig.tyre.diameter.si, rig.other_tyre.si
    rises = (then - now) / 2
    middle = axle_middle_m(rig)
    towed = rig.carrier == "ball"
    high = worst_size(s, "height")
    body = s.framed.body
    top = rig.frame_top if towed else rig.bed.bed_top
    return OtherWheels(
        now,
        then,
        rises,
        tilt_deg=math.degrees(math.atan2(rises, middle)) if towed and middle else None,
        frame_m=top.si + rises if top is not None else None,
        floor_m=body.under + rises if body is not None else None,
        high_m=high.value_m + rises if high is not None and high.value_m is not None else None,
        ball_m=rig.ball_height.si + rises if towed and rig.ball_height is not None else None,
        gearing=now / then,
    )


def wheels_words(found: OtherWheels, words: Words) -> str:
    """What other wheels would change."""
    if abs(found.rises_m) < 5e-4:
        return "As high as those that are on: nothing changes."
    way = "rises" if found.rises_m > 0 else "sinks"
    told = [f"Everything over the axles {way} by {words.thick(abs(found.rises_m))}, half the difference"]
    places = [("frame top", found.frame_m), ("underside", found.floor_m), ("highest on the road", found.high_m)]
    told += [f"{name} {words.cut(value)}" for name, value in places if value is not None]
    says = "; ".join(told) + "."
    if found.ball_m is not None:
        says += f" To stay level the ball has to be {words.cut(found.ball_m)} high."
    if found.tilt_deg is not None and abs(found.tilt_deg) >= 0.05:
        says += f" With the ball where it is the frame tilts by {abs(found.tilt_deg):.1f}°, nose {'down' if found.tilt_deg > 0 else 'up'}."
    if found.tilt_deg is None:
        slower = found.gearing < 1
        says += f" The vehicle is geared {abs(1 - found.gearing) * 100:.1f} % {'longer' if slower else 'shorter'}, and goes {abs(1 / found.gearing - 1) * 100:.1f} % {'faster' if slower else 'slower'} than its clock says."
    return f"{says} Room over the tyre, step and jack go by the same."
