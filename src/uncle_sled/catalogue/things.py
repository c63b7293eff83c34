"""The catalogue of generic things: plausible sizes and weights, every one an estimate to be replaced."""

from __future__ import annotations

import csv
from dataclasses import dataclass
from functools import lru_cache
from importlib import resources

import msgspec

from uncle_sled.core.document.stow import Thing


@dataclass(frozen=True)
class Entry:
    """One line of the catalogue; sizes in metres, volume in cubic metres."""

    id: str
    name: str
    kind: str
    size_m: tuple[float, float, float]
    mass_kg: float
    contents: str
    volume_m3: float
    outside: bool
    cargo: bool

    def thing(self, id: str, x_m: float, y_m: float, z_m: float) -> Thing:
        """A thing of this kind with its front edge, middle and underside where they are given."""
        length, width, height = self.size_m
        record = {
            "id": id,
            "name": self.name,
            "kind": self.kind,
            "length": {"si": length},
            "width": {"si": width},
            "height": {"si": height},
            "x": {"si": x_m},
            "y": {"si": y_m},
            "z": {"si": z_m},
            "mass": {"si": self.mass_kg},
            "tank": {"volume": {"si": self.volume_m3}, "contents": self.contents} if self.contents else None,
            "cargo": self.cargo,
            "outside": self.outside,
        }
        return msgspec.convert(record, Thing)


@lru_cache(maxsize=1)
def entries() -> tuple[Entry, ...]:
    text = resources.files("uncle_sled.catalogue").joinpath("things.csv").read_text(encoding="utf-8")
    return tuple(
        Entry(
            line["id"],
            line["name"],
            line["kind"],
            (float(line["length_mm"]) / 1000, float(line["width_mm"]) / 1000, float(line["height_mm"]) / 1000),
            float(line["mass_kg"]),
            line["contents"],
            float(line["volume_l"] or 0) / 1000,
            line["outside"] == "yes",
            line["cargo"] == "yes",
        )
        for line in csv.DictReader(text.splitlines())
    )
