"""What stands there when a task is done, in words."""

from __future__ import annotations

from uncle_sled.core.studies.build.standing import Standing
from uncle_sled.core.words import Words

LEAST_KG = 0.05


def standing_words(one: Standing, words: Words, on_vehicle: bool) -> str:
    """Args: on_vehicle: it is built on a vehicle's bed, which counts with it."""
    brings = f"Brings {words.fine_kg(one.brings_kg)}. " if one.brings_kg > LEAST_KG else ""
    if one.brings_kg < -LEAST_KG:
        brings = f"Takes off {words.fine_kg(-one.brings_kg)}. "
    if one.total_kg <= LEAST_KG:
        return f"{brings}Nothing stands on the trailer then."
    if on_vehicle:
        return f"{brings}Then {words.kg(one.total_kg)} with the vehicle."
    there = f"{brings}Then {words.kg(one.total_kg)} stand there"
    if not one.on_wheels:
        return f"{there}, without wheels."
    if one.tongue_kg is None or one.share is None:
        return f"{there}; what is on the ball is not known."
    told = f"{there}, {words.fine_kg(one.tongue_kg)} on the ball ({words.share(one.share)})"
    if one.off_band and one.band_kg is not None:
        low, high = (words.fine_kg(kg) for kg in one.band_kg)
        return f"{told}: too {'light' if one.off_band < 0 else 'heavy'} to be towed so, {low} to {high} would be right."
    return f"{told}."
