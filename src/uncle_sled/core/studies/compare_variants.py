"""How do the variants of a project stand beside each other? Each is studied whole, in its own worst case."""

from __future__ import annotations

import msgspec
import numpy as np

from uncle_sled.core.document.project import Project
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.from_shell import face_sums
from uncle_sled.core.reading.studied import Studied, study
from uncle_sled.core.studies.shell.compare_ways import worst_row
from uncle_sled.core.studies.shell.shell_measures import measures


class Standing(msgspec.Struct, frozen=True):
    """One variant: masses [kg], worst ball [kg] and share with its case, room [m], R over the layered faces [m2K/W], money, hours."""

    id: str
    name: str
    parent: str | None
    form: str
    school: str
    body_kg: float
    total_kg: float | None
    worst_case: str
    worst_ball_kg: float | None
    worst_share: float | None
    least_chance: float | None
    sticks: int
    inside_length_m: float | None
    inside_width_m: float | None
    r_m2k_w: float | None
    money: float
    hours: float
    same: tuple[str, ...]  # stops that are the same object as in the first


def compare_variants(project: Project) -> tuple[Standing, ...]:
    """Every variant in the order of the file."""
    first = project.variants[0]
    made = []
    for build in project.variants:
        s = study(build, project.facts)
        same = tuple(
            name.capitalize()
            for name in ("brief", "rig", "shell", "stow")
            if getattr(build, name) is getattr(first, name) or getattr(build, name) == getattr(first, name)
        )
        made.append(_standing(s, same))
    return tuple(made)


def _standing(s: Studied, same: tuple[str, ...]) -> Standing:
    build, b, row = s.build, s.readings, worst_row(s)
    chances = [float(b.chance[r]) for r in s.towing_rows if not np.isnan(b.chance[r])] if len(b.chance) else []
    heaviest = max((float(b.total_kg[r]) for r in s.towing_rows), default=None)
    m = measures(s)
    area = loss = money = hours = 0.0
    library = library_of(s.facts.materials)
    for face in build.shell.faces if s.framed.body is not None else ():
        sums = face_sums(face, build.shell, s.framed, library)
        if sums.build is not None:
            area += sums.area_m2
            loss += sums.area_m2 * sums.build.u_w_m2k
            money += sums.area_m2 * sums.build.money_m2
            hours += sums.area_m2 * sums.build.hours_m2
    return Standing(
        build.id,
        build.name,
        build.parent,
        build.shell.form,
        build.shell.framing.school,
        sum(p.mass_kg for p in s.parts if p.made_by.startswith("shell.")),
        heaviest,
        "" if row is None else s.table.cases[row].name,
        None if row is None else float(b.tongue_kg[row]),
        None if row is None else float(b.share[row]),
        min(chances, default=None),
        len(s.framed.members),
        m.inside_length_m if m else None,
        m.inside_width_m if m else None,
        area / loss if loss > 0 else None,
        money,
        hours,
        same,
    )
