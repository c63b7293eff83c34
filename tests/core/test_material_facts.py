"""What a material is stands in its fields; what it is called decides nothing, from the drawing to the purse."""

from __future__ import annotations

from typing import Any

import msgspec
import pytest

from tests.builders import a_build, a_shell
from uncle_sled.core import materials as shelf
from uncle_sled.core.document.cut import Cut, StockSize
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.project import Facts, OwnMaterial
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.drawing.shell.shell_views import look_of
from uncle_sled.core.engine import forget
from uncle_sled.core.framing.frame_stuff import FRAME_STUFF
from uncle_sled.core.materials import Material, materials
from uncle_sled.core.parts.all_parts import framed_of
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.build.gluing import beads_of
from uncle_sled.core.studies.build.tasks import quantities
from uncle_sled.core.studies.cut.consumables import bases
from uncle_sled.core.studies.cut.cut_from_stock import plan_of, sizes_now, stocks_of
from uncle_sled.core.studies.cut.lots import lots_of
from uncle_sled.core.studies.cut.numbers import is_made, made_of
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.core.studies.shell.screws import screw_joints_of
from uncle_sled.core.studies.shell.what_carries import panel_of, stuff_of
from uncle_sled.core.studies.systems.heat import holds_j_m2k
from uncle_sled.exchange.demos import DEMOS, demo

WORDS = ("ply", "OSB", "steel", "aluminium", "Paint", "epoxy", "foam")


def _sums(name: str) -> dict[str, Any]:
    project = demo(name)
    build, facts = project.build, project.facts
    off, library = take_off(build, facts), library_of(facts.materials)
    s = study(build, facts)
    return {
        "labels": [one.material for one in off.pieces if one.made_of in library],
        "bases": bases(build, facts, off),
        "hours": quantities(build, facts),
        "beads": [(one.name, one.takes_min) for one in beads_of(build.work.glue, off, library, 20.0)],
        "panels": [panel_of(s, face) for face in build.shell.faces],
        "sticks": [(one.id, stuff_of(s, one)) for one in s.framed.members],
        "cut": [(one.key, one.made_of, one.kind, one.length_m, one.joined) for one in off.pieces],
    }


@pytest.mark.parametrize("name", list(DEMOS))
def test_renaming_every_material_changes_names_only(name: str, monkeypatch: pytest.MonkeyPatch) -> None:
    before = _sums(name)
    strange = {id: msgspec.structs.replace(one, name=f"{WORDS[k % len(WORDS)]} {k}") for k, (id, one) in enumerate(materials().items())}
    monkeypatch.setattr("uncle_sled.core.parts.face_build.materials", lambda: strange)
    monkeypatch.setattr(shelf, "materials", lambda: strange)
    forget()
    after = _sums(name)
    forget()  # nothing of the strange names stays
    labels, now = before.pop("labels"), after.pop("labels")
    assert after == before and (labels != now or not labels)


def test_every_shipped_material_says_what_it_is() -> None:
    for one in materials().values():
        assert one.family and (one.form or one.air) and one.heat_j_kgk and look_of(one), one.id
    assert {one.id for one in materials().values() if one.screwed} == {"birch-ply", "softwood-ply", "light-ply", "osb", "profiled-steel"}
    # by hand: 6 mm of birch plywood hold 0.006 x 680 x 1700 J/m2K, 1 mm of steel 7.85 x 460
    library = library_of(())
    assert holds_j_m2k("birch-ply", 0.006, library) == pytest.approx(6936.0)
    assert holds_j_m2k("steel", 0.001, library) == pytest.approx(3611.0)


def test_a_material_of_one_s_own_is_taken_off_by_what_it_is_said_to_be() -> None:
    project = demo("marsh-heron")
    face = next(one for one in project.build.shell.faces if one.kind == "roof")
    layer = face.layers[0]
    build = apply(project.build, [set_to(f"shell.faces.{face.id}.layers.{layer.id}.material", "mine")])
    said = OwnMaterial("mine", "Steel grey", density_kg_m3=500.0, family="plywood", form="sheet")
    made = {}
    for own in (said, msgspec.structs.replace(said, family="metal"), msgspec.structs.replace(said, form="")):
        facts = msgspec.structs.replace(project.facts, materials=(own,))
        off = take_off(build, facts)
        held = [name for joint in screw_joints_of(build, facts, framed_of(build, facts)) for name, _ in joint.layers]
        made[own.family, own.form] = bases(build, facts, off), off.unsaid, held.count("Steel grey")
    wood, metal, none = made["plywood", "sheet"], made["metal", "sheet"], made["plywood", ""]
    assert wood[2] > metal[2] == 0 and metal[0]["metal_edge_m"] > wood[0]["metal_edge_m"]  # screwed on, or bonded
    assert not wood[1] and any("Steel grey" in one for one in none[1])


