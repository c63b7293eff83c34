import math
from typing import Any

import pytest

from tests.builders import a_build, a_shell
from uncle_sled.core.document.presets import PRESETS
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import ProfileNode, Shell
from uncle_sled.core.drawing import inks
from uncle_sled.core.drawing.text_width import elided, text_width
from uncle_sled.core.errors import GeometryError
from uncle_sled.core.geometry.profile import flatten, outline
from uncle_sled.core.geometry.surfaces import lengths as runs
from uncle_sled.core.reading.studied import study


def lengths(*metres: float) -> dict[str, Any]:
    return {k: Length(v) for k, v in zip(("front", "length", "width", "height", "floor", "wall"), metres, strict=True)}


def test_a_box_has_the_area_and_centre_of_a_rectangle():
    body = outline(Shell("box", **lengths(1.0, 4.0, 2.0, 1.5, 0.5, 0.04)))

    assert body is not None
    assert body.area_m2 == pytest.approx(6.0)
    assert body.centroid == pytest.approx((3.0, 1.25))
    roof, front = body.chain("roof"), body.chain("front")
    assert (runs(roof)[-1], roof[:, 0].mean()) == pytest.approx((4.0, 3.0))
    assert (runs(front)[-1], *front.mean(axis=0)) == pytest.approx((1.5, 1.0, 1.25))


def test_a_half_round_nose_has_the_area_of_a_half_disc():
    """Cubic spans for a quarter circle, k = 0.5523; area to 0.1 %."""
    k = 0.5522847498
    nodes = (
        ProfileNode(0.0, 0.0, 0.0, 0.0, 0.0, k),
        ProfileNode(0.5, 1.0, 0.5 - k / 2, 1.0, 0.5 + k / 2, 1.0),
        ProfileNode(1.0, 0.0, 1.0, k, 1.0, 0.0),
    )
    body = outline(Shell("profile", **lengths(0.0, 2.0, 1.0, 1.0, 0.0, 0.0), profile=nodes))

    assert body is not None
    assert body.area_m2 == pytest.approx(math.pi / 2, rel=1e-3)
    assert body.centroid[1] == pytest.approx(4 / (3 * math.pi), rel=2e-3)


@pytest.mark.parametrize("name", PRESETS)
def test_presets_fill_their_box_and_close(name):
    share = flatten(PRESETS[name])

    assert share.min() >= -1e-9 and share.max() <= 1 + 1e-9
    assert tuple(share[0]) == (0.0, 0.0) and share[-1, 1] == 0.0 and share[-1, 0] > 0.8


def test_too_few_nodes_are_refused_and_no_body_has_no_outline():
    with pytest.raises(GeometryError):
        flatten(PRESETS["wedge"][:2])
    assert outline(Shell()) is None
    assert outline(a_shell(length=Length(0.0))) is None


def test_faces_weigh_where_the_drawing_puts_them():
    floor, roof = (p for p in study(a_build(shell=a_shell()), Facts()).parts if p.group == "shell")

    assert floor.x_m == pytest.approx(2.7) and floor.z_m == pytest.approx(0.57)
    assert roof.z_m > 1.5 and floor.bias_group == "shell"


def test_both_themes_hold_every_pair_to_its_contrast():
    for theme, table in inks.THEMES.items():
        for one, ground, least in inks.PAIRS:
            assert inks.contrast(table[one], table[ground]) >= least, f"{theme}: {one} on {ground}"
    assert set(inks.LIGHT) == set(inks.DARK)


def test_the_shipped_widths_are_those_of_the_shipped_fonts():
    import json
    from importlib import resources

    from fontTools.ttLib import TTFont

    fonts = resources.files("uncle_sled.fonts")
    for face, record in json.loads(fonts.joinpath("widths.json").read_text(encoding="utf-8")).items():
        with fonts.joinpath(record["file"]).open("rb") as file:
            font = TTFont(file)
        cmap, metrics, em = font.getBestCmap(), font["hmtx"], font["head"].unitsPerEm
        tabular = _tabular(font) if face == "head" else {}
        for sign, advance in record["advance"].items():
            glyph = tabular.get(cmap[ord(sign)], cmap[ord(sign)])
            assert advance == pytest.approx(metrics[glyph][0] / em, abs=1e-4), (face, sign)


def _tabular(font):
    """Glyphs that the tnum feature puts in the place of others; headings are set with it."""
    table, swapped = font["GSUB"].table, {}
    for record in table.FeatureList.FeatureRecord:
        if record.FeatureTag == "tnum":
            for lookup in record.Feature.LookupListIndex:
                for part in table.LookupList.Lookup[lookup].SubTable:
                    swapped.update(part.mapping)
    return swapped


def test_long_names_give_up_their_middle():
    short = elided("A name of more than forty characters, for sure", 11, 90)

    assert "…" in short and short.startswith("A na") and text_width(short, 11) <= 90
