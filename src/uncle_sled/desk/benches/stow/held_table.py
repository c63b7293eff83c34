"""What holds every thing on the road: its pull in a stop, what it hangs on, and whether that is enough."""

from __future__ import annotations

from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.stow.held_plan import held_plan
from uncle_sled.core.findings.stow.held import CAUTION
from uncle_sled.core.parts.holding import Way
from uncle_sled.core.studies.stow.restraints import LEAST_KG, Direction, Restraint, held_words, restraints
from uncle_sled.core.units import GRAVITY
from uncle_sled.desk.kit.panel import Group, Panel, across, rows
from uncle_sled.desk.kit.parts import Act, Drawing, Listed, Says, Split, note
from uncle_sled.desk.kit.table import Column

VERDICTS = {
    "": ("enough", "chalk"),
    "in it": ("goes with it", "pencil"),
    "built in": ("built in", "pencil"),
    "loose": ("loose", "primer"),
    "weak": ("too weak", "primer"),
    "jumps": ("can jump out", "ochre word"),
    "skin": ("tied to the skin", "primer"),
    "unrated": ("not rated", "pencil"),
}
ORDER = {"loose": 0, "weak": 1, "skin": 2, "jumps": 3, "unrated": 4, "": 5}


TITLES: dict[Way, str] = {"fore": "Forward", "aft": "Aft", "side": "Sideways", "up": "Up"}
WAY_PX = 92


def _direction(one: Restraint, way: Way) -> Direction | None:
    return next((found for found in one.directions if found.way == way), None)


def _enough(one: Restraint, way: Way) -> bool:
    found = _direction(one, way)
    return found is not None and found.enough


class HeldTable(Panel):
    follows = ("changed", "selected")

    def laid(self) -> Group:
        columns: tuple[Column[Restraint], ...] = (
            Column("Thing", lambda one: one.name, 146),
            Column("Verdict", lambda one: self._verdict(one)[0], 92, ink=lambda one: self._verdict(one)[1]),
            *(self._way(way, title) for way, title in TITLES.items()),
            Column("Held by", self._held_by, 150),
        )
        self.table = self.put(
            Listed[Restraint](
                "What holds every thing on the road",
                columns,
                self.held,
                lambda one: one.id,
                lambda one: self.session.select((one.id,)),
                turns=True,
            )
        )
        self.plan = self.put(
            Drawing("What holds each thing, from above", self._plan, empty="Nothing rides that wants holding.", least=(0, 150))
        )
        return rows(
            across(
                Says(self._told, share=1),
                Act(
                    "Strap what is loose",
                    "Two rated straps over each thing that nothing holds",
                    self.strap,
                    lambda: bool(self._loose()),
                    plain=True,
                ),
            ),
            Split((self.table, self.plan), (320, 210), share=1),
            note(f"Pulls are written as the weight that pulls as much. {CAUTION}"),
        )

    def held(self) -> list[Restraint]:
        s = self.studied
        return sorted(restraints(s.build, s.table), key=lambda one: (ORDER[one.fault], -one.along_n))

    def _plan(self, width: float, height: float) -> tuple[Primitive, ...]:
        return held_plan(self.studied, self.session.selection, self.words, width, height)

    def _bad(self) -> list[Restraint]:
        """What is not held as it should be, as far as that can be told."""
        return [one for one in self.held() if one.fault not in ("", "unrated") and (one.fault != "loose" or not self._said(one))]

    def _loose(self) -> list[Restraint]:
        return [one for one in self._bad() if one.fault == "loose"]

    def _said(self, one: Restraint) -> str:
        return next((thing.held_by for thing in self.session.build.stow.things if thing.id == one.id), "")

    def _told(self) -> str:
        many, wrong, least = len(self.held()), len(self._bad()), self.words.kg(LEAST_KG)
        if not many:
            return f"Nothing over {least} is aboard, so there is nothing to hold yet."
        found = (
            f"{wrong} {'is' if wrong == 1 else 'are'} not held as {'it' if wrong == 1 else 'they'} should be."
            if wrong
            else "nothing is found too weak."
        )
        return f"{many} things over {least} ride along; {found}"

    def _way(self, way: Way, title: str) -> Column[Restraint]:
        """What it pulls of what holds in one direction; red where that is too little."""
        return Column(
            title,
            lambda one: self._of(one, way),
            WAY_PX,
            right=True,
            ink=lambda one: "" if _direction(one, way) is None or _enough(one, way) else "primer",
            tip="What it pulls this way, of what holds it; alone where what holds it has no rating",
        )

    def _of(self, one: Restraint, way: Way) -> str:
        found = _direction(one, way)
        pulls = self._pull(one.wanted_n[way])
        if found is None:
            return pulls
        return f"{self.words.bare_kg(found.wanted_n / GRAVITY)} of {self._pull(found.capacity_n)}"

    def _pull(self, newton: float | None) -> str:
        return "–" if newton is None else self.words.kg(newton / GRAVITY)

    def _verdict(self, one: Restraint) -> tuple[str, str]:
        if one.fault == "loose" and self._said(one):
            return VERDICTS["unrated"]
        if not one.fault and not one.directions:  # nobody reckons what is screwed on, so nobody calls it enough
            return VERDICTS["in it" if one.in_thing is not None else "built in"]
        return VERDICTS[one.fault]

    def _held_by(self, one: Restraint) -> str:
        things = {t.id: t for t in self.session.build.stow.things}
        return held_words(things[one.id], things, self.words) if one.id in things else ""

    def strap(self) -> None:
        """The remedy of the loose things, kept at once; undo takes it back."""
        from uncle_sled.core.findings.all_findings import findings
        from uncle_sled.core.findings.stow.held import hold_remedy

        one = next((f for f in findings(self.session.studied) if f.code == "held-loose"), None)
        made = hold_remedy(self.session.studied, one) if one is not None else None
        if made is not None and one is not None:
            self.session.edit("Strap what is loose", made[0], "Stow", one.where)
