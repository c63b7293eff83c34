"""Every task as a step of the book: what it puts together and from where, what it takes up, what is checked, what stands there then.

Pieces come with their number and the sheet or bar that they are cut from; screws by the joint under whose heads the layer lies, all
else that is used up by the rules of consumption over the step's own pieces. Source: the take-off, the cutting plan, the tables.
"""

from __future__ import annotations

import msgspec

from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.build.brought import Brought, brought
from uncle_sled.core.studies.build.checklists import checklists
from uncle_sled.core.studies.build.pieces_brought import PieceBrought, layer_made, pieces_brought, spreads_brought
from uncle_sled.core.studies.build.schedule import Placed, Schedule
from uncle_sled.core.studies.build.standing import Standing, order_of, standing
from uncle_sled.core.studies.build.what_it_is import bringing_of
from uncle_sled.core.studies.cut.consumables import Used, bases, rules_of
from uncle_sled.core.studies.cut.cut_from_stock import BuildPlan
from uncle_sled.core.studies.cut.handed import handed
from uncle_sled.core.studies.cut.numbers import Named, numbers_of
from uncle_sled.core.studies.cut.piece import Spread
from uncle_sled.core.studies.cut.take_off import TakeOff, take_off
from uncle_sled.core.studies.shell.screws import ScrewJoint, screw_joints_of

BY_PIECES = ("ply_edge_m", "ply_m2", "stick_ends", "metal_edge_m", "glue_m2", "bead_m", "seam_m", "paint_m2", "laminate_m2", "ribbed_m2")


class FromStock(msgspec.Struct, frozen=True):
    """Where a piece is cut from. kind: sheet, bar, or "" for neither; number: its place among those of its material."""

    kind: str
    number: int
    material: str


class StepPiece(msgspec.Struct, frozen=True):
    """Pieces that are alike: their numbers, their kind, and where each is cut from."""

    named: tuple[Named, ...]
    what: str
    stock: tuple[FromStock | None, ...]


class Step(msgspec.Struct, frozen=True):
    """One task of the book. parts: what comes as it is; sets: how many pieces it sets up that were put together before.

    checks: lines of the checklist that belongs to it; after: what stands there then, None where no day is planned.
    """

    number: int
    placed: Placed
    pieces: tuple[StepPiece, ...]
    spreads: tuple[Spread, ...]
    parts: tuple[Brought, ...]
    sets: int
    screws: tuple[ScrewJoint, ...]
    used: tuple[Used, ...]
    checks: tuple[str, ...]
    after: Standing | None


def steps(s: Studied, schedule: Schedule, plan: BuildPlan | None) -> tuple[Step, ...]:
    """Every task in the order in which the calendar ends it. Args: plan: None: it is not made yet, and no sheet or bar is named."""
    build, facts = s.build, s.facts
    order = order_of(schedule)
    after = {one.task: one for one in standing(s, schedule)}
    pieces = pieces_brought(build, facts)
    spreads = spreads_brought(build, facts)
    named, stock = numbers_of(build, facts).of, stock_of(plan, build, facts) if plan is not None else {}
    screws = _screws(build, facts, s)
    used = _used(build, facts, pieces, order)
    lists = {each.name: tuple(line.says for line in each.lines) for each in checklists(build, facts)}
    cut = {brought_.piece.of for brought_ in pieces} | {"frame"}
    made = []
    for number, id in enumerate(order, 1):
        placed = schedule.of(id)
        assert placed is not None
        mine = [one for one in pieces if one.made == id]
        made.append(
            Step(
                number,
                placed,
                _alike([(named[one.piece.key], one.what) for one in mine], stock),
                spreads=tuple(one.spread for one in spreads if one.by == id),
                parts=tuple(one for one in brought(build, facts) if one.by == id and _whole(one, cut)),
                sets=sum(1 for one in pieces if one.by == id and one.made != id),
                screws=screws.get(id, ()),
                used=used.get(id, ()),
                checks=lists.get(placed.task.list, ()) if placed.task.list else (),
                after=after.get(id),
            )
        )
    return tuple(made)


