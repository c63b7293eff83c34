"""The fields of a thing in hand, in sections: place and size, tank, mode, holding, use, figures."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import Any

import msgspec

from uncle_sled.catalogue.things import entries
from uncle_sled.core.document.edits import Op, add_to, fresh_id, remove, set_to
from uncle_sled.core.document.field import field_of
from uncle_sled.core.document.placing import place_ops, spot_of, state_in, state_ops
from uncle_sled.core.document.project import Build
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.roles import ROLES, at_odds
from uncle_sled.core.document.stow import Hold, Latch, State, Thing
from uncle_sled.core.errors import EntryError
from uncle_sled.core.findings.stow.tanks import match_ops
from uncle_sled.core.geometry.vessel import surge_m, vessel_of
from uncle_sled.core.parts.part import DENSITY
from uncle_sled.core.studies.stow.adding import add_ops, goes_with
from uncle_sled.core.units import distance, name_in_units, show, weight
from uncle_sled.core.words import lower_first, upper_first
from uncle_sled.desk.kit.form import VERB, Row, plain
from uncle_sled.desk.session import Session

HOLDS: list[tuple[object, str]] = [(None, "nothing yet"), *field_of(Hold, "kind").choices]
DOES: list[tuple[object, str]] = [("", "nothing more"), *((role, role) for role in ROLES)]
MOST_ROLES = 4  # rows for them: more than four nobody has needed
LATCHES: list[tuple[object, str]] = [(None, "no door"), *field_of(Latch, "kind").choices]
FIGURES = (
    "power_w",
    "hours_day",
    "store_wh",
    "solar_wp",
    "charge_w",
    "volts",
    "gas_g_h",
    "water_l_day",
    "amp_hours",
    "surge",
    "start_s",
    "duty",
    "limit_a",
    "idle_w",
    "voc_v",
    "beta_pct_k",
    "most_v",
    "tilt_deg",
    "azimuth_deg",
    "heat_w",
    "cool_w",
    "flow_l_min",
    "slot_cm2",
    "noise_db",
)
# Figures that some units only have; the others are asked of everything.
ONLY_OF = {
    "amp_hours": ("battery",),
    "limit_a": ("battery", "station"),
    "idle_w": ("inverter", "inverter charger", "station"),
    "voc_v": ("panel",),
    "beta_pct_k": ("panel",),
    "tilt_deg": ("panel",),
    "azimuth_deg": ("panel",),
    "most_v": ("solar charger",),
    "surge": ("", "inverter", "inverter charger"),
    "start_s": ("",),
    "duty": ("",),
    "store_wh": ("", "battery", "station"),
    "solar_wp": ("", "panel"),
    "hours_day": ("", "inverter", "inverter charger"),
    "heat_w": ("",),
    "cool_w": ("",),
    "flow_l_min": ("",),
    "slot_cm2": ("",),
}
# What one comes to a thing for, by what it is in the wiring: it stands first.
CAME_FOR = {
    "battery": ("amp_hours", "store_wh"),
    "station": ("store_wh", "power_w"),
    "panel": ("solar_wp",),
    "solar charger": ("charge_w", "most_v"),
    "mains charger": ("charge_w",),
    "car charger": ("charge_w",),
    "inverter": ("power_w",),
    "inverter charger": ("power_w", "charge_w"),
    "generator": ("power_w",),
}
DRAWS = ("power_w", "amps", "heat_w", "hours_day")


def came_for(thing: Thing) -> tuple[str, ...]:
    """Figures that stand first: those of its unit, and of what draws something what is said of it."""
    f = thing.figures
    if f is None:
        return ()
    if f.unit:
        return CAME_FOR.get(f.unit, ())
    draws = any(getattr(f, name) is not None for name in DRAWS[:-1])
    return tuple(name for name in DRAWS if draws and (getattr(f, name) is not None or name == "hours_day"))


def _removed(path: str, _: object) -> list[Op]:
    return [remove(path)]


def thing_sections(session: Session, thing: Thing) -> list[tuple[str, list[Row]]]:
    """Headings and rows; the first has no heading and is always open."""
    path = f"stow.things.{thing.id}"
    first = came_for(thing)
    made = [("", _place_rows(session, thing.id, path, thing.tank is not None, first))]
    if thing.tank is not None:
        made.append(("Shape of the tank", _tank_rows(thing.id, path)))
    made.append(("In this mode", _mode_rows(session, thing)))
    made.append(("Held down", _hold_rows(thing.id, path)))
    made.append(("Use", _use_rows(session, thing.id, path)))
    made.append(("Room beside it", _clear_rows(session, thing)))
    figures = [row for row in _figure_rows(thing.id, path) if row.path.rsplit(".", 1)[-1] not in first]
    made.append(("Power, gas, water", [*figures, *_burn_rows(path)]))
    return made


def _thing(build: Build, id: str) -> Thing | None:
    return next((t for t in build.stow.things if t.id == id), None)


def _of(id: str, what: Callable[[Thing], Any]) -> Callable[[Any], Any]:
    def read(build: Any) -> Any:
        thing = _thing(build, id)
        return what(thing) if thing is not None else None

    return read


def _put(session: Session, id: str, path: str, axis: int) -> Callable[[Any], list[Op]]:
    """Ops that set one coordinate, at home or in the mode that is shown."""

    def ops(value: Length) -> list[Op]:
        thing, mode = _thing(session.build, id), session.mode
        assert thing is not None  # a form takes nothing of a thing that is gone
        if id not in mode.touched and (mode.id == session.build.stow.modes[0].id or mode.towing):
            return [set_to(f"{path}.{'xyz'[axis]}", {"si": value.si, "typed": value.typed})]
        spot, _ = spot_of(thing, mode)
        new = [*spot]
        new[axis] = value.si
        return place_ops(session.build, mode, thing, (new[0], new[1], new[2]))

    return ops


def _place_rows(session: Session, id: str, path: str, tank: bool, first: tuple[str, ...]) -> list[Row]:
    """Name, what one came for, weight, place and size."""

    def at(axis: int) -> Row:
        return Row(f"{path}.{'xyz'[axis]}", ops=_put(session, id, path, axis))

    return [
        Row(f"{path}.name"),
        *(plain(f"{path}.tank", "volume contents carried") if tank else ()),
        *(plain(f"{path}.figures", " ".join(first)) if first else ()),
        Row(f"{path}.mass", title="Empty" if tank else "Weight"),
        Row(f"{path}.source"),
        *(at(axis) for axis in range(3)),
        *plain(path, "length width height turn"),
        Row(f"{path}.cg_dx"),
        *_with_it(session, id, path),
    ]


def _with_it(session: Session, id: str, path: str) -> list[Row]:
    """A button that puts aboard what the thing wants beside it."""
    thing = _thing(session.build, id)
    wanted = goes_with(thing, session.build.stow.things, entries()) if thing is not None else ()
    if not wanted:
        return []
    names = ", ".join(lower_first(name_in_units(entry.name, session.shown)) for entry in wanted)

    def ops(_: object) -> list[Op]:
        return add_ops(session.build, session.facts, session.studied.framed, wanted)[0]

    said = "Add what goes with it" if len(wanted) > 1 else f"Add {names}"
    return [Row(path, title=said, kind=VERB, tip=f"Goes with it and is not aboard yet: {names}", ops=ops)]


def _tank_rows(id: str, path: str) -> list[Row]:
    def shaped(*shapes: str) -> Callable[[Any], bool]:
        def when(build: Any) -> bool:
            thing = _thing(build, id)
            return bool(thing and thing.tank and thing.tank.shape in shapes)

        return when

    def outline_words(thing: Thing) -> str:
        return " ".join(f"{p.u * 100:g},{p.v * 100:g}" for p in thing.tank.outline) if thing.tank else ""

    def outline(text: str) -> list[Op]:
        points = []
        for pair in text.split():
            try:
                u, v = (float(part) / 100 for part in pair.split(","))
            except ValueError:
                raise EntryError(f"“{pair}” is no corner; pairs such as 0,0 100,0 100,60 0,100 would be right.") from None
            if not (0 <= u <= 1 and 0 <= v <= 1):
                raise EntryError(f"“{pair}” lies outside the tank's box; 0 to 100 of its length and height would be right.")
            points.append({"u": u, "v": v})
        if 0 < len(points) < 3:
            raise EntryError("an outline wants three corners or more.")
        return [set_to(f"{path}.tank.outline", points)]

    return [
        Row(f"{path}.tank.shape"),
        Row(f"{path}.tank.axis", when=shaped("cylinder")),
        *plain(f"{path}.tank", "thin thin_height slant", when=shaped("wedge")),
        Row(f"{path}.tank.outline", when=shaped("outline"), ops=outline, read=_of(id, outline_words)),
    ]


def _mode_rows(session: Session, thing: Thing) -> list[Row]:
    states: list[tuple[object, str]] = [(None, "as it is"), *((state.id, state.name) for state in thing.states)]

    def state_now(build: Any) -> Any:
        now = _thing(build, thing.id)
        state = state_in(now, session.mode) if now is not None else None
        return state.id if state else None

    def to_state(value: Any) -> list[Op]:
        now = _thing(session.build, thing.id)
        return state_ops(session.mode, now, value) if now is not None else []

    def leave_out(value: Any) -> list[Op]:
        mode = session.mode
        absent = [id for id in mode.absent if id != thing.id] + ([thing.id] if value else [])
        return [set_to(f"stow.modes.{mode.id}.absent", absent)]

    rows = []
    if thing.states:
        rows.append(Row(f"stow.things.{thing.id}.states", title="It is", kind=states, ops=to_state, read=state_now))
    rows.append(
        Row(
            f"stow.things.{thing.id}.id",
            title="Left out of this mode",
            kind=bool,
            tip="It is not there at all while this mode is shown",
            ops=leave_out,
            read=lambda _: thing.id in session.mode.absent,
        )
    )
    for state in thing.states:
        rows += _state_rows(f"stow.things.{thing.id}.states.{state.id}", state)
    rows.append(
        Row(
            f"stow.things.{thing.id}.states",
            title="Add another form",
            kind=VERB,
            tip="Folded, dropped, pulled out: another size, and where it goes from its place",
            ops=lambda _: _another_form(session, thing.id),
        )
    )
    return rows


def _state_rows(path: str, state: State) -> list[Row]:
    """The fields of one other form, each named for it."""
    name = upper_first(state.name)
    sizes = [Row(f"{path}.{side}", title=f"{name} {side}") for side in ("length", "width", "height")]
    shifts = [
        Row(f"{path}.{axis}", title=f"{name}, {way}", tip=f"How far {way} of its place it goes; minus the other way")
        for axis, way in (("dx", "aft"), ("dy", "right"), ("dz", "up"))
    ]
    called = Row(f"{path}.name")
    gone = Row(path, title=f"Take away {lower_first(state.name)}", kind=VERB, ops=lambda _: [remove(path)])
    change = [Row(f"{path}.minutes", title=f"{name} in"), Row(f"{path}.hands", title=f"{name}, hands")]
    return [called, *sizes, *shifts, *change, gone]


def _another_form(session: Session, id: str) -> list[Op]:
    thing = _thing(session.build, id)
    assert thing is not None
    taken = {state.id for state in thing.states}
    name = next((word for word in ("folded", "pulled out", "dropped", "raised") if word.replace(" ", "-") not in taken), "another")
    record = {"id": fresh_id("s", list(taken)), "name": name}
    record |= {side: msgspec.to_builtins(getattr(thing, side)) for side in ("length", "width", "height")}
    return [add_to(f"stow.things.{id}.states", record)]


def _clear_rows(session: Session, thing: Thing) -> list[Row]:
    """The room that a thing wants beside it, one after another."""
    rows = []
    for at, clear in enumerate(thing.clear, 1):
        path = f"stow.things.{thing.id}.clear.{clear.id}"
        which = f" {at}" if len(thing.clear) > 1 else ""
        rows += [
            Row(f"{path}.kind", title=f"Room{which} for"),
            *plain(path, "side deep"),
            Row(path, title=f"Take away room{which}", kind=VERB, tip="It no longer wants room there", ops=partial(_removed, path)),
        ]

    def another(_: Any) -> list[Op]:
        now = _thing(session.build, thing.id)
        assert now is not None
        id = fresh_id("c", [clear.id for clear in now.clear])
        record = {"id": id, "kind": "door", "side": "front", "deep": {"si": 0.45, "typed": None}}
        return [add_to(f"stow.things.{thing.id}.clear", record)]

    tip = "For a door, a drawer, a lid, service, air or heat"
    return [*rows, Row(f"stow.things.{thing.id}.clear", title="Add room that it wants", kind=VERB, tip=tip, ops=another)]


def _hold_rows(id: str, path: str) -> list[Row]:
    def held(what: Callable[[Any], Any]) -> Callable[[Any], Any]:
        return _of(id, lambda thing: what(thing.hold) if thing.hold else None)

    def kind(value: Any) -> list[Op]:
        return [set_to(f"{path}.hold", None if value is None else {"kind": value, "many": 2 if value == "strap" else 1})]

    def has(build: Any) -> bool:
        thing = _thing(build, id)
        return thing is not None and thing.hold is not None

    def straps(build: Any) -> bool:
        thing = _thing(build, id)
        return thing is not None and thing.hold is not None and thing.hold.kind == "strap"

    return [
        Row(f"{path}.hold", kind=HOLDS, ops=kind, read=held(lambda hold: hold.kind)),
        *plain(f"{path}.hold", "many rated into", when=has),
        *plain(f"{path}.hold", "leads elevation_deg plan_deg", when=straps),
        *plain(path, "floor rides"),
        *_latch_rows(id, path),
        Row(f"{path}.held_by"),
    ]


def _burn_rows(path: str) -> list[Row]:
    """What it burns and gives off: read by everything that judges flames, air and alarms."""
    return plain(path, "burns room_sealed flued shielded vents_gas fumes near")


def _latch_rows(id: str, path: str) -> list[Row]:
    """A cupboard's door: what keeps it shut, and what leans on it."""

    def has(build: Any) -> bool:
        thing = _thing(build, id)
        return thing is not None and thing.latch is not None

    def kind(value: Any) -> list[Op]:
        return [set_to(f"{path}.latch", None if value is None else {"kind": value})]

    shut = _of(id, lambda thing: thing.latch.kind if thing.latch else None)
    return [Row(f"{path}.latch", kind=LATCHES, ops=kind, read=shut), *plain(f"{path}.latch", "rated_n leans opens", when=has)]


