"""What would these faces weigh, cost and hold, made in another way, and what would the ball say?

Every way is put on a copy of the build and the whole is studied again; the build itself does not change.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping

import msgspec

from uncle_sled.core.document.assemblies import WAYS, ways_for
from uncle_sled.core.document.edits import Op, apply, set_to
from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.shell import FaceKind, Layer
from uncle_sled.core.framing.bought_shell import BOUGHT
from uncle_sled.core.framing.frame_body import SCHOOLS
from uncle_sled.core.framing.sandwich_panels import PANELS
from uncle_sled.core.geometry.bend_radius import least_radius_m
from uncle_sled.core.geometry.profile import Outline
from uncle_sled.core.geometry.tail_hatch import over_curve
from uncle_sled.core.parts.face_build import FaceBuild, library_of
from uncle_sled.core.parts.from_shell import face_sums
from uncle_sled.core.reading.studied import Studied, silhouette_of, study
from uncle_sled.core.studies.shell.bought_panels import panels
from uncle_sled.core.studies.shell.frame_hours import frame_hours
from uncle_sled.core.studies.shell.shell_measures import measures

OVER_HEAD_M = 0.05  # over the tallest who stands
AS_IT_STANDS = "As it stands"
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
    r_m2k_w: float | None  # None where a face has no layers
    money: float | None
    hours: float | None
    bends: bool  # whether every curved face of these takes its radius
    wishes: tuple[tuple[str, bool], ...]  # what the brief asks that this decides, and whether it is kept
    layers: tuple[Layer, ...] = ()


def way_ops(face_ids: tuple[str, ...], name: str, layers: tuple[Layer, ...]) -> tuple[Op, ...]:
    """Ops that make faces in a way; an empty name with no layers gives them back to their typed weights."""
    return tuple(
        op
        for id in face_ids
        for op in (set_to(f"shell.faces.{id}.made_of", name), set_to(f"shell.faces.{id}.layers", msgspec.to_builtins(layers)))
    )


def compare_ways(build: Build, facts: Facts, face_ids: tuple[str, ...]) -> tuple[Way, ...]:
    """The faces as they stand, without ops, then every way put on them, shipped and own; floors are offered floors only."""
    body = silhouette_of(build.shell)
    kinds = {face.kind for face in build.shell.faces if face.id in face_ids}
    if body is None or not kinds:
        return ()
    floors = kinds == {"floor"}
    return (_way(build, facts, face_ids, AS_IT_STANDS, None, body),) + tuple(
        _way(build, facts, face_ids, name, layers, body) for name, layers in ways_for(facts.ways, floors).items()
    )


def compare_schools(build: Build, facts: Facts) -> tuple[Way, ...]:
    """The body as it stands, then framed by each school that can make its form, and with a hatch over its tail where one can be cut in.

    Each school takes its own sizes; one of panels or without sticks takes the layers that it is built of.
    """
    body = silhouette_of(build.shell)
    every = tuple([face.id for face in build.shell.faces if face.layers])  # of a typed weight nothing can be compared
    if body is None or not every:
        return ()
    made = [_made(build, facts, every, AS_IT_STANDS, (), body)]
    for school in SCHOOLS.values():
        if build.shell.form not in school.forms or school.name in (BOUGHT.name, build.shell.framing.school):
            continue
        ops: list[Op] = [set_to("shell.framing", {"school": school.name})]
        for face in build.shell.faces if school.name in BUILT_OF else ():
            if face.id not in every:
                continue
            walls, floor = BUILT_OF[school.name]
            name = floor if face.kind == "floor" else walls
            ops += way_ops((face.id,), name, WAYS[name]) if name else ()
        made.append(_made(build, facts, every, school.name, tuple(ops), body))
    curved, _ = over_curve(build.shell)
    if curved and not _over_the_tail(build):
        made.append(_made(build, facts, every, "a hatch over the tail", curved, body))
    return tuple(made)


BUILT_OF = {
    "sandwich panels": ("bought panel", "bought floor panel"),
    "stitched ply": ("stitched ply and foam", ""),
    "foam and cloth": ("foam and cloth", ""),
}


def _over_the_tail(build: Build) -> bool:
    """Whether a hatch goes over the tail's curve already: the tail begins where it was said to, and a hatch is cut into it."""
    shell = build.shell
    return shell.tail_from is not None and any(opening.kind == "hatch" and opening.face == "rear" for opening in shell.openings)


