"""Every view of every demo is read in the build's own units: no metre in a build of feet, no pound in one of kilograms."""

import re

import pytest
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QAbstractButton, QComboBox, QLabel, QLineEdit, QTableView, QWidget

from tests.desk.walk import every_view
from tests.other_units import IMPERIAL, METRIC, foreign, names_of, read_in
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


@pytest.mark.parametrize(
    ("name", "units", "wrong"),
    [
        ("orchard-keeper", "feet", METRIC),
        ("dark-sky", "feet", METRIC),
        ("marsh-heron", "inches", METRIC),
        ("rosin-box", "inches", METRIC),
        ("marsh-heron", "metres", IMPERIAL),
        ("orchard-keeper", "millimetres", IMPERIAL),
    ],
)
def test_no_view_speaks_in_the_other_units(open_on, name, units, wrong):
    project = read_in(demo(name), units)
    window, names, found = open_on(project), names_of(project), {}
    session, build = window.session, project.build

    def look(where):
        window.grab()
        for text in set(texts(window)):
            said = foreign(text, wrong, names)
            if said is not None or re.search(r"\{[\d.]+ \w", text):
                found.setdefault(text, (where, said))

    for where in every_view(window):
        look(where)
    hands = {
        "Stow": build.stow.things[::4],
        "Shell": (*build.shell.openings[:3], *build.shell.partitions[:1], *build.shell.lofts),
        "Systems": (*build.systems.wires[:2], *build.systems.devices[:2], *build.systems.loads[:2]),
    }
    for stop, some in hands.items():
        session.go_to(stop)
        for one in some:
            session.select((one.id,))
            look(f"{stop}, {one.id} in hand")

    assert not found


@pytest.mark.parametrize(("name", "wrong"), [("orchard-keeper", METRIC), ("marsh-heron", IMPERIAL)])
def test_no_line_of_the_catalogue_speaks_in_the_other_units(open_on, name, wrong):
    window = open_on(demo(name), judged=False)
    window.session.go_to("Stow")
    bench = window.bench("Stow")
    bench.open_shelf()
    listed = bench.shelf.list
    lines = [listed.item(row) for row in range(listed.count())]
    assert len(lines) > 100
    own = {thing.name for thing in window.session.facts.things}
    said = [line.text() for line in lines] + [line.toolTip() for line in lines]
    own |= {"Spare wheel"}  # rims are sold in inches everywhere
    found = [text for text in said if wrong.search(text) and not any(one in text for one in own)]
    window.find_anything()
    window.finder.line.setText("add:")
    found += [title for title, _ in window.finder.found if wrong.search(title)]
    assert not found


@pytest.mark.parametrize("name", ["orchard-keeper", "marsh-heron", "rosin-box"])
def test_no_shop_sheet_is_rounded_to_ten_millimetres(name):
    from uncle_sled.core.drawing.balance.axle_order import axle_order
    from uncle_sled.core.drawing.primitives import Text
    from uncle_sled.core.drawing.shell.cut_sheet import cut_sheet
    from uncle_sled.core.drawing.shell.framing_sheets import framing_sheets
    from uncle_sled.core.reading.studied import study

    project = demo(name)
    s = study(project.build, project.facts)
    pages = framing_sheets(s, name, "today")
    order = axle_order(s, name, "today")
    shapes = [*(shape for page in pages for shape in page.shapes), *(order.shapes if order else ()), *cut_sheet(s)]
    rounded = re.compile(r"\d\.\d\d? m\b")
    told = [shape.text for shape in shapes if isinstance(shape, Text) and rounded.search(shape.text)]
    assert not [text for text in told if " in all" not in text]
