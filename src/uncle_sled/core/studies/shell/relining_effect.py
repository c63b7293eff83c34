"""What does stripping and relining faces do to the ball, the room, the warmth and the purse? Before and after, studied whole."""

from __future__ import annotations

from collections.abc import Iterable

import msgspec

from uncle_sled.core.document.edits import Op, add_to, apply, fresh_id, remove
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.shell import Relining, Shell
from uncle_sled.core.engine import by_value, keep
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.inside import thickness_m
from uncle_sled.core.parts.relining import Bay, Relined, relined, why_not
from uncle_sled.core.parts.wall_warmth import Warmth
from uncle_sled.core.reading.studied import Studied, study
from uncle_sled.core.studies.shell.compare_ways import worst_row
from uncle_sled.core.studies.shell.shell_measures import measures


class State(msgspec.Struct, frozen=True):
    """A build as it stands or would stand: whole and ball [kg] in its worst case, room [m], warmth of the chosen faces."""

    total_kg: float | None
    ball_kg: float | None
    share: float | None
    case: str
    inside_width_m: float | None
    inside_height_m: float | None
    warmth: Warmth | None
    money: float
    hours: float


class RelineEffect(msgspec.Struct, frozen=True):
    """The body as it is and as it would be lined: weight, room and warmth."""

    now: State
    then: State
    faces: tuple[Relined, ...]
    bays: tuple[Bay, ...]
    furring_m: float


def relining_ops(shell: Shell, drafts: Iterable[Relining]) -> list[Op]:
    """Ops that line faces; what was on record for the same face is replaced."""
    ops: list[Op] = []
    taken = [relining.id for relining in shell.relined]
    for draft in drafts:
        ops += [remove(f"shell.relined.{relining.id}") for relining in shell.relined if relining.face == draft.face]
        id = fresh_id("n", taken)
        taken.append(id)
        ops.append(add_to("shell.relined", msgspec.to_builtins(msgspec.structs.replace(draft, id=id))))
    return ops


def as_bought_ops(shell: Shell, faces: Iterable[str]) -> list[Op]:
    """Ops that take the lining of faces off the record."""
    gone = set(faces)
    return [remove(f"shell.relined.{relining.id}") for relining in shell.relined if relining.face in gone]


@keep("s", "facts", by_value("drafts"), most=2)
def relining_fault(s: Studied, facts: Facts, drafts: tuple[Relining, ...]) -> str:
    """Why faces cannot be lined so, with its figures marked; "" where they can."""
    rig = s.build.rig
    whole = rig.bought_total.si if rig.base == "as bought" and rig.bought_total else None
    after = study(apply(s.build, relining_ops(s.build.shell, drafts)), facts)
    library = library_of(facts.materials)
    every = (why_not(relining, after.build.shell, after.framed, library, whole) for relining in after.build.shell.relined)
    return next((wrong for wrong in every if wrong), "")


@keep("s", "facts", by_value("drafts"), most=2)
def relining_effect(s: Studied, facts: Facts, drafts: tuple[Relining, ...]) -> RelineEffect | None:
    """Before and after; None where none of the faces is there."""
    build = s.build
    after = study(apply(build, relining_ops(build.shell, drafts)), facts)
    library = library_of(facts.materials)
    kinds = {relining.face for relining in drafts}
    made = [
        found
        for relining in after.build.shell.relined
        if relining.face in kinds and (found := relined(relining, after.build.shell, after.framed, library)) is not None
    ]
    if not made:
        return None
    before = [relining for relining in build.shell.relined if relining.face in kinds]
    now_made = [
        found for relining in before if (found := relined(relining, build.shell, s.framed, library)) is not None
    ]  # what stands on record for them already
    bays: dict[tuple[float, float], list[Bay]] = {}
    for each_relined in made:
        for bay in each_relined.bays:
            bays.setdefault((bay.wide_m, bay.high_m), []).append(bay)
    gathered = tuple(
        Bay(wide, high, sum(b.many for b in some), sum(b.area_m2 * b.many for b in some) / sum(b.many for b in some))
        for (wide, high), some in sorted(bays.items(), key=lambda pair: (-pair[0][0] * pair[0][1], pair[0]))
    )
    return RelineEffect(
        _state(s, now_made, [relined.before for relined in made] if not now_made else [relined.after for relined in now_made], made),
        _state(after, made, [relined.after for relined in made], made),
        tuple(made),
        gathered,
        sum(sum(relined.furring_m) for relined in made),
    )


def _state(s: Studied, made: list[Relined], warm: list[Warmth], over: list[Relined]) -> State:
    row, m = worst_row(s), measures(s)
    areas = [relined.area_m2 for relined in over[: len(warm)]]
    whole = sum(areas)
    bounds = None
    if whole > 0 and warm:
        bounds = Warmth(
            whole / sum(area / warmth.upper_m2k_w for area, warmth in zip(areas, warm, strict=True)),
            whole / sum(area / warmth.lower_m2k_w for area, warmth in zip(areas, warm, strict=True)),
        )
    heaviest = max((float(s.readings.total_kg[r]) for r in s.towing_rows), default=None)
    shell = s.build.shell
    width = shell.width.si - thickness_m(shell, "left side") - thickness_m(shell, "right side") if shell.width else None
    return State(
        heaviest,
        None if row is None else float(s.readings.tongue_kg[row]),
        share=None if row is None else float(s.readings.share[row]),
        case="" if row is None else s.table.cases[row].name,
        inside_width_m=width,
        inside_height_m=m.inside_height_m if m is not None else None,
        warmth=bounds,
        money=sum(relined.money for relined in made),
        hours=sum(relined.hours for relined in made),
    )
