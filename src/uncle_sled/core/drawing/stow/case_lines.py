"""Load cases side by side: the lines that are told of each, and what stands in them."""

from __future__ import annotations

import math
from typing import Any, Literal

import msgspec

from uncle_sled.core.document.stow import Thing
from uncle_sled.core.reading.limits import axle_ratings_kg
from uncle_sled.core.reading.load_cases import Case
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.balance.sureness import chances
from uncle_sled.core.studies.balance.tow_vehicle import front_axle, most_total_kg, payload_left_kg, rear_axle
from uncle_sled.core.words import Words

Kind = Literal["reading", "level", "aboard", "head"]


class Line(msgspec.Struct, frozen=True):
    """One line: what it shows, and the thing whose level or presence it is."""

    title: str
    kind: Kind
    key: str
    thing: Thing | None = None


def case_lines(s: Studied) -> list[Line]:
    """What is told of every case, a line each: its reading, the tanks with their levels, and what comes along."""
    build, facts = s.build, s.facts
    bed = build.rig.carrier == "vehicle bed"
    names = [("total", "Whole weight")]
    if not bed:
        names += [("tongue", "On the ball"), ("share", "Share"), ("want", "Want"), ("chance", "Chance in band")]
    count = len(s.readings.axle_kg[0]) if len(s.readings.axle_kg) else 0
    if bed and count == 2:
        names += [("axle0", "Front axle"), ("axle1", "Rear axle"), ("within", "Chance within")]
    else:
        names += [(f"axle{k}", "Axle" if count == 1 else f"Axle {k + 1}") for k in range(count)]
    names += [("left", "Left wheels"), ("right", "Right wheels"), ("cgx", "Weight at"), ("cgz", "Weight up at")]
    names += [("payload", "Payload left")]
    if not bed and any(v.wheelbase and v.rear_empty for v in facts.vehicles):
        names.append(("car", "Car's rear axle"))
    if not bed and any(v.wheelbase and v.front_empty and v.ball_overhang for v in facts.vehicles):
        names.append(("nose", "Car's front axle"))
    lines = [Line(title, "reading", key) for key, title in names]
    tanks = [t for t in build.stow.things if t.tank]
    if tanks:
        lines += [Line("Levels", "head", "levels"), *(Line(t.name, "level", t.id, t) for t in tanks)]
    goes = [t for t in build.stow.things if t.cargo or t.kind in ("vehicle aboard", "spare wheel")]
    if goes:
        lines += [Line("Aboard", "head", "aboard"), *(Line(t.name, "aboard", t.id, t) for t in goes)]
    return lines


def reading_of(s: Studied, key: str, row: int, words: Words) -> tuple[str, str]:
    """One figure of a case and its ink: red over its limit, ochre out of its band."""
    b, case = s.readings, s.table.cases[row]
    if key == "total":
        return _kg(b.total_kg[row], words), over(b.total_kg[row], most_total_kg(s))
    if key.startswith("axle"):
        number, ratings = int(key[4:]), axle_ratings_kg(s.build.rig)
        if number >= min(b.axle_kg.shape[1], len(ratings)):
            return "–", ""  # it was taken out while the table was not looked at
        return _kg(b.axle_kg[row, number], words), over(b.axle_kg[row, number], ratings[number])
    if key == "within":
        chance = float(chances(s)[row])
        return words.share(chance, 0), "ochre word" if chance < 0.8 else ""
    if key in ("left", "right"):
        return _kg((b.left_kg if key == "left" else b.right_kg)[row], words), ""
    if key in ("cgx", "cgz"):
        at = float(b.cg_m[row, 0 if key == "cgx" else 2])
        return ("–" if math.isnan(at) else words.m(at)), ""
    if key == "payload":
        left = payload_left_kg(s, row)
        return ("–", "") if left is None else (words.kg(left), "primer" if left < 0 else "")
    if key in ("nose", "car"):
        axle = (front_axle if key == "nose" else rear_axle)(s, row)
        return ("–", "") if axle is None else (_kg(axle.kg, words), over(axle.kg, axle.rating_kg))
    return _ball(s, key, row, words, case)


def _ball(s: Studied, key: str, row: int, words: Words, case: Case) -> tuple[str, str]:
    b = s.readings
    tongue = float(b.tongue_kg[row])
    if math.isnan(tongue) or not case.mode.towing:
        return "–", ""
    low, high = (float(kg) for kg in b.band_kg[row])
    ink = "" if low <= tongue <= high else "primer" if tongue < 0 else "ochre word"
    if key == "tongue":
        return words.kg(tongue), ink
    if key == "share":
        return words.share(float(b.share[row])), ink
    if key == "want":
        return f"{words.bare_kg(low)} to {words.bare_kg(high)}", ""
    return words.share(float(b.chance[row]), 0), "ochre word" if b.chance[row] < 0.8 else ""


def over(kg: Any, limit_kg: float | None) -> str:
    """The ink of a load: red over its limit."""
    return "primer" if kg is not None and limit_kg is not None and kg > limit_kg else ""


def _kg(value: Any, words: Words) -> str:
    return "–" if value is None or math.isnan(float(value)) else words.kg(float(value))


def read_level(text: str) -> float | None:
    """A level as typed: a percentage, or full, half, empty; None for what is none."""
    body = text.strip().lower().replace("%", "").replace(",", ".").strip()
    words = {"full": 1.0, "half": 0.5, "empty": 0.0, "quarter": 0.25}
    if body in words:
        return words[body]
    try:
        value = float(body) / 100
    except ValueError:
        return None
    return value if 0.0 <= value <= 1.0 else None
