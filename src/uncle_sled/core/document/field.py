"""What a field is, said once at the field: its words, what it is measured in, what a hand may type, what stands where it is empty.

    wheelbase: Annotated[Length | None, about("Wheelbase", "Front wheel's middle to rear wheel's middle")] = None

Forms, tips, readers, tables, the schema and the file format's pages read it from there.
"""

from __future__ import annotations

import math
from functools import cache, lru_cache
from typing import Annotated, Any, Literal, NamedTuple, Union, get_args, get_origin

import msgspec

from uncle_sled.core.document.bounds import PLACES, RATINGS, bare, fields_of
from uncle_sled.core.document.quantity import Quantity
from uncle_sled.core.errors import EditError, EntryError
from uncle_sled.core.measures import KEPT, MEASURES, SIGNS, dimension_of
from uncle_sled.core.units import Shown, in_units, kept_text, read_kept

UNKNOWN = "not known"
SOME = 1e-9  # more than nothing: a limit of 0 is none
Choices = tuple[tuple[object, str], ...]


class About(msgspec.Struct, frozen=True):
    """What one field is.

    ``unit``: in what a plain figure is kept, "%" for a share; ``least``: what a hand may type at the least [SI, or as kept];
    ``most``: at the most; ``blank``: what stands for it where it is empty; ``words``: of choices that do not say it themselves
    (an empty one is "not said"); ``thin``: read in small units. In a tip ``{12 mm}`` is told in the build's units.
    """

    title: str
    tip: str = ""
    unit: str = ""
    least: float | None = None
    most: float | None = None
    blank: str | Quantity = UNKNOWN
    words: dict[object, str] = {}
    thin: bool = False
    said: bool = False  # at the field; else it has its name and nothing more


def about(
    title: str,
    tip: str = "",
    *,
    unit: str = "",
    least: float | None = None,
    most: float | None = None,
    blank: str | Quantity = UNKNOWN,
    words: dict[Any, str] | None = None,
    thin: bool = False,
) -> msgspec.Meta:
    """What stands at a field: title and tip go into the file's schema, all of it to ``field_of``."""
    said = About(title, tip, unit=unit, least=least, most=most, blank=blank, words=words or {}, thin=thin, said=True)
    return msgspec.Meta(title=title, description=in_units(tip, Shown()) or None, extra={"about": said})


