"""Pages that stand in each other's place: one seen, only that one asked for room, and what is typed into goes with it."""

from PySide6.QtCore import QSize
from PySide6.QtWidgets import QApplication, QLineEdit, QPushButton, QVBoxLayout, QWidget

from uncle_sled.desk.kit.one_shown import OneShown


class Asked(QWidget):
    """A page that counts how often it is asked for its size."""

    def __init__(self, wide):
        super().__init__()
        self.wide, self.asked = wide, 0

    def minimumSizeHint(self):
        self.asked += 1
        return QSize(self.wide, 20)


def test_one_is_seen_and_only_that_one_is_asked(qapp, qtbot):
    pages, told = OneShown(), []
    around = QWidget()
    QVBoxLayout(around).addWidget(pages)
    qtbot.addWidget(around)
    pages.shown.connect(lambda: told.append(pages.currentWidget()))
    narrow, wide = Asked(200), Asked(700)
    assert pages.minimumSizeHint() == pages.sizeHint() == QSize(0, 0)
    pages.addWidget(narrow)
    pages.addWidget(wide)
    around.resize(300, 200)
    around.show()
    QApplication.processEvents()
    assert narrow.isVisible() and not wide.isVisible() and wide.asked == 0 and narrow.size() == pages.size()

    pages.setCurrentWidget(wide)
    QApplication.processEvents()
    assert wide.isVisible() and not narrow.isVisible() and told == [narrow, wide]
    assert around.width() >= 700 and wide.size() == pages.size()  # the window gives the room that is wanted
    pages.setCurrentWidget(wide)
    assert told == [narrow, wide]

    before = narrow.asked
    wide.wide = 900
    wide.updateGeometry()
    for _ in range(3):  # from the page to the pages, from them to the window
        QApplication.processEvents()
    assert around.width() >= 900 and narrow.asked == before


def test_what_is_typed_into_goes_with_its_page(qapp, qtbot):
    pages = OneShown()
    qtbot.addWidget(pages)
    first, second, bare = QWidget(), QWidget(), QWidget()
    for page, made in ((first, QLineEdit), (second, QPushButton), (bare, QWidget)):
        QVBoxLayout(page).addWidget(made())
        pages.addWidget(page)
    pages.show()
    pages.activateWindow()
    first.findChild(QLineEdit).setFocus()
    pages.setCurrentWidget(second)
    assert pages.focusWidget() is second.findChild(QPushButton)
    pages.setCurrentWidget(bare)
    pages.setCurrentWidget(first)
    assert first.isVisible()
