"""Glue, resin and coatings: how much, in which batch, how fast, and when it has cured.

Pot life t25 x 2^((25 - T) / 10); batch by area 0.7 x pot x m2 a minute; volume ratio to mass by the densities; bead of a
round section; open time against place 3 min + beads 20 s/m + rivets 25 s each. Source: shop notes.
"""

from __future__ import annotations

import math

import msgspec

from uncle_sled.core.document.work import Glue
from uncle_sled.core.parts.face_build import Library, family_of
from uncle_sled.core.studies.build.days import Days, cured_h
from uncle_sled.core.studies.cut.take_off import TakeOff

WASTE = 1.15
USABLE = 0.7
PLACE_MIN, BEAD_S_M, RIVET_S = 3.0, 20.0, 25.0
CAUTION = "Mask with the right filter, gloves, air; a hot pot goes out of the door; isocyanates are never sprayed without supplied air; oily rags burn by themselves."


def pot_min(at25_min: float, temperature_c: float) -> float:
    """Check 25 min: 50, 35, 25, 18, 12.5 at 15, 20, 25, 30, 35 degC."""
    return float(at25_min * 2.0 ** ((25.0 - temperature_c) / 10.0))


def mass_ratio(glue: Glue) -> float:
    """Parts of resin by mass to one of hardener. Check 5:1 by volume, 1.15 and 0.97: 5.93:1."""
    return glue.resin_parts * glue.resin_density / glue.hardener_density


class Resin(msgspec.Struct, frozen=True):
    """area_m2 of cloth; mixed_kg with waste, hardener_kg of it; batch_m2 and batch_g for one pot; pots in all."""

    area_m2: float
    mixed_kg: float
    hardener_kg: float
    pot_min: float
    batch_m2: float
    batch_g: float
    pots: int


def resin_for(glue: Glue, area_m2: float, temperature_c: float) -> Resin:
    """Check 12 m2, one cloth of 200 g, two coats of 120: 6.07 kg mixed, hardener 0.876; 30 degC, 0.09 m2/min: 1.11 m2, 256 g."""
    per_m2 = (glue.cloth_g_m2 + glue.coats * glue.coat_g_m2) * WASTE / 1000.0
    mixed = area_m2 * per_m2
    pot = pot_min(glue.pot_min, temperature_c)
    batch_m2 = USABLE * pot * glue.pace_m2_min
    # one pot wets the cloth; fill coats are pots of their own
    batch_g = batch_m2 * glue.cloth_g_m2 * WASTE
    pots = math.ceil(area_m2 / batch_m2 - 1e-9) * (1 + glue.coats) if batch_m2 > 0 and area_m2 > 0 else 0
    return Resin(area_m2, mixed, hardener_kg=mixed / (1 + mass_ratio(glue)), pot_min=pot, batch_m2=batch_m2, batch_g=batch_g, pots=pots)


class Bead(msgspec.Struct, frozen=True):
    """A bonded piece: metres of bead, rivets, minutes to set it against the open time; cure of the bead in days."""

    name: str
    bead_m: float
    rivets: int
    takes_min: float
    open_min: float
    cartridges: float
    cure_days: float

    @property
    def too_slow(self) -> bool:
        """Whether it takes longer than the glue stays open."""
        return self.takes_min > self.open_min + 1e-9


def bead_of(glue: Glue, name: str, bead_m: float, temperature_c: float = 20.0) -> Bead:
    """Check 4 m, 26 rivets: 15.2 min; 6 mm round: 600 mL for 21.2 m; 6 mm deep 4 days, 8 mm 7."""
    rivets = round(bead_m / glue.rivet_pitch.si) if glue.rivet_pitch.si > 0 else 0
    return _bead(glue, name, bead_m, rivets, temperature_c)


def _bead(glue: Glue, name: str, bead_m: float, rivets: int, temperature_c: float) -> Bead:
    takes = PLACE_MIN + (bead_m * BEAD_S_M + rivets * RIVET_S) / 60.0
    section_mm2 = math.pi * glue.bead_mm**2 / 4
    litres = bead_m * section_mm2 / 1000.0
    cure = (glue.bead_mm / 3.0) ** 2
    warmer = 2.0 ** ((20.0 - temperature_c) / 10.0)
    return Bead(
        name,
        bead_m,
        rivets=rivets,
        takes_min=takes,
        open_min=glue.bead_open_min * min(warmer, 2.0),
        cartridges=litres * 1000.0 / glue.cartridge_ml if glue.cartridge_ml else 0.0,
        cure_days=math.ceil(cure - 1e-9),
    )


def beads_of(glue: Glue, off: TakeOff, library: Library, temperature_c: float) -> tuple[Bead, ...]:
    """Every bonded panel: those of metal, honeycomb and plastic, by their edges."""
    made = []
    for piece in off.pieces:
        if piece.kind == "sheet" and piece.made_of in library and not library[piece.made_of].screwed:
            made.append(bead_of(glue, piece.name, 2 * (piece.length_m + piece.width_m), temperature_c))
    return tuple(sorted(made, key=lambda bead: -bead.takes_min))


def cloth_m2(off: TakeOff, library: Library) -> float:
    """Area that is laid over with cloth and resin [m2]."""
    return sum(spread.area_m2 for spread in off.spreads if family_of(spread.made_of, library) == "cloth")


def cure_days(glue: Glue, days: Days, day: int) -> float | None:
    """Days by the clock until what is put on at noon of a day has cured in the shop; None: not in this calendar."""
    begin = day * 24.0 + 12.0
    free = cured_h(begin, glue.cure_h, glue.floor_c, days.shop_c)
    return None if free is None else (free - begin) / 24.0
