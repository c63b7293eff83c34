"""A hatch over the curve of a tail: arcs against closed forms, its pieces through take-off, and what cannot be."""

import math

import msgspec
import numpy as np
import pytest
from shapely.geometry import Polygon

from tests.builders import a_build, a_rig, a_shell
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.presets import PRESETS
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import Framing, Leaf, Section
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.geometry.surfaces import body_of, lengths
from uncle_sled.core.geometry.tail_hatch import over_curve
from uncle_sled.core.parts.bent_leaf import bent_leaf, swing_gap_m
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.leaf import leaf_in
from uncle_sled.core.parts.leaf_side import leaf_side
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.core.studies.stow.hinged import hinged

R, SKIN, SEEN, DEEP = 0.60, 0.004, 0.030, 0.025
LEAF = Leaf(Section(Length(SEEN), Length(DEEP)), skin_thick=Length(SKIN))


def arc(radius=R, turn_deg=90.0, steps=600):
    """From a hinge at 0, 0, level there, down over a part of a circle."""
    a = np.radians(np.linspace(0, turn_deg, steps + 1))
    return np.stack([radius * np.sin(a), radius * np.cos(a) - radius], axis=1)


def pieces_of(bent):
    return {piece.name: piece for piece in bent.pieces}


def test_a_quarter_circle_has_the_lengths_and_the_rib_of_its_radii():
    bent = bent_leaf(LEAF, 1.5, arc(), (0.0, 0.0))
    made = pieces_of(bent)
    quarter = math.pi / 2

    assert made["outer skin"].length_m == pytest.approx(quarter * R, rel=1e-4)  # 942.5 mm
    assert made["inner skin"].length_m == pytest.approx(quarter * (R - 2 * SKIN - DEEP), rel=1e-3)
    outer, inner = R - SKIN, R - SKIN - DEEP
    assert Polygon(made["rib"].outline).area == pytest.approx(math.pi / 4 * (outer**2 - inner**2), rel=1e-3)
    # laid along its chord: as long as that, as wide as the bow stands over the inner chord
    assert made["rib"].length_m == pytest.approx(outer * math.sqrt(2), rel=2e-3)
    assert made["rib"].width_m == pytest.approx(outer - inner * math.sqrt(0.5), rel=5e-3)
    assert bent.outer_radius_m == pytest.approx(R, rel=0.01) and bent.inner_radius_m == pytest.approx(R - SKIN - DEEP, rel=0.01)
    # 1.5 m at 400 mm at the most: five ribs, four bays; 0.92 m along it: four rows of bars, three of foam
    assert (made["rib"].many, made["cross-bar"].many, made["foam"].many) == (5, 4 * 4, 3 * 4)
    assert made["cross-bar"].length_m == pytest.approx((1.5 - 5 * SEEN) / 4)


def test_its_end_sweeps_only_where_it_turns_toward_the_jamb():
    flat = np.array([[0.0, 0.0], [0.30, 0.0], [0.60, 0.0]])

    assert swing_gap_m(flat, 0.04, 90.0) == pytest.approx(math.hypot(0.60, 0.04) - 0.60, abs=1e-5)
    assert swing_gap_m(arc(), 0.04, 90.0) == pytest.approx(0.0, abs=1e-9)
    # a tail that leans forward under itself: the inner corner of the end comes out first
    under = np.array([[0.0, 0.0], [0.4, -0.1], [0.1, -0.6]])
    along = (under[-1] - under[-2]) / np.hypot(*(under[-1] - under[-2]))
    inner = under[-1] + 0.04 * np.array([along[1], -along[0]])
    turns = np.radians(np.linspace(0, 90, 2000))
    by_hand = max(float((np.array([[np.cos(t), -np.sin(t)], [np.sin(t), np.cos(t)]]) @ inner - inner) @ along) for t in turns)
    assert swing_gap_m(under, 0.04, 90.0) == pytest.approx(max(by_hand, 0.0), abs=1e-4)


def test_a_corner_parts_the_skins_and_has_a_bar_on_both_sides():
    bent = bent_leaf(LEAF, 1.0, np.array([[0.0, 0.0], [0.5, 0.0], [0.5, -0.7]]), (0.0, 0.0))
    made = pieces_of(bent)
    thick = 2 * SKIN + DEEP

    assert (made["outer skin 1"].length_m, made["outer skin 2"].length_m) == pytest.approx((0.5, 0.7))
    assert (made["inner skin 1"].length_m, made["inner skin 2"].length_m) == pytest.approx(
        (0.5 - thick + SKIN / 2, 0.7 - thick + SKIN / 2), abs=0.003
    )
    x0, z0, *_ = min(bent.bars_at, key=lambda bar: math.hypot(bar[0] - 0.5, bar[1]))
    assert math.hypot(x0 - 0.5, z0) < 0.04 and len(bent.bars_at) >= 4


@pytest.mark.parametrize(
    ("leaf", "line", "says"),
    [
        (LEAF, arc(0.02), "tighter than it is thick"),
        (msgspec.structs.replace(LEAF, window_width=Length(0.3), window_height=Length(0.2)), arc(), "a window does not go"),
        (msgspec.structs.replace(LEAF, rib_pitch=Length(0.035)), arc(), "leave nothing between"),
        (LEAF, np.array([[0.0, 0.0], [0.04, 0.0], [0.04, -0.7]]), "too short"),
    ],
)
def test_what_cannot_be_made_is_said(leaf, line, says):
    assert says in str(bent_leaf(leaf, 1.0, line, (0.0, 0.0)))


