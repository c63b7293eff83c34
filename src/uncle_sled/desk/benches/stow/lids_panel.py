"""Lids: hatches, lids and lifting beds turning on their struts, with the hand's force over the angle in frost and heat."""

from __future__ import annotations

import msgspec
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from uncle_sled.core.document.edits import Op, set_to
from uncle_sled.core.document.joinery import Strut
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.stow.lid_drawn import hand_chart, lid_drawn
from uncle_sled.core.findings.stow.built import STRUT_CAUTION
from uncle_sled.core.studies.stow.hinged import Hinged, hinged
from uncle_sled.core.studies.stow.struts import HOLD_SHARE, SAYS, search
from uncle_sled.core.words import Words, upper_first
from uncle_sled.desk.benches.stow.built_rows import strut_rows
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.columns import Columns
from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.kit.form import Form, Row, plain
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.refocus import focus_kept
from uncle_sled.desk.kit.table import Column, Table, TableModel
from uncle_sled.desk.kit.taken_away import take_away
from uncle_sled.desk.session import Session

SIDE_PX = 262


class LidsPanel(Guarded, QWidget):
    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self._filling = False
        self._form_of: object = None
        self.forms: list[Form] = []
        self.cards: Columns | None = None
        self.across = QHBoxLayout(self)
        self.across.setContentsMargins(0, 0, 0, 0)
        self.across.setSpacing(8)
        left = QVBoxLayout()
        left.setSpacing(5)
        self.model = TableModel[Hinged](
            (
                Column("Turns up", lambda one: one.name),
                Column("Weighs", lambda one: self._words().kg(one.turning.mass_kg) if one.turning else "not known", right=True),
                Column("In frost", self._holds, ink=self._ink),
                Column("Raise, shut", self._hands, right=True),
            )
        )
        self.table = Table(self.model, "Hatches and lids")
        self.table.setMaximumHeight(120)
        self.table.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.table.selectionModel().selectionChanged.connect(lambda *_: self._picked())
        left.addWidget(self.table)
        drawn = QHBoxLayout()
        drawn.setSpacing(8)
        self.turning = Chart(session, "The leaf turning on its struts", self._turning, "", self._why)
        self.hand = Chart(session, "The hand's force over the angle", self._hand, "", lambda: "")
        drawn.addWidget(self.turning, 1)
        drawn.addWidget(self.hand, 1)
        left.addLayout(drawn, 1)
        self.says = label("", "", "ink", wrap=True)
        left.addWidget(self.says)
        self.caution = label(STRUT_CAUTION, "small", "pencil", wrap=True)
        left.addWidget(self.caution)
        self.across.addLayout(left, 1)
        side = QVBoxLayout()
        side.setSpacing(5)
        self.search_button = QPushButton("Find struts")
        self.search_button.setToolTip(
            "Over the sizes and forces that are sold and over mounts: what meets every limit with the weakest struts"
        )
        self.search_button.clicked.connect(lambda _=False: self.find_struts())
        self.none = QPushButton("No struts")
        self.none.setToolTip("Take the struts off again")
        self.none.clicked.connect(lambda _=False: self.take_off())
        buttons = QHBoxLayout()
        buttons.addWidget(self.search_button)
        buttons.addWidget(self.none)
        side.addLayout(buttons)
        self.fill = QWidget()
        side.addWidget(self.fill, 1)
        self.side = side
        holder = QWidget()
        holder.setLayout(side)
        side.setContentsMargins(0, 0, 0, 0)
        holder.setFixedWidth(SIDE_PX)
        self.across.addWidget(holder)
        session.selected.connect(self._follow)
        session.changed.connect(self._follow)
        session.case_changed.connect(self._follow)

    def showEvent(self, event: object) -> None:
        self.refresh()

    def _words(self) -> Words:
        return Words(self.session.shown)

    def _hands(self, one: Hinged) -> str:
        words = self._words()
        return f"{words.fine_newtons(one.verdict.raise_n)}, {words.fine_newtons(one.verdict.close_n)}" if one.verdict else ""

    def _holds(self, one: Hinged) -> str:
        if one.verdict is None:
            return "not checked"
        if one.verdict.hold_share is None:
            return "past upright"
        return f"{one.verdict.hold_share * 100:.0f} %, want {HOLD_SHARE * 100:.0f}"

    def _ink(self, one: Hinged) -> str:
        bad = one.verdict is not None and (not one.verdict.fits or "hold" in one.verdict.fails)
        return "primer" if bad else "pencil" if one.verdict is None else ""

    def made(self) -> tuple[Hinged, ...]:
        return hinged(self.session.studied)

    def chosen(self) -> Hinged | None:
        made = self.made()
        return next((one for one in made if one.id in self.session.selection), made[0] if made else None)

    # drawings
    def _why(self) -> str:
        one = self.chosen()
        if one is None:
            return "No hatch is hung at its top yet (Openings, on Shell), and no thing has a lid (Built)."
        return self.session.told(f"{one.name}: {one.why}.")

    def _turning(self, width: float, height: float) -> tuple[Primitive, ...]:
        one = self.chosen()
        return lid_drawn(one, self._words(), width, height) if one is not None else ()

    def _hand(self, width: float, height: float) -> tuple[Primitive, ...]:
        one = self.chosen()
        return hand_chart(one, self._words(), width, height) if one is not None else ()

    # edits
    def find_struts(self) -> None:
        one = self.chosen()
        if one is None or one.turning is None:
            return
        found = search(one.turning, max(one.strut.many, 2) if one.strut is not None else 2)
        if found is None:
            self.session.said.emit(
                f"No strut that is sold stays within its stroke while the {one.name.lower()} turns {one.turning.opens_deg:.0f}°.", "note"
            )
            return
        words = self._words()
        self.session.edit(
            f"Struts of {words.fine_newtons(found.strut.force_n)} on the {one.name.lower()}",
            [set_to(f"{one.path}.strut", msgspec.to_builtins(found.strut))],
            "Stow",
            (one.id,),
        )
        if found.verdict.fails:
            told = ", ".join(SAYS[what] for what in found.verdict.fails)
            self.session.said.emit(f"None of those tried meets every limit: with the nearest the {one.name.lower()} {told}.", "note")

    def take_off(self) -> None:
        one = self.chosen()
        if one is not None and one.strut is not None:
            self.session.edit(f"No struts on the {one.name.lower()}", [set_to(f"{one.path}.strut", None)], "Stow", (one.id,))

    # the form
    def _build_form(self) -> None:
        one = self.chosen()
        shape = (one.id, one.strut is not None) if one is not None else None
        if shape == self._form_of:
            return
        self._form_of = shape
        take_away(self.side, self.cards)
        self.cards, self.forms = None, []
        forms = []
        if one is not None and one.path.endswith(".lid"):
            rows = plain(one.path)
            forms.append(Form(self.session, "The lid", rows, "Stow", label_px=112))
        elif one is not None:
            rows = [Row(f"{one.path}.open_deg")]
            opening = next((o for o in self.session.build.shell.openings if o.id == one.id), None)
            if opening is not None and opening.leaf is not None:
                rows.append(Row(f"{one.path}.leaf.hangs_on", least=0.5))
            else:
                rows.append(Row(f"{one.path}.mass", title="Weighs", tip="Leaf with what is fixed to it"))
            forms.append(Form(self.session, "The hatch", rows, "Stow", label_px=112))
        if one is not None and one.strut is not None:
            forms.append(Form(self.session, "Struts", strut_rows(one.path), "Stow", label_px=112))
        self.forms = forms
        if forms:
            self.cards = Columns(list(forms))
            self.side.insertWidget(1, self.cards, 1)
        self.fill.setVisible(not forms)

    def type_strut(self) -> list[Op]:
        """Ops that put an ordinary strut on the chosen lid, to be typed over."""
        one = self.chosen()
        return [set_to(f"{one.path}.strut", msgspec.to_builtins(Strut()))] if one is not None else []

    def _picked(self) -> None:
        at = self.table.marked()
        if not self._filling and at >= 0:
            self.session.select((self.model.rows[at].id,))

    def _follow(self) -> None:
        if self.isVisible():
            self.refresh()

    def refresh(self) -> None:
        self._filling = True
        self.model.set_rows(self.made(), lambda a, b: a.id == b.id)
        one = self.chosen()
        at = next((k for k, row in enumerate(self.model.rows) if one is not None and row.id == one.id), -1)
        self.table.mark(at)
        self._filling = False
        with focus_kept(self):
            self._build_form()
        for form in self.forms:
            form.refresh()
        if self.cards is not None:
            self.cards.settle()
        self.search_button.setEnabled(one is not None and one.turning is not None)
        self.none.setEnabled(one is not None and one.strut is not None)
        self.hand.setVisible(one is not None and bool(one.swings))
        self.says.setText(self._told(one))
        self.turning.update()
        self.hand.update()

    def _told(self, one: Hinged | None) -> str:
        if one is None or one.turning is None:
            return ""
        words = self._words()
        told = f"{words.kg(one.turning.mass_kg)}, centre {words.m(one.turning.r_m)} from the hinge."
        if one.added_kg:
            told += f" {words.kg(one.added_kg)} of it were fixed to it."
        if one.verdict is None:
            return words.told(f"{told} {upper_first(one.why)}.")
        if not one.verdict.fits:
            return f"{told} The strut would leave its stroke on the way."
        fails = [SAYS[what] for what in reversed(one.verdict.fails)]
        told += f" It {' and '.join(fails)}." if fails else " It holds in frost, goes up and comes down by hand, and stays shut."
        return told if one.second else f"{told} One strut alone: give it a second support."
