"""Bought, from a kit, or welded: what each trailer comes to with one's own hours, and whether it carries what is drawn.

Money with hours is what is paid and the hours at the price that is typed for one (Cut, Money); where no price is typed they
stand beside it and are not added. What it carries is held against the heaviest towing case, never against what is not known.
"""

from __future__ import annotations

import msgspec

from uncle_sled.core.document.rig import Offer
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.balance.thresholds import heaviest_kg
from uncle_sled.core.words import Words


class Weighed(msgspec.Struct, frozen=True):
    """One offer. all_money: with one's hours; None where something of it is not known. left_kg: below nothing: it carries too little."""

    offer: Offer
    all_money: float | None
    left_kg: float | None


def offers_of(s: Studied) -> tuple[Weighed, ...]:
    """Every offer, the cheapest that carries enough first, those of which something is not known last."""
    price, heaviest = s.build.cut.hour_price, heaviest_kg(s)
    made = []
    for offer in s.build.rig.offers:
        hours = offer.hours or 0.0
        known = offer.money is not None and (hours <= 0 or price is not None)
        money = offer.money + hours * (price or 0.0) if known and offer.money is not None else None
        left = offer.rating.si - heaviest if offer.rating is not None and heaviest is not None else None
        made.append(Weighed(offer, money, left))
    return tuple(sorted(made, key=lambda w: ((w.left_kg or 0.0) < 0, w.all_money is None, w.all_money or 0.0)))


def offer_words(found: Weighed, words: Words) -> str:
    """One offer in a sentence: what is not known is said as well."""
    offer = found.offer
    told = []
    if offer.money is None:
        told.append("its price is not typed")
    elif offer.hours and found.all_money is None:
        told.append(f"{offer.money:,.0f} and {offer.hours:g} h of your own (what an hour costs is typed on Cut, Money)")
    elif offer.hours:
        told.append(f"{found.all_money:,.0f} with {offer.hours:g} h of your own")
    else:
        told.append(f"{offer.money:,.0f}")
    if found.left_kg is None:
        told.append("what it carries is not checked")
    elif found.left_kg < 0:
        told.append(f"CARRIES {words.kg(-found.left_kg)} TOO LITTLE for the heaviest case")
    else:
        told.append(f"carries the heaviest case, {words.kg(found.left_kg)} to spare")
    told.append({"": "papers not said", "yes": "with papers", "no": "without papers"}[offer.papers])
    return f"{offer.name or 'One without a name'}: {'; '.join(told)}."