WHOLE = ("axle", "opening", "wheel box", "nose box", "equipment", "water", "gas", "built in", "rails", "loft")


def _whole(one: Brought, cut: set[str]) -> bool:
    """Whether a part comes as it is: none of its pieces is in the take-off."""
    return one.what in WHOLE and one.part.id not in cut and one.mass_kg > 0


BY_NAME = ("built in", "leaf", "inner wall", "panel", "panel edge", "wiring")  # kinds whose pieces are called by their own names


def _alike(named: list[tuple[Named, str]], stock: dict[str, FromStock]) -> tuple[StepPiece, ...]:
    """Pieces by their numbers, those of one size and kind together, sorted by the first number."""
    found: dict[tuple[object, ...], list[Named]] = {}
    kinds: dict[tuple[object, ...], str] = {}
    for each, what in sorted(named, key=lambda pair: pair[0].order):
        piece = each.piece
        called = piece.name if piece.kind in ("bar", "trim") or what in BY_NAME else what
        size = (called, piece.of, piece.material, round(piece.length_m, 4), round(piece.width_m, 4), piece.outline, piece.ends_deg)
        found.setdefault(size, []).append(each)
        kinds[size] = what
    return tuple(StepPiece(tuple(same), kinds[size], tuple(stock.get(one.piece.key) for one in same)) for size, same in found.items())


def stock_of(plan: BuildPlan, build: Build, facts: Facts) -> dict[str, FromStock]:
    """By a piece's key the sheet or bar of the plan that it is cut from; nothing of what the plan does not place."""
    hand = handed(plan, build, facts)
    made: dict[str, FromStock] = {}
    for on in hand.sheets:
        for named in on.named:
            made[named.piece.key] = FromStock("sheet", on.number, on.plan.material)
    count: dict[str, int] = {}
    for bars in hand.bars:
        first = count.get(bars.plan.material, 0)
        for place in bars.named:
            for k, named in enumerate(place):
                made[named.piece.key] = FromStock("bar", first + k + 1, bars.plan.material)
        count[bars.plan.material] = first + bars.pattern.times
    return made


def _screws(build: Build, facts: Facts, s: Studied) -> dict[str, tuple[ScrewJoint, ...]]:
    """Screws through layers by the task of the layer under their heads."""
    bringing = bringing_of(build, facts)
    made: dict[str, list[ScrewJoint]] = {}
    for joint in screw_joints_of(build, facts, s.framed):
        if joint.many > 0:
            by = layer_made(build, facts, joint.face_id, joint.layer) if joint.layer else bringing.made(joint.face_id, "inner wall")
            made.setdefault(by, []).append(joint)
    return {task: tuple(joints) for task, joints in made.items()}


def _used(build: Build, facts: Facts, pieces: tuple[PieceBrought, ...], order: tuple[str, ...]) -> dict[str, tuple[Used, ...]]:
    """What each task uses up: rules with a task of their own as a whole, the others by the step's own pieces and areas."""
    whole = bases(build, facts, take_off(build, facts))
    own: dict[str, dict[str, float]] = {}
    areas = spreads_brought(build, facts)
    for task in order:
        mine = TakeOff(
            tuple(one.piece for one in pieces if one.made == task and one.piece.kind != "wire"),
            tuple(one.spread for one in areas if one.by == task),
            (),
            (),
        )
        own[task] = bases(build, facts, mine) if mine.pieces or mine.spreads else {}
    made: dict[str, list[Used]] = {}
    for rule in rules_of(build.cut):
        if rule.off:
            continue
        if rule.task:
            task = next((task for task in rule.task if task in order), "")
            if task and whole.get(rule.per, 0.0) > 1e-9:
                made.setdefault(task, []).append(Used(rule, whole[rule.per], whole[rule.per] * rule.rate))
            continue
        for task in order:
            many = own[task].get(rule.per, 0.0) if rule.per in BY_PIECES else 0.0
            if many > 1e-9:
                made.setdefault(task, []).append(Used(rule, many, many * rule.rate))
    return {task: tuple(lines) for task, lines in made.items()}
