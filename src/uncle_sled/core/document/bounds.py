"""What a build can be at the most: the limits that the models carry, and those that only a look at the whole can tell."""

from __future__ import annotations

import re
from collections import Counter
from functools import cache
from typing import Annotated, Any, Literal, NamedTuple, get_args, get_origin

import msgspec

from uncle_sled.core.document.quantity import Length, Quantity

# A figure that is never below nothing; any number; a count of seats, straps or degrees.
Figure = Annotated[float, msgspec.Meta(ge=0.0, le=1e9)]
Number = Annotated[float, msgspec.Meta(ge=-1e9, le=1e9)]
Ratio = Annotated[float, msgspec.Meta(ge=-50.0, le=50.0)]  # of a body's length or height; handles aim outside
Count = Annotated[int, msgspec.Meta(ge=0, le=10_000)]

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
}
# Lengths that say where something is; every other one says how large it is and is never below nothing.
_OF_THINGS = ("x", "y", "z", "dx", "dy", "dz", "cg_dx", "cg_dy", "cg_dz")
_OF_THE_BODY = ("front", "by", "along", "up", "weight_at")
_OF_THE_RIG = ("station", "frame_cg", "bed_front", "bed_top", "jack_station", "stabiliser_station", "bumper")
PLACES = frozenset((*_OF_THINGS, *_OF_THE_BODY, *_OF_THE_RIG, "ball_overhang", "reference_height"))
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
def inner_fields(kind: Any) -> tuple[Inner, ...]:
    """Fields of a model that hold a quantity, a model, or a list of models or words."""
    plan = []
    for field in msgspec.structs.fields(kind):
        annotation = bare(field.type)
        models = [annotation, *map(bare, get_args(annotation))]
        model = next((one for one in models if isinstance(one, type) and issubclass(one, msgspec.Struct)), None)
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
    return faults


def look_over(node: Any, place: str, faults: list[str], typed: list[tuple[str, Quantity]]) -> None:
    """One walk over all below a model: faults into ``faults``, and what was typed, with its place, into ``typed``."""
    kind: Any = type(node)
    for name, what, _ in inner_fields(kind):
        value = getattr(node, name)
        if not value:
            continue
        if what == "quantity":
            if value.si < 0:  # asked here too, because hardly any is
                faults += below_nothing(value, name, place)
            if value.typed is not None:
                typed.append((f"{place}{name}", value))
        elif what == "model":
            look_over(value, f"{place}{name}.", faults, typed)
        else:
            if len(value) > MOST_OF.get(name, MOST_ITEMS):
                most = MOST_OF.get(name, MOST_ITEMS)
                faults.append(f"{place}{name}: {len(value)} of them; {most} is the most a build holds.")
            if what == "list":
                faults += _wrong_ids(value, f"{place}{name}")
                for at, item in enumerate(value):
                    look_over(item, f"{place}{name}.{getattr(item, 'id', at)}.", faults, typed)


def _wrong_ids(items: tuple[Any, ...], where: str) -> list[str]:
    """Ids of a list that stand there twice, or that no place can name."""
    if not hasattr(items[0], "id"):
        return []
    seen = Counter([item.id for item in items])
    faults = [f"{where}: the id “{one}” is used more than once." for one, times in seen.items() if times > 1]
    wrong = [one for one in seen if not one or "." in one or UNSEEN.search(one)]
    return faults + [f"{where}: the id “{one}” is empty or holds a dot or a sign that cannot be seen." for one in wrong]


def below_nothing(value: Quantity, name: str, place: str) -> list[str]:
    """A size below nothing, in words."""
    if value.si >= 0 or (isinstance(value, Length) and name in PLACES):
        return []
    return [f"{place}{name}: {value.si} is negative; it must be 0 or more."]
