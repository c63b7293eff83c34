"""The corners of a closed ring, as every drawing, piece and list of cuts takes them."""

from __future__ import annotations

from shapely import get_coordinates
from shapely.geometry.base import BaseGeometry


def corners_of(ring: BaseGeometry) -> tuple[tuple[float, float], ...]:
    """Its corners, the first of them once."""
    return tuple([(x, y) for x, y in get_coordinates(ring)[:-1].tolist()])
