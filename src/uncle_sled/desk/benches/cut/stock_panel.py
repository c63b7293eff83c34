"""The saw and what there is to saw from: sizes that are sold with their prices, and the rack."""

from __future__ import annotations

from typing import Any

import msgspec

from uncle_sled.core.document.cut import Cut, StockSize
from uncle_sled.core.document.edits import add_to, fresh_id, remove, set_to
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.errors import EntryError
from uncle_sled.core.studies.cut.of_the_build import sizes_now, stocks_of
from uncle_sled.core.studies.cut.take_off import lots_of, take_off
from uncle_sled.core.studies.cut.wanted import by_material
from uncle_sled.desk.benches.cut.bench import CutPanel
from uncle_sled.desk.kit.form import Row, plain
from uncle_sled.desk.kit.panel import Group, across, rows, tools
from uncle_sled.desk.kit.parts import Act, Cards, Choice, Complaint, Fields, Listed, Says
from uncle_sled.desk.kit.table import Column

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


class StockPanel(CutPanel):
    def laid(self) -> Group:
        columns: tuple[Column[Size], ...] = (
            Column("Material", lambda one: self.words.material(one.name)),
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
        self.table = self.put(Listed[Size]("Saw and stock", columns, self._sizes, lambda one: one.id, share=1))
        self.material = self.put(
            Choice(
                "Material", lambda: [((kind, name), self.words.material(name)) for kind, name in by_material(self._wanted())], letters=18
            )
        )
        left = rows(
            self.material,
            tools(
                Act(
                    "Sold",
                    "A size that a shop sells, with its price; own sizes take the place of the usual ones",
                    lambda: self.add(rack=False),
                ),
                Act("On the rack", "A board or offcut of your own: costs nothing and is used first", lambda: self.add(rack=True)),
                Act("Take it off", "The chosen size", self.take_off),
                Act("Offcuts to rack", "Offcuts of the plan that are worth keeping (R); when they are cut", self.bench.keep_offcuts),
            ),
            Complaint(),
            self.table,
            Says(self._told, "pencil", "small"),
            share=1,
        )
        cards = (
            Fields("The saw", plain("cut", "kerf trim joint board"), "Cut", 92),
            Fields("What one lifts", plain("cut", "carry carry_m2 keep_m2"), "Cut", 92),
            Fields("Cabinets made here", [Row("cut.made_thick")], "Cut", 92),
        )
        return across(left, Cards(cards, wide=SIDE_PX), gap=8)

    def _m(self, metres: float) -> str:
        return self.words.cut(metres)

    def _price(self, one: Size) -> str:
        if one.size is None:
            return "not known"
        if one.size.rack:
            return "0"
        return "not known" if one.size.price is None else f"{one.size.price:.2f}"

    def _wanted(self) -> tuple[Any, ...]:
        return tuple(lot.wanted for lot in lots_of(take_off(self.session.build, self.session.project.facts)))

    def _cut(self) -> Cut:
        """The stop with its sizes by what they are of now."""
        return sizes_now(self.session.build.cut, take_off(self.session.build, self.session.facts))

    def _sizes(self) -> list[Size]:
        cut = self._cut()
        own = {one.id for one in cut.sizes}
        made = [
            Size(stock.id, None, stock.material, stock.kind, stock.length_m, stock.width_m)
            for stock in stocks_of(cut, self._wanted(), self.session.build.brief.region == "North American")
            if stock.id.removeprefix("rack: ") not in own
        ]
        for size in cut.sizes:
            wide = size.width.si if size.width is not None else 0.0
            made.append(Size(size.id, size, size.material, size.kind, size.length.si, wide))
        return sorted(made, key=lambda one: (one.name, one.kind, one.size is None, one.length_m))

    def _told(self) -> str:
        wanted = {one.material for one in self._wanted()}
        unused = sorted({one.material for one in self._cut().sizes} - wanted)
        if unused:
            return f"No piece asks for: {', '.join(unused)}."
        return "" if wanted else "Nothing is cut yet, so no size is wanted."

    # what is done
    def add(self, rack: bool) -> None:
        chosen = self.material.currentData()
        if chosen is None:
            self.session.said.emit("There is no material to cut yet.", "note")
            return
        kind, material = chosen
        usual = next(one for one in self.table.rows if (one.kind, one.name) == (kind, material))
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
        row = self.table.row()
        size = row.size if row is not None else None
        if size is None:
            self.session.said.emit("Choose a size of your own first; usual sizes go by themselves where there are own ones.", "note")
            return
        self.session.edit(f"Take off {size.material}", [remove(f"cut.sizes.{size.id}")], "Cut")

    def _own(self, one: Size) -> bool:
        if one.size is None:
            return self.complain("Usual sizes stay as they are; “Sold” adds one of your own in their place.")
        return True

    def _edit(self, one: Size, field: str, value: Any, says: str) -> bool:
        self.complain("")
        return bool(self.session.edit(says, [set_to(f"cut.sizes.{one.id}.{field}", value)], "Cut"))

    def _enter_length(self, one: Size, field: str, text: str) -> bool:
        if not self._own(one) or (field == "width" and one.kind == "bar"):
            return False
        try:
            value = Length.read(text, self.session.shown)
            if not 0 < value.si <= 30:
                raise EntryError(f"“{text}” is no {field} of stock; more than 0 and up to 30 m would be right.")
        except EntryError as fault:
            return self.complain(str(fault))
        return self._edit(one, field, msgspec.to_builtins(value), f"{one.name}: {field} {text}")

    def _enter_qty(self, one: Size, text: str) -> bool:
        if not self._own(one):
            return False
        body = text.strip().lower()
        if body in ("", "enough"):
            return self._edit(one, "qty", None, f"{one.name}: enough")
        if not body.isdigit() or int(body) > 10_000:
            return self.complain(f"“{text}” is no number of boards; 0, 1, 2 … would be right, or nothing for enough.")
        return self._edit(one, "qty", int(body), f"{one.name}: {body}")

    def _enter_price(self, one: Size, text: str) -> bool:
        if not self._own(one):
            return False
        try:
            value = typed_number("" if text == "not known" else text, "price")
        except EntryError as fault:
            return self.complain(str(fault))
        return self._edit(one, "price", value, f"{one.name}: price {text}")
