"""Every view of every demo is read in the build's own units: no metre in a build of feet, no pound in one of kilograms."""

import re

import pytest
from PySide6.QtWidgets import QLabel, QLineEdit, QTableView, QWidget

from uncle_sled.exchange.demos import demo

METRIC = re.compile(r"\d ?(kg|m|mm|cm|L|m²|kN)\b")
IMPERIAL = re.compile(r'\d ?(lb|ft|in|gal|lbf)\b|\d"')
MEANT = (
    "10 mm, ",  # bolts are bought so
    "0.5 mm",  # part of a material's name
    "ft2.F.h",
    "km/h",  # tyres carry both
)
VIEWS = {
    "Brief": (),
    "Rig": (),
    "Shell": ("Profile", "Openings", "Framing", "Faces"),
    "Stow": ("Drawing", "Solid", "Modes", "Cases", "Fits", "Held", "Table"),
    "Balance": ("Axle", "Moves", "Sure", "Limits", "Driving"),
}


def texts(window):
    """Everything that can be read at this moment."""
    for widget in window.findChildren(QWidget):
        if not widget.isVisible():
            continue
        if isinstance(widget, QLabel | QLineEdit):
            yield widget.text()
        if isinstance(widget, QTableView):
            model = widget.model()
            for row in range(model.rowCount()):
                yield from (str(model.index(row, column).data()) for column in range(model.columnCount()))
        for one in getattr(widget, "written", []):
            yield one.text


def foreign(window, wrong, names):
    for text in texts(window):
        plain = text
        for name in (*names, *MEANT):
            for form in (name, name[:1].lower() + name[1:], name.lower()):
                plain = plain.replace(form, "")
        if wrong.search(plain):
            yield text


@pytest.mark.parametrize(
    ("name", "wrong"),
    [("rosin-box", METRIC), ("orchard-keeper", METRIC), ("marsh-heron", IMPERIAL), ("dark-sky", IMPERIAL)],
)
def test_no_view_speaks_in_the_other_units(open_on, name, wrong):
    window = open_on(demo(name))
    session = window.session
    build = session.build
    names = sorted((one.name for one in (*build.stow.things, *build.shell.openings)), key=len, reverse=True)
    window.in_hand.open = {"Shape of the tank", "In this mode", "Held down", "Use", "Room beside it"}
    found = set()
    for stop, views in VIEWS.items():
        session.go_to(stop)
        bench = window.bench(stop)
        if stop == "Stow":
            session.select(tuple(t.id for t in build.stow.things if t.tank)[:1])
        for view in views or ("",):
            if view:
                bench.show_view(view)
            window.grab()
            found |= {f"{stop} {view}: {text}" for text in foreign(window, wrong, names)}

    assert not {text for text in found if "1 in 40" not in text and " in the" not in text}


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
