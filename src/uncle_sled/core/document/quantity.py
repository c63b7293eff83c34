"""A value that a person typed: its SI number and the words it was typed in."""

from typing import Annotated, ClassVar, Self, cast

import msgspec

from uncle_sled.core import units
from uncle_sled.core.measures import Dimension
from uncle_sled.core.units import Shown


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
        return abs(self.said_si() - self.si) <= 1e-9 * max(1.0, abs(self.si))

    def said_si(self) -> float:
        """What the typed words say, a bare number in the unit of a build in millimetres [SI]. Raises: EntryError."""
        return units.parse(self.typed or "", cast(Dimension, self.dimension), Shown().unit(self.dimension))

    def text(self, shown: Shown) -> str:
        """As the field shows it: the typed words where they are of the shown family."""
        unit = shown.unit(self.dimension)
        if self.typed is not None and units.family(self.typed) == units.family(unit):
            return self.typed
        return units.show(self.si, cast(Dimension, self.dimension), unit)


class Length(Quantity, frozen=True):
    """Metres, no further than any trailer reaches."""

    si: Annotated[float, msgspec.Meta(ge=-100.0, le=100.0)]
    typed: str | None = None
    dimension: ClassVar[str] = "length"


class Mass(Quantity, frozen=True):
    """Kilograms."""

    si: Annotated[float, msgspec.Meta(ge=0.0, le=1e6)]
    typed: str | None = None
    dimension: ClassVar[str] = "mass"


class Volume(Quantity, frozen=True):
    """Cubic metres."""

    si: Annotated[float, msgspec.Meta(ge=0.0, le=1e3)]
    typed: str | None = None
    dimension: ClassVar[str] = "volume"


class Temperature(Quantity, frozen=True):
    """Degrees Celsius."""

    si: Annotated[float, msgspec.Meta(ge=-90.0, le=100.0)]
    typed: str | None = None
    dimension: ClassVar[str] = "temperature"


class Stiffness(Quantity, frozen=True):
    """Newtons per metre."""

    si: Annotated[float, msgspec.Meta(ge=0.0, le=1e9)]
    typed: str | None = None
    dimension: ClassVar[str] = "stiffness"
