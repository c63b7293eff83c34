"""What can be measured here, each kind once: its words, its spellings with their factor to SI, and the units it is shown in.

Factors are exact rationals: the international yard and pound of 1959, the US gallon of 231 cubic inches, the international
table Btu. A figure that is kept in another unit than SI (``rated_kpa``) names that unit at its field; KEPT knows it.
"""

from __future__ import annotations

import math
from fractions import Fraction
from typing import Literal

import msgspec

Dimension = Literal[
    "length",
    "mass",
    "volume",
    "pressure",
    "temperature",
    "power",
    "resistance",
    "stiffness",
    "force",
    "load",
    "speed",
    "road speed",
    "air",
    "flow",
    "opening",
    "area",
    "heat",
    "conductance",
    "conductivity",
    "heat capacity",
    "density",
    "strength",
    "release",
    "spread",
    "pace",
    "cartridge",
    "copper",
    "moment",
    "line load",
    "vapour",
    "bulk",
    "travel",
    "board weight",
    "price",
    "labour",
]

INCH = Fraction(254, 10000)
POUND = Fraction(45359237, 100000000)
GALLON = Fraction(3785411784, 10**12)
G = Fraction(980665, 100000)
PSI = POUND * G / (INCH * INCH)
BTU_H = Fraction(29307107017, 10**11)
FOOT, OUNCE, MILE = 12 * INCH, POUND / 16, Fraction(1609344, 1000)
_R = FOOT**2 * Fraction(5, 9) / BTU_H  # ft2 F h/Btu in m2 K/W
HOUR, MINUTE = Fraction(3600), Fraction(60)


class Measure(msgspec.Struct, frozen=True):
    """One kind of value. ``metric``, ``imperial``: the unit it is shown in and a bare number is read in.

    ``factors``: to SI, by every spelling in small letters that is understood at once.
    ``steps``: what one press of an arrow key is worth [SI]; ``most``: no value of the trade is larger [SI];
    ``pint``: what a rare unit is turned into; "" where none is looked up.
    """

    plain: str
    example: str
    factors: dict[str, Fraction]
    metric: str
    imperial: str
    steps: tuple[float, float] = (1.0, 1.0)
    most: float = 1e7
    pint: str = ""
    by_mass: bool = False  # shown with the unit of weights, not of lengths: who reads pounds pulls in pounds


