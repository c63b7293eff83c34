"""In hand: the rows of a wire, a device, a load of its own, and what they come to."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from uncle_sled.core.document.edits import Op, remove, set_to
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.systems import Device, Load, Wire
from uncle_sled.core.errors import EntryError
from uncle_sled.core.wiring.wired import wired_of
from uncle_sled.core.words import Words, lower_first
from uncle_sled.desk.kit.form import NUMBER, VERB, Row
from uncle_sled.desk.session import Session

FUSED: list[tuple[object, str]] = [
    ("start", "at its beginning"),
    ("end", "at its end"),
    ("both", "at both ends"),
    ("none", "no fuse of its own"),
]
CLASSES: list[tuple[object, str]] = [("building", "building, cautious"), ("vehicle", "vehicle, 105 °C")]
DROPS: list[tuple[object, str]] = [(None, "3 %"), (0.03, "3 % (said)"), (0.05, "5 %"), (0.10, "10 %")]
BREAKS: list[tuple[object, str]] = [("both", "both wires"), ("plus", "plus"), ("minus", "minus only")]
CURRENTS: list[tuple[object, str]] = [("DC", "the battery"), ("AC", "mains")]
WHENS: list[tuple[object, str]] = [("any", "any time"), ("day", "by day"), ("night", "by night")]
KINDS: list[tuple[object, str]] = [
    ("DC", "battery (DC)"),
    ("AC", "mains (AC)"),
    ("panel", "panels"),
    ("earth", "earth"),
]


def found(session: Session) -> Wire | Device | Load | None:
    """The wire, device or own load in hand."""
    systems, chosen = session.build.systems, set(session.selection)
    everything: tuple[Wire | Device | Load, ...] = (*systems.wires, *systems.devices, *systems.loads)
    return next((one for one in everything if one.id in chosen), None)


def rows_of(session: Session, one: Wire | Device | Load) -> list[Row]:
    if isinstance(one, Wire):
        return _wire_rows(session, one)
    return _device_rows(session, one) if isinstance(one, Device) else _load_rows(one)


def name_of(session: Session, one: Wire | Device | Load) -> str:
    return f"Wire {one.id.lstrip('abcdefghijklmnopqrstuvwxyz')}" if isinstance(one, Wire) else one.name


def _wire_rows(session: Session, wire: Wire) -> list[Row]:
    path = f"systems.wires.{wire.id}"

    def is_laid(build: Any) -> bool:
        now = next((w for w in build.systems.wires if w.id == wire.id), None)
        return now is not None and now.kind != "earth"

    def bent(build: Any) -> bool:
        now = next((w for w in build.systems.wires if w.id == wire.id), None)
        return now is not None and bool(now.bends)

    def linked(build: Any) -> bool:
        batteries = {t.id for t in build.stow.things if t.figures is not None and t.figures.unit == "battery"}
        now = next((w for w in build.systems.wires if w.id == wire.id), None)
        return now is not None and {now.start, now.end} <= batteries

    def positive(field: str) -> Callable[[Any], list[Op]]:
        def ops(value: Any) -> list[Op]:
            if value is not None and value <= 0:
                raise EntryError(f"{value:g} is none; more than 0 would be right, or nothing to have it worked out.")
            return [set_to(f"{path}.{field}", value)]

        return ops

    def bundle(value: Any) -> list[Op]:
        return [set_to(f"{path}.bundle", max(value or 1, 1))]

    return [
        Row("Carries", f"{path}.kind", KINDS, "What runs in it; earths carry nothing but faults"),
        Row("Amps", f"{path}.amps", NUMBER, "Worked out from all that runs behind it where it is left empty", when=is_laid, ops=positive("amps")),
        Row("Measured", f"{path}.length", Length, "One way, by tape; its route where it is left empty", 0.01),
        Row("Copper, mm²", f"{path}.area_mm2", NUMBER, "Worked out where it is left empty", ops=positive("area_mm2")),
        Row("Class", f"{path}.insulation", CLASSES, "As printed on the wire; mains stays on the cautious class", when=is_laid),
        Row("May lose", f"{path}.drop", DROPS, "Of its volts; 3 % for what matters, 10 % for lamps", when=is_laid),
        Row("Fuse", f"{path}.fused", FUSED, "At each end that a battery can feed", when=is_laid),
        Row("Fuse, A", f"{path}.fuse_a", NUMBER, "Worked out where it is left empty", when=is_laid, ops=positive("fuse_a")),
        Row("It sits at", f"{path}.fuse_from", Length, "How far along the wire, from the end it guards", when=is_laid),
        Row("In a bundle of", f"{path}.bundle", int, "How many loaded ones lie together: from four on each carries less", when=is_laid, ops=bundle),
        Row("In foam for", f"{path}.in_foam", Length, "Wholly in insulation over so much: it carries less", when=is_laid),
        Row("Near an engine", f"{path}.near_engine", bool, "In its warmth a wire carries less", when=is_laid),
        Row("A switch of its own", f"{path}.switched", bool, "Pumps want one", when=is_laid),
        Row("Plus and minus at far ends", f"{path}.far_minus", bool, "Of a row of batteries: plus from one end, minus from the other", when=linked),
        Row("Colours", f"{path}.colour", str, "As you lay it; by the practice where it is left empty"),
        Row("Lay it by itself again", f"{path}.bends", VERB, "Its bends go", when=bent, ops=lambda _: [set_to(f"{path}.bends", [])]),
    ]  # fmt: skip


def _device_rows(session: Session, device: Device) -> list[Row]:
    path = f"systems.devices.{device.id}"
    rows = [
        Row("Name", f"{path}.name", str, empty=False),
        Row("Station", f"{path}.x", Length, "From the ball", least=None, empty=False),
        Row("Side", f"{path}.y", Length, "Right of the middle; left is negative", least=None, empty=False),
        Row("Height", f"{path}.z", Length, "Over the ground", empty=False),
        Row("Good for, A", f"{path}.rating_a", NUMBER, "What stands on it"),
    ]
    if device.kind in ("switch", "main switch"):
        rows.append(
            Row(
                "Parts",
                f"{path}.breaks",
                BREAKS,
                "Which wires it opens; a switch in the minus leaves plus on what is off",
            )
        )
    if device.kind in ("AC board", "transfer switch", "inlet"):

        def bond(value: Any) -> list[Op]:
            bonds = [b for b in session.build.systems.bonds if b != device.id]
            return [set_to("systems.bonds", [*bonds, device.id] if value else bonds)]

        rows.append(
            Row(
                "Neutral and earth joined here",
                "systems.bonds",
                bool,
                "At one place only, at the source that makes the mains",
                ops=bond,
                read=lambda build: device.id in build.systems.bonds,
            )
        )
    return rows


def _load_rows(load: Load) -> list[Row]:
    path = f"systems.loads.{load.id}"

    def hours(value: Any) -> list[Op]:
        if value is not None and value > 24:
            raise EntryError(f"{value:g} hours are more than a day has; 0 to 24 would be right.")
        return [set_to(f"{path}.hours_day", value)]

    return [
        Row("Name", f"{path}.name", str, empty=False),
        Row("Runs on", f"{path}.current", CURRENTS, "What its plug wants"),
        Row("Watts", f"{path}.power_w", NUMBER, "While it runs"),
        Row("or amps", f"{path}.amps", NUMBER, "At its volts; counts where no watts are said"),
        Row("Hours a day", f"{path}.hours_day", NUMBER, "0 to 24", ops=hours),
        Row("Duty", f"{path}.duty", float, "Of its hours that it really draws", ops=lambda v: [set_to(f"{path}.duty", 1.0 if v is None else v)]),
        Row("Starts with", f"{path}.surge", NUMBER, "Times what it runs on"),
        Row("Runs", f"{path}.when", WHENS, "By day is 8 to 20 by the sun"),
        Row("Must run", f"{path}.must_run", bool, "It has a reserve of its own in the battery"),
        Row("Station", f"{path}.x", Length, "Where its wire ends, from the ball", least=None),
        Row("Side", f"{path}.y", Length, "Right of the middle; left is negative", least=None),
        Row("Height", f"{path}.z", Length, "Over the ground"),
        Row("Take this load off", path, VERB, "It goes, and its wire with it", ops=lambda _: [remove(path)]),
    ]  # fmt: skip


def note_of(session: Session, one: Wire | Device | Load) -> str:
    """What a wire came to, with its limit; what a load takes a day."""
    words = Words(session.shown)
    if isinstance(one, Load):
        if one.x is None or one.y is None or one.z is None:
            return "Its place is not said: its wire is taken to end near the fuse box."
        return "What runs and is no thing of Stow."
    if isinstance(one, Device):
        return "Drag it on the Wires view; it takes its wires along when it is taken off."
    s = session.studied
    laid = wired_of(s.build, s.framed).wire(one.id)
    if laid is None:
        return ""
    ends = wired_of(s.build, s.framed).net.ends
    told = [
        f"{ends[one.start].name} to {lower_first(ends[one.end].name)}, {'about ' if laid.length_face == 'guessed' else ''}{words.m(laid.length_m)} one way ({laid.length_face})."
    ]
    if laid.kind == "earth":
        return " ".join([*told, f"{laid.gauge}."])
    if laid.current_a is None:
        return " ".join([*told, f"Not sized: {laid.why}."])
    if laid.mm2 is None:
        return " ".join([*told, f"{laid.current_a:.1f} A; {laid.why}."])
    carries = f" of {laid.ampacity_a:.0f} A it may carry" if laid.ampacity_a is not None else ""
    drop = f", loses {laid.drop_share * 100:.1f} % of {laid.allowed * 100:.0f} %" if laid.drop_share is not None else ""
    fuse = (
        f" Fuse {laid.fuse_a:g} A."
        if laid.fuse_a is not None
        else f" Guarded by {laid.guard_a:g} A before it."
        if laid.guard_a is not None
        else ""
    )
    told.append(f"{laid.gauge}: {laid.current_a:.1f} A{carries}{drop}.{fuse} {laid.colour}.")
    return " ".join(told)
