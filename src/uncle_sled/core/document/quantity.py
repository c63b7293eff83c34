"""A value that a person typed: its SI number and the words it was typed in."""

from __future__ import annotations

from typing import ClassVar, Self, cast

import msgspec

from uncle_sled.core import units
from uncle_sled.core.units import Dimension, Shown


class Quantity(msgspec.Struct, frozen=True):
    """SI value with what was typed; a drag or a computation leaves ``typed`` empty."""

    si: float
    typed: str | None = None
    dimension: ClassVar[str] = ""

    @classmethod
    def read(cls, text: str, shown: Shown) -> Self:
        """From what was typed into a field. Raises: EntryError."""
        bare = shown.unit(cls.dimension)
        dimension = cast(Dimension, cls.dimension)
        return cls(units.parse(text, dimension, bare), units.keep_typed(text, dimension, bare))

    def agrees(self) -> bool:
        """Whether the typed words still say the SI number."""
        if self.typed is None:
            return True
        said = units.parse(self.typed, cast(Dimension, self.dimension), Shown().unit(self.dimension))
        return abs(said - self.si) <= 1e-9 * max(1.0, abs(self.si))

    def text(self, shown: Shown) -> str:
        """As the field shows it: the typed words where they are of the shown family."""
        unit = shown.unit(self.dimension)
        if self.typed is not None and units.family(self.typed) == units.family(unit):
            return self.typed
        return units.show(self.si, cast(Dimension, self.dimension), unit)


class Length(Quantity, frozen=True):
    """Metres."""

    dimension: ClassVar[str] = "length"


class Mass(Quantity, frozen=True):
    """Kilograms."""

    dimension: ClassVar[str] = "mass"


class Volume(Quantity, frozen=True):
    """Cubic metres."""

    dimension: ClassVar[str] = "volume"


class Stiffness(Quantity, frozen=True):
    """Newtons per metre."""

    dimension: ClassVar[str] = "stiffness"
