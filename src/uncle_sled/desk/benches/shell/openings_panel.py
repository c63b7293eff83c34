"""The openings view's lower half: every hole in the skin, the face of the chosen one, and a cut through its jamb."""

from __future__ import annotations

from uncle_sled.core.document.shell import Opening
from uncle_sled.core.drawing.primitives import Primitive, Text, placed
from uncle_sled.core.drawing.shell.jamb import jamb, leaf_words
from uncle_sled.core.drawing.shell.leaf_drawn import bent_leaf_drawn
from uncle_sled.core.drawing.shell.shell_views import opening_number
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.leaf import leaf_in
from uncle_sled.core.parts.leaf_side import leaf_side
from uncle_sled.core.studies.shell.holes import SEALS, Hole, holes
from uncle_sled.desk.benches.shell.flat_view import FlatView
from uncle_sled.desk.kit.panel import Group, Panel, across, rows
from uncle_sled.desk.kit.parts import Drawing, Listed, Own, Says
from uncle_sled.desk.kit.table import Column

PLACES_PX, DRIP_PX = 520, 400  # of the table: where there is less, places are read In hand and on the drawing


class OpeningsPanel(Panel):
    follows = ("selected",)

    def laid(self) -> Group:
        columns: tuple[Column[Hole], ...] = (
            Column("No.", lambda hole: opening_number(self.session.build.shell, hole.opening.id), right=True),
            Column("Opening", lambda hole: hole.opening.name, ink=self._bad),
            Column("Face", lambda hole: hole.opening.face),
            Column("From front", lambda hole: self.words.cut(hole.opening.along.si), right=True, from_px=PLACES_PX),
            Column("Sill", lambda hole: self.words.cut(hole.opening.up.si), right=True, from_px=PLACES_PX),
            Column("Clear opening", self._clear),
            Column("Seal", lambda hole: SEALS[hole.opening.seal]),
            Column("Drip edge", _drip, ink=lambda hole: "primer" if _drip(hole) == "none yet" else "", from_px=DRIP_PX),
        )
        session = self.session
        self.table = self.put(
            Listed[Hole](
                "Openings and holes",
                columns,
                lambda: holes(self.studied),
                lambda hole: hole.opening.id,
                lambda hole: session.select((hole.opening.id,)),
                lambda hole: hole.opening.id in session.selection,
                share=1,
            )
        )
        self.flat = self.put(Own(lambda: FlatView(session), share=1))
        self.jamb = self.put(
            Drawing("Through the jamb of the chosen door", self._jamb, when=lambda: self._chosen_leaf() is not None, share=1)
        )
        self.rib = self.put(Drawing("The chosen hatch from its side", self._rib, when=self._bends, share=1))
        beside = rows(self.flat, self.rib, self.jamb, share=2)
        return across(rows(self.table, Says(self._told, "pencil", "small"), gap=3, share=5), beside, gap=8)

    def refreshed(self) -> None:
        chosen = self.chosen()
        if chosen is not None:
            self.flat.show_kind(chosen.face)
        self.flat.setVisible(not self._bends())  # a leaf over a curve takes its room

    def chosen(self) -> Opening | None:
        return next((opening for opening in self.session.build.shell.openings if opening.id in self.session.selection), None)

    def _chosen_leaf(self) -> Opening | None:
        chosen = self.chosen()
        return chosen if chosen is not None and chosen.leaf is not None else None

    def _clear(self, hole: Hole) -> str:
        return f"{self.words.cut(hole.opening.width.si)} × {self.words.cut(hole.opening.height.si)}"

    def _bad(self, hole: Hole) -> str:
        return "primer" if any(hole.opening.id in fault.where for fault in self.studied.framed.faults) else ""

    def _jamb(self, width: float, height: float) -> tuple[Primitive, ...]:
        """A cut through the jamb, as large as there is room; full size is on paper."""
        opening = self._chosen_leaf()
        if opening is None:
            return ()
        shapes, wide, high = jamb(self.studied, opening, self.words)
        if not shapes:
            return ()
        said, foot, room = ("Through the hinge line", 8.0, 36) if self._bends() else ("Through the jamb", 30.0, 52)
        scale = min((width - 24) / wide, (height - room) / high)
        foot += 0.0 if self._bends() else 0.02 * scale
        title = Text((12, height - 12), f"{said}; full size on paper", 11, "pencil", anchor="left")
        return (title, *placed(shapes, scale, 12, foot))

    def _bends(self) -> bool:
        opening = self._chosen_leaf()
        side = leaf_side(self.studied.framed, opening) if opening is not None else None
        return side is not None and side.bent

    def _rib(self, width: float, height: float) -> tuple[Primitive, ...]:
        """A hatch over a curve from its side: rib, cross-bars, skins."""
        opening = self._chosen_leaf()
        shapes, wide, high = bent_leaf_drawn(self.studied, opening, self.words) if opening is not None else ((), 0.0, 0.0)
        if not shapes:
            return ()
        scale = min((width - 24) / wide, (height - 30) / high)
        title = Text((12, height - 12), "From its side: a rib, the cross-bars on end", 11, "pencil", anchor="left")
        return (title, *placed(shapes, scale, 12 + (width - 24 - wide * scale) / 2, 6))

    def _told(self) -> str:
        opening = self._chosen_leaf()
        made = leaf_in(self.studied.framed, opening, library_of(self.session.facts.materials)) if opening is not None else None
        if made is not None:
            return leaf_words(made, self.words)
        found = holes(self.studied)
        if not found:
            return "Nothing is cut in yet. A door, a hatch, a window: Cut in…"
        many, roof = sum(hole.many for hole in found), sum(hole.many for hole in found if hole.on_roof)
        seam = sum(hole.seam_m for hole in found)
        return f"{many} hole{'s' * (many != 1)} in the skin, {roof} in the roof, {self.words.m(seam)} of seam. Drag one on the drawing; its face reframes."


def _drip(hole: Hole) -> str:
    return ("yes" if hole.opening.drip else "none yet") if hole.wants_drip else "not needed"
