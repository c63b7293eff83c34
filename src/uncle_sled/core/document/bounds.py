"""What a build can be at the most: the limits that the models carry, and those that only a look at the whole can tell."""

from __future__ import annotations

import re
from collections import Counter
from functools import cache
from typing import Annotated, Any, Literal, NamedTuple, get_args, get_origin

import msgspec

from uncle_sled.core.document.quantity import Length, Quantity, Temperature

# A figure that is never below nothing; any number; a count of seats, straps or degrees.
Figure = Annotated[float, msgspec.Meta(ge=0.0, le=1e9)]
Number = Annotated[float, msgspec.Meta(ge=-1e9, le=1e9)]
Ratio = Annotated[float, msgspec.Meta(ge=-50.0, le=50.0)]  # of a body's length or height; handles aim outside
Share = Annotated[float, msgspec.Meta(ge=0.0, le=1.0)]
Angle = Annotated[float, msgspec.Meta(ge=0.0, le=90.0)]  # degrees
Turn = Annotated[float, msgspec.Meta(ge=-180.0, le=180.0)]  # degrees
Latitude = Annotated[float, msgspec.Meta(ge=-90.0, le=90.0)]  # degrees, north positive
Month = Annotated[int, msgspec.Meta(ge=1, le=12)]
Hours = Annotated[float, msgspec.Meta(ge=0.0, le=24.0)]  # of a day
Count = Annotated[int, msgspec.Meta(ge=0, le=10_000)]
Few = Annotated[int, msgspec.Meta(ge=0, le=50)]  # what a hand counts: sheaves, parts of a rope

# Letters of an id or a name, and of what is told at length.
Word = Annotated[str, msgspec.Meta(max_length=10_000)]
Story = Annotated[str, msgspec.Meta(max_length=50_000)]

MOST_ITEMS = 10_000
# Lists that no drawing needs longer than this.
MOST_OF = {
    "axles": 12,
    "profile": 200,
    "outline": 200,
    "layers": 60,
    "states": 2_000,
    "clear": 60,
    "faces": 200,
    "openings": 500,
    "variants": 500,
    "modes": 100,
    "cases": 200,
    "sleepers": 50,
    "people": 200,
    "vehicles": 200,
    "shade": 24,
    "drawn": 24,
    "shaded": 500,
    "months": 12,
    "wires": 500,
    "devices": 500,
    "loads": 500,
    "trays": 50,
    "bends": 60,
    "sizes": 500,
    "tickets": 500,
    "corrections": 200,
    "trips": 500,
    "wishes": 500,
    "blocks": 40,
    "changes": 2_000,
    "log": 5_000,
    "lifts": 60,
    "ticks": 2_000,
    "pins": 500,
    "numbers": 5_000,
    "bought": 2_000,
    "printed": 2_000,
    "bays": 12,
    "holes": 40,
}
# Lengths that say where something is; every other one says how large it is and is never below nothing.
_OF_THINGS = ("x", "y", "z", "dx", "dy", "dz", "cg_dx", "cg_dy", "cg_dz")
_OF_THE_BODY = ("front", "by", "along", "up", "weight_at")
_OF_STRUTS = ("body_x", "body_z", "lid_x", "lid_z")
_OF_THE_RIG = ("station", "frame_cg", "frame_mended", "bed_front", "bed_top", "jack_station", "stabiliser_station", "bumper")
PLACES = frozenset((*_OF_THINGS, *_OF_THE_BODY, *_OF_STRUTS, *_OF_THE_RIG, "ball_overhang"))
# Limits: 0 is none, and none is left empty.
_OF_PLATES = ("rating", "rated", "gross_total", "axle_group", "front_rating", "rear_rating", "gross_rating")
_OF_FITTINGS = ("coupler_rating", "hitch_rating", "jack_rating", "stabiliser_rating", "chain_rating")
_OF_CARS = ("unbraked_limit", "tongue_limit", "tow_limit", "train_limit", "rear_axle_rating", "front_axle_rating")
RATINGS = frozenset((*_OF_PLATES, *_OF_FITTINGS, *_OF_CARS, "road_height", "road_width", "road_length"))
# Sizes of which nothing at all is never one: not known is what they are then.
NEVER_NOTHING = frozenset({("Wire", "length")})
NEVER_NONE = {"Wire": ("area_mm2",)}  # the same of plain figures
MORE_THAN_NONE = "0 is none; it must be more than 0, or empty where it is not known."
# Signs that no name holds: they cannot be seen, printed or written to XML.
STRANGE = re.compile("[\x00-\x08\x0b-\x1f\x7f\ufffe\uffff]")
UNSEEN = re.compile("[\x00-\x1f\x7f\ufffe\uffff]")


def bare(kind: Any) -> Any:
    """A type without its limits."""
    return get_args(kind)[0] if get_origin(kind) is Annotated else kind


