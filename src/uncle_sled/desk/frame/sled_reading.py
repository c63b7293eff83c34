"""What the Sled line has to say for one case: numbers in words, made once for painting."""

from __future__ import annotations

import msgspec
import numpy as np

from uncle_sled.core.engine import keep
from uncle_sled.core.reading.limits import least_front_kg
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.balance.sureness import load_sigma_kg
from uncle_sled.core.studies.balance.tow_vehicle import payload_left_kg
from uncle_sled.core.studies.build.standing import Standing
from uncle_sled.core.words import Words


class Needle(msgspec.Struct, frozen=True):
    """One case on the gauge [kg], and whether it is out of its band."""

    name: str
    case_id: str
    kg: float
    out: bool
    words: str


class Reading(msgspec.Struct, frozen=True):
    """The gauge of one case. Unknown numbers are None."""

    title: str
    big: str
    beside: tuple[str, str]
    kg: float | None
    sigma_kg: float
    band: tuple[float, float] | None
    limit_kg: float | None
    most_kg: float
    state: str  # good, mind, stop, none
    needles: tuple[Needle, ...]
    left: str
    right: str
    lean: float | None
    lean_words: str
    last: str


@keep("s", "row", most=4)
def reading(s: Studied, row: int) -> Reading:
    """The reading of the case in a row of a build."""
    words = Words(s.build.brief.reading.shown())
    if not s.table.cases:
        return _none("No load case", "")
    sides = _sides(s, row, words)
    if s.build.rig.carrier == "vehicle bed":
        return _bed(s, row, words, sides)
    if s.support is None:
        return _none("On the ball", _why_none(s, "no axle yet"))
    case, b = s.table.cases[row], s.readings
    needles = tuple(_needle(s, at, words) for at in s.towing_rows if not np.isnan(b.tongue_kg[at]))
    tongue, band = float(b.tongue_kg[row]), (float(b.band_kg[row, 0]), float(b.band_kg[row, 1]))
    high = (
        max([band[1] * 1.45, *(n.kg for n in needles), *([s.band.limit_kg] if s.band.limit_kg and s.band.limit_kg < band[1] * 2.4 else [])])
        * 1.06
    )
    if not case.mode.towing:
        jack = None if s.at_rest is None else float(s.at_rest.jack_kg[row])
        towing = s.towing_rows[0] if s.towing_rows else None
        last = "" if towing is None else f"on the ball {words.kg(float(b.tongue_kg[towing]))} on the road"
        return Reading(
            "On the jack",
            words.kg(jack) if jack is not None else "no jack",
            ("unhitched", "tail loaded " + words.bare_kg(float(s.at_rest.jack_tail_loaded_kg[row])) if s.at_rest is not None else ""),
            jack,
            0.0,
            None,
            s.build.rig.jack_rating.si / 1.5 if s.build.rig.jack_rating else None,
            max(high, (jack or 0) * 1.3),
            "stop" if jack is not None and jack < 0 else "good",
            (),
            *sides,
            last,
        )
    total = float(b.total_kg[row])
    if abs(total) < 1e-9:
        return _none("On the ball", "nothing weighs yet")
    state = (
        "stop"
        if tongue < float(s.band.least_kg(total)) or (s.band.limit_kg is not None and tongue > s.band.limit_kg)
        else "good"
        if band[0] <= tongue <= band[1]
        else "mind"
    )
    beside = (
        f"{words.share(float(b.share[row]))} of {words.bare_kg(total)}",
        f"give or take {words.bare_kg(max(float(b.tongue_sigma_kg[row]), 0.0))}",
    )
    weighed = s.measured is not None and bool(s.measured.ball[row])
    title = "On the ball, bars slack" if s.build.rig.weight_distributing else "On the ball"
    return Reading(
        f"{title}, weighed" if weighed else title,
        words.kg(tongue),
        beside,
        tongue,
        float(b.tongue_sigma_kg[row]),
        band,
        s.band.limit_kg,
        high,
        state,
        needles,
        *sides,
        "",
    )


