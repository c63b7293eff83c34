"""The recipes of CONTRIBUTING, followed to the letter in a copy of the house: as many files touched as it says, and all of it there."""

import os
import re
import shutil
import subprocess
import sys
from pathlib import Path

ROOT = Path(__file__).parents[1]
USE = """
import csv, io, json, sys
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.field import field_at
from uncle_sled.core.document.project import Build
from uncle_sled.core.findings.all_findings import RULES, findings, table_of_codes
from uncle_sled.core.findings.sources import source_of
from uncle_sled.core.materials import materials
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.build.tasks import shipped_tasks
from uncle_sled.core.studies.cut.consumables import shipped_rules
from uncle_sled.exchange.demos import demo
from uncle_sled.exchange.export import export_bytes
from uncle_sled.exchange.exports import exports_of
from uncle_sled.exchange.sled_schema import make_schema

project = demo("rosin-box")
s = study(project.build, project.facts)
found = findings(s)
# a finding
assert "tried-out" in {one.code for one in found} and "`tried-out`" in table_of_codes()
assert "plane geometry" in source_of("tried-out") and RULES["tried-out"].stop == "Rig"
# an export
assert "masses-twice" in [one.kind for one in exports_of("Balance")]
assert export_bytes("masses-twice", project.name, s, found) == export_bytes("csv", project.name, s, found)
# a field
age = field_at(Build, "stow.things.t.winch.rope_age")
assert age.about.title == "Rope's age" and age.read("7", s.build.brief.reading.shown()) == 7
assert "Rope's age" in json.dumps(make_schema())
# a material, a rule of consumption, a task
assert materials()["tried-board"].density_kg_m3 == 512.0 and materials()["tried-board"].family == "plywood"
assert "tried-tape" in {one.id for one in shipped_rules()} and "tried-task" in {one.id for one in shipped_tasks()}

from PySide6.QtWidgets import QApplication
from uncle_sled.core.document.joinery import Winch
from uncle_sled.desk.app import application, open_window
from uncle_sled.desk.benches.stow.built_rows import _winch
import msgspec
thing = msgspec.structs.replace(project.build.stow.things[0], winch=Winch())
assert any(row.path.endswith(".rope_age") for row in _winch(thing))
application()
window = open_window(project)
window.show()
assert window.acts.qt["write-masses-twice"].text() == "Every mass twice as CSV…"
# a view
window.session.go_to("Road")
window.bench("Road").show_view("Echo")
QApplication.processEvents()
assert window.bench("Road").made["Echo"].says == "heard"
# an action
window.acts.qt["call-out"].trigger()
assert window.bench("Road").made["Echo"].says == "called"
print("followed")
"""
PANEL = '''"""A panel that is tried out."""

from __future__ import annotations

from PySide6.QtWidgets import QWidget

from uncle_sled.desk.session import Session


class EchoPanel(QWidget):
    says = ""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session

    def refresh(self) -> None:
        self.says = self.says or "heard"

    def call(self) -> None:
        self.says = "called"
'''


def test_every_recipe_that_says_how_is_true(tmp_path):
    shutil.copytree(ROOT / "src", tmp_path / "src", ignore=shutil.ignore_patterns("__pycache__", "*.egg-info"))
    house, touched = tmp_path / "src" / "uncle_sled", {}

    def put(recipe, place, before, line):
        file = house / place
        text = file.read_text() if file.exists() else ""
        assert not before or re.search(before, text), (recipe, place)
        file.write_text(re.sub(before, lambda at: line + at.group(0), text, count=1) if before else text + line)
        touched.setdefault(recipe, set()).add(place)

    put(
        "export",
        "exchange/exports.py",
        r"\)\nEXPORTS",
        '    Export("masses-twice", "csv", "Every mass twice as CSV", "trying", _masses, "Balance"),\n',
    )
    clearances = "core/findings/balance/clearances.py"
    put(
        "finding",
        clearances,
        r"def clearance_findings",
        'TRIED = Rule("tried-out", "note", "Rig", "Anything at all", "To see whether it is found.", why_none="Nothing helps.")\n\n\n',
    )
    put(
        "finding",
        clearances,
        r"    (?=[^\n]*\n)(?<=Iterator\[Finding\]:\n    )",
        '    yield TRIED.found("Tried out", "It is.", ("rig",))\n',
    )
    put(
        "field",
        "core/document/joinery.py",
        r"\n\nclass PullOut",
        '    rope_age: Annotated[Count | None, about("Rope\'s age", "In years", unit="a")] = None\n',
    )
    put(
        "view",
        "desk/benches/road/about.py",
        r"        View\(",
        '        View("Echo", "an echo", "What comes back", panel="echo_panel:EchoPanel"),\n',
    )
    put("view", "desk/benches/road/echo_panel.py", "", PANEL)
    put(
        "action",
        "desk/benches/road/about.py",
        r"        Deed\(",
        '        Deed("call-out", "Call out", "", lambda bench: bench.made["Echo"].call()),\n',
    )
    put(
        "material",
        "catalogue/materials.csv",
        r"birch-ply,",
        "tried-board,Tried board,plywood,512,0.13,150,,,1700,2900,,,0.35,plywood,sheet,yes,,,,,,,trying\n",
    )
    put("consumption", "catalogue/consumables.csv", r"rivets,", "tried-tape,Tried tape,seam_m,1,m,10,5,hardware,skins,trying\n")
    put("task", "catalogue/tasks.csv", r"survey,", "tried-task,Try it,measuring,bought,1,2,3,1,shop,,,,,,,a pencil,,trying\n")

    env = {**os.environ, "PYTHONPATH": str(tmp_path / "src"), "QT_QPA_PLATFORM": "offscreen"}
    done = subprocess.run([sys.executable, "-c", USE], capture_output=True, text=True, env=env, cwd=tmp_path)
    assert done.stdout.strip().endswith("followed"), done.stdout + done.stderr
    assert {recipe: len(files) for recipe, files in touched.items()} == {
        "export": 1,
        "finding": 1,
        "field": 1,
        "view": 2,
        "action": 1,
        "material": 1,
        "consumption": 1,
        "task": 1,
    }
