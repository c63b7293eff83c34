"""Wires beside what is hot: how much of their way, what they carry then, who is told; slow fuses by their name."""

import msgspec
import pytest

from tests.builders import METRIC, a_build, a_thing
from tests.core.test_systems import a_plant, load, unit, wired_plant
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.stow import Figures
from uncle_sled.core.document.systems import Bend, Systems, Wire
from uncle_sled.core.drawing.primitives import Text
from uncle_sled.core.drawing.systems.wiring_sheets import wiring_sheets
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.cut.small_parts import small_parts
from uncle_sled.core.wiring.conductors import NEAR_ENGINE
from uncle_sled.core.wiring.near_heat import hot_boxes, near_heat
from uncle_sled.core.wiring.wired import wired_of
from uncle_sled.core.words import Words

STOVE = a_thing("st", x=2.0, y=0.0, z=0.6, size=(0.4, 0.4, 0.5), name="Stove", roles=("cooks",), burns="gas")


def test_how_much_of_a_way_lies_near_by_hand():
    """A stove from x 2.0 to 2.4 is near from 1.85 to 2.55: a straight wire 100 mm over its top lies near it for 0.70 m, one 200 mm over it not."""
    boxes = hot_boxes((STOVE, a_thing("cold", x=2.0, z=0.6)))
    assert [id for id, _, _ in boxes] == ["st"]
    over = lambda z: ((1.0, 0.0, z), (3.0, 0.0, z))
    assert near_heat(over(1.2), ("a", "b"), boxes) == (("st", pytest.approx(0.70)),)
    assert near_heat(over(1.3), ("a", "b"), boxes) == ()
    assert near_heat(over(1.2), ("a", "st"), boxes) == ()
    corner = ((1.0, 0.0, 1.2), (2.0, 0.0, 1.2), (2.0, 2.0, 1.2))
    assert near_heat(corner, ("a", "b"), boxes)[0][1] == pytest.approx(0.15 + 0.35)
    touches = ((1.0, 0.0, 1.2), (1.86, 0.0, 1.2))
    assert near_heat(touches, ("a", "b"), boxes) == ()
    by_current = hot_boxes((msgspec.structs.replace(STOVE, burns="none"),))
    assert near_heat(over(1.2), ("a", "b"), by_current) == ()
    assert near_heat(over(1.14), ("a", "b"), by_current)[0][1] == pytest.approx(0.50)
    lukewarm = msgspec.structs.replace(STOVE, burns="none", figures=Figures(power_w=150.0))
    assert hot_boxes((lukewarm,)) == ()
    assert hot_boxes((msgspec.structs.replace(lukewarm, figures=Figures(power_w=150.0, heat_w=1500.0)),))
    turned = msgspec.structs.replace(STOVE, length=Length(0.8), turn=90)
    assert near_heat(over(1.2), ("a", "b"), hot_boxes((turned,)))[0][1] == pytest.approx(0.70)
    for off in ({"taken_out": True}, {"outside": True}, {"cargo": True}, {"roles": ("keeps food cold",)}):
        assert hot_boxes((msgspec.structs.replace(STOVE, **off),)) == ()


def test_a_wire_led_past_a_stove_carries_less_and_is_said_until_it_is_led_away():
    far = {"x": 1.0, "y": -0.3, "z": 1.2}
    things = (unit("bat", "battery", **far, volts=12.8, amp_hours=100.0, chemistry="LFP"), load("lam", x=3.0, y=-0.3), STOVE)
    straight = Wire("wr1", "bat", "lam", bends=(Bend("b1", Length(2.0), Length(0.0), Length(1.2)),))
    build = a_build(things, systems=Systems(wires=(straight,)))
    s = study(build, Facts())
    (wire,) = wired_of(s.build, s.framed).wires
    assert wire.near_heat[0][0] == "st"
    assert wire.derating == pytest.approx(NEAR_ENGINE)
    told = next(found for found in findings(s) if found.code == "wire-near-heat")
    assert told.where == ("wr1", "st")
    assert "85 %" in told.says
    away = study(apply(build, [set_to("stow.things.st.x", {"si": 6.0, "typed": None})]), Facts())
    (wire,) = wired_of(away.build, away.framed).wires
    assert wire.near_heat == ()
    assert wire.derating == 1.0
    assert not any(found.code == "wire-near-heat" for found in findings(away))


def test_a_slow_fuse_is_named_wherever_its_size_is():
    """A pump of 60 W that starts with three times that: 15.7 A at 11.5 V and more; a fuse of 10 A holds it only as a slow one."""
    build = wired_plant()
    pump = next(w for w in build.systems.wires if w.end == "pum")
    build = apply(build, [set_to(f"systems.wires.{pump.id}.fuse_a", 10.0), set_to("stow.things.pum.figures.start_s", 3.0)])
    s = study(build, Facts())
    wired = wired_of(s.build, s.framed)
    wire = wired.wire(pump.id)
    assert wire.start_a > 10.0
    assert wire.slow
    assert wire.fuse_words == "10 A slow"
    assert any(part.name == "Blade fuses 10 A, slow" for part in small_parts(s.build, wired))
    words = " ".join(shape.text for page in wiring_sheets(s, "Test", "2026-01-01") for shape in page.shapes if isinstance(shape, Text))
    assert "10 A slow" in words
    quick = wired_of(a_plant(), s.framed)
    assert not any(each.slow for each in quick.wires)
    assert Words(METRIC).thick(0.15) == "150 mm"
