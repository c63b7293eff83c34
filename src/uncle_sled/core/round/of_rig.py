"""What it rolls on in the round: bars of the frame by their sections, axles, wheels, coupler; a vehicle's bed and cab as blocks."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from uncle_sled.core.document.project import Build
from uncle_sled.core.geometry.cab import cab_outline
from uncle_sled.core.parts.frame_steel import bars_of
from uncle_sled.core.parts.from_rig import wheel_radius_m
from uncle_sled.core.parts.heights import ball_height_m, frame_top_m
from uncle_sled.core.parts.part import Part
from uncle_sled.core.round.mesh import Floats, Mesh, block, joined, plank, prism, wheel
from uncle_sled.core.round.round_piece import RoundPiece, Way
from uncle_sled.core.sections import KG_M3
from uncle_sled.core.studies.build.what_it_is import START, Bringing

DOWN: Way = (0.0, 0.0, -0.45)
TYRE_M, RIM, TUBE_M, RAIL_M = 0.165, 0.56, 0.06, (0.05, 0.08)
TRACK_M = 1.6  # where nobody said, and no body stands between


def of_rig(build: Build, bringing: Bringing, parts: dict[str, Part]) -> Iterator[RoundPiece]:
    """All of it; of a bought frame whose bars are not known two rails and a drawbar stand for it."""
    rig, radius = build.rig, wheel_radius_m(build.rig)
    tyre = build.rig.tyre.width.si if build.rig.tyre.width else TYRE_M
    if rig.carrier == "vehicle bed":
        yield from _vehicle(build, radius, tyre)
        return
    if rig.carrier != "ball" or (rig.frame_length is None and rig.frame_mass is None and rig.bought_total is None and not rig.axles):
        return  # nobody said anything of it yet
    top = frame_top_m(build)
    frame = bringing.by("frame", "frame") if rig.base == "own frame" else START
    bars = [(bar, k) for bar in bars_of(rig) for k in range(bar.many)]
    for bar, k in bars:
        (x0, y0), (x1, y1) = bar.set[k]
        mesh = plank((x0, y0, top), (x1, y1, top), bar.section.wide, bar.section.deep)
        share = bar.section.kg_m * bar.length_m
        yield RoundPiece(
            "frame",
            mesh,
            "frame",
            frame,
            "rig",
            key=f"frame/{bar.role}/{k + 1}",
            out=DOWN,
            mass_kg=share,
            filled=_steel(share, mesh),
            ink="zinc",
        )
    if not bars:
        yield RoundPiece("frame", _rough(build, top), "frame", frame, "rig", out=DOWN, ink="zinc")
    ball = ball_height_m(build)
    yield RoundPiece("frame", block((-0.06, -0.05, ball - 0.05), (0.14, 0.05, ball + 0.05)), "frame", frame, "rig", out=DOWN, ink="zinc")
    track = _track_m(build, tyre)
    for axle in rig.axles:
        by = bringing.by(axle.id, "axle") if rig.base == "own frame" else START
        at = axle.station.si
        tube = block((at - TUBE_M / 2, -track / 2, radius - TUBE_M / 2), (at + TUBE_M / 2, track / 2, radius + TUBE_M / 2))
        yield RoundPiece(axle.id, tube, "axle", by, "rig", out=(0.0, 0.0, -0.9), ink="zinc")
        part = parts.get(axle.id)
        for side in (-1.0, 1.0):
            middle = (at, side * track / 2, radius)
            yield RoundPiece(axle.id, wheel(middle, radius, tyre), "axle", by, "rig", out=(0.0, side * 0.3, -0.9), ink="tyre", mass_kg=None)
            hub = wheel((at, side * (track / 2 + 0.004), radius), radius * RIM, tyre)
            yield RoundPiece(
                axle.id, hub, "axle", by, "rig", out=(0.0, side * 0.3, -0.9), ink="hub", mass_kg=part.mass_kg if part and side > 0 else None
            )


def _steel(kg: float, mesh: Mesh) -> float:
    """Share of a bar that is no hollow, by its weight a metre [kg/m3]."""
    return min(kg / KG_M3["steel"] / max(mesh.volume_m3, 1e-9), 1.0)


def _track_m(build: Build, tyre_m: float) -> float:
    """Between the middles of its tyres: as typed, else beside the body or under its wheel boxes."""
    rig, shell = build.rig, build.shell
    if rig.track is not None and rig.track.si > 0:
        return rig.track.si
    if shell.wheel_boxes is not None and shell.width is not None:
        return max(shell.width.si - shell.wheel_boxes.width.si, tyre_m)
    return shell.width.si + tyre_m + 0.08 if shell.width is not None and shell.form != "none" else TRACK_M


def _rough(build: Build, top: float) -> Mesh:
    rig, shell = build.rig, build.shell
    body_end = (shell.front.si if shell.front else 0.0) + (shell.length.si if shell.length else 0.0)
    end = rig.frame_length.si if rig.frame_length else body_end
    wide = rig.frame_width.si if rig.frame_width else 0.85 * shell.width.si if shell.width else 1.4
    nose = rig.drawbar_length.si if rig.drawbar_length else (shell.front.si if shell.front else 0.3 * end)
    nose = min(max(nose, 0.1), max(end - 0.1, 0.1))
    made = []
    for side in (-1.0, 1.0):
        y = side * (wide - RAIL_M[0]) / 2
        made.append(plank((nose, y, top), (max(end, nose + 0.1), y, top), *RAIL_M))
        made.append(plank((0.08, 0.0, top), (nose, y, top), *RAIL_M))
    return joined(made)


def _vehicle(build: Build, radius: float, tyre: float) -> Iterator[RoundPiece]:
    bed = build.rig.bed
    base = bed.wheelbase.si if bed.wheelbase else 3.0
    front, top = (bed.bed_front.si if bed.bed_front else 0.8), (bed.bed_top.si if bed.bed_top else 0.95)
    end, wide = front + (bed.bed_length.si if bed.bed_length else base), (bed.bed_width.si if bed.bed_width else 1.9)

    def place(s: Floats, t: Floats, depth: float) -> Floats:
        return np.stack([s, np.full(len(s), depth), t], axis=1)

    cab = prism(cab_outline(radius, front), place, (-0.85, 0.85))
    yield RoundPiece("vehicle", cab, "start", START, "rig", ink="vehicle")
    yield RoundPiece("bed", block((front, -wide / 2, top - 0.1), (end, wide / 2, top)), "start", START, "rig", ink="zinc")
    yield RoundPiece("frame", block((-0.1, -0.4, radius * 1.1), (end, 0.4, radius * 1.1 + 0.14)), "start", START, "rig", ink="zinc")
    for at, id in ((0.0, "front-axle"), (base, "rear-axle")):
        for side in (-1.0, 1.0):
            yield RoundPiece(id, wheel((at, side * (wide / 2 - tyre / 2), radius), radius, tyre), "start", START, "rig", ink="tyre")
