"""One line of a catalogue of things, from a table and back into one. Headings carry their unit: length_mm, mass_lb."""

from __future__ import annotations

import math
import re
from typing import Any, get_args

import msgspec

from uncle_sled.core import units
from uncle_sled.core.document.bounds import STRANGE, beyond, fields_of
from uncle_sled.core.document.field import Field, field_of
from uncle_sled.core.document.quantity import Length, Mass, Volume
from uncle_sled.core.document.roles import FIGURES_DRAWN, ROLES, Role, at_odds
from uncle_sled.core.document.stow import Clear, Figures, Side, State, Tank, Thing
from uncle_sled.core.errors import EntryError

FIELDS = tuple(field_of(Figures, field.name) for field in fields_of(Figures))
FIGURES = tuple(field.name for field in FIELDS if field.kind is float)  # numbers, in the unit that their name ends on
# One of a few words, with what stands where nothing is said.
WORDS = {field.name: str(field.usual) for field in FIELDS if field.choices}
TICKS = tuple(field.name for field in FIELDS if field.kind is bool)
COLUMNS = (
    "id",
    "name",
    "kind",
    "length_mm",
    "width_mm",
    "height_mm",
    "mass_kg",
    "source",
    "contents",
    "volume_l",
    "shape",
    "axis",
    "carried",
    "outside",
    "cargo",
    "roles",
    "places",
    "arrival",
    *FIGURES,
    "clear",
    "states",
    "burns",
    "room_sealed",
    "flued",
    "vents_gas",
    "fumes",
    "near",
    "figure",
    *WORDS,
    *TICKS,
)
NEEDED = ("name", "length", "width", "height", "mass")
MEASURED = {"length": "length", "width": "length", "height": "length", "mass": "mass", "volume": "volume"}
BARE = {"length": "mm", "mass": "kg", "volume": "l"}
YES = {"yes", "y", "true", "1", "x", "ja", "oui"}
MOST = {"length": 15.0, "width": 15.0, "height": 15.0, "mass": 20_000.0, "volume": 10.0}
# What a spreadsheet takes for the beginning of a formula, or passes over before one.
RUN = ("=", "+", "-", "@", "\t", "＝", "＋", "－", "＠")


def _allowed(model: Any, field: str) -> tuple[str, ...]:
    """What a field may be, as its model has it."""
    return tuple(str(value) for value, _ in field_of(model, field).choices)


def heading(word: str) -> tuple[str, str]:
    """A heading as its field and the unit it names, if any. Raises: EntryError: a unit that is none of the field's."""
    name, _, unit = word.strip().lower().replace(" ", "_").rpartition("_")
    if name in MEASURED:
        try:
            units.parse("1", MEASURED[name], unit)  # type: ignore[arg-type]
        except EntryError:
            like = {"length": "mm, cm, m, in or ft", "mass": "kg or lb", "volume": "l or gal"}[MEASURED[name]]
            raise EntryError(f"“{word}” has no unit that fits; {like} would be right.") from None
        return name, unit
    whole = word.strip().lower().replace(" ", "_")
    return whole, BARE.get(MEASURED.get(whole, ""), "")


def thing_of(line: dict[str, str], bare: dict[str, str]) -> Thing:
    """A thing at no place yet. Args: line: cells by field; bare: the unit of bare numbers by field.

    Raises: EntryError: names the column and what would be right.
    """
    line = {field: from_text(STRANGE.sub(" ", cell)) for field, cell in line.items()}
    name = line.get("name", "").strip()
    if not name:
        raise EntryError("name: it is empty; what is it called?")
    sizes = {field: _measure(line, field, bare) for field in MEASURED}
    for field in ("length", "width", "height", "mass"):
        if sizes[field] is None:
            raise EntryError(f"{field}: it is empty; a number would be right.")
    kind = _one_of(line, "kind", _allowed(Thing, "kind"), "gear")
    contents = _one_of(line, "contents", ("", *_allowed(Tank, "contents")), "")
    shape = _one_of(line, "shape", ("", *_allowed(Tank, "shape")), "") or "box"
    tank = None
    if contents:
        volume = sizes["volume"]
        axis = _one_of(line, "axis", ("", *_allowed(Tank, "axis")), "") or "along"
        made = "box" if shape == "outline" else shape
        tank = Tank(Volume(volume) if volume else None, contents, made, axis)  # type: ignore[arg-type]
        tank = msgspec.structs.replace(tank, carried=_yes(line, "carried"))
    figures = _figures(line)
    thing = Thing(
        line.get("id", "").strip() or "t0",
        name[:120],
        kind=kind,  # type: ignore[arg-type]
        length=Length(sizes["length"] or 0.0),
        width=Length(sizes["width"] or 0.0),
        height=Length(sizes["height"] or 0.0),
        x=Length(0.0),
        y=Length(0.0),
        z=Length(0.0),
        mass=Mass(sizes["mass"] or 0.0),
        source=_one_of(line, "source", _allowed(Thing, "source"), "estimated"),  # type: ignore[arg-type]
        tank=tank,
        cargo=_yes(line, "cargo"),
        outside=_yes(line, "outside"),
        roles=_roles(line),
        places=_count(line, "places"),
        arrival=_yes(line, "arrival"),
        figures=figures if figures != Figures() else None,
        clear=clears_of(line.get("clear", "")),
        states=states_of(line.get("states", "")),
        burns=_one_of(line, "burns", ("", *_allowed(Thing, "burns")), "") or "none",  # type: ignore[arg-type]
        room_sealed=_yes(line, "room_sealed"),
        flued=_yes(line, "flued"),
        vents_gas=_yes(line, "vents_gas"),
        fumes=_yes(line, "fumes"),
        near=_one_of(line, "near", _allowed(Thing, "near"), ""),  # type: ignore[arg-type]
        figure=_one_of(line, "figure", ("", *FIGURES_DRAWN), ""),
    )
    return _within(thing)


