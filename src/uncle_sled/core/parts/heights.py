"""Heights that drawings and studies share, as typed or as a first guess [m above the ground]."""

from __future__ import annotations

from uncle_sled.core.document.project import Build
from uncle_sled.core.parts.from_rig import wheel_radius_m


def frame_top_m(build: Build) -> float:
    """Height of the frame's top over the ground [m]: as typed, else by its wheels."""
    wheel = wheel_radius_m(build.rig)
    if build.rig.frame_top:
        return build.rig.frame_top.si
    return build.shell.floor.si if build.shell.floor and build.shell.form != "none" else wheel + 0.15


def ball_height_m(build: Build) -> float:
    """Height of the ball over the ground [m]: as typed, else a little under the frame's top."""
    return build.rig.ball_height.si if build.rig.ball_height else max(frame_top_m(build) - 0.08, 0.2)
