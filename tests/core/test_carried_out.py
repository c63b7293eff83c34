"""Toilets, buckets and jugs: days by people, what is carried how often and how heavy; washing; one whole case by hand."""

import msgspec
import pytest

from tests.builders import METRIC, a_build, a_tank, a_thing
from uncle_sled.catalogue.things import entries
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Volume
from uncle_sled.core.document.stow import Figures, Tank
from uncle_sled.core.document.systems import Systems, Water
from uncle_sled.core.drawing.primitives import Text
from uncle_sled.core.drawing.systems.carried_rows import carried_rows, carried_words
from uncle_sled.core.drawing.systems.comfort_sheets import comfort_sheets
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.systems.carried_out import carried_of, day_l
from uncle_sled.core.studies.systems.frost import frost_of
from uncle_sled.core.studies.systems.water import need_l, uncounted, water_of
from uncle_sled.core.words import Words
from uncle_sled.exchange.systems_report import water_report


def bottle(id="u1", litres=8.0, contents="urine", mass=0.5, **changes):
    return a_tank(id, mass=mass, tank=Tank(Volume(litres / 1000), contents, "jug"), **changes)


def with_water(things, **water):
    return a_build(things, systems=Systems(water=Water(**{"days": 3.0, **water})))


def codes(build):
    return {found.code: found for found in findings(study(build, Facts()))}


def test_two_people_by_hand_on_a_dry_toilet():
    """Two of them, three days: urine 2 x 1.4 = 2.8 L a day, 8.4 L in all: a bottle of 8 L is full after 2.86 days and is carried twice,
    0.5 + 8 x 1.015 = 8.62 kg. Solids 2 x 0.35 = 0.7 L: a bin of 15 L is full after 21.4 days and is carried once, 0.9 + 15 x 0.7 = 11.4 kg.
    """
    build = with_water((bottle(), bottle("s1", 15.0, "solids", 0.9)))
    made = carried_of(build, 2)
    urine, solids = made.of("urine"), made.of("solids")
    assert urine.day_l == pytest.approx(2.8)
    assert urine.days == pytest.approx(8 / 2.8)
    assert [(carry.id, carry.times) for carry in urine.carries] == [("u1", 2)]
    assert urine.carries[0].kg == pytest.approx(0.5 + 8.12)
    assert solids.days == pytest.approx(15 / 0.7)
    assert solids.carries[0].times == 1
    assert solids.carries[0].kg == pytest.approx(0.9 + 10.5)
    assert carried_words(urine, Words(METRIC)) == (
        "2.8 L a day, full after 2.9 days",
        "carried 2 times, 8.6 kg when full,",
        "to a toilet or a dump point",
    )


def test_a_cassette_by_hand_alone_and_beside_a_urine_bottle():
    """Two on a rinsed toilet, 0.4 L a flush: 2 x (1.4 + 0.15 + 5 x 0.4) = 7.1 L a day; with the urine apart 4.3; half at the site's: 3.55."""
    cassette = a_tank("c1", mass=4.4, tank=Tank(Volume(0.018), "black", carried=True))
    build = with_water((cassette,))
    assert day_l(build, 2, "black") == pytest.approx(7.1)
    assert carried_of(build, 2).of("black").days == pytest.approx(18 / 7.1)
    assert carried_of(build, 2).of("black").carries[0].times == 2  # 21.3 L in 18 L
    assert day_l(with_water((cassette, bottle())), 2, "black") == pytest.approx(4.3)
    assert day_l(with_water((cassette,), toilet_share=0.5), 2, "black") == pytest.approx(3.55)
    fixed = a_tank("c2", mass=6.0, tank=Tank(Volume(0.06), "black"))
    both = carried_of(with_water((cassette, fixed), days=12.0), 2).of("black")
    assert both.fixed
    assert both.carries[0].times == 2  # 85.2 L less 60 that stay: 25.2 in 18
    found = codes(with_water((a_tank("c3", mass=5.0, tank=Tank(Volume(0.012), "black")),)))
    assert "toilet-full" not in found  # nobody sleeps here: nothing comes


def test_rinsing_from_the_fresh_tank_is_in_its_need_and_not_in_the_grey():
    cassette = a_tank("c1", tank=Tank(Volume(0.018), "black"))
    own, tank = with_water((cassette,)), with_water((cassette,), flush_from="tank", flush_l=0.5)
    assert need_l(tank, 2) - need_l(own, 2) == pytest.approx(2 * 5 * 0.5)
    assert water_of(tank, 2).grey_l_day == pytest.approx(water_of(own, 2).grey_l_day)
    assert need_l(with_water((), flush_from="tank"), 2) == pytest.approx(20.0)  # without a toilet nothing is rinsed


def test_washing_counts_where_it_is_said_and_is_told_where_not():
    """Two: 2 x (6 + 4) = 20 L; the basin 8 L each: 36; clothes 35 L a week: 41; a machine of 20 L a day: 61 and the clothes are known."""
    assert uncounted(with_water(())) == ("washing at the basin", "clothes")
    assert need_l(with_water((), basin_l=8.0), 2) == pytest.approx(36.0)
    said = with_water((), basin_l=8.0, laundry_l=35.0)
    assert need_l(said, 2) == pytest.approx(41.0)
    assert uncounted(said) == ()
    machine = a_thing("m", figures=Figures(water_l_day=20.0), roles=("washes clothes",))
    washed = with_water((machine,), basin_l=8.0, laundry_l=35.0)
    assert need_l(washed, 2) == pytest.approx(61.0)
    assert uncounted(with_water((machine,), basin_l=8.0)) == ()
    assert water_of(washed, 2).grey_l_day == pytest.approx(57.0)


