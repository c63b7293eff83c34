"""Random hands on the real window: mouse, keys, words in fields, menus and dialogs, over every stop, view and size.

    QT_QPA_PLATFORM=offscreen python -m tests.desk.hands --actions 3000 --seed 7

What goes wrong is gathered with the last actions before it: an exception, a warning of Qt, a build that does not come back
from its file, a drag that is left on, an undo of everything that does not lead back.
"""

import random
import re
import sys
from collections import deque
from typing import Any

from PySide6.QtCore import QEvent, QPoint, QPointF, Qt, QTimer, qInstallMessageHandler
from PySide6.QtGui import QContextMenuEvent
from PySide6.QtWidgets import (
    QAbstractButton,
    QAbstractItemView,
    QApplication,
    QComboBox,
    QDialog,
    QFileDialog,
    QLineEdit,
    QMessageBox,
    QWidget,
)

from tests.desk.driving import LEFT, double_click, key, move, press, release, wheel
from uncle_sled.core.errors import SledError
from uncle_sled.core.trail import TRAIL
from uncle_sled.desk.benches.about import abouts
from uncle_sled.exchange import sled_file

WORDS = (
    "1",
    "0",
    "-1",
    "12",
    "1.95 m",
    "6' 4 1/2\"",
    "19½",
    "½",
    "93 lb",
    "10 gal",
    "0.001",
    "99999999",
    "",
    " ",
    "NaN",
    "1e400",
    "1,950",
    "5-",
    "50 %",
    "=1+1",
    "Ünï 🛻",
    "a" * 200,
    "<b>x</b>",
    "0,0 1,1",
    "1/0",
    "6'",
    "٣",
    "%s %n",
)
SIZES = ((1280, 800), (760, 560), (1920, 1200), (1100, 700), (900, 600))
KEYS = (
    "Left",
    "Right",
    "Up",
    "Down",
    "Delete",
    "Backspace",
    "Tab",
    "Backtab",
    "Return",
    "Escape",
    "Space",
    "Home",
    "End",
    "F2",
    "A",
    "L",
    "M",
    "T",
    "C",
    "Z",
    "Y",
    "D",
    "1",
    "3",
    "5",
    "BracketLeft",
    "Plus",
    "Menu",
)
MODIFIERS = (Qt.KeyboardModifier.NoModifier,) * 4 + (
    Qt.KeyboardModifier.ShiftModifier,
    Qt.KeyboardModifier.ControlModifier,
    Qt.KeyboardModifier.AltModifier,
)
NOT_OURS = ("does not support",)  # what the plugin without a screen cannot
LEAVES = ("quit", "first-page", "new", "open", "bring_list", "theme", "settings", "list", "save", "save-as")


