"""A panel declared: what stands where, what each part shows, and what it says when there is nothing.

A panel makes its parts with ``put`` and names their order in ``laid``; it alone lays them out, keeps them fresh, hides what
does not apply and marks what is chosen. What a part reads is a function without arguments, asked at every refresh.
"""

from __future__ import annotations

import sys
from collections.abc import Callable
from typing import Any, Generic, TypeVar

import msgspec
from PySide6.QtGui import QShowEvent
from PySide6.QtWidgets import QBoxLayout, QFrame, QHBoxLayout, QLabel, QVBoxLayout, QWidget

from uncle_sled.core.errors import fault_words
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.words import Words
from uncle_sled.desk.kit import painting
from uncle_sled.desk.kit.fields import label, say_or_hide
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.session import Session

T = TypeVar("T")
W = TypeVar("W", bound=QWidget)
GAP_PX = 6
CARD_EDGES_PX = (12, 8, 12, 10)


class Gap(msgspec.Struct, frozen=True):
    """Empty room that takes what is left over, or so many pixels."""

    px: int = 0


class Part(msgspec.Struct, Generic[W], frozen=True, kw_only=True):
    """One part of a panel. when: whether it applies; share: of the room that is left over; wide: fixed [px], 0: as it wants."""

    when: Callable[[], bool] | None = None
    share: int = 0
    wide: int = 0

    def made(self, panel: Panel) -> W:
        """The widget, once."""
        raise NotImplementedError

    def keep(self, panel: Panel, widget: W) -> None:
        """What is done with it at every refresh."""


class Group(Part[QWidget], frozen=True):
    """Parts in a row or a column, in one widget."""

    parts: tuple[Any, ...]
    upright: bool
    gap: int = GAP_PX
    title: str | Callable[[], str] | None = None  # of a card

    def made(self, panel: Panel) -> QWidget:
        if self.title is None:
            holder = QWidget()
            lay(panel, self, holder)
            return holder
        card = QFrame()
        card.setObjectName("card")
        box = lay(panel, self, card)
        box.setContentsMargins(*CARD_EDGES_PX)
        if callable(self.title):
            box.insertWidget(0, panel.put(Titled(self.title)))
        elif self.title:
            box.insertWidget(0, label(self.title, "title"))
        return card


class Titled(Part[QLabel], frozen=True):
    """A title that goes with what is shown."""

    told: Callable[[], str]

    def made(self, _panel: Panel) -> QLabel:
        return label("", "title", wrap=True)

    def keep(self, _panel: Panel, widget: QLabel) -> None:
        widget.setText(self.told())


def rows(*parts: Part[Any] | QWidget | Gap, gap: int = GAP_PX, **named: Any) -> Group:
    """Parts one under the other."""
    return Group(parts, upright=True, gap=gap, **named)


def across(*parts: Part[Any] | QWidget | Gap, gap: int = GAP_PX, **named: Any) -> Group:
    """Parts side by side."""
    return Group(parts, upright=False, gap=gap, **named)


def card(title: str | Callable[[], str], *parts: Part[Any] | QWidget | Gap, gap: int = 5, **named: Any) -> Group:
    """Parts one under the other on a card."""
    return Group(parts, upright=True, gap=gap, title=title, **named)


def tools(*parts: Part[Any] | QWidget | Gap, **named: Any) -> Group:
    """Parts side by side from the left on."""
    return across(*parts, Gap(), **named)


def lay(panel: Panel, group: Group, holder: QWidget | None = None) -> QBoxLayout:
    """The layout of a group. A group that never hides and has no width of its own needs no widget."""
    box: QBoxLayout = QVBoxLayout() if group.upright else QHBoxLayout()
    if holder is not None:
        holder.setLayout(box)
    box.setContentsMargins(0, 0, 0, 0)
    box.setSpacing(group.gap)
    for part in group.parts:
        if isinstance(part, Gap):
            box.addSpacing(part.px) if part.px else box.addStretch(1)
        elif isinstance(part, Group) and part.when is None and not part.wide and part.title is None:
            box.addLayout(lay(panel, part), part.share)
        else:
            widget = panel.put(part)
            box.addWidget(widget, panel.share_of(widget))
    return box


