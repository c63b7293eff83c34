"""In hand: the rows of a wire, a device, a load of its own, and what they come to."""

from __future__ import annotations

from typing import Any

from uncle_sled.core.document.edits import Op, remove, set_to
from uncle_sled.core.document.systems import Device, Load, Wire
from uncle_sled.core.wiring.wired import wired_of
from uncle_sled.core.words import Words, lower_first
from uncle_sled.desk.kit.form import VERB, Row, plain
from uncle_sled.desk.session import Session

DROPS: list[tuple[object, str]] = [(None, "3 %"), (0.03, "3 % (said)"), (0.05, "5 %"), (0.10, "10 %")]


def found(session: Session) -> Wire | Device | Load | None:
    """The wire, device or own load in hand."""
    systems, chosen = session.build.systems, set(session.selection)
    everything: tuple[Wire | Device | Load, ...] = (*systems.wires, *systems.devices, *systems.loads)
    return next((part for part in everything if part.id in chosen), None)


def rows_of(session: Session, part: Wire | Device | Load) -> list[Row]:
    if isinstance(part, Wire):
        return _wire_rows(session, part)
    return _device_rows(session, part) if isinstance(part, Device) else _load_rows(part)


def name_of(_session: Session, part: Wire | Device | Load) -> str:
    return f"Wire {part.id.lstrip('abcdefghijklmnopqrstuvwxyz')}" if isinstance(part, Wire) else part.name


def _wire_rows(_session: Session, wire: Wire) -> list[Row]:
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

    return [
        Row(f"{path}.kind"),
        Row(f"{path}.amps", when=is_laid),
        *plain(path, "length area_mm2"),
        Row(f"{path}.insulation", when=is_laid),
        Row(f"{path}.drop", kind=DROPS, when=is_laid),
        *plain(path, "fused fuse_a fuse_from bundle in_foam near_engine switched", when=is_laid),
        Row(f"{path}.far_minus", when=linked),
        Row(f"{path}.colour"),
        Row(
            f"{path}.bends",
            title="Lay it by itself again",
            kind=VERB,
            tip="Its bends go",
            when=bent,
            ops=lambda _: [set_to(f"{path}.bends", [])],
        ),
    ]


def _device_rows(session: Session, device: Device) -> list[Row]:
    path = f"systems.devices.{device.id}"
    rows = plain(path, "name x y z rating_a")
    if device.kind in ("switch", "main switch"):
        rows.append(Row(f"{path}.breaks"))
    if device.kind in ("AC board", "transfer switch", "inlet"):

        def bond(value: Any) -> list[Op]:
            bonds = [b for b in session.build.systems.bonds if b != device.id]
            return [set_to("systems.bonds", [*bonds, device.id] if value else bonds)]

        rows.append(
            Row(
                "systems.bonds",
                title="Neutral and earth joined here",
                kind=bool,
                tip="At one place only, at the source that makes the mains",
                ops=bond,
                read=lambda build: device.id in build.systems.bonds,
            )
        )
    return rows


def _load_rows(load: Load) -> list[Row]:
    path = f"systems.loads.{load.id}"

    def has_its_own(build: Any) -> bool:
        return any(each.id == load.id and each.store_wh is not None for each in build.systems.loads)

    return [
        *plain(path, "name current power_w amps hours_day duty surge when must_run store_wh"),
        *plain(path, "charge_w filled", when=has_its_own),
        *plain(path, "x y z"),
        Row(path, title="Take this load off", kind=VERB, tip="It goes, and its wire with it", ops=lambda _: [remove(path)]),
    ]


def note_of(session: Session, part: Wire | Device | Load) -> str:
    """What a wire came to, with its limit; what a load takes a day."""
    words = Words(session.shown)
    if isinstance(part, Load):
        if part.x is None or part.y is None or part.z is None:
            return "Its place is not said: its wire is taken to end near the fuse box."
        return "What runs and is no thing of Stow."
    if isinstance(part, Device):
        return "Drag it on the Wires view; it takes its wires along when it is taken off."
    s = session.studied
    laid = wired_of(s.build, s.framed).wire(part.id)
    if laid is None:
        return ""
    ends = wired_of(s.build, s.framed).net.ends
    told = [
        f"{ends[part.start].name} to {lower_first(ends[part.end].name)}, {'about ' if laid.length_face == 'guessed' else ''}{words.m(laid.length_m)} one way ({laid.length_face})."
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
        f" Fuse {laid.fuse_words}."
        if laid.fuse_a is not None
        else f" Guarded by {laid.guard_a:g} A before it."
        if laid.guard_a is not None
        else ""
    )
    told.append(f"{laid.gauge}: {laid.current_a:.1f} A{carries}{drop}.{fuse} {laid.colour}.")
    return " ".join(told)
