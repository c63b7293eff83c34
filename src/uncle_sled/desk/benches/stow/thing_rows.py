"""The fields of a thing in hand, in sections: place and size, tank, mode, holding, use, figures."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import Any

import msgspec

from uncle_sled.core.document.edits import Op, add_to, fresh_id, remove, set_to
from uncle_sled.core.document.placing import place_ops, spot_of, state_in, state_ops
from uncle_sled.core.document.project import Build
from uncle_sled.core.document.quantity import Length, Mass, Volume
from uncle_sled.core.document.roles import ROLES, at_odds
from uncle_sled.core.document.stow import State, Thing
from uncle_sled.core.errors import EntryError
from uncle_sled.core.findings.stow.tanks import match_ops
from uncle_sled.core.geometry.vessel import surge_m, vessel_of
from uncle_sled.core.parts.part import DENSITY
from uncle_sled.core.units import distance, show, weight
from uncle_sled.core.words import lower_first, upper_first
from uncle_sled.desk.kit.form import NUMBER, SOURCES, VERB, Row
from uncle_sled.desk.session import Session

CONTENTS: list[tuple[object, str]] = [
    ("fresh", "fresh water"),
    ("grey", "grey water"),
    ("black", "black water"),
    ("gas", "gas"),
    ("petrol", "petrol"),
    ("diesel", "diesel"),
]
TURNS: list[tuple[object, str]] = [(0, "as it is"), (90, "quarter turn"), (180, "half turn"), (270, "three quarters")]
SHAPES: list[tuple[object, str]] = [
    ("box", "box"),
    ("cylinder", "cylinder"),
    ("wedge", "wedge"),
    ("jug", "jug"),
    ("outline", "own outline"),
]
AXES: list[tuple[object, str]] = [("along", "lying along"), ("across", "lying across"), ("upright", "upright")]
HOLDS: list[tuple[object, str]] = [
    (None, "nothing yet"),
    ("strap", "straps"),
    ("bolt", "bolts"),
    ("latch", "latches"),
    ("lip", "a lip"),
    ("rail", "a rail"),
    ("built in", "built in"),
]
INTO: list[tuple[object, str]] = [("framing", "the framing"), ("frame", "the frame"), ("skin", "the skin")]
DOES: list[tuple[object, str]] = [("", "nothing more"), *((role, role) for role in ROLES)]
MOST_ROLES = 4  # rows for them: more than four nobody has needed
CLEARS: list[tuple[object, str]] = [
    ("door", "a door's swing"),
    ("drawer", "a drawer"),
    ("lid", "a lid"),
    ("service", "service"),
    ("air", "air"),
    ("heat", "heat"),
]
SIDES: list[tuple[object, str]] = [(side, side) for side in ("front", "rear", "left", "right", "top")]
BURNS: list[tuple[object, str]] = [
    ("none", "nothing"),
    ("gas", "gas"),
    ("spirit", "spirit"),
    ("wood", "wood"),
    ("diesel", "diesel"),
]
KEEP_FROM: list[tuple[object, str]] = [
    ("", "nothing"),
    ("mains", "water: it is mains"),
    ("cloth", "flames: it is cloth"),
]
LEADS: list[tuple[object, str]] = [("both ways", "fore and aft"), ("aft", "all aft"), ("fore", "all forward")]
FLOORS: list[tuple[object, str]] = [
    ("", "not said"),
    ("wood", "dry wood"),
    ("metal", "metal, or wet"),
    ("rubber", "a rubber mat"),
]
RIDES: list[tuple[object, str]] = [
    ("", "no"),
    ("front", "in front"),
    ("rear", "behind"),
    ("boot", "in the boot"),
    ("roof", "on its roof"),
]
LATCHES: list[tuple[object, str]] = [
    (None, "no door"),
    ("none", "nothing"),
    ("push", "a push latch"),
    ("turn", "a turn catch"),
    ("bolt", "a bolt"),
    ("lip", "a shelf's lip"),
    ("sliding", "sliding doors"),
]
OPENS: list[tuple[object, str]] = [(side, side) for side in ("front", "rear", "left", "right")]
FIGURE_NAMES = {
    "power_w": ("Runs on", "W while it runs"),
    "hours_day": ("Runs", "hours a day"),
    "store_wh": ("Stores", "Wh that can be used"),
    "solar_wp": ("Solar", "W peak"),
    "charge_w": ("Charges", "W at most"),
    "volts": ("Volts", "V"),
    "gas_g_h": ("Gas", "grams an hour"),
    "water_l_day": ("Water", "litres a day"),
    "amp_hours": ("Holds", "Ah as sold, of a battery"),
    "surge": ("Starts with", "times what it runs on"),
    "start_s": ("Start lasts", "seconds that it draws so much; nothing: over a second"),
    "duty": ("Duty", "share of its hours that it really draws, 0 to 1"),
    "limit_a": ("Gives", "A at most, of a battery or of a station's 12 V outlet"),
    "idle_w": ("Idles at", "W while an inverter is on"),
    "voc_v": ("Open", "V of a panel, from its plate"),
    "beta_pct_k": ("Cold adds", "% of its volts a degree, of a panel"),
    "most_v": ("Takes", "V at most, of a charge controller"),
    "tilt_deg": ("Tilted", "degrees over level, of a panel"),
    "azimuth_deg": ("Slopes to", "degrees from the midday sun, the afternoon's side positive, of a panel"),
    "heat_w": ("Warms", "W that a heater gives"),
    "cool_w": ("Cools", "W that a cooler takes away"),
    "flow_l_min": ("Pumps", "litres a minute"),
}
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
}
MOST = {"hours_day": 24.0, "duty": 1.0, "tilt_deg": 90.0, "azimuth_deg": 180.0}
UNITS: list[tuple[object, str]] = [
    ("", "what runs, or nothing"),
    ("battery", "a battery"),
    ("station", "a power station"),
    ("panel", "a solar panel"),
    ("solar charger", "a solar charge controller"),
    ("mains charger", "a charger from the mains"),
    ("car charger", "a charger from the car"),
    ("inverter", "an inverter"),
    ("inverter charger", "inverter and charger"),
    ("fuse box", "a fuse box"),
    ("inlet", "a hookup inlet"),
    ("generator", "a generator"),
]
CHEMISTRIES: list[tuple[object, str]] = [("", "not said"), ("LFP", "LFP"), ("AGM", "AGM"), ("lead", "lead, flooded")]
CURRENTS: list[tuple[object, str]] = [("", "by its volts"), ("DC", "the battery"), ("AC", "mains")]
WHENS: list[tuple[object, str]] = [("any", "any time"), ("day", "by day"), ("night", "by night")]


def _removed(path: str, _: object) -> list[Op]:
    return [remove(path)]


def thing_sections(session: Session, thing: Thing) -> list[tuple[str, list[Row]]]:
    """Headings and rows; the first has no heading and is always open."""
    path = f"stow.things.{thing.id}"
    made = [("", _place_rows(session, thing.id, path, thing.tank is not None))]
    if thing.tank is not None:
        made.append(("Shape of the tank", _tank_rows(thing.id, path)))
    made.append(("In this mode", _mode_rows(session, thing)))
    made.append(("Held down", _hold_rows(thing.id, path)))
    made.append(("Use", _use_rows(session, thing.id, path)))
    made.append(("Room beside it", _clear_rows(session, thing)))
    made.append(("Power, gas, water", [*_figure_rows(thing.id, path), *_burn_rows(path)]))
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
        assert thing is not None
        if id not in mode.touched and (mode.id == session.build.stow.modes[0].id or mode.towing):
            return [set_to(f"{path}.{'xyz'[axis]}", {"si": value.si, "typed": value.typed})]
        spot, _ = spot_of(thing, mode)
        new = [*spot]
        new[axis] = value.si
        return place_ops(session.build, mode, thing, (new[0], new[1], new[2]))

    return ops


def _place_rows(session: Session, id: str, path: str, tank: bool) -> list[Row]:
    def at(title: str, axis: int, tip: str, least: float | None = None) -> Row:
        return Row(title, f"{path}.{'xyz'[axis]}", Length, tip, least, False, ops=_put(session, id, path, axis))

    rows = [
        Row("Name", f"{path}.name", str, empty=False),
        at("Front edge", 0, "From the ball, or from the front axle of a bed"),
        at("Middle", 1, "Right of the middle line; left is minus"),
        at("Underside", 2, "Above the ground", 0.0),
        Row("Length", f"{path}.length", Length, empty=False),
        Row("Width", f"{path}.width", Length, empty=False),
        Row("Height", f"{path}.height", Length, empty=False),
        Row("Turned", f"{path}.turn", TURNS),
        Row("Empty" if tank else "Weight", f"{path}.mass", Mass, empty=False),
        Row("Known by", f"{path}.source", SOURCES),
    ]
    if tank:
        rows += [Row("Holds", f"{path}.tank.volume", Volume), Row("What", f"{path}.tank.contents", CONTENTS)]
    return [*rows, Row("Weight off", f"{path}.cg_dx", Length, "How far aft of its middle its weight sits", None)]


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
                raise EntryError(
                    f"“{pair}” is no corner; pairs such as 0,0 100,0 100,60 0,100 would be right."
                ) from None
            if not (0 <= u <= 1 and 0 <= v <= 1):
                raise EntryError(
                    f"“{pair}” lies outside the tank's box; 0 to 100 of its length and height would be right."
                )
            points.append({"u": u, "v": v})
        if 0 < len(points) < 3:
            raise EntryError("an outline wants three corners or more.")
        return [set_to(f"{path}.tank.outline", points)]

    return [
        Row("Shape", f"{path}.tank.shape", SHAPES),
        Row("Lies", f"{path}.tank.axis", AXES, when=shaped("cylinder")),
        Row("Low end", f"{path}.tank.thin", [("front", "front"), ("rear", "rear")], when=shaped("wedge")),
        Row("Height there", f"{path}.tank.thin_height", Length, "Half of the height where nothing is typed", when=shaped("wedge")),
        Row("Slants", f"{path}.tank.slant", [("top", "its top"), ("bottom", "its bottom")], when=shaped("wedge")),
        Row(
            "Corners",
            f"{path}.tank.outline",
            str,
            "Seen from the left, in hundredths of its length and height, once round: 0,0 100,0 100,60 0,100",
            when=shaped("outline"),
            ops=outline,
            read=_of(id, outline_words),
        ),
    ]  # fmt: skip


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
        rows.append(Row("It is", f"stow.things.{thing.id}.states", states, ops=to_state, read=state_now))
    rows.append(
        Row(
            "Left out of this mode",
            f"stow.things.{thing.id}.id",
            bool,
            "It is not there at all while this mode is shown",
            ops=leave_out,
            read=lambda _: thing.id in session.mode.absent,
        )
    )
    for state in thing.states:
        rows += _state_rows(f"stow.things.{thing.id}.states.{state.id}", state)
    rows.append(Row("Add another form", f"stow.things.{thing.id}.states", VERB, "Folded, dropped, pulled out: another size, and where it goes from its place", ops=lambda _: _another_form(session, thing.id)))  # fmt: skip
    return rows


def _state_rows(path: str, state: State) -> list[Row]:
    """The fields of one other form, each named for it."""
    name = upper_first(state.name)
    sizes = [Row(f"{name} {side}", f"{path}.{side}", Length, empty=False) for side in ("length", "width", "height")]
    shifts = [
        Row(
            f"{name}, {way}", f"{path}.{axis}", Length, f"How far {way} of its place it goes; minus the other way", None
        )
        for axis, way in (("dx", "aft"), ("dy", "right"), ("dz", "up"))
    ]
    called = Row("Called", f"{path}.name", str, empty=False)
    gone = Row(f"Take away {lower_first(state.name)}", path, VERB, ops=lambda _: [remove(path)])
    change = [
        Row(f"{name}, minutes", f"{path}.minutes", int, "To change into it; Reach adds them up"),
        Row(f"{name}, hands", f"{path}.hands", int, "How many people it takes"),
    ]
    return [called, *sizes, *shifts, *change, gone]


def _another_form(session: Session, id: str) -> list[Op]:
    thing = _thing(session.build, id)
    assert thing is not None
    taken = {state.id for state in thing.states}
    name = next(
        (word for word in ("folded", "pulled out", "dropped", "raised") if word.replace(" ", "-") not in taken),
        "another",
    )
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
            Row(f"Room{which} for", f"{path}.kind", CLEARS),
            Row("At its", f"{path}.side", SIDES, "Of the thing before it is turned"),
            Row("Deep", f"{path}.deep", Length, "How far its door swings, its drawer comes out, its heat reaches", empty=False),
            Row(f"Take away room{which}", path, VERB, "It no longer wants room there", ops=partial(_removed, path)),
        ]  # fmt: skip

    def another(_: Any) -> list[Op]:
        now = _thing(session.build, thing.id)
        assert now is not None
        id = fresh_id("c", [clear.id for clear in now.clear])
        record = {"id": id, "kind": "door", "side": "front", "deep": {"si": 0.45, "typed": None}}
        return [add_to(f"stow.things.{thing.id}.clear", record)]

    tip = "For a door, a drawer, a lid, service, air or heat"
    return [*rows, Row("Add room that it wants", f"stow.things.{thing.id}.clear", VERB, tip, ops=another)]


def _hold_rows(id: str, path: str) -> list[Row]:
    def held(what: Callable[[Any], Any]) -> Callable[[Any], Any]:
        return _of(id, lambda thing: what(thing.hold) if thing.hold else None)

    def kind(value: Any) -> list[Op]:
        return [
            set_to(f"{path}.hold", None if value is None else {"kind": value, "many": 2 if value == "strap" else 1})
        ]

    def has(build: Any) -> bool:
        thing = _thing(build, id)
        return thing is not None and thing.hold is not None

    def straps(build: Any) -> bool:
        thing = _thing(build, id)
        return thing is not None and thing.hold is not None and thing.hold.kind == "strap"

    def degrees(field: str) -> Callable[[Any], list[Op]]:
        def ops(value: Any) -> list[Op]:
            if value is not None and value > 90:
                raise EntryError(
                    f"{value:g} degrees is over 90; 0 (flat) to 90 (upright, or square across) would be right."
                )
            return [set_to(f"{path}.hold.{field}", value)]

        return ops

    def many(value: Any) -> list[Op]:
        if value is not None and value < 1:
            raise EntryError("one at least holds it.")
        return [set_to(f"{path}.hold.many", value or 1)]

    return [
        Row("Held by", f"{path}.hold", HOLDS, ops=kind, read=held(lambda hold: hold.kind)),
        Row("How many", f"{path}.hold.many", int, when=has, ops=many, read=held(lambda hold: hold.many)),
        Row(
            "Each good for", f"{path}.hold.rated", Mass, "Working load, as it stands on strap, ring or latch", when=has
        ),
        Row("Goes into", f"{path}.hold.into", INTO, when=has),
        Row("They lead", f"{path}.hold.leads", LEADS, "Seen from the thing; both ways: half of them each", when=straps),
        Row(
            "Steep by",
            f"{path}.hold.elevation_deg",
            NUMBER,
            "Degrees over the floor, 0 to 90; 45 is taken where nobody measured",
            when=straps,
            ops=degrees("elevation_deg"),
        ),
        Row(
            "Aside by",
            f"{path}.hold.plan_deg",
            NUMBER,
            "Degrees from the trailer's axis, seen from above, 0 to 90; 45 is taken where nobody measured",
            when=straps,
            ops=degrees("plan_deg"),
        ),
        Row("Stands on", f"{path}.floor", FLOORS, "Friction helps the straps; not said, it counts for nothing"),
        Row("Rides in the car", f"{path}.rides", RIDES, "Then it weighs on the car and not on the trailer"),
        *_latch_rows(id, path),
        Row("In words", f"{path}.held_by", str),
    ]


def _burn_rows(path: str) -> list[Row]:
    """What it burns and gives off: read by everything that judges flames, air and alarms."""
    return [
        Row("Burns", f"{path}.burns", BURNS),
        Row(
            "Room-sealed",
            f"{path}.room_sealed",
            bool,
            "Air from outside and smoke to outside; a cylinder: in a locker that drains outside",
        ),
        Row("Smoke up a flue", f"{path}.flued", bool, "Its air comes from the room, its smoke goes up a pipe"),
        Row("Gives off gas", f"{path}.vents_gas", bool, "As a lead battery does while it charges"),
        Row("Gives off fumes", f"{path}.fumes", bool, "Petrol, a generator"),
        Row("Keep it from", f"{path}.near", KEEP_FROM, "Mains equipment from water, cloth from flames"),
    ]


def _latch_rows(id: str, path: str) -> list[Row]:
    """A cupboard's door: what keeps it shut, and what leans on it."""

    def has(build: Any) -> bool:
        thing = _thing(build, id)
        return thing is not None and thing.latch is not None

    def kind(value: Any) -> list[Op]:
        return [set_to(f"{path}.latch", None if value is None else {"kind": value})]

    shut = _of(id, lambda thing: thing.latch.kind if thing.latch else None)
    return [
        Row(
            "Door shut by",
            f"{path}.latch",
            LATCHES,
            "What keeps a cupboard's door shut on the road",
            ops=kind,
            read=shut,
        ),
        Row("Holds", f"{path}.latch.rated_n", NUMBER, "Newtons, as its maker says; 10 N is about 1 kg", when=has),
        Row("Leans on it", f"{path}.latch.leans", Mass, "What lies behind the door", when=has),
        Row("Opens to", f"{path}.latch.opens", OPENS, "Of the thing unturned", when=has),
    ]


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

        return Row(
            "Does" if at == 0 else "And",
            f"{path}.roles",
            DOES,
            "What it is there for: alarms, flames, water and power are judged by this, never by its name",
            when=shown,
            read=read,
            ops=ops,
        )

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
        Row("Built into", f"{path}.inside", others, "It goes where that goes, and does not clash with it", ops=into),
        *_role_rows(session, id, path),
        Row("Places", f"{path}.places", int, "How many sit there"),
        Row("Wanted first on arrival", f"{path}.arrival", bool),
        Row("Goes home with the people", f"{path}.cargo", bool),
        Row("Stands outside the body", f"{path}.outside", bool),
        Row("Stays where it is", f"{path}.stays", bool),
    ]


