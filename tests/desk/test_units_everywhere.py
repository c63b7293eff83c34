"""The lines of the catalogue and of the shop's sheets, in the build's own units and as fine as a shop wants them."""

import re

import pytest

from tests.other_units import IMPERIAL, METRIC
from uncle_sled.exchange.demos import demo


@pytest.mark.parametrize(("name", "wrong"), [("orchard-keeper", METRIC), ("marsh-heron", IMPERIAL)])
def test_no_line_of_the_catalogue_speaks_in_the_other_units(open_on, name, wrong):
    window = open_on(demo(name), judged=False)
    window.session.go_to("Stow")
    bench = window.bench("Stow")
    bench.open_shelf()
    listed = bench.shelf.list
    lines = [listed.item(row) for row in range(listed.count())]
    assert len(lines) > 100
    own = {thing.name for thing in window.session.facts.things}
    said = [line.text() for line in lines] + [line.toolTip() for line in lines]
    own |= {"Spare wheel"}  # rims are sold in inches everywhere
    found = [text for text in said if wrong.search(text) and not any(one in text for one in own)]
    window.find_anything()
    window.finder.line.setText("add:")
    found += [title for title, _ in window.finder.found if wrong.search(title)]
    assert not found


@pytest.mark.parametrize("name", ["orchard-keeper", "marsh-heron", "rosin-box"])
def test_no_shop_sheet_is_rounded_to_ten_millimetres(name):
    from uncle_sled.core.drawing.balance.axle_order import axle_order
    from uncle_sled.core.drawing.cut.framing_sheets import framing_sheets
    from uncle_sled.core.drawing.primitives import Text
    from uncle_sled.core.drawing.shell.cut_sheet import cut_sheet
    from uncle_sled.core.reading.studied import study

    project = demo(name)
    s = study(project.build, project.facts)
    pages = framing_sheets(s, name, "today")
    order = axle_order(s, name, "today")
    shapes = [*(shape for page in pages for shape in page.shapes), *(order.shapes if order else ()), *cut_sheet(s)]
    rounded = re.compile(r"\d\.\d\d? m\b")
    told = [shape.text for shape in shapes if isinstance(shape, Text) and rounded.search(shape.text)]
    assert not [text for text in told if " in all" not in text]
