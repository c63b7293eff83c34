"""Every bench at every size, theme and set of units: nothing clipped, lapped or pale, and no word in the other units."""

import os
import re
import subprocess
import sys

import pytest
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QAbstractButton, QComboBox, QLabel, QLineEdit, QTableView, QWidget

from tests.desk.walk import silent, walk, with_long_name
from tests.other_units import IMPERIAL, METRIC, foreign, names_of, read_in
from uncle_sled.desk.kit.dress import wear
from uncle_sled.exchange.demos import demo

ROLES = (Qt.ItemDataRole.DisplayRole, Qt.ItemDataRole.ToolTipRole)


def texts(window):
    """Everything that can be read at this moment, tips and what stands in empty fields with it."""
    for widget in window.findChildren(QWidget):
        if not widget.isVisible():
            continue
        yield widget.toolTip()
        if isinstance(widget, QLabel | QLineEdit | QAbstractButton):
            yield widget.text()
        if isinstance(widget, QLineEdit) and not widget.text():
            yield widget.placeholderText()
        if isinstance(widget, QComboBox):
            yield from (widget.itemText(at) for at in range(widget.count()))
        if isinstance(widget, QTableView):
            model = widget.model()
            for column in range(model.columnCount()):
                yield from (str(model.headerData(column, Qt.Orientation.Horizontal, role) or "") for role in ROLES)
                for row in range(model.rowCount()):
                    yield from (str(model.index(row, column).data(role) or "") for role in ROLES)
        yield from (one.text for one in getattr(widget, "written", []))


# every demo in the units that it is not kept in, two in both families; each size and theme with each family
@pytest.mark.parametrize(
    ("name", "units", "wrong", "size", "theme"),
    [
        ("rosin-box", "metres", IMPERIAL, (1280, 800), "light"),
        ("marsh-heron", "inches", METRIC, (1100, 700), "dark"),
        ("orchard-keeper", "feet", METRIC, (1100, 700), "light"),
        ("dark-sky", "millimetres", IMPERIAL, (1280, 800), "dark"),
        ("ferry-bell", "feet", METRIC, (1100, 700), "dark"),
    ],
    ids=lambda one: one if isinstance(one, str) else str(one[0]) if isinstance(one, tuple) else "",
)
def test_walk(open_on, qapp, name, units, wrong, size, theme):
    project = with_long_name(read_in(demo(name), units))
    names, seen, abroad = names_of(project), set(), {}

    nameless = set()

    def read(window, where):
        if units == "metres":  # one walk is enough for what is said aloud
            nameless.update(silent(window))
        for text in set(texts(window)) - seen:
            seen.add(text)
            said = foreign(text, wrong, names)
            if said is not None or re.search(r"\{[\d.]+ \w", text):
                abroad.setdefault(text, (where, said))

    wear(qapp, theme)
    try:
        window = open_on(project, size=size)
        found = walk(window, lambda where: read(window, where))
        session, build = window.session, project.build
        assert session.project is project  # looking changes nothing
        hands = {
            "Stow": build.stow.things[::4],
            "Shell": (*build.shell.openings[:3], *build.shell.partitions[:1], *build.shell.lofts),
            "Systems": (*build.systems.wires[:2], *build.systems.devices[:2], *build.systems.loads[:2]),
        }
        for stop, some in hands.items():
            session.go_to(stop)
            for one in some:
                session.select((one.id,))
                window.grab()
                read(window, f"{stop}, {one.id} in hand")
    finally:
        wear(qapp, "light")

    assert found == [] and not abroad and len(seen) > 1000 and sorted(nameless) == []


@pytest.mark.parametrize("scale", ["1.5", "2"])
def test_walk_with_larger_letters(scale):
    env = {**os.environ, "QT_SCALE_FACTOR": scale}
    done = subprocess.run([sys.executable, "-m", "tests.desk.walk"], capture_output=True, text=True, env=env)

    assert done.returncode == 0, done.stdout + done.stderr
