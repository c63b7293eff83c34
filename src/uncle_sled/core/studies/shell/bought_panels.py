"""Bought sandwich panels: each with its size outside and inside, the saw's tilt at every edge, and what joins it to the next.

At a slanted corner both edges are sawn to half the turn, so the inside is shorter by t tan(turn / 2) at each; at a square one
the panel that stands between the others is cut narrower by their thickness: roof over walls, sides over ends, all on the floor.
Source: shell notes, bevels. Check 250/250, t 30: 353.6 outside, 328.7 inside, 22.5 deg; 250/180: 308.1, 283.0, 17.88 and 27.12.
"""

from __future__ import annotations

import math
from typing import NamedTuple

import msgspec
from shapely import box
from shapely.geometry import Polygon

from uncle_sled.core.document.edits import Op, set_to
from uncle_sled.core.document.shell import Face, Shell
from uncle_sled.core.errors import GeometryError
from uncle_sled.core.framing.frame_body import Framed, face_of
from uncle_sled.core.framing.school import Sizes
from uncle_sled.core.geometry.body_joints import Joint
from uncle_sled.core.geometry.surfaces import Surface
from uncle_sled.core.materials import materials
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.from_shell import face_sums
from uncle_sled.core.parts.panel_glue import glue_kg_m2, glued_up
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.shell.seams import joints, joints_kept

SQUARE_DEG = (80.0, 100.0)
OVER = {"roof": 3, "left side": 2, "right side": 2, "front": 1, "rear": 1, "floor": 4}
RIVET_PITCH_M, LAP_M, BOND_PA = 0.15, 0.030, 0.15e6  # of a bead adhesive in shear, a tenth of its sheet's figure


class PanelEdge(msgspec.Struct, frozen=True):
    """One edge. tilt_deg: of the saw, 0 square; narrower_m: by how much it is cut back for the panel that runs over it."""

    other: str
    length_m: float
    turn_deg: float
    tilt_deg: float
    narrower_m: float


class PanelCut(msgspec.Struct, frozen=True):
    """One panel as it is cut: outside and inside sizes along and across [m], edges, mass; fault: why it cannot be."""

    id: str
    kind: str
    thick_m: float
    outside_m: tuple[float, float]
    inside_m: tuple[float, float]
    edges: tuple[PanelEdge, ...]
    mass_kg: float | None
    fault: str


def bevel(cx_m: float, cz_m: float, thick_m: float) -> tuple[float, float, float, float]:
    """A bevel between roof and wall by its legs: outside and inside width [m], tilt at the roof's and the wall's edge [deg].

    Raises: GeometryError: the panel is so thick that nothing is left inside.
    """
    a = math.degrees(math.atan2(cz_m, cx_m))
    outside = math.hypot(cx_m, cz_m)
    tilts = a / 2, (90.0 - a) / 2
    inside = outside - thick_m * sum(math.tan(math.radians(t)) for t in tilts)
    if inside <= 0:
        raise GeometryError(f"A bevel {{{outside * 1000:.0f} mm}} wide leaves nothing inside of a panel {{{thick_m * 1000:.0f} mm}} thick.")
    return outside, inside, tilts[0], tilts[1]


def panels(s: Studied) -> tuple[PanelCut, ...]:
    """Every face as panels, in the order of the surfaces; none without a body."""
    body = s.framed.body
    if body is None or body.width <= 0:
        return ()
    met = joints(s)
    return tuple(_panel(s, surface, met) for surface in body.surfaces)


def thick_of(shell: Shell, kind: str) -> float:
    """Thickness of a face by its layers, else of the walls [m]."""
    face = face_of(shell, kind)
    if face is not None and face.layers:
        return sum(layer.thickness.si for layer in face.layers)
    return shell.wall.si if shell.wall else 0.0


class _Edges(NamedTuple):
    """Edges of a panel; by side of its box how far it is cut back for others, and how much smaller it is inside [m]."""

    edges: tuple[PanelEdge, ...]
    back: dict[str, float]
    lost: dict[str, float]


def _edges(shell: Shell, surface: Surface, met: tuple[Joint, ...]) -> _Edges:
    thick, bounds = thick_of(shell, surface.kind), surface.polygon.bounds
    edges = []
    back, lost = dict.fromkeys(("s0", "s1", "t0", "t1"), 0.0), dict.fromkeys(("s0", "s1", "t0", "t1"), 0.0)
    for joint in met:
        if surface.id not in (joint.a, joint.b) or not joint.b:
            continue
        other, kind = (joint.b, joint.kinds[1]) if joint.a == surface.id else (joint.a, joint.kinds[0])
        square = SQUARE_DEG[0] <= joint.turn_deg <= SQUARE_DEG[1]
        tilt = 0.0 if square else joint.turn_deg / 2
        under = square and OVER.get(surface.kind, 0) < OVER.get(kind, 0)
        narrower = thick_of(shell, kind) if under else 0.0
        edges.append(PanelEdge(other, joint.length_m, joint.turn_deg, tilt, narrower))
        where = _which_edge(joint.on_a if joint.a == surface.id else joint.on_b, bounds)
        if where:
            back[where] = max(back[where], narrower)
            lost[where] = max(lost[where], narrower + (thick * math.tan(math.radians(tilt)) if not square else 0.0))
    return _Edges(tuple(edges), back, lost)


