"""What stands there when a task is done, or on a day, in words."""

from __future__ import annotations

from uncle_sled.core.studies.build.standing import PERSON_KG, Standing
from uncle_sled.core.words import Words, all_of

LEAST_KG = 0.05


def standing_words(one: Standing, words: Words, on_vehicle: bool) -> str:
    """After a task. Args: on_vehicle: it is built on a vehicle's bed, which counts with it."""
    brings = f"Brings {words.fine_kg(one.brings_kg)}. " if one.brings_kg > LEAST_KG else ""
    if one.brings_kg < -LEAST_KG:
        brings = f"Takes off {words.fine_kg(-one.brings_kg)}. "
    if one.total_kg <= LEAST_KG:
        return f"{brings}Nothing stands on the trailer then."
    return f"{brings}Then {there_words(one, words, on_vehicle)}"


def there_words(one: Standing, words: Words, on_vehicle: bool) -> str:
    """What there is and how it stands, as the end of a sentence; what must not be done with it."""
    if one.total_kg <= LEAST_KG:
        return "nothing stands there yet."
    if on_vehicle:
        return f"{words.kg(one.total_kg)} with the vehicle.{_rain(one)}"
    there = f"{words.kg(one.total_kg)} stand there"
    if not one.on_wheels:
        return f"{there}, without wheels.{_rain(one)}"
    if one.tongue_kg is None or one.share is None:
        return f"{there}; what is on the ball is not known.{_rain(one)}"
    told = f"{there}, {words.fine_kg(one.tongue_kg)} on the ball ({words.share(one.share)})"
    if one.off_band and one.band_kg is not None:
        low, high = (words.fine_kg(kg) for kg in one.band_kg)
        told = f"{told}: too {'light' if one.off_band < 0 else 'heavy'} to be towed so, {low} to {high} would be right"
    return f"{told}.{_stand(one, words)}{_rain(one)}"


def _stand(one: Standing, words: Words) -> str:
    if one.lifts_kg is None or not one.tips:
        return ""
    if one.lifts_kg <= 0:
        return " Its tail goes down by itself: stands under both rear corners."
    return f" {words.kg(one.lifts_kg)} at its tail lift the nose, which is less than somebody with tools ({words.kg(PERSON_KG)}): stands under the tail before anybody climbs in."


def _rain(one: Standing) -> str:
    if not one.rain:
        return ""
    verb = "is" if len(one.rain) == 1 and one.rain[0] == "roof" else "are"
    return f" Open to rain: {all_of(one.rain)} {verb} not on yet."
