"""How much sun falls on a panel, hour by hour, without any network?

Declination, sunset and daily sum outside the air: Duffie and Beckman, Solar Engineering of Thermal Processes, chapter 1.
Hour by hour: Collares-Pereira and Rabl. How much comes down falls with the height of the sun (``clear_k``).
"""

from __future__ import annotations

import math
from functools import lru_cache

import msgspec
import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.errors import GeometryError
from uncle_sled.core.tables import table

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
        """Share of what falls outside the air, on a day of the stay."""
        return self.days[day % len(self.days)]


class Place(msgspec.Struct, frozen=True):
    """A place of the table: its latitude [degrees], for those who do not know theirs."""

    id: str
    name: str
    latitude_deg: float


@lru_cache(1)
def skies() -> tuple[Sky, ...]:
    """The shipped strings of weather: clear, mixed, dull."""
    return table("catalogue/skies.csv", Sky)


@lru_cache(1)
def places() -> tuple[Place, ...]:
    """The shipped regions to pick a latitude from, north first."""
    return tuple(sorted(table("catalogue/places.csv", Place), key=lambda place: -place.latitude_deg))


def declination_deg(day: int) -> float:
    """Declination of the sun [degrees]. Args: day: of the year. Source: Cooper 1969."""
    return 23.45 * math.sin(math.radians(360 * (284 + day) / 365))


def sunset_rad(latitude_deg: float, day: int) -> float:
    """Hour angle of sunset [rad], 0 where the sun does not rise, pi where it does not set."""
    lat, dec = math.radians(latitude_deg), math.radians(declination_deg(day))
    return math.acos(min(max(-math.tan(lat) * math.tan(dec), -1.0), 1.0))


def sun_stays(latitude_deg: float, day: int) -> str:
    """Where the sun does neither rise nor set that day: "down" or "up"; "" where it does both. Check 70 degrees: down on day 355, up on 172."""
    half = sunset_rad(latitude_deg, day)
    return "down" if half <= 0.0 else "up" if half >= math.pi - 1e-9 else ""


def outside_kwh_m2(latitude_deg: float, day: int) -> float:
    """Daily sum on the flat outside the air [kWh/m2].

    Raises: GeometryError: a latitude over 90 degrees.
    """
    if not -90 <= latitude_deg <= 90:
        raise GeometryError(f"A latitude of {latitude_deg:g} degrees cannot be; -90 to 90 would be right.")
    lat, dec, ws = math.radians(latitude_deg), math.radians(declination_deg(day)), sunset_rad(latitude_deg, day)
    far = 1 + 0.033 * math.cos(math.radians(360 * day / 365))
    return max(24 / math.pi * SOLAR_KW_M2 * far * (math.cos(lat) * math.cos(dec) * math.sin(ws) + ws * math.sin(lat) * math.sin(dec)), 0.0)


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


CLEAR_K, CLEAR_AIR, CLEAR_MOST = 0.852, 0.145, 0.7095
CLEAR_AS_TOLD = 0.70  # what a string of weather calls a clear day


def clear_k(latitude_deg: float, day: int) -> float:
    """Share of a day's sum outside that comes down under a clear sky, 0 to 0.71: less the lower the sun stands at noon.

    0.852 exp(-0.145 / sin h), h the sun's height at noon; laid through the sums of a clear-sky model (Ineichen, Linke
    turbidity 2.5 to 3.5, 100 m) at 35, 45 and 52 degrees in December, March and June (docs/methods.md has the ranges).
    """
    height = math.radians(90.0 - abs(latitude_deg - declination_deg(day)))
    if math.sin(height) <= 0.01:
        return 0.0
    return min(CLEAR_K * math.exp(-CLEAR_AIR / math.sin(height)), CLEAR_MOST)


