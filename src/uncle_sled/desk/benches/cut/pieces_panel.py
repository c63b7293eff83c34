"""All pieces in a table beside the body: a row lights up where it belongs, and back."""

from __future__ import annotations

from uncle_sled.core.document.edits import set_to
from uncle_sled.core.drawing.cut.piece_map import piece_map
from uncle_sled.core.drawing.cut.work_words import board_work, ends_words, work_words
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.studies.cut.numbers import Named, Numbers, numbers_of
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.desk.benches.cut.bench import CutPanel
from uncle_sled.desk.benches.cut.piece_chart import PieceChart
from uncle_sled.desk.kit.panel import Group, across, rows
from uncle_sled.desk.kit.parts import Act, Choice, DrawingOf, Listed, Says, Split
from uncle_sled.desk.kit.table import Column

INKS = {"draft": "pencil", "changed": "primer", "as printed": ""}
NOTHING = "Nothing to cut yet: choose a school of framing or the layers of faces on Shell, or a cabinet to make here."


class PiecesPanel(CutPanel):
    def laid(self) -> Group:
        columns: tuple[Column[Named], ...] = (
            Column(
                "No",
                lambda numbered: numbered.label,
                sort=lambda numbered: numbered.order,
                ink=lambda numbered: INKS[numbered.standing],
                tip="Grey: a draft; red: changed since the print",
            ),
            Column("What", lambda numbered: numbered.piece.name, ink=lambda numbered: INKS[numbered.standing]),
            Column("Of", lambda numbered: numbered.piece.of),
            Column(
                "Length", lambda numbered: self._cut(numbered.piece.length_m), right=True, sort=lambda numbered: numbered.piece.length_m
            ),
            Column(
                "Width",
                lambda numbered: self._cut(numbered.piece.width_m) if numbered.piece.width_m else "",
                right=True,
                sort=lambda numbered: numbered.piece.width_m,
            ),
            Column("Ends", lambda numbered: ends_words(numbered.piece.ends_deg), right=True, tip="How far the saw is turned off square"),
            Column("Material", lambda numbered: self.words.material(numbered.piece.material)),
            Column("Note", self.note, ink=lambda numbered: "primer" if numbered.standing == "changed" else ""),
        )
        self.of = self.put(Choice("Which pieces", self._faces, lambda _: self.refresh(), tip="Pieces of one face or thing only", letters=9))
        self.table = self.put(
            Listed[Named](
                "Pieces", columns, self._rows, lambda numbered: numbered.piece.key, lambda numbered: self.bench.mark((numbered.piece.key,))
            )
        )
        self.map = self.put(DrawingOf("The body with its pieces", self._map, "Where it is", NOTHING, kind=PieceChart))
        self.map.over.connect(self._over)
        self.map.picked.connect(lambda key: self.bench.mark((key,) if key else ()))
        return rows(
            across(
                Act(
                    "Number and print",
                    "Give every piece its number for good (N); before that, numbers are drafts",
                    self.bench.number_and_print,
                    lambda: bool(self.numbers().named),
                ),
                self.of,
                Choice(
                    "Cabinets made here",
                    self._cabinets,
                    self.make_here,
                    lambda: "",
                    "A cabinet, bed or furniture of Stow that is made of sheets here, and not bought; choose it again to buy it",
                    10,
                ),
                Says(lambda: self._told(self.numbers()), "pencil", "small", share=1),
            ),
            Split((self.map, self.table), (250, 300), share=1),
        )

    def _rows(self) -> list[Named]:
        of = self.of.currentData()
        return sorted(
            (numbered for numbered in self.numbers().named if not of or numbered.piece.of == of), key=lambda numbered: numbered.order
        )

    def numbers(self) -> Numbers:
        return numbers_of(self.session.build, self.session.project.facts)

    def _cut(self, metres: float) -> str:
        return self.words.cut(metres)

    def note(self, numbered: Named) -> str:
        told = [] if numbered.standing != "changed" else ["changed since the print"]
        piece = numbered.piece
        worked = work_words(piece, self.words) if piece.kind == "bar" else board_work(piece, self.words)
        told += [worked] if worked else []
        if numbered.piece.pair:
            told.append("mirrored pair")
        if numbered.piece.kind == "fill":
            told.append(self.session.told("by knife, {3 mm} over"))
        if numbered.piece.grain != "any":
            told.append(f"grain {numbered.piece.grain}")
        return ", ".join(told)

    def _map(self, width: float, height: float) -> tuple[Primitive, ...]:
        numbers = self.numbers()
        return piece_map(self.session.studied.framed, numbers, self.bench.marked, width, height - 16) if numbers.named else ()

    def _over(self, key: str) -> None:
        if key:
            self.bench.mark((key,))

    def marked(self) -> None:
        self.map.renew()
        self.table.mark_only(next((k for k, numbered in enumerate(self.table.rows) if numbered.piece.key in self.bench.marked), -1))

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

    def _faces(self) -> list[tuple[object, str]]:
        names = {thing.id: thing.name for thing in self.session.build.stow.things}
        faces = dict.fromkeys(numbered.piece.of for numbered in self.numbers().named)
        return [("", "all of it"), *((face, names.get(face, face)) for face in faces)]

    def _cabinets(self) -> list[tuple[object, str]]:
        """Things that can be made of sheets here; nothing to choose where there are none."""
        made = self.session.build.cut.made
        things = [
            (thing.id, ("made here: " if thing.id in made else "bought: ") + thing.name)
            for thing in self.session.build.stow.things
            if thing.kind in ("cabinet", "furniture", "bed")
        ]
        return [("", "cabinets …"), *things] if things else []

    def make_here(self, id: object) -> None:
        made = self.session.build.cut.made
        if not id:
            return
        after = tuple(one for one in made if one != id) if id in made else (*made, str(id))
        name = next(thing.name for thing in self.session.build.stow.things if thing.id == id)
        self.session.edit(f"{name}: {'bought' if id in made else 'made here'}", [set_to("cut.made", list(after))], "Cut")