class Hands:
    """Acts on a window; ``faults`` holds what went wrong."""

    def __init__(self, window, seed):
        self.window, self.session, self.rng = window, window.session, random.Random(seed)
        self.faults, self.last, self.done = [], deque(maxlen=8), 0
        self.start = self.session.project

    def fault(self, says):
        self.faults.append(f"action {self.done}: {says}\n    after {'; '.join(self.last)}")

    def act_often(self, times):
        """So many actions, then everything undone and done again."""
        before_hook, before_open, before_save = sys.excepthook, QFileDialog.getOpenFileName, QFileDialog.getSaveFileName
        sys.excepthook = lambda kind, fault, where: self.fault(f"{kind.__name__}: {fault}")
        asks_for_files: Any = QFileDialog
        asks_for_files.getOpenFileName = asks_for_files.getSaveFileName = staticmethod(lambda *args, **named: ("", ""))
        qInstallMessageHandler(self._message)
        closing = QTimer()
        closing.timeout.connect(self._close_what_blocks)
        closing.start(20)
        try:
            for _ in range(times):
                self.done += 1
                self._act()
                QApplication.processEvents()
                if self.done % 10 == 0:
                    self._look()
            self._leave()
            self._all_back_and_again()
        finally:
            closing.stop()
            qInstallMessageHandler(None)
            sys.excepthook, asks_for_files.getOpenFileName, asks_for_files.getSaveFileName = (before_hook, before_open, before_save)
        return self.faults

    def _message(self, mode, context, text):
        if not any(one in text for one in NOT_OURS):
            self.fault(f"Qt says: {text}")

    def _close_what_blocks(self):
        popup, modal = QApplication.activePopupWidget(), QApplication.activeModalWidget()
        if popup is not None:
            popup.close()
        elif isinstance(modal, QMessageBox):
            self.rng.choice(modal.buttons()).click()
        elif isinstance(modal, QDialog):
            modal.reject()

    def _shown(self, kind, root=None):
        found = (root or self.window).findChildren(kind)
        return [w for w in found if w.isVisible() and w.isEnabled() and w.width() > 2 and w.height() > 2]

    def _act(self):
        rng, session, window = self.rng, self.session, self.window
        way = rng.choices(
            ("stop", "view", "mouse", "panel", "select", "key", "deed", "undo", "size", "case", "try", "dialogs"),
            (5, 8, 30, 22, 6, 12, 8, 4, 3, 2, 2, 1),
        )[0]
        self.last.append(way)
        if way == "stop":
            session.go_to(rng.choice(TRAIL[:5] * 4 + TRAIL[5:]))
        elif way == "view":
            views = next((one.views for one in abouts() if one.stop == session.stop), ())
            if views:
                view = rng.choice(views).name
                self.last[-1] = f"{session.stop}, {view}"
                window.bench(session.stop).show_view(view)
        elif way == "mouse":
            takers = [
                w
                for w in self._shown(QWidget)
                if type(w).__module__.startswith("uncle_sled.")
                and not isinstance(w, (QAbstractButton, QLineEdit, QComboBox, QAbstractItemView))
            ]
            self._mouse(rng.choice(takers))
        elif way == "panel":
            session.select(rng.sample([t.id for t in session.build.stow.things], 1)) if rng.random() < 0.2 else None
            self._poke(rng.choice([window.in_hand, window.bench(session.stop), window.bench(session.stop), window]))
        elif way == "select":
            ids = [one.id for of in (session.build.stow.things, session.build.shell.openings, session.build.rig.axles) for one in of]
            session.select(tuple(rng.sample(ids, min(len(ids), rng.choice([0, 1, 1, 3])))))
        elif way == "key":
            code, keys = getattr(Qt.Key, f"Key_{rng.choice(KEYS)}"), rng.choice(MODIFIERS)
            self.last[-1] = f"key {code.name} {keys.name}"
            key(QApplication.focusWidget() or window, code, "", keys)
        elif way == "deed":
            names = [name for name in window.acts.qt if name not in LEAVES and not name.startswith("demo-")]
            self.last[-1] = f"action {(name := rng.choice(names))}"
            window.acts.qt[name].trigger()
        elif way == "undo":
            rng.choice([session.undo, session.undo, session.redo])()
        elif way == "size":
            window.resize(*rng.choice(SIZES))
        elif way == "case":
            session.step_case(rng.choice([1, -1]))
            session.show_mode(rng.choice(session.build.stow.modes).id)
        elif way == "try":
            window.try_worst()
            rng.choice([session.keep, session.put_back])()
        else:
            self._leave()

    def _mouse(self, widget):
        rng = self.rng
        at = QPointF(rng.uniform(-20, widget.width() + 20), rng.uniform(-20, widget.height() + 20))
        way = rng.choice(["drag", "drag", "drag", "click", "double click", "wheel", "menu", "hover"])
        self.last[-1] = f"{way} on {type(widget).__name__} at {at.x():.0f}, {at.y():.0f}"
        keys = rng.choice(MODIFIERS)
        if way == "drag":
            by = QPointF(rng.uniform(-300, 300), rng.uniform(-200, 200))
            press(widget, at, LEFT, keys)
            for step in range(1, rng.choice([2, 4, 7])):
                move(widget, at + by * step / 6, LEFT, keys)
                if rng.random() < 0.05:
                    self._in_a_drag(widget)
            if rng.random() < 0.95:
                release(widget, at + by, LEFT, keys)
        elif way == "click":
            press(widget, at, LEFT, keys)
            release(widget, at, LEFT, keys)
        elif way == "double click":
            double_click(widget, at)
        elif way == "wheel":
            wheel(widget, at, rng.choice([1, -1, 40, 100]))
        elif way == "menu":
            spot = at.toPoint()
            QApplication.sendEvent(widget, QContextMenuEvent(QContextMenuEvent.Reason.Mouse, spot, widget.mapToGlobal(spot)))
        else:
            move(widget, at, Qt.MouseButton.NoButton)
            QApplication.sendEvent(widget, QEvent(QEvent.Type.Leave))

    def _in_a_drag(self, widget):
        rng, session = self.rng, self.session
        what = rng.choice(["escape", "undo", "stop", "digits", "delete", "case", "none selected"])
        self.last.append(f"in the drag: {what}")
        if what == "escape":
            key(widget, Qt.Key.Key_Escape)
        elif what == "undo":
            session.undo()
        elif what == "stop":
            session.go_to(rng.choice(TRAIL))
        elif what == "digits":
            for sign in rng.choice(["12", "1.5", "-3", "6'", "x", "½"]):
                key(widget, Qt.Key.Key_unknown, sign)
            key(widget, Qt.Key.Key_Return)
        elif what == "delete":
            self.window.acts.qt["delete"].trigger()
        elif what == "case":
            session.step_case(1)
        else:
            session.select(())

    def _poke(self, root):
        """Something that a panel offers: a word typed, a button, a choice, a row."""
        rng = self.rng
        lines = self._shown(QLineEdit, root)
        buttons = [b for b in self._shown(QAbstractButton, root) if "Quit" not in b.text()]
        boxes, lists = self._shown(QComboBox, root), self._shown(QAbstractItemView, root)
        way = rng.random()
        if way < 0.4 and lines:
            line, word = rng.choice(lines), rng.choice(WORDS)
            self.last[-1] = f"type {word[:20]!r} into “{line.accessibleName()}”"
            line.setFocus()
            line.selectAll()
            line.insert(word)
            line.setModified(True)
            key(line, rng.choice([Qt.Key.Key_Return, Qt.Key.Key_Return, Qt.Key.Key_Tab, Qt.Key.Key_Escape]))
        elif way < 0.65 and buttons:
            button = rng.choice(buttons)
            self.last[-1] = f"button “{button.text() or button.accessibleName()}”"
            button.click()
        elif way < 0.85 and boxes:
            box = rng.choice(boxes)
            if box.count():
                at = rng.randrange(box.count())
                self.last[-1] = f"choice “{box.accessibleName()}”: {box.itemText(at)}"
                box.setCurrentIndex(at)
                box.activated.emit(at)
        elif lists:
            view = rng.choice(lists)
            self.last[-1] = f"row of {type(view).__name__}"
            index = view.indexAt(QPoint(rng.randrange(view.width()), rng.randrange(view.height())))
            if index.isValid():
                view.setCurrentIndex(index)
                view.clicked.emit(index)

    def _look(self):
        try:
            if sled_file.read_bytes(sled_file.to_bytes(self.session.project), "it") != self.session.project:
                self.fault("the build comes back otherwise from its file")
        except SledError as fault:
            self.fault(f"the build is refused by its own reader: {fault}")
        for one in self.session.findings:
            if re.search(r"(?<![A-Za-z])(nan|inf)(?![A-Za-z])|e\+\d", f"{one.title} {one.says} {one.why}"):
                self.fault(f"a finding counts in odd words: {one.title}: {one.says}")
        if len(self.session.build.stow.things) > 60:
            self.session.select(tuple(t.id for t in self.session.build.stow.things[25:]))
            self.window.bench("Stow").delete()

    def _leave(self):
        for top in QApplication.topLevelWidgets():
            if top is not self.window and top.isVisible() and isinstance(top, QDialog):
                top.reject()

    def _all_back_and_again(self):
        session = self.session
        session.let_go()
        session.put_back()
        if session.dragging:
            self.fault("a drag is left on")
        while session.history.undone:
            session.redo()
        end = session.project
        while session.history.done:
            session.undo()
        if session.project != self.start:
            self.fault("everything undone is not the start")
        while session.history.undone:
            session.redo()
        if session.project != end:
            self.fault("everything done again is not the end")


def main() -> int:
    import argparse

    from uncle_sled.desk.app import application, open_window
    from uncle_sled.exchange.demos import DEMOS, demo

    top = argparse.ArgumentParser(description=__doc__.split("\n")[0])
    top.add_argument("--actions", type=int, default=3000, help="on each demo")
    top.add_argument("--seed", type=int, default=1)
    args = top.parse_args()
    app = application()
    app.setQuitOnLastWindowClosed(False)
    faults = []
    for name in DEMOS:
        window = open_window(demo(name))
        window.show()
        found = Hands(window, f"{name} {args.seed}").act_often(args.actions)
        window.session.history = window.session.history.was_saved()
        window.close()
        print(f"{name}: {args.actions} actions, {len(found)} faults")
        faults += found
    print("\n".join(faults))
    return bool(faults)


if __name__ == "__main__":
    sys.exit(main())
