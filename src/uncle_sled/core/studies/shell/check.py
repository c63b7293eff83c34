"""One screening check: what was compared with which limit, and the case that decides; or why it could not be made."""

from __future__ import annotations

import msgspec


class Check(msgspec.Struct, frozen=True):
    """One check. value, limit in SI, None where it cannot be said (``why``); how: the sum in words; spot: worst place [m].

    unit: Pa, m, N/m, m/s or N. face: measured, computed or not checked. where: ids of what is weak.
    """

    id: str
    name: str
    where: tuple[str, ...]
    value: float | None
    limit: float | None
    unit: str
    how: str
    source: str
    spot: tuple[float, float, float] | None = None
    why: str = ""

    @property
    def use(self) -> float | None:
        """Share of its limit that is used; None where it was not checked."""
        return self.value / self.limit if self.value is not None and self.limit else None

    @property
    def face(self) -> str:
        """How it is known."""
        return "not checked" if self.value is None else "computed"


def unchecked(id: str, name: str, why: str, where: tuple[str, ...] = ()) -> Check:
    return Check(id, name, where=where, value=None, limit=None, unit="", how="", source="", spot=None, why=why)