def a_tail(profile="classic round nose", **changes):
    """A drawn body of sticks with a hatch over the curve of its tail."""
    build = a_build(rig=a_rig(), shell=a_shell(profile=PRESETS[profile], framing=Framing("cut plywood sides")))
    ops, id = over_curve(build.shell)
    build = apply(build, [*ops, *(set_to(f"shell.openings.{id}.{path}", value) for path, value in changes.items())])
    return build, id


@pytest.mark.parametrize("profile", PRESETS)
def test_the_tail_begins_at_the_hinge_and_no_skin_is_lost(profile):
    build, id = a_tail(profile)
    whole, parted = body_of(msgspec.structs.replace(build.shell, tail_from=None)), body_of(build.shell)

    def skin(body):
        return sum(float(lengths(body.side.chain(kind))[-1]) for kind in ("front", "roof", "rear") if len(body.side.chain(kind)) > 1)

    assert skin(parted) == pytest.approx(skin(whole), abs=1e-6)
    hinge = build.shell.front.si + build.shell.tail_from.si
    assert parted.side.chain("roof")[-1, 0] == pytest.approx(hinge) == parted.side.chain("rear")[0, 0]
    s = study(build, Facts())
    assert [fault for fault in s.framed.faults if id in fault.where] == []
    side = leaf_side(s.framed, next(o for o in build.shell.openings if o.id == id))
    assert side.bent and side.outline[0] == (0.0, 0.0) and side.outline[-1][1] < -0.3


def test_its_weight_and_centre_are_those_of_its_pieces_round_the_curve():
    build, id = a_tail()
    s = study(build, Facts())
    opening, library = next(o for o in build.shell.openings if o.id == id), library_of(())
    leaf, part = leaf_in(s.framed, opening, library), next(p for p in s.parts if p.id == id)
    by_hand = 0.8  # hinge and latch
    for piece in leaf.pieces:
        area = Polygon(piece.outline).area if piece.outline else piece.length_m * piece.width_m
        by_hand += piece.many * area * piece.thick_m * library[piece.material].density_kg_m3

    gap = 2 * 0.0003 + 0.002  # two coats and 2 mm, on both sides
    assert leaf.width_m == pytest.approx(opening.width.si - 2 * gap)
    assert leaf.height_m == pytest.approx(opening.height.si - gap - leaf.lock_gap_m, abs=1e-4)
    assert part.mass_kg == pytest.approx(by_hand) and 14 < by_hand < 20
    # the mean of the curve, half the leaf inside of it
    outline = np.array(leaf_side(s.framed, opening).outline)
    step, middle = np.hypot(*np.diff(outline, axis=0).T)[:, None], (outline[:-1] + outline[1:]) / 2
    ways = np.diff(outline, axis=0) / step
    inside = middle + np.stack([ways[:, 1], -ways[:, 0]], axis=1) * leaf.thick_m / 2
    x, z = (inside * step).sum(axis=0) / step.sum()
    hinge = body_of(build.shell).side.chain("rear")[0]
    assert (part.x_m, part.z_m) == pytest.approx((hinge[0] + x, hinge[1] + z), abs=0.003)
    # the same goes to what lifts it
    turning = next(one.turning for one in hinged(s) if one.id == id)
    assert turning.mass_kg == pytest.approx(by_hand)


def test_every_piece_of_it_is_cut_ribs_by_their_outline_and_skins_with_their_grain_across():
    build, id = a_tail(width={"si": 1.5, "typed": None})
    s = study(build, Facts())
    leaf = leaf_in(s.framed, next(o for o in build.shell.openings if o.id == id), library_of(()))
    cut = [piece for piece in take_off(build, Facts()).pieces if piece.of == id]

    for wanted in leaf.pieces:
        mine = [piece for piece in cut if piece.key.split("/")[1] == wanted.name]
        area = Polygon(wanted.outline).area if wanted.outline else wanted.length_m * wanted.width_m
        assert sum(piece.area_m2 for piece in mine) == pytest.approx(wanted.many * area, rel=1e-4), wanted.name
    ribs = [piece for piece in cut if piece.key.split("/")[1] == "rib"]
    assert len(ribs) == 5 and all(len(piece.outline) > 8 for piece in ribs)
    skins = [piece for piece in cut if "skin" in piece.key.split("/")[1]]
    # the grain lies across the curve: along a piece that is laid by its width, across one that is laid by the curve
    assert skins and all(piece.grain == ("along" if abs(piece.length_m - leaf.width_m) < 1e-6 else "across") for piece in skins)


def codes(build):
    return {finding.code: finding for finding in findings(study(build, Facts()))}


def test_what_does_not_bend_hangs_wrong_or_begins_nowhere_is_said():
    build, id = a_tail()
    assert not codes(build).keys() & {"leaf-will-not-bend", "hinge-bends", "leaf-wrong", "tail-nowhere"}

    thick, _ = a_tail(**{"leaf.skin_thick": {"si": 0.012, "typed": None}})
    assert "takes 1.83 m at the tightest" in codes(thick)["leaf-will-not-bend"].says
    along, _ = a_tail(hung="front")
    found = codes(along)["hinge-bends"]
    assert "hung at its front" in found.says and id in found.where
    nowhere = apply(build, [set_to("shell.tail_from", {"si": 9.0, "typed": None})])
    assert "9.00 m" in codes(nowhere)["tail-nowhere"].says
