"""Whatever is kept of a study equals the same study run fresh, over random edits on every demo."""

import random

import msgspec
import numpy as np
import pytest
from shapely.geometry.base import BaseGeometry

from tests.builders import a_thing
from uncle_sled.core import engine
from uncle_sled.core.document.edits import apply, remove, set_to
from uncle_sled.core.drawing.rig.bobs import single_bobs
from uncle_sled.core.drawing.rig.rig_views import heights_m, things_view
from uncle_sled.core.drawing.rig.things_placed import things_in
from uncle_sled.core.drawing.stow.swings import clash_view
from uncle_sled.core.engine import MOST_OF_ONE, keep
from uncle_sled.core.errors import SledError
from uncle_sled.core.findings.all_findings import findings, findings_in_hand
from uncle_sled.core.reading.studied import length_m, study
from uncle_sled.core.studies.balance.axle_placing import axle_placing
from uncle_sled.core.studies.balance.road_checks import turning
from uncle_sled.core.studies.balance.sweep import sweep
from uncle_sled.core.studies.shell.shell_measures import measures
from uncle_sled.core.studies.stow.clashes import clashes
from uncle_sled.exchange.demos import DEMOS, demo

EDITS = 100


def equal(a, b):
    """Equality that looks into arrays and shapes, and takes two unknowns for the same."""
    if a is b:
        return True
    if isinstance(a, float) and isinstance(b, float):
        return a == b or (a != a and b != b) or abs(a - b) <= 1e-9 * max(abs(a), abs(b), 1.0)
    if type(a) is not type(b):
        return False
    if isinstance(a, np.ndarray):
        return a.shape == b.shape and (
            np.allclose(a, b, rtol=1e-9, atol=1e-9, equal_nan=True) if a.dtype.kind == "f" else bool((a == b).all())
        )
    if isinstance(a, BaseGeometry):
        return a.equals_exact(b, 1e-9)
    if isinstance(a, msgspec.Struct):
        return all(equal(getattr(a, name), getattr(b, name)) for name in a.__struct_fields__)
    if isinstance(a, (tuple, list)):
        return len(a) == len(b) and all(equal(x, y) for x, y in zip(a, b, strict=True))
    if isinstance(a, dict):
        return a.keys() == b.keys() and all(equal(value, b[key]) for key, value in a.items())
    return a == b


def length(si):
    return {"si": round(si, 4), "typed": None}


def an_edit(rng, build):
    """Ops as a hand, a field or a remedy makes them."""
    things, openings, faces = build.stow.things, build.shell.openings, build.shell.faces
    thing = rng.choice(things)
    path = f"stow.things.{thing.id}"
    kind = rng.choice(
        ["x", "y", "z", "mass", "size", "turn", "out", "outside", "inside", "level", "mode", "axle", "gone"]
        + ["opening"] * bool(openings)
        + ["layer"] * bool(faces)
        + ["track", "case", "inside"]
        + ["onto"] * 4
    )
    if kind == "onto":  # so that things do stand in each other
        other = rng.choice(things)
        return [set_to(f"{path}.{axis}", length(getattr(other, axis).si + 0.01)) for axis in "xyz"]
    if kind in "xyz":
        return [set_to(f"{path}.{kind}", length(getattr(thing, kind).si + rng.uniform(-0.4, 0.4)))]
    if kind == "mass":
        return [set_to(f"{path}.mass", length(rng.uniform(0, 90)))]
    if kind == "size":
        return [set_to(f"{path}.{rng.choice(['length', 'width', 'height'])}", length(rng.uniform(0.05, 1.2)))]
    if kind == "turn":
        return [set_to(f"{path}.turn", rng.choice([0, 90, 180, 270]))]
    if kind == "out":
        return [set_to(f"{path}.taken_out", not thing.taken_out)]
    if kind == "outside":
        return [set_to(f"{path}.outside", not thing.outside)]
    if kind == "inside":
        return [set_to(f"{path}.inside", rng.choice([None, rng.choice(things).id]))]
    if kind == "gone":
        return [remove(path)] if len(things) > 4 else []
    if kind == "mode":
        mode = rng.choice(build.stow.modes)
        absent = [t.id for t in things if t.id not in mode.absent and rng.random() < 0.1]
        return [set_to(f"stow.modes.{mode.id}.absent", absent)]
    if kind == "axle" and build.rig.axles:
        axle = rng.choice(build.rig.axles)
        return [set_to(f"rig.axles.{axle.id}.station", length(axle.station.si + rng.uniform(-0.2, 0.2)))]
    if kind == "opening":
        opening = rng.choice(openings)
        return [set_to(f"shell.openings.{opening.id}.along", length(opening.along.si + rng.uniform(-0.3, 0.3)))]
    if kind == "layer":
        layered = [face for face in faces if face.layers]
        if layered:
            face = rng.choice(layered)
            thick = length(rng.choice([0.003, 0.006, 0.012, 0.02]))
            return [set_to(f"shell.faces.{face.id}.layers.{face.layers[0].id}.thickness", thick)]
    if kind == "track":
        return [set_to("rig.track", rng.choice([None, length(rng.uniform(1.2, 2.2))]))]
    if kind == "case" and build.stow.cases:
        case = rng.choice(build.stow.cases)
        return [set_to(f"stow.cases.{case.id}.stage", rng.choice(["loaded", "as built", "bare shell"]))]
    return [set_to("brief.eats_inside", rng.randrange(5))]


