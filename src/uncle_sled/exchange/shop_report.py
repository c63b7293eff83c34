"""The keys ``sheets``, ``bars``, ``unplaced``, ``buy`` and ``money`` of the report: the cutting plan of a build and what it costs.

The plan is that of a search which ends by questions and not by seconds, so the report is the same on any machine.
"""

from __future__ import annotations

from typing import Any

import msgspec

from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.cut.buying import lines_of
from uncle_sled.core.studies.cut.cut_from_stock import plan_of
from uncle_sled.core.studies.cut.handed import handed
from uncle_sled.core.studies.cut.money import money_of
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.exchange.cut_report import cut_report


def shop_report(s: Studied) -> dict[str, Any]:
    made = plan_of(s.build, s.facts)
    report = cut_report(made.plan)
    hand = handed(made, s.build, s.facts)
    for layout, on in zip(report["sheets"]["layouts"], hand.sheets, strict=True):
        for piece, named in zip(layout["pieces"], on.named, strict=True):
            piece["label"] = named.label
    for pattern, of in zip(report["bars"]["patterns"], hand.bars, strict=True):
        pattern["labels"] = [[numbered.label for numbered in some] for some in of.named]
    lines = lines_of(s, made)
    money = money_of(s.build, s.facts, lines, take_off(s.build, s.facts))
    known = bool(lines)
    return {
        "sheets": report["sheets"],
        "bars": report["bars"],
        "unplaced": report["unplaced"],
        "buy": [msgspec.to_builtins(line) for line in lines],
        "money": {
            "likely": round(money.total.mean, 2) if known else None,
            "low": round(money.total.low, 2) if known else None,
            "high": round(money.total.high, 2) if known else None,
            "p80": round(money.total.p80, 2) if known else None,
            "spent": round(money.spent, 2),
            "committed": round(money.committed, 2),
            "to_come": round(money.to_come, 2) if known else None,
            "unknown_lines": money.total.unknown,
            "budget": money.budget,
            "price": None if money.price is None else round(money.price, 2),
        },
    }
