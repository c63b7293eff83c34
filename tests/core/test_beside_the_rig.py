"""Classes of registration and other wheels, by hand."""

import math

import pytest

from tests.builders import METRIC
from uncle_sled.core.document.edits import add_to, apply, set_to
from uncle_sled.core.drawing.balance.trailer_order import trailer_order
from uncle_sled.core.drawing.primitives import Text
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.balance.offers import offer_words, offers_of
from uncle_sled.core.studies.balance.other_wheels import other_wheels, wheels_words
from uncle_sled.core.studies.balance.road_size import worst_size
from uncle_sled.core.studies.balance.thresholds import heaviest_kg, standing_words, standings
from uncle_sled.core.words import Words
from uncle_sled.exchange.demos import demo


def si(value):
    return {"si": value, "typed": None}


def with_class(name="marsh-heron", *more, **figures):
    project = demo(name)
    wanted, fee = figures.pop("wanted", True), figures.pop("fee", None)
    record = {"id": "c1", "name": "Light", "fee": fee, "wanted": wanted} | {key: si(value) for key, value in figures.items()}
    return study(apply(project.build, [add_to("rig.thresholds", record), *more]), project.facts)


def test_the_plate_is_held_against_gross_and_the_heaviest_case_where_there_is_none():
    plate = with_class(gross=750.0).build.rig.gross_total.si
    (row,) = standings(with_class(gross=plate + 12.0))[0].rows
    assert (row.what, row.value, row.left) == ("gross", plate, pytest.approx(12.0))
    s = with_class("marsh-heron", set_to("rig.gross_total", None), gross=750.0)
    heaviest = max(kg for kg, case in zip(s.readings.total_kg, s.table.cases, strict=True) if case.mode.towing)
    assert standings(s)[0].rows[0].value == pytest.approx(heaviest) and heaviest < plate


def test_sizes_are_those_on_the_road_and_what_is_over_is_minded():
    s = with_class()
    long, wide, high = (worst_size(s, way).value_m for way in ("length", "width", "height"))
    under = with_class(length=long + 0.1, width=wide, height=high + 1, fee=80.0)
    assert standings(under)[0].under and "costs 80 a year" in standing_words(standings(under)[0], Words(METRIC))
    assert not {"over-class", "class-unchecked"} & {finding.code for finding in findings(under)}

    over = with_class(length=long + 0.1, width=wide - 0.05)
    found = next(finding for finding in findings(over) if finding.code == "over-class")
    assert found.where == ("c1",) and found.says.startswith("Light: width 50 mm over, length 100 mm under")
    free = with_class(width=wide - 0.05, wanted=False)
    assert standings(free)[0].over and "over-class" not in {finding.code for finding in findings(free)}


def test_what_is_not_known_is_not_under():
    s = with_class("marsh-heron", set_to("shell.form", "none"), set_to("stow.things", []), height=9.0)
    standing = standings(s)[0]

    assert not standing.under and standing.unknown and "height not checked" in standing_words(standing, Words(METRIC))
    assert "class-unchecked" in {finding.code for finding in findings(s)}
    assert not standings(with_class())[0].under and "no figure is typed" in standing_words(standings(with_class())[0], Words(METRIC))


def test_other_wheels_raise_all_by_half_their_difference():
    project = demo("marsh-heron")
    now, rig = 0.60, project.build.rig
    edits = [set_to("rig.tyre.diameter", si(now)), set_to("rig.other_tyre", si(0.65)), set_to("rig.ball_height", si(0.44))]
    s = study(apply(project.build, edits), project.facts)
    found, axle = other_wheels(s), rig.axles[0].station.si

    assert (found.rises_m, found.gearing) == (pytest.approx(0.025), pytest.approx(0.60 / 0.65))
    assert (found.frame_m, found.ball_m) == (pytest.approx(rig.frame_top.si + 0.025), pytest.approx(0.465))
    assert found.tilt_deg == pytest.approx(math.degrees(math.atan(0.025 / axle)))
    assert found.high_m == pytest.approx(worst_size(s, "height").value_m + 0.025)
    says = wheels_words(found, Words(METRIC))
    assert "rises by 25 mm" in says and "465 mm high" in says and "nose down" in says
    assert other_wheels(study(apply(project.build, edits[1:] + [set_to("rig.tyre.diameter", None)]), project.facts)) is None