def _figure_rows(id: str, path: str) -> list[Row]:
    """Figures of power, gas and water: those of its unit, and those that everything may have."""

    def figures(build: Any) -> Any:
        thing = _thing(build, id)
        return thing.figures if thing is not None else None

    def write(name: str) -> Callable[[Any], list[Op]]:
        def ops(value: Any) -> list[Op]:
            most = MOST.get(name)
            least = -180.0 if name == "azimuth_deg" else 0.0
            if most is not None and isinstance(value, float) and not least <= value <= most:
                raise EntryError(f"{value:g} is more than there is; {least:g} to {most:g} would be right.")
            return (
                [set_to(f"{path}.figures.{name}", value)] if has["it"] else [set_to(f"{path}.figures", {name: value})]
            )

        return ops

    has = {"it": False}

    def read(name: str, usual: Any) -> Callable[[Any], Any]:
        def value(build: Any) -> Any:
            now = figures(build)
            has["it"] = now is not None
            return usual if now is None else getattr(now, name)

        return value

    def of(name: str) -> Callable[[Any], bool]:
        def shown(build: Any) -> bool:
            now = figures(build)
            return (now.unit if now is not None else "") in ONLY_OF[name]

        return shown

    def is_load(build: Any) -> bool:
        now = figures(build)
        return now is not None and not now.unit and (now.power_w is not None or now.amps is not None)

    def is_battery(build: Any) -> bool:
        now = figures(build)
        return now is not None and now.unit in ("battery", "station")

    def choice(
        title: str,
        name: str,
        kinds: list[tuple[object, str]],
        usual: str,
        when: Callable[[Any], bool] | None,
        tip: str = "",
    ) -> Row:
        return Row(title, f"{path}.figures", kinds, tip, ops=write(name), read=read(name, usual), when=when)

    made = [choice("In the wiring", "unit", UNITS, "", None, "What it is on the diagram of Systems")]
    made.append(
        choice(
            "Kind", "chemistry", CHEMISTRIES, "", is_battery, "How much of it may be used, and what it does in the cold"
        )
    )
    for name in FIGURE_NAMES:
        title, tip = FIGURE_NAMES[name]
        made.append(
            Row(
                f"{title}, {tip.split(' ')[0]}" if name not in ("surge", "duty") else title,
                f"{path}.figures",
                NUMBER,
                tip,
                None if name == "azimuth_deg" else 0.0,
                ops=write(name),
                read=read(name, None),
                when=of(name) if name in ONLY_OF else None,
            )
        )
    made += [
        choice("Runs on", "current", CURRENTS, "", is_load, "What its plug wants"),
        choice("Runs", "when", WHENS, "any", is_load, "By day is 8 to 20 by the sun"),
        Row(
            "Must run",
            f"{path}.figures",
            bool,
            "It has a reserve of its own in the battery",
            ops=write("must_run"),
            read=read("must_run", False),
            when=is_load,
        ),
        Row(
            "Keeps itself from frost",
            f"{path}.figures",
            bool,
            "It stops charging below freezing, or warms itself",
            ops=write("cold_cut"),
            read=read("cold_cut", False),
            when=is_battery,
        ),
    ]
    return made


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
        name=fresh.name.replace("Fresh", "Grey").replace("fresh", "grey")
        if "resh" in fresh.name
        else f"Grey {fresh.name}",
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
