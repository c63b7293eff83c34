"""What would these faces weigh, cost and hold, made in another way, and what would the ball say?

Every way is put on a copy of the build and the whole is studied again; the build itself does not change.
"""

from __future__ import annotations

import msgspec

from uncle_sled.core.document.assemblies import WAYS
from uncle_sled.core.document.edits import Op, apply, set_to
from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.shell import Layer
from uncle_sled.core.geometry.bends import least_radius_m
from uncle_sled.core.geometry.profile import Outline
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.from_shell import face_sums
from uncle_sled.core.reading.studied import Studied, silhouette_of, study

CURVED = ("front", "roof", "rear")


class Way(msgspec.Struct, frozen=True):
    """One way of making the chosen faces, over the whole body."""

    name: str
    ops: tuple[Op, ...]
    body_kg: float
    worst_case: str
    worst_ball_kg: float | None
    worst_share: float | None
    inside_width_m: float | None
    r_m2k_w: float
    money: float
    hours: float
    bends: bool  # whether every curved face of these takes its radius


def way_ops(face_ids: tuple[str, ...], name: str, layers: tuple[Layer, ...]) -> tuple[Op, ...]:
    """Ops that make faces in a way; an empty name with no layers gives them back to their typed weights."""
    return tuple(
        op
        for id in face_ids
        for op in (
            set_to(f"shell.faces.{id}.made_of", name),
            set_to(f"shell.faces.{id}.layers", msgspec.to_builtins(layers)),
        )
    )


def compare_ways(build: Build, facts: Facts, face_ids: tuple[str, ...]) -> tuple[Way, ...]:
    """Every shipped way put on the faces, in the order of the shelf; floors are offered floors only."""
    body = silhouette_of(build.shell)
    kinds = {face.kind for face in build.shell.faces if face.id in face_ids}
    if body is None or not kinds:
        return ()
    floors = kinds == {"floor"}
    return tuple(
        _way(build, facts, face_ids, name, layers, body)
        for name, layers in WAYS.items()
        if name.startswith("floor") is floors or "bare" in name
    )


def _way(
    build: Build, facts: Facts, face_ids: tuple[str, ...], name: str, layers: tuple[Layer, ...], body: Outline
) -> Way:
    ops = way_ops(face_ids, name, layers)
    s = study(apply(build, ops), facts)
    # openings and sticks of this very body are in: its framing share is that of the drawn members
    sums = {
        face.kind: face_sums(face, s.build.shell, s.framed, library_of(facts.materials))
        for face in s.build.shell.faces
        if face.id in face_ids
    }
    areas = {kind: one.area_m2 for kind, one in sums.items()}
    made = {kind: one.build for kind, one in sums.items() if one.build is not None}
    area = sum(areas.values()) or 1.0
    row = worst_row(s)
    thick = max(m.thickness_m for m in made.values())
    sides = {"left side", "right side"} & set(areas)
    width = build.shell.width.si - 2 * thick if build.shell.width and sides else None
    return Way(
        name,
        ops,
        sum(part.mass_kg for part in s.parts if part.made_by.startswith("shell.")),
        "" if row is None else s.table.cases[row].name,
        None if row is None else float(s.readings.tongue_kg[row]),
        None if row is None else float(s.readings.share[row]),
        width,
        area / sum(areas[kind] * m.u_w_m2k for kind, m in made.items()),
        sum(areas[kind] * m.money_m2 for kind, m in made.items()),
        sum(areas[kind] * m.hours_m2 for kind, m in made.items()),
        all(radius_of(body, kind) >= m.tightest_m for kind, m in made.items() if kind in CURVED),
    )


def radius_of(body: Outline, kind: str) -> float:
    """Tightest radius of a curved face's skin [m]; infinite where it is flat."""
    return least_radius_m(body.chain(kind))


def worst_row(s: Studied) -> int | None:
    """The towing case whose ball is furthest from the middle of its band."""
    if s.build.rig.carrier != "ball" or s.support is None or not s.towing_rows:
        return None
    b = s.readings
    return max(
        s.towing_rows, key=lambda row: abs(b.tongue_kg[row] - b.band_kg[row].mean()) / max(float(b.total_kg[row]), 1e-9)
    )
