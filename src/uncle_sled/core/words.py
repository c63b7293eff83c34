"""Small helpers for sentences: weights and lengths in the build's units."""

from __future__ import annotations

import re
from collections.abc import Sequence

import msgspec

from uncle_sled.core.measures import BTU_H
from uncle_sled.core.units import (
    FOOT_M,
    INCH_M,
    MILE_KM,
    POUND_FORCE_N,
    Shown,
    distance,
    fine_weight,
    in_units,
    inches,
    kept_text,
    plain_number,
    shop_measure,
    show,
    volume,
    weight,
)

BTU_H_W = float(BTU_H)
MILLIMETRES = re.compile(r"(\d+(?:\.\d+)?(?: x \d+(?:\.\d+)?)*) mm\b")
# Planed softwood by its two sides [mm], and what it is sold as where inches are spoken: smaller than its name.
NOMINAL_STICKS = {
    (19, 38): "1×2",
    (19, 64): "1×3",
    (19, 89): "1×4",
    (19, 140): "1×6",
    (38, 38): "2×2",
    (38, 64): "2×3",
    (38, 89): "2×4",
    (38, 140): "2×6",
    (38, 184): "2×8",
    (38, 235): "2×10",
    (38, 286): "2×12",
    (89, 89): "4×4",
}
# Sheets of wood by their thickness [mm], and what they are called where inches are spoken.
NOMINAL_SHEETS = {
    3: '1/8"',
    4: '5/32"',
    5: '3/16"',
    6: '1/4"',
    9: '3/8"',
    12: '1/2"',
    15: '5/8"',
    18: '3/4"',
    21: '7/8"',
    24: '1"',
    25: '1"',
}
NEAR_INCH = 0.0006  # a fraction that is as near to the truth as that needs no other words
MONTHS = ("Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec")


