"""The whole trail of every demo in the real window: every stop and view, a deed at each, saved, opened, and all undone."""

from __future__ import annotations

import pytest
from PySide6.QtWidgets import QApplication

from uncle_sled.core.document.edits import set_to
from uncle_sled.core.studies.road.reconcile import accepted
from uncle_sled.core.trail import TRAIL
from uncle_sled.desk.benches.about import abouts
from uncle_sled.exchange import sled_file
from uncle_sled.exchange.demos import DEMOS, demo
from uncle_sled.exchange.export import export_bytes


@pytest.mark.parametrize("name", DEMOS)
def test_from_the_brief_to_the_road(open_on, tmp_path, name):
    window = open_on(demo(name), judged=False)
    session = window.session
    start = session.project
    assert [said.stop for said in abouts()] == list(TRAIL)
    for said in abouts():  # every view of every demo is looked over in the walk
        session.go_to(said.stop)
        window.bench(said.stop)
        QApplication.processEvents()
    assert session.project is start  # looking changes nothing

    deeds = 0

    def did(stop: str, changed: bool) -> None:
        nonlocal deeds
        assert changed and session.history.done[-1].stop == stop, stop
        deeds += 1

    build = session.build
    did("Brief", session.edit("Colder", [set_to("brief.coldest", {"si": -9.0, "typed": None})], "Brief"))
    did("Rig", session.edit("Track", [set_to("rig.track", {"si": 1.71, "typed": None})], "Rig"))
    did("Shell", session.edit("Wider", [set_to("shell.width", {"si": build.shell.width.si + 0.04, "typed": None})], "Shell"))
    thing = next(one for one in build.stow.things if one.mass.si > 2 and not one.taken_out)
    did("Stow", session.edit("Heavier", [set_to(f"stow.things.{thing.id}.mass", {"si": thing.mass.si + 1, "typed": None})], "Stow"))
    did("Systems", session.edit("Drinking", [set_to("systems.water.drink_l", build.systems.water.drink_l + 1)], "Systems"))
    session.go_to("Cut")
    did("Cut", session.edit("Kerf", [set_to("cut.kerf", {"si": 0.0031, "typed": None})], "Cut"))
    session.go_to("Build")
    window.bench("Build").add_task()
    did("Build", session.build.work.changes != build.work.changes)
    session.go_to("Road")
    bench = window.bench("Road")
    if session.studied.support is not None and session.build.rig.carrier == "ball":
        bench.add_ticket()
        panel = bench.made["Weigh"]
        ticket = panel.ticket()
        row = session.studied.towing_rows[0]
        b = session.studied.readings
        wheels = float(b.total_kg[row] - b.tongue_kg[row]) + 15.0
        session.edit(
            "Way",
            [
                set_to(f"road.tickets.{ticket.id}.way", "wheel pads"),
                set_to(f"road.tickets.{ticket.id}.step_kg", 0.5),
                set_to(f"road.tickets.{ticket.id}.case", session.studied.table.cases[row].id),
            ],
            "Road",
        )
        for id, kg in (("left", wheels / 2), ("right", wheels / 2), ("ball", float(b.tongue_kg[row]))):
            assert panel.put_reading(id, kg)
        before = float(session.studied.readings.total_kg[row])
        assert bench.accept() and ticket.id in accepted(session.studied)
        assert float(session.studied.readings.total_kg[row]) > before + 5
        assert session.studied.measured.total[row]
    else:
        bench.add_trip()
    did("Road", session.build.road != build.road)
    assert deeds == 8

    path = tmp_path / "walked.sled"
    assert session.save(path)
    again = sled_file.read(path)
    assert again == session.project
    for kind in ("data-sheet", "hand-over"):
        assert export_bytes(kind, again.name, session.studied, ()).startswith(b"%PDF")
    while session.history.done:
        session.undo()
    assert session.project == start
