"""The saw and what there is to saw from: sizes that are sold with their prices, and the rack."""

from __future__ import annotations

from typing import Any

import msgspec
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from uncle_sled.core.document.cut import StockSize
from uncle_sled.core.document.edits import add_to, fresh_id, remove, set_to
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.errors import EntryError
from uncle_sled.core.studies.cut.of_the_build import sizes_now, stocks_of
from uncle_sled.core.studies.cut.take_off import lots_of, take_off
from uncle_sled.core.studies.cut.wanted import by_material
from uncle_sled.core.words import Words
from uncle_sled.desk.benches.cut.bench import CutBench
from uncle_sled.desk.kit.buttons import act_button
from uncle_sled.desk.kit.columns import Columns
from uncle_sled.desk.kit.fields import ChoiceField, label
from uncle_sled.desk.kit.form import Form, Row, plain
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.table import Column, Table, TableModel
from uncle_sled.desk.session import Session

SIDE_PX = 262


def typed_number(text: str, what: str) -> float | None:
    """A typed figure, None for nothing. Raises: EntryError: with what would be right."""
    body = text.replace(",", ".").replace(" ", "").strip()
    if not body:
        return None
    try:
        value = float(body)
    except ValueError:
        raise EntryError(f"“{text}” is no {what}; a number such as 42.50 would be right.") from None
    if not 0 <= value < 1e9:
        raise EntryError(f"“{text}” cannot be a {what}; 0 or more would be right.")
    return value


class Size(msgspec.Struct, frozen=True):
    """A row: a size of the document, or a usual one that nobody typed."""

    id: str
    size: StockSize | None
    name: str
    kind: str
    length_m: float
    width_m: float