class Inner(NamedTuple):
    """A field that holds more than a plain value; ``model`` is what it holds, or holds a list of."""

    name: str
    what: Literal["quantity", "model", "list", "words"]
    model: Any


@cache
def fields_of(kind: Any) -> tuple[msgspec.structs.FieldInfo, ...]:
    """Fields of a model with their types; asked once, as every word of a type is worked out anew each time."""
    return msgspec.structs.fields(kind)


@cache
def inner_fields(kind: Any) -> tuple[Inner, ...]:
    """Fields of a model that hold a quantity, a model, or a list of models or words."""
    plan = []
    for field in fields_of(kind):
        annotation = bare(field.type)
        models = [annotation, *map(bare, get_args(annotation))]
        model = next((model for model in models if isinstance(model, type) and issubclass(model, msgspec.Struct)), None)
        if field.name == "unknown":
            continue
        if get_origin(annotation) is tuple:
            plan.append(Inner(field.name, "list" if model is not None else "words", model))
        elif model is not None:
            plan.append(Inner(field.name, "quantity" if issubclass(model, Quantity) else "model", model))
    return tuple(plan)


def beyond(value: Any, name: str = "") -> list[str]:
    """What is too many, less than nothing or named twice in a value or anywhere below it, in words.

    Args: name: the field that holds the value, where it is a quantity.
    """
    if isinstance(value, Quantity):
        return below_nothing(value, name, "")
    faults: list[str] = []
    if isinstance(value, msgspec.Struct):
        look_over(value, "", faults, [])
    elif isinstance(value, tuple) and value:
        _look_over_list(value, name, faults, [])
    return faults


def look_over(node: Any, place: str, faults: list[str], typed: list[tuple[str, Quantity]]) -> None:
    """One walk over all below a model: faults into ``faults``, and what was typed, with its place, into ``typed``."""
    kind: Any = type(node)
    for name, what, _ in inner_fields(kind):
        value = getattr(node, name)
        if not value:
            continue
        if what == "quantity":
            if value.si <= 0:  # asked here too, because hardly any is
                faults += below_nothing(value, name, place)
                if none_at_all(kind, name, value):
                    faults.append(f"{place}{name}: {MORE_THAN_NONE}")
            if value.typed is not None:
                typed.append((f"{place}{name}", value))
        elif what == "model":
            look_over(value, f"{place}{name}.", faults, typed)
        else:
            _look_over_list(value, f"{place}{name}", faults, typed)
    for name in NEVER_NONE.get(kind.__name__, ()):
        if none_at_all(kind, name, getattr(node, name)):
            faults.append(f"{place}{name}: {MORE_THAN_NONE}")


def none_at_all(kind: Any, name: str, value: Any) -> bool:
    """Whether a size is 0 that can only be more, or not known."""
    if isinstance(value, Quantity):
        return value.si == 0 and (kind.__name__, name) in NEVER_NOTHING
    return value == 0 and name in NEVER_NONE.get(kind.__name__, ())


def too_many(name: str, number: int) -> str | None:
    """A list that is longer than a build holds, in words. Args: name: its place, the last part of it the field."""
    most = MOST_OF.get(name.rpartition(".")[2], MOST_ITEMS)
    return f"{name}: {number} of them; {most} is the most a build holds." if number > most else None


def _look_over_list(items: tuple[Any, ...], where: str, faults: list[str], typed: list[tuple[str, Quantity]]) -> None:
    many = too_many(where, len(items))
    if many is not None:
        faults.append(many)
    if isinstance(items[0], msgspec.Struct):
        faults += _wrong_ids(items, where)
        for at, item in enumerate(items):
            look_over(item, f"{where}.{getattr(item, 'id', at)}.", faults, typed)


def _wrong_ids(items: tuple[Any, ...], where: str) -> list[str]:
    """Ids of a list that stand there twice, or that no place can name."""
    if not hasattr(items[0], "id"):
        return []
    seen = Counter([item.id for item in items])
    faults = [f"{where}: the id “{one}” is used more than once." for one, times in seen.items() if times > 1]
    wrong = [one for one in seen if not one or "." in one or UNSEEN.search(one)]
    return faults + [f"{where}: the id “{one}” is empty or holds a dot or a sign that cannot be seen." for one in wrong]


def below_nothing(value: Quantity, name: str, place: str) -> list[str]:
    """A size below nothing, or a limit of nothing, in words."""
    if name in RATINGS and value.si <= 0:
        return [f"{place}{name}: {value.si:g} is no limit; it must be more than 0, or empty where it is not known."]
    if value.si >= 0 or isinstance(value, Temperature) or (isinstance(value, Length) and name in PLACES):
        return []
    return [f"{place}{name}: {value.si} is negative; it must be 0 or more."]