def _roles(line: dict[str, str]) -> tuple[Role, ...]:
    """What it does, parted by semicolons; ``role`` is what the column was called before. Raises: EntryError."""
    told = [one.strip() for one in f"{line.get('roles', '')};{line.get('role', '')}".split(";") if one.strip()]
    by_word = {role.lower(): role for role in ROLES}
    strange = next((one for one in told if one.lower() not in by_word), None)
    if strange is not None:
        raise EntryError(f"roles: nobody knows “{strange[:40]}”; {', '.join(ROLES)} would be right.")
    made = tuple(dict.fromkeys(by_word[one.lower()] for one in told))
    if (odds := at_odds(made)) is not None:
        raise EntryError(f"roles: no thing both “{odds[0]}” and “{odds[1]}”; keep one of them.")
    return made


def _figures(line: dict[str, str]) -> Figures:
    told: dict[str, Any] = {field.name: _figure(line, field) for field in FIELDS if field.kind is float}
    for field, usual in WORDS.items():
        told[field] = _one_of(line, field, _allowed(Figures, field), usual)
    told |= {field: _yes(line, field) for field in TICKS}
    return Figures(**told)


def _within(thing: Thing) -> Thing:
    """The thing, if a build can hold it: what is saved must open again. Raises: EntryError."""
    try:
        made = msgspec.convert(msgspec.to_builtins(thing), Thing, strict=True)
    except msgspec.ValidationError as fault:
        where = str(fault).rpartition("$.")[2].rstrip("`").partition(".")[0].partition("[")[0]
        raise EntryError(f"{where}: it holds a number that no thing has; is the unit right?") from None
    for says in beyond(made):
        raise EntryError(says)
    return made


def line_of(thing: Thing) -> dict[str, str]:
    """The line of a thing, in millimetres, kilograms and litres."""
    tank, figures = thing.tank, thing.figures or Figures()
    made: dict[str, Any] = {
        "id": thing.id,
        "name": thing.name,
        "kind": thing.kind,
        "length_mm": _mm(thing.length.si),
        "width_mm": _mm(thing.width.si),
        "height_mm": _mm(thing.height.si),
        "mass_kg": f"{thing.mass.si:.6g}",
        "source": thing.source,
        "contents": tank.contents if tank else "",
        "volume_l": f"{tank.volume.si * 1000:.6g}" if tank and tank.volume else "",
        "shape": tank.shape if tank and tank.shape != "outline" else "",
        "axis": tank.axis if tank and tank.shape == "cylinder" else "",
        "carried": "yes" if tank and tank.carried else "",
        "outside": "yes" if thing.outside else "",
        "cargo": "yes" if thing.cargo else "",
        "roles": "; ".join(thing.roles),
        "places": str(thing.places) if thing.places else "",
        "arrival": "yes" if thing.arrival else "",
        "clear": clears_words(thing.clear),
        "states": states_words(thing.states),
        "burns": thing.burns if thing.burns != "none" else "",
        "room_sealed": "yes" if thing.room_sealed else "",
        "flued": "yes" if thing.flued else "",
        "vents_gas": "yes" if thing.vents_gas else "",
        "fumes": "yes" if thing.fumes else "",
        "near": thing.near,
        "figure": thing.figure,
    }
    for field in FIGURES:
        value = getattr(figures, field)
        made[field] = "" if value is None else f"{value:g}"
    for field, usual in WORDS.items():
        made[field] = "" if getattr(figures, field) == usual else getattr(figures, field)
    made |= {field: "yes" if getattr(figures, field) else "" for field in TICKS}
    return made


def _mm(metres: float) -> str:
    return f"{metres * 1000:.6g}"


def clears_words(clears: tuple[Clear, ...]) -> str:
    """Rooms beside a thing as they are typed."""
    return ";".join(f"{c.kind}:{c.side}:{_mm(c.deep.si)}" for c in clears)


def states_words(states: tuple[State, ...]) -> str:
    """Other forms of a thing as they are typed."""
    return ";".join(_state_words(state) for state in states)


