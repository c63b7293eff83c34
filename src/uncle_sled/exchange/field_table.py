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
                field = field_of(model, info.name)
                lines.append(f"| `{field.name}` | {_what(field)} | {_kept(field)} | {_usual(field)} |")
        lines.append("")
    return "\n".join(lines)


def _what(field: Field) -> str:
    if not field.described:
        return ""
    tip = in_units(field.about.tip, Shown())
    return f"{field.about.title}. {tip}".replace("|", "\\|") if tip else field.about.title


def _kept(field: Field) -> str:
    kind = field.kind
    if get_origin(kind) is tuple:
        of = bare(get_args(kind)[0])
        return f"list of {getattr(of, '__name__', of)}"
    if field.quantity is not None:
        return f"{field.quantity.dimension}, {SI[field.quantity.dimension]}"
    if field.choices:
        return ", ".join(str(value) or "(empty)" for value, _ in field.choices)
    if isinstance(kind, type) and issubclass(kind, msgspec.Struct):
        return kind.__name__
    unit = "share" if field.is_share else plain_unit(field.about.unit)
    name = {float: unit or "number", int: unit or "whole number", bool: "yes or no", str: "words"}.get(kind, str(kind))
    low, high = field.about.least if field.about.least is not None else field.low, field.most
    if kind not in (int, float) or low is None:
        return name
    return f"{name}, {low:g} or more" if high is None or high >= NO_END else f"{name}, {low:g} to {high:g}"


def _usual(field: Field) -> str:
    if field.usual is msgspec.NODEFAULT:
        return "must be there"
    if field.usual is None:
        blank = field.blank_text(Shown()) if field.described else ""
        return f"nothing ({blank})" if blank else "nothing"
    if isinstance(field.usual, bool | int | float | str | Quantity):
        return field.text(field.usual, Shown()) or "(empty)"
    return ""