def test_on_a_vehicle_its_clock_is_wrong_by_the_ratio():
    project = demo("dark-sky")
    s = study(apply(project.build, [set_to("rig.tyre.diameter", si(0.70)), set_to("rig.other_tyre", si(0.77))]), project.facts)
    found = other_wheels(s)

    assert found.tilt_deg is None and found.gearing == pytest.approx(1 / 1.1)
    assert "10.0 % faster than its clock says" in wheels_words(found, Words(METRIC))


def test_the_order_sheet_tells_the_maker_sizes_doors_loads_and_what_is_open():
    s = with_class("rosin-box", set_to("rig.brakes", ""), set_to("rig.coupler_rating", None), gross=3000.0)
    pages = trailer_order(s, "Rosin Box", "2026-12-01")
    told = [shape.text for page in pages for shape in page.shapes if isinstance(shape, Text)]
    all_of = "\n".join(told)
    words = Words(s.build.brief.reading.shown())
    towing = [k for k, case in enumerate(s.table.cases) if case.mode.towing]

    for opening in s.build.shell.openings:
        if opening.kind in ("door", "window", "vent", "hatch"):
            assert opening.name in told and f"{words.cut(opening.width.si)} × {words.cut(opening.height.si)}" in told
    assert words.cut(s.framed.body.length) in told and f"ball to axle {words.cut(s.support.mean_axle_m)}" in all_of
    assert f"{words.kg(max(s.readings.total_kg[towing]))} / {words.kg(s.build.rig.gross_total.si)}" in told
    assert f"{words.kg(max(s.readings.tongue_kg[towing]))} / to be said" in told and "by the local rule; to be said" in told
    assert "Light: gross" in all_of and "Confirmed by the maker" in all_of
    assert all(page.width - 20 > shape.at[0] > 0 for page in pages for shape in page.shapes if isinstance(shape, Text))
    bed = demo("dark-sky")
    assert trailer_order(study(bed.build, bed.facts), "Dark Sky", "") == ()


def test_offers_are_told_with_ones_hours_and_by_what_they_carry():
    project = demo("marsh-heron")
    heaviest = heaviest_kg(study(project.build, project.facts))
    rows = [
        {"id": "w1", "name": "Dealer's", "money": 1500.0, "rating": si(heaviest + 90.0), "papers": "yes"},
        {"id": "w2", "name": "Own steel", "way": "weld", "money": 500.0, "hours": 40.0, "rating": si(heaviest + 200.0), "papers": "no"},
        {"id": "w3", "name": "Light one", "money": 300.0, "rating": si(heaviest - 30.0)},
        {"id": "w4", "name": "Unknown", "money": None},
    ]
    edits = [add_to("rig.offers", row) for row in rows]
    priced = study(apply(project.build, [*edits, set_to("cut.hour_price", 20.0)]), project.facts)
    found = offers_of(priced)

    # 500 and 40 h at 20 are 1,300
    assert [(w.offer.id, w.all_money) for w in found] == [("w2", 1300.0), ("w1", 1500.0), ("w4", None), ("w3", 300.0)]
    assert [w.left_kg for w in found] == [pytest.approx(200.0), pytest.approx(90.0), None, pytest.approx(-30.0)]
    words = Words(METRIC)
    assert (
        offer_words(found[0], words)
        == "Own steel: 1,300 with 40 h of your own; carries the heaviest case, 200 kg to spare; without papers."
    )
    assert "CARRIES 30 kg TOO LITTLE" in offer_words(found[3], words) and "its price is not typed" in offer_words(found[2], words)
    unpriced = offers_of(study(apply(project.build, [*edits, set_to("cut.hour_price", None)]), project.facts))
    own = next(w for w in unpriced if w.offer.id == "w2")
    assert own.all_money is None and "500 and 40 h of your own" in offer_words(own, words)
