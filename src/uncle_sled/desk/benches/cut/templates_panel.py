"""Templates at full size: which there are, how many sheets each takes, the map of them, the printer's bar, and the files."""

from __future__ import annotations

import msgspec

from uncle_sled.core.document.edits import set_to
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.drawing.cut.templates import Template, templates_of
from uncle_sled.core.drawing.cut.tiles import PAPERS, has_map, map_shapes, signed_off, tiling
from uncle_sled.core.drawing.paper import paper_of
from uncle_sled.core.drawing.primitives import Primitive, Text
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.errors import GeometryError
from uncle_sled.desk.benches.cut.bench import CutBench, CutPanel
from uncle_sled.desk.kit.fields import QuantityField
from uncle_sled.desk.kit.panel import Group, across, rows, tools
from uncle_sled.desk.kit.parts import Act, Choice, Drawing, Listed, Own, Says, note
from uncle_sled.desk.kit.table import Column
from uncle_sled.desk.session import Session

CAUTION = "A print that is off spoils a sheet: measure the bar first. Mask against dust, a helper for long pieces."


class TemplatesPanel(CutPanel):
    def laid(self) -> Group:
        columns: tuple[Column[Template], ...] = (
            Column(
                "Template", lambda template: self.session.told(f"{template.name} ({template.side})" if template.side else template.name)
            ),
            Column("Pieces", lambda template: ", ".join(template.numbers)),
            Column("Sheets", self._sheets, right=True, sort=self.many),
        )
        self.bar = self.put(Own(self._bar, self._show_bar, wide=96))
        self.sheets = self.put(Drawing("The map of the sheets", self._shapes, "", self._why, share=2))
        self.table = self.put(
            Listed[Template](
                "Templates of this build", columns, self.templates, lambda template: template.id, lambda _: self.sheets.update(), share=3
            )
        )
        any_ = lambda: bool(self.templates())
        return rows(
            tools(
                Says("Paper", "pencil"),
                Choice(
                    "Paper",
                    [(name, self.words.material(name)) for name in PAPERS],
                    lambda name: self.show_paper(str(name)),
                    lambda: self.paper,
                    "What the printer takes; rolls are as long as is wanted",
                    12,
                ),
                Says("100 mm bar on my print", "pencil"),
                self.bar,
            ),
            tools(
                Act(
                    "This one as PDF…",
                    "The chosen template over its sheets",
                    lambda: self.write("templates-pdf", self._ids()),
                    any_,
                    plain=True,
                ),
                Act(
                    "Look and print …",
                    "The chosen template, sheet by sheet",
                    lambda: self.look("templates-pdf", (self._ids(), self.paper)),
                    any_,
                    plain=True,
                ),
                Act("All as PDF…", "Sides, inner panels, tubes and jigs", lambda: self.write("templates-pdf", ()), any_, plain=True),
                Act(
                    "Drawing set…",
                    "All working drawings as one PDF with contents and revision",
                    lambda: self.write("set-pdf", ()),
                    plain=True,
                ),
                Act(
                    "It is printed", "The set as it is now counts as printed: the next one marks what changed", self.write_down, plain=True
                ),
            ),
            Says(self._told),
            across(self.table, self.sheets, gap=8, share=1),
            note(CAUTION),
            gap=5,
        )

    def templates(self) -> tuple[Template, ...]:
        return templates_of(self.studied)

    def _bar(self) -> QuantityField:
        made = QuantityField(Length, "The 100 mm bar measures", lambda: self.session.shown, may_be_empty=True, least=0.0)
        made.explain(self.session.told("Of the 100 mm bar on a print of your printer: {0.2 mm} off, and it is not signed off"))
        made.entered.connect(self.take_bar)
        return made

    def _show_bar(self, bar: QuantityField) -> None:
        bar.show_value(self.session.build.cut.bar_measured)

    def __init__(self, session: Session, bench: CutBench) -> None:
        self.paper = paper_of(session.build).name
        super().__init__(session, bench)

    def _size(self, template: Template) -> str:
        return f"{self.words.cut(template.drawn.wide)} × {self.words.cut(template.drawn.high)}"

    def many(self, template: Template) -> int:
        try:
            plan = tiling(template.drawn, PAPERS[self.paper])
            return plan.many + has_map(template.drawn, plan)
        except GeometryError:
            return 10_000

    def _sheets(self, template: Template) -> str:
        many = self.many(template)
        return str(many) if many < 10_000 else "too many"

    def chosen(self) -> Template | None:
        return self.table.row() or next(iter(self.table.rows), None)

    def _ids(self) -> tuple[str, ...]:
        template = self.chosen()
        return (template.id,) if template is not None else ()

    # the drawing
    def _why(self) -> str:
        template = self.chosen()
        if template is None:
            return "No template yet: a drawn side, a board with an outline of its own, or a folded tube is wanted."
        try:
            tiling(template.drawn, PAPERS[self.paper])
        except GeometryError as fault:
            return str(fault)
        return ""

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        template = self.chosen()
        if template is None or min(width, height) < 60 or self._why():
            return ()
        plan = tiling(template.drawn, PAPERS[self.paper])
        scale = min((width - 32) / template.drawn.wide, (height - 76) / template.drawn.high)
        x, y = (width - template.drawn.wide * scale) / 2, (height - 44 - template.drawn.high * scale) / 2
        told = f"{self._size(template)}; {plan.many} of {self.paper}" + (" and their map" if has_map(template.drawn, plan) else "")
        lines = [
            Text((14, height - 16 - 15 * k), text, 11, "ink", anchor="left")
            for k, text in enumerate((elided(self.session.told(template.title), 11, width - 28), told))
        ]
        return (*map_shapes(template.drawn, plan, scale, x, y), *lines)

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
        self.export(kind, (ids, self.paper))

    def write_down(self) -> None:
        from uncle_sled.exchange.drawing_set import printed_ops

        s = self.session.studied
        self.session.edit("Write the drawing set down", list(printed_ops(s, self.session.project.name)), "Cut")

    def _told(self) -> str:
        cut = self.session.build.cut
        wrong = signed_off(cut.bar_measured.si if cut.bar_measured else None)
        told = "The bar is true: prints of this printer are signed off." if not wrong else f"Not signed off: {wrong}."
        return told + (f" Drawings: revision {chr(65 + cut.revision % 26)} is next." if cut.revision else "")

    def refreshed(self) -> None:
        if self.table.rows and self.table.marked() < 0:
            self.table.mark_only(0)
