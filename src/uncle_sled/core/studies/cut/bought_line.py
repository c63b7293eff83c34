"""A line of the shopping list: whole packs of what is wanted, and what is known of their money.

Whole packs after summing and after what is at hand (shop notes). Every price has a face: spent, quoted, typed, or guessed
by the shipped table; where none is known it stays unknown and is counted as such, never as nothing.
"""

from __future__ import annotations

import math
from functools import lru_cache
from typing import Literal

import msgspec
from msgspec.structs import replace

from uncle_sled.core.document.cut import Bought
from uncle_sled.core.tables import table

Sure = Literal["spent", "quoted", "typed", "guessed", "not known"]
STAGES = ("rig", "frame", "skins", "openings", "systems", "fitting out", "finish")


class Price(msgspec.Struct, frozen=True):
    """A line of the shipped table: heading, stage and shop of a kind of thing, and what one is thought to cost."""

    of: str
    heading: str
    stage: str
    shop: str
    low: float
    likely: float
    high: float
    lead_days: int
    source: str


class Line(msgspec.Struct, frozen=True):
    """One line to buy. need: in ``unit``; packs: whole ones to buy after what is at hand; low, likely, high: for all of them.

    each: likely price of one pack; None where nobody knows. sure: where the price is from. why: what it is for.
    """

    id: str
    name: str
    heading: str
    stage: str
    shop: str
    unit: str
    need: float
    pack: float
    packs: int
    at_hand: float
    each: float | None
    low: float | None
    likely: float | None
    high: float | None
    sure: Sure
    lead_days: int | None
    why: str = ""
    quote_until: str = ""
    ordered: str = ""
    arrived: str = ""
    batch: str = ""
    spent: float | None = None
    own: bool = False
    one_batch: bool = False  # seen side by side: of one batch


@lru_cache(maxsize=1)
def prices() -> dict[str, Price]:
    """The shipped table by what it is of."""
    return {price.of: price for price in table("catalogue/prices.csv", Price)}


class Draft(msgspec.Struct, frozen=True):
    """What is wanted, before anybody said what of it is at hand and what it costs. low, likely, high: of one pack."""

    id: str
    name: str
    of: str
    unit: str
    need: float
    pack: float = 1.0
    low: float | None = None
    likely: float | None = None
    high: float | None = None
    why: str = ""
    shop: str = ""
    stage: str = ""
    heading: str = ""
    one_batch: bool = False
    sure: Sure = "guessed"


IN_FEET = {"m": ("ft", 1 / 0.3048), "m²": ("ft²", 1 / 0.3048**2), "kg": ("lb", 1 / 0.45359237)}


def in_feet(draft: Draft) -> Draft:
    """The same in the units that shops sell by there, so much less a unit."""
    if draft.unit not in IN_FEET:
        return draft
    unit, many = IN_FEET[draft.unit]
    if draft.pack != 1.0 or draft.of == "consumable":  # a pack stays the pack it is
        return replace(draft, unit=unit, need=draft.need * many, pack=round(draft.pack * many, 2))
    each = {name: None if getattr(draft, name) is None else getattr(draft, name) / many for name in ("low", "likely", "high")}
    return replace(draft, unit=unit, need=draft.need * many, **each)


def line_of(draft: Draft, known: Bought | None) -> Line:
    """What is wanted as a line of the list. Args: known: what the builder said of it."""
    table = prices()[draft.of]
    said = known or Bought(draft.id)
    need = said.qty if said.qty is not None else draft.need
    pack = said.pack or draft.pack
    shop, stage = said.shop or draft.shop or table.shop, draft.stage or table.stage
    draft = replace(draft, need=need, pack=pack, shop=shop, stage=stage)
    return _priced(said, draft, said.heading or draft.heading or table.heading, table.lead_days)


def own_line(said: Bought) -> Line:
    """A line that the builder wrote in, out of no reckoning."""
    heading = said.heading or "else"
    stage = next((price.stage for price in prices().values() if price.heading == heading), "fitting out")
    need = 1.0 if said.qty is None else said.qty
    draft = Draft(
        said.id,
        said.name or said.id,
        of="",
        unit=said.unit or "pieces",
        need=need,
        pack=said.pack or 1.0,
        why="own line",
        sure="not known",
        shop=said.shop or "else",
        stage=stage,
    )
    return _priced(said, draft, heading, None)


def _priced(said: Bought, draft: Draft, heading: str, lead: int | None) -> Line:
    """A line with what is known of its money: spent before quoted, quoted before typed, typed before guessed."""
    need, pack, sure = draft.need, draft.pack, draft.sure
    packs = max(math.ceil((need - said.at_hand) / pack - 1e-9), 0)
    low, likely, high = draft.low, draft.likely, draft.high
    if said.likely is not None:
        sure, likely = "typed", said.likely
        low = said.low if said.low is not None else 0.9 * likely
        high = said.high if said.high is not None else 1.25 * likely
    if said.quote is not None:
        sure, low, likely, high = "quoted", said.quote, said.quote, said.quote
    if likely is None:
        sure = "not known"
    each = likely
    if low is not None and likely is not None and high is not None:
        low, likely, high = sorted((low, likely, high))
    if said.spent is not None:
        sure, low, likely, high = "spent", said.spent, said.spent, said.spent
    elif packs == 0:
        low = likely = high = 0.0
    elif low is not None and likely is not None and high is not None:
        low, likely, high = low * packs, likely * packs, high * packs
    else:
        low = likely = high = None
    return Line(
        id=said.id,
        name=draft.name,
        heading=heading,
        stage=draft.stage,
        shop=draft.shop,
        unit=draft.unit,
        need=need,
        pack=pack,
        packs=packs,
        at_hand=said.at_hand,
        each=each,
        low=low,
        likely=likely,
        high=high,
        sure=sure,
        lead_days=said.lead_days if said.lead_days is not None else lead,
        why=draft.why,
        quote_until=said.quote_until,
        ordered=said.ordered,
        arrived=said.arrived,
        batch=said.batch,
        spent=said.spent,
        own=said.own,
        one_batch=draft.one_batch,
    )
