"""A first build from nothing to papers, in the order of the guide's page, through the real window."""

from __future__ import annotations

from typing import Any

import pytest
from PySide6.QtWidgets import QApplication

from tests.desk.walk import faults_of
from uncle_sled.catalogue.things import entries
from uncle_sled.core.document.edits import add_to, fresh_id, set_to
from uncle_sled.core.document.project import empty_project
from uncle_sled.core.errors import FileError
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.core.trail import TRAIL
from uncle_sled.exchange import sled_file
from uncle_sled.exchange.export import export_bytes
from uncle_sled.exchange.exports import EXPORTS
from uncle_sled.exchange.report import report


def m(metres: float) -> dict[str, object]:
    return {"si": metres, "typed": None}


def kg(kilograms: float) -> dict[str, object]:
    return {"si": kilograms, "typed": None}


SAID: dict[str, list[tuple[str, Any]]] = {
    "Brief": [
        ("brief.place", "north coast"),
        ("brief.latitude_deg", 54.0),
        ("brief.nights_off", 2),
        ("brief.coldest", {"si": -5.0, "typed": None}),
        ("brief.inside", {"si": 16.0, "typed": None}),
    ],
    "Rig": [
        ("rig.frame_length", m(3.0)),
        ("rig.drawbar_length", m(1.1)),
        ("rig.track", m(1.6)),
        ("rig.ball_height", m(0.43)),
        ("rig.rail", "tube-100x50x3"),
        ("rig.cross", "tube-40x40x2"),
    ],
    "Shell": [
        ("shell.form", "box"),
        ("shell.front", m(1.2)),
        ("shell.length", m(2.8)),
        ("shell.width", m(1.9)),
        ("shell.height", m(1.9)),
        ("shell.floor", m(0.55)),
        ("shell.wall", m(0.12)),
        ("shell.framing.school", "stick timber"),
    ],
}
ADDED = ("water-jug-20", "grey-jug-10", "gas-2-5", "stove-2", "lfp-100")


def act(window, id):
    window.acts.acts[id].run()
    for _ in range(3):
        QApplication.processEvents()


def opening(build, face: str, kind: str, *sizes: float) -> dict[str, object]:
    """Sizes: along, up, width, height."""
    names = ("along", "up", "width", "height")
    id = fresh_id("o", [one.id for one in build.shell.openings])
    return {"id": id, "kind": kind, "name": kind, "face": face, **{name: m(value) for name, value in zip(names, sizes, strict=True)}}


@pytest.fixture
def walked(open_on):
    """The window after the first three stops, said field by field."""
    window = open_on(empty_project(), judged=False)
    session = window.session
    for stop, fields in SAID.items():
        session.go_to(stop)
        for path, value in fields:
            assert session.edit(path, [set_to(path, value)], stop), path
        QApplication.processEvents()
        assert faults_of(window) == [], stop
    for face, kind, along, up, wide, high in (("left side", "door", 1.3, 0.12, 0.65, 1.0), ("rear", "hatch", 0.2, 0.2, 1.1, 0.9)):
        assert session.edit("Cut in", [add_to("shell.openings", opening(session.build, face, kind, along, up, wide, high))], "Shell")
    return window


def test_the_first_three_stops_give_a_framed_body_that_weighs_something(walked) -> None:
    s = walked.session.studied
    assert s.framed.members and len(s.framed.cuts) >= 2
    assert sum(one.mass_kg for one in s.framed.members) > 20
    assert take_off(s.build, s.facts)
    # the axle is still to be placed, and nothing claims a reading that is not there
    assert s.support is None or s.readings is not None
    told = {one.code for one in findings(s)}
    assert told  # somebody has something to say


def test_from_nothing_to_papers(walked, tmp_path) -> None:
    window, session = walked, walked.session
    start = len(session.history.done)
    session.go_to("Rig")
    axle = {"id": "a1", "station": m(2.75), "rating": kg(750.0)}
    assert session.edit("Axle", [add_to("rig.axles", axle)], "Rig")
    session.go_to("Stow")
    bench = window.bench("Stow")
    shelf = {entry.id: entry for entry in entries()}
    for id in ADDED:
        bench.add(shelf[id])
    assert len(session.build.stow.things) == len(ADDED)
    for stop, deed in (
        ("Systems", "wire-up"),
        ("Systems", "add-load"),
        ("Build", "own-task"),
        ("Build", "write-log"),
        ("Road", "new-ticket"),
        ("Road", "add-wish"),
    ):
        session.go_to(stop)
        act(window, deed)
        assert faults_of(window) == [], (stop, deed)
    assert len(session.history.done) > start
    s = study(session.build, session.facts)
    written, refused = [], {}
    for kind in EXPORTS:
        try:
            data = export_bytes(kind, session.project.name, s, ())
        except FileError as fault:
            refused[kind] = str(fault)
        else:
            assert len(data) > 60, kind
            written.append(kind)
    assert all(len(said) > 30 for said in refused.values()), refused
    assert {"pdf", "framing-pdf", "cut-pdf", "set-pdf", "model-pdf", "templates-pdf", "buy-csv", "data-sheet", "card-pdf"} <= set(
        written
    ), refused
    got = report(s, findings(s), session.project)
    assert got["pieces"] and got["buy"] and got["schedule"]["tasks"] and got["cases"]
    path = tmp_path / "first.sled"
    assert session.save(path) and sled_file.read(path) == session.project
    while session.history.done:
        session.undo()
    assert session.project == empty_project()


def test_every_stop_can_be_looked_at_before_anything_is_said(open_on) -> None:
    window = open_on(empty_project(), judged=False)
    for stop in TRAIL:
        window.session.go_to(stop)
        QApplication.processEvents()
        assert faults_of(window) == [], stop
    assert window.session.history.done == ()
