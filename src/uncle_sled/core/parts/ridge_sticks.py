"""The sticks that hold a ridge or valley: a beam from end to end, ties at the plates, or collars over them.

The beam hangs under the roof's build-up; ties lie on the plates from wall to wall; a collar so high over the plates is as long
as the slopes are apart there, B (1 - y / rise) less what is cut off under the slopes. Check B 2.4, rise 0.6, y 0.3: 1.2 m.
"""

from __future__ import annotations

import math

import msgspec

from uncle_sled.core.document.shell import Section, Shell
from uncle_sled.core.framing.frame_body import face_of
from uncle_sled.core.geometry.surfaces import Body, section_points

PITCHED = ("gable", "butterfly")
TIE_PITCH_M = 1.2  # where nobody said: every second or third pair of rafters
LONGEST_COLLAR = 0.95  # of the rise
MOST = 200


class RidgeStick(msgspec.Struct, frozen=True):
    """One of them, of softwood on edge: at its middle, along the body or across it [m]."""

    id: str
    name: str
    section_m: tuple[float, float]
    length_m: float
    at_m: tuple[float, float, float]
    lengthways: bool


def ridge_sticks(shell: Shell, body: Body) -> tuple[RidgeStick, ...]:
    """All of them; none where nobody said what holds the ridge, or of which size it is."""
    ridge = shell.ridge
    if ridge is None or shell.form not in PITCHED or body.width <= 0:
        return ()
    points = section_points(shell, body)
    (_, plate), (half, top) = points[1], points[2]
    rise, valley = top - plate, shell.form == "butterfly"
    roof = face_of(shell, "roof")
    thick_roof = sum(layer.thickness.si for layer in roof.layers) if roof is not None else 0.0
    under = thick_roof / max(math.cos(math.atan2(abs(rise), half)), 1e-6)  # straight down, of what lies on the slope
    if ridge.held_by == "beam" and _sized(ridge.beam):
        assert ridge.beam is not None
        thick, deep = ridge.beam.thick.si, ridge.beam.deep.si
        at = (body.front + body.length / 2, 0.0, body.under + top - under - deep / 2)
        return (RidgeStick("ridge-beam", "Valley beam" if valley else "Ridge beam", (thick, deep), body.length, at, lengthways=True),)
    if ridge.held_by not in ("ties", "collars") or valley or not _sized(ridge.tie):
        return ()
    assert ridge.tie is not None
    thick, deep = ridge.tie.thick.si, ridge.tie.deep.si
    wall = shell.wall.si if shell.wall else 0.0
    up = (ridge.collar_up.si if ridge.collar_up else rise / 2) if ridge.held_by == "collars" else 0.0
    up = min(max(up, 0.0), LONGEST_COLLAR * rise)
    long = body.width - 2 * wall if up <= 0 else body.width * (1 - up / rise)
    pitch = ridge.tie_pitch.si if ridge.tie_pitch else TIE_PITCH_M
    gaps = min(max(math.ceil(body.length / max(pitch, 1e-6) - 1e-6), 1), MOST)
    name = "Collar" if ridge.held_by == "collars" else "Tie"
    made = []
    for k in range(1, gaps):  # the ends are held by their walls
        at = (body.front + body.length * k / gaps, 0.0, body.under + plate + up + deep / 2)
        made.append(RidgeStick(f"{name.lower()}-{k}", f"{name} {k}", (thick, deep), long, at, lengthways=False))
    return tuple(made)


def _sized(section: Section | None) -> bool:
    return section is not None and min(section.thick.si, section.deep.si) > 0