def comes_down(latitude_deg: float, day: int, k: float) -> float:
    """Share of the sum outside that comes down on a day of a string that tells k; 0.70 is as clear as that day can be."""
    if not 0 <= k <= MOST_K:
        raise GeometryError(f"A sky that lets {k:g} through cannot be; 0 to {MOST_K:g} would be right.")
    return clear_k(latitude_deg, day) * k / CLEAR_AS_TOLD


FINE = 12  # steps of an hour, for what falls on a slope


@lru_cache(4096)
def on_panel_hours(latitude_deg: float, day: int, k: float, tilt_deg: float = 0.0, azimuth_deg: float = 0.0) -> tuple[float, ...]:
    """A day's sun on a panel by the hour of the sun [kWh/m2], 24 of them.

    Args: k: as a string of weather tells it, 0.70 clear; tilt_deg: over level; azimuth_deg: the way it slopes, 0 to the
    midday sun, positive to the afternoon's. Beam by its own angle, diffuse by Erbs (half-way between the sky's clearness and
    what comes down, since Erbs is over all days), an even sky, ground 0.2. Source: Duffie and Beckman, chapter 2.
    Raises: GeometryError: a latitude over 90 degrees or a k beyond 0.8.
    """
    share = comes_down(latitude_deg, day, k)
    flat = share * outside_kwh_m2(latitude_deg, day)
    shares = hour_shares(latitude_deg, day)
    if tilt_deg <= 0 or flat <= 0:
        return tuple((flat * shares).tolist())
    ws, lat, dec = sunset_rad(latitude_deg, day), math.radians(latitude_deg), math.radians(declination_deg(day))
    if latitude_deg < 0:  # in the south the midday sun stands in the north: mirrored, it is the same sum
        lat, dec = -lat, -dec
    tilt, side = math.radians(tilt_deg), math.radians(azimuth_deg)
    w = np.radians((np.arange(HOURS * FINE) + 0.5) * 15 / FINE - 180)
    up = np.abs(w) < ws
    a = 0.409 + 0.5016 * math.sin(ws - math.radians(60))
    b = 0.6609 - 0.4767 * math.sin(ws - math.radians(60))
    even = np.where(up, np.maximum(np.cos(w) - math.cos(ws), 0.0), 0.0)
    whole = even * np.maximum(a + b * np.cos(w), 0.0)
    cloudy = (diffuse_share(min(k, MOST_K), ws) + diffuse_share(share, ws)) / 2
    all_of_it = flat * whole / max(float(whole.sum()), 1e-12)
    diffuse = np.minimum(flat * cloudy * even / max(float(even.sum()), 1e-12), all_of_it)
    high = math.sin(lat) * math.sin(dec) + math.cos(lat) * math.cos(dec) * np.cos(w)
    meets = (
        math.sin(dec) * math.sin(lat) * math.cos(tilt)
        - math.sin(dec) * math.cos(lat) * math.sin(tilt) * math.cos(side)
        + math.cos(dec) * math.cos(lat) * math.cos(tilt) * np.cos(w)
        + math.cos(dec) * math.sin(lat) * math.sin(tilt) * math.cos(side) * np.cos(w)
        + math.cos(dec) * math.sin(tilt) * math.sin(side) * np.sin(w)
    )
    beam = (all_of_it - diffuse) * np.where(up, np.maximum(meets, 0.0) / np.maximum(high, LOWEST_SIN), 0.0)
    sloped = beam + diffuse * (1 + math.cos(tilt)) / 2 + all_of_it * GROUND * (1 - math.cos(tilt)) / 2
    return tuple(sloped.reshape(HOURS, FINE).sum(axis=1).tolist())


LOWEST_SIN = 0.017  # under a degree the sun lights nothing that counts


def darkest_day(latitude_deg: float, months: tuple[int, ...]) -> int:
    """Middle of the month with the least sun outside the air."""
    return min((MIDDLE_DAY[m - 1] for m in months), key=lambda day: (outside_kwh_m2(latitude_deg, day), day))
