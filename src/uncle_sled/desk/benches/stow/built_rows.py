"""The fields of what is made of boards: carcass, bays, holes, bed base, pull-out, winch; and of the struts of a lid."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import msgspec

from uncle_sled.core.document.becoming import into_a_bed, into_boards
from uncle_sled.core.document.edits import Op, add_to, fresh_id, remove, set_to
from uncle_sled.core.document.joinery import Bay, BedBase, BoardHole, Cabinet, Lid, PullOut, Winch
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.words import Words
from uncle_sled.desk.kit.form import VERB, Row, plain
from uncle_sled.desk.session import Session

# Fields of a hole, with what their titles end on.
HOLE_FIELDS = (
    ("name", ""),
    ("board", " in"),
    ("along", " from left"),
    ("up", " up"),
    ("width", " wide"),
    ("height", " high"),
    ("round", " round"),
)


def _new(value: object) -> Any:
    return msgspec.to_builtins(value)


def sheets(session: Session) -> list[tuple[object, str]]:
    words = Words(session.shown)
    return [(m.id, words.material(m.name)) for m in library_of(session.project.facts.materials).values() if m.form == "sheet"]


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


def _verb(title: str, tip: str, ops: Callable[[], list[Op]]) -> Row:
    return Row("stow.things", title=title, kind=VERB, tip=tip, ops=lambda _: ops())


def _offers(session: Session, thing: Thing) -> list[Row]:
    path = f"stow.things.{thing.id}"
    rows = []
    if thing.cabinet is None:
        rows.append(_verb("Make it of boards", "A carcass with bays and fronts; every board goes to the saw", lambda: into_boards(thing)))
    else:
        rows.append(
            _verb(
                "No longer of boards",
                "Its weight is what was typed",
                lambda: [set_to(f"{path}.cabinet", None), set_to(f"{path}.source", "estimated")],
            )
        )
    if thing.kind != "bed" and not any(state.bed for state in thing.states):
        rows.append(
            _verb(
                "Turns into a bed",
                "Another form of it, {1.95 m} long and {0.65 m} wide at least, where one camps",
                lambda: into_a_bed(session.build, thing),
            )
        )
    for field, title, tip, new in (
        ("base", "a bed base", "Boards or slats on bearers, judged under people", BedBase()),
        ("pull_out", "a pull-out", "On slides: does it tip what it is in?", PullOut(Length(round(0.8 * thing.length.si, 3)))),
        ("lid", "a lid or lifting bed", "It turns up on a hinge: its struts are on Lids", Lid()),
        ("winch", "a winch", "For a bed that is lifted: ropes, crank, pins", Winch()),
    ):
        if getattr(thing, field) is None:
            rows.append(_verb(f"Give it {title}", tip, lambda field=field, new=new: [set_to(f"{path}.{field}", _new(new))]))  # type: ignore[misc]
        else:
            rows.append(_verb(f"Without {title}", "Take it off again", lambda field=field: [set_to(f"{path}.{field}", None)]))  # type: ignore[misc]
    return rows


def _cabinet(session: Session, thing: Thing, cabinet: Cabinet) -> list[tuple[str, list[Row]]]:
    path = f"stow.things.{thing.id}.cabinet"
    woods = sheets(session)

    def has(what: str) -> Callable[[Any], bool]:
        return lambda build: (t := _thing(build, thing.id)) is not None and t.cabinet is not None and t.cabinet.top == what

    carcass = [
        Row(f"{path}.opens"),
        Row(f"{path}.board", kind=woods),
        Row(f"{path}.thick"),
        Row(f"{path}.back", kind=woods),
        *plain(path, "back_thick joint top"),
        Row(f"{path}.worktop", kind=woods, when=has("worktop")),
        Row(f"{path}.worktop_thick", when=has("worktop")),
        *plain(path, "plinth plinth_back slide"),
    ]
    made = [("Carcass", carcass)]
    bays: list[Row] = []
    for k, bay in enumerate(cabinet.bays, 1):
        at = f"{path}.bays.{bay.id}"
        bays += [
            Row(f"{at}.front", title=f"Bay {k}"),
            Row(f"{at}.width", title=f"Bay {k} wide"),
            Row(f"{at}.shelves", title=f"Bay {k} shelves"),
            Row(f"{at}.drawers", title=f"Bay {k} drawers", when=_drawn(thing.id, bay.id)),
        ]

    def more() -> list[Op]:
        return [add_to(f"{path}.bays", _new(Bay(fresh_id("b", [bay.id for bay in cabinet.bays]))))]

    bays.append(_verb("One bay more", "At the right", more))
    if len(cabinet.bays) > 1:
        bays.append(_verb("One bay less", "The last is taken out", lambda: [remove(f"{path}.bays.{cabinet.bays[-1].id}")]))
    made.append(("Bays", bays))
    holes: list[Row] = []
    for k, hole in enumerate(cabinet.holes, 1):
        at = f"{path}.holes.{hole.id}"
        holes += [
            *(Row(f"{at}.{field}", title=f"Hole {k}{word}") for field, word in HOLE_FIELDS),
            _verb(f"Without hole {k}", "Take it out again", lambda id=hole.id: [remove(f"{path}.holes.{id}")]),  # type: ignore[misc]
        ]

    def hole_more() -> list[Op]:
        id = fresh_id("h", [hole.id for hole in cabinet.holes])
        top = cabinet.top == "worktop"
        new = BoardHole(
            id,
            "sink" if top else "wires",
            board="worktop" if top else "back",
            along=Length(0.1),
            up=Length(0.1),
            width=Length(0.35 if top else 0.04),
            height=Length(0.30 if top else 0.04),
            round=not top,
        )
        return [add_to(f"{path}.holes", _new(new))]

    holes.append(_verb("One hole more", "For a sink, a stove, a vent, wires", hole_more))
    made.append(("Holes", holes))
    return made


def _thing(build: Any, id: str) -> Thing | None:
    return next((t for t in build.stow.things if t.id == id), None)


def _drawn(thing: str, bay: str) -> Callable[[Any], bool]:
    def is_so(build: Any) -> bool:
        each_thing = _thing(build, thing)
        found = (
            each_thing is not None
            and each_thing.cabinet is not None
            and any(b.id == bay and b.front == "drawers" for b in each_thing.cabinet.bays)
        )
        return bool(found)

    return is_so


def _base(session: Session, thing: Thing) -> list[Row]:
    path = f"stow.things.{thing.id}.base"

    def slats(build: Any) -> bool:
        each_thing = _thing(build, thing.id)
        return each_thing is not None and each_thing.base is not None and each_thing.base.kind == "slats"

    return [
        Row(f"{path}.kind"),
        Row(f"{path}.material", kind=sheets(session), when=lambda b: not slats(b)),
        Row(f"{path}.thick"),
        *plain(path, "slat gap tied", when=slats),
        *plain(path, "span bearers bearer_thick bearer_deep bearer_span"),
    ]


def _pull_out(thing: Thing) -> list[Row]:
    path = f"stow.things.{thing.id}.pull_out"
    return plain(path)


def _winch(thing: Thing) -> list[Row]:
    path = f"stow.things.{thing.id}.winch"
    return plain(path)


def strut_rows(path: str) -> list[Row]:
    """Fields of the struts under a path that has them."""
    at = f"{path}.strut"
    return plain(at, "many force_n shut open stroke body_x body_z lid_x lid_z rise friction_n second")