def test_two_materials_of_one_name_stay_two() -> None:
    library = library_of((OwnMaterial("mine", "OSB", density_kg_m3=600.0), OwnMaterial("osb", "OSB", density_kg_m3=610.0)))
    assert library["mine"].name == "OSB (mine)" and library["osb"].name == "OSB"
    assert isinstance(library["mine"], Material) and library["osb"].density_kg_m3 == 610.0


def test_a_price_that_equals_a_size_is_a_price_and_a_missing_one_is_missing() -> None:
    project = demo("marsh-heron")
    wanted = tuple(lot.wanted for lot in lots_of(take_off(project.build, project.facts)))
    bar = next(one for one in wanted if one.kind == "bar" and not one.metal and one.length_m < 2.0)
    sold = StockSize("s1", "bar", bar.material, Length(2.4), price=2.4)
    rack = StockSize("r1", "bar", bar.material, Length(2.0), qty=1, rack=True)
    made = {one.id: one.price for one in stocks_of(Cut(sizes=(sold, rack)), wanted, False) if one.material == bar.material}
    assert made == {"s1": 2.4, "rack: r1": 0.0}
    unsaid = msgspec.structs.replace(sold, price=None)
    made = {one.id: one.price for one in stocks_of(Cut(sizes=(unsaid, rack)), wanted, False) if one.material == bar.material}
    assert made == {"s1": None, "rack: r1": 0.0}
    build = msgspec.structs.replace(project.build, cut=msgspec.structs.replace(project.build.cut, sizes=(unsaid, rack)))
    plan = next(one for one in plan_of(build, project.facts, 20).plan.bars if one.material == bar.material)
    assert plan.cost is None and any(p.stock == "rack: r1" for p in plan.patterns)


def test_what_a_stick_is_reckoned_as_stands_at_its_material() -> None:
    tube = study(demo("rosin-box").build, demo("rosin-box").facts)
    assert {stuff_of(tube, one) for one in tube.framed.members if one.material == "hat-steel"} <= {"steel"}
    bent = {**FRAME_STUFF, **library_of(())}
    assert {one.family for one in FRAME_STUFF.values()} == {"metal"} and bent["softwood"].family == "timber"


def test_a_rack_knows_its_stuff_by_any_name():
    """A board of the rack and a printed number hold on to what they are made of when its material gets another name."""
    own = OwnMaterial("mine", "Grey board", density_kg_m3=600.0, family="plywood", form="sheet", source="weighed")
    layer = {"id": "l1", "material": "mine", "thickness": {"si": 0.012}, "framing": 0.0}
    build = apply(a_build(shell=a_shell()), [set_to("shell.faces.floor.layers", [layer])])
    facts = Facts(materials=(own,))
    piece = next(one for one in take_off(build, facts).pieces if one.made_of == "mine")
    assert piece.stuff == "mine 12.0" and "Grey board" in piece.material
    size = StockSize("rk1", "sheet", piece.material, Length(1.0), Length(0.5), 1, None, True, piece.stuff)
    renamed = Facts(materials=(msgspec.structs.replace(own, name="Blue board"),))
    off = take_off(build, renamed)
    now = sizes_now(Cut(sizes=(size,)), off)
    assert now.sizes[0].material == next(one for one in off.pieces if one.made_of == "mine").material != size.material
    wanted = tuple(lot.wanted for lot in lots_of(off))
    assert "rack: rk1" in [one.id for one in stocks_of(now, wanted, False)]
    assert "rack: rk1" not in [one.id for one in stocks_of(Cut(sizes=(msgspec.structs.replace(size, stuff=""),)), wanted, False)]
    blue = next(one for one in off.pieces if one.key == piece.key)
    assert made_of(blue) == made_of(piece) and is_made(blue, made_of(piece))
    old_mark = made_of(msgspec.structs.replace(piece, made_of=""))  # of a file before, by its words
    assert is_made(piece, old_mark) and not is_made(blue, old_mark)
