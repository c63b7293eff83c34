"""The sum of it over the stages of the work, and what it hangs on beside."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from PySide6.QtCore import Qt
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from uncle_sled.core.document.edits import add_to, set_to
from uncle_sled.core.drawing.cut.money_chart import money_chart, sum_words
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.errors import EntryError
from uncle_sled.core.studies.cut.buying import Line, lines_of
from uncle_sled.core.studies.cut.consumables import Rule, Used, counted, rules_of, used_up
from uncle_sled.core.studies.cut.money import Money, Sum, money_of
from uncle_sled.core.studies.cut.of_the_build import laid_out
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.core.words import Words
from uncle_sled.desk.benches.cut.bench import CutBench
from uncle_sled.desk.benches.cut.stock_panel import typed_number
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.columns import Columns
from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.kit.form import Form, Row, plain
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.table import Column, Table, TableModel
from uncle_sled.desk.kit.working import Working
from uncle_sled.desk.session import Session

SIDE_PX = 262


class MoneyPanel(Guarded, QWidget):
    def __init__(self, session: Session, bench: CutBench) -> None:
        super().__init__()
        self.session, self.bench = session, bench
        self._made: tuple[tuple[object, object], tuple[Line, ...], Money] | None = None
        across = QHBoxLayout(self)
        across.setContentsMargins(0, 0, 0, 0)
        across.setSpacing(8)
        left = QVBoxLayout()
        left.setSpacing(6)
        self.working = Working(session.answers, laid_out)
        left.addWidget(self.working)
        self.chart = Chart(
            session, "Money over the stages of the work", self._chart, "Money over the work: bars a stage, line all up to it", self._why
        )
        left.addWidget(self.chart, 3)
        self.model = TableModel[tuple[str, Sum]](
            (
                Column("Heading", lambda one: one[0]),
                Column("Likely", lambda one: sum_words(one[1].mean), right=True, sort=lambda one: one[1].mean),
                Column(
                    "Low to high",
                    lambda one: f"{sum_words(one[1].low)} to {sum_words(one[1].high)}",
                    right=True,
                    sort=lambda one: one[1].high,
                ),
                Column(
                    "?",
                    lambda one: str(one[1].unknown) if one[1].unknown else "",
                    right=True,
                    ink=lambda one: "primer",
                    tip="Lines of which nobody knows a price",
                ),
            )
        )
        self.headings = Table(self.model, "Money by heading")
        self.rules = TableModel[Used](
            (
                Column("Used up", lambda one: session.told(one.rule.name), ink=lambda one: "pencil" if one.rule.off else ""),
                Column("Counts", lambda one: counted(one, Words(session.shown))),
                Column(
                    "Rate",
                    lambda one: f"{one.rule.rate:g}",
                    right=True,
                    enter=lambda one, text: self._rule(one.rule, "rate", text),
                    tip="So much for each metre, square metre or end, as the source says",
                ),
                Column("Comes to", self._comes_to, right=True),
                Column("Pack", lambda one: f"{one.rule.pack:g}", right=True, enter=lambda one, text: self._rule(one.rule, "pack", text)),
                Column(
                    "Source",
                    lambda one: "changed by you" if one.rule.changed else session.told(one.rule.source),
                    ink=lambda one: "" if one.rule.changed else "pencil",
                ),
            )
        )
        self.used = Table(self.rules, "What is used up by rule")
        low = QHBoxLayout()
        low.setSpacing(6)
        low.addWidget(self.headings, 4)
        low.addWidget(self.used, 5)
        left.addLayout(low, 2)
        for table in (self.headings, self.used):
            table.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        across.addLayout(left, 1)
        self.says = label("", "", "ink", wrap=True)
        budget = Form(session, "Purse", [Row("brief.budget")], "Cut", label_px=112)
        price = Form(session, "For a customer", plain("cut", "hours hour_price margin"), "Cut", label_px=112)
        rise = Form(session, "Prices rise", plain("cut", "rise months"), "Cut", label_px=112)
        self.forms = [budget, price, rise]
        side = QVBoxLayout()
        side.setSpacing(8)
        side.addWidget(self.says)
        side.addWidget(Columns(list(self.forms)), 1)
        holder = QWidget()
        holder.setLayout(side)
        holder.setFixedWidth(SIDE_PX)
        across.addWidget(holder)

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Where there is little room only what it comes to is told of what is used up."""
        self.used.give_way({1: self.width() < 1150, 4: self.width() < 1000, 5: self.width() < 1300})

    def money(self) -> tuple[tuple[Line, ...], Money] | None:
        made = self.bench.plan()
        if made is None:
            return None
        s = self.session.studied
        if self._made is None or self._made[0][0] is not made or self._made[0][1] is not s:
            lines = lines_of(s, made)
            self._made = (made, s), lines, money_of(s.build, s.facts, lines, take_off(s.build, s.facts))
        return self._made[1:]

    def _why(self) -> str:
        return self.bench.still() if self.bench.plan() is None else "Nothing is drawn yet, so there is nothing to pay for."

    def _chart(self, width: float, height: float) -> tuple[Primitive, ...]:
        found = self.money()
        return money_chart(found[1], found[0], width, height) if found is not None else ()

    def _rule(self, rule: Rule, field: str, text: str) -> bool:
        try:
            value = typed_number(text, field)
            if field == "pack" and value == 0:
                raise EntryError("A pack of 0 holds nothing; more than 0 would be right.")
        except EntryError as fault:
            self.session.said.emit(str(fault), "note")
            return False
        known = {one.id: one for one in self.session.build.cut.rules}
        record: dict[str, Any] = {"id": rule.id, "rate": None, "pack": None, "price": None, "off": False}
        if rule.id in known:
            now = known[rule.id]
            record |= {"rate": now.rate, "pack": now.pack, "price": now.price, "off": now.off}
        record[field] = value
        path = f"cut.rules.{rule.id}" if rule.id in known else "cut.rules"
        op = set_to(path, record) if rule.id in known else add_to(path, record)
        return bool(self.session.edit(f"{rule.name}: {field} {text}", [op], "Cut"))

    def _comes_to(self, one: Used) -> str:
        words = Words(self.session.shown)
        known: dict[str, Callable[[float], str]] = {
            "m": words.m,
            "m²": words.m2,
            "kg": words.fine_kg,
            "L": lambda litres: words.m3(litres / 1000),
        }
        if one.rule.unit in known:
            return known[one.rule.unit](one.need)
        return f"{one.need:.3g} {one.rule.unit}" if one.need < 100 else f"{one.need:.0f} {one.rule.unit}"

    def marked(self) -> None: ...

    def refresh(self) -> None:
        self.chart.update()
        for form in self.forms:
            form.refresh()
        found = self.money()
        s = self.session.studied
        self.model.set_rows(found[1].headings if found is not None else (), lambda a, b: a[0] == b[0])
        used = used_up(s.build, s.facts, take_off(s.build, s.facts))
        off = [Used(rule, 0.0, 0.0) for rule in rules_of(s.build.cut) if rule.off]
        self.rules.set_rows([*used, *off], lambda a, b: a.rule.id == b.rule.id)
        self.says.setText("\n".join(self._told(found[1])) if found is not None else self.bench.still())

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
