"""Rafters with plumb cuts and bird's mouths; ribbed sheets by their own laying width, bought to length; rails of panels on them."""

import math

import pytest
from msgspec.structs import replace

from tests.builders import METRIC, a_body, a_build, a_thing
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import Face, Framing, Layer
from uncle_sled.core.drawing.primitives import Text
from uncle_sled.core.drawing.shell.rafter_drawn import rafter_drawn, rafter_words
from uncle_sled.core.drawing.shell.school_pages import school_pages
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.panel_rails import rails_of
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.cut.consumables import bases, used_up
from uncle_sled.core.studies.cut.cut_from_stock import plan_of
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.core.studies.shell.rafters import rafter_cuts, seat, slope_deg
from uncle_sled.core.words import Words

F = Facts()


def L(metres):
    return Length(metres)


RIBBED = Layer("o", "profiled-steel", L(0.0005))
ROOF = (RIBBED, Layer("s", "xps", L(0.07), 0.15), Layer("i", "light-ply", L(0.004)))


def a_gable(eaves=1.6, over=None, layers=ROOF, things=(), **changes):
    """4.0 long, 2.0 wide, 2.1 high at the ridge, studs 70 deep."""
    faces = (Face("roof", "roof", "Roof", layers=layers),)
    shell = a_body("gable", framing=Framing("stick timber"), faces=faces, eaves=L(eaves), roof_overhang=over)
    return a_build(things, shell=replace(shell, **changes))


def test_a_seat_by_hand():
    """26.565 degrees, plate 70, rafter 95: 70 sin a = 31.3 sawn, 70 tan a = 35 heel; of a rafter 45 deep no more than 15 is sawn out."""
    slope = math.degrees(math.atan(0.5))
    assert seat(slope, 0.070, 0.095) == pytest.approx((0.070, 0.070 * math.sin(math.radians(slope)), 0.035))
    level, notch, heel = seat(slope, 0.070, 0.045)
    assert (
        notch == pytest.approx(0.015) and level == pytest.approx(0.015 / math.sin(math.radians(slope))) and heel == pytest.approx(level / 2)
    )


def test_rafters_of_a_gable_are_cut_by_its_slope():
    """Half of 2.0 m wide, 0.5 m up: 26.565 degrees; an overhang of 100 mm is 111.8 along the slope."""
    s = study(a_gable(over=L(0.1)), F)
    left, right = rafter_cuts(s)
    assert left.cut_deg == pytest.approx(math.degrees(math.atan(0.5))) == pytest.approx(right.cut_deg)
    assert left.at_m == pytest.approx(0.1 / math.cos(math.atan(0.5))) and left.ridge
    assert left.seat_m == pytest.approx(min(0.070, 0.070 / 3 / math.sin(math.atan(0.5)))) and left.many == len(
        [m for m in s.framed.on("roof left") if m.role == "rafter"]
    )
    told = rafter_words(left, Words(METRIC))
    assert "26.6° off square" in told and "meet over its beam" in told and f"{left.many} rafters" in told
    drawn = [shape.text for shape in rafter_drawn(left, Words(METRIC), 420.0, 300.0) if isinstance(shape, Text)]
    assert any(text.startswith("plumb cuts 26.6°") for text in drawn) and rafter_drawn(left, Words(METRIC), 80.0, 60.0) == ()
    assert [page.title for page in school_pages(s, "House", "day") if "rafters of" in page.title]
    assert all(slope_deg(surface) == pytest.approx(0.0, abs=1e-6) for surface in s.framed.body.of("floor"))
    assert (
        rafter_cuts(
            study(a_build(shell=a_body("box", framing=Framing("stick timber"), faces=(Face("roof", "roof", "Roof", layers=ROOF),))), F)
        )
        == ()
    )


def test_a_rafter_that_bears_on_too_little_is_told():
    steep = study(a_gable(eaves=0.6), F)  # 56 degrees: a third of 70 mm leaves 28 mm of seat
    cuts = rafter_cuts(steep)[0]
    assert cuts.too_short
    found = [one for one in findings(steep) if one.code == "rafter-seat"]
    assert len(found) == 2 and "28 mm of seat" in found[0].says
    assert not [one for one in findings(study(a_gable(), F)) if one.code == "rafter-seat"]


def test_ribbed_sheets_lie_by_their_width_and_come_to_length():
    """A slope of hypot(1.0, 0.5) = 1.118 m over 4.0 m: four sheets of 1.0 m, each bought 1.12 m long; nothing is wasted."""
    build = a_gable()
    off = take_off(build, F)
    sheets = [piece for piece in off.pieces if piece.of == "roof left" and piece.kind == "sheet" and piece.made_of == "profiled-steel"]
    assert len(sheets) == 4 and {piece.sold_m for piece in sheets} == {(1.12, 1.0)}
    assert sum(piece.area_m2 for piece in sheets) == pytest.approx(4.0 * math.hypot(1.0, 0.5))
    plan = plan_of(build, F)
    assert not plan.wrong
    bought = [stock for stock in plan.stocks if "Profiled" in stock.material]
    assert {(round(stock.length_m, 3), round(stock.width_m, 3)) for stock in bought} == {(1.12, 1.0)}
    trimmed = replace(build, cut=replace(build.cut, trim=L(0.01)))
    assert not plan_of(trimmed, F).wrong  # what is bought to length is not trimmed


def test_a_slope_longer_than_they_come_is_lapped():
    """A roof 7.4 m up the slope of sheets no longer than 6.0: two of (7.4 + 0.15) / 2 = 3.775 m."""
    wide = a_gable(eaves=1.6, width=L(14.0), height=L(4.0))
    sheets = [piece for piece in take_off(wide, F).pieces if piece.of == "roof left" and piece.made_of == "profiled-steel"]
    slope = math.hypot(7.0, 2.4)
    assert len(sheets) == 8 and all(piece.length_m == pytest.approx((slope + 0.15) / 2, abs=1e-5) for piece in sheets)


def test_screws_and_rails_of_panels_on_ribbed_sheets():
    """Two panels of 1.5 m: 2 x 2 x 1.6 m of rails, 0.9 kg a metre; eight screws a square metre of sheets."""
    panel = a_thing("p1", 10.0, x=1.6, y=-0.5, z=2.4, size=(1.5, 0.7, 0.04), kind="solar", outside=True)
    other = replace(panel, id="p2", y=L(0.5))
    build = a_gable(things=(panel, other))
    rails = rails_of(build.shell, build.stow, library_of(()))
    assert [one.length_m for one in rails] == pytest.approx([3.2, 3.2])
    parts = {part.id: part for part in study(build, F).parts}
    assert parts["rails-p1"].mass_kg == pytest.approx(0.9 * 3.2) and parts["rails-p1"].x_m == pytest.approx(1.6 + 0.75)
    off = take_off(build, F)
    base = bases(build, F, off)
    assert base["rail_m"] == pytest.approx(6.4) and base["ribbed_m2"] == pytest.approx(2 * 4.0 * math.hypot(1.0, 0.5))
    used = {used.rule.id: used.need for used in used_up(build, F, off)}
    assert used["ribbed-screws"] == pytest.approx(8 * base["ribbed_m2"]) and used["rails"] == pytest.approx(1.05 * 6.4)
    plain = a_gable(layers=(Layer("o", "birch-ply", L(0.006)), *ROOF[1:]), things=(panel,))
    assert rails_of(plain.shell, plain.stow, library_of(())) == () and "rails-p1" not in {part.id for part in study(plain, F).parts}
