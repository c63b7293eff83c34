"""Uncle says: every finding in plain words, with what can be tried: what concerns the open stop first, worst first, kinds folded."""

from __future__ import annotations

from collections.abc import Sequence, Set
from typing import NamedTuple

from PySide6.QtCore import QPointF, QSize, Qt, QTimer, Signal
from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import QFrame, QHBoxLayout, QLabel, QPushButton, QScrollArea, QSizePolicy, QVBoxLayout, QWidget

from uncle_sled.core.findings.finding import RANK, Finding, to_settle
from uncle_sled.core.findings.sources import why_of
from uncle_sled.core.reading.studied import Studied
from uncle_sled.desk.frame.trail_view import knot_mark
from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.painting import canvas
from uncle_sled.desk.kit.tab_zone import Leave, step
from uncle_sled.desk.kit.working import Working
from uncle_sled.desk.session import Session

MOST_CARDS, MOST_ASIDE = 12, 12
FOLDED = 3  # so many of one kind are told as one card, until they are asked for
SAYS_LENGTH = 140
WHILE_DRAGGING_MS = 180
INK = {"stop": "primer", "mind": "ochre word", "note": "ink"}


class Mark(Guarded, QWidget):
    """The shape of a severity."""

    def __init__(self, state: str) -> None:
        super().__init__()
        self.state = state
        self.setFixedSize(QSize(18, 18))
        self.setAccessibleName(state)

    def paintEvent(self, _event: QPaintEvent) -> None:
        with canvas(self) as painter:
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            knot_mark(painter, QPointF(9, 9), self.state, 5.5)


class Card(Guarded, QFrame):
    """One finding. ``show_finding`` changes its words in place while a hand drags."""

    tried = Signal(object)
    kept = Signal()
    put_back = Signal()
    pointed = Signal(object)
    aside = Signal(object)
    unfolded = Signal(str)

    def __init__(self, finding: Finding) -> None:
        super().__init__()
        self.setObjectName("card")
        self.one = finding
        self.more = False
        rows = QVBoxLayout(self)
        rows.setContentsMargins(10, 8, 10, 8)
        rows.setSpacing(4)
        top = QHBoxLayout()
        top.setSpacing(6)
        self.mark = Mark(finding.severity)
        self.title = label("", "title", wrap=True)
        top.addWidget(self.mark, 0, Qt.AlignmentFlag.AlignTop)
        top.addWidget(self.title, 1)
        rows.addLayout(top)
        self.says, self.why = label("", wrap=True), label("", "small", "pencil", wrap=True)
        self.remedy, self.caution = label("", "", "spruce", wrap=True), label("", "small", "pencil", wrap=True)
        for words in (self.says, self.remedy, self.why, self.caution):
            rows.addWidget(words)
        keys = QHBoxLayout()
        keys.setSpacing(6)
        self.try_button, self.keep_button, self.back_button, self.why_button = (
            QPushButton(text) for text in ("Try it", "Keep", "Put back", "why")
        )
        self.try_button.setProperty("kind", "main")
        self.keep_button.setProperty("kind", "main")
        self.keep_button.setToolTip("Ctrl+Enter")
        self.back_button.setToolTip("Esc")
        self.why_button.setProperty("kind", "link")
        self.point_button = QPushButton("where")
        self.point_button.setToolTip("Goes to the drawing or field that shows it, and marks it until the next click")
        self.point_button.setProperty("kind", "link")
        self.aside_button = QPushButton("set aside")
        self.aside_button.setProperty("kind", "link")
        self.aside_button.clicked.connect(lambda: self.aside.emit(self.one))
        for button in (self.try_button, self.keep_button, self.back_button, self.why_button, self.point_button, self.aside_button):
            keys.addWidget(button)
        keys.addStretch(1)
        rows.addLayout(keys)
        self.try_button.clicked.connect(lambda: self.tried.emit(self.one))
        self.keep_button.clicked.connect(self.kept)
        self.back_button.clicked.connect(self.put_back)
        self.like_button = QPushButton()
        self.like_button.setProperty("kind", "link")
        self.like_button.clicked.connect(lambda: self.unfolded.emit(self.one.code))
        self.like_button.hide()
        under = QHBoxLayout()
        under.addWidget(self.like_button)
        under.addStretch(1)
        rows.addLayout(under)
        self.point_button.clicked.connect(lambda: self.pointed.emit(self.one))
        self.why_button.clicked.connect(self._more)

    def _more(self) -> None:
        self.more = not self.more
        self.show_finding(self.one, *self._state)

    _state = (False, False)

    def show_like(self, many: int) -> None:
        """How many more of its kind stand behind it."""
        self.like_button.setText(f"and {many} more of this kind")
        if self.like_button.isHidden() == bool(many):
            self.like_button.setVisible(bool(many))

    def show_finding(self, finding: Finding, pending: bool, trying: bool) -> None:
        self.one, self._state = finding, (pending, trying)
        self.mark.state = finding.severity
        self.mark.setAccessibleName(finding.severity)
        _put(self.title, finding.title, "pencil" if finding.set_aside else INK[finding.severity])
        says = finding.says if self.more or len(finding.says) <= SAYS_LENGTH else finding.says[:SAYS_LENGTH].rsplit(" ", 1)[0] + " …"
        _put(self.says, says)
        if finding.set_aside is not None:
            _put(self.remedy, f"Set aside on {finding.set_aside.date}: {finding.set_aside.reason}", "pencil")
        elif finding.remedy is not None:
            _put(self.remedy, finding.remedy.says, "spruce")
        elif pending and not finding.why_none:
            _put(self.remedy, "Looking for what helps…", "pencil")
        else:
            _put(self.remedy, finding.why_none or "", "pencil")
        _put(self.why, why_of(finding) if self.more else "", "pencil")
        _put(self.caution, finding.caution, "pencil")
        self.aside_button.setText("take up again" if finding.set_aside else "set aside")
        self.aside_button.setVisible(not trying)
        self.try_button.setVisible(finding.remedy is not None and not trying)
        self.keep_button.setVisible(trying)
        self.back_button.setVisible(trying)
        self.why_button.setText("less" if self.more else "why")
        self.point_button.setVisible(not trying)


