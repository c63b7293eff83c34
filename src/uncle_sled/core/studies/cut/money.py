"""What it comes to: low, likely and high of every line, summed as lines that move together, and a price for a customer.

Mean (a + 4 m + b) / 6, sd (b - a) / 6; var = (1 - rho) sum sd^2 + rho (sum sd)^2 with rho 0.3; P80 = mean + 0.842 sd.
Source: shop notes. Check: 400/450/600, 900/1,000/1,500, 300/350/700: mean 1,933, sd 151, P80 2,061. Lines of which
nobody knows a price are counted, not summed.
"""

from __future__ import annotations

import math
from collections.abc import Iterable

import msgspec

from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.engine import keep
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.studies.cut.bought_line import STAGES, Line
from uncle_sled.core.studies.cut.take_off import TakeOff

RHO = 0.3
MOST_RISE = 40.0  # of the logarithm
P80 = 0.842


class Sum(msgspec.Struct, frozen=True):
    """A sum of lines. unknown: lines without a price, which it lacks."""

    mean: float
    sd: float
    low: float
    high: float
    unknown: int

    @property
    def p80(self) -> float:
        """What four builds of five stay under."""
        return self.mean + P80 * self.sd


class Money(msgspec.Struct, frozen=True):
    """All of it. spent and quoted are inside of the total; committed: ordered and not paid; to_come: neither.

    forecast: with prices risen until all is bought. stages: (name, its own sum, all up to and with it).
    hours: of work, typed or by area of the faces; price: for a customer; None where hours or their price are not known.
    """

    total: Sum
    spent: float
    committed: float
    to_come: float
    forecast: float
    contingency: float
    contingency_share: float
    headings: tuple[tuple[str, Sum], ...]
    stages: tuple[tuple[str, Sum, Sum], ...]
    hours: float | None
    hours_said: bool
    price: float | None
    budget: float | None


def summed(lines: Iterable[Line]) -> Sum:
    """Lines that move together by rho 0.3."""
    mean = squares = plain = low = high = 0.0
    unknown = 0
    for line in lines:
        if line.low is None or line.likely is None or line.high is None:
            unknown += 1
            continue
        sd = (line.high - line.low) / 6
        mean += (line.low + 4 * line.likely + line.high) / 6
        squares, plain = squares + sd * sd, plain + sd
        low, high = low + line.low, high + line.high
    return Sum(mean, math.sqrt((1 - RHO) * squares + RHO * plain * plain), low, high, unknown)


@keep(most=2)
def money_of(build: Build, facts: Facts, lines: tuple[Line, ...], off: TakeOff) -> Money:
    """What the build costs by stage, with its range and what is spent [own money]. Unknown prices are counted, not nought."""
    cut = build.cut
    total = summed(lines)
    spent = sum(line.spent for line in lines if line.spent is not None)
    committed = sum(_mean(line) for line in lines if line.spent is None and (line.ordered or line.arrived))
    to_come = total.mean - spent - committed
    risen = math.exp(min(cut.months * math.log1p(cut.rise), MOST_RISE))  # beyond that it is no money any more
    hours = cut.hours if cut.hours is not None else _hours(build, facts, off)
    price = None
    if hours is not None and cut.hour_price is not None:
        price = (total.mean + hours * cut.hour_price) / max(1 - (cut.margin or 0.0), 0.05)
    contingency = total.p80 - total.mean
    headings = tuple(
        (name, summed(line for line in lines if line.heading == name)) for name in dict.fromkeys(line.heading for line in lines)
    )
    stages = []
    for k, name in enumerate(STAGES):
        mine = [line for line in lines if line.stage == name]
        if mine:
            stages.append((name, summed(mine), summed(line for line in lines if line.stage in STAGES[: k + 1])))
    return Money(
        total,
        spent,
        committed=committed,
        to_come=to_come,
        forecast=spent + committed + to_come * risen,
        contingency=contingency,
        contingency_share=contingency / total.mean if total.mean > 0 else 0.0,
        headings=headings,
        stages=tuple(stages),
        hours=hours,
        hours_said=cut.hours is not None,
        price=price,
        budget=build.brief.budget,
    )


def _mean(line: Line) -> float:
    if line.low is None or line.likely is None or line.high is None:
        return 0.0
    return (line.low + 4 * line.likely + line.high) / 6


def _hours(_build: Build, facts: Facts, off: TakeOff) -> float | None:
    """Hours by area of the layers, as the library of materials gives them; None where nothing has an area."""
    library = library_of(facts.materials)
    hours = 0.0
    for piece in off.pieces:
        if piece.hours is not None:
            hours += piece.hours
        elif piece.kind in ("sheet", "fill") or piece.cladding:
            hours += piece.area_m2 * (library[piece.made_of].hours_m2 if piece.made_of in library else 0.0)
    hours += sum(spread.area_m2 * library[spread.made_of].hours_m2 for spread in off.spreads if spread.made_of in library)
    return hours or None
