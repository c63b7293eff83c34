"""Beside the rig: classes of registration with how far one is from each, and what other wheels would change."""

from __future__ import annotations

from collections.abc import Hashable
from functools import partial
from typing import Any

from uncle_sled.core.document.edits import Op, add_to, fresh_id, remove
from uncle_sled.core.studies.balance.offers import offer_words, offers_of
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


def offers_card(session: Session) -> Group:
    """Bought, from a kit, or welded: the builder's own rows, the cheapest that carries enough first."""

    def told() -> str:
        return "\n".join(offer_words(found, Words(session.shown)) for found in offers_of(session.studied))

    def shape() -> Hashable | None:
        return tuple(offer.id for offer in session.build.rig.offers) or None

    def rows() -> Part[Any]:
        made: list[Row] = []
        for offer in session.build.rig.offers:
            path = f"rig.offers.{offer.id}"
            away = Row(path, title=f"Take {offer.name} away", kind=VERB, tip="It is no choice any more", ops=partial(_gone, path))
            made += [*plain(path, "name way money hours rating papers"), away]
        return Fields("", made, "Rig", bare=True)

    def add() -> None:
        taken = session.build.rig.offers
        record = {"id": fresh_id("w", [offer.id for offer in taken]), "name": f"Trailer {len(taken) + 1}"}
        session.edit("Add a trailer to choose from", [add_to("rig.offers", record)], "Rig")

    return card(
        "Buy, kit or weld",
        Says(told, "ink", hides=True),
        Remade(shape, rows),
        Act("Add one", "A trailer that is sold, a kit, or your own steel and hours", add, plain=True),
        note("Weld only what you know how to weld; the plate's weight and local rules decide."),
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
