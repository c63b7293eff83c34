"""The bars of an own frame by their sections: rails, drawbar legs, cross-members; what they weigh and where.

An A-frame: two rails behind the drawbar, two legs from the first cross-member to the ball, cross-members at a pitch between
the rails, the first and the last at the rails' ends. Brackets and weld metal as a share.
"""

from __future__ import annotations

import math

import msgspec

from uncle_sled.core.document.rig import Rig
from uncle_sled.core.sections import BarSection, sections

BRACKETS = 0.04  # of the bars: hanger brackets, gussets, weld metal
CROSS_PITCH_M = 0.6


class FrameBar(msgspec.Struct, frozen=True):
    """Bars of one kind: how many, how long one is along its middle [m], and the station of their middle [m].

    ends_deg: the saw off square at its front and rear end, signed as a stick's; set: (x, y) of both ends of every one along its middle [m].
    """

    role: str
    section: BarSection
    many: int
    length_m: float
    x_m: float
    ends_deg: tuple[float, float] = (0.0, 0.0)
    set: tuple[tuple[tuple[float, float], tuple[float, float]], ...] = ()

    @property
    def cut_m(self) -> float:
        """From longest edge to longest edge, as it is sawn [m]."""
        return self.length_m + sum(self.section.wide / 2 * math.tan(math.radians(abs(deg))) for deg in self.ends_deg)

    @property
    def mass_kg(self) -> float:
        """Of all of them together."""
        return self.many * self.length_m * self.section.kg_m


def bars_of(rig: Rig) -> tuple[FrameBar, ...]:
    """What the frame is welded of; nothing where it was bought, has no section or no size."""
    rail = sections().get(rig.rail)
    if rig.carrier != "ball" or rig.base != "own frame" or rail is None or rig.frame_length is None:
        return ()
    length = rig.frame_length.si
    nose = min(rig.drawbar_length.si if rig.drawbar_length else 0.3 * length, length)
    width = rig.frame_width.si if rig.frame_width else 1.5
    if length - nose <= 0 or width <= 2 * rail.wide:
        return ()
    cross, leg = sections().get(rig.cross, rail), sections().get(rig.drawbar, rail)
    pitch = rig.cross_pitch.si if rig.cross_pitch and rig.cross_pitch.si >= 0.1 else CROSS_PITCH_M
    many = math.ceil((length - nose) / pitch - 1e-9) + 1
    middle = width / 2 - rail.wide / 2
    rails = tuple(((nose, side * middle), (length, side * middle)) for side in (-1, 1))
    made = [FrameBar("rail", rail, 2, length - nose, (nose + length) / 2, set=rails)]
    if nose > 0:
        # the rear end lies against the first cross-member, the front ends against each other along the frame's middle
        lean = math.degrees(math.atan2(width / 2, nose))
        legs = tuple(((0.0, 0.0), (nose, side * width / 2)) for side in (-1, 1))
        made.append(FrameBar("drawbar leg", leg, 2, math.hypot(nose, width / 2), nose / 2, (lean - 90.0, lean), legs))
    first, last, inside = nose + cross.wide / 2, length - cross.wide / 2, width / 2 - rail.wide
    at = [first + (last - first) * k / max(many - 1, 1) for k in range(many)]
    crosses = tuple(((x, -inside), (x, inside)) for x in at)
    made.append(FrameBar("cross-member", cross, many, width - 2 * rail.wide, (nose + length) / 2, set=crosses))
    return tuple(made)


def frame_kg(rig: Rig) -> float | None:
    """Mass of the frame: as typed, else by its sections; None where neither is known. No frame weighs nothing."""
    if rig.frame_mass is not None and rig.frame_mass.si > 0:
        return rig.frame_mass.si
    bars = bars_of(rig)
    return sum(bar.mass_kg for bar in bars) * (1 + BRACKETS) if bars else None
