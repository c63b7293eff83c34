"""What holds a ridge is weighed where it is, cut, and drawn: beam, ties, collars."""

import pytest

from tests.builders import a_body, a_build, a_rig
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import Ridge, Section
from uncle_sled.core.drawing.shell.shell_views import side_sticks
from uncle_sled.core.geometry.surfaces import body_of, section_points
from uncle_sled.core.parts.ridge_sticks import ridge_sticks
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.cut.take_off import take_off

BEAM, TIE = Section(Length(0.045), Length(0.195)), Section(Length(0.045), Length(0.095))


def a_house(form="gable", **ridge):
    return a_build(rig=a_rig(), shell=a_body(form, "stick timber", ridge=Ridge(**ridge), wall=Length(0.1)))


def sizes(build):
    shell, body = build.shell, body_of(build.shell)
    points = section_points(shell, body)
    return body, points[1][1], points[2][1]


@pytest.mark.parametrize("form", ["gable", "butterfly"])
def test_a_beam_runs_from_end_to_end_under_the_ridge_or_valley(form):
    build = a_house(form, held_by="beam", beam=BEAM)
    body, _, top = sizes(build)
    (beam,) = ridge_sticks(build.shell, body)
    part = next(part for part in study(build, Facts()).parts if part.id == "ridge-beam")

    assert beam.length_m == body.length and beam.lengthways and beam.name.startswith("Ridge" if form == "gable" else "Valley")
    assert beam.at_m == pytest.approx((body.front + body.length / 2, 0.0, body.under + top - 0.195 / 2))
    assert part.mass_kg == pytest.approx(0.045 * 0.195 * body.length * 450 * 1.04)
    cut = [piece for piece in take_off(build, Facts()).pieces if piece.key.startswith("roof/ridge-beam")]
    assert sum(piece.length_m for piece in cut) == pytest.approx(body.length, abs=0.01)
    assert {(piece.width_m, piece.thickness_m) for piece in cut} == {(0.195, 0.045)}
    assert any(shape.id == "ridge-beam" for shape in side_sticks(study(build, Facts())))


def test_collars_are_as_long_as_the_slopes_are_apart_and_ties_go_from_wall_to_wall():
    build = a_house(held_by="collars", tie=TIE, collar_up=Length(0.2), tie_pitch=Length(1.0))
    body, plate, top = sizes(build)
    collars = ridge_sticks(build.shell, body)
    rise = top - plate

    assert len(collars) == 3  # 4 m at 1 m, the ends are walls
    assert [collar.length_m for collar in collars] == [pytest.approx(body.width * (1 - 0.2 / rise))] * 3
    assert collars[0].at_m == pytest.approx((body.front + 1.0, 0.0, body.under + plate + 0.2 + 0.0475))
    ties = ridge_sticks(a_house(held_by="ties", tie=TIE).shell, body)
    assert [tie.length_m for tie in ties] == [pytest.approx(body.width - 0.2)] * len(ties) and ties
    s = study(build, Facts())
    assert sum(part.mass_kg for part in s.parts if part.id.startswith("collar-")) == pytest.approx(
        3 * 0.045 * 0.095 * collars[0].length_m * 450 * 1.04
    )
    assert len([piece for piece in take_off(build, Facts()).pieces if "collar" in piece.key]) == 3


def test_what_nobody_sized_or_said_is_no_stick():
    body, *_ = sizes(a_house())
    for build in (a_house(), a_house(held_by="ties"), a_house(held_by="beam"), a_house("butterfly", held_by="ties", tie=TIE)):
        assert ridge_sticks(build.shell, body) == ()
    high = a_house(held_by="collars", tie=TIE, collar_up=Length(9.0))
    assert all(0 < collar.length_m < body.width for collar in ridge_sticks(high.shell, body))
