"""Doors and hatches of one's own: the trade's checks, their pieces and weight, and a cut through the jamb."""

from __future__ import annotations

import pytest

from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.drawing.primitives import Poly, Text
from uncle_sled.core.drawing.shell.jamb import jamb, leaf_words
from uncle_sled.core.drawing.shell.school_pages import school_pages
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.leaf import FITTINGS_KG, PLAY_M, hinge_n, leaf_of, sweep_m
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.core.words import Words
from uncle_sled.exchange.demos import demo

STICK = {"thick": {"si": 0.04}, "deep": {"si": 0.03}}


def with_door(**more):
    project = demo("marsh-heron")
    door = next(one for one in project.build.shell.openings if one.kind == "door")
    leaf = {"stick": STICK, "skin": "light-ply", "skin_thick": {"si": 0.004}, "foam": "xps", **more}
    ops = [set_to(f"shell.openings.{door.id}.leaf", leaf), set_to(f"shell.openings.{door.id}.mass", None)]
    s = study(apply(project.build, ops), project.facts)
    return s, next(one for one in s.build.shell.openings if one.id == door.id)


def test_sweep_and_hinges_are_those_of_the_notes() -> None:
    assert sweep_m(0.6, 0.04) == pytest.approx(0.00133, abs=1e-5) and sweep_m(0.5, 0.04) == pytest.approx(0.0016, abs=1e-5)
    assert hinge_n(16.0, 0.6, 0.7) == pytest.approx(67, abs=0.5)
    assert hinge_n(16.0, 0.6, 0.7, 100.0) == pytest.approx(153, abs=0.5)


def test_a_leaf_by_hand_with_its_weight_in_the_build() -> None:
    s, door = with_door(hinge_spacing={"si": 0.5}, hangs_on={"si": 3.0})
    made = leaf_of(door, library_of(s.facts.materials))
    thick, side = 0.038, 2 * 0.0003 + PLAY_M
    lock = sweep_m(door.width.si - side, thick) + side
    assert made.thick_m == pytest.approx(thick) and made.lock_gap_m == pytest.approx(lock) and made.gap_m == side
    w, h = door.width.si - side - lock, door.height.si - 2 * side
    assert (made.width_m, made.height_m) == pytest.approx((w, h))
    timber = (2 * h + 2 * (w - 0.08)) * 0.04 * 0.03 * 450
    skins, foam = 2 * w * h * 0.004 * 540, (w - 0.08) * (h - 0.08) * 0.03 * 32
    assert made.mass_kg == pytest.approx(timber + skins + foam + FITTINGS_KG + 3.0, rel=1e-6)
    assert made.seal_n == pytest.approx(40 * 2 * (w + h)) and made.hinge_n == pytest.approx(hinge_n(made.mass_kg, w, 0.5))
    part = next(one for one in s.parts if one.id == door.id)
    assert part.mass_kg == pytest.approx(made.mass_kg) and part.source == "computed"
    pieces = [one for one in take_off(s.build, s.facts).pieces if one.of == door.id]
    assert sorted(one.kind for one in pieces) == ["bar"] * 4 + ["fill"] + ["sheet"] * 2
    assert {round(one.length_m, 4) for one in pieces if "stile" in one.name} == {round(h, 4)}


def test_a_window_in_it_is_framed_and_cut_out_of_the_skins() -> None:
    plain, door = with_door()
    s, door = with_door(window_width={"si": 0.3}, window_height={"si": 0.35}, window_mass={"si": 2.5})
    made, bare = (
        leaf_of(door, library_of(s.facts.materials)),
        leaf_of(next(o for o in plain.build.shell.openings if o.id == door.id), library_of(s.facts.materials)),
    )
    assert {one.name for one in made.pieces} - {one.name for one in bare.pieces} == {"window rail", "window jamb"}
    foam = {k: next(p.length_m * p.width_m for p in m.pieces if p.name == "foam") for k, m in (("with", made), ("bare", bare))}
    w = made.width_m
    assert foam["bare"] - foam["with"] == pytest.approx(2 * 0.04 * (w - 0.08) + 0.35 * (0.3 + 0.08))
    for bad, says in (
        ({"window_width": {"si": 0.3}}, "both width and height"),
        ({"window_width": {"si": 3.0}, "window_height": {"si": 0.3}}, "no room for the sticks"),
        ({"stick": {"thick": {"si": 0.5}, "deep": {"si": 0.03}}}, "leave nothing between"),
        ({"skin": "moonstone"}, "no material"),
    ):
        s, door = with_door(**bad)
        fault = leaf_of(door, library_of(s.facts.materials))
        assert says in fault.fault and jamb(s, door, Words(s.build.brief.reading.shown()))[0] == ()
        assert next(one for one in s.parts if one.id == door.id).source == "guessed"


def test_the_jamb_is_drawn_at_full_size_with_its_gap() -> None:
    s, door = with_door(hinge_spacing={"si": 0.5})
    words = Words(s.build.brief.reading.shown())
    shapes, wide, high = jamb(s, door, words)
    made = leaf_of(door, library_of(s.facts.materials))
    xs = sorted({round(x, 6) for one in shapes if isinstance(one, Poly) and one.closed for x, _ in one.points})
    assert round(0.075 + made.lock_gap_m, 6) in xs and 0 < wide < 0.3 and 0 < high < 0.3
    assert any("gap" in one.text for one in shapes if isinstance(one, Text))
    assert "The upper hinge is pulled" in leaf_words(made, words)
    page = next(one for one in school_pages(s, "Heron", "day") if "made by yourself" in one.title)
    bar = next(one for one in page.shapes if isinstance(one, Poly) and not one.closed and one.width == 1.4)
    assert bar.points[1][0] - bar.points[0][0] == pytest.approx(0.1 * 72 / 0.0254)
    assert leaf_of(msgspec_none(door), library_of(s.facts.materials)) is None


def msgspec_none(door):
    import msgspec

    return msgspec.structs.replace(door, leaf=None)