class Field(NamedTuple):
    """A field of a model: ``kind`` is its bare type; ``low``, ``high`` what the model lets in; ``usual`` its default."""

    model: Any
    name: str
    kind: Any
    may_be_empty: bool
    usual: Any
    low: float | None
    high: float | None
    about: About

    @property
    def choices(self) -> Choices:
        """Of a field that is one of a few: each with its words."""
        if get_origin(self.kind) is not Literal:
            return ()
        said = {"": "not said", **self.about.words}
        return tuple((choice, said.get(choice, str(choice))) for choice in get_args(self.kind))

    @property
    def most(self) -> float | None:
        """What a hand may type at the most, of a plain figure."""
        return self.about.most if self.about.most is not None else self.high

    @property
    def quantity(self) -> type[Quantity] | None:
        """The measure that it is kept as; None of a plain figure, a word or a choice."""
        return self.kind if isinstance(self.kind, type) and issubclass(self.kind, Quantity) else None

    @property
    def least(self) -> float | None:
        """What a hand may type at the least; None: anything."""
        if self.about.least is not None:
            return self.about.least
        if self.name in RATINGS:
            return SOME
        if self.quantity is not None:
            return None if self.name in PLACES or self.quantity.dimension == "temperature" else 0.0
        return self.low

    def text(self, value: Any, shown: Shown) -> str:
        """A value as its form shows it; "" for nothing."""
        if value is None:
            return ""
        if isinstance(value, Quantity):
            return value.text(self._read_in(shown))
        if isinstance(value, bool):
            return "yes" if value else "no"
        if isinstance(value, int | float) and not self.choices:
            return kept_text(*((value * 100, "%") if self.is_share else (value, self.about.unit)), self._read_in(shown))
        return dict(self.choices).get(value, str(value))

    def _read_in(self, shown: Shown) -> Shown:
        return shown.thin if self.about.thin or self.about.unit == "mm" else shown

    def bare_unit(self, shown: Shown) -> str:
        """The unit that a bare number is in; "" for a number without one."""
        if self.quantity is not None:
            return self._read_in(shown).unit(self.quantity.dimension)
        if self.is_share:
            return "%"
        dimension = dimension_of(self.about.unit)
        unit = self._read_in(shown).unit(dimension) if dimension is not None else self.about.unit
        return SIGNS.get(unit, unit)

    def blank_text(self, shown: Shown) -> str:
        """What an empty field stands for, in words."""
        blank = self.about.blank
        return blank.text(self._read_in(shown)) if isinstance(blank, Quantity) else in_units(blank, shown)

    def stepped(self, value: Any, times: float, shown: Shown) -> Any:
        """A value some presses of an arrow key up or down, no further than a hand may type."""
        dimension = self.quantity.dimension if self.quantity is not None else dimension_of(self.about.unit)
        per = 1.0 if self.quantity is not None or dimension is None else KEPT[self.about.unit][1]
        by = 0.01 if self.is_share else MEASURES[dimension].steps[shown.imperial] / per if dimension is not None else 1.0
        if self.kind is int:
            by, times = 1.0, math.copysign(max(abs(times), 1.0), times)
        now = value.si if isinstance(value, Quantity) else value or 0.0
        after = now + by * times
        after = after if self.least is None else max(after, self.least)
        after = after if self.most is None else min(after, self.most)
        return self.quantity(round(after, 9)) if self.quantity is not None else self.kind(round(after, 9))

    @property
    def described(self) -> bool:
        """Whether its model says what it is."""
        return self.about.said

    @property
    def is_share(self) -> bool:
        """Whether it is a share from 0 to 1, which people type in per cent."""
        return self.kind is float and (self.low, self.high) == (0.0, 1.0)

    def read(self, text: str, shown: Shown) -> Any:
        """What was typed for it; its usual value for nothing. Raises: EntryError: names the field and what would be right."""
        if not text.strip():
            if self.may_be_empty:
                return None
            if self.usual is msgspec.NODEFAULT:
                raise EntryError(f"{self.about.title} cannot be empty.")
            return self.usual
        try:
            value: Any = (
                self.quantity.read(text, self._read_in(shown))
                if self.quantity is not None
                else read_kept(text, "%" if self.is_share else self.about.unit, self._read_in(shown))
            )
        except EntryError as fault:
            raise EntryError(f"{self.about.title}: {fault}") from None
        if self.kind is int:
            if value != int(value):
                raise EntryError(f"{self.about.title}: “{text}” is no whole number; {round(value)} would be right.")
            value = int(value)
        return self._fits(value / 100 if self.is_share else value, text)

    def _fits(self, value: Any, text: str) -> Any:
        si, least = value.si if isinstance(value, Quantity) else value, self.least
        if least is not None and si < least:
            raise EntryError(
                f"{self.about.title}: “{text}” is less than nothing; 0 or more would be right."
                if least == 0
                else f"{self.about.title}: “{text}” is too little; {self._bound(least)} or more would be right."
                if least > SOME and not isinstance(value, Quantity)
                else f"{self.about.title}: “{text}” is none; more than 0 would be right, or nothing where it is not known."
            )
        if self.most is not None and si > self.most and not isinstance(value, Quantity):
            low = self._bound(least or 0.0)
            raise EntryError(f"{self.about.title}: “{text}” is too much; {low} to {self._bound(self.most)} would be right.")
        return value

    def _bound(self, value: float) -> str:
        return f"{value * 100:g} %" if self.is_share else f"{value:g}"


@cache
def field_of(model: Any, name: str) -> Field:
    """The field of a model. Raises: EditError: it has none of that name."""
    info = next((field for field in fields_of(model) if field.name == name), None)
    if info is None:
        raise EditError(f"There is no “{name}” in a {model.__name__}.")
    low = high = None
    said = About(name.replace("_", " ").capitalize())
    kind = info.type
    for _ in range(4):  # Annotated and Optional lie in one another
        if get_origin(kind) is Annotated:
            for meta in get_args(kind)[1:]:
                said = (getattr(meta, "extra", None) or {}).get("about", said)
                low = meta.ge if getattr(meta, "ge", None) is not None else low
                high = meta.le if getattr(meta, "le", None) is not None else high
            kind = bare(kind)
        some = [choice for choice in get_args(kind) if choice is not type(None)]
        if get_origin(kind) is Union or type(kind).__name__ == "UnionType":
            kind = some[0] if len(some) == 1 else kind
            if len(some) != 1:
                break
    empty = type(None) in get_args(bare(info.type))
    return Field(model, name, kind=kind, may_be_empty=empty, usual=info.default, low=low, high=high, about=said)


@cache
def described_of(model: Any) -> tuple[str, ...]:
    """Fields of a model that say what they are, in their order."""
    return tuple(field.name for field in fields_of(model) if field_of(model, field.name).described)


@lru_cache(4000)  # places hold ids, of which a long day makes many
def field_at(root: Any, place: str) -> Field:
    """The field at a place of the document, ids and all (``systems.wires.w3.amps``). Raises: EditError: there is none."""
    kind, steps, found = root, place.split("."), None
    at = 0
    while at < len(steps):
        found = field_of(kind, steps[at])
        kind = found.kind
        at += 1
        if get_origin(kind) is tuple and at < len(steps):
            kind = bare(get_args(kind)[0])
            at += 1  # the id
            found = None
    if found is None:
        raise EditError(f"{place} is no field.")
    return found
