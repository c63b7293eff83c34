"""The saw and what there is to saw from: sizes that are sold with their prices, and the rack."""

from __future__ import annotations

from typing import Any

import msgspec

from uncle_sled.core.document.cut import Cut, StockSize
from uncle_sled.core.document.edits import add_to, fresh_id, remove, set_to
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.errors import EntryError
from uncle_sled.core.studies.cut.cut_from_stock import sizes_now, stocks_of
from uncle_sled.core.studies.cut.lots import lots_of
from uncle_sled.core.studies.cut.take_off import take_off
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
            Column("Material", lambda size: self.words.material(size.name)),
            Column(
                "From",
                lambda size: "usual size" if size.size is None else "rack" if size.size.rack else "own size",
                ink=lambda size: "pencil" if size.size is None else "spruce" if size.size.rack else "",
            ),
            Column(
                "Length", lambda size: self._m(size.length_m), right=True, enter=lambda size, text: self._enter_length(size, "length", text)
            ),
            Column(
                "Width",
                lambda size: self._m(size.width_m) if size.kind == "sheet" else "",
                right=True,
                enter=lambda size, text: self._enter_length(size, "width", text),
            ),
            Column(
                "How many",
                lambda size: "enough" if size.size is None or size.size.qty is None else str(size.size.qty),
                right=True,
                enter=self._enter_qty,
                tip="Empty: as many as are wanted",
            ),
            Column("Price", self._price, right=True, enter=self._enter_price, tip="Of one, in your own money"),
        )
        self.table = self.put(Listed[Size]("Saw and stock", columns, self._sizes, lambda size: size.id, share=1))
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

    def _price(self, size: Size) -> str:
        if size.size is None:
            return "not known"
        if size.size.rack:
            return "0"
        return "not known" if size.size.price is None else f"{size.size.price:.2f}"

    def _wanted(self) -> tuple[Any, ...]:
        return tuple(lot.wanted for lot in lots_of(take_off(self.session.build, self.session.project.facts)))

    def _cut(self) -> Cut:
        """The stop with its sizes by what they are of now."""
        return sizes_now(self.session.build.cut, take_off(self.session.build, self.session.facts))

    def _sizes(self) -> list[Size]:
        cut = self._cut()
        own = {size.id for size in cut.sizes}
        made = [
            Size(stock.id, None, stock.material, stock.kind, stock.length_m, stock.width_m)
            for stock in stocks_of(cut, self._wanted(), self.session.build.brief.region == "North American")
            if stock.id.removeprefix("rack: ") not in own
        ]
        for size in cut.sizes:
            wide = size.width.si if size.width is not None else 0.0
            made.append(Size(size.id, size, size.material, size.kind, size.length.si, wide))
        return sorted(made, key=lambda size: (size.name, size.kind, size.size is None, size.length_m))

    def _told(self) -> str:
        wanted = {one.material for one in self._wanted()}
        unused = sorted({size.material for size in self._cut().sizes} - wanted)
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
        usual = next(size for size in self.table.rows if (size.kind, size.name) == (kind, material))
        share = 0.5 if rack else 1.0
        id = fresh_id("rk" if rack else "sz", [size.id for size in self.session.build.cut.sizes])
        off = take_off(self.session.build, self.session.project.facts)
        stuff = next((piece.stuff for piece in off.pieces if piece.material == material), "")
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

    def _own(self, size: Size) -> bool:
        if size.size is None:
            return self.complain("Usual sizes stay as they are; “Sold” adds one of your own in their place.")
        return True

    def _edit(self, size: Size, field: str, value: Any, says: str) -> bool:
        self.complain("")
        return bool(self.session.edit(says, [set_to(f"cut.sizes.{size.id}.{field}", value)], "Cut"))

    def _enter_length(self, size: Size, field: str, text: str) -> bool:
        if not self._own(size) or (field == "width" and size.kind == "bar"):
            return False
        try:
            value = Length.read(text, self.session.shown)
            if not 0 < value.si <= 30:
                raise EntryError(f"“{text}” is no {field} of stock; more than 0 and up to 30 m would be right.")
        except EntryError as fault:
            return self.complain(str(fault))
        return self._edit(size, field, msgspec.to_builtins(value), f"{size.name}: {field} {text}")

    def _enter_qty(self, size: Size, text: str) -> bool:
        if not self._own(size):
            return False
        body = text.strip().lower()
        if body in ("", "enough"):
            return self._edit(size, "qty", None, f"{size.name}: enough")
        if not body.isdigit() or int(body) > 10_000:
            return self.complain(f"“{text}” is no number of boards; 0, 1, 2 … would be right, or nothing for enough.")
        return self._edit(size, "qty", int(body), f"{size.name}: {body}")

    def _enter_price(self, size: Size, text: str) -> bool:
        if not self._own(size):
            return False
        try:
            value = typed_number("" if text == "not known" else text, "price")
        except EntryError as fault:
            return self.complain(str(fault))
        return self._edit(size, "price", value, f"{size.name}: price {text}")
