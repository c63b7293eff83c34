"""What a face weighs and where, piece by piece: one answer for its sections, for the hook and for the hands.

Layers by their area less the openings, sticks by themselves, doors and windows where they hang, a typed weight over the whole face.
All of a face's surfaces together are its parts. Source: first principles; the parts (``from_shell.py``).
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import Literal

import msgspec
from shapely import prepare
from shapely.geometry.base import BaseGeometry

from uncle_sled.core.engine import keep
from uncle_sled.core.framing.bought_shell import come_in_since
from uncle_sled.core.framing.frame_body import face_of
from uncle_sled.core.geometry.surfaces import Surface
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.from_shell import face_sums, layers_kg_m2, sticks_group, sticks_part
from uncle_sled.core.reading.studied import Studied


class FaceWeight(msgspec.Struct, frozen=True, eq=False):
    """kg: of this piece; spread: kg a square metre over ``shape``, else all of it at ``shape``'s middle; shape: on the face laid flat [m].

    id: of the layer, stick or opening; part: that its doubt is of; rel: one sigma of it, as a share.
    """

    kind: Literal["layer", "stick", "opening", "typed"]
    id: str
    part: str
    kg: float
    shape: BaseGeometry
    rel: float

    def within(self, region: BaseGeometry) -> tuple[float, float, float]:
        """Mass of it in a region [kg], and its centre there [m]; a door or window is where its middle is."""
        if self.kind == "opening":
            middle = self.shape.centroid
            return (self.kg if region.covers(middle) else 0.0), float(middle.x), float(middle.y)
        part = self.shape if region.covers(self.shape) else self.shape.intersection(region)  # most lie in one section whole
        if part.is_empty or self.shape.area <= 0:
            return 0.0, 0.0, 0.0
        return self.kg * float(part.area / self.shape.area), float(part.centroid.x), float(part.centroid.y)


def weights_within(weights: Iterable[FaceWeight], region: BaseGeometry) -> list[tuple[FaceWeight, float, float, float]]:
    """Each with its mass in a region [kg] and its centre there [m]: many are asked for one region, which is prepared for that."""
    prepare(region)
    return [(one, *one.within(region)) for one in weights]


@keep("s.parts", "s.framed", "s.build.shell", "s.facts.materials", "surface", most=64)
def face_weights(s: Studied, surface: Surface) -> tuple[FaceWeight, ...]:
    """All of one surface; nothing of a face whose weight nobody knows."""
    shell, library = s.build.shell, library_of(s.facts.materials)
    face = face_of(shell, surface.kind)
    parts = {part.id: part for part in s.parts}

    def rel(id: str) -> float:
        part = parts.get(id)
        return part.sigma_kg / part.mass_kg if part is not None and part.mass_kg > 0 else 0.0

    net: BaseGeometry = surface.polygon
    for hole in s.framed.holes_in(surface.id):
        net = net.difference(hole)
    made: list[FaceWeight] = []
    whole = parts.get(face.id) if face is not None else None
    if face is not None and whole is not None and whole.mass_kg > 0:
        sums = face_sums(face, shell, s.framed, library)
        mine = whole.mass_kg * float(net.area) / sums.area_m2 if sums.area_m2 > 0 else 0.0
        if sums.build is None:
            made.append(FaceWeight("typed", face.id, face.id, mine, net, rel(face.id)))
        else:
            each = layers_kg_m2(face, sums, s.framed, library)
            for layer, kg in zip(face.layers, each, strict=True):
                made.append(FaceWeight("layer", layer.id, face.id, mine * kg / max(sum(each), 1e-12), net, rel(face.id)))
    since = {member.id for member in come_in_since(shell, s.framed.members)}
    for member in s.framed.on(surface.id):
        if member.id not in since:
            continue  # it was there when the bought shell was weighed
        part = sticks_part(sticks_group(member))
        if part in parts:  # those of a face with a typed weight are in that weight
            made.append(FaceWeight("stick", member.id, part, member.mass_kg, member.shape, rel(part)))
    for cut in s.framed.cuts:
        hung = parts.get(cut.id)
        if cut.surface == surface.id and cut.good and hung is not None and hung.mass_kg > 0:
            made.append(FaceWeight("opening", cut.id, cut.id, hung.mass_kg, cut.shape, rel(cut.id)))
    return tuple(made)
