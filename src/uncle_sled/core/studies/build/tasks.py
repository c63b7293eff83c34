"""The tasks of this very build: from its school, areas, sticks, curves, openings and systems, as the builder changed them.

Hours are quantities times the shipped table's hours each, curves at 1.8, first-timers at 1.6, until three tasks of a kind
are done: then the log's own ratio. Source: work notes; the table names its own.
"""

from __future__ import annotations

from functools import lru_cache

import msgspec

from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.work import TaskChange
from uncle_sled.core.engine import keep
from uncle_sled.core.framing.frame_body import Framed
from uncle_sled.core.framing.sandwich_panels import PANELS
from uncle_sled.core.framing.welded_tube import STEEL
from uncle_sled.core.parts.all_parts import framed_of
from uncle_sled.core.parts.face_build import Library, family_of, library_of
from uncle_sled.core.parts.frame_steel import frame_kg
from uncle_sled.core.parts.partitions import walls_of
from uncle_sled.core.parts.relining import Relined, relined
from uncle_sled.core.studies.build.days import parsed
from uncle_sled.core.studies.build.panel_press import panels_pressed
from uncle_sled.core.studies.cut.bought_line import prices
from uncle_sled.core.studies.cut.take_off import TakeOff, take_off
from uncle_sled.core.studies.shell.seams import fillets_of
from uncle_sled.core.studies.shell.welds import welds_of
from uncle_sled.core.tables import table
from uncle_sled.core.words import Words

CURVED = 1.8
LEARNT_FROM = 3  # tasks of a kind that are done


class Shipped(msgspec.Struct, frozen=True):
    """A line of the table. per: what its hours are each of."""

    id: str
    name: str
    kind: str
    per: str
    low: float
    likely: float
    high: float
    hands: int
    space: str
    lead: str
    needs: str
    source: str
    least_c: float | None = None
    dry: bool = False
    cure_h: float = 0.0
    floor_c: float | None = None
    after: tuple[str, ...] = ()
    least: tuple[str, ...] = ()  # what it is the least for: to roll, to sleep
    check: str = ""  # what must be true before one goes on
    list: str = ""  # the checklist that belongs to it
    on: tuple[str, ...] = ()  # tasks whose pieces it works on, where it puts none on


class Task(msgspec.Struct, frozen=True):
    """One task. low, likely, high: hours of work; after: ids that must be done; cure_h: at 20 degrees, nobody works on it.

    ready: year-month-day before which it cannot begin, and because: for want of what. fixed: it is on that day.
    quantity: what the hours are of; logged: hours written down; done: the day, or nothing.
    """

    id: str
    name: str
    kind: str
    low: float
    likely: float
    high: float
    hands: int
    space: str
    least_c: float | None
    dry: bool
    cure_h: float
    floor_c: float | None
    after: tuple[str, ...]
    ready: str
    because: str
    fixed: bool
    needs: str
    source: str
    quantity: str
    own: bool
    logged: float
    done: str
    least: tuple[str, ...] = ()  # marked as the least to roll, or to sleep in it
    check: str = ""
    list: str = ""
    on: tuple[str, ...] = ()

    @property
    def mean_h(self) -> float:
        """(a + 4 m + b) / 6."""
        return (self.low + 4 * self.likely + self.high) / 6

    @property
    def left_h(self) -> float:
        """What is still to be worked; a tenth at the least while it is not done."""
        return 0.0 if self.done else max(self.mean_h - self.logged, 0.1 * self.mean_h)


@lru_cache(maxsize=1)
def shipped_tasks() -> tuple[Shipped, ...]:
    """The shipped tasks with their hours and what these are each of."""
    return table("catalogue/tasks.csv", Shipped)