def test_grey_by_bucket_is_carried_in_turn():
    """2 people, 16 L a day come back, three days: 48 L in buckets of 10 and 12 L: two turns of 22, then 4 L in the first: three and two."""
    build = with_water((bottle("b1", 10.0, "grey", 0.7), bottle("b2", 12.0, "grey", 0.7)))
    grey = carried_of(build, 2).of("grey")
    assert [carry.times for carry in grey.carries] == [3, 2]
    assert grey.day_l == pytest.approx(16.0)


def test_its_weight_is_on_the_way_home_and_not_on_the_way_out():
    s = study(with_water((a_tank("w1", 60.0), bottle(), bottle("s1", 15.0, "solids", 0.9))), Facts())
    kg = {
        case.id: {id: s.table.mass_kg[row, at] for at, id in enumerate(s.table.ids) if id.endswith("/contents")}
        for row, case in enumerate(s.table.cases)
    }
    of = ("w1/contents", "u1/contents", "s1/contents")
    assert [kg["coming-home"][id] for id in of] == pytest.approx([0.0, 8.12, 10.5])
    assert [kg["all-full"][id] for id in of] == pytest.approx([60.0, 8.12, 10.5])
    assert [kg["going-out"][id] for id in of] == pytest.approx([60.0, 0.0, 0.0])


def test_what_is_full_too_soon_what_is_too_heavy_and_what_holds_nothing_is_said():
    bed = a_thing("bed", size=(2.0, 1.4, 0.2), kind="bed", roles=("mattress",))
    soon = codes(with_water((bed, a_tank("c3", mass=5.0, tank=Tank(Volume(0.012), "black")))))["toilet-full"]
    assert soon.severity == "mind"
    assert "3 days" in soon.says
    assert codes(with_water((bed, bottle())))["toilet-full"].severity == "note"
    heavy = codes(with_water((bottle("u2", 25.0),)))["carried-heavy"]
    assert heavy.number == pytest.approx(0.5 + 25.375 - 25.0)
    toilet = with_water((bed, a_thing("t", name="Toilet", roles=("toilet",))))
    assert "nobody" in codes(toilet)["toilet-holds"].says.lower()
    after = apply(toilet, [set_to("stow.things.t.tank", {"volume": {"si": 0.015, "typed": None}, "contents": "black"})])
    assert carried_of(after, 2).of("black").days == pytest.approx(15 / 7.1)
    assert "toilet-holds" not in codes(after)
    assert "toilet-holds" not in codes(with_water((bottle(), a_thing("t", roles=("toilet",)))))


def test_nobody_said_is_not_checked_and_odd_figures_do_not_break():
    blank = a_tank("u", tank=Tank(None, "urine", "jug"))
    fills = carried_of(with_water((blank,)), 2).of("urine")
    assert fills.days is None
    assert "not checked" in carried_words(fills, Words(METRIC))[0]
    nobody = carried_of(with_water((bottle(),)), 0).of("urine")
    assert nobody.day_l is None
    assert "who sleeps" in carried_words(nobody, Words(METRIC))[0]
    assert carried_of(a_build(), 2).fills == ()
    thimble = carried_of(with_water((bottle("u", 0.001),), days=400.0), 8).of("urine")
    assert thimble.carries[0].times >= 400
    never = carried_of(with_water((bottle(),), toilet_share=0.0), 2).of("urine")
    assert never.days is None
    assert never.carries[0].times == 0


def test_urine_freezes_and_is_emptied_with_the_rest():
    s = study(apply(with_water((bottle(),)), [set_to("brief.coldest", {"si": -8.0, "typed": None})]), Facts())
    made = frost_of(s)
    assert [wet.kind for wet in made.wets] == ["urine"]
    assert [drain.ids for drain in made.drains if drain.step == "empty black"] == [("u1",)]


def test_screen_paper_and_report_say_the_same_and_the_catalogue_holds_them():
    build = msgspec.structs.replace(with_water((a_tank("w1", 60.0), bottle(), a_tank("g", 40.0, "grey"))), name="b")
    s = study(build, Facts(people=()))
    made = carried_of(build, 2)
    texts = " ".join(shape.text for shape in carried_rows(made, Words(METRIC), 520, 260) if isinstance(shape, Text))
    assert "2.8 L a day, full after 2.9 days" in texts
    assert "3 days wanted" in texts
    few = carried_rows(made, Words(METRIC), 260, 90)
    assert any("more" in shape.text for shape in few if isinstance(shape, Text))
    assert carried_rows(carried_of(a_build(), 2), Words(METRIC), 500, 300) == ()
    told = {each["kind"]: each for each in water_report(s)["carried"]}
    assert told["urine"]["by_hand"][0]["full_kg"] == pytest.approx(8.62)
    pages = comfort_sheets(s, "Test", "2026-01-01")
    assert all("urine" not in page.title.lower() for page in pages)
    held = {entry.id: entry.tank for entry in entries() if entry.tank is not None}
    assert held["urine-bottle-8"].contents == "urine"
    assert held["toilet-portable"].carried
    assert held["dry-bin-15"].shape == "jug"
