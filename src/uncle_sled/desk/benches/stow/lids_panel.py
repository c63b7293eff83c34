"""Lids: hatches, lids and lifting beds turning on their struts, with the hand's force over the angle in frost and heat."""

from __future__ import annotations

from collections.abc import Hashable

import msgspec

from uncle_sled.core.document.edits import Op, set_to
from uncle_sled.core.document.joinery import Strut
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.stow.lid_around import lid_around
from uncle_sled.core.drawing.stow.lid_drawn import hand_chart, lid_drawn
from uncle_sled.core.findings.stow.cabinets import STRUT_CAUTION
from uncle_sled.core.studies.stow.hinged import Hinged, hinged
from uncle_sled.core.studies.stow.struts import HOLD_SHARE, SAYS, search
from uncle_sled.core.words import upper_first
from uncle_sled.desk.benches.stow.built_rows import strut_rows
from uncle_sled.desk.kit.form import Row, plain
from uncle_sled.desk.kit.panel import Group, Panel, across, rows
from uncle_sled.desk.kit.parts import Act, Cards, Drawing, Fields, Listed, Remade, Says, note
from uncle_sled.desk.kit.table import Column

SIDE_PX = 262


class LidsPanel(Panel):
    follows = ("selected", "changed", "case_changed")

    def laid(self) -> Group:
        columns: tuple[Column[Hinged], ...] = (
            Column("Turns up", lambda leaf: leaf.name),
            Column("Weighs", lambda leaf: self.words.kg(leaf.turning.mass_kg) if leaf.turning else "not known", right=True),
            Column("In frost", self._holds, ink=self._ink),
            Column("Raise, shut", self._hands, right=True),
        )
        self.table = self.put(
            Listed[Hinged](
                "Hatches and lids",
                columns,
                self.made,
                lambda leaf: leaf.id,
                lambda leaf: self.session.select((leaf.id,)),
                lambda leaf: (chosen := self.chosen()) is not None and leaf.id == chosen.id,
            )
        )
        self.table.setMaximumHeight(120)
        self.turning = self.put(Drawing("The leaf turning on its struts", self._turning, "", self._why, share=3))
        self.hand = self.put(
            Drawing(
                "The hand's force over the angle",
                self._hand,
                when=lambda: (leaf := self.chosen()) is not None and bool(leaf.swings),
                share=2,
            )
        )
        side = rows(
            across(
                Act(
                    "Find struts",
                    "Over the sizes and forces that are sold and over mounts: what meets every limit with the weakest struts",
                    self.find_struts,
                    lambda: (leaf := self.chosen()) is not None and leaf.turning is not None,
                    plain=True,
                ),
                Act(
                    "No struts",
                    "Take the struts off again",
                    self.take_off,
                    lambda: (leaf := self.chosen()) is not None and leaf.strut is not None,
                    plain=True,
                ),
            ),
            Remade(self._shape, self._cards, share=1),
            gap=5,
            wide=SIDE_PX,
        )
        left = rows(self.table, across(self.turning, self.hand, gap=8, share=1), Says(self._told), note(STRUT_CAUTION), gap=5, share=1)
        return across(left, side, gap=8)

    def _hands(self, leaf: Hinged) -> str:
        words = self.words
        return f"{words.fine_newtons(leaf.verdict.raise_n)}, {words.fine_newtons(leaf.verdict.close_n)}" if leaf.verdict else ""

    def _holds(self, leaf: Hinged) -> str:
        if leaf.verdict is None:
            return "not checked"
        if leaf.verdict.hold_share is None:
            return "past upright"
        return f"{leaf.verdict.hold_share * 100:.0f} %, want {HOLD_SHARE * 100:.0f}"

    def _ink(self, leaf: Hinged) -> str:
        bad = leaf.verdict is not None and (not leaf.verdict.fits or "hold" in leaf.verdict.fails)
        return "primer" if bad else "pencil" if leaf.verdict is None else ""

    def made(self) -> tuple[Hinged, ...]:
        return hinged(self.session.studied)

    def chosen(self) -> Hinged | None:
        made = self.made()
        return next((leaf for leaf in made if leaf.id in self.session.selection), made[0] if made else None)

    # drawings
    def _why(self) -> str:
        leaf = self.chosen()
        if leaf is None:
            return "No hatch is hung at its top yet (Openings, on Shell), and no thing has a lid (Built)."
        return self.session.told(f"{leaf.name}: {leaf.why}.")

    def _turning(self, width: float, height: float) -> tuple[Primitive, ...]:
        leaf = self.chosen()
        return lid_drawn(leaf, self.words, width, height, around=lid_around(self.session.studied, leaf)) if leaf is not None else ()

    def _hand(self, width: float, height: float) -> tuple[Primitive, ...]:
        leaf = self.chosen()
        return hand_chart(leaf, self.words, width, height) if leaf is not None else ()

    # edits
    def find_struts(self) -> None:
        leaf = self.chosen()
        if leaf is None or leaf.turning is None:
            return
        found = search(leaf.turning, max(leaf.strut.many, 2) if leaf.strut is not None else 2)
        if found is None:
            self.session.said.emit(
                f"No strut that is sold stays within its stroke while the {leaf.name.lower()} turns {leaf.turning.opens_deg:.0f}°.", "note"
            )
            return
        words = self.words
        self.session.edit(
            f"Struts of {words.fine_newtons(found.strut.force_n)} on the {leaf.name.lower()}",
            [set_to(f"{leaf.path}.strut", msgspec.to_builtins(found.strut))],
            "Stow",
            (leaf.id,),
        )
        if found.verdict.fails:
            told = ", ".join(SAYS[what] for what in found.verdict.fails)
            self.session.said.emit(f"None of those tried meets every limit: with the nearest the {leaf.name.lower()} {told}.", "note")

    def take_off(self) -> None:
        leaf = self.chosen()
        if leaf is not None and leaf.strut is not None:
            self.session.edit(f"No struts on the {leaf.name.lower()}", [set_to(f"{leaf.path}.strut", None)], "Stow", (leaf.id,))

    # the form
    def _shape(self) -> Hashable | None:
        leaf = self.chosen()
        return (leaf.id, leaf.strut is not None) if leaf is not None else None

    def _cards(self) -> Cards:
        leaf = self.chosen()
        assert leaf is not None
        cards = []
        if leaf.path.endswith(".lid"):
            cards.append(Fields("The lid", plain(leaf.path), "Stow", 112))
        else:
            fields = [Row(f"{leaf.path}.open_deg")]
            opening = next((o for o in self.session.build.shell.openings if o.id == leaf.id), None)
            if opening is not None and opening.leaf is not None:
                fields.append(Row(f"{leaf.path}.leaf.hangs_on", least=0.5))
            else:
                fields.append(Row(f"{leaf.path}.mass", title="Weighs", tip="Leaf with what is fixed to it"))
            cards.append(Fields("The hatch", fields, "Stow", 112))
        if leaf.strut is not None:
            cards.append(Fields("Struts", strut_rows(leaf.path), "Stow", 112))
        return Cards(cards)

    def type_strut(self) -> list[Op]:
        """Ops that put an ordinary strut on the chosen lid, to be typed over."""
        leaf = self.chosen()
        return [set_to(f"{leaf.path}.strut", msgspec.to_builtins(Strut()))] if leaf is not None else []

    def _told(self) -> str:
        leaf = self.chosen()
        if leaf is None or leaf.turning is None:
            return ""
        words = self.words
        told = f"{words.kg(leaf.turning.mass_kg)}, centre {words.m(leaf.turning.r_m)} from the hinge."
        if leaf.added_kg:
            told += f" {words.kg(leaf.added_kg)} of it were fixed to it."
        if leaf.verdict is None:
            return words.told(f"{told} {upper_first(leaf.why)}.")
        if not leaf.verdict.fits:
            return f"{told} The strut would leave its stroke on the way."
        fails = [SAYS[what] for what in reversed(leaf.verdict.fails)]
        told += f" It {' and '.join(fails)}." if fails else " It holds in frost, goes up and comes down by hand, and stays shut."
        return told if leaf.second else f"{told} One strut alone: give it a second support."