def _role_rows(session: Session, id: str, path: str) -> list[Row]:
    """What it does: a row for each role, and one more to add another."""

    def row(at: int) -> Row:
        def read(build: Any) -> Any:
            thing = _thing(build, id)
            return thing.roles[at] if thing is not None and at < len(thing.roles) else ""

        def shown(build: Any) -> bool:
            thing = _thing(build, id)
            return thing is not None and at <= len(thing.roles)

        def ops(value: Any) -> list[Op]:
            thing = _thing(session.build, id)
            roles = list(thing.roles) if thing is not None else []
            roles[at : at + 1] = [value] if value else []
            roles = list(dict.fromkeys(roles))
            if (odds := at_odds(tuple(roles))) is not None:
                raise EntryError(f"no thing both “{odds[0]}” and “{odds[1]}”.")
            return [set_to(f"{path}.roles", roles)]

        return Row(f"{path}.roles", title="Does" if at == 0 else "And", kind=DOES, when=shown, ops=ops, read=read)

    return [row(at) for at in range(MOST_ROLES)]


def _use_rows(session: Session, id: str, path: str) -> list[Row]:
    others: list[tuple[object, str]] = [(None, "nothing")]
    others += [(t.id, lower_first(t.name)) for t in session.build.stow.things if t.id != id]

    def into(value: Any) -> list[Op]:
        at, seen = value, {id}
        holder = {t.id: t.inside for t in session.build.stow.things}
        while at is not None:
            if at in seen:
                raise EntryError("two things cannot be built into each other.")
            seen.add(at)
            at = holder.get(at)
        return [set_to(f"{path}.inside", value)]

    return [
        Row(f"{path}.inside", kind=others, ops=into),
        Row(
            f"{path}.tank",
            title="It holds something",
            kind=VERB,
            tip="Water, or what a toilet catches: then its days and its weight on the way are counted",
            ops=partial(_a_tank, session, id),
            when=_of(id, lambda thing: thing.tank is None),
        ),
        *_role_rows(session, id, path),
        *plain(path, "places arrival cargo outside stays"),
    ]


