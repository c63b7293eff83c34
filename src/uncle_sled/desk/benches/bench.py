"""What every bench has: a title row, and perhaps a sheet that the Sled line stands under."""

from __future__ import annotations

from importlib import import_module
from typing import Any

from PySide6.QtCore import Qt
from PySide6.QtGui import QShowEvent
from PySide6.QtWidgets import QButtonGroup, QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from uncle_sled.core.trail import does_at
from uncle_sled.desk.benches.about import about, view_key
from uncle_sled.desk.kit.elided import ElidedLabel
from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.kit.form import Form
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.one_shown import OneShown
from uncle_sled.desk.kit.panel import PanelOf
from uncle_sled.desk.session import Session
from uncle_sled.desk.sheet.sheet_view import SheetView

EDGE_PX = 14


class Bench(Guarded, QWidget):
    """One stop of the trail. ``sheet`` is its drawing, if it has one to scale."""

    strip = False  # whether the Sled line shows as a strip here
    sheet: SheetView | None = None

    def __init__(self, session: Session, stop: str) -> None:
        super().__init__()
        self.session = session
        self.stop = stop
        self.rows = QVBoxLayout(self)
        self.rows.setContentsMargins(EDGE_PX, 6, 12, 10)
        self.rows.setSpacing(6)
        self.top = QHBoxLayout()
        self.top.setSpacing(6)
        self.title = label(self.stop, "head")
        self.title.setMinimumHeight(30)
        self.top.addWidget(self.title)
        self.top.addSpacing(8)
        self.hint = label("", "small", "pencil")
        self.hint.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        self.rows.addLayout(self.top)
        self.lead = ElidedLabel("small", "pencil")
        self.rows.addWidget(self.lead)
        for signal in (session.changed, session.judged):
            signal.connect(self.show_lead)

    def show_lead(self) -> None:
        """What one does here, what is wanted and where to go on, as it is now."""
        if self.session.reading_first:
            self.lead.show_text(does_at(self.stop))
        elif self.isVisible() and not self.session.dragging:  # a hand that drags answers nothing that is wanted
            from uncle_sled.core.findings.next_step import lead

            self.lead.show_text(self.session.told(lead(self.session.studied, self.session.findings, self.stop)))

    def add_views(self) -> None:
        """A button for each view of the stop in its title row, one of them down; the first for a start."""
        group = QButtonGroup(self)
        if len(about(self.stop).views) > 5:
            self.top.setSpacing(4 if len(about(self.stop).views) < 9 else 2)
        self.view_buttons: dict[str, QPushButton] = {}
        for at, view in enumerate(about(self.stop).views, 1):
            button = QPushButton(view.name)
            button.setCheckable(True)
            button.setChecked(at == 1)
            if len(about(self.stop).views) > 5:
                button.setProperty("kind", "view" if len(about(self.stop).views) < 10 else "close")  # many of them stand closer
            key = f" ({view_key(at)})" if view_key(at) else ""
            button.setToolTip(f"{view.tip}{key}" if view.tip else "")
            button.clicked.connect(lambda _=False, name=view.name: self.show_view(name))
            group.addButton(button)
            self.top.addWidget(button)
            self.view_buttons[view.name] = button

    def press(self, name: str) -> None:
        """A view's button is down; where another of them had the focus it goes along, so that one alone looks chosen."""
        self.view_buttons[name].setChecked(True)
        if any(button.hasFocus() for button in self.view_buttons.values()):
            self.view_buttons[name].setFocus()

    def stack_views(self) -> None:
        """Room for the stop's views, of which one is seen."""
        self.panels = OneShown()
        self.made: dict[str, Any] = {}  # by view: of the kind that it names
        self.rows.addWidget(self.panels, 1)

    def panel(self, name: str) -> Any:
        """A view of this stop, made when it is first opened: at start nobody waits for what is not shown."""
        if name not in self.made:
            self.made[name] = made = self.make(name)
            self.panels.addWidget(made)
        return self.made[name]

    def make(self, name: str) -> Any:
        """The panel that a view names; it gets the session, and the bench where it asks for it."""
        module, _, kind = about(self.stop).view(name).panel.partition(":")
        panel = getattr(import_module(f"{type(self).__module__.rpartition('.')[0]}.{module}"), kind)
        return panel(self.session, self) if issubclass(panel, PanelOf) else panel(self.session)

    def show_view(self, name: str) -> None:
        """Show one of the stop's views."""

    def field_of(self, path: str) -> QWidget | None:
        """The field of a value in one of the bench's cards, where it is shown."""
        for form in self.findChildren(Form):
            for row, _, field in form.rows:
                if row.path == path and not field.isHidden():
                    return field
        return None

    def end_top(self, hint: str) -> None:
        self.top.addStretch(1)
        self.hint.setText(hint)
        self.top.addWidget(self.hint)

    def refresh(self) -> None: ...


class PanelBench(Bench):
    """A stop whose views stand in each other's place, a caution under them; each view names its panel, with ``refresh``."""

    strip = True

    def __init__(self, session: Session, stop: str, caution: str = "") -> None:
        super().__init__(session, stop)
        self.view = about(stop).views[0].name
        self._looked = -1  # at which tick of the session
        self.add_views()
        self.end_top("")
        self.stack_views()
        if caution:
            self.rows.addWidget(label(caution, "small", "pencil", wrap=True))
        for signal in (session.changed, session.judged):
            signal.connect(self.refresh)

    def showEvent(self, _event: QShowEvent) -> None:
        if self._looked != self.session.ticks:
            self.refresh()

    def show_view(self, name: str) -> None:
        self.view = name
        self.press(name)
        self.panels.setCurrentWidget(self.panel(name))
        self.refresh()

    def refresh(self) -> None:
        if self.isVisible():
            self._looked = self.session.ticks
            self.made[self.view].refresh()
