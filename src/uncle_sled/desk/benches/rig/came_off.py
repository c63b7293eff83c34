"""What came off a trailer since it was weighed: a list to type weights and places into, and what can be added to it."""

from __future__ import annotations

from collections.abc import Callable, Hashable
from functools import partial
from typing import Any

from uncle_sled.core.document.edits import add_to, remove
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.document.taking_off import WORDS, came_off
from uncle_sled.core.units import weight
from uncle_sled.desk.kit.form import VERB, Row, plain
from uncle_sled.desk.kit.panel import Group, Part, card
from uncle_sled.desk.kit.parts import Fields, Menu, Remade, Says
from uncle_sled.desk.session import Session


def came_off_card(session: Session, when: Callable[[], bool]) -> Group:
    """The card of it."""

    def gone() -> list[Thing]:
        return [thing for thing in session.build.stow.things if thing.taken_out]

    def shape() -> Hashable | None:
        return tuple(thing.id for thing in gone()) or None

    def told() -> str:
        total = sum(thing.mass.si for thing in gone())
        if not gone():
            return "Nothing yet. What was weighed with it and is gone since counts against it, where it was."
        return f"{weight(total, session.shown)} less than it weighed; weigh each piece as it comes off."

    def take_off(kind: str) -> None:
        record = came_off(session.build, kind)
        if session.edit(f"{record['name']} came off", [add_to("stow.things", record)], "Rig", (record["id"],)):
            session.select((record["id"],))

    def rows() -> Part[Any]:
        made: list[Row] = []
        for thing in gone():
            path = f"stow.things.{thing.id}"
            back = Row(
                path,
                title=f"{thing.name} is on again",
                kind=VERB,
                tip="It counts with the trailer as it was weighed",
                ops=partial(_on_again, path),
            )
            made += [*plain(path, "name mass source x y z"), back]
        return Fields("", made, "Rig", bare=True)

    deeds = [(said, partial(take_off, kind)) for kind, said in WORDS.items()]
    return card("Came off since it was weighed", Says(told, "pencil", "small"), Remade(shape, rows), Menu("Came off…", deeds), when=when)


def _on_again(path: str, _: object) -> list[Any]:
    return [remove(path)]