def _a_tank(session: Session, id: str, _: Any) -> list[Op]:
    """A tank of nobody knows how much: a toilet's for what goes in, of everything else for fresh water."""
    thing = _thing(session.build, id)
    assert thing is not None  # a form takes nothing of a thing that is gone
    toilet = "toilet" in thing.roles
    return [set_to(f"stow.things.{id}.tank", {"contents": "black" if toilet else "fresh", "carried": toilet})]


def _figure_rows(id: str, path: str) -> list[Row]:
    """Figures of power, gas and water: those of its unit, and those that everything may have."""
    at = f"{path}.figures"

    def figures(build: Any) -> Any:
        thing = _thing(build, id)
        return thing.figures if thing is not None else None

    def of(name: str) -> Callable[[Any], bool] | None:
        if name not in ONLY_OF:
            return None

        def shown(build: Any) -> bool:
            now = figures(build)
            return (now.unit if now is not None else "") in ONLY_OF[name]

        return shown

    def is_load(build: Any) -> bool:
        now = figures(build)
        return now is not None and not now.unit and (now.power_w is not None or now.amps is not None or now.store_wh is not None)

    def has_its_own(build: Any) -> bool:
        now = figures(build)
        return now is not None and not now.unit and now.store_wh is not None

    def is_battery(build: Any) -> bool:
        now = figures(build)
        return now is not None and now.unit in ("battery", "station")

    return [
        Row(f"{at}.unit"),
        Row(f"{at}.chemistry", when=is_battery),
        *(Row(f"{at}.{name}", when=of(name)) for name in FIGURES),
        *plain(at, "current when must_run", when=is_load),
        Row(f"{at}.filled", when=has_its_own),
        Row(f"{at}.cold_cut", when=is_battery),
        Row(f"{path}.since", when=is_battery),
    ]


