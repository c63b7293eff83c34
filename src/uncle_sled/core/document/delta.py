"""What changed from one frozen document to the next, found by identity, and put on again elsewhere.

A copy that is kept in step so keeps the very same objects for everything that did not change, and with them every
result that was kept by identity.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any, NamedTuple, TypeVar

import msgspec

T = TypeVar("T")
Path = tuple[str | int, ...]


class Change(NamedTuple):
    """At ``path`` (field names and places in lists) stands ``value`` now; a splice puts a run of a list in its place."""

    path: Path
    value: Any
    splice: tuple[int, int] | None = None


def changes(old: Any, new: Any, path: Path = ()) -> Iterator[Change]:
    """What takes ``old`` to ``new``; parts that are the same object are not looked into."""
    if old is new:
        return
    if type(old) is type(new) and isinstance(new, msgspec.Struct):
        for name in new.__struct_fields__:
            yield from changes(getattr(old, name), getattr(new, name), (*path, name))
    elif isinstance(old, tuple) and isinstance(new, tuple) and type(old) is type(new) is tuple:
        yield from _in_list(old, new, path)
    elif old != new or type(old) is not type(new):
        yield Change(path, new)


def _in_list(old: tuple[Any, ...], new: tuple[Any, ...], path: Path) -> Iterator[Change]:
    first, least = 0, min(len(old), len(new))
    while first < least and old[first] is new[first]:
        first += 1
    last = 0
    while last < least - first and old[-1 - last] is new[-1 - last]:
        last += 1
    if len(old) == len(new):
        for at in range(first, len(old) - last):
            yield from changes(old[at], new[at], (*path, at))
    else:
        yield Change(path, new[first : len(new) - last], (first, len(old) - last))


def put_on(old: T, made: tuple[Change, ...]) -> T:
    """``old`` with the changes put on; what they do not name stays the very same object."""
    new: Any = old
    for change in made:
        new = _put(new, change.path, change)
    result: T = new
    return result


def _put(node: Any, path: Path, change: Change) -> Any:
    if not path:
        if change.splice is None:
            return change.value
        start, end = change.splice
        return (*node[:start], *change.value, *node[end:])
    step, rest = path[0], path[1:]
    if isinstance(step, str):
        return msgspec.structs.replace(node, **{step: _put(getattr(node, step), rest, change)})
    return (*node[:step], _put(node[step], rest, change), *node[step + 1 :])
