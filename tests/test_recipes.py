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

from uncle_sled.desk.kit.panel import Panel, Part
from uncle_sled.desk.kit.parts import Says


class EchoPanel(Panel):
    says = "heard"

    def laid(self) -> Part:
        return Says(lambda: self.says)

    def call(self) -> None:
        self.says = "called"
'''


class House:
    """A copy of the house that recipes are followed in."""

    def __init__(self, folder):
        shutil.copytree(ROOT / "src", folder / "src", ignore=shutil.ignore_patterns("*.egg-info"))
        self.folder, self.touched = folder, {}

    def put(self, recipe, place, before, line):
        """A line before what a pattern finds, or at the end of a file that may be new."""
        file = self.folder / "src" / "uncle_sled" / place
        text = file.read_text() if file.exists() else ""
        assert not before or re.search(before, text), (recipe, place)
        file.write_text(re.sub(before, lambda at: line + at.group(0), text, count=1) if before else text + line)
        self.touched.setdefault(recipe, set()).add(place)

    def use(self, script):
        """What a script prints that uses this house."""
        env = {**os.environ, "PYTHONPATH": str(self.folder / "src"), "QT_QPA_PLATFORM": "offscreen"}
        done = subprocess.run([sys.executable, "-c", script], capture_output=True, text=True, env=env, cwd=self.folder)
        return done.stdout.strip() or done.stderr

    @property
    def files(self):
        """How many files each recipe touched."""
        return {recipe: len(files) for recipe, files in self.touched.items()}


def test_recipes_of_what_the_window_shows(tmp_path):
    house = House(tmp_path)
    put = house.put
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
        "tried-board,Tried board,plywood,512,0.13,150,,,1700,2900,,,0.35,plywood,sheet,yes,,,,,,,,,,trying\n",
    )
    put("consumption", "catalogue/consumables.csv", r"rivets,", "tried-tape,Tried tape,seam_m,1,m,10,5,hardware,skins,trying\n")
    put("task", "catalogue/tasks.csv", r"survey,", "tried-task,Try it,measuring,bought,1,2,3,1,shop,,,,,,,a pencil,,trying\n")

    said = house.use(USE)
    assert said.endswith("followed"), said
    assert house.files == {"export": 1, "finding": 1, "field": 1, "view": 2, "action": 1, "material": 1, "consumption": 1, "task": 1}


TRY = """
from uncle_sled.catalogue.search import fits
from uncle_sled.catalogue.things import entries
from uncle_sled.core.document.assemblies import WAYS
from uncle_sled.core.document.beginnings import Answers, begin
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.brief import Reading
from uncle_sled.core.document.roles import ROLES
from uncle_sled.core.framing.frame_body import SCHOOLS
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.balance.tried_slowly import tried_slowly
from uncle_sled.core.studies.build.checklists import checklists
from uncle_sled.core.studies.build.order import traps
from uncle_sled.core.studies.cut.bought_line import prices
from uncle_sled.core.studies.stow.adding import goes_with
from uncle_sled.exchange.demos import demo
from uncle_sled.exchange.export import export_bytes
from uncle_sled.exchange.sled_schema import make_schema

# a thing, what it is called elsewhere, and what it wants beside it; a role
shelf = {one.id: one for one in entries()}
kettle = shelf["tried-kettle"]
assert fits(kettle.name, "samovar") and "boils water" in kettle.roles and "boils water" in ROLES and "boils water" in str(make_schema())
assert [one.id for one in goes_with(kettle, (), entries())] == ["fuse-board"]
# a way of making a face, a body to begin with
assert WAYS["tried boards"][0].material == "birch-ply"
hut = begin("Hut", Answers("a frame to weld", "European", Reading(), body="hut")).build
# a school
sticks = lambda build: study(build, demo("rosin-box").facts).framed.members
ours = apply(hut, [set_to("shell.framing.school", "tried school")])
assert SCHOOLS["tried school"].feet and sticks(ours) and len(sticks(ours)) == len(sticks(apply(hut, [set_to("shell.framing.school", "stick timber")])))
# a line of a checklist, an order trap, a price to begin with
s = study(demo("rosin-box").build, demo("rosin-box").facts)
assert any(line.says == "Try it once" for one in checklists(s.build, s.facts) for line in one.lines)
assert traps()[-1].why == "It was tried." and prices()["thing tried"].likely == 2.0
# a paper
assert export_bytes("tried-paper", "x", s, ()).startswith(b"%PDF")
# a study with a slow answer, asked by the desk
from uncle_sled.desk.app import application, open_window
from uncle_sled.desk.settings import SETTINGS
application()
window = open_window(demo("rosin-box"))
window.session.answers.ask(tried_slowly)
assert window.session.answers.of(tried_slowly).value == tried_slowly(window.session.studied) > 0
# a setting
assert window.settings.get("tried") == "no" and any(one.key == "tried" for one in SETTINGS)
print("followed")
"""
SCHOOL = '''"""A school that is tried out."""

