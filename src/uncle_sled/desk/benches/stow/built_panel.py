"""Built: cabinets and benches of boards, bed bases, pull-outs and winches; drawn as they are edited, with every board."""

from __future__ import annotations

from collections.abc import Hashable

from PySide6.QtCore import Qt

from uncle_sled.core.document.stow import Thing
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.stow.bed_drawn import bed_drawn
from uncle_sled.core.drawing.stow.cabinet_drawn import cabinet_drawn, piece_lines
from uncle_sled.core.findings.stow.cabinets import CAUTION
from uncle_sled.core.parts.all_parts import cabinets_of
from uncle_sled.core.parts.cabinet_cut import Fitted
from uncle_sled.core.studies.stow.carries import Carry, carries
from uncle_sled.core.words import Words, upper_first
from uncle_sled.desk.benches.stow.built_rows import sections_of
from uncle_sled.desk.kit.fields import TypedField
from uncle_sled.desk.kit.form import Form
from uncle_sled.desk.kit.panel import Group, Panel, across, rows
from uncle_sled.desk.kit.parts import Cards, Drawing, Fields, Listed, Remade, Says, Scrolled, note
from uncle_sled.desk.kit.table import Column

EMPTY = {"plinth": "none", "width": "shares the rest"}
COULD = ("cabinet", "bed", "furniture", "appliance")  # kinds that are offered here; others as soon as they have something
SIDE_PX, LABEL_PX, MOST_PIECES, MOST_CHECKS = 306, 86, 40, 6


def of_boards(thing: Thing) -> bool:
    """Whether a thing has anything that belongs here."""
    return any((thing.cabinet, thing.base, thing.lid, thing.winch, thing.pull_out))


class BuiltPanel(Panel):
    follows = ("selected", "changed", "case_changed")

    def laid(self) -> Group:
        columns: tuple[Column[Thing], ...] = (
            Column("Thing", lambda thing: thing.name, ink=self._ink),
            Column("Made as", self._made_as),
            Column("Weighs", lambda thing: self.words.kg(self.kg(thing)), right=True, sort=self.kg),
        )
        self.chart = self.put(
            Drawing("The cabinet from the front, the side, above and in three directions", self._shapes, "", self._why, share=5)
        )
        self.table = self.put(
            Listed[Thing](
                "What can be made of boards",
                columns,
                self.things,
                lambda thing: thing.id,
                lambda thing: self.session.select((thing.id,)),
                lambda thing: (chosen := self.chosen()) is not None and thing.id == chosen.id,
                share=1,
            )
        )
        self.pieces = self.put(Says(self._told, face="small"))
        self.pieces.setAlignment(Qt.AlignmentFlag.AlignTop)
        left = rows(
            self.chart,
            across(self.table, Scrolled(self.pieces, when=lambda: bool(self._told()), share=1), gap=8, share=3),
            Says(self._carried, face="small"),
            note(CAUTION),
            gap=5,
            share=1,
        )
        return across(left, Remade(self._shape, self._cards, wide=SIDE_PX), gap=8)

    def kg(self, thing: Thing) -> float:
        part = next((p for p in self.session.studied.parts if p.id == thing.id), None)
        return part.mass_kg if part is not None else thing.mass.si

    def _ink(self, thing: Thing) -> str:
        board = cabinets_of(self.session.build, self.session.project.facts).get(thing.id)
        return "primer" if board is not None and board.faults else ""

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
        thing = self.chosen()
        return cabinets_of(self.session.build, self.session.project.facts).get(thing.id) if thing is not None else None

    # the drawing
    def _why(self) -> str:
        thing, made = self.chosen(), self.made()
        if thing is None:
            return "Nothing here is made of boards yet: add a cabinet or a bed on Drawing."
        if made is not None and made.faults:
            return self.session.told(f"{upper_first(made.faults[0])}.")
        return f"{thing.name} is a box with a typed weight. Make it of boards (at the right): every board is drawn, weighed and goes to the saw."

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        thing, made = self.chosen(), self.made()
        if thing is not None and thing.cabinet is None and thing.base is not None:
            said = tuple(check for check in carries(self.session.studied) if check.thing == thing.id)
            return bed_drawn(thing, said, self.words, width, height)
        if thing is None or thing.cabinet is None or made is None:
            return ()
        return cabinet_drawn(made, thing.cabinet, self.words, width, height)

    # the form
    def _shape(self) -> Hashable | None:
        thing = self.chosen()
        if thing is None:
            return None
        cabinet = thing.cabinet
        bays = (tuple(bay.id for bay in cabinet.bays), tuple(hole.id for hole in cabinet.holes)) if cabinet else None
        return thing.id, bays, *(getattr(thing, name) is not None for name in ("base", "pull_out", "lid", "winch"))

    def _cards(self) -> Cards:
        thing = self.chosen()
        assert thing is not None
        return Cards([Fields(title, fields, "Stow", LABEL_PX) for title, fields in sections_of(self.session, thing)])

    def refreshed(self) -> None:
        for form in self.findChildren(Form):
            for row, _, field in form.rows:
                says = EMPTY.get(row.path.rpartition(".")[2])
                if says and isinstance(field, TypedField) and field.value is None:
                    field.setPlaceholderText(says)

    def _told(self) -> str:
        made = self.made()
        if made is None or not made.good:
            return ""
        words = self.words
        lines = piece_lines(made, words, MOST_PIECES)
        cut = f" Cut to fit: {', '.join(id for id, _ in made.by[:4])}{' and more' if len(made.by) > 4 else ''}." if made.by else ""
        pockets = f" {made.carcass.pockets} pocket holes." if made.carcass.pockets else ""
        thing = self.chosen()
        typed = "" if thing is None or thing.source == "computed" else f" {words.kg(thing.mass.si)} as typed counts (Known by, In hand)."
        return f"{len(made.boards)} boards, {words.kg(made.mass_kg)} with fittings.{typed}{cut}{pockets}\n" + "\n".join(lines)

    def _carried(self) -> str:
        thing, words = self.chosen(), self.words
        said = [check for check in carries(self.session.studied) if thing is not None and check.thing == thing.id]
        said.sort(key=lambda check: (check.use is not None, -(check.use or 0.0)))  # what nobody checked, then the worst
        lines = [_line(check, words) for check in said[:MOST_CHECKS]]
        return "\n".join(lines)


def _line(check: Carry, _words: Words) -> str:
    if check.use is None:
        return f"{check.name}: not checked, {check.why}."
    verdict = "holds" if check.use <= 1 else "too weak"
    return f"{check.name}: {check.use * 100:.0f} % of what is allowed, {verdict}. {check.how[:1].upper()}{check.how[1:]}."