def equal_grey(session: Session, fresh: Thing) -> bool:
    """A grey container of the same size set beside a fresh one, or the only grey one made its twin."""
    greys = [t for t in session.build.stow.things if t.tank and t.tank.contents == "grey"]
    if len(greys) == 1:
        says = f"Make the {lower_first(greys[0].name)} as large as the {lower_first(fresh.name)}"
        return session.edit(says, match_ops(fresh, greys[0]), "Stow", (greys[0].id,))
    assert fresh.tank is not None
    id = fresh_id("t", [t.id for t in session.build.stow.things])
    twin = msgspec.structs.replace(
        fresh,
        id=id,
        name=fresh.name.replace("Fresh", "Grey").replace("fresh", "grey") if "resh" in fresh.name else f"Grey {fresh.name}",
        x=Length(round(fresh.x.si + (fresh.length.si if fresh.turn % 180 == 0 else fresh.width.si) + 0.02, 4)),
        tank=msgspec.structs.replace(fresh.tank, contents="grey"),
    )
    made = session.edit("Add an equal grey jug", [add_to("stow.things", msgspec.to_builtins(twin))], "Stow", (id,))
    if made:
        session.select((id,))
    return made


def tank_words(session: Session, thing: Thing) -> str:
    """What a tank holds as drawn, where its liquid stands in the shown case, and what it does in a firm stop."""
    vessel = vessel_of(thing)
    if thing.tank is None or vessel is None:
        return ""
    shown = session.shown
    says = f"As drawn it holds {show(vessel.volume_m3, 'volume', shown.volume)}."
    cases = session.studied.table.cases
    held = thing.tank.volume.si if thing.tank.volume else 0.0
    if not cases or held <= 0:
        return says
    level = next((lv.level for lv in cases[session.row].case.levels if lv.id == thing.id), 0.0)
    if level > 0:
        says += f" {level * 100:.0f} % full: {distance(vessel.fill(level).height_m, shown)} up."
    half = surge_m(vessel, 0.5, turn=thing.turn)
    axle = session.studied.support.mean_axle_m if session.studied.support else None
    kg = 0.5 * held * DENSITY[thing.tank.contents] * half / axle if axle else 0.0
    if kg > 0.3 and session.build.rig.carrier == "ball":
        says += f" Half full it surges {distance(half, shown)} in a firm stop, {weight(kg, shown)} on the ball."
    return says
