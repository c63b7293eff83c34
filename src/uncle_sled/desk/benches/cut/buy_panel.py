"""The shopping list by shop: typed into, with quotes, orders and arrivals."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import msgspec
from PySide6.QtWidgets import QFileDialog

from uncle_sled.core.document.cut import Bought
from uncle_sled.core.document.edits import Op, add_to, fresh_id, remove, set_to
from uncle_sled.core.drawing.cut.money_chart import sum_words
from uncle_sled.core.errors import EntryError, SledError
from uncle_sled.core.studies.cut.bought_line import Line
from uncle_sled.core.studies.cut.buying import lines_of
from uncle_sled.core.studies.cut.cut_from_stock import laid_out
from uncle_sled.core.studies.cut.money import summed
from uncle_sled.desk.benches.cut.bench import CutPanel
from uncle_sled.desk.benches.cut.stock_panel import typed_number
from uncle_sled.desk.kit.panel import Group, rows, tools
from uncle_sled.desk.kit.parts import Act, Busy, Choice, Complaint, Listed, Says
from uncle_sled.desk.kit.table import Column
from uncle_sled.desk.kit.typed import day
from uncle_sled.exchange.clock import today

NARROW_PX = 900
FACES = {"spent": "spruce", "quoted": "", "typed": "", "guessed": "pencil", "not known": "primer"}


class BuyPanel(CutPanel):
    def laid(self) -> Group:
        columns: tuple[Column[Line], ...] = (
            Column("What", lambda line: line.name, ink=self._ink, enter=self._name),
            Column(
                "Shop", lambda line: line.shop, ink=self._ink, enter=lambda line, text: self._word(line, "shop", text), from_px=NARROW_PX
            ),
            Column("Buy", _packs, right=True, sort=lambda line: line.packs, tip="Whole packs, after what is at hand"),
            Column(
                "At hand",
                lambda line: f"{line.at_hand:g}" if line.at_hand else "",
                right=True,
                enter=lambda line, text: self._number(line, "at_hand", text),
            ),
            Column(
                "Each",
                lambda line: "?" if line.each is None else f"{line.each:.2f}",
                right=True,
                enter=lambda line, text: self._number(line, "likely", text),
                tip="Likely price of one pack; typing replaces the guess",
            ),
            Column(
                "Quote",
                lambda line: f"{line.each:.2f}" if line.sure == "quoted" and line.each is not None else "",
                right=True,
                enter=lambda line, text: self._number(line, "quote", text),
                tip="What a shop said for one pack",
            ),
            Column(
                "Until",
                lambda line: line.quote_until,
                ink=self.lapsed,
                enter=lambda line, text: self._day(line, "quote_until", text),
                tip="The quote holds until this day; red: it has lapsed",
                from_px=700,
            ),
            Column(
                "Likely",
                lambda line: "?" if line.likely is None else sum_words(line.likely),
                right=True,
                sort=lambda line: line.likely or -1.0,
            ),
            Column("Sure", lambda line: line.sure, ink=lambda line: FACES[line.sure]),
            Column(
                "Days",
                lambda line: "" if line.lead_days is None else str(line.lead_days),
                right=True,
                sort=lambda line: line.lead_days or 0,
                enter=lambda line, text: self._number(line, "lead_days", text),
                tip="From order to arrival",
                from_px=760,
            ),
            Column(
                "State",
                _state,
                ink=self._ink,
                tip="Ordered and Arrived, above, put today; a day typed here is the day of the order",
                enter=lambda line, text: self._day(line, "ordered", text),
            ),
            Column(
                "Batch",
                lambda line: line.batch,
                enter=lambda line, text: self._word(line, "batch", text),
                tip="Of veneer: what is seen side by side comes of one batch",
                from_px=NARROW_PX,
            ),
            Column(
                "Paid",
                lambda line: "" if line.spent is None else f"{line.spent:.2f}",
                right=True,
                enter=lambda line, text: self._number(line, "spent", text),
                tip="For all of it",
            ),
        )
        self.table = self.put(Listed[Line]("Shopping list", columns, self._shown_lines, lambda line: line.id, several=True, share=1))
        self.shop = self.put(Choice("Shop", self._shops, lambda _: self.refresh(), letters=14))
        return rows(
            tools(
                self.shop,
                Act("Ordered", "The chosen lines are ordered today; again: they are not", lambda: self.mark("ordered")),
                Act("Arrived", "The chosen lines are here since today; again: they are not", lambda: self.mark("arrived")),
                Act("Add a line", "Something that the drawing does not ask for", self.add),
                Act("Take it off", "A line of your own; what the drawing asks for goes with the drawing", self.take_off),
                Act("Look and print …", "The list shop by shop on paper", lambda: self.look("buy-pdf")),
                Act("Prices in …", "Quotes of a shop from a CSV or XLSX file, by id or name", self.ask_prices),
            ),
            Busy(laid_out),
            Complaint(),
            self.table,
            Says(self._told, joined=" "),
        )

    def _shops(self) -> list[tuple[object, str]]:
        return [("", "all shops"), *((shop, shop) for shop in dict.fromkeys(line.shop for line in self.lines()))]

    def _shown_lines(self) -> list[Line]:
        shop = self.shop.currentData()
        return [line for line in self.lines() if not shop or line.shop == shop]

    def lines(self) -> tuple[Line, ...]:
        made = self.bench.plan()
        return lines_of(self.studied, made) if made is not None else ()

    def _ink(self, line: Line) -> str:
        return "spruce" if line.arrived or line.spent is not None else "pencil" if line.packs == 0 else ""

    def lapsed(self, line: Line) -> str:
        return "primer" if line.quote_until and not line.ordered and line.quote_until < today() else ""

    # entries
    def _known(self, line: Line) -> Bought | None:
        return next((known for known in self.session.build.cut.bought if known.id == line.id), None)

    def _op(self, line: Line, **fields: Any) -> Op:
        known = self._known(line)
        after = msgspec.to_builtins(msgspec.structs.replace(known or Bought(line.id), **fields))
        return set_to(f"cut.bought.{line.id}", after) if known is not None else add_to("cut.bought", after)

    def _enter(self, line: Line, says: str, **fields: Any) -> bool:
        self.complaint.hide()
        return bool(self.session.edit(says, [self._op(line, **fields)], "Cut"))

    def _number(self, line: Line, field: str, text: str) -> bool:
        try:
            value = typed_number("" if text == "?" else text, "number" if field in ("at_hand", "lead_days") else "sum")
            if field == "lead_days" and value is not None and value > 2000:
                raise EntryError(f"{value:g} days are over five years; a number of days would be right.")
        except EntryError as fault:
            return self.complain(str(fault))
        made: Any = value
        if field == "at_hand":
            made = value or 0.0
        elif field == "lead_days":
            made = None if value is None else int(value)
        return self._enter(line, f"{line.name}: {field.replace('_', ' ')} {text}", **{field: made})

    def _day(self, line: Line, field: str, text: str) -> bool:
        try:
            value = day(text)
        except EntryError as fault:
            return self.complain(str(fault))
        return self._enter(line, f"{line.name}: {field.replace('_', ' ')} {value or 'not'}", **{field: value})

    def _word(self, line: Line, field: str, text: str) -> bool:
        return self._enter(line, f"{line.name}: {field} {text[:40]}", **{field: text.strip()[:200]})

    def _name(self, line: Line, text: str) -> bool:
        if not line.own:
            return self.complain("What the drawing asks for is named there; lines of your own can be renamed here.")
        return self._word(line, "name", text) if text.strip() else False

    # what can be done
    def chosen(self) -> list[Line]:
        return self.table.chosen_rows()

    def mark(self, field: str) -> None:
        chosen = self.chosen()
        if not chosen:
            self.session.said.emit("Choose one line or several first.", "note")
            return
        off = all(getattr(line, field) for line in chosen)
        value = "" if off else today()
        ops = [self._op(line, **{field: value}) for line in chosen]
        what = chosen[0].name if len(chosen) == 1 else f"{len(chosen)} lines"
        self.session.edit(f"{what}: {'not ' if off else ''}{field}", ops, "Cut")

    def add(self) -> None:
        id = fresh_id("own", [bought.id for bought in self.session.build.cut.bought])
        shop = self.shop.currentData() or "else"
        record = Bought(id, own=True, name="New line", heading="else", shop=shop, unit="pieces", qty=1.0)
        self.session.edit("Add a line to buy", [add_to("cut.bought", msgspec.to_builtins(record))], "Cut")

    def take_off(self) -> None:
        own = [line for line in self.chosen() if line.own]
        if not own:
            self.session.said.emit("Choose a line of your own; what the drawing asks for goes with the drawing, or is at hand.", "note")
            return
        self.session.edit(f"Take off {own[0].name}", [remove(f"cut.bought.{line.id}") for line in own], "Cut")

    def ask_prices(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, "Prices of a shop", "", "Tables (*.csv *.xlsx)")
        if name:
            self.bring(Path(name))

    def bring(self, path: Path) -> None:
        """Quotes of a file, as one edit; faulty lines are named and left out."""
        from uncle_sled.exchange.buy_list import read_prices  # a spreadsheet reader is not needed at start

        try:
            read = read_prices(path, self.lines(), self.session.build.cut.bought)
        except SledError as fault:
            self.session.said.emit(str(fault), "stop")
            return
        if read.ops:
            self.session.edit(f"Prices of {read.taken} lines", list(read.ops), "Cut")
        says = f"{read.taken} prices came in."
        if read.strangers:
            says += f" Not on the list: {', '.join(read.strangers[:4])}{' …' if len(read.strangers) > 4 else ''}."
        if read.faults:
            says += " Not taken: " + "; ".join(f"line {fault.line}, {fault.says}" for fault in read.faults[:3])
        self.session.said.emit(says, "stop" if read.faults else "note")

    def _told(self) -> list[str]:
        shown = self._shown_lines()
        if not self.lines():
            return [self.bench.still() if self.bench.plan() is None else "Nothing to buy yet: nothing is drawn."]
        whole = summed(shown)
        told = [f"{len(shown)} lines, likely {sum_words(whole.mean)}, {sum_words(whole.low)} to {sum_words(whole.high)}."]
        if whole.unknown:
            told.append(f"{whole.unknown} without a price are not in it.")
        guessed = sum(1 for line in shown if line.sure == "guessed")
        if guessed:
            told.append(f"{guessed} prices are guesses of the trade: type what your shop says.")
        return [*told, "Gear that you have already is not on the list."]


def _state(line: Line) -> str:
    return f"here {line.arrived}" if line.arrived else f"ordered {line.ordered}" if line.ordered else ""


def _packs(line: Line) -> str:
    if line.unit == "pieces" and line.pack == 1:
        return f"{line.packs}"
    return f"{line.packs} x {line.pack:g} {line.unit}" if line.pack != 1 else f"{line.packs} {line.unit}"
