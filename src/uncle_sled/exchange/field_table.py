"""Every field of the .sled file as a table for the docs: where it stands, what it is, in what it is kept, what it lets in."""

from __future__ import annotations

from typing import Any, get_args, get_origin

import msgspec

from uncle_sled.core.document.bounds import bare, fields_of, inner_fields
from uncle_sled.core.document.field import Field, field_of
from uncle_sled.core.document.project import Project
from uncle_sled.core.document.quantity import Quantity
from uncle_sled.core.measures import plain_unit
from uncle_sled.core.units import Shown, in_units

SI = {"length": "m", "mass": "kg", "volume": "m³", "temperature": "°C", "stiffness": "N/m"}
NO_END = 1e9  # a limit that only keeps numbers finite


def models() -> tuple[Any, ...]:
    """Every model that a file holds, as they are met from the project down."""
    found: dict[Any, None] = {}

    def look(kind: Any) -> None:
        if kind in found:
            return
        found[kind] = None
        for _, what, model in inner_fields(kind):
            if what in ("model", "list") and model is not None and not issubclass(model, Quantity):
                look(model)

    look(Project)
    return tuple(found)


def field_table() -> str:
    """The table in Markdown, a heading for each model."""
    lines: list[str] = []
    for model in models():
        lines += [f"### {model.__name__}", "", "| Field | What it is | Kept as | Usual |", "|---|---|---|---|"]
        for info in fields_of(model):
            if info.name != "unknown":
                one = field_of(model, info.name)
                lines.append(f"| `{one.name}` | {_what(one)} | {_kept(one)} | {_usual(one)} |")
        lines.append("")
    return "\n".join(lines)


def _what(one: Field) -> str:
    if not one.described:
        return ""
    tip = in_units(one.about.tip, Shown())
    return f"{one.about.title}. {tip}".replace("|", "\\|") if tip else one.about.title


def _kept(one: Field) -> str:
    kind = one.kind
    if get_origin(kind) is tuple:
        of = bare(get_args(kind)[0])
        return f"list of {getattr(of, '__name__', of)}"
    if one.quantity is not None:
        return f"{one.quantity.dimension}, {SI[one.quantity.dimension]}"
    if one.choices:
        return ", ".join(str(value) or "(empty)" for value, _ in one.choices)
    if isinstance(kind, type) and issubclass(kind, msgspec.Struct):
        return kind.__name__
    unit = "share" if one.is_share else plain_unit(one.about.unit)
    name = {float: unit or "number", int: unit or "whole number", bool: "yes or no", str: "words"}.get(kind, str(kind))
    low, high = one.about.least if one.about.least is not None else one.low, one.most
    if kind not in (int, float) or low is None:
        return name
    return f"{name}, {low:g} or more" if high is None or high >= NO_END else f"{name}, {low:g} to {high:g}"


def _usual(one: Field) -> str:
    if one.usual is msgspec.NODEFAULT:
        return "must be there"
    if one.usual is None:
        blank = one.blank_text(Shown()) if one.described else ""
        return f"nothing ({blank})" if blank else "nothing"
    if isinstance(one.usual, bool | int | float | str | Quantity):
        return one.text(one.usual, Shown()) or "(empty)"
    return ""