def reading_on(s: Studied, one: Standing, title: str) -> Reading:
    """The gauge of the half-built thing, tanks empty. Args: title: of which day."""
    words = Words(s.build.brief.reading.shown())
    if one.total_kg <= 0:
        return _none(title, "nothing stands there yet")
    if s.build.rig.carrier == "vehicle bed" and len(one.axle_kg) > 1:
        made = _none(title, f"front {words.kg(one.axle_kg[0])}")
        return msgspec.structs.replace(
            made, big=words.kg(one.axle_kg[1]), beside=(f"on the rear axle, {words.kg(one.axle_kg[0])} in front", "")
        )
    if one.tongue_kg is None or one.share is None:
        why = f"{words.kg(one.total_kg)} without wheels" if not one.on_wheels else f"{words.kg(one.total_kg)}, ball not known"
        return _none(title, why)
    most = max(one.tongue_kg, one.band_kg[1] if one.band_kg else 0.0, 1.0) * 1.4
    return msgspec.structs.replace(
        _none(title, ""),
        big=words.kg(one.tongue_kg),
        beside=(f"{words.share(one.share)} of {words.bare_kg(one.total_kg)}", ""),
        kg=one.tongue_kg,
        band=one.band_kg,
        most_kg=most,
        state="none" if one.band_kg is None else "mind" if one.off_band else "good",
    )


def _needle(s: Studied, at: int, words: Words) -> Needle:
    kg, (low, high) = float(s.readings.tongue_kg[at]), s.readings.band_kg[at]
    return Needle(s.table.cases[at].name, s.table.cases[at].id, kg, not low - 1e-6 <= kg <= high + 1e-6, words.bare_kg(kg))


def _bed(s: Studied, row: int, words: Words, sides: tuple[str, str, float | None, str]) -> Reading:
    if s.support is None:
        return _none("Rear axle", _why_none(s, "no wheelbase yet"))
    b, bed = s.readings, s.build.rig.bed
    rear, front = float(b.axle_kg[row, 1]), float(b.axle_kg[row, 0])
    rating = bed.rear_rating.si if bed.rear_rating else None
    least = float(least_front_kg(bed, b.total_kg)[row])
    front_rating = bed.front_rating.si if bed.front_rating else None
    bad = (rating is not None and rear > rating) or (front_rating is not None and front > front_rating)
    needles = tuple(
        Needle(
            case.name,
            case.id,
            float(b.axle_kg[at, 1]),
            rating is not None and float(b.axle_kg[at, 1]) > rating,
            words.bare_kg(float(b.axle_kg[at, 1])),
        )
        for at, case in enumerate(s.table.cases)
    )
    spare = payload_left_kg(s, row)
    left = "" if spare is None else f"{words.kg(spare)} left" if spare >= 0 else f"{words.kg(-spare)} too much"
    high = max([rear * 1.1, *(n.kg for n in needles), *([rating] if rating else [])]) * 1.06
    return Reading(
        "Rear axle",
        words.kg(rear),
        (f"front {words.kg(front)}", left),
        rear,
        float(load_sigma_kg(s)[row]),
        None,
        rating,
        high,
        "stop" if bad else "mind" if front < least else "good" if rating and front_rating else "none",
        needles,
        *sides,
        "",
    )


def _sides(s: Studied, row: int, words: Words) -> tuple[str, str, float | None, str]:
    left, right = float(s.readings.left_kg[row]), float(s.readings.right_kg[row])
    if np.isnan(left) or left + right <= 0:
        return "", "", None, "no track width yet"
    lean = (right - left) / (left + right)
    words_ = "level" if abs(lean) < 0.002 else f"{words.share(abs(lean))} heavy {'right' if lean > 0 else 'left'}"
    return f"{words.bare_kg(left)} left", f"{words.bare_kg(right)} right", lean, words_


def _why_none(s: Studied, usual: str) -> str:
    hidden = next((unknown for unknown in s.unknown if unknown.hides == "reading"), None)
    return "see what it says" if s.trouble else (hidden.short or hidden.says) if hidden is not None else usual


def _none(title: str, why: str) -> Reading:
    return Reading(
        title,
        "–",
        beside=(why, ""),
        kg=None,
        sigma_kg=0.0,
        band=None,
        limit_kg=None,
        most_kg=1.0,
        state="none",
        needles=(),
        left="",
        right="",
        lean=None,
        lean_words="",
        last="",
    )