def quantities(build: Build, facts: Facts) -> dict[str, float]:
    """How much of each thing that hours are counted by there is: metres, square metres, pieces, or 1 where it is so."""
    off, framed = take_off(build, facts), framed_of(build, facts)
    swept = {surface.id for surface in framed.body.surfaces if surface.swept} if framed.body is not None else set()
    made = _of_pieces(build, off, library_of(facts.materials), swept)
    shell, rig = build.shell, build.rig
    if shell.framing.school == PANELS.name:  # edges and panels are bonded; nobody frames, skins or lines them
        made.update(dict.fromkeys(("floor_sticks", "wall_sticks", "roof_sticks", "outer_m2", "roof_m2", "liner_m2"), 0.0))
    bought = shell.framing.school == "bought shell"
    own = rig.carrier == "ball" and rig.base == "own frame" and (rig.frame_length is not None or bool(rig.axles))
    made["bought"] = float(bought)
    made["strip_m2"] = sum(lined.area_m2 for lined in _stripped(build, facts))
    made["frame"] = float(own)
    made["frame_kg"] = (frame_kg(rig) or 80.0) * own
    made["axles"] = float(len(rig.axles)) if own else 0.0
    made["braked"] = made["axles"] if rig.brakes not in ("", "none") else 0.0
    made["templates"] = float(shell.framing.school == "cut plywood sides")
    made["floor"] = float(made["floor_sticks"] > 0)
    made["walls"] = float(not bought and made["wall_sticks"] + made["side_pieces"] > 0)
    made["weld_ends"], made["weld_folds"] = _welds(framed)
    made["bond_m"] = sum(member.length_m for member in framed.members if member.role == "corner profile")
    glued = fillets_of(shell, framed)
    made["fillet_m"] = glued.length_m if glued is not None else 0.0
    made["panel_own_m2"] = sum(panel.area_m2 for panel in panels_pressed(build, facts, 20.0))
    made["inner_m2"] = _inner_m2(build, framed, library_of(facts.materials))
    made["inner_doors"] = float(sum(1 for partition in shell.partitions if partition.door not in ("none", "opening")))
    made["openings"] = float(sum(1 for opening in shell.openings if opening.kind in ("door", "hatch", "window", "vent")))
    made["leaves"] = float(sum(1 for opening in shell.openings if opening.leaf is not None))
    made["coats_m2"] = made["cloth_m2"] * build.work.glue.coats
    made["wires"] = float(len(build.systems.wires))
    made["wired"] = float(bool(build.systems.wires))
    aboard = [thing for thing in build.stow.things if not thing.cargo and not thing.taken_out]
    made["cabinets"] = float(sum(1 for thing in aboard if thing.kind in ("cabinet", "bed", "furniture")))
    made["things"] = float(sum(1 for thing in aboard if thing.kind in ("appliance", "battery", "solar", "charger", "tank")))
    held = {thing.tank.contents for thing in aboard if thing.tank is not None}
    made["water"], made["gas"] = float("fresh" in held), float("gas" in held)
    made["rolls"] = float(rig.carrier == "ball" and bool(rig.axles))
    return made


def _welds(framed: Framed) -> tuple[float, float]:
    """Ends and folds of the body's tubes."""
    found = welds_of(tuple([member for member in framed.members if member.wall_m > 0 and member.material == STEEL.id]))
    return (float(found.ends), float(found.folds)) if found is not None else (0.0, 0.0)


def _inner_m2(build: Build, framed: Framed, library: Library) -> float:
    """Of walls inside, seen from one side [m2]."""
    body = framed.body
    return float(sum(wall.outline.area for wall in walls_of(build.shell, body, library))) if body is not None else 0.0


def _stripped(build: Build, facts: Facts) -> list[Relined]:
    """Faces of a bought shell that something comes off of."""
    framed, library = framed_of(build, facts), library_of(facts.materials)
    lined = (relined(relining, build.shell, framed, library) for relining in build.shell.relined)
    return [face for face in lined if face is not None and (face.out_kg or face.out_weighed)]


def _heap(build: Build, facts: Facts) -> str:
    """What comes off, to be weighed and taken away."""
    known = [face.out_kg for face in _stripped(build, facts) if face.out_kg is not None]
    return f", a heap of {Words(build.brief.reading.shown()).kg(sum(known))}" if known else ""