class Words(msgspec.Struct, frozen=True):
    """How numbers read in this build."""

    shown: Shown

    def kg(self, mass_kg: float) -> str:
        """A mass, in kilograms or pounds."""
        return weight(mass_kg, self.shown)

    def fine_kg(self, mass_kg: float) -> str:
        """With a decimal: a doubt or a small excess."""
        return fine_weight(mass_kg, self.shown)

    def signed_kg(self, mass_kg: float) -> str:
        """A change, with its sign."""
        return f"{'+' if mass_kg >= 0 else '−'}{self.fine_kg(abs(mass_kg))}"

    def bare_kg(self, mass_kg: float) -> str:
        """Without the unit, for the first of two numbers that share one."""
        return weight(mass_kg, self.shown).split(" ")[0]

    def m3(self, cubic_metres: float) -> str:
        """What a tank holds."""
        return volume(cubic_metres, self.shown)

    def m(self, metres: float) -> str:
        """A distance as it is read: metres, or feet and inches."""
        return distance(metres, self.shown)

    def cut(self, metres: float) -> str:
        """A measure of the shop, that is cut, drilled or welded to: whole millimetres, or sixteenths of an inch."""
        return shop_measure(metres, self.shown)

    def thick(self, metres: float) -> str:
        """A thickness or a stick's side: millimetres, or inches with fractions; thin sheet metal in thousandths."""
        if not self.shown.imperial:
            return f"{plain_number(round(metres * 1000, 1))} mm"
        return inches(metres)

    def material(self, label: str) -> str:
        """A material as pieces call it, its millimetres in the builder's units."""
        if not self.shown.imperial:
            return label
        return MILLIMETRES.sub(lambda found: self._sold([float(one) for one in found[1].split(" x ")]), label)

    def layer(self, metres: float) -> str:
        """A sheet's or layer's thickness so that layers add up: a fraction of an inch only where it is true, else thousandths."""
        if not self.shown.imperial:
            return self.thick(metres)
        value = metres / INCH_M
        near = abs(value * 32 - round(value * 32)) <= NEAR_INCH * 32 and value > NEAR_INCH
        return inches(metres) if near else f'{value:.3f}"'

    def _sold(self, sizes_mm: list[float]) -> str:
        """Sides in inches; a sheet or stick that has a name in the trade by that, its true size beside it."""
        if len(sizes_mm) == 1:
            thick = self.layer(sizes_mm[0] / 1000)
            called = NOMINAL_SHEETS.get(round(sizes_mm[0])) if abs(sizes_mm[0] - round(sizes_mm[0])) < 0.3 else None
            return f"{called} ({thick})" if called and called != thick else thick
        true = " × ".join(self.thick(one / 1000) for one in sizes_mm)
        name = NOMINAL_STICKS.get((round(min(sizes_mm)), round(max(sizes_mm)))) if len(sizes_mm) == 2 else None
        return f"{name} ({true})" if name else true

    def m2(self, square_metres: float, places: int = 1) -> str:
        """An area, in square metres or square feet."""
        if self.shown.imperial:
            return f"{square_metres / FOOT_M**2:.{max(places - 1, 0)}f} ft²"
        return f"{square_metres:.{places}f} m²"

    def of(self, value: float, kept: str, places: int | None = None) -> str:
        """A figure that is kept in some unit (kPa, m/s, cm2), in the build's. Args: places: decimals in the kept unit."""
        return kept_text(value, kept, self.shown, places)

    def told(self, text: str) -> str:
        """A sentence with its marked figures, such as {12 mm}, in the build's units."""
        return in_units(text, self.shown)

    def newtons(self, force_n: float) -> str:
        """A force in newtons or kilonewtons, or as the pounds that pull as much."""
        if self.shown.mass == "lb":
            return f"{force_n / POUND_FORCE_N:.0f} lbf"
        if abs(force_n) < 1000:
            return f"{force_n:.0f} N"
        return f"{force_n / 1000:.{1 if abs(force_n) < 10_000 else 0}f} kN"

    def resistance(self, r_m2k_w: float) -> str:
        """How well a wall keeps warm, as people say it: R-13 in feet and pounds, R 2.3 m²K/W else."""
        if self.shown.imperial:
            return f"R-{show(r_m2k_w, 'resistance', self.shown.unit('resistance'), 0).split(' ')[0]}"
        return f"R {r_m2k_w:.1f} m²K/W"

    def fine_newtons(self, force_n: float) -> str:
        """A force of a hand or a latch."""
        return f"{force_n / POUND_FORCE_N:.0f} lbf" if self.shown.mass == "lb" else f"{force_n:.0f} N"

    def section(self, section_m: tuple[float, float]) -> str:
        """A stick's two sides: seen in the face, through the wall."""
        if self.shown.imperial:
            return f"{self.m(section_m[0])} × {self.m(section_m[1])}"
        return f"{plain_number(section_m[0] * 1000)} × {plain_number(section_m[1] * 1000)}"

    def kmh(self, speed_kmh: float) -> str:
        """A speed, in km/h or mph."""
        return f"{speed_kmh / MILE_KM:.0f} mph" if self.shown.imperial else f"{speed_kmh:.0f} km/h"

    def degrees(self, celsius: float, places: int = 0) -> str:
        """A temperature."""
        shown = celsius * 9 / 5 + 32 if self.shown.imperial else celsius
        return f"{shown:.{places}f} {'°F' if self.shown.imperial else '°C'}".replace("-", "−")

    def heat(self, watts: float) -> str:
        """A flow of heat: watts, and beside them Btu an hour where feet are read."""
        told = f"{watts:.0f} W"
        return f"{told} ({watts / BTU_H_W:.0f} Btu/h)" if self.shown.imperial else told

    def wh(self, watt_hours: float) -> str:
        """An energy, in kilowatt hours from a hundred of them on."""
        return f"{watt_hours / 1000:.0f} kWh" if abs(watt_hours) >= 100_000 else f"{watt_hours:.0f} Wh"

    def of_unit(self, value: float, unit: str) -> str:
        """A limit's value in the builder's units. Args: unit: kg, m or km/h."""
        return {"kg": self.kg, "m": self.m, "km/h": self.kmh}[unit](value)

    def share(self, part: float, places: int = 1) -> str:
        """A part of one, in per cent."""
        return f"{part * 100:.{places}f} %".replace("-", "−")


def all_of(names: Sequence[str]) -> str:
    """Names in a row: "a", "a and b", "a, b and c"; nothing for none."""
    return " and ".join([", ".join(names[:-1]), names[-1]] if len(names) > 1 else names)


def count_of(many: int, one: str, more: str = "") -> str:
    """A number with its word: 1 thing, 2 things."""
    return f"{many} {one}" if many == 1 else f"{many} {more or one + 's'}"


def lower_first(text: str) -> str:
    """For the middle of a sentence; a word in capitals (LED, CO) stays as it is."""
    return text if text[1:2].isupper() else text[:1].lower() + text[1:]


def upper_first(text: str) -> str:
    """A sentence's first letter large."""
    return text[:1].upper() + text[1:]