def _way(build: Build, facts: Facts, face_ids: tuple[str, ...], name: str, layers: tuple[Layer, ...] | None, body: Outline) -> Way:
    ops = way_ops(face_ids, name, layers) if layers is not None else ()
    return msgspec.structs.replace(_made(build, facts, face_ids, name, ops, body), layers=layers or ())


def _made(build: Build, facts: Facts, face_ids: tuple[str, ...], name: str, ops: tuple[Op, ...], body: Outline) -> Way:
    s = study(apply(build, ops), facts)
    # openings and sticks of this very body are in: its framing share is that of the drawn members
    sums = {
        face.kind: face_sums(face, s.build.shell, s.framed, library_of(facts.materials))
        for face in s.build.shell.faces
        if face.id in face_ids
    }
    areas = {kind: each_sums.area_m2 for kind, each_sums in sums.items()}
    made = {kind: each_sums.build for kind, each_sums in sums.items() if each_sums.build is not None}
    area = sum(areas.values()) or 1.0
    row = worst_row(s)
    whole = len(made) == len(areas) and bool(made)  # a face without layers has no warmth that could be summed
    thick = max((m.thickness_m for m in made.values()), default=build.shell.wall.si if build.shell.wall else 0.0)
    sides = {"left side", "right side"} & set(areas)
    width = build.shell.width.si - 2 * thick if build.shell.width and sides else None
    return Way(
        name,
        ops,
        body_kg=sum(part.mass_kg for part in s.parts if part.made_by.startswith("shell.")),
        worst_case="" if row is None else s.table.cases[row].name,
        worst_ball_kg=None if row is None else float(s.readings.tongue_kg[row]),
        worst_share=None if row is None else float(s.readings.share[row]),
        inside_width_m=width,
        r_m2k_w=area / sum(areas[kind] * m.u_w_m2k for kind, m in made.items()) if whole else None,
        money=sum(areas[kind] * m.money_m2 for kind, m in made.items()) if whole else None,
        hours=sum(areas[kind] * m.hours_m2 for kind, m in made.items()) + frame_hours(s) if whole else None,
        bends=(bends := _go_round(s, body, made)),
        wishes=tuple(_wishes(s, row, bends)),
    )


def _go_round(s: Studied, body: Outline, made: Mapping[FaceKind, FaceBuild]) -> bool:
    """Whether every curved face takes its radius; a bought panel goes round none."""
    if s.build.shell.framing.school == PANELS.name and any(panel.fault for panel in panels(s)):
        return False
    return all(radius_of(body, kind) >= m.tightest_m for kind, m in made.items() if kind in CURVED)


def _wishes(s: Studied, row: int | None, bends: bool) -> Iterator[tuple[str, bool]]:
    """Band on the ball in the worst case, standing up inside, and that its sheets go round."""
    if row is not None:
        low, high = (float(kg) for kg in s.readings.band_kg[row])
        yield "in the band", low <= float(s.readings.tongue_kg[row]) <= high
    tall = max((p.height.si for p in s.facts.people if p.height), default=None)
    m = measures(s)
    if s.build.brief.stands and tall is not None and m is not None and m.inside_height_m is not None:
        yield "stands", m.inside_height_m >= tall + OVER_HEAD_M
    yield "goes round", bends


def radius_of(body: Outline, kind: str) -> float:
    """Tightest radius of a curved face's skin [m]; infinite where it is flat."""
    return least_radius_m(body.chain(kind))


def worst_row(s: Studied) -> int | None:
    """The towing case whose ball is furthest from the middle of its band."""
    if s.build.rig.carrier != "ball" or s.support is None or not s.towing_rows:
        return None
    b = s.readings
    return max(s.towing_rows, key=lambda row: abs(b.tongue_kg[row] - b.band_kg[row].mean()) / max(float(b.total_kg[row]), 1e-9))
