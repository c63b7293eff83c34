"""Templates at full size: which there are, how many sheets each takes, the map of them, the printer's bar, and the files."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

import msgspec
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from uncle_sled.core.document.edits import set_to
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.drawing.cut.templates import Template, templates_of
from uncle_sled.core.drawing.cut.tiles import PAPERS, map_shapes, signed_off, tiling
from uncle_sled.core.drawing.primitives import Primitive, Text
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.errors import GeometryError
from uncle_sled.core.words import Words
from uncle_sled.desk.benches.bench import Bench
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.fields import ChoiceField, QuantityField, label
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.table import Column, Table, TableModel
from uncle_sled.desk.session import Session

CAUTION = "A print that is off spoils a sheet: measure the bar first. Mask against dust, a helper for long pieces."


class TemplatesPanel(Guarded, QWidget):
    def __init__(self, session: Session, bench: Bench) -> None:
        super().__init__()
        self.session, self.bench = session, bench
        self.paper = "Letter" if session.build.brief.region == "North American" else "A4"
        rows = QVBoxLayout(self)
        rows.setContentsMargins(0, 0, 0, 0)
        rows.setSpacing(5)
        tools = QHBoxLayout()
        tools.setSpacing(6)
        self.papers = ChoiceField("Paper", [(name, Words(session.shown).material(name)) for name in PAPERS])
        self.papers.setMinimumContentsLength(12)
        self.papers.setToolTip("What the printer takes; rolls are as long as is wanted")
        self.papers.entered.connect(lambda name: self.show_paper(str(name)))
        self.bar = QuantityField(Length, "The 100 mm bar measures", lambda: session.shown, True, 0.0)
        self.bar.setFixedWidth(96)
        self.bar.explain(session.told("Of the 100 mm bar on a print of your printer: {0.2 mm} off, and it is not signed off"))
        self.bar.entered.connect(self.take_bar)
        self.one = self._button("This one as PDF…", "The chosen template over its sheets", lambda: self.write("templates-pdf", self._ids()))
        self.all = self._button("All as PDF…", "Sides, inner panels, tubes and jigs", lambda: self.write("templates-pdf", ()))
        self.set = self._button(
            "Drawing set…", "All working drawings as one PDF with contents and revision", partial(self.write, "set-pdf", ())
        )
        self.down = self._button(
            "Write it down", "The set as it is now counts as printed: the next one marks what changed", self.write_down
        )
        tools.addWidget(label("Paper", "", "pencil"))
        tools.addWidget(self.papers)
        tools.addWidget(label("Bar measures", "", "pencil"))
        tools.addWidget(self.bar)
        tools.addStretch(1)
        rows.addLayout(tools)
        tools = QHBoxLayout()
        tools.setSpacing(6)
        for button in (self.one, self.all, self.set, self.down):
            tools.addWidget(button)
        tools.addStretch(1)
        rows.addLayout(tools)
        self.says = label("", "", "ink", wrap=True)
        rows.addWidget(self.says)
        across = QHBoxLayout()
        across.setSpacing(8)
        self.model = TableModel[Template](
            (
                Column("Template", lambda one: session.told(f"{one.name} ({one.side})" if one.side else one.name)),
                Column("Pieces", lambda one: ", ".join(one.numbers)),
                Column("Sheets", self._sheets, right=True, sort=self._many),
            )
        )
        self.table = Table(self.model, "Templates of this build")
        self.table.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        across.addWidget(self.table, 3)
        self.sheets = Chart(session, "The map of the sheets", self._shapes, "", self._why)
        across.addWidget(self.sheets, 2)
        self.table.selectionModel().selectionChanged.connect(lambda *_: self.sheets.update())
        rows.addLayout(across, 1)
        rows.addWidget(label(CAUTION, "small", "pencil", wrap=True))

    def _button(self, text: str, tip: str, does: Callable[[], object]) -> QPushButton:
        button = QPushButton(text)
        button.setToolTip(tip)
        button.clicked.connect(lambda _=False: does())
        return button

    def _words(self) -> Words:
        return Words(self.session.shown)

    def _size(self, one: Template) -> str:
        return f"{self._words().cut(one.drawn.wide)} × {self._words().cut(one.drawn.high)}"

    def _many(self, one: Template) -> int:
        try:
            return tiling(one.drawn.wide, one.drawn.high, PAPERS[self.paper]).many
        except GeometryError:
            return 10_000

    def _sheets(self, one: Template) -> str:
        many = self._many(one)
        return str(many) if many < 10_000 else "too many"

    def chosen(self) -> Template | None:
        at = self.table.marked()
        made = self.model.rows
        return made[at] if at >= 0 else made[0] if made else None

    def _ids(self) -> tuple[str, ...]:
        one = self.chosen()
        return (one.id,) if one is not None else ()

    # the drawing
    def _why(self) -> str:
        one = self.chosen()
        if one is None:
            return "No template yet: a drawn side, a board with an outline of its own, or a folded tube is wanted."
        try:
            tiling(one.drawn.wide, one.drawn.high, PAPERS[self.paper])
        except GeometryError as fault:
            return str(fault)
        return ""

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        one = self.chosen()
        if one is None or min(width, height) < 60 or self._why():
            return ()
        plan = tiling(one.drawn.wide, one.drawn.high, PAPERS[self.paper])
        scale = min((width - 32) / one.drawn.wide, (height - 76) / one.drawn.high)
        x, y = (width - one.drawn.wide * scale) / 2, (height - 44 - one.drawn.high * scale) / 2
        told = f"{self._size(one)}; {plan.many} of {self.paper}: {plan.across} across, {plan.up} up"
        lines = [
            Text((14, height - 16 - 15 * k), text, 11, "ink", anchor="left")
            for k, text in enumerate((elided(self.session.told(one.title), 11, width - 28), told))
        ]
        return (*map_shapes(one.drawn, plan, scale, x, y), *lines)

    # edits and files
    def show_paper(self, name: str) -> None:
        self.paper = name
        self.refresh()

    def take_bar(self, value: Length | None) -> None:
        """What the bar on a print measures: of the printer, kept with the build."""
        self.session.edit(
            "The bar measures " + (value.text(self.session.shown) if value else "nothing"),
            [set_to("cut.bar_measured", msgspec.to_builtins(value))],
            "Cut",
        )

    def write(self, kind: str, ids: tuple[str, ...]) -> None:
        self.bench.window().export(kind, (ids, self.paper))  # type: ignore[attr-defined]

    def write_down(self) -> None:
        from uncle_sled.exchange.drawing_set import printed_ops

        s = self.session.studied
        self.session.edit("Write the drawing set down", list(printed_ops(s, self.session.project.name)), "Cut")

    def refresh(self) -> None:
        made = templates_of(self.session.studied)
        self.model.set_rows(made, lambda a, b: a.id == b.id)
        if made and self.table.marked() < 0:
            self.table.selectRow(0)
        self.papers.show_value(self.paper)
        cut = self.session.build.cut
        self.bar.show_value(cut.bar_measured)
        wrong = signed_off(cut.bar_measured.si if cut.bar_measured else None)
        told = "The bar is true: prints of this printer are signed off." if not wrong else f"Not signed off: {wrong}."
        revision = f" Drawings: revision {chr(65 + cut.revision % 26)} is next." if cut.revision else ""
        self.says.setText(told + revision)
        for button in (self.one, self.all):
            button.setEnabled(bool(made))
        self.sheets.update()
