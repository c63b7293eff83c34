"""The header: which build, which load case, the finder and what changed."""

from __future__ import annotations

from PySide6.QtCore import QPoint, QPointF, Qt, Signal
from PySide6.QtGui import QFontMetrics, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QFrame, QHBoxLayout, QMenu, QPushButton

from uncle_sled.core.words import lower_first
from uncle_sled.desk.kit.dialog import popup_menu
from uncle_sled.desk.kit.elided import ElidedLabel
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.painting import canvas
from uncle_sled.desk.session import Session
from uncle_sled.desk.theme.theme import colour


class CaseButton(Guarded, QPushButton):
    """The load case, with a mark that more can be chosen."""

    def paintEvent(self, event: QPaintEvent) -> None:
        super().paintEvent(event)
        with canvas(self) as painter:
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            painter.setPen(QPen(colour("pencil"), 1.6))
            x, y = self.width() - 16.0, self.height() / 2
            painter.drawPolyline([QPointF(x - 4, y - 2), QPointF(x, y + 2.5), QPointF(x + 4, y - 2)])


class VariantButton(CaseButton):
    """Which variant is open, with a mark that there are more."""

    def __init__(self) -> None:
        super().__init__()
        self.setProperty("kind", "quiet")
        self.full = ""

    def show_text(self, text: str) -> None:
        self.full = text
        self.setText(QFontMetrics(self.font()).elidedText(text, Qt.TextElideMode.ElideMiddle, 92))


class Header(Guarded, QFrame):
    """44 px along the top; the load case is one click or one key away."""

    wants_finder = Signal()
    wants_menu = Signal(QPoint)

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("header")
        self.setFixedHeight(44)
        row = QHBoxLayout(self)
        row.setContentsMargins(12, 0, 12, 0)
        row.setSpacing(8)
        self.name = ElidedLabel("head")
        self.name.setMaximumWidth(230)
        self.variant = VariantButton()
        self.variant.setMaximumWidth(130)
        self.variant.setToolTip("Variants: keep this build as one, open another, see them side by side")
        self.variant.clicked.connect(self._variants)
        self.menu_button = QPushButton("File")
        self.menu_button.setAccessibleName("File menu")
        self.menu_button.clicked.connect(
            lambda: self.wants_menu.emit(self.menu_button.mapToGlobal(QPoint(0, self.menu_button.height() + 2)))
        )
        self.case_button = CaseButton()
        self.case_button.setAccessibleName("Load case")
        self.case_button.setToolTip("Load case. [ and ] step through them")
        self.case_button.clicked.connect(self._cases)
        self.case_button.setFixedWidth(360)
        self.finder = QPushButton("Find anything")
        self.finder.setToolTip("Actions, things, findings: Ctrl+F")
        self.finder.clicked.connect(self.wants_finder)
        self.undo = QPushButton()
        self.undo.setProperty("kind", "link")
        self.undo.setAccessibleName("What changed")
        self.undo.clicked.connect(self._steps)
        row.addWidget(self.menu_button)
        row.addWidget(self.name)
        row.addWidget(self.variant)
        row.addStretch(1)
        row.addWidget(self.case_button)
        row.addStretch(1)
        row.addWidget(self.finder)
        row.addWidget(self.undo)
        for signal in (session.changed, session.case_changed, session.file_changed):
            signal.connect(self.refresh)
        self.refresh()

    def refresh(self) -> None:
        s = self.session
        cases, done = s.studied.table.cases, s.history.done
        shown = (
            *(s.project.name, s.history.modified, s.read_only, s.build.name, self.case_button.width()),
            *((len(done), done[-1].says) if done else ()),
            *((s.row, cases[s.row].says, cases[s.row].name, cases[s.row].mode.name) if cases else ()),
        )
        if shown != self._shown:  # a drag changes none of it from one frame to the next
            self._shown = shown
            self._show()

    _shown: tuple[object, ...] = ()

    def _show(self) -> None:
        s = self.session
        self.name.show_text(s.project.name + (" *" if s.history.modified else "") + (" (read only)" if s.read_only else ""))
        self.variant.show_text(s.build.name)
        self.variant.setAccessibleName(f"Variant {s.build.name}")
        cases = s.studied.table.cases
        if cases:
            case = cases[s.row]
            words = f"{case.mode.name}   {case.name}: {case.says}"
            self.case_button.setText(
                QFontMetrics(self.case_button.font()).elidedText(words, Qt.TextElideMode.ElideRight, self.case_button.width() - 52)
            )
        else:
            self.case_button.setText("No load case")
        done = len(s.history.done)
        self.undo.setText(f"Undo {done}" if done else "No changes")
        self.undo.setToolTip(f"Last: {s.history.done[-1].says}" if done else "What you change is listed here")

    def _cases(self) -> None:
        self.case_menu().popup(self.case_button.mapToGlobal(QPoint(0, self.case_button.height() + 2)))

    def _variants(self) -> None:
        from uncle_sled.desk.frame.variants_view import variant_menu  # not on the first screen

        variant_menu(self.session, self).popup(self.variant.mapToGlobal(QPoint(0, self.variant.height() + 2)))

    def case_menu(self) -> QMenu:
        menu = popup_menu(self)
        for case in self.session.studied.table.cases:
            same = f" (as {', '.join(lower_first(name) for name in case.same_as)})" if case.same_as else ""
            act = menu.addAction(f"{case.mode.name}   {case.name}: {case.says}{same}")
            act.setCheckable(True)
            act.setChecked(case.id == self.session.studied.table.cases[self.session.row].id)
            act.triggered.connect(lambda _=False, id=case.id: self.session.show_case(id))
        return menu

    def _steps(self) -> None:
        self.step_menu().popup(self.undo.mapToGlobal(QPoint(-60, self.undo.height() + 4)))

    def _undo_back(self, times: int) -> None:
        for _ in range(times):
            self.session.undo()

    def step_menu(self) -> QMenu:
        """What changed, newest first: jump to it, or undo back to before it."""
        menu = popup_menu(self)
        history = self.session.history
        for at, step in enumerate(reversed(history.done[-20:])):
            each_menu = menu.addMenu(f"{step.says}   ({step.stop})")
            each_menu.addAction("Show where").triggered.connect(lambda _=False, step=step: self.session.show_step(step))
            each_menu.addAction("Undo back to before it").triggered.connect(lambda _=False, times=at + 1: self._undo_back(times))
        if history.undone:
            menu.addSeparator()
            menu.addAction(f"Do again: {history.undone[0].says}").triggered.connect(lambda _=False: self.session.redo())
        if not history.done and not history.undone:
            menu.addAction("Nothing was changed yet").setEnabled(False)
        return menu
