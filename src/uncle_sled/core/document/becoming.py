"""What a box becomes: boards instead of a typed weight, a bed wherever one camps. Edits, each undone as one step."""

from __future__ import annotations

import msgspec

from uncle_sled.core.document.edits import Op, add_to, fresh_id, set_to
from uncle_sled.core.document.joinery import Bay, Cabinet
from uncle_sled.core.document.placing import state_ops
from uncle_sled.core.document.project import Build
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.stow import State, Thing

LONG_M, WIDE_M, BED_MINUTES = 1.95, 0.65, 4  # the least that one lies on, and what it takes to make it up


def into_boards(thing: Thing) -> list[Op]:
    """A carcass with one open bay; its weight is that of its boards from now on."""
    seat = "seat" in thing.roles or thing.kind == "bed"
    opens = "rear" if thing.width.si >= thing.length.si else ("left" if thing.y.si > 0 else "right")
    made = Cabinet(opens=opens, top="lid" if seat else "board", bays=(Bay("b1"),))  # type: ignore[arg-type]
    return [set_to(f"stow.things.{thing.id}.cabinet", msgspec.to_builtins(made)), set_to(f"stow.things.{thing.id}.source", "computed")]


def into_a_bed(build: Build, thing: Thing) -> list[Op]:
    """Ops that give a bench or a table a form that one sleeps on, and put it so wherever one camps."""
    long, wide = thing.length.si, thing.width.si
    if long >= wide:
        long, wide = max(long, LONG_M), max(wide, WIDE_M)
    else:
        long, wide = max(long, WIDE_M), max(wide, LONG_M)
    id = fresh_id("s", [state.id for state in thing.states])
    state = State(id, "made up as a bed", Length(long), Length(wide), thing.height, minutes=BED_MINUTES, hands=1, bed=True)
    camps = [op for mode in build.stow.modes if not mode.towing for op in state_ops(mode, thing, id)]
    return [add_to(f"stow.things.{thing.id}.states", msgspec.to_builtins(state)), *camps]
