"""Everything that is seen wears the sheet of the theme in force; what is not seen is dressed when it is shown."""

import pytest
from PySide6.QtWidgets import QApplication, QLabel, QMenu, QPushButton, QWidget

from uncle_sled.desk.benches.about import abouts
from uncle_sled.desk.kit import dress
from uncle_sled.desk.kit.dialog import Dialog
from uncle_sled.desk.kit.dress import WORN, wear
from uncle_sled.desk.kit.one_shown import OneShown
from uncle_sled.desk.theme.theme import style_sheet, theme_name
from uncle_sled.exchange.demos import demo


@pytest.fixture
def by_day(qapp):
    yield
    wear(qapp, "light")


def sheet_over(widget: QWidget) -> str:
    """The sheet that a widget takes its looks from."""
    at: QWidget | None = widget
    while at is not None:
        if at.styleSheet():
            return at.styleSheet()
        at = at.parentWidget()
    return ""


def seen(window: QWidget) -> list[QWidget]:
    """What is painted, but for those that only hold what is."""
    holders = dress._holders()
    return [one for one in window.findChildren(QWidget) if one.isVisible() and one not in holders]


def test_every_stop_is_dressed_for_the_night_when_it_is_shown(open_on, qapp, by_day) -> None:
    window = open_on(demo("marsh-heron"), judged=False)
    for about in abouts():
        window.session.go_to(about.stop)
        for view in about.views:
            window.bench(about.stop).show_view(view.name)
    wear(qapp, "dark")
    assert theme_name() == "dark"
    dressed = [one for one in window.findChildren(QWidget) if one.property(WORN) == "dark"]
    of_the_day = [one for one in window.findChildren(QWidget) if one.property(WORN) == "light"]

    assert dressed and of_the_day and not any(one.isVisible() for one in of_the_day), "what is not seen waits"
    for about in abouts():
        window.session.go_to(about.stop)
        for name in [view.name for view in about.views] or [""]:
            if name:
                window.bench(about.stop).show_view(name)
            QApplication.processEvents()
            wrong = {type(one).__name__ for one in seen(window) if sheet_over(one) != style_sheet()}
            assert not wrong, (about.stop, name, wrong)


def test_who_comes_later_is_dressed_as_well(open_on, by_day) -> None:
    """A button on a bench, a menu and a dialog of the window: whoever holds pages wears nothing itself."""
    window = open_on(demo("marsh-heron"), judged=False)
    bench = window.bench("Stow")
    button, menu, dialog = QPushButton("late", bench), QMenu(window), Dialog(window)
    menu.addAction("one")
    for one in (button, menu, dialog):
        one.show()
    QApplication.processEvents()

    assert not window.styleSheet() and not bench.styleSheet()
    assert [sheet_over(one) for one in (button, menu, dialog)] == [style_sheet()] * 3
    menu.hide(), dialog.close()


def test_a_page_is_dressed_once_and_pages_in_pages_are_found(qapp, by_day) -> None:
    outer, inner, plain = OneShown(), OneShown(), QLabel("plain")
    first, second = QLabel("first"), QLabel("second")
    inner.addWidget(first)
    inner.addWidget(second)
    outer.addWidget(inner)
    outer.addWidget(plain)

    assert first.styleSheet() == style_sheet() and not second.styleSheet() and not plain.styleSheet() and not inner.styleSheet()
    inner.setCurrentWidget(second)
    outer.setCurrentWidget(plain)
    assert second.styleSheet() == plain.styleSheet() == style_sheet()
    day = style_sheet()
    wear(qapp, "dark")
    outer.setCurrentWidget(inner)
    assert second.styleSheet() == style_sheet() != day and first.styleSheet() == day
