"""One part for each face of the body, at the centre that the drawing gives it."""

from __future__ import annotations

from uncle_sled.core.document.shell import Face, Shell
from uncle_sled.core.geometry.profile import Outline, outline
from uncle_sled.core.parts.face_build import face_build
from uncle_sled.core.parts.part import MEMBER_M, Part


def parts_of_shell(shell: Shell) -> tuple[Part, ...]:
    silhouette = outline(shell)
    if silhouette is None:
        return ()
    parts = []
    for face in shell.faces:
        mass, source = face_mass(face, shell, silhouette)
        if mass <= 0:
            continue
        x, y, z = centre_of(face, shell, silhouette)
        size = (
            shell.length.si if shell.length else 0.0,
            shell.width.si if shell.width else 0.0,
            shell.height.si if shell.height else 0.0,
        )
        parts.append(
            Part(
                face.id,
                face.name,
                "shell",
                f"shell.faces.{face.id}",
                source,
                mass,
                x,
                y,
                z,
                size,
                MEMBER_M,
                "shell" if source == "computed" else None,
                base=True,
            )
        )
    return tuple(parts)


def face_mass(face: Face, shell: Shell, silhouette: Outline) -> tuple[float, str]:
    """Mass of a face [kg] and where it comes from: its layers over its area, else as typed."""
    if face.layers:
        return face_build(face.layers, face.kind).kg_m2 * face_area_m2(face.kind, shell, silhouette), "computed"
    return (face.mass.si if face.mass else 0.0), face.source


def face_area_m2(kind: str, shell: Shell, silhouette: Outline) -> float:
    """Area of a face in the drawing [m2], openings not yet taken out; a bulkhead is taken as wide and three quarters as high."""
    width = shell.width.si if shell.width else 0.0
    if kind in ("left side", "right side"):
        return silhouette.area_m2
    if kind == "floor":
        return width * (shell.length.si if shell.length else 0.0)
    if kind in ("front", "rear", "roof"):
        return width * silhouette.skin_part(kind)[0]
    return width * 0.75 * (shell.height.si if shell.height else 0.0)


def centre_of(face: Face, shell: Shell, silhouette: Outline) -> tuple[float, float, float]:
    """Station, side and height of a face's centre of mass [m]."""
    x, z = silhouette.centroid
    half = (shell.width.si if shell.width else 0.0) / 2
    wall = (shell.wall.si if shell.wall else 0.0) / 2
    front = shell.front.si if shell.front else 0.0
    length = shell.length.si if shell.length else 0.0
    floor = shell.floor.si if shell.floor else 0.0
    y = 0.0
    if face.kind == "left side":
        y = -(half - wall)
    elif face.kind == "right side":
        y = half - wall
    elif face.kind == "floor":
        x, z = front + length / 2, floor + wall
    elif face.kind in ("front", "rear", "roof"):
        _, x, z = silhouette.skin_part(face.kind)
    return (face.weight_at.si if face.weight_at else x), y, z
