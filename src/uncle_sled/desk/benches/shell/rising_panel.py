"""Roof up: a roof that rises where one camps, with what it opens, weighs, takes to lift, and what holds it."""

from __future__ import annotations

import msgspec

from uncle_sled.core.document.edits import set_to
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import Rising
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.stow.rising_drawn import angle_words, lift_chart, roof_drawn
from uncle_sled.core.findings.stow.rising import CAUTION
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.rising import cloth_kg
from uncle_sled.core.studies.stow.beds import standing_room_m, tallest_m
from uncle_sled.core.studies.stow.rising_roof import RoofUp, meets_when_down, roof_up, struts_for
from uncle_sled.core.studies.stow.struts import HOLD_SHARE, SAYS
from uncle_sled.core.words import Words, lower_first, upper_first
from uncle_sled.desk.kit.form import Row, plain
from uncle_sled.desk.kit.panel import Group, Panel, across, rows, tools
from uncle_sled.desk.kit.parts import Act, Cards, Drawing, Fields, Says, note

SIDE_PX = 262
MOST_TOLD = 3


class RisingPanel(Panel):
    follows = ("changed",)

    def laid(self) -> Group:
        self.picture = self.put(Drawing("The roof down and up", self._picture, "", self._why, share=3))
        self.chart = self.put(
            Drawing(
                "What the hands feel on the way", self._chart, when=lambda: (roof := self.roof()) is not None and bool(roof.curves), share=2
            )
        )
        fabrics = [
            (key, Words(self.session.shown).material(of.name))
            for key, of in library_of(self.session.facts.materials).items()
            if of.form == "roll"
        ]
        cards = (
            Fields(
                "The roof",
                [*plain("shell.rising", "way rise part_from part_to second fittings"), Row("shell.rising.cloth", kind=fabrics)],
                "Shell",
                112,
                when=self._there,
            ),
            Fields("Guys", plain("shell.rising", "guys guy_n"), "Shell", 112, when=self._there),
            Fields(
                "Struts",
                plain("shell.rising.strut", "many force_n shut open stroke lid_x lid_z body_x body_z rise friction_n"),
                "Shell",
                112,
                when=self._has_struts,
            ),
        )
        acts = tools(
            Act(
                "A roof that goes up",
                "All of the roof, straight up; then say what it is",
                self.begin,
                lambda: self.studied.framed.body is not None,
                when=lambda: not self._there(),
                main=True,
            ),
            Act("It stays down", "The roof is fixed again", self.stay_down, when=self._there, plain=True),
            Act(
                "Find struts",
                "Over the sizes and forces that are sold and over mounts: the weakest that meet every limit",
                self.find_struts,
                self._can_search,
                when=self._there,
                plain=True,
            ),
            Act(
                "No struts",
                "It is lifted by hand",
                self.no_struts,
                lambda: (roof := self.roof()) is not None and roof.strut is not None,
                when=self._there,
                plain=True,
            ),
        )
        left = rows(acts, across(self.picture, self.chart, gap=8, share=1), note(CAUTION), gap=5, share=1)
        return across(left, Cards((Says(self._told, hides=True), *cards), wide=SIDE_PX), gap=8)

    def _there(self) -> bool:
        return self.session.build.shell.rising is not None

    def _has_struts(self) -> bool:
        rising = self.session.build.shell.rising
        return rising is not None and rising.strut is not None

    def roof(self) -> RoofUp | None:
        return roof_up(self.studied)

    def _why(self) -> str:
        if self.studied.framed.body is None:
            return "There is no body yet: take a form and its sizes on Profile."
        if self._there():
            return "Draw the line under the rig's drawing up: there is no room here to draw the roof."
        return "This roof stays down. One that goes up gives head room where one camps and stays low on the road."

    def _picture(self, width: float, height: float) -> tuple[Primitive, ...]:
        roof = self.roof()
        return roof_drawn(self.studied, roof, self.words, width, height) if roof is not None else ()

    def _chart(self, width: float, height: float) -> tuple[Primitive, ...]:
        roof = self.roof()
        return lift_chart(roof, self.words, width, height) if roof is not None else ()

    def _told(self) -> list[str]:
        roof, rising, words, s = self.roof(), self.session.build.shell.rising, self.words, self.studied
        if roof is None or rising is None:
            return []
        risen = roof.risen
        if risen.fault:
            return [words.told(f"It {risen.fault}.")]
        cloth = cloth_kg(risen, rising, library_of(s.facts.materials))
        weighs = f", {words.fine_kg(cloth)}" if cloth is not None else ", of a cloth whose weight nobody said"
        told = [f"{upper_first(angle_words(risen))}. Cloth: {words.m2(risen.cloth_m2, 1)}{weighs}."]
        standing = next((mode for mode in s.build.stow.modes if not mode.towing and not mode.roof_down), None)
        low, high = standing_room_m(s.build, s.facts), standing_room_m(s.build, s.facts, standing) if standing is not None else None
        if high is not None and low is not None:
            tall = tallest_m(s.build, s.facts)
            wants = f"; the tallest is {words.m(tall)}" if tall is not None else ""
            told.append(f"Head room {words.m(high)}, {words.m(low)} with it down{wants}.")
        told.append(self._lifts(roof))
        meets = meets_when_down(s)
        if meets:
            names = ", ".join(f"{lower_first(clash.a_name)} by {words.cut(clash.by_m)}" for clash in meets[:MOST_TOLD])
            told.append(
                f"On the road it meets {names}{' …' if len(meets) > MOST_TOLD else ''}: what stands so high folds or moves (In hand, in this mode)."
            )
        return told

    def _lifts(self, roof: RoofUp) -> str:
        words = self.words
        if roof.mass_kg is None:
            return f"{upper_first(roof.why)}: lifting is not checked."
        told = f"{words.kg(roof.mass_kg)} go up"
        if roof.risen.folds:
            half = words.fine_newtons((roof.by_hand_n or 0.0) / 2)
            return f"{words.kg(roof.mass_kg)} fold down; {half} for each of two at its edge."
        if not roof.risen.lifts:
            return f"{told}; its struts are on Lids, on Stow."
        if roof.verdict is None:
            each = f", {words.fine_newtons((roof.by_hand_n or 0.0) / 2)} for each of two" if roof.strut is None else ""
            return f"{told}{each}. {upper_first(roof.why)}."
        if not roof.verdict.fits:
            return f"{told}. The struts would leave their stroke on the way."
        fails = [SAYS[what] for what in reversed(roof.verdict.fails)]
        held = f"in frost the gas gives {(roof.verdict.hold_share or 0.0) * 100:.0f} %, {HOLD_SHARE * 100:.0f} % would be right"
        return f"{told}; {held}. It {' and '.join(fails)}." if fails else f"{told}; {held}. Two raise it and pull it down by hand."

    # edits
    def begin(self) -> None:
        self.session.edit("A roof that goes up", [set_to("shell.rising", msgspec.to_builtins(Rising(rise=Length(0.45))))], "Shell")

    def stay_down(self) -> None:
        self.session.edit("The roof stays down", [set_to("shell.rising", None)], "Shell")

    def _can_search(self) -> bool:
        roof = self.roof()
        return roof is not None and roof.mass_kg is not None and roof.risen.lifts

    def find_struts(self) -> None:
        roof = self.roof()
        if roof is None or not self._can_search():
            return
        found = struts_for(roof)
        if found is None:
            self.session.said.emit(f"None of the struts tried is long enough for {self.words.cut(roof.risen.rise_m)}.", "note")
            return
        self.session.edit(
            f"{found.many} struts of {self.words.fine_newtons(found.force_n)} under the roof",
            [set_to("shell.rising.strut", msgspec.to_builtins(found))],
            "Shell",
        )

    def no_struts(self) -> None:
        self.session.edit("No struts under the roof", [set_to("shell.rising.strut", None)], "Shell")