from __future__ import annotations

from msgspec.structs import replace

from uncle_sled.core.framing.stick_timber import STICK

TRIED = replace(STICK, name="tried school", says="As sticks, under another name")
'''
SLOW = '''"""How many things there are, counted slowly. Source: counting."""

from __future__ import annotations

from uncle_sled.core.reading.studied import Studied, whole
from uncle_sled.core.slow import Tell, slow


@slow(whole)
def tried_slowly(studied: Studied, tell: Tell) -> int:
    """The number of things."""
    tell(0.5, "counting")
    return len(studied.build.stow.things)
'''
PAPER = '''"""A paper that is tried out."""

from __future__ import annotations

from uncle_sled.core.drawing.page import Page
from uncle_sled.core.drawing.paper import paper_of
from uncle_sled.core.drawing.sheets import Column, Sheets
from uncle_sled.core.reading.studied import Studied


def tried_paper(s: Studied) -> tuple[Page, ...]:
    """Every thing in a row."""
    sheets = Sheets(paper_of(s.build).upright, "Tried", s.build.name)
    sheets.head("Things")
    sheets.table((Column("Name"), Column("Id")), [(one.name, one.id) for one in s.build.stow.things])
    return sheets.done()
'''
WRITES = """
def _tried(asked: Asked) -> Written:
    from uncle_sled.core.drawing.balance.tried_paper import tried_paper

    return tried_paper(asked.s)


"""


def test_recipes_of_what_the_core_knows(tmp_path):
    house = House(tmp_path)
    put, core = house.put, "core/document/"
    put("role", core + "roles.py", r'    "pumps by foot",\n    "tap', '    "boils water",\n')
    columns = (house.folder / "src/uncle_sled/catalogue/things.csv").read_text().splitlines()[0].split(",")
    kettle = {"id": "tried-kettle", "name": "Tried kettle", "kind": "appliance", "length_mm": "200", "width_mm": "200", "height_mm": "250"}
    kettle |= {"mass_kg": "1", "source": "estimated", "roles": "boils water", "power_w": "300"}
    put("thing", "catalogue/things.csv", "", ",".join(kettle.get(name, "") for name in columns) + "\n")
    put("thing", "catalogue/said.csv", "", "samovar,tried kettle\n")
    beside = "core/studies/stow/adding.py"
    put("thing", beside, r"    \(_takes_water, \"pump-12", '    (_does("boils water"), "fuse-board", _unit("fuse box")),\n')
    put("way", core + "assemblies.py", r'    "bare 18 mm ply"', '    "tried boards": _layers(("birch-ply", 21, 0),),\n')
    put("body", core + "bodies.py", r'", "strip-ribbed"\]', '", "hut')
    hut = '    replace(GABLE_HOUSE, kind="hut", says="Hut", about="a small house"),\n'
    put("body", core + "bodies.py", r'    StartBody\(\n        "teardrop"', hut)
    put("school", "core/framing/tried_school.py", "", SCHOOL)
    put("school", "core/framing/frame_body.py", r"\nSCHOOLS", "from uncle_sled.core.framing.tried_school import TRIED\n")
    put("school", "core/framing/frame_body.py", r"STICK, LIGHT_STEEL", "TRIED, ")
    put("school", core + "shell.py", r'"bought shell"\n\]', '"tried school", ')
    put("checklist", "catalogue/checklists.csv", "", "First tow,tried,rolls,Try it once\n")
    put("trap", "catalogue/traps.csv", "", "tried,foam,liner,It was tried.\n")
    put("price", "catalogue/prices.csv", "", "thing tried,power,systems,shop,1,2,3,4,tried\n")
    put("study", "core/studies/balance/tried_slowly.py", "", SLOW)
    put("paper", "core/drawing/balance/tried_paper.py", "", PAPER)
    put("paper", "exchange/exports.py", r"\ndef _axle", WRITES.rstrip("\n") + "\n\n")
    put("paper", "exchange/exports.py", r'    Export\("pdf"', '    Export("tried-paper", "pdf", "Tried as PDF", "trying", _tried),\n')
    tried = '    Setting("tried", "Tried", (("no", "not yet"), ("yes", "once")), "no", "Whether it was tried"),\n'
    put("setting", "desk/settings.py", r'    Setting\("mass"', tried)

    said = house.use(TRY)
    assert said.endswith("followed"), said
    assert house.files == {
        "role": 1,
        "thing": 3,
        "way": 1,
        "body": 1,
        "school": 3,
        "checklist": 1,
        "trap": 1,
        "price": 1,
        "study": 1,
        "paper": 2,
        "setting": 1,
    }
