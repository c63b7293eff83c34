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
