"""The stay in every month: against an hourly sum of its own, the worst month, what carries it, what nobody said."""

import msgspec
import pytest

from tests.core.test_panel_strings import BATTERY, built, controller, panel
from tests.core.test_systems import unit
from uncle_sled.core.document.brief import Brief
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Temperature
from uncle_sled.core.drawing.primitives import Poly, Text
from uncle_sled.core.drawing.systems.year_strip import year_strip, year_words
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.systems.sun import MIDDLE_DAY, on_panel_hours, skies, sun_stays
from uncle_sled.core.studies.systems.year import all_year, in_month, year_of
from uncle_sled.core.words import Words

LAMP = unit("l1", "", power_w=70.0, hours_day=24.0, current="DC")


def brief(**changes):
    told = {"latitude_deg": 50.0, "months": (6,), "nights_off": 6, "coldest": Temperature(20.0), **changes}
    return Brief(**told)


def plant(**changes):
    return built(BATTERY, LAMP, controller(), panel("p1", 200.0), brief=brief(**changes))


def held(month, k_of, latitude=50.0, nights=6, wp=200.0, watts=70.0, usable=200 * 12.8 * 0.9):
    """Nights of one battery, panel and lamp, hour by hour from six in the evening: sun first, what is over at 95 % into the battery."""
    left = usable
    for hour in range(nights * 24):
        day, clock = divmod(18 + hour, 24)
        sun = wp * 0.75 * on_panel_hours(latitude, MIDDLE_DAY[month - 1], k_of(day))[clock]
        net = sun - watts
        if net < 0 and left < -net - 1e-6:
            return hour / 24
        left = min(left + (0.95 * net if net > 0 else net), usable)
    return float(nights)


@pytest.mark.parametrize("latitude", [50.0, -35.0])
def test_every_month_is_what_an_hourly_sum_of_its_own_comes_to(latitude) -> None:
    made = year_of(plant(latitude_deg=latitude), "camp")
    assert [month.month for month in made.months] == list(range(1, 13)) and made.why == ()
    several = set()
    for month in made.months:
        for sky in skies():
            wanted = held(month.month, sky.of_day, latitude)
            assert month.of(sky.id) == pytest.approx(wanted, abs=1e-9), (month.month, sky.id)
            several.add(month.of(sky.id))
    assert len(several) > 6, "months differ, or nothing is tested"
    clear = next(sky for sky in skies() if sky.id == "clear")
    assert len(set(clear.days)) == 1, "the sums below are of one day"
    for month in made.months:
        a_day = 200 * 0.75 * sum(on_panel_hours(latitude, MIDDLE_DAY[month.month - 1], clear.days[0]))
        assert dict(month.sun_wh)["clear"] == pytest.approx(a_day)
    worst = made.worst("mixed")
    assert worst is not None and worst.month == (12 if latitude > 0 else 6)


def test_what_carries_the_worst_month_carries_it() -> None:
    s = study(plant(), Facts())
    made = all_year(s)
    needs = made.of("mixed")
    assert needs is not None and needs.battery_wh is not None and not made.year.all_year("mixed")
    worst = made.year.worst("mixed")
    assert worst is not None
    k_of = next(sky.of_day for sky in skies() if sky.id == "mixed")
    assert held(worst.month, k_of, usable=needs.battery_wh + 1.0) == 6.0
    assert held(worst.month, k_of, usable=needs.battery_wh * 0.99) < 6.0
    words = Words(s.build.brief.reading.shown())
    told = year_words(made, "mixed", words)
    assert told.startswith("Worst under a mixed sky: Dec, ") and "would carry the year" in told
    assert in_month(s.build, 3).brief.months == (3,) and s.build.brief.months == (6,)


def test_the_strip_has_a_square_a_month_and_sky_and_frames_the_months_of_the_brief() -> None:
    made = year_of(plant(months=(5, 6)), "camp")
    for width in (360.0, 900.0):
        shapes = year_strip(made, "dull", width, 130.0)
        texts = [shape.text for shape in shapes if isinstance(shape, Text)]
        assert sum(text == "all" or text.isdigit() for text in texts) == 36 and "Dull" in texts
        assert sum(isinstance(shape, Poly) and shape.stroke == "chalk" for shape in shapes) == 2
    assert year_strip(made, "dull", 900.0, 130.0)[0].text == "Jan" and year_strip(made, "dull", 360.0, 130.0)[0].text == "J"


def test_what_nobody_said_is_said_and_nothing_is_drawn() -> None:
    assert "place" in year_of(plant(latitude_deg=None), "camp").why[0]
    bare = year_of(built(BATTERY, LAMP, brief=brief()), "camp")
    assert "No panels" in bare.why[0] and bare.months == () and year_strip(bare, "dull", 500, 120) == ()
    assert "no battery" in year_of(built(LAMP, panel("p1"), brief=brief()), "camp").why[0].lower()
    polar = year_of(plant(latitude_deg=90.0), "camp")
    night = next(month for month in polar.months if month.month == 12)
    assert dict(night.sun_wh)["clear"] == 0.0 and night.of("clear") == pytest.approx(held(12, lambda _: 0.7, 90.0))


def test_a_sun_that_neither_rises_nor_sets_is_said():
    assert [sun_stays(70.0, day) for day in (355, 172, 80)] == ["down", "up", ""]
    assert sun_stays(-90.0, 355) == "up" and sun_stays(90.0, 355) == "down" and sun_stays(50.0, 355) == ""
    build = plant(latitude_deg=90.0)
    winter = msgspec.structs.replace(build, brief=msgspec.structs.replace(build.brief, months=(12,), nights_off=14))
    told = [one.says for one in findings(study(winter, Facts())) if one.code == "goes-dark"]
    assert told and all("the sun does not rise there then" in says for says in told)
