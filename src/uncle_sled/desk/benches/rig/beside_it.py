"""Beside the rig: classes of registration with how far one is from each, and what other wheels would change."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import partial
from typing import Any, NamedTuple

from uncle_sled.core.document.edits import Op, add_to, fresh_id, remove
from uncle_sled.core.document.rig import Offer, Threshold
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


class _Own(NamedTuple):
    """A card of rows that the builder adds. path: of the list; fields: of one; kind: first letter of an id, first word of a name.

    adds, add_tip: the button that adds one; edit: what that is called; away_tip: of the one that takes one away.
    """

    title: str
    path: str
    fields: str
    kind: tuple[str, str]
    adds: str
    add_tip: str
    edit: str
    away_tip: str
    caution: str


def _own_card(session: Session, own: _Own, there: Callable[[], Sequence[Threshold | Offer]], told: Callable[[], str]) -> Group:
    """Args: there: the rows; told: a sentence on each."""

    def rows() -> Part[Any]:
        made: list[Row] = []
        for each in there():
            path = f"{own.path}.{each.id}"
            away = Row(path, title=f"Take {each.name} away", kind=VERB, tip=own.away_tip, ops=partial(_gone, path))
            made += [*plain(path, own.fields), away]
        return Fields("", made, "Rig", bare=True)

    def add() -> None:
        letter, word = own.kind
        record = {"id": fresh_id(letter, [each.id for each in there()]), "name": f"{word} {len(there()) + 1}"}
        session.edit(own.edit, [add_to(own.path, record)], "Rig")

    return card(
        own.title,
        Says(told, "ink", hides=True),
        Remade(lambda: tuple(each.id for each in there()) or None, rows),
        Act(own.adds, own.add_tip, add, plain=True),
        note(own.caution),
    )


CLASSES = _Own(
    "Classes of registration",
    "rig.thresholds",
    "name gross length width height fee wanted",
    ("c", "Class"),
    adds="Add a class",
    add_tip="Up to which weight and size it goes, and what it costs, by your authority",
    edit="Add a class of registration",
    away_tip="This class is no longer held against",
    caution="Your authority's own figures; nothing here knows the law.",
)
OFFERS = _Own(
    "Buy, kit or weld",
    "rig.offers",
    "name way money hours rating papers",
    ("w", "Trailer"),
    adds="Add one",
    add_tip="A trailer that is sold, a kit, or your own steel and hours",
    edit="Add a trailer to choose from",
    away_tip="It is no choice any more",
    caution="Weld only what you know how to weld; the plate's weight and local rules decide.",
)


def classes_card(session: Session) -> Group:
    """Classes of registration: the builder's own rows, and where the rig stands by each."""

    def told() -> str:
        return "\n".join(standing_words(standing, Words(session.shown)) for standing in standings(session.studied))

    return _own_card(session, CLASSES, lambda: session.build.rig.thresholds, told)


def offers_card(session: Session) -> Group:
    """Bought, from a kit, or welded: the builder's own rows, the cheapest that carries enough first."""

    def told() -> str:
        return "\n".join(offer_words(found, Words(session.shown)) for found in offers_of(session.studied))

    return _own_card(session, OFFERS, lambda: session.build.rig.offers, told)


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
