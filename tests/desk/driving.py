"""Real mouse and key events for tests."""

from PySide6.QtCore import QEvent, QPoint, QPointF, Qt
from PySide6.QtGui import QKeyEvent, QMouseEvent, QWheelEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QAbstractButton, QApplication, QLabel
from shiboken6 import isValid

from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.form import Form
from uncle_sled.exchange.demos import demo

LEFT, NONE = Qt.MouseButton.LeftButton, Qt.MouseButton.NoButton
PLAIN = Qt.KeyboardModifier.NoModifier


def _mouse(widget, kind, at, button, buttons, keys):
    at = QPointF(at)
    QApplication.sendEvent(widget, QMouseEvent(kind, at, widget.mapToGlobal(at), button, buttons, keys))


def press(widget, at, button=LEFT, keys=PLAIN):
    _mouse(widget, QEvent.Type.MouseButtonPress, at, button, button, keys)


def move(widget, at, button=LEFT, keys=PLAIN):
    _mouse(widget, QEvent.Type.MouseMove, at, NONE, button, keys)


def release(widget, at, button=LEFT, keys=PLAIN):
    _mouse(widget, QEvent.Type.MouseButtonRelease, at, button, NONE, keys)


def double_click(widget, at):
    press(widget, at)
    release(widget, at)
    _mouse(widget, QEvent.Type.MouseButtonDblClick, at, LEFT, LEFT, PLAIN)
    release(widget, at)


def drag(widget, start, by, keys=PLAIN, steps=6, button=LEFT):
    """Press, move in steps, let go."""
    press(widget, start, button, keys)
    for at in range(1, steps + 1):
        move(widget, start + QPointF(*by) * at / steps, button, keys)
    release(widget, start + QPointF(*by), button, keys)


def key(widget, code, text="", keys=PLAIN):
    for kind in (QEvent.Type.KeyPress, QEvent.Type.KeyRelease):
        if isValid(widget):  # what the press closed gets no release
            QApplication.sendEvent(widget, QKeyEvent(kind, code, keys, text))


def type_words(widget, words):
    for sign in words:
        key(widget, Qt.Key.Key_unknown, sign)


def wheel(widget, at, turns):
    event = QWheelEvent(
        QPointF(at), widget.mapToGlobal(QPointF(at)), QPoint(), QPoint(0, 120 * turns), NONE, PLAIN, Qt.ScrollPhase.NoScrollPhase, False
    )
    QApplication.sendEvent(widget, event)


def middle_of(sheet, id, pane="side"):
    return sheet.box_of(next(p for p in sheet.placed() if p.thing.id == id), pane).center()


def bench_on(open_on, what, stop, view, **more):
    """A view of a stop, opened on a demo by its name or on a project: window, session and bench."""
    window = open_on(demo(what) if isinstance(what, str) else what, judged=False, **more)
    window.session.go_to(stop)
    bench = window.bench(stop)
    bench.show_view(view)
    QApplication.processEvents()
    return window, window.session, bench


def enter(field, text):
    """Type into a field in place of what stands there, and take it."""
    field.setFocus()
    field.selectAll()
    QTest.keyClicks(field, text)
    QTest.keyClick(field, Qt.Key.Key_Return)
    QApplication.processEvents()


# what stands on a panel, by what it says and what it is
def told(where):
    """All words that are shown as sentences there."""
    return "\n".join(one.text() for one in where.findChildren(QLabel) if not one.isHidden() and one.text())


def in_place(where):
    """What the drawings there say where they have nothing to draw."""
    return "\n".join(one.empty() for one in charts_on(where))


def type_in(table, row, title, text):
    """Type into the cell of a row under a title; whether it was taken."""
    model = table.model()
    titles = [model.headerData(at, Qt.Orientation.Horizontal) for at in range(model.columnCount())]
    at = next(k for k, shown in enumerate(table.rows) if shown == row or getattr(shown, "id", shown) == getattr(row, "id", row))
    return model.setData(model.index(at, titles.index(title)), text)


def button_on(where, text):
    """The button that says so."""
    found = [one for one in where.findChildren(QAbstractButton) if one.text() == text]
    shown = [one for one in found if not one.isHidden()]
    assert found, (text, [one.text() for one in where.findChildren(QAbstractButton)])
    return (shown or found)[0]


def named(where, kind, name):
    """The part of a kind that is called so for who cannot see it."""
    found = [one for one in where.findChildren(kind) if one.accessibleName() == name]
    assert found, (name, [one.accessibleName() for one in where.findChildren(kind)])
    return next((one for one in found if one.isVisibleTo(where)), found[0])


def drawing(where, name):
    """The drawing that is called so."""
    return named(where, Chart, name)


def charts_on(where):
    return where.findChildren(Chart)


def forms_on(where):
    return where.findChildren(Form)


def form_on(where, title=None):
    """The form on a card of this title, or the only one."""
    found = [one for one in forms_on(where) if one.isVisibleTo(where)] or forms_on(where)
    if title is None:
        return found[0]
    for one in found:
        for label in [*one.findChildren(QLabel), *one.parentWidget().findChildren(QLabel)]:
            if label.text() == title:
                return one
    raise AssertionError(title)
