"""How much sun falls on a panel, hour by hour, without any network?

Declination, sunset and daily sum outside the air: Duffie and Beckman, Solar Engineering of Thermal Processes, chapter 1.
Hour by hour: Collares-Pereira and Rabl. On a slope: beam by its own angle, diffuse share by Erbs, an even sky, ground 0.2.
"""

from __future__ import annotations

import csv
import math
from functools import lru_cache

import msgspec
import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.errors import GeometryError
from uncle_sled.shipped import shipped

Floats = NDArray[np.float64]
SOLAR_KW_M2 = 1.367
GROUND = 0.2
HOURS = 24
MOST_K = 0.8
# Day of the year in the middle of each month.
MIDDLE_DAY = (15, 46, 74, 105, 135, 166, 196, 227, 258, 288, 319, 349)


class Sky(msgspec.Struct, frozen=True):
    """A string of days: what share of the sun outside the air comes down on each, repeated."""

    id: str
    name: str
    days: tuple[float, ...]

    def of_day(self, day: int) -> float:
        return self.days[day % len(self.days)]


class Place(msgspec.Struct, frozen=True):
    id: str
    name: str
    latitude_deg: float


@lru_cache(1)
def skies() -> tuple[Sky, ...]:
    """The shipped strings of weather: clear, mixed, dull."""
    rows = csv.DictReader(shipped("catalogue/skies.csv").decode().splitlines())
    return tuple(Sky(row["id"], row["name"], tuple(float(k) for k in row["days"].split())) for row in rows)


@lru_cache(1)
def places() -> tuple[Place, ...]:
    """The shipped regions to pick a latitude from, north first."""
    rows = csv.DictReader(shipped("catalogue/places.csv").decode().splitlines())
    made = [Place(row["id"], row["name"], float(row["latitude_deg"])) for row in rows]
    return tuple(sorted(made, key=lambda place: -place.latitude_deg))


def declination_deg(day: int) -> float:
    return 23.45 * math.sin(math.radians(360 * (284 + day) / 365))


def sunset_rad(latitude_deg: float, day: int) -> float:
    """Hour angle of sunset [rad], 0 where the sun does not rise, pi where it does not set."""
    lat, dec = math.radians(latitude_deg), math.radians(declination_deg(day))
    return math.acos(min(max(-math.tan(lat) * math.tan(dec), -1.0), 1.0))


def outside_kwh_m2(latitude_deg: float, day: int) -> float:
    """Daily sum on the flat outside the air [kWh/m2].

    Raises: GeometryError: a latitude over 90 degrees.
    """
    if not -90 <= latitude_deg <= 90:
        raise GeometryError(f"A latitude of {latitude_deg:g} degrees cannot be; -90 to 90 would be right.")
    lat, dec, ws = math.radians(latitude_deg), math.radians(declination_deg(day)), sunset_rad(latitude_deg, day)
    far = 1 + 0.033 * math.cos(math.radians(360 * day / 365))
    return max(
        24
        / math.pi
        * SOLAR_KW_M2
        * far
        * (math.cos(lat) * math.cos(dec) * math.sin(ws) + ws * math.sin(lat) * math.sin(dec)),
        0.0,
    )


def hour_shares(latitude_deg: float, day: int) -> Floats:
    """Which share of the day's sum falls in each hour of the sun, shape (24,), summing to 1; none where it does not rise."""
    ws = sunset_rad(latitude_deg, day)
    if ws <= 1e-6:
        return np.zeros(HOURS)
    w = np.radians((np.arange(HOURS) + 0.5 - 12) * 15)
    a = 0.409 + 0.5016 * math.sin(ws - math.radians(60))
    b = 0.6609 - 0.4767 * math.sin(ws - math.radians(60))
    below = math.sin(ws) - ws * math.cos(ws)
    shares = np.where(np.abs(w) < ws, (a + b * np.cos(w)) * (np.cos(w) - math.cos(ws)), 0.0)
    shares = np.maximum(shares, 0.0) * math.pi / 24 / below
    whole = shares.sum()
    return np.asarray(shares / whole if whole > 0 else shares)


def diffuse_share(k: float, ws: float) -> float:
    """Share of a day's sum that comes from the whole sky. Source: Erbs, Klein and Duffie, daily form."""
    if ws <= math.radians(81.4):
        return 1 - 0.2727 * k + 2.4495 * k**2 - 11.9514 * k**3 + 9.3879 * k**4 if k < 0.715 else 0.143
    return 1 + 0.2832 * k - 2.5557 * k**2 + 0.8448 * k**3 if k < 0.722 else 0.175


def beam_ratio(latitude_deg: float, day: int, tilt_deg: float) -> float:
    """Beam on a slope that faces the midday sun over beam on the flat, over the day."""
    side = 1 if latitude_deg >= 0 else -1
    lat, dec = math.radians(abs(latitude_deg)), math.radians(declination_deg(day)) * side
    ws = sunset_rad(latitude_deg, day)
    tilt = math.radians(tilt_deg)
    sloped = min(ws, math.acos(min(max(-math.tan(lat - tilt) * math.tan(dec), -1.0), 1.0)))
    flat = math.cos(lat) * math.cos(dec) * math.sin(ws) + ws * math.sin(lat) * math.sin(dec)
    if flat <= 1e-9:
        return 0.0
    up = math.cos(lat - tilt) * math.cos(dec) * math.sin(sloped) + sloped * math.sin(lat - tilt) * math.sin(dec)
    return max(up / flat, 0.0)


def on_panel_kwh_m2(latitude_deg: float, day: int, k: float, tilt_deg: float = 0.0) -> float:
    """A day's sum on a panel [kWh/m2]. Args: k: share of the sum outside that comes down, 0 to 0.8; tilt_deg: to the midday sun."""
    if not 0 <= k <= MOST_K:
        raise GeometryError(f"A sky that lets {k:g} through cannot be; 0 to {MOST_K:g} would be right.")
    flat = k * outside_kwh_m2(latitude_deg, day)
    if tilt_deg <= 0:
        return flat
    diffuse = diffuse_share(k, sunset_rad(latitude_deg, day))
    tilt = math.radians(tilt_deg)
    ratio = (
        (1 - diffuse) * beam_ratio(latitude_deg, day, tilt_deg)
        + diffuse * (1 + math.cos(tilt)) / 2
        + GROUND * (1 - math.cos(tilt)) / 2
    )
    return flat * ratio


def darkest_day(latitude_deg: float, months: tuple[int, ...]) -> int:
    """Middle of the month with the least sun outside the air."""
    return min((MIDDLE_DAY[m - 1] for m in months), key=lambda day: (outside_kwh_m2(latitude_deg, day), day))
