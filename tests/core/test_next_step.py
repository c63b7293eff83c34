"""The sentence at the head of each stop: what one does there, what is wanted, where to go on."""

from msgspec.structs import replace

from uncle_sled.core.document.beginnings import Answers, begin
from uncle_sled.core.document.brief import Reading
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.project import empty_project
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.findings.next_step import NAMED, lead, wanted
from uncle_sled.core.reading.studied import study
from uncle_sled.core.trail import STOPS, TRAIL
from uncle_sled.exchange.demos import demo


def test_an_empty_build_is_told_what_to_begin_with():
    project = empty_project()
    s = study(project.build, project.facts)
    told = lead(s, (), "Brief")
    assert told.startswith(STOPS[0].does) and "Still wanted: who goes along, the car that tows it, where it goes and 1 more." in told
    assert wanted(s, "Shell") == ("a body",) and wanted(s, "Stow") == ("what goes along",) and wanted(s, "Systems") == ()
    assert wanted(s, "Balance") and wanted(s, "Road") and wanted(s, "nowhere") == ()
    assert "Still wanted: what goes along." in lead(s, (), "Stow")


def test_each_thing_that_is_said_is_asked_no_more():
    project = begin("New", Answers("nothing yet", "European", Reading(), body="teardrop"))
    s = study(project.build, project.facts)
    brief = wanted(s, "Brief")
    assert "the car that tows it" in brief and "the coldest night" in brief
    colder = apply(project.build, [set_to("brief.coldest", {"si": -10.0, "typed": None})])
    assert wanted(study(colder, project.facts), "Brief") == tuple(one for one in brief if one != "the coldest night")
    assert wanted(s, "Shell") == () and wanted(s, "Build") == ("the day when it begins",)
    begun = apply(project.build, [set_to("work.begin", "2027-03-01")])
    assert wanted(study(begun, project.facts), "Build") == ()
    raw = apply(project.build, [set_to("shell.framing.school", "none")])
    assert "how it is built" in wanted(study(raw, project.facts), "Shell")


def test_one_goes_on_where_the_first_thing_is_open():
    project = demo("marsh-heron")
    s = study(project.build, project.facts)
    found = findings(s)
    first = next(stop for stop in TRAIL if any(one.stop == stop and one.severity != "note" for one in found))
    assert lead(s, found, first).endswith("Next: what Uncle says here.")
    assert f"Next: {first}, " in lead(s, found, "Road")
    settled = tuple(replace(one, severity="note") for one in found)
    assert lead(s, settled, "Brief").endswith("Next: Cut, for numbers on the pieces, before the first is sawn.")
    numbered = study(apply(project.build, [set_to("cut.prints", 1)]), project.facts)
    assert lead(numbered, settled, "Brief") == STOPS[0].does
    assert NAMED == 3
