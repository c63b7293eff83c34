"""Letters as large as they are wanted, where the screen has room for every view."""

import os
from typing import cast

import pytest
from PySide6.QtCore import QRect
from PySide6.QtWidgets import QApplication

from uncle_sled.desk import app as desk_app
from uncle_sled.desk.app import LEAST, OURS, scale_that_fits


@pytest.mark.parametrize(
    ("wanted", "screen", "fits"),
    [
        (2.0, (1920, 1200), 2.0),
        (2.0, (1280, 800), 1280 / 960),
        (1.5, (1366, 768), 768 / 600),
        (1.3, (1280, 800), 1.3),
        (2.0, (800, 480), 1.0),
    ],
)
def test_letters_leave_room_for_every_view(wanted, screen, fits):
    scale = scale_that_fits(wanted, int(screen[0] / wanted), int(screen[1] / wanted))
    assert scale == pytest.approx(fits, abs=0.01)
    assert scale == 1.0 or (screen[0] / scale >= LEAST[0] - 1 and screen[1] / scale >= LEAST[1] - 1)


class SmallScreen:
    """A screen of 1280 by 800, as it is at twice the scale."""

    def primaryScreen(self):
        return self

    def availableGeometry(self):
        return QRect(0, 0, 640, 400)


def test_it_begins_once_more_with_letters_that_fit(monkeypatch):
    begun = []
    monkeypatch.setattr(os, "execv", lambda program, words: begun.append((os.environ["QT_SCALE_FACTOR"], words[1:3])))
    monkeypatch.setenv(OURS, "2")
    monkeypatch.setenv("QT_SCALE_FACTOR", "2")
    desk_app._begin_smaller(cast(QApplication, SmallScreen()))
    assert begun == [("1.33", ["-m", "uncle_sled"])]
    desk_app._begin_smaller(cast(QApplication, SmallScreen()))  # tried once
    monkeypatch.setenv(OURS, "")  # a scale of the desktop's is left alone
    monkeypatch.setenv("QT_SCALE_FACTOR", "2")
    desk_app._begin_smaller(cast(QApplication, SmallScreen()))
    assert len(begun) == 1
