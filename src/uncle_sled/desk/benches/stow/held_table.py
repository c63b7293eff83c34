"""What holds every thing on the road: its pull in a stop, what it hangs on, and whether that is enough."""

from __future__ import annotations

from PySide6.QtCore import QModelIndex, Qt
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QSplitter, QVBoxLayout, QWidget

from uncle_sled.core.drawing.stow.held_plan import held_plan
from uncle_sled.core.findings.stow.held import CAUTION
from uncle_sled.core.parts.holding import Way
from uncle_sled.core.studies.stow.restraints import LEAST_KG, Direction, Restraint, held_words, restraints
from uncle_sled.core.units import GRAVITY
from uncle_sled.core.words import Words
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.table import Column, Table, TableModel
from uncle_sled.desk.session import Session

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


class HeldModel(TableModel[Restraint]):
    def __init__(self, session: Session) -> None:
        self.session = session
        super().__init__(
            (
                Column("Thing", lambda one: one.name, 146),
                Column("Verdict", lambda one: self._verdict(one)[0], 92, ink=lambda one: self._verdict(one)[1]),
                *(self._way(way, title) for way, title in TITLES.items()),
                Column("Held by", self._held_by, 150),
            )
        )

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
        return f"{Words(self.session.shown).bare_kg(found.wanted_n / GRAVITY)} of {self._pull(found.capacity_n)}"

    @property
    def held(self) -> tuple[Restraint, ...]:
        return self.rows

    def refresh(self) -> None:
        s = self.session.studied
        self.set_rows(sorted(restraints(s.build, s.table), key=lambda one: (ORDER[one.fault], -one.along_n)))

    def _pull(self, newton: float | None) -> str:
        return "–" if newton is None else Words(self.session.shown).kg(newton / GRAVITY)

    def _verdict(self, one: Restraint) -> tuple[str, str]:
        said = next((t.held_by for t in self.session.build.stow.things if t.id == one.id), "")
        if one.fault == "loose" and said:
            return VERDICTS["unrated"]
        if not one.fault and not one.directions:  # nobody reckons what is screwed on, so nobody calls it enough
            return VERDICTS["in it" if one.in_thing is not None else "built in"]
        return VERDICTS[one.fault]

    def _held_by(self, one: Restraint) -> str:
        things = {t.id: t for t in self.session.build.stow.things}
        return held_words(things[one.id], things, Words(self.session.shown)) if one.id in things else ""


class HeldTable(Guarded, QWidget):
    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.model = HeldModel(session)
        self.view = Table(self.model, "What holds every thing on the road")
        self.view.clicked.connect(self._chosen)
        self.strap_button = QPushButton("Strap what is loose")
        self.strap_button.setToolTip("Two rated straps over each thing that nothing holds")
        self.strap_button.clicked.connect(lambda _=False: self.strap())
        self.says = label("", wrap=True)
        top = QHBoxLayout()
        top.addWidget(self.says, 1)
        top.addWidget(self.strap_button)
        rows = QVBoxLayout(self)
        rows.setContentsMargins(0, 0, 0, 0)
        rows.addLayout(top)
        self.plan = Chart(
            session,
            "What holds each thing, from above",
            lambda w, h: held_plan(session.studied, session.selection, Words(session.shown), w, h),
            empty=lambda: "Nothing rides that wants holding.",
        )
        self.plan.setMinimumHeight(150)
        self.split = QSplitter(Qt.Orientation.Vertical)
        self.split.setChildrenCollapsible(False)
        self.split.addWidget(self.view)
        self.split.addWidget(self.plan)
        self.split.setSizes([320, 210])
        rows.addWidget(self.split, 1)
        rows.addWidget(label(f"Pulls are written as the weight that pulls as much. {CAUTION}", "small", "pencil", wrap=True))
        session.changed.connect(self.refresh)
        session.selected.connect(self.plan.update)

    def showEvent(self, event: object) -> None:
        self.refresh()

    def refresh(self) -> None:
        if not self.isVisible():
            return
        self.model.refresh()
        words = Words(self.session.shown)
        bad = [one for one in self.model.held if one.fault not in ("", "unrated")]
        said = {t.id for t in self.session.build.stow.things if t.held_by}
        loose = [one for one in bad if one.fault == "loose" and one.id not in said]
        self.strap_button.setEnabled(bool(loose))
        if not self.model.held:
            self.says.setText(f"Nothing over {words.kg(LEAST_KG)} is aboard, so there is nothing to hold yet.")
        else:
            wrong = len([one for one in bad if one.fault != "loose" or one.id not in said])
            self.says.setText(
                f"{len(self.model.held)} things over {words.kg(LEAST_KG)} ride along; "
                + (
                    f"{wrong} {'is' if wrong == 1 else 'are'} not held as {'it' if wrong == 1 else 'they'} should be."
                    if wrong
                    else "nothing is found too weak."
                )
            )

    def _chosen(self, index: QModelIndex) -> None:
        self.session.select((self.model.held[index.row()].id,))

    def strap(self) -> None:
        """The remedy of the loose things, kept at once; undo takes it back."""
        from uncle_sled.core.findings.all_findings import findings
        from uncle_sled.core.findings.stow.held import hold_remedy

        one = next((f for f in findings(self.session.studied) if f.code == "held-loose"), None)
        made = hold_remedy(self.session.studied, one) if one is not None else None
        if made is not None and one is not None:
            self.session.edit("Strap what is loose", made[0], "Stow", one.where)