MEASURES: dict[str, Measure] = {
    "length": Measure(
        "a length",
        "1.95 m, 1950 mm or 6' 4 1/2\"",
        factors={
            **dict.fromkeys(("m", "metre", "metres", "meter", "meters"), Fraction(1)),
            "mm": Fraction(1, 1000),
            "cm": Fraction(1, 100),
            **dict.fromkeys(("in", "inch", "inches", '"'), INCH),
            **dict.fromkeys(("ft", "foot", "feet", "'"), FOOT),
            "yd": 3 * FOOT,
        },
        metric="mm",
        imperial="in",
        steps=(0.01, float(INCH) / 2),
        most=100.0,
        pint="meter",
    ),
    "mass": Measure(
        "a weight",
        "42 kg or 93 lb",
        factors={
            **dict.fromkeys(("kg", "kilo", "kilos"), Fraction(1)),
            "g": Fraction(1, 1000),
            "t": Fraction(1000),
            **dict.fromkeys(("lb", "lbs", "pound", "pounds"), POUND),
            "oz": OUNCE,
        },
        metric="kg",
        imperial="lb",
        steps=(0.5, float(POUND)),
        most=1e6,
        pint="kilogram",
    ),
    "volume": Measure(
        "a volume",
        "38 L or 10 gal",
        factors={
            **dict.fromkeys(("l", "litre", "litres", "liter", "liters"), Fraction(1, 1000)),
            "ml": Fraction(1, 10**6),
            "m3": Fraction(1),
            **dict.fromkeys(("gal", "gallon", "gallons"), GALLON),
            "qt": GALLON / 4,
        },
        metric="L",
        imperial="gal",
        steps=(0.001, float(GALLON)),
        most=1e3,
        pint="meter**3",
    ),
    "pressure": Measure(
        "a pressure",
        "350 kPa or 51 psi",
        {"pa": Fraction(1), "kpa": Fraction(1000), "bar": Fraction(100000), "psi": PSI},
        "kPa",
        "psi",
        (10_000.0, float(PSI)),
        pint="pascal",
    ),
    "temperature": Measure(
        "a temperature",
        "18 degC or 64 degF",
        factors={"degc": Fraction(1), "c": Fraction(1), "degf": Fraction(5, 9), "f": Fraction(5, 9)},
        metric="degC",
        imperial="degF",
        steps=(1.0, 5 / 9),
        most=100.0,
    ),
    "power": Measure(
        "a power", "900 W or 3070 Btu/h", {"w": Fraction(1), "kw": Fraction(1000), "btu/h": BTU_H}, "W", "W", (10.0, 10.0), pint="watt"
    ),
    "heat": Measure(
        "a heat",
        "900 W or 3070 Btu/h",
        {"w": Fraction(1), "kw": Fraction(1000), "btu/h": BTU_H},
        "W",
        "Btu/h",
        (100.0, 500 * float(BTU_H)),
        pint="watt",
    ),
    "resistance": Measure(
        "an R value",
        "1.8 m2.K/W or 10 ft2.F.h/Btu",
        {"m2.k/w": Fraction(1), "m2k/w": Fraction(1), "ft2.f.h/btu": _R},
        "m2.K/W",
        "ft2.F.h/Btu",
        (0.1, float(_R)),
    ),
    "conductance": Measure(
        "a U value",
        "1.2 W/m2K or 0.21 Btu/h.ft2.F",
        {"w/m2k": Fraction(1), "w/m2.k": Fraction(1), "btu/h.ft2.f": 1 / _R, "btu/hft2f": 1 / _R},
        "W/m2K",
        "Btu/h.ft2.F",
        (0.1, 0.01 / float(_R)),
    ),
    "conductivity": Measure(
        "a conductivity",
        "0.034 W/mK or 0.24 Btu.in/h.ft2.F",
        {"w/mk": Fraction(1), "w/m.k": Fraction(1), "btu.in/h.ft2.f": INCH / _R},
        "W/mK",
        "Btu.in/h.ft2.F",
        (0.001, 0.01 * float(INCH / _R)),
    ),
    "heat capacity": Measure(
        "a specific heat",
        "1600 J/kgK or 0.38 Btu/lb.F",
        {"j/kgk": Fraction(1), "j/kg.k": Fraction(1), "btu/lb.f": BTU_H * HOUR / POUND * Fraction(9, 5)},
        "J/kgK",
        "Btu/lb.F",
        (100.0, 41.868),
    ),
    "density": Measure(
        "a density",
        "680 kg/m3 or 42 lb/ft3",
        {"kg/m3": Fraction(1), "kg/l": Fraction(1000), "g/cm3": Fraction(1000), "lb/ft3": POUND / FOOT**3},
        "kg/m3",
        "lb/ft3",
        (10.0, float(POUND / FOOT**3)),
    ),
    "strength": Measure(
        "a strength",
        "9000 MPa or 1300000 psi",
        factors={
            "pa": Fraction(1),
            "kpa": Fraction(1000),
            "mpa": Fraction(10**6),
            "n/mm2": Fraction(10**6),
            "gpa": Fraction(10**9),
            "psi": PSI,
        },
        metric="MPa",
        imperial="psi",
        steps=(1e6, 100 * float(PSI)),
        most=1e13,
        pint="pascal",
    ),
    "stiffness": Measure(
        "a spring rate",
        "60 N/mm or 340 lb/in",
        factors={"n/m": Fraction(1), "n/mm": Fraction(1000), "kn/m": Fraction(1000), "lb/in": POUND * G / INCH},
        metric="N/mm",
        imperial="lb/in",
        steps=(1000.0, 10 * float(POUND * G / INCH)),
        most=1e9,
        pint="newton/meter",
    ),
    "force": Measure(
        "a force",
        "300 N or 67 lbf",
        factors={"n": Fraction(1), "kn": Fraction(1000), "lbf": POUND * G, "lb": POUND * G, "kgf": G},
        metric="N",
        imperial="lbf",
        steps=(10.0, float(POUND * G)),
        most=1e9,
        pint="newton",
        by_mass=True,
    ),
    "load": Measure(
        "a load on a surface",
        "1.5 kPa or 31 psf",
        {
            "pa": Fraction(1),
            "kpa": Fraction(1000),
            "kn/m2": Fraction(1000),
            "kg/m2": G,
            "psf": POUND * G / FOOT**2,
            "lb/ft2": POUND * G / FOOT**2,
        },
        "kPa",
        "psf",
        (100.0, float(POUND * G / FOOT**2)),
    ),
    "speed": Measure(
        "a wind",
        "25 m/s or 56 mph",
        {"m/s": Fraction(1), "km/h": 1000 / HOUR, "mph": MILE / HOUR, "kn": 1852 / HOUR, "knots": 1852 / HOUR, "ft/s": FOOT},
        "m/s",
        "mph",
        (1.0, float(MILE / HOUR)),
    ),
    "road speed": Measure(
        "a speed",
        "100 km/h or 62 mph",
        factors={"km/h": 1000 / HOUR, "kmh": 1000 / HOUR, "kph": 1000 / HOUR, "mph": MILE / HOUR, "m/s": Fraction(1)},
        metric="km/h",
        imperial="mph",
        steps=(5 / 3.6, 5 * float(MILE / HOUR)),
        most=200.0,
    ),
    "air": Measure(
        "an air flow",
        "60 m3/h or 35 cfm",
        {"m3/h": 1 / HOUR, "l/s": Fraction(1, 1000), "cfm": FOOT**3 / MINUTE, "ft3/min": FOOT**3 / MINUTE},
        "m3/h",
        "cfm",
        (5 / 3600, float(FOOT**3 / MINUTE)),
    ),
    "flow": Measure(
        "a flow",
        "10 L/min or 2.6 gal/min",
        {"l/min": 1 / (1000 * MINUTE), "gal/min": GALLON / MINUTE, "gpm": GALLON / MINUTE},
        "L/min",
        "gal/min",
        (1 / 60_000, float(GALLON) / 600),
    ),
    "opening": Measure(
        "an area",
        "160 cm2 or 25 in2",
        {"cm2": Fraction(1, 10_000), "mm2": Fraction(1, 10**6), "m2": Fraction(1), "in2": INCH**2, "ft2": FOOT**2},
        "cm2",
        "in2",
        (0.001, float(INCH**2)),
    ),
    "area": Measure(
        "an area",
        "1.5 m2 or 16 ft2",
        {"m2": Fraction(1), "cm2": Fraction(1, 10_000), "ft2": FOOT**2, "in2": INCH**2},
        "m2",
        "ft2",
        (0.1, float(FOOT**2)),
    ),
    "release": Measure(
        "grams an hour",
        "150 g/h or 5.3 oz/h",
        {"g/h": 1 / (1000 * HOUR), "kg/h": 1 / HOUR, "oz/h": OUNCE / HOUR, "lb/h": POUND / HOUR},
        "g/h",
        "oz/h",
        (10 / 3.6e6, float(OUNCE / HOUR)),
    ),
    "spread": Measure(
        "a weight over an area",
        "200 g/m2 or 5.9 oz/yd2",
        {"g/m2": Fraction(1, 1000), "kg/m2": Fraction(1), "oz/yd2": OUNCE / (9 * FOOT**2), "oz/ft2": OUNCE / FOOT**2},
        "g/m2",
        "oz/yd2",
        (0.01, float(OUNCE / (9 * FOOT**2))),
    ),
    "pace": Measure(
        "an area a minute",
        "0.09 m2/min or 1 ft2/min",
        {"m2/min": 1 / MINUTE, "ft2/min": FOOT**2 / MINUTE},
        "m2/min",
        "ft2/min",
        (0.01 / 60, float(FOOT**2 / MINUTE) / 10),
    ),
    "cartridge": Measure(
        "a volume",
        "600 ml or 20 fl.oz",
        {"ml": Fraction(1, 10**6), "l": Fraction(1, 1000), "fl.oz": GALLON / 128, "floz": GALLON / 128, "gal": GALLON},
        "ml",
        "fl.oz",
        (1e-5, float(GALLON / 128)),
    ),
    "board weight": Measure(
        "a weight over an area",
        "4.9 kg/m2 or 1 lb/ft2",
        {"kg/m2": Fraction(1), "g/m2": Fraction(1, 1000), "lb/ft2": POUND / FOOT**2},
        "kg/m2",
        "lb/ft2",
        (0.1, float(POUND / FOOT**2) / 10),
    ),
    "price": Measure(
        "money for an area", "20 money/m2 or 2 money/ft2", {"money/m2": Fraction(1), "money/ft2": 1 / FOOT**2}, "money/m2", "money/ft2"
    ),
    "labour": Measure("hours for an area", "0.5 h/m2 or 0.05 h/ft2", {"h/m2": Fraction(1), "h/ft2": 1 / FOOT**2}, "h/m2", "h/ft2"),
    "travel": Measure("a way on the road", "80 km or 50 mi", {"km": Fraction(1000), "mi": MILE}, "km", "mi"),
    "bulk": Measure("a space", "3 m3 or 106 ft3", {"m3": Fraction(1), "l": Fraction(1, 1000), "ft3": FOOT**3}, "m3", "ft3"),
    "moment": Measure(
        "a bending moment", "480 N m or 354 lbf ft", {"n m": Fraction(1), "lbf ft": POUND * G * FOOT}, "N m", "lbf ft", by_mass=True
    ),
    "line load": Measure(
        "a load along a line",
        "1.2 kN/m or 82 lbf/ft",
        {"n/m": Fraction(1), "kn/m": Fraction(1000), "lbf/ft": POUND * G / FOOT},
        "N/m",
        "lbf/ft",
        by_mass=True,
    ),
    "vapour": Measure(
        "water in a wall", "120 g/m2 or 0.4 oz/ft2", {"g/m2": Fraction(1, 1000), "oz/ft2": OUNCE / FOOT**2}, "g/m2", "oz/ft2"
    ),
    "copper": Measure(
        "a size of wire",
        "6 mm2 or AWG 10",
        {"mm2": Fraction(1, 10**6), "in2": INCH**2, "kcmil": Fraction(5067075, 10**13)},
        "mm2",
        "AWG",
        (1e-6, 1e-6),
    ),
}

