"""A short, seeded part of what random hands and random edits do for hours (see ``tests/desk/hands.py``)."""

import random

import pytest

from tests.core.test_kept_equals_fresh import an_edit
from tests.desk.hands import WORDS, Hands
from uncle_sled.core.document.edits import add_to, remove, set_to
from uncle_sled.desk.session import Session
from uncle_sled.exchange import sled_file
from uncle_sled.exchange.demos import DEMOS, demo


@pytest.mark.parametrize("name", DEMOS)
def test_random_hands_find_nothing_wrong(open_on, name):
    window = open_on(demo(name))

    faults = Hands(window, f"{name} 12").act_often(40)

    assert not faults, "\n".join(faults[:5])


def nonsense(rng, build):
    """Ops that no form makes: names of nothing, whole lists, things of one id, odd words where a number would be."""
    thing, mode = rng.choice(build.stow.things), rng.choice(build.stow.modes)
    return rng.choice(
        [
            [set_to(f"stow.things.{thing.id}.inside", rng.choice(["nobody", thing.id, rng.choice(build.stow.things).id]))],
            [set_to("brief.sleepers", ["p1", "p1", "nobody"])],
            [set_to(f"stow.modes.{mode.id}.absent", [thing.id, thing.id, "t999"])],
            [add_to(f"stow.modes.{mode.id}.states", {"id": thing.id, "state": "no such form"})],
            [set_to("stow.things", [thing, thing])],
            [set_to(f"stow.things.{thing.id}.name", rng.choice(WORDS))],
            [set_to(f"stow.things.{thing.id}.length", {"si": rng.choice([-1.0, 0.0, 5e-324, 1e9]), "typed": None})],
            [remove(f"stow.things.{thing.id}")] if len(build.stow.things) > 3 else [],
            [set_to("shell.profile", []), set_to("shell.form", "profile")],
            [set_to("rig.axles", [])],
            [remove(f"stow.modes.{mode.id}")],
        ]
    )


@pytest.mark.parametrize("name", DEMOS)
def test_random_edits_save_and_go_back(qapp, name):
    assert edit_often(name, f"edits {name}", 35), "some of it is nonsense and is said to be"


def edit_often(name, seed, many):
    """Random edits of a demo, undone and done again, each saved and read back; what was refused. Raises: AssertionError."""
    rng, session = random.Random(seed), Session(demo(name))
    start, refused = session.project, []
    session.said.connect(lambda text, how: refused.append(text))
    for at in range(many):
        way = rng.random()
        if way < 0.12:
            rng.choice([session.undo, session.redo])()
        else:
            ops = (nonsense if way < 0.4 else an_edit)(rng, session.build)
            if way > 0.85:
                hand = session.take_up("by hand")
                try:
                    hand.put(ops)
                finally:
                    session.let_go()
            else:
                session.edit(f"edit {at}", ops, "Stow")
        back = sled_file.read_bytes(sled_file.to_bytes(session.project), "it")
        assert back == session.project, f"after edit {at}"
        assert session.findings is not None
    end, steps = session.project, len(session.history.done)  # what was undone last of all stays undone
    while session.history.done:
        session.undo()
    assert session.project == start and not session.history.modified
    for _ in range(steps):
        session.redo()
    assert session.project == end
    return refused