def _of_pieces(build: Build, off: TakeOff, library: Library, swept: set[str]) -> dict[str, float]:
    names = (
        "floor_sticks",
        "wall_sticks",
        "roof_sticks",
        "foam_bays",
        "furring",
        "boards",
        "outer_m2",
        "liner_m2",
        "roof_m2",
        "floor_m2",
        "side_pieces",
        "trim_m",
        "paint_m2",
        "cloth_m2",
    )
    made = dict.fromkeys(names, 0.0)
    inner: dict[str, str] = {}
    outer: dict[str, str] = {}
    for piece in off.pieces:  # layers are in order from outside in
        if piece.kind == "sheet" and piece.key.count("/") == 2 and not piece.lining:
            layer = piece.key.split("/")[1]
            outer.setdefault(piece.of, layer)
            inner[piece.of] = layer
    for piece in (piece for piece in off.pieces if not piece.inner):
        curve = CURVED if piece.of in swept else 1.0
        if piece.cladding:
            made["boards"] += 1
        elif piece.lining and piece.kind == "bar":
            made["furring"] += 1
        elif piece.lining and piece.kind == "sheet":
            made["liner_m2"] += piece.area_m2 * curve
        elif piece.kind == "bar":
            part = "floor_sticks" if piece.of == "floor" else "roof_sticks" if piece.of.startswith("roof") else "wall_sticks"
            made[part] += curve
        elif piece.kind == "trim":
            made["trim_m"] += piece.length_m
        elif piece.kind == "fill":
            made["foam_bays"] += 1
        elif piece.kind == "sheet":
            layer = piece.key.split("/")[1] if piece.key.count("/") == 2 else ""
            if piece.of == "floor":
                made["floor_m2"] += piece.area_m2 if layer == inner.get(piece.of) else 0.0
            elif layer and layer == outer.get(piece.of):
                made["roof_m2" if piece.of.startswith("roof") else "outer_m2"] += piece.area_m2 * curve
            elif layer and layer == inner.get(piece.of):
                made["liner_m2"] += piece.area_m2 * curve
            if build.shell.framing.school == "cut plywood sides" and piece.of in ("left side", "right side"):
                made["side_pieces"] += 1
    for spread in off.spreads:
        family = family_of(spread.made_of, library)
        if family == "paint":
            made["paint_m2"] += spread.area_m2
        elif family == "cloth":
            made["cloth_m2"] += spread.area_m2
    return made


UNITS = {
    "one": "",
    "frame_kg": "kg of frame",
    "floor_sticks": "sticks",
    "wall_sticks": "sticks",
    "roof_sticks": "sticks",
    "outer_m2": "m²",
    "liner_m2": "m²",
    "panel_own_m2": "m² of panels",
    "fillet_m": "m of joints",
    "weld_ends": "ends",
    "weld_folds": "folds",
    "bond_m": "m of bond",
    "inner_m2": "m²",
    "inner_doors": "doors",
    "roof_m2": "m²",
    "floor_m2": "m²",
    "paint_m2": "m²",
    "cloth_m2": "m²",
    "coats_m2": "m² of coats",
    "leaves": "leaves",
    "foam_bays": "bays",
    "furring": "rows",
    "strip_m2": "m²",
    "openings": "openings",
    "wires": "wires",
    "cabinets": "pieces",
    "things": "things",
    "boards": "boards",
    "trim_m": "m",
    "axles": "axles",
    "side_pieces": "pieces",
}


@keep(most=8)
def tasks_of(build: Build, facts: Facts) -> tuple[Task, ...]:
    """Every task that this build asks for, and one's own; those left off are not among them."""
    amount = quantities(build, facts)
    changes = {change.id: change for change in build.work.changes}
    proposed = [
        each_shipped for each_shipped in shipped_tasks() if amount.get(each_shipped.per, 0.0) > 0 and not _off(changes.get(each_shipped.id))
    ]
    here = {each_shipped.id for each_shipped in proposed} | {change.id for change in build.work.changes if change.own and not change.off}
    logged: dict[str, float] = {}
    for entry in build.work.log:
        if entry.hours and entry.of:
            logged[entry.of] = logged.get(entry.of, 0.0) + entry.hours
    bare = {
        each_shipped.id: amount[each_shipped.per] * (each_shipped.low + 4 * each_shipped.likely + each_shipped.high) / 6
        for each_shipped in proposed
    }
    kinds = learnt(build, {each_shipped.id: each_shipped.kind for each_shipped in proposed}, bare, logged)
    made = []
    for shipped in proposed:
        change = changes.get(shipped.id, TaskChange(shipped.id))
        factor = kinds.get(shipped.kind, build.work.first_timer) * amount[shipped.per]
        ready, because = _ready(build, shipped.lead)
        unit = UNITS.get(shipped.per, "")
        task = Task(
            shipped.id,
            shipped.name,
            kind=shipped.kind,
            low=shipped.low * factor,
            likely=shipped.likely * factor,
            high=shipped.high * factor,
            hands=shipped.hands,
            space=shipped.space,
            least_c=shipped.least_c,
            dry=shipped.dry,
            cure_h=shipped.cure_h,
            floor_c=shipped.floor_c,
            after=_present(shipped.after, here),
            ready=ready,
            because=because,
            fixed=False,
            needs=shipped.needs,
            source=shipped.source,
            quantity=_so_many(amount[shipped.per], unit) + (_heap(build, facts) if shipped.per == "strip_m2" else ""),
            own=False,
            logged=logged.get(shipped.id, 0.0),
            done="",
            least=shipped.least,
            check=shipped.check,
            list=shipped.list,
            on=shipped.on,
        )
        made.append(_changed(task, change))
    there = {task.id for task in made}
    for own in build.work.changes:
        if own.own and not own.off and own.id not in there:  # one's own by a shipped name was said before there was such a one
            task = Task(
                own.id,
                own.name or own.id,
                kind=own.kind or "else",
                low=1.0,
                likely=2.0,
                high=4.0,
                hands=1,
                space="shop",
                least_c=None,
                dry=False,
                cure_h=0.0,
                floor_c=None,
                after=(),
                ready="",
                because="",
                fixed=False,
                needs="",
                source="own task",
                quantity="",
                own=True,
                logged=logged.get(own.id, 0.0),
                done="",
            )
            made.append(_changed(task, own))
    return tuple(made)