def _put(words: QLabel, text: str, ink: str = "") -> None:
    if words.text() != text:
        words.setText(text)
    if words.isHidden() != (not text):
        words.setVisible(bool(text))
    if words.property("ink") != ink:
        words.setProperty("ink", ink)
        words.style().unpolish(words)
        words.style().polish(words)


class Told(NamedTuple):
    """What is said in which order: findings of this stop and of the others, each with how many of its kind stand behind it."""

    here: list[tuple[Finding, int]]
    elsewhere: list[tuple[Finding, int]]
    aside: list[Finding]


def told_in_order(found: Sequence[Finding], stop: str, unfolded: Set[str] = frozenset()) -> Told:
    """Worst first; many of one kind and weight as one, but those that were asked for or are being tried."""
    asked = sorted((each for each in found if each.set_aside is None), key=lambda each: RANK[each.severity])

    def folded(some: list[Finding]) -> list[tuple[Finding, int]]:
        kinds: dict[tuple[str, str], list[Finding]] = {}
        for each in some:
            kinds.setdefault((each.code, each.severity), []).append(each)
        made = []
        for (code, _), like in kinds.items():
            whole = len(like) < FOLDED or code in unfolded
            made += [(each, 0) for each in like] if whole else [(like[0], len(like) - 1)]
        return sorted(made, key=lambda each: RANK[each[0].severity])

    here = [each for each in asked if each.stop == stop]
    there = [each for each in asked if each.stop != stop]
    return Told(folded(here), folded(there), [each for each in found if each.set_aside is not None])


def elsewhere_words(some: list[tuple[Finding, int]], any_here: bool) -> str:
    """How much there is at the other stops."""
    many = sum(1 + like for _, like in some)
    stops = sum(1 + like for each, like in some if each.severity == "stop")
    danger = f", {stops} to stop for" if stops else ""
    return f"{'At other stops' if any_here else 'Nothing here; at other stops'} {many}{danger}"


def _calm_words(s: Studied) -> str:
    """What can be said where nothing was found: only what was looked at."""
    from uncle_sled.core.studies.balance.road_size import every_limit

    held = every_limit(s)
    every = len(held.limits) + len(held.unchecked)
    if s.support is None:
        return "Nothing to settle yet, and no reading yet either."
    if held.unchecked:
        return f"Nothing found to settle, but {len(held.unchecked)} of {every} limits could not be checked: Balance, Limits says why."
    return f"Nothing to settle. Every towing case stands in its band, and all {every} limits were checked."