def _state_words(state: State) -> str:
    size = "x".join(_mm(side.si) for side in (state.length, state.width, state.height))
    off = ",".join(_mm(d.si if d else 0.0) for d in (state.dx, state.dy, state.dz))
    return f"{state.name}|{size}|{off}"


def _measure(line: dict[str, str], field: str, bare: dict[str, str]) -> float | None:
    text = line.get(field, "").strip()
    if not text:
        return None
    try:
        value = units.parse(text, MEASURED[field], bare.get(field, BARE[MEASURED[field]]))  # type: ignore[arg-type]
    except EntryError as fault:
        raise EntryError(f"{field}: {fault}") from None
    if not math.isfinite(value) or value < 0:
        raise EntryError(f"{field}: “{text}” is less than nothing; 0 or more would be right.")
    if value > MOST[field]:
        raise EntryError(f"{field}: “{text}” is more than any thing has; is the unit right?")
    return value


def _one_of(line: dict[str, str], field: str, allowed: tuple[str, ...], usual: str) -> str:
    text = line.get(field, "").strip().lower().replace("data sheet", "data_sheet")
    if not text:
        return usual
    found = next((word for word in allowed if word.lower() == text), None)
    if found is None:
        raise EntryError(f"{field}: “{text}” is none of {', '.join(word for word in allowed if word)}.")
    return found


def _yes(line: dict[str, str], field: str) -> bool:
    return line.get(field, "").strip().lower() in YES


def _count(line: dict[str, str], field: str) -> int:
    text = line.get(field, "").strip()
    if text and not re.fullmatch(r"[0-9]{1,4}", text):
        raise EntryError(f"{field}: “{text}” is no whole number.")
    return min(int(text or 0), 99)


def _figure(line: dict[str, str], field: Field) -> float | None:
    """A number in the unit that its column's name ends on, within what its field lets in."""
    text = line.get(field.name, "").strip().replace(",", ".").replace("−", "-")
    if not text:
        return None
    try:
        value = float(text)
    except ValueError:
        value = math.nan
    low, high = field.low or 0.0, field.most
    if not math.isfinite(value) or value < low or (high is not None and value > high):
        right = f"{low:g} or more" if high is None or high >= 1e9 else f"{low:g} to {high:g}"
        raise EntryError(f"{field.name}: “{text}” is no number; {right} would be right.")
    return value


def clears_of(text: str) -> tuple[Clear, ...]:
    """Rooms beside a thing: kind:side:depth in mm, parted by semicolons."""
    made = []
    for at, part in enumerate(word for word in text.split(";") if word.strip()):
        bits = [bit.strip() for bit in part.split(":")]
        try:
            kind, side, deep = bits
            record = {"id": f"c{at + 1}", "kind": kind, "side": side, "deep": {"si": float(deep) / 1000}}
            made.append(msgspec.convert(record, Clear))
        except (ValueError, msgspec.ValidationError):
            sides = ", ".join(get_args(Side))
            raise EntryError(f"clear: “{part.strip()}” cannot be read; door:front:450 would be right, with a side of {sides}.") from None
    return tuple(made)


def states_of(text: str) -> tuple[State, ...]:
    """Other forms: name|length x width x height|dx,dy,dz in mm, parted by semicolons."""
    made = []
    for at, part in enumerate(word for word in text.split(";") if word.strip()):
        try:
            name, size, shift = part.split("|")
            long, wide, high = (float(v) / 1000 for v in size.split("x"))
            dx, dy, dz = (float(v) / 1000 for v in shift.split(","))
        except ValueError:
            raise EntryError(f"states: “{part.strip()}” cannot be read; folded|1900x120x700|0,300,0 would be right.") from None
        off = [Length(d) if d else None for d in (dx, dy, dz)]
        made.append(
            State(f"s{at + 1}", name.strip(), length=Length(long), width=Length(wide), height=Length(high), dx=off[0], dy=off[1], dz=off[2])
        )
    return tuple(made)


def csv_text(things: tuple[Thing, ...]) -> str:
    """Things as a table that can be read back, in millimetres, kilograms and litres."""
    lines = [line_of(thing) for thing in things]
    rows = [COLUMNS, *(tuple(line[column] for column in COLUMNS) for line in lines)]
    return "".join(",".join(_cell(cell) for cell in row) + "\n" for row in rows)


def _cell(text: str) -> str:
    text = as_text(text)
    return '"' + text.replace('"', '""') + '"' if any(sign in text for sign in ',"\r\n;') else text


def as_text(cell: str) -> str:
    """A cell that a spreadsheet shows and does not run: one that begins like a formula gets a mark before it."""
    cell = cell.replace("\r", " ")  # a reader takes it for the end of the line
    return f"'{cell}" if cell.lstrip()[:1] in RUN and cell.strip() else cell


def from_text(cell: str) -> str:
    """A cell without the mark that ``as_text`` gave it."""
    return cell[1:] if cell[:1] == "'" and cell[1:].lstrip()[:1] in RUN and cell[1:].strip() else cell
