"""The inside of a body: its silhouette less what its faces are made of."""

from __future__ import annotations

from shapely import box
from shapely.geometry import LineString, Polygon
from shapely.geometry.base import BaseGeometry

from uncle_sled.core.document.shell import Shell
from uncle_sled.core.engine import keep
from uncle_sled.core.framing.frame_body import face_of
from uncle_sled.core.geometry.surfaces import UNCUT, Body
from uncle_sled.core.parts.relining import added_m, relining_of


def thickness_m(shell: Shell, kind: str) -> float:
    """Build-up of a face [m]: its layers, or the floor as surveyed, or the wall; with what a relining put over it."""
    face = face_of(shell, kind)
    if face is not None and face.layers:
        made = sum(layer.thickness.si for layer in face.layers)
    elif kind == "floor" and shell.survey is not None and shell.survey.floor is not None:
        made = shell.survey.floor.si
    else:
        made = shell.wall.si if shell.wall else 0.0
    relining = relining_of(shell, kind)
    return max(made + added_m(relining), 0.0) if relining is not None else made


@keep("body", *UNCUT, most=8)
def inside_of(shell: Shell, body: Body) -> BaseGeometry:
    """The silhouette less roof, nose, tail and floor, as (station, height) [m]."""
    shape: BaseGeometry = Polygon(body.side.polygon).buffer(0)
    for kind in ("front", "roof", "rear"):
        chain = body.side.chain(kind)
        thick = thickness_m(shell, kind)
        if len(chain) > 1 and thick > 0:
            shape = shape.difference(LineString(chain).buffer(thick, cap_style="square", join_style="mitre"))
    left, low, right, high = Polygon(body.side.polygon).bounds
    shape = shape.intersection(box(left, low + thickness_m(shell, "floor"), right, high))
    parts = getattr(shape, "geoms", None)
    return max(parts, key=lambda g: g.area) if parts is not None and len(parts) else shape
