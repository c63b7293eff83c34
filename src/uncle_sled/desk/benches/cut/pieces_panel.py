"""All pieces in a table beside the body: a row lights up where it belongs, and back."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QHBoxLayout, QSplitter, QVBoxLayout, QWidget

from uncle_sled.core.document.edits import set_to
from uncle_sled.core.drawing.cut.piece_map import piece_map
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.studies.cut.numbers import Named, Numbers, numbers_of
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.core.words import Words
from uncle_sled.desk.benches.cut.bench import CutBench
from uncle_sled.desk.benches.cut.piece_chart import PieceChart
from uncle_sled.desk.kit.buttons import act_button
from uncle_sled.desk.kit.fields import ChoiceField, label
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.table import Column, Table, TableModel
from uncle_sled.desk.session import Session

INKS = {"draft": "pencil", "changed": "primer", "as printed": ""}
NOTHING = "Nothing to cut yet: choose a school of framing or the layers of faces on Shell, or a cabinet to make here."


class PiecesPanel(Guarded, QWidget):
    def __init__(self, session: Session, bench: CutBench) -> None:
        super().__init__()
        self.session, self.bench = session, bench
        self._filling = False
        rows = QVBoxLayout(self)
        rows.setContentsMargins(0, 0, 0, 0)
        rows.setSpacing(6)
        tools = QHBoxLayout()
        tools.setSpacing(6)
        for_good = "Give every piece its number for good (N); before that, numbers are drafts"
        self.print = act_button("Number and print", for_good, bench.number_and_print)
        tools.addWidget(self.print)
        self.of = ChoiceField("Which pieces", [("", "all of it")])
        self.of.setToolTip("Pieces of one face or thing only")
        self.of.entered.connect(lambda _: self.refresh())
        tools.addWidget(self.of)
        self.cabinet = ChoiceField("Cabinets made here", [])
        self.cabinet.setToolTip(
            "A cabinet, bed or furniture of Stow that is made of sheets here, and not bought; choose it again to buy it"
        )
        self.of.setMinimumContentsLength(9)
        self.cabinet.setMinimumContentsLength(10)
        self.cabinet.entered.connect(self._make_here)
        tools.addWidget(self.cabinet)
        self.says = label("", "small", "pencil", wrap=True)
        tools.addWidget(self.says, 1)
        rows.addLayout(tools)
        self.model = TableModel[Named](
            (
                Column(
                    "No",
                    lambda one: one.label,
                    sort=_by_number,
                    ink=lambda one: INKS[one.standing],
                    tip="Grey: a draft; red: changed since the print",
                ),
                Column("What", lambda one: one.piece.name, ink=lambda one: INKS[one.standing]),
                Column("Of", lambda one: one.piece.of),
                Column("Length", lambda one: self._cut(one.piece.length_m), right=True, sort=lambda one: one.piece.length_m),
                Column(
                    "Width",
                    lambda one: self._cut(one.piece.width_m) if one.piece.width_m else "",
                    right=True,
                    sort=lambda one: one.piece.width_m,
                ),
                Column("Ends", _ends, right=True, tip="How far the saw is turned off square"),
                Column("Material", lambda one: Words(self.session.shown).material(one.piece.material)),
                Column("Note", self._note, ink=lambda one: "primer" if one.standing == "changed" else ""),
            )
        )
        self.table = Table(self.model, "Pieces")
        self.table.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.table.selectionModel().selectionChanged.connect(self._picked)
        self.map = PieceChart(session, "The body with its pieces", self._map, "Where it is", lambda: NOTHING)
        self.map.over.connect(self._over)
        self.map.picked.connect(lambda key: bench.mark((key,) if key else ()))
        split = QSplitter(Qt.Orientation.Vertical)
        split.addWidget(self.map)
        split.addWidget(self.table)
        split.setChildrenCollapsible(False)
        split.setSizes([250, 300])
        rows.addWidget(split, 1)
        self._cabinets: object = None
        self._faces: object = None

    def numbers(self) -> Numbers:
        return numbers_of(self.session.build, self.session.project.facts)

    def _cut(self, metres: float) -> str:
        return Words(self.session.shown).cut(metres)

    def _note(self, one: Named) -> str:
        told = [] if one.standing != "changed" else ["changed since the print"]
        if one.piece.joined:
            told.append(one.piece.joined)
        if one.piece.pair:
            told.append("mirrored pair")
        if one.piece.kind == "fill":
            told.append(self.session.told("by knife, {3 mm} over"))
        if one.piece.grain != "any":
            told.append(f"grain {one.piece.grain}")
        return ", ".join(told)

    def _map(self, width: float, height: float) -> tuple[Primitive, ...]:
        numbers = self.numbers()
        return piece_map(self.session.studied.framed, numbers, self.bench.marked, width, height - 16) if numbers.named else ()

    def _over(self, key: str) -> None:
        if key:
            self.bench.mark((key,))

    def _picked(self) -> None:
        at = self.table.marked()
        if not self._filling and at >= 0:
            self.bench.mark((self.model.rows[at].piece.key,))

    def marked(self) -> None:
        self.map.renew()
        at = next((k for k, one in enumerate(self.model.rows) if one.piece.key in self.bench.marked), -1)
        self._filling = True
        if at >= 0:
            self.table.selectRow(at)
        else:
            self.table.clearSelection()
        self._filling = False

    def refresh(self) -> None:
        numbers = self.numbers()
        self._fill_choices(numbers)
        of = self.of.currentData()
        self._filling = True
        self.model.set_rows(
            sorted((one for one in numbers.named if not of or one.piece.of == of), key=_by_number), lambda a, b: a.piece.key == b.piece.key
        )
        self._filling = False
        self.map.renew()
        self.says.setText(self._told(numbers))
        self.print.setEnabled(bool(numbers.named))

    def _told(self, numbers: Numbers) -> str:
        off = take_off(self.session.build, self.session.project.facts)
        if not numbers.named:
            return ""
        told = [f"{len(numbers.named)} pieces."]
        if self.session.build.cut.prints:
            if numbers.changed:
                told.append(f"{len(numbers.changed)} changed since print {self.session.build.cut.prints}.")
            if numbers.drafts:
                told.append(f"{len(numbers.drafts)} new.")
            if numbers.gone:
                told.append(f"No longer wanted: {', '.join(numbers.gone[:6])}{' …' if len(numbers.gone) > 6 else ''}.")
        else:
            told.append("Numbers are drafts until they are printed.")
        if off.unbacked:
            told.append(f"{len(off.unbacked)} seams have no stick behind.")
        if off.unsaid:
            told.append(off.unsaid[0])
        return " ".join(told)

    def _fill_choices(self, numbers: Numbers) -> None:
        faces = tuple(dict.fromkeys(one.piece.of for one in numbers.named))
        names = {thing.id: thing.name for thing in self.session.build.stow.things}
        if faces != self._faces:
            self._faces = faces
            self.of.offer([("", "all of it"), *((one, names.get(one, one)) for one in faces)])
        made = self.session.build.cut.made
        things = tuple(
            (thing.id, ("made here: " if thing.id in made else "bought: ") + thing.name)
            for thing in self.session.build.stow.things
            if thing.kind in ("cabinet", "furniture", "bed")
        )
        if things != self._cabinets:
            self._cabinets = things
            self.cabinet.offer([("", "cabinets …"), *things])
        self.cabinet.show_value("")
        self.cabinet.setEnabled(bool(things))

    def _make_here(self, id: object) -> None:
        made = self.session.build.cut.made
        if not id:
            return
        after = tuple(one for one in made if one != id) if id in made else (*made, str(id))
        name = next(thing.name for thing in self.session.build.stow.things if thing.id == id)
        self.session.edit(f"{name}: {'bought' if id in made else 'made here'}", [set_to("cut.made", list(after))], "Cut")


def _by_number(one: Named) -> tuple[str, int, str]:
    letters, _, rest = one.label.partition("-")
    digits = rest.split(" ")[0]
    return letters, int(digits) if digits.isdigit() else 0, one.label


def _ends(one: Named) -> str:
    if all(abs(deg) < 0.05 for deg in one.piece.ends_deg):
        return ""
    return " / ".join(f"{deg:.1f}°".replace("-", "−") for deg in one.piece.ends_deg)
