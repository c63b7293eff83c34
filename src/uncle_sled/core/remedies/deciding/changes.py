"""Changes of one step that are known of any build: one more of what stores or charges, something left at home, thicker foam,
another size, another day of work. Each is an edit that can be tried as a ghost.

They are what a hand would try first, not all there could be; whoever shows them says how many there were.
"""

from __future__ import annotations

from collections.abc import Iterator

import msgspec
from msgspec.structs import replace

from uncle_sled.core.document.edits import Op, add_to, fresh_id, get, next_name, set_to
from uncle_sled.core.document.placing import delete_ops
from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.errors import SledError
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.stow.adding import add_ops
from uncle_sled.core.wiring.appliances import figures_of
from uncle_sled.core.words import lower_first

SOFT = ("foam", "mineral wool", "natural wool", "insulation")  # families that keep warm
FOAM_M = (0.02, -0.01)
SIZES_M = (-0.30, -0.15, 0.15)
LEFT, LEAST_KG = 4, 8.0  # heaviest things that could stay at home
WEEK = range(7)
DAYS = ("Mondays", "Tuesdays", "Wednesdays", "Thursdays", "Fridays", "Saturdays", "Sundays")


class Change(msgspec.Struct, frozen=True):
    """One step. id: of its kind, so that two of a kind are not taken together; says: in words, as an order."""

    id: str
    says: str
    ops: tuple[Op, ...]


def changes_of(s: Studied) -> tuple[Change, ...]:
    """Every change of one step, in the order of the stops."""
    made: list[Change] = []
    for each in (_sizes, _foam, _twins, _left_at_home, _water, _days):
        made += each(s)
    return tuple(made)


def _sizes(s: Studied) -> Iterator[Change]:
    for path, name, steps in (("shell.length", "body", SIZES_M), ("shell.height", "roof", (-0.10, 0.10))):
        value = get(s.build, path)
        for by in steps if value is not None and s.build.shell.form != "none" else ():
            if value.si + by > 0.5:
                much = f"{{{abs(by) * 1000:.0f} mm}}"
                word = ("shorter" if by < 0 else "longer") if name == "body" else ("lower" if by < 0 else "higher")
                yield Change(path, f"Make the {name} {much} {word}", (set_to(path, {"si": round(value.si + by, 4), "typed": None}),))


def _foam(s: Studied) -> Iterator[Change]:
    library = library_of(s.facts.materials)
    soft = [
        (face, layer)
        for face in s.build.shell.faces
        if face.u_w_m2k is None  # where its papers say how warm it is, no layer changes that
        for layer in face.layers
        if layer.material in library and library[layer.material].family in SOFT and layer.thickness.si > 0
    ]
    for by in FOAM_M:
        some = [(face, layer) for face, layer in soft if layer.thickness.si + by >= 0.005]
        if some:
            ops = tuple(
                set_to(f"shell.faces.{face.id}.layers.{layer.id}.thickness", {"si": round(layer.thickness.si + by, 5), "typed": None})
                for face, layer in some
            )
            yield Change("foam", f"Make all insulation {{{abs(by) * 1000:.0f} mm}} {'thicker' if by > 0 else 'thinner'}", ops)


def _twins(s: Studied) -> Iterator[Change]:
    """One more battery, station or panel like the largest that is aboard, wired as that is."""
    for unit, words in (("battery", "battery"), ("station", "power station"), ("panel", "solar panel")):
        mine = [t for t in s.build.stow.things if figures_of(t).unit == unit and not t.taken_out]
        if not mine:
            continue
        like = max(mine, key=lambda t: ((figures_of(t).amp_hours or 0.0) + (figures_of(t).solar_wp or 0.0), t.mass.si))
        try:
            yield Change(f"one more {unit}", f"Take one more {words} like {lower_first(like.name)}", _twin_ops(s, like))
        except SledError:
            continue  # it finds no place that could be drawn


def _twin_ops(s: Studied, like: Thing) -> tuple[Op, ...]:
    things = s.build.stow.things
    twin = replace(like, name=next_name(like.name, [t.name for t in things]), stays=False, inside=None)
    ops, ids = add_ops(s.build, s.facts, s.framed, (twin,))
    taken = [wire.id for wire in s.build.systems.wires]
    for wire in s.build.systems.wires:
        if like.id in (wire.start, wire.end):
            id = fresh_id("wr", taken)
            taken.append(id)
            ends = {name: ids[0] if getattr(wire, name) == like.id else getattr(wire, name) for name in ("start", "end")}
            ops.append(add_to("systems.wires", {**msgspec.to_builtins(wire), **ends, "id": id, "bends": [], "length": None}))
    return tuple(ops)


def _left_at_home(s: Studied) -> Iterator[Change]:
    """The heaviest of what is brought along and belongs to nothing."""
    loose = [
        t for t in s.build.stow.things if t.kind in ("gear", "vehicle aboard") and t.mass.si >= LEAST_KG and not t.taken_out and not t.rides
    ]
    for thing in sorted(loose, key=lambda t: -t.mass.si)[:LEFT]:
        yield Change(f"leave {thing.id}", f"Leave {lower_first(thing.name)} at home", tuple(delete_ops(s.build, (thing.id,))))


def _water(s: Studied) -> Iterator[Change]:
    fresh = [
        t
        for t in s.build.stow.things
        if t.tank is not None and t.tank.contents == "fresh" and t.tank.volume is not None and not t.taken_out
    ]
    if fresh:
        like = max(fresh, key=lambda t: t.tank.volume.si if t.tank is not None and t.tank.volume is not None else 0.0)
        try:
            ops, _ = add_ops(
                s.build, s.facts, s.framed, (replace(like, name=next_name(like.name, [t.name for t in s.build.stow.things]), stays=False),)
            )
            yield Change("more water", f"Take one more tank like {lower_first(like.name)}", tuple(ops))
        except SledError:
            return


def _days(s: Studied) -> Iterator[Change]:
    build: Build = s.build
    days = build.work.days
    free = [day for day in (5, 6, 4, 3, 2, 1, 0) if day not in days]
    if free:
        yield Change("one more day", f"Work on {DAYS[free[0]]} as well", (set_to("work.days", sorted([*days, free[0]])),))
    if build.work.hours_day <= 10:
        yield Change("longer days", "Work two hours more on a working day", (set_to("work.hours_day", build.work.hours_day + 2),))