class Says(Guarded, QWidget):
    """The right pane's upper part."""

    said = Signal()  # what is said was brought up to date

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.trying: tuple[str, tuple[str, ...]] | None = None
        self.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Maximum)
        rows = QVBoxLayout(self)
        rows.setContentsMargins(10, 8, 0, 0)
        rows.setSpacing(6)
        top = QHBoxLayout()
        top.setContentsMargins(4, 0, 14, 0)
        self.head = label("Uncle says", "head")
        self.count = label("", "", "pencil")
        top.addWidget(self.head)
        top.addStretch(1)
        top.addWidget(self.count)
        rows.addLayout(top)
        self.area = QScrollArea()
        self.area.setWidgetResizable(True)
        self.area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        inside = QWidget()
        self.list = QVBoxLayout(inside)
        self.list.setContentsMargins(0, 0, 10, 6)
        self.list.setSpacing(6)
        self.calm = label("", "", "ink", wrap=True)
        self.over = label("", "", "pencil", wrap=True)
        self.elsewhere = label("", "title", wrap=True)
        self.unfolded: set[str] = set()
        self.list.addWidget(self.calm)
        self.list.addWidget(self.elsewhere)
        self.list.addWidget(self.over)
        self.list.addStretch(1)
        self.area.setWidget(inside)
        rows.addWidget(self.area, 1)
        self.cards: dict[tuple[str, tuple[str, ...]], Card] = {}
        self._spare: list[Card] = []  # cards of findings that are gone, for the next that come
        self._rows = rows
        self.working: QWidget | None = None
        self._later = QTimer(self)
        self._later.setSingleShot(True)
        self._later.setInterval(WHILE_DRAGGING_MS)
        self._later.timeout.connect(self.refresh)
        session.changed.connect(self._changed)
        for signal in (session.judged, session.stop_changed):
            signal.connect(self.refresh)
        self.refresh()

    def _changed(self) -> None:
        """While a hand drags, what is said follows after the frame: that belongs to drawing and reading."""
        if not self.session.dragging:
            self.refresh()
        elif not self._later.isActive():
            self._later.start()

    def refresh(self) -> None:
        session = self.session
        found = session.findings
        if session.ghost is None:
            self.trying = None
        told = told_in_order(found, session.stop, self.unfolded)
        here, there = told.here[:MOST_CARDS], told.elsewhere[: max(MOST_CARDS - len(told.here), 0)]
        # what was set aside stands last, and can be taken up again however much else there is
        order = [*here, *there, *((each, 0) for each in told.aside[:MOST_ASIDE])]
        keys = [each.key for each, _ in order]
        _put(self.elsewhere, elsewhere_words(told.elsewhere, bool(here)) if told.elsewhere else "", "pencil")
        settle = to_settle(found)
        text = "1 to settle" if settle == 1 else f"{settle} to settle" if settle else "all settled" if found else ""
        if self.count.text() != text:
            self.count.setText(text)
        for key in [key for key in self.cards if key not in keys]:
            gone = self.cards.pop(key)
            self.list.removeWidget(gone)
            gone.hide()
            self._spare.append(gone)
        pending = session.remedies_pending
        row: list[QWidget] = []
        for finding, like in order:
            card = self.cards.get(finding.key)
            if card is None:
                card = self.cards[finding.key] = self._card(finding)
            row.append(card)
            card.show_finding(finding, pending, self.trying == finding.key and session.ghost is not None)
            card.show_like(like)
        row.insert(len(here), self.elsewhere)
        for at, widget in enumerate(row):
            if self.list.indexOf(widget) != at:
                self.list.removeWidget(widget)
                self.list.insertWidget(at, widget)
                widget.setVisible(widget is not self.elsewhere or bool(told.elsewhere))  # or it counts for nothing in the height
        calm = not found and not session.studied.trouble and not session.reading_first
        self.calm.setVisible(calm)
        if calm:
            self.calm.setText(_calm_words(session.studied))
        left = len(found) - sum(1 + like for _, like in order)
        self.over.setVisible(left > 0)
        if left > 0:
            self.over.setText(f"and {left} more of less weight")
        if not session.dragging:
            self.updateGeometry()
        self.said.emit()

    def _card(self, finding: Finding) -> Card:
        """A card for a finding: a spare one where there is, since making one costs more than all its words."""
        if self._spare:
            card = self._spare.pop()
            card.more = False
            card.show()
            return card
        card, session = Card(finding), self.session
        card.tried.connect(self._try)
        card.kept.connect(session.keep)
        card.put_back.connect(session.put_back)
        card.pointed.connect(session.pointed)
        card.aside.connect(self._aside)
        card.unfolded.connect(self.unfold)
        return card

    def unfold(self, code: str) -> None:
        """Show all of a kind, each with its own card."""
        self.unfolded.add(code)
        self.refresh()

    def show_working(self) -> None:
        """The row that tells of the search for remedies; the search is not loaded before the first reading."""
        if self.working is None and not self.session.answers.in_place:
            from uncle_sled.core.remedies.remedies import with_remedies

            self.working = Working(self.session.answers, with_remedies)
            self._rows.addWidget(self.working)

    leave: Leave | None = None  # where Tab goes from the last and the first of it

    def focusNextPrevChild(self, forward: bool) -> bool:
        return step(self, forward, self.leave) or super().focusNextPrevChild(forward)

    def hasHeightForWidth(self) -> bool:
        return False

    def sizeHint(self) -> QSize:
        """As tall as what is said, up to the room there is; In hand takes the rest."""
        return QSize(290, 48 + self.list.totalHeightForWidth(280))

    def _aside(self, finding: Finding) -> None:
        if finding.set_aside is not None:
            self.session.no_more_aside(finding)
            return
        from uncle_sled.desk.frame.dialogs import AsideDialog  # not on the first screen

        dialog = AsideDialog(finding, self)
        dialog.accepted.connect(lambda: self.session.set_aside(finding, dialog.reason.text()))
        dialog.open()

    def _try(self, finding: Finding) -> None:
        if finding.remedy is not None:
            self.trying = finding.key
            self.session.try_it(finding.remedy)

    def worst(self) -> Finding | None:
        """The first finding that has something to try."""
        return next((finding for finding in self.session.findings if finding.remedy is not None), None)