# A figure kept in such a unit: what it measures, and the factor to SI.
KEPT: dict[str, tuple[Dimension, float]] = {
    "kPa": ("load", 1e3),
    "Pa": ("load", 1.0),
    "m/s": ("speed", 1.0),
    "km/h": ("road speed", 1 / 3.6),
    "N": ("force", 1.0),
    "m3/h": ("air", 1 / 3600),
    "cm2": ("opening", 1e-4),
    "m2": ("area", 1.0),
    "L": ("volume", 1e-3),
    "ml": ("cartridge", 1e-6),
    "L/min": ("flow", 1 / 60_000),
    "g/h": ("release", 1 / 3.6e6),
    "g/m2": ("spread", 1e-3),
    "m2/min": ("pace", 1 / 60),
    "kg/L": ("density", 1e3),
    "kg/m3": ("density", 1.0),
    "W/m2K": ("conductance", 1.0),
    "W/mK": ("conductivity", 1.0),
    "J/kgK": ("heat capacity", 1.0),
    "MPa": ("strength", 1e6),
    "kg": ("mass", 1.0),
    "mm": ("length", 1e-3),
    "m": ("length", 1.0),
    "degC": ("temperature", 1.0),
    "mm2 copper": ("copper", 1e-6),
    "N m": ("moment", 1.0),
    "N/m": ("line load", 1.0),
    "kN/m": ("line load", 1e3),
    "kN": ("force", 1e3),
    "g/m2 water": ("vapour", 1e-3),
    "W heat": ("heat", 1.0),
    "kPa cold": ("pressure", 1e3),
    "m3": ("bulk", 1.0),
    "km": ("travel", 1e3),
    "kg/m2": ("board weight", 1.0),
    "m2K/W": ("resistance", 1.0),
    "money/m2": ("price", 1.0),
    "h/m2": ("labour", 1.0),
}
# How a unit is written where it is read; others stand as they are.
SIGNS = {
    "degC": "°C",
    "degF": "°F",
    "m2": "m²",
    "m3": "m³",
    "ft3": "ft³",
    "cm2": "cm²",
    "mm2": "mm²",
    "ft2": "ft²",
    "in2": "in²",
    "m3/h": "m³/h",
    "m2/min": "m²/min",
    "ft2/min": "ft²/min",
    "g/m2": "g/m²",
    "oz/yd2": "oz/yd²",
    "kg/m3": "kg/m³",
    "lb/ft3": "lb/ft³",
    "W/m2K": "W/m²K",
    "Btu/h.ft2.F": "Btu/h·ft²·°F",
    "Btu.in/h.ft2.F": "Btu·in/h·ft²·°F",
    "Btu/lb.F": "Btu/lb·°F",
    "m2.K/W": "m²K/W",
    "ft2.F.h/Btu": "ft²·°F·h/Btu",
    "kg/m2": "kg/m²",
    "lb/ft2": "lb/ft²",
    "money/m2": "money/m²",
    "money/ft2": "money/ft²",
    "h/m2": "h/m²",
    "h/ft2": "h/ft²",
    "fl.oz": "fl oz",
}