class Panel(Guarded, QWidget):
    """A view of a stop. A panel of its own says ``laid``; ``refreshed`` is for what no part can say of itself."""

    _faulted = False
    follows: tuple[str, ...] = ()  # signals of the session after which it is shown anew, where no bench does that

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self._kept: list[tuple[Part[Any], QWidget]] = []
        self.complaint = label("", "small", "primer", wrap=True)
        self.complaint.hide()
        lay(self, rows(self.laid()), self)
        for signal in self.follows:
            getattr(session, signal).connect(self._shown_anew)

    def _shown_anew(self) -> None:
        if self.isVisible():
            self.refresh()

    def showEvent(self, _event: QShowEvent) -> None:
        if self.follows:
            self.refresh()

    def laid(self) -> Part[Any] | QWidget:
        """All parts in their places."""
        raise NotImplementedError

    def put(self, part: Part[W] | W) -> W:
        """A part's widget, made and from now on kept fresh; a widget stays as it is."""
        if isinstance(part, QWidget):
            return part
        widget = part.made(self)
        if part.wide:
            widget.setFixedWidth(part.wide)
        self._kept.append((part, widget))
        return widget

    def share_of(self, widget: QWidget) -> int:
        """Of the room that is left over."""
        return next((part.share for part, made in self._kept if made is widget), 0)

    def forget(self, widget: QWidget) -> None:
        """A part that is made anew: it and all that stand in it are kept no more."""
        self._kept = [(part, made) for part, made in self._kept if made is not widget and not widget.isAncestorOf(made)]

    # what parts ask for
    @property
    def words(self) -> Words:
        return Words(self.session.shown)

    @property
    def studied(self) -> Studied:
        return self.session.studied

    def complain(self, says: str) -> bool:
        """Say what is wrong with something typed; nothing takes it away. Returns: False, for whoever was asked to take it."""
        say_or_hide(self.complaint, says)
        return False

    def export(self, kind: str, choice: Any = None) -> None:
        """Ask for a file of this kind, of what is chosen here."""
        self.window().export(kind, choice) if choice is not None else self.window().export(kind)  # type: ignore[attr-defined]

    def look(self, kind: str, choice: Any = None) -> None:
        """Its pages, to look at and to print."""
        self.window().look(kind, choice) if choice is not None else self.window().look(kind)  # type: ignore[attr-defined]

    def refresh(self) -> None:
        """Show the build as it is. No panel overrides it: what is worked out first is ``prepared``, what comes last ``refreshed``."""
        fault: Exception | None = None
        try:
            self.prepared()
        except Exception as one:
            fault = one
        self.show_again(fault)

    def show_again(self, fault: Exception | None = None) -> None:
        """Every part as it is, with nothing prepared anew. Args: fault: of what was prepared."""
        for part, widget in tuple(self._kept):
            try:
                self._freshen(part, widget)
            except Exception as one:  # a part that fails takes neither the others nor the other panels
                fault = fault or one
        try:
            self.refreshed()
        except Exception as one:
            fault = fault or one
        self._tell_fault(fault)

    def _tell_fault(self, fault: Exception | None) -> None:
        """What could not be shown, once, where it would be; nothing of the build is changed by it."""
        if fault is None:
            if self._faulted:
                self._faulted = False
                say_or_hide(self.complaint, "")
            return
        if painting.STRICT:
            raise fault
        if not self._faulted:
            sys.excepthook(type(fault), fault, fault.__traceback__)
        self._faulted = True
        under = self.layout()
        if self.complaint.parent() is None and under is not None:  # laid before it is shown: a new parent hides
            under.addWidget(self.complaint)
        say_or_hide(
            self.complaint,
            f"This could not be worked out ({fault_words(fault)}). The rest holds; undo what changed last, or send the file.",
        )

    def freshen(self, inside: QWidget) -> None:
        """Show the build in a part that was made just now, and in what stands in it."""
        for part, widget in tuple(self._kept):
            if widget is inside or inside.isAncestorOf(widget):
                self._freshen(part, widget)

    def _freshen(self, part: Part[Any], widget: QWidget) -> None:
        if part.when is not None:
            shown = bool(part.when())
            if widget.isHidden() == shown:
                widget.setVisible(shown)
            if not shown:
                return
        part.keep(self, widget)

    def prepared(self) -> None: ...

    def refreshed(self) -> None: ...


class PanelOf(Panel, Generic[T]):
    """A panel that asks something of its bench."""

    def __init__(self, session: Session, bench: T) -> None:
        self.bench = bench
        super().__init__(session)
