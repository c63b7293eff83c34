"""Built: cabinets and benches of boards, bed bases, pull-outs and winches; drawn as they are edited, with every board."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QHBoxLayout, QScrollArea, QVBoxLayout, QWidget

from uncle_sled.core.document.stow import Thing
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.stow.bed_drawn import bed_drawn
from uncle_sled.core.drawing.stow.cabinet_drawn import cabinet_drawn, piece_lines
from uncle_sled.core.findings.stow.built import CAUTION
from uncle_sled.core.parts.all_parts import cabinets_of
from uncle_sled.core.parts.cabinet_cut import Fitted
from uncle_sled.core.studies.stow.carries import Carry, carries
from uncle_sled.core.words import Words, upper_first
from uncle_sled.desk.benches.stow.built_rows import sections_of
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.columns import Columns
from uncle_sled.desk.kit.fields import QuantityField, label
from uncle_sled.desk.kit.form import Form
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.refocus import focus_kept
from uncle_sled.desk.kit.table import Column, Table, TableModel
from uncle_sled.desk.kit.taken_away import take_away
from uncle_sled.desk.session import Session

EMPTY = {"plinth": "none", "width": "shares the rest"}
COULD = ("cabinet", "bed", "furniture", "appliance")  # kinds that are offered here; others as soon as they have something
SIDE_PX, LABEL_PX, MOST_PIECES, MOST_CHECKS = 306, 86, 40, 6


def of_boards(thing: Thing) -> bool:
    """Whether a thing has anything that belongs here."""
    return any((thing.cabinet, thing.base, thing.lid, thing.winch, thing.pull_out))


class BuiltPanel(Guarded, QWidget):
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
        self.chart = Chart(session, "The cabinet from the front, the side, above and in three directions", self._shapes, "", self._why)
        left.addWidget(self.chart, 5)
        under = QHBoxLayout()
        under.setSpacing(8)
        self.model = TableModel[Thing](
            (
                Column("Thing", lambda one: one.name, ink=self._ink),
                Column("Made as", self._made_as),
                Column("Weighs", lambda one: self._words().kg(self._kg(one)), right=True, sort=self._kg),
            )
        )
        self.table = Table(self.model, "What can be made of boards")
        self.table.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.table.selectionModel().selectionChanged.connect(lambda *_: self._picked())
        under.addWidget(self.table, 1)
        self.pieces = label("", "small", "ink", wrap=True)
        self.pieces.setAlignment(Qt.AlignmentFlag.AlignTop)
        self.paper = paper = QScrollArea()
        paper.setWidgetResizable(True)
        paper.setWidget(self.pieces)
        paper.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        under.addWidget(paper, 1)
        left.addLayout(under, 3)
        self.checks = label("", "small", "ink", wrap=True)
        left.addWidget(self.checks)
        self.caution = label(CAUTION, "small", "pencil", wrap=True)
        left.addWidget(self.caution)
        self.across.addLayout(left, 1)
        session.selected.connect(self._follow)
        session.changed.connect(self._follow)
        session.case_changed.connect(self._follow)

    def showEvent(self, event: object) -> None:
        self.refresh()

    def _words(self) -> Words:
        return Words(self.session.shown)

    def _kg(self, thing: Thing) -> float:
        part = next((p for p in self.session.studied.parts if p.id == thing.id), None)
        return part.mass_kg if part is not None else thing.mass.si

    def _ink(self, thing: Thing) -> str:
        one = cabinets_of(self.session.build, self.session.project.facts).get(thing.id)
        return "primer" if one is not None and one.faults else ""

    def _made_as(self, thing: Thing) -> str:
        made = [
            name
            for name, has in (
                ("boards", thing.cabinet),
                ("bed base", thing.base),
                ("lid", thing.lid),
                ("winch", thing.winch),
                ("pull-out", thing.pull_out),
            )
            if has
        ]
        return ", ".join(made) or "as typed"

    def things(self) -> list[Thing]:
        """Those that could be made of boards, what is made of them first."""
        all_of = [t for t in self.session.build.stow.things if not t.taken_out and (t.kind in COULD or of_boards(t))]
        return sorted(all_of, key=lambda t: (not of_boards(t), t.kind not in ("cabinet", "bed")))

    def chosen(self) -> Thing | None:
        things = self.things()
        return next((t for t in things if t.id in self.session.selection), things[0] if things else None)

    def made(self) -> Fitted | None:
        one = self.chosen()
        return cabinets_of(self.session.build, self.session.project.facts).get(one.id) if one is not None else None

    # the drawing
    def _why(self) -> str:
        one, made = self.chosen(), self.made()
        if one is None:
            return "Nothing here is made of boards yet: add a cabinet or a bed on Drawing."
        if made is not None and made.faults:
            return self.session.told(f"{upper_first(made.faults[0])}.")
        return (
            f"{one.name} is a box with a typed weight. Make it of boards (at the right): every board is drawn, weighed and goes to the saw."
        )

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        one, made = self.chosen(), self.made()
        if one is not None and one.cabinet is None and one.base is not None:
            said = tuple(check for check in carries(self.session.studied) if check.thing == one.id)
            return bed_drawn(one, said, self._words(), width, height)
        if one is None or one.cabinet is None or made is None:
            return ()
        return cabinet_drawn(made, one.cabinet, self._words(), width, height)

    # the form
    def _shape(self, one: Thing | None) -> object:
        if one is None:
            return None
        cabinet = one.cabinet
        bays = (tuple(bay.id for bay in cabinet.bays), tuple(hole.id for hole in cabinet.holes)) if cabinet else None
        return one.id, bays, *(getattr(one, name) is not None for name in ("base", "pull_out", "lid", "winch"))

    def _build_form(self) -> None:
        one = self.chosen()
        shape = self._shape(one)
        if shape == self._form_of:
            return
        self._form_of = shape
        take_away(self.across, self.cards)
        self.cards, self.forms = None, []
        if one is None:
            return
        self.forms = [Form(self.session, title, rows, "Stow", label_px=LABEL_PX) for title, rows in sections_of(self.session, one)]
        self.cards = Columns(list(self.forms))
        self.cards.setFixedWidth(SIDE_PX)
        self.across.addWidget(self.cards)

    def _picked(self) -> None:
        at = self.table.marked()
        if not self._filling and at >= 0:
            self.session.select((self.model.rows[at].id,))

    def _follow(self) -> None:
        if self.isVisible():
            self.refresh()

    def refresh(self) -> None:
        self._filling = True
        self.model.set_rows(self.things(), lambda a, b: a.id == b.id)
        one = self.chosen()
        at = next((k for k, row in enumerate(self.model.rows) if one is not None and row.id == one.id), -1)
        self.table.mark(at)
        self._filling = False
        with focus_kept(self):
            self._build_form()
        for form in self.forms:
            form.refresh()
            for row, _, field in form.rows:
                says = EMPTY.get(row.path.rpartition(".")[2])
                if says and isinstance(field, QuantityField) and field.value is None:
                    field.setPlaceholderText(says)
        if self.cards is not None:
            self.cards.settle()
        self.pieces.setText(self._told())
        self.paper.setVisible(bool(self.pieces.text()))
        self.checks.setText(self._carried(one))
        self.chart.update()

    def _told(self) -> str:
        made = self.made()
        if made is None or not made.good:
            return ""
        words = self._words()
        lines = piece_lines(made, words, MOST_PIECES)
        cut = f" Cut to fit: {', '.join(id for id, _ in made.by[:4])}{' and more' if len(made.by) > 4 else ''}." if made.by else ""
        pockets = f" {made.carcass.pockets} pocket holes." if made.carcass.pockets else ""
        one = self.chosen()
        typed = "" if one is None or one.source == "computed" else f" {words.kg(one.mass.si)} as typed counts (Known by, In hand)."
        return f"{len(made.boards)} boards, {words.kg(made.mass_kg)} with fittings.{typed}{cut}{pockets}\n" + "\n".join(lines)

    def _carried(self, one: Thing | None) -> str:
        words = self._words()
        said = [check for check in carries(self.session.studied) if one is not None and check.thing == one.id]
        said.sort(key=lambda check: (check.use is not None, -(check.use or 0.0)))  # what nobody checked, then the worst
        lines = [_line(check, words) for check in said[:MOST_CHECKS]]
        return "\n".join(lines)


def _line(check: Carry, words: Words) -> str:
    if check.use is None:
        return f"{check.name}: not checked, {check.why}."
    verdict = "holds" if check.use <= 1 else "too weak"
    return f"{check.name}: {check.use * 100:.0f} % of what is allowed, {verdict}. {check.how[:1].upper()}{check.how[1:]}."
