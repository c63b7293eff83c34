"""Beside the rig: classes of registration with how far one is from each, and what other wheels would change."""

from __future__ import annotations

from collections.abc import Hashable
from functools import partial
from typing import Any

from uncle_sled.core.document.edits import Op, add_to, fresh_id, remove
from uncle_sled.core.studies.balance.other_wheels import other_wheels, wheels_words
from uncle_sled.core.studies.balance.thresholds import standing_words, standings
from uncle_sled.core.words import Words
from uncle_sled.desk.kit.form import VERB, Row, plain
from uncle_sled.desk.kit.panel import Group, Part, card
from uncle_sled.desk.kit.parts import Act, Fields, Remade, Says, note
from uncle_sled.desk.session import Session


def _gone(path: str, _: object) -> list[Op]:
    return [remove(path)]


def classes_card(session: Session) -> Group:
    """Classes of registration: the builder's own rows, and where the rig stands by each."""

    def told() -> str:
        words = Words(session.shown)
        return "\n".join(standing_words(standing, words) for standing in standings(session.studied))

    def shape() -> Hashable | None:
        return tuple(threshold.id for threshold in session.build.rig.thresholds) or None

    def rows() -> Part[Any]:
        made: list[Row] = []
        for threshold in session.build.rig.thresholds:
            path = f"rig.thresholds.{threshold.id}"
            away = Row(
                path, title=f"Take {threshold.name} away", kind=VERB, tip="This class is no longer held against", ops=partial(_gone, path)
            )
            made += [*plain(path, "name gross length width height fee wanted"), away]
        return Fields("", made, "Rig", bare=True)

    def add() -> None:
        taken = session.build.rig.thresholds
        record = {"id": fresh_id("c", [threshold.id for threshold in taken]), "name": f"Class {len(taken) + 1}"}
        session.edit("Add a class of registration", [add_to("rig.thresholds", record)], "Rig")

    return card(
        "Classes of registration",
        Says(told, "ink", hides=True),
        Remade(shape, rows),
        Act("Add a class", "Up to which weight and size it goes, and what it costs, by your authority", add, plain=True),
        note("Your authority's own figures; nothing here knows the law."),
    )


def other_wheels_card(session: Session) -> Group:
    """Another tyre's height, and what it would change; nothing is changed by it."""

    def told() -> str:
        found = other_wheels(session.studied)
        if found is not None:
            return wheels_words(found, Words(session.shown))
        if session.build.rig.other_tyre is not None:
            return "Not reckoned: how high the present tyres are is not typed (Tyre height)."
        return ""

    return card("Other wheels", Fields("", [Row("rig.other_tyre")], "Rig", bare=True), Says(told, "ink", hides=True))
