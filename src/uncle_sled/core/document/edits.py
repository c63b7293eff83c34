"""The one door through which a project changes: a list of ops, applied to frozen models.

An op names its place by field names and ids (``stow.things.t3.x``). What an edit does not
name stays the very same object, so results that were computed from it stay good.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator
from functools import cache
from typing import Annotated, Any, Literal, TypeVar, get_args, get_origin

import msgspec

from uncle_sled.core.document.bounds import MORE_THAN_NONE, STRANGE, beyond, fields_of, none_at_all, too_many
from uncle_sled.core.errors import EditError

S = TypeVar("S", bound=msgspec.Struct)


class Op(msgspec.Struct, frozen=True):
    """One change: set the place to a value, add a value to the list there, or remove the place."""

    op: Literal["set", "add", "remove"]
    path: str
    value: Any = None


def set_to(path: str, value: Any) -> Op:
    """An edit that puts a value at a place of the document, such as ``rig.track``."""
    return Op("set", path, value)


def add_to(path: str, value: Any) -> Op:
    """An edit that adds an item to a list of the document."""
    return Op("add", path, value)


def remove(path: str) -> Op:
    """An edit that takes an item off by its place, such as ``stow.things.t1``."""
    return Op("remove", path)


def apply(root: S, ops: Iterable[Op]) -> S:
    """The project or build after the ops; the same object where nothing changed.

    Raises: EditError: names the place that is not there, or the value that does not fit.
    """
    for op, added in _in_runs(ops):
        root = _change(root, op.path.split("."), op, op.path, added)
    return root


def _in_runs(ops: Iterable[Op]) -> Iterator[tuple[Op, list[Any]]]:
    """Ops in their order, those in a row that add to one list as one: one by one a list of thousands takes their square."""
    first: Op | None = None
    added: list[Any] = []
    for op in ops:
        if first is not None and op.op == first.op == "add" and op.path == first.path:
            added.append(op.value)
            continue
        if first is not None:
            yield first, added
        first, added = op, [op.value]
    if first is not None:
        yield first, added


def field_types(kind: Any) -> dict[str, Any]:
    """Names and types of a model's fields."""
    return _field_types(kind)


@cache
def _field_types(kind: Any) -> dict[str, Any]:
    return {field.name: field.type for field in fields_of(kind)}


def _change(node: Any, segments: list[str], op: Op, path: str, added: list[Any]) -> Any:
    """A node after an op; ``added`` are the values of one that adds."""
    if isinstance(node, msgspec.Struct):
        return _change_field(node, segments, op, path, added)
    return _change_item(node, segments, op, path, added)


def _change_field(node: msgspec.Struct, segments: list[str], op: Op, path: str, added: list[Any]) -> Any:
    name, rest = segments[0], segments[1:]
    types = field_types(type(node))
    if name not in types:
        raise EditError(f"There is no “{name}” in {path}; there are {', '.join(types)}.")
    old = getattr(node, name)
    if rest:
        if old is None:
            raise EditError(f"{path}: nothing is set at “{name}” yet, so nothing inside it can change.")
        new = _change(old, rest, op, path, added) if isinstance(old, (msgspec.Struct, tuple)) else _no_inside(name, path)
        if new == () and any(getattr(meta, "min_length", None) for meta in getattr(types[name], "__metadata__", ())):
            raise EditError(f"{path}: the last of them stays; one at least is needed.")
    elif op.op == "set":
        new = _converted(op.value, types[name], path)
        if none_at_all(type(node), name, new):
            raise EditError(f"{path}: {MORE_THAN_NONE}")
    elif op.op == "add":
        if not isinstance(old, tuple):
            raise EditError(f"{path} is not a list, so nothing can be added to it.")
        listed = get_args(types[name])[0] if get_origin(types[name]) is Annotated else types[name]
        new = (*old, *_items_added(old, added, get_args(listed)[0], path))
    else:
        raise EditError(f"{path} is a field of its own and cannot be removed; set it to nothing instead.")
    return node if new is old or new == old else msgspec.structs.replace(node, **{name: new})


def _items_added(old: tuple[Any, ...], added: list[Any], kind: Any, path: str) -> Iterator[Any]:
    """The items of a list that values make. Raises: EditError: an id that is there already, or more than a list holds."""
    taken = {item.id for item in old if hasattr(item, "id")}
    for at, value in enumerate(added, 1):
        item = _converted(value, kind, path)
        id = getattr(item, "id", None)
        if id is not None and id in taken:
            raise EditError(f"{path} holds “{id}” already; an id is used once.")
        many = too_many(path, len(old) + at)
        if many is not None:
            raise EditError(many)
        taken.add(id)
        yield item


def _change_item(items: tuple[Any, ...], segments: list[str], op: Op, path: str, added: list[Any]) -> Any:
    wanted, rest = segments[0], segments[1:]
    at = next((at for at, item in enumerate(items) if getattr(item, "id", item) == wanted), None)
    if at is None:
        raise EditError(f"There is no “{wanted}” in {path}.")
    item = items[at]
    if op.op == "remove" and not rest:
        return items[:at] + items[at + 1 :]
    new = _change(item, rest, op, path, added) if rest else _converted(op.value, type(item), path)
    return items if new is item else (*items[:at], new, *items[at + 1 :])


def _no_inside(name: str, path: str) -> Any:
    raise EditError(f"{path}: “{name}” has no parts of its own.")


def _converted(value: Any, kind: Any, path: str) -> Any:
    if isinstance(value, msgspec.Struct) or (isinstance(value, tuple) and all(isinstance(v, msgspec.Struct) for v in value)):
        value = msgspec.to_builtins(value)
    elif isinstance(value, str):
        value = STRANGE.sub(" ", value)
    try:
        made = msgspec.convert(value, kind, strict=True)
    except msgspec.ValidationError as fault:
        raise EditError(f"{path}: {_in_words(str(fault))}.") from None
    for one in beyond(made, path.rpartition(".")[2]):
        raise EditError(one)
    return made


def _in_words(fault: str) -> str:
    limit = re.search(r"Expected `(?:float|int)` ([<>])= (-?[\d.e+]+)", fault)
    if not limit:
        return fault
    return f"it must be {float(limit.group(2)):g} or {'more' if limit.group(1) == '>' else 'less'}, in metres, kilograms and the like"


def get(root: Any, path: str) -> Any:
    """What stands at a path. Raises: EditError: where nothing stands there."""
    node = root
    for segment in path.split("."):
        if isinstance(node, tuple):
            node = next((item for item in node if getattr(item, "id", item) == segment), None)
            if node is None:
                raise EditError(f"There is no “{segment}” in {path}.")
        elif isinstance(node, msgspec.Struct) and segment in field_types(type(node)):
            node = getattr(node, segment)
        else:
            raise EditError(f"There is no “{segment}” in {path}.")
    return node


def untyped_length(si: float) -> dict[str, Any]:
    """A length that nobody typed, as plain data, to a millimetre [m]."""
    return {"si": round(si, 3), "typed": None}


def next_name(name: str, taken: Iterable[str]) -> str:
    """A name for one more of a kind: as it is, or with the number that comes next."""
    many = sum(1 for other in taken if other == name or other.startswith(f"{name} "))
    return f"{name} {many + 1}" if many else name


def fresh_id(prefix: str, taken: Iterable[str]) -> str:
    """A short id that was not used in the list: one above the highest of its prefix."""
    numbers = [int(m.group(1)) for one in taken if (m := re.fullmatch(rf"{re.escape(prefix)}(\d+)", one))]
    return f"{prefix}{max(numbers, default=0) + 1}"
