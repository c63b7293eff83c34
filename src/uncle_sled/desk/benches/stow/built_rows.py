"""The fields of what is made of boards: carcass, bays, holes, bed base, pull-out, winch; and of the struts of a lid."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import msgspec

from uncle_sled.core.document.edits import Op, add_to, fresh_id, remove, set_to
from uncle_sled.core.document.joinery import Bay, BedBase, BoardHole, Cabinet, Lid, PullOut, Winch
from uncle_sled.core.document.placing import state_ops
from uncle_sled.core.document.project import Build
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.document.stow import State, Thing
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.desk.kit.form import NUMBER, VERB, Row
from uncle_sled.desk.session import Session

SIDES: list[tuple[object, str]] = [(side, side) for side in ("front", "rear", "left", "right")]
TOPS: list[tuple[object, str]] = [("board", "a board"), ("worktop", "a worktop"), ("lid", "a lid"), ("none", "nothing")]  # fmt: skip
JOINTS: list[tuple[object, str]] = [("butt", "butted"), ("rebate", "let in"), ("pocket holes", "pockets")]  # fmt: skip
SLIDES: list[tuple[object, str]] = [("side", "at the sides"), ("under-mount", "underneath")]
FRONTS: list[tuple[object, str]] = [
    ("open", "open"), ("hinged left", "door, left"), ("hinged right", "door, right"), ("pair", "two doors"),
    ("sliding", "sliding doors"), ("lift-up", "flap, lifts"), ("drop-down", "flap, drops"), ("drawers", "drawers"),
]  # fmt: skip
BOARDS: list[tuple[object, str]] = [("worktop", "worktop"), ("back", "back"), ("left end", "left end"), ("right end", "right end"), ("bottom", "bottom")]  # fmt: skip
BASES: list[tuple[object, str]] = [("board", "a board"), ("slats", "slats")]
HOLDS_UP: list[tuple[object, str]] = [
    ("", "nobody said"),
    ("prop", "a prop"),
    ("pin", "a pin"),
    ("ledge", "a ledge"),
    ("chain", "a chain"),
]
SECOND: list[tuple[object, str]] = [*HOLDS_UP, ("catch", "a catch")]


def _new(value: object) -> Any:
    return msgspec.to_builtins(value)


def sheets(session: Session) -> list[tuple[object, str]]:
    return [(m.id, m.name) for m in library_of(session.project.facts.materials).values() if m.form == "sheet"]


def make_ops(thing: Thing) -> list[Op]:
    """A carcass with one open bay; its weight is that of its boards from now on."""
    seat = "seat" in thing.roles or thing.kind == "bed"
    opens = "rear" if thing.width.si >= thing.length.si else ("left" if thing.y.si > 0 else "right")
    made = Cabinet(opens=opens, top="lid" if seat else "board", bays=(Bay("b1"),))  # type: ignore[arg-type]
    return [set_to(f"stow.things.{thing.id}.cabinet", _new(made)), set_to(f"stow.things.{thing.id}.source", "computed")]


def sections_of(session: Session, thing: Thing) -> list[tuple[str, list[Row]]]:
    """Cards of rows: heading and rows, for what the thing is so far; the last offers what it is not."""
    made: list[tuple[str, list[Row]]] = []
    if thing.cabinet is not None:
        made += _cabinet(session, thing, thing.cabinet)
    if thing.base is not None:
        made.append(("Bed base", _base(session, thing)))
    if thing.pull_out is not None:
        made.append(("Pull-out", _pull_out(thing)))
    if thing.winch is not None:
        made.append(("Winch", _winch(thing)))
    return [*made, ("Make of it", _offers(session, thing))]


LONG_M, WIDE_M, BED_MINUTES = 1.95, 0.65, 4


def into_a_bed(build: Build, thing: Thing) -> list[Op]:
    """Ops that give a bench or a table a form that one sleeps on, and put it so wherever one camps."""
    long, wide = thing.length.si, thing.width.si
    if long >= wide:
        long, wide = max(long, LONG_M), max(wide, WIDE_M)
    else:
        long, wide = max(long, WIDE_M), max(wide, LONG_M)
    id = fresh_id("s", [state.id for state in thing.states])
    state = State(id, "made up as a bed", Length(long), Length(wide), thing.height, minutes=BED_MINUTES, hands=1, bed=True)  # fmt: skip
    camps = [op for mode in build.stow.modes if not mode.towing for op in state_ops(mode, thing, id)]
    return [add_to(f"stow.things.{thing.id}.states", _new(state)), *camps]


def _verb(title: str, tip: str, ops: Callable[[], list[Op]]) -> Row:
    return Row(title, "stow.things", VERB, tip, ops=lambda _: ops())


def _offers(session: Session, thing: Thing) -> list[Row]:
    path = f"stow.things.{thing.id}"
    rows = []
    if thing.cabinet is None:
        rows.append(_verb("Make it of boards", "A carcass with bays and fronts; every board goes to the saw", lambda: make_ops(thing)))  # fmt: skip
    else:
        rows.append(_verb("No longer of boards", "Its weight is what was typed", lambda: [set_to(f"{path}.cabinet", None), set_to(f"{path}.source", "estimated")]))  # fmt: skip
    if thing.kind != "bed" and not any(state.bed for state in thing.states):
        rows.append(_verb("Turns into a bed", "Another form of it, 1.95 m long and 0.65 m wide at least, where one camps", lambda: into_a_bed(session.build, thing)))  # fmt: skip
    for field, title, tip, new in (
        ("base", "a bed base", "Boards or slats on bearers, judged under people", BedBase()),
        ("pull_out", "a pull-out", "On slides: does it tip what it is in?", PullOut(Length(round(0.8 * thing.length.si, 3)))),
        ("lid", "a lid or lifting bed", "It turns up on a hinge: its struts are on Lids", Lid()),
        ("winch", "a winch", "For a bed that is lifted: ropes, crank, pins", Winch()),
    ):  # fmt: skip
        if getattr(thing, field) is None:
            rows.append(_verb(f"Give it {title}", tip, lambda field=field, new=new: [set_to(f"{path}.{field}", _new(new))]))  # type: ignore[misc]  # fmt: skip
        else:
            rows.append(_verb(f"Without {title}", "Take it off again", lambda field=field: [set_to(f"{path}.{field}", None)]))  # type: ignore[misc]  # fmt: skip
    return rows


def _cabinet(session: Session, thing: Thing, one: Cabinet) -> list[tuple[str, list[Row]]]:
    path = f"stow.things.{thing.id}.cabinet"
    woods = sheets(session)

    def has(what: str) -> Callable[[Any], bool]:
        return lambda build: (t := _thing(build, thing.id)) is not None and t.cabinet is not None and t.cabinet.top == what  # fmt: skip

    carcass = [
        Row("One stands at", f"{path}.opens", SIDES, "The side of the thing, before its turn, that its fronts are on"),
        Row("Boards", f"{path}.board", woods, "Of carcass, shelves, doors and drawers"),
        Row("Boards thick", f"{path}.thick", Length, "12 mm is usual in what is towed", 0.003, False),
        Row("Back", f"{path}.back", woods, "Its sheet"),
        Row("Back thick", f"{path}.back_thick", Length, "0: no back", 0.0, False),
        Row("Joints", f"{path}.joint", JOINTS, "Butted, let in half their thickness, or screwed through pockets"),
        Row("Top", f"{path}.top", TOPS, "A lid is for benches and beds"),
        Row("Worktop of", f"{path}.worktop", woods, "Its sheet", when=has("worktop")),
        Row("Worktop thick", f"{path}.worktop_thick", Length, "18 mm carries a sink", 0.003, False, when=has("worktop")),
        Row("Plinth high", f"{path}.plinth", Length, "Toes go under it; empty: none", 0.01, blank="none"),
        Row("Plinth back", f"{path}.plinth_back", Length, "How far behind the front", 0.0, False),
        Row("Slides", f"{path}.slide", SLIDES, "Of drawers: their boxes are narrower by 12.7 or 21 mm a side"),
    ]  # fmt: skip
    made = [("Carcass", carcass)]
    bays: list[Row] = []
    for k, bay in enumerate(one.bays, 1):
        at = f"{path}.bays.{bay.id}"
        bays += [
            Row(f"Bay {k}", f"{at}.front", FRONTS, "From the left, as one stands before it"),
            Row(
                f"Bay {k} wide",
                f"{at}.width",
                Length,
                "Clear; empty: it shares what is left",
                0.02,
                blank="what is left",
            ),
            Row(f"Bay {k} shelves", f"{at}.shelves", int, "Evenly apart"),
            Row(f"Bay {k} drawers", f"{at}.drawers", int, "One over the other", when=_drawn(thing.id, bay.id)),
        ]

    def more() -> list[Op]:
        return [add_to(f"{path}.bays", _new(Bay(fresh_id("b", [bay.id for bay in one.bays]))))]

    bays.append(_verb("One bay more", "At the right", more))
    if len(one.bays) > 1:
        bays.append(_verb("One bay less", "The last is taken out", lambda: [remove(f"{path}.bays.{one.bays[-1].id}")]))
    made.append(("Bays", bays))
    holes: list[Row] = []
    for k, hole in enumerate(one.holes, 1):
        at = f"{path}.holes.{hole.id}"
        holes += [
            Row(f"Hole {k}", f"{at}.name", str, "What goes through", empty=False),
            Row(f"Hole {k} in", f"{at}.board", BOARDS, "Which board"),
            Row(f"Hole {k} from left", f"{at}.along", Length, "From the board's left, or front, edge", 0.0, False),
            Row(f"Hole {k} up", f"{at}.up", Length, "From its low, or front, edge", 0.0, False),
            Row(f"Hole {k} wide", f"{at}.width", Length, "Across, or its diameter", 0.005, False),
            Row(f"Hole {k} high", f"{at}.height", Length, "Up, or into the depth", 0.005, False),
            Row(f"Hole {k} round", f"{at}.round", bool, "For wires and pipes"),
            _verb(f"Without hole {k}", "Take it out again", lambda id=hole.id: [remove(f"{path}.holes.{id}")]),  # type: ignore[misc]
        ]  # fmt: skip

    def hole_more() -> list[Op]:
        id = fresh_id("h", [hole.id for hole in one.holes])
        top = one.top == "worktop"
        new = BoardHole(id, "sink" if top else "wires", "worktop" if top else "back", Length(0.1), Length(0.1), Length(0.35 if top else 0.04), Length(0.30 if top else 0.04), not top)  # fmt: skip
        return [add_to(f"{path}.holes", _new(new))]

    holes.append(_verb("One hole more", "For a sink, a stove, a vent, wires", hole_more))
    made.append(("Holes", holes))
    return made


def _thing(build: Any, id: str) -> Thing | None:
    return next((t for t in build.stow.things if t.id == id), None)


def _drawn(thing: str, bay: str) -> Callable[[Any], bool]:
    def is_so(build: Any) -> bool:
        one = _thing(build, thing)
        found = one is not None and one.cabinet is not None and any(b.id == bay and b.front == "drawers" for b in one.cabinet.bays)  # fmt: skip
        return bool(found)

    return is_so


def _base(session: Session, thing: Thing) -> list[Row]:
    path = f"stow.things.{thing.id}.base"

    def slats(build: Any) -> bool:
        one = _thing(build, thing.id)
        return one is not None and one.base is not None and one.base.kind == "slats"

    return [
        Row("Lies on", f"{path}.kind", BASES, "One board, or slats"),
        Row("Of", f"{path}.material", sheets(session), "The board's sheet", when=lambda b: not slats(b)),
        Row("Thick", f"{path}.thick", Length, "Of board or slat", 0.003, False),
        Row("Slat wide", f"{path}.slat", Length, "Of one", 0.02, False, when=slats),
        Row("Gaps", f"{path}.gap", Length, "Between slats; over 60 mm each carries alone", 0.0, False, when=slats),
        Row("Neighbours share", f"{path}.tied", bool, "Tied by the mattress over them", when=slats),
        Row("Spans", f"{path}.span", Length, "From bearer to bearer", 0.05),
        Row("Bearers", f"{path}.bearers", int, "How many"),
        Row("Bearer thick", f"{path}.bearer_thick", Length, "Upright stick, seen", 0.01),
        Row("Bearer deep", f"{path}.bearer_deep", Length, "Upright stick, its height", 0.01),
        Row("Bearer spans", f"{path}.bearer_span", Length, "From support to support", 0.05),
    ]


def _pull_out(thing: Thing) -> list[Row]:
    path = f"stow.things.{thing.id}.pull_out"
    return [
        Row("Comes out", f"{path}.travel", Length, "At full travel", 0.05, False),
        Row("To the", f"{path}.side", SIDES, "Of the unturned thing"),
        Row("Pair rated", f"{path}.rated", Mass, "At full travel, by its data sheet"),
        Row("Screws apart", f"{path}.rows", Length, "Front row to rear row", 0.05, False),
        Row("Latch holds, N", f"{path}.latch_n", NUMBER, "What keeps it in on the road"),
        Row("Its cabinet is screwed down", f"{path}.screwed", bool, "To the body, not only standing"),
    ]


def _winch(thing: Thing) -> list[Row]:
    path = f"stow.things.{thing.id}.winch"
    return [
        Row("Parts of rope", f"{path}.parts", int, "That carry the load"),
        Row("Sheaves", f"{path}.sheaves", int, "A tenth of the pull is lost at each"),
        Row("Drum radius", f"{path}.drum", Length, "With the rope's layers on it", 0.005, False),
        Row("Crank", f"{path}.crank", Length, "From its middle to the hand", 0.05, False),
        Row("Gear", f"{path}.gear", NUMBER, "Turns of the crank to one of the drum"),
        Row("Rope breaks at, N", f"{path}.rope_n", NUMBER, "By its data sheet"),
        Row("A pin carries, N", f"{path}.pin_n", NUMBER, "Four hold the bed while somebody lies on it"),
        Row("Holds without a hand", f"{path}.brake", bool, "A brake, not a ratchet alone"),
        Row("When a rope gives way", f"{path}.second", HOLDS_UP, "What holds the bed up then"),
    ]


def strut_rows(path: str) -> list[Row]:
    """Fields of the struts under a path that has them."""
    at = f"{path}.strut"
    return [
        Row("Many", f"{at}.many", int, "Two share, and one holds for a moment when the other gives way"),
        Row("Force each, N", f"{at}.force_n", NUMBER, "Nearly open, at 20 °C, as printed on it"),
        Row("Long shut", f"{at}.shut", Length, "Eye to eye", 0.05, False),
        Row("Long open", f"{at}.open", Length, "Eye to eye", 0.05, False),
        Row("Stroke", f"{at}.stroke", Length, "Of its rod", 0.02, False),
        Row("On the body, out", f"{at}.body_x", Length, "From the hinge, toward the way it opens", None, False),
        Row("On the body, up", f"{at}.body_z", Length, "From the hinge; under it is less than 0", None, False),
        Row("On the leaf, out", f"{at}.lid_x", Length, "From the hinge, shut", None, False),
        Row("On the leaf, up", f"{at}.lid_z", Length, "From the hinge, shut; under it is less than 0", None, False),
        Row("Grows by", f"{at}.rise", NUMBER, "Times its force when pushed right in; 1.25 is usual"),
        Row("Rubs, N", f"{at}.friction_n", NUMBER, "Friction of one; 30 to 50"),
        Row("When one gives way", f"{at}.second", SECOND, "What holds it then"),
    ]