def _so_many(amount: float, unit: str) -> str:
    """An amount with its unit; of single things one is one."""
    one = round(amount) == 1 and " " not in unit
    return f"{amount:.0f} {unit.removesuffix('s') if one else unit}" if unit else ""


def _off(change: TaskChange | None) -> bool:
    return change is not None and change.off


def _present(after: tuple[str, ...], here: set[str]) -> tuple[str, ...]:
    """What must be done before, of what there is: of a task that is left out, what it waits for itself."""
    table = {shipped.id: shipped for shipped in shipped_tasks()}
    found: dict[str, None] = {}

    def look(id: str, seen: frozenset[str]) -> None:
        if id in here:
            found[id] = None
        elif id in table and id not in seen:
            for other in table[id].after:
                look(other, seen | {id})

    for id in after:
        look(id, frozenset())
    return tuple(found)


def _changed(task: Task, change: TaskChange) -> Task:
    said = {
        name: getattr(change, name)
        for name in ("low", "likely", "high", "hands", "space", "least_c", "cure_h", "floor_c", "after", "least")
        if getattr(change, name) is not None
    }
    if change.name:
        said["name"] = change.name
    if change.not_before and (change.fixed or change.not_before > task.ready):
        said["ready"], said["because"] = change.not_before, "its day" if change.fixed else "as you said"
    task = msgspec.structs.replace(task, **said, fixed=change.fixed and bool(change.not_before), done=change.done)
    low, likely, high = sorted((task.low, task.likely, task.high))
    return msgspec.structs.replace(task, low=low, likely=likely, high=high)


def _ready(build: Build, lead: str) -> tuple[str, str]:
    """When what a task needs is there: arrived, ordered and under way, or ordered on the first day."""
    if not lead:
        return "", ""
    from datetime import timedelta

    begin = parsed(build.work.begin)
    known = {bought.id: bought for bought in build.cut.bought}
    latest, because = None, ""
    if lead == "opening":
        ids = [
            (f"opening {opening.id}", opening.name, f"opening {opening.kind}")
            for opening in build.shell.openings
            if opening.kind in ("door", "hatch", "window", "vent")
        ]
    elif lead == "rig axle":
        ids = [(f"rig axle {axle.id}", "the axle", lead) for axle in build.rig.axles]
    else:
        ids = [(lead, lead, lead)]
    for id, name, of in ids:
        said, table = known.get(id), prices().get(of)
        if said is not None and (said.arrived or said.spent is not None):
            continue
        days = said.lead_days if said is not None and said.lead_days is not None else table.lead_days if table else 0
        since = parsed(said.ordered) if said is not None and said.ordered else begin
        if since is None or not days:
            continue
        there = since + timedelta(days=days)
        if latest is None or there > latest:
            latest, because = there, f"{name} comes" if said is not None and said.ordered else f"{name}, if ordered on the first day"
    return (latest.isoformat(), because) if latest is not None else ("", "")


def learnt(build: Build, kind_of: dict[str, str], plain_h: dict[str, float], logged: dict[str, float]) -> dict[str, float]:
    """What the log says of a kind against the table, once three of its tasks are done."""
    done = {change.id for change in build.work.changes if change.done}
    sums: dict[str, list[float]] = {}
    for id, kind in kind_of.items():
        if id in done and logged.get(id, 0.0) > 0 and plain_h.get(id, 0.0) > 0:
            took = sums.setdefault(kind, [0.0, 0.0, 0.0])
            took[0] += logged[id]
            took[1] += plain_h[id]
            took[2] += 1
    return {kind: a / b for kind, (a, b, many) in sums.items() if many >= LEARNT_FROM}