def look(build, facts, before, rng):
    """What the desk asks of a build in a frame and at rest."""
    s = study(build, facts)
    mode = rng.choice(build.stow.modes)
    findings(s)
    findings_in_hand(s, before, mode.id, ())
    things = things_in(s, 0)
    for view in ("side", "plan"):
        things_view(s, 0, view, 150.0, things)
        clash_view(build, facts, mode, view)
    single_bobs(s, 0)
    heights_m(build, mode)
    length_m(build)
    axle_placing(s)
    turning(s)
    sweep(s, 0)
    measures(s)
    return s


@pytest.mark.parametrize("name", DEMOS)
def test_everything_that_is_kept_equals_what_is_fresh(name):
    rng, project = random.Random(f"kept {name}"), demo(name)
    build, facts, proved = project.build, project.facts, {}

    def proof(study_name, kept, fresh):
        proved[study_name] = proved.get(study_name, 0) + 1
        assert equal(kept, fresh), f"{study_name} keeps what is not so"

    history = [build]
    with engine.proved(proof):
        before = look(build, facts, study(build, facts), rng)
        for _ in range(EDITS // len(DEMOS)):
            if len(history) > 1 and rng.random() < 0.2:
                build = history.pop()  # undo: objects that were there before come back
            else:
                try:
                    after = apply(build, an_edit(rng, build))
                except SledError:
                    continue
                history.append(build)
                build = after
            before = look(build, facts, before, rng)

    assert len(proved) >= 15 and sum(proved.values()) > 600


def test_clashes_found_warm_equal_clashes_found_fresh():
    """Things pushed into each other, built into each other and let out again, again and again."""
    rng, project, proved = random.Random("clashes"), demo("orchard-keeper"), {}
    build, facts = project.build, project.facts

    def proof(study_name, kept, fresh):
        proved[study_name] = proved.get(study_name, 0) + 1
        assert equal(kept, fresh), f"{study_name} keeps what is not so"

    met = 0
    with engine.proved(proof):
        clashes(build, facts)
        for _ in range(300):
            thing, other = rng.sample(build.stow.things, 2)
            path = f"stow.things.{thing.id}"
            ops = rng.choice(
                [
                    [set_to(f"{path}.{axis}", length(getattr(other, axis).si + 0.02)) for axis in "xyz"],
                    [set_to(f"{path}.inside", other.id if other.inside != thing.id else None)],
                    [set_to(f"{path}.inside", None)],
                    [set_to(f"{path}.outside", not thing.outside)],
                    [set_to(f"{path}.height", length(rng.uniform(0.2, 1.0)))],
                ]
            )
            build = apply(build, ops)
            met = max(met, sum(len(found) for found in clashes(build, facts).values()))

    assert met > 3 and max(proved.values()) > 200


def test_what_is_moved_about_leaves_only_its_newest_results():
    """Two thousand places of one thing are not two thousand drawings that nobody sees again."""
    made = []

    @keep("thing", "x", most=100_000, of="thing.id")
    def put(thing, x):
        made.append(x)
        return object()

    moved, still = a_thing("moved"), a_thing("still")
    kept = put(still, 0.0)
    for x in range(3 * MOST_OF_ONE):
        put(moved, float(x))
    assert put(still, 0.0) is kept and put(moved, 3.0 * MOST_OF_ONE - 1) is not None and len(made) == 3 * MOST_OF_ONE + 1
    put(moved, 0.0)
    assert len(made) == 3 * MOST_OF_ONE + 2, "the oldest was let go of"