class StockPanel(Guarded, QWidget):
    def __init__(self, session: Session, bench: CutBench) -> None:
        super().__init__()
        self.session, self.bench = session, bench
        across = QHBoxLayout(self)
        across.setContentsMargins(0, 0, 0, 0)
        across.setSpacing(8)
        left = QVBoxLayout()
        left.setSpacing(6)
        tools = QHBoxLayout()
        tools.setSpacing(6)
        self.material = ChoiceField("Material", [])
        self.material.setMinimumContentsLength(18)
        left.addWidget(self.material)
        for text, tip, does in (
            ("Sold", "A size that a shop sells, with its price; own sizes take the place of the usual ones", lambda: self.add(False)),
            ("On the rack", "A board or offcut of your own: costs nothing and is used first", lambda: self.add(True)),
            ("Take it off", "The chosen size", self.take_off),
            ("Offcuts to rack", "Offcuts of the plan that are worth keeping (R); when they are cut", bench.keep_offcuts),
        ):
            tools.addWidget(act_button(text, tip, does))
        tools.addStretch(1)
        left.addLayout(tools)
        self.complaint = label("", "small", "primer", wrap=True)
        self.complaint.hide()
        left.addWidget(self.complaint)
        self.model = TableModel[Size](
            (
                Column("Material", lambda one: Words(self.session.shown).material(one.name)),
                Column(
                    "From",
                    lambda one: "usual size" if one.size is None else "rack" if one.size.rack else "own size",
                    ink=lambda one: "pencil" if one.size is None else "spruce" if one.size.rack else "",
                ),
                Column(
                    "Length", lambda one: self._m(one.length_m), right=True, enter=lambda one, text: self._enter_length(one, "length", text)
                ),
                Column(
                    "Width",
                    lambda one: self._m(one.width_m) if one.kind == "sheet" else "",
                    right=True,
                    enter=lambda one, text: self._enter_length(one, "width", text),
                ),
                Column(
                    "How many",
                    lambda one: "enough" if one.size is None or one.size.qty is None else str(one.size.qty),
                    right=True,
                    enter=self._enter_qty,
                    tip="Empty: as many as are wanted",
                ),
                Column("Price", self._price, right=True, enter=self._enter_price, tip="Of one, in your own money"),
            )
        )
        self.table = Table(self.model, "Saw and stock")
        self.table.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        left.addWidget(self.table, 1)
        self.says = label("", "small", "pencil", wrap=True)
        left.addWidget(self.says)
        across.addLayout(left, 1)
        saw = Form(session, "The saw", plain("cut", "kerf trim joint board"), "Cut", label_px=92)
        carry = Form(session, "What one lifts", plain("cut", "carry carry_m2 keep_m2"), "Cut", label_px=92)
        made = Form(session, "Cabinets made here", [Row("cut.made_thick")], "Cut", label_px=92)
        self.forms = [saw, carry, made]
        side = Columns(list(self.forms))
        side.setFixedWidth(SIDE_PX)
        across.addWidget(side)
        self._told_for: object = None

    def _m(self, metres: float) -> str:
        return Words(self.session.shown).cut(metres)

    def _price(self, one: Size) -> str:
        if one.size is None:
            return "not known"
        if one.size.rack:
            return "0"
        return "not known" if one.size.price is None else f"{one.size.price:.2f}"

    def _wanted(self) -> tuple[Any, ...]:
        return tuple(lot.wanted for lot in lots_of(take_off(self.session.build, self.session.project.facts)))

    def refresh(self) -> None:
        wanted = self._wanted()
        build = self.session.build
        imperial = build.brief.region == "North American"
        cut = sizes_now(build.cut, take_off(build, self.session.project.facts))
        own = {one.id: one for one in cut.sizes}
        rows = []
        for stock in stocks_of(cut, wanted, imperial):
            size = own.get(stock.id.removeprefix("rack: "))
            if size is None:
                rows.append(Size(stock.id, None, stock.material, stock.kind, stock.length_m, stock.width_m))
        for size in cut.sizes:
            wide = size.width.si if size.width is not None else 0.0
            rows.append(Size(size.id, size, size.material, size.kind, size.length.si, wide))
        rows.sort(key=lambda one: (one.name, one.kind, one.size is None, one.length_m))
        self.model.set_rows(rows, lambda a, b: a.id == b.id)
        words = Words(self.session.shown)
        names = [((kind, material), words.material(material)) for kind, material in by_material(wanted)]
        if names != self._told_for:
            self._told_for = names
            self.material.offer(list(names))  # type: ignore[arg-type]
        self.material.setEnabled(bool(names))
        for form in self.forms:
            form.refresh()
        unused = sorted({one.material for one in cut.sizes} - {one.material for one in wanted})
        self.says.setText(
            f"No piece asks for: {', '.join(unused)}." if unused else "" if rows else "Nothing is cut yet, so no size is wanted."
        )

    def marked(self) -> None: ...

    # what is done
    def add(self, rack: bool) -> None:
        chosen = self.material.currentData()
        if chosen is None:
            self.session.said.emit("There is no material to cut yet.", "note")
            return
        kind, material = chosen
        usual = next(one for one in self.model.rows if (one.kind, one.name) == (kind, material))
        share = 0.5 if rack else 1.0
        id = fresh_id("rk" if rack else "sz", [one.id for one in self.session.build.cut.sizes])
        off = take_off(self.session.build, self.session.project.facts)
        stuff = next((one.stuff for one in off.pieces if one.material == material), "")
        record: dict[str, Any] = {"id": id, "kind": kind, "material": material, "rack": rack, "stuff": stuff}
        record["length"] = {"si": round(usual.length_m * share, 4)}
        if kind == "sheet":
            record["width"] = {"si": round(usual.width_m * share, 4)}
        if rack:
            record["qty"] = 1
        self.session.edit(f"{'Rack' if rack else 'Sold'}: {material}", [add_to("cut.sizes", record)], "Cut")

    def take_off(self) -> None:
        at = self.table.marked()
        size = self.model.rows[at].size if at >= 0 else None
        if size is None:
            self.session.said.emit("Choose a size of your own first; usual sizes go by themselves where there are own ones.", "note")
            return
        self.session.edit(f"Take off {size.material}", [remove(f"cut.sizes.{size.id}")], "Cut")

    def _own(self, one: Size) -> bool:
        if one.size is None:
            self.complaint.setText("Usual sizes stay as they are; “Sold” adds one of your own in their place.")
            self.complaint.show()
            return False
        return True

    def _edit(self, one: Size, field: str, value: Any, says: str) -> bool:
        self.complaint.hide()
        return bool(self.session.edit(says, [set_to(f"cut.sizes.{one.id}.{field}", value)], "Cut"))

    def _enter_length(self, one: Size, field: str, text: str) -> bool:
        if not self._own(one) or (field == "width" and one.kind == "bar"):
            return False
        try:
            value = Length.read(text, self.session.shown)
            if not 0 < value.si <= 30:
                raise EntryError(f"“{text}” is no {field} of stock; more than 0 and up to 30 m would be right.")
        except EntryError as fault:
            self.complaint.setText(str(fault))
            self.complaint.show()
            return False
        return self._edit(one, field, msgspec.to_builtins(value), f"{one.name}: {field} {text}")

    def _enter_qty(self, one: Size, text: str) -> bool:
        if not self._own(one):
            return False
        body = text.strip().lower()
        if body in ("", "enough"):
            return self._edit(one, "qty", None, f"{one.name}: enough")
        if not body.isdigit() or int(body) > 10_000:
            self.complaint.setText(f"“{text}” is no number of boards; 0, 1, 2 … would be right, or nothing for enough.")
            self.complaint.show()
            return False
        return self._edit(one, "qty", int(body), f"{one.name}: {body}")

    def _enter_price(self, one: Size, text: str) -> bool:
        if not self._own(one):
            return False
        try:
            value = typed_number("" if text == "not known" else text, "price")
        except EntryError as fault:
            self.complaint.setText(str(fault))
            self.complaint.show()
            return False
        return self._edit(one, "price", value, f"{one.name}: price {text}")