# American wire gauge by its definition: 0.127 mm for gauge 36, and 92 for the ratio of gauge 0000 to it over 39 steps.
def awg_mm2(gauge: int) -> float:
    """Copper of a gauge [mm2]; 0 is 1/0, -1 is 2/0 and so on."""
    return float(math.pi / 4 * (0.127 * 92 ** ((36 - gauge) / 39)) ** 2)


def awg_name(mm2: float) -> str:
    """Copper [mm2] by its gauge, within 3 %; else in thousands of circular mils."""
    gauge = round(36 - 39 * math.log(2 * math.sqrt(mm2 / math.pi) / 0.127, 92))
    if -3 <= gauge <= 40 and abs(awg_mm2(gauge) / mm2 - 1) < 0.03:
        return f"AWG {gauge if gauge > 0 else f'{1 - gauge}/0'}"
    return f"{mm2 / KCMIL_MM2:.4g} kcmil"


KCMIL_MM2 = math.pi / 4 * 0.0254**2 * 1000


def dimension_of(kept: str) -> Dimension | None:
    """What a figure kept in this unit measures; None where the unit is the same everywhere (W, A, h)."""
    return KEPT[kept][0] if kept in KEPT else None


def plain_unit(kept: str) -> str:
    """The unit alone of one that says what it is of as well: kPa of "kPa cold"."""
    return next((kept.removesuffix(of) for of in (" heat", " cold", " water", " copper") if kept.endswith(of)), kept)
