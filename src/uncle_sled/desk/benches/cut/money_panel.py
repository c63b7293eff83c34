"""The sum of it over the stages of the work, and what it hangs on beside."""

from __future__ import annotations

from typing import Any

from uncle_sled.core.document.edits import add_to, set_to
from uncle_sled.core.drawing.cut.money_chart import money_chart, sum_words
from uncle_sled.core.drawing.cut.used_words import much_of
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.errors import EntryError
from uncle_sled.core.studies.cut.bought_line import Line
from uncle_sled.core.studies.cut.buying import lines_of
from uncle_sled.core.studies.cut.consumables import Rule, Used, counted, rules_of, used_up
from uncle_sled.core.studies.cut.cut_from_stock import laid_out
from uncle_sled.core.studies.cut.money import Money, Sum, money_of
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.desk.benches.cut.bench import CutPanel
from uncle_sled.desk.benches.cut.stock_panel import typed_number
from uncle_sled.desk.kit.form import Row, plain
from uncle_sled.desk.kit.panel import Group, across, rows
from uncle_sled.desk.kit.parts import Busy, Cards, Drawing, Fields, Listed, Says
from uncle_sled.desk.kit.table import Column

SIDE_PX = 262


class MoneyPanel(CutPanel):
    def laid(self) -> Group:
        headings: tuple[Column[tuple[str, Sum]], ...] = (
            Column("Heading", lambda one: one[0]),
            Column("Likely", lambda one: sum_words(one[1].mean), right=True, sort=lambda one: one[1].mean),
            Column(
                "Low to high", lambda one: f"{sum_words(one[1].low)} to {sum_words(one[1].high)}", right=True, sort=lambda one: one[1].high
            ),
            Column(
                "?",
                lambda one: str(one[1].unknown) if one[1].unknown else "",
                right=True,
                ink=lambda _one: "primer",
                tip="Lines of which nobody knows a price",
            ),
        )
        used: tuple[Column[Used], ...] = (
            Column("Used up", lambda used: self.session.told(used.rule.name), ink=lambda used: "pencil" if used.rule.off else ""),
            Column("Counts", lambda used: counted(used, self.words), from_px=480),
            Column(
                "Rate",
                lambda used: f"{used.rule.rate:g}",
                right=True,
                enter=lambda used, text: self._rule(used.rule, "rate", text),
                tip="So much for each metre, square metre or end, as the source says",
            ),
            Column("Comes to", self._comes_to, right=True),
            Column(
                "Pack",
                lambda used: f"{used.rule.pack:g}",
                right=True,
                enter=lambda used, text: self._rule(used.rule, "pack", text),
                from_px=400,
            ),
            Column(
                "Source",
                lambda used: "changed by you" if used.rule.changed else self.session.told(used.rule.source),
                ink=lambda used: "" if used.rule.changed else "pencil",
                from_px=565,
            ),
        )
        self.headings = self.put(
            Listed[tuple[str, Sum]](
                "Money by heading", headings, lambda: made.headings if (made := self.money()) else (), lambda one: one[0], share=4
            )
        )
        self.used = self.put(Listed[Used]("What is used up by rule", used, self._used, lambda used: used.rule.id, share=5))
        cards = (
            Fields("Purse", [Row("brief.budget")], "Cut", 112),
            Fields("For a customer", plain("cut", "hours hour_price margin"), "Cut", 112),
            Fields("Prices rise", plain("cut", "rise months"), "Cut", 112),
        )
        left = rows(
            Busy(laid_out),
            Drawing(
                "Money over the stages of the work", self._chart, "Money over the work: bars a stage, line all up to it", self._why, share=3
            ),
            across(self.headings, self.used, share=2),
            share=1,
        )
        return across(
            left,
            rows(
                Says(lambda: self._told(made) if (made := self.money()) else self.bench.still()), Cards(cards, share=1), gap=8, wide=SIDE_PX
            ),
            gap=8,
        )

    def _used(self) -> list[Used]:
        s = self.studied
        off = [Used(rule, 0.0, 0.0) for rule in rules_of(s.build.cut) if rule.off]
        return [*used_up(s.build, s.facts, take_off(s.build, s.facts)), *off]

    def lines(self) -> tuple[Line, ...]:
        made = self.bench.plan()
        return lines_of(self.studied, made) if made is not None else ()

    def money(self) -> Money | None:
        s = self.studied
        return money_of(s.build, s.facts, self.lines(), take_off(s.build, s.facts)) if self.bench.plan() is not None else None

    def _why(self) -> str:
        return self.bench.still() if self.bench.plan() is None else "Nothing is drawn yet, so there is nothing to pay for."

    def _chart(self, width: float, height: float) -> tuple[Primitive, ...]:
        made = self.money()
        return money_chart(made, self.lines(), width, height) if made is not None else ()

    def _rule(self, rule: Rule, field: str, text: str) -> bool:
        try:
            value = typed_number(text, field)
            if field == "pack" and value == 0:
                raise EntryError("A pack of 0 holds nothing; more than 0 would be right.")
        except EntryError as fault:
            self.session.said.emit(str(fault), "note")
            return False
        known = {change.id: change for change in self.session.build.cut.rules}
        record: dict[str, Any] = {"id": rule.id, "rate": None, "pack": None, "price": None, "off": False}
        if rule.id in known:
            now = known[rule.id]
            record |= {"rate": now.rate, "pack": now.pack, "price": now.price, "off": now.off}
        record[field] = value
        path = f"cut.rules.{rule.id}" if rule.id in known else "cut.rules"
        op = set_to(path, record) if rule.id in known else add_to(path, record)
        return bool(self.session.edit(f"{rule.name}: {field} {text}", [op], "Cut"))

    def _comes_to(self, used: Used) -> str:
        return much_of(used, self.words)

    def _told(self, money: Money) -> list[str]:
        total = money.total
        told = [f"Likely {sum_words(total.mean)}; four builds of five stay under {sum_words(total.p80)}."]
        if total.unknown:
            told.append(f"{total.unknown} lines have no price and are not in it.")
        told.append(f"Spent {sum_words(money.spent)}, ordered {sum_words(money.committed)}, to come {sum_words(money.to_come)}.")
        if abs(money.forecast - total.mean) > 0.5:
            told.append(f"With risen prices {sum_words(money.forecast)}.")
        told.append(f"Keep {sum_words(money.contingency)} ({money.contingency_share:.0%}) aside; first builds overspend by half.")
        if money.budget is not None:
            left = money.budget - total.mean
            told.append(f"Budget {sum_words(money.budget)}: {sum_words(abs(left))} {'left' if left >= 0 else 'over'}.")
        if money.price is not None and money.hours is not None:
            face = "typed" if money.hours_said else "by area, much left out"
            told.append(f"To a customer {sum_words(money.price)}, with {money.hours:.0f} h ({face}).")
        elif money.hours is None or money.hours_said is False:
            told.append("A price for a customer wants hours and what one costs.")
        return told
