"""What holds every thing on the road: its pull in a stop, what it hangs on, and whether that is enough."""

from __future__ import annotations

from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.stow.held_plan import held_plan
from uncle_sled.core.findings.stow.tie_downs import CAUTION
from uncle_sled.core.parts.holding import Way
from uncle_sled.core.studies.stow.restraints import LEAST_KG, Direction, Restraint, held_words, restraints
from uncle_sled.core.units import GRAVITY
from uncle_sled.core.words import count_of
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


def _direction(hold: Restraint, way: Way) -> Direction | None:
    return next((found for found in hold.directions if found.way == way), None)


def _enough(hold: Restraint, way: Way) -> bool:
    found = _direction(hold, way)
    return found is not None and found.enough


class HeldTable(Panel):
    follows = ("changed", "selected")

    def laid(self) -> Group:
        columns: tuple[Column[Restraint], ...] = (
            Column("Thing", lambda hold: hold.name, 146),
            Column("Verdict", lambda hold: self._verdict(hold)[0], 92, ink=lambda hold: self._verdict(hold)[1]),
            *(self._way(way, title) for way, title in TITLES.items()),
            Column("Held by", self._held_by, 150),
        )
        self.table = self.put(
            Listed[Restraint](
                "What holds every thing on the road",
                columns,
                self.held,
                lambda hold: hold.id,
                lambda hold: self.session.select((hold.id,)),
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
        return sorted(restraints(s.build, s.table), key=lambda hold: (ORDER[hold.fault], -hold.along_n))

    def _plan(self, width: float, height: float) -> tuple[Primitive, ...]:
        return held_plan(self.studied, self.session.selection, self.words, width, height)

    def _bad(self) -> list[Restraint]:
        """What is not held as it should be, as far as that can be told."""
        return [hold for hold in self.held() if hold.fault not in ("", "unrated") and (hold.fault != "loose" or not self._said(hold))]

    def _loose(self) -> list[Restraint]:
        return [hold for hold in self._bad() if hold.fault == "loose"]

    def _said(self, hold: Restraint) -> str:
        return next((thing.held_by for thing in self.session.build.stow.things if thing.id == hold.id), "")

    def _told(self) -> str:
        many, wrong, least = len(self.held()), len(self._bad()), self.words.kg(LEAST_KG)
        if not many:
            return f"Nothing over {least} is aboard, so there is nothing to hold yet."
        found = (
            f"{wrong} {'is' if wrong == 1 else 'are'} not held as {'it' if wrong == 1 else 'they'} should be."
            if wrong
            else "nothing is found too weak."
        )
        return f"{count_of(many, 'thing')} over {least} {'rides' if many == 1 else 'ride'} along; {found}"

    def _way(self, way: Way, title: str) -> Column[Restraint]:
        """What it pulls of what holds in one direction; red where that is too little."""
        return Column(
            title,
            lambda hold: self._of(hold, way),
            WAY_PX,
            right=True,
            ink=lambda hold: "" if _direction(hold, way) is None or _enough(hold, way) else "primer",
            tip="What it pulls this way, of what holds it; alone where what holds it has no rating",
        )

    def _of(self, hold: Restraint, way: Way) -> str:
        found = _direction(hold, way)
        pulls = self._pull(hold.wanted_n[way])
        if found is None:
            return pulls
        return f"{self.words.bare_kg(found.wanted_n / GRAVITY)} of {self._pull(found.capacity_n)}"

    def _pull(self, newton: float | None) -> str:
        return "–" if newton is None else self.words.kg(newton / GRAVITY)

    def _verdict(self, hold: Restraint) -> tuple[str, str]:
        if hold.fault == "loose" and self._said(hold):
            return VERDICTS["unrated"]
        if not hold.fault and not hold.directions:  # nobody reckons what is screwed on, so nobody calls it enough
            return VERDICTS["in it" if hold.in_thing is not None else "built in"]
        return VERDICTS[hold.fault]

    def _held_by(self, hold: Restraint) -> str:
        things = {t.id: t for t in self.session.build.stow.things}
        return held_words(things[hold.id], things, self.words) if hold.id in things else ""

    def strap(self) -> None:
        """The remedy of the loose things, kept at once; undo takes it back."""
        from uncle_sled.core.findings.all_findings import findings
        from uncle_sled.core.findings.stow.tie_downs import hold_remedy

        finding = next((f for f in findings(self.session.studied) if f.code == "held-loose"), None)
        made = hold_remedy(self.session.studied, finding) if finding is not None else None
        if made is not None and finding is not None:
            self.session.edit("Strap what is loose", made[0], "Stow", finding.where)