def blank_of(shell: Shell, surface: Surface, met: tuple[Joint, ...]) -> Polygon:
    """The outside of a face's panel as it is cut: less what the panels take that run over its edges; its holes are not in it."""
    left, low, right, high = surface.polygon.bounds
    back = _edges(shell, surface, met).back
    made = surface.polygon.intersection(box(left + back["s0"], low + back["t0"], right - back["s1"], high - back["t1"]))
    return made if isinstance(made, Polygon) else surface.polygon


class Blank(msgspec.Struct, frozen=True, eq=False):
    """A face's panel before its holes are cut, and how many layers it is of."""

    surface: str
    outline: Polygon
    layers: int


def blanks_glued_up(shell: Shell, framed: Framed, own: set[str]) -> tuple[Blank, ...]:
    """Every panel that is glued up by oneself; none where panels are bought. Args: own: ids of materials of one's own."""
    if not glued_up(shell) or framed.body is None or framed.body.width <= 0:
        return ()
    met = joints_kept(framed.body)
    return tuple(
        [
            Blank(surface.id, blank_of(shell, surface, met), len(face.layers))
            for face in shell.faces
            if sandwiched(face, own)
            for surface in framed.body.of(face.kind)
        ]
    )


def sandwiched(face: Face, own: set[str]) -> bool:
    """Whether a face's layers are one panel: skins with a core between them, all over, or a panel of one's own."""
    return bool(face.layers) and not _no_sandwich(face, own) and not any(layer.framing > 0 for layer in face.layers)


def _panel(s: Studied, surface: Surface, met: tuple[Joint, ...]) -> PanelCut:
    thick = thick_of(s.build.shell, surface.kind)
    edges, _, lost = _edges(s.build.shell, surface, met)
    left, low, right, high = surface.polygon.bounds
    outside = right - left, high - low
    inside = outside[0] - lost["s0"] - lost["s1"], outside[1] - lost["t0"] - lost["t1"]
    fault = ""
    if surface.curved:
        fault = "it is bent, and a sandwich does not bend"
    elif thick <= 0:
        fault = "how thick it is, is not said"
    elif min(inside) <= 0:
        fault = f"{{{thick * 1000:.0f} mm}} thick, its edges leave nothing inside"
    face = face_of(s.build.shell, surface.kind)
    mass = None
    if not fault and face is not None and s.build.shell.framing.school == "sandwich panels":
        fault = _no_sandwich(face, {material.id for material in s.facts.materials})
    if face is not None:
        sums = face_sums(face, s.build.shell, s.framed, library_of(s.facts.materials))
        if sums.build is not None:
            holes = sum(h.area for h in s.framed.holes_in(surface.id))
            mass = (surface.area_m2 - holes) * (sums.build.kg_m2 + glue_kg_m2(face, s.build.shell))
    return PanelCut(surface.id, surface.kind, thick_m=thick, outside_m=outside, inside_m=inside, edges=edges, mass_kg=mass, fault=fault)


def _no_sandwich(face: Face, own: set[str]) -> str:
    """Why the layers of a face are no sandwich; a layer of one's own may be a panel as bought, whole."""
    if not face.layers or any(layer.material in own for layer in face.layers):
        return ""
    core = [layer for layer in face.layers[1:-1] if insulates(layer.material)]
    return "" if core else "it has no core between two skins, so it is a sheet and no sandwich"


def insulates(material: str) -> bool:
    """Whether a material keeps warm; one that nobody knows does not."""
    known = materials().get(material)
    return known is not None and known.form == "fill"


def _which_edge(runs: tuple[tuple[tuple[float, float], ...], ...], bounds: tuple[float, float, float, float]) -> str:
    """Which side of its box an edge lies along."""
    points = [p for run in runs for p in run]
    if not points:
        return ""
    left, low, right, high = bounds
    gaps = {
        "s0": max(abs(p[0] - left) for p in points),
        "s1": max(abs(p[0] - right) for p in points),
        "t0": max(abs(p[1] - low) for p in points),
        "t1": max(abs(p[1] - high) for p in points),
    }
    best = min(gaps, key=lambda k: gaps[k])
    return best if gaps[best] < 0.05 else ""


class Joined(msgspec.Struct, frozen=True):
    """What holds the panels together: metres of corner profile, rivets in two rows, bond, and whether it holds the roof's uplift."""

    profile_m: float
    rivets: int
    bond_m2: float


def joined(s: Studied) -> Joined:
    """Glue and screws of all joints: metres, screws and grams."""
    long = sum(joint.length_m for joint in joints(s) if joint.b)
    return Joined(long, 2 * math.ceil(long / RIVET_PITCH_M), 2 * long * LAP_M)


def sizes_from_panel(shell: Shell, sizes: Sizes) -> tuple[Op, ...]:
    """Ops that make a box as long and wide as one panel is, its walls as high as a panel is wide: no wall and no roof has a joint.

    The body is higher than its walls by floor and roof, which run over them.
    """
    long, wide = max(sizes.sheet_length, sizes.sheet_width), min(sizes.sheet_length, sizes.sheet_width)
    high = wide + thick_of(shell, "floor") + thick_of(shell, "roof")
    return tuple(
        set_to(f"shell.{name}", {"si": round(value, 4), "typed": None})
        for name, value in (("length", long), ("width", wide), ("height", high))
    )
