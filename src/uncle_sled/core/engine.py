"""Results that are kept: a study whose inputs are the same is not run again.

Frozen inputs are found again by identity, so that nothing is compared value by value in a frame. These verbs are the
only place of the core that remembers anything, besides tables of pure functions of plain values (functools). ``proved``
runs everything that was kept once more, fresh, and compares: the one test of them all.
"""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterator
from contextlib import contextmanager
from datetime import date
from functools import wraps
from inspect import signature
from itertools import islice
from operator import attrgetter
from typing import Any, ParamSpec, TypeVar

from uncle_sled.core.sameness import places_changed

P = ParamSpec("P")
R = TypeVar("R")
T = TypeVar("T")

Proof = Callable[[str, Any, Any], None]  # name of a study, what was kept of it, what it gives fresh
_proof: list[Proof] = []
_seen: dict[tuple[int, ...], tuple[Any, ...]] = {}  # what was proved within this, and its inputs, so that no id comes twice
_tables: list[Callable[[], None]] = []  # empties one table each


def forget() -> None:
    """Let go of everything that is kept: another build is open, and nothing of the last one will be asked again."""
    for empty in _tables:
        empty()


@contextmanager
def proved(proof: Proof) -> Iterator[None]:
    """Within this, every result that was kept is worked out fresh as well and both are given to ``proof``."""
    _proof.append(proof)
    _seen.clear()
    try:
        yield
    finally:
        _proof.pop()
        _seen.clear()


def _kept(study: Callable[..., R], args: tuple[Any, ...], result: R) -> R:
    seen = (id(study), *map(id, args))
    if _proof and seen not in _seen:  # asked once more for the very same objects, it was proved already
        _seen[seen] = args
        proof = _proof.pop()  # what it calls in turn is proved when it is asked for by itself
        try:
            fresh = study(*args)
        finally:
            _proof.append(proof)
        proof(f"{study.__module__}.{study.__qualname__}", result, fresh)
    return result


class Same:
    """A key by identity; it holds what it stands for, so that an id is never that of another object."""

    __slots__ = ("one",)

    def __init__(self, one: object) -> None:
        self.one = one

    def __hash__(self) -> int:
        return id(self.one)

    def __eq__(self, other: object) -> bool:
        return type(other) is Same and other.one is self.one


# what is compared by its value; everything else is the same only where it is the same object
PLAIN = frozenset({int, float, str, bool, bytes, type(None), date})

MOST_OF_ONE = 24  # a thing in all its modes and views, before and after a move
ROOM = 1  # times what a study keeps at the most; whoever looks at many builds in turn has room for more of them
MANY = 64  # so long a tuple is marked once while it is the same one
MOST_MARKED = 16
_marks: dict[int, tuple[tuple[Any, ...], Hashable]] = {}  # by id; the tuple stays alive with its mark
_tables.append(_marks.clear)


class _Value:
    """A read that is compared by its value."""

    __slots__ = ("read",)

    def __init__(self, read: str | Callable[..., Any]) -> None:
        self.read = read


def by_value(read: str | Callable[..., Any]) -> Any:
    """A read whose objects are made anew each time: it is compared by its value, hashed as a whole."""
    return _Value(read)


def _mark(read: Any) -> Hashable:
    """What stands for something read in a key. An id is negative there, so that no number is taken for one."""
    return read if type(read) in PLAIN else -id(read)  # type: ignore[no-any-return]


def _mark_of_each(read: Any) -> Hashable:
    """The same, for a tuple that was made anew by what is in it."""
    if type(read) is not tuple:
        return _mark(read)
    if len(read) < MANY:
        return tuple([_mark_of_each(one) for one in read])
    found = _marks.get(id(read))
    if found is None:
        found = _marks[id(read)] = (read, tuple([_mark_of_each(one) for one in read]))
        if len(_marks) > MOST_MARKED:
            del _marks[next(iter(_marks))]
    return found[1]


def _at(name: str, names: list[str]) -> int:
    if name not in names:
        raise ValueError(f"{name} is read, but it is no input of the study; {', '.join(names)} would be right.")
    return names.index(name)


def _reader(read: str | Callable[..., Any], names: list[str]) -> Callable[[tuple[Any, ...]], Any]:
    """Takes a study's inputs, gives what a read names of them."""
    if not isinstance(read, str):
        wants = [_at(parameter, names) for parameter in signature(read).parameters]
        return lambda args: read(*[args[at] for at in wants])
    name, _, fields = read.partition(".")
    at = _at(name, names)
    if not fields:
        return lambda args: args[at]
    of = attrgetter(fields)
    return lambda args: of(args[at])


def keep(*reads: Any, most: int = 2, of: str = "") -> Callable[[Callable[P, R]], Callable[P, R]]:
    """Keep the newest results of a pure function, found again while all that it reads is the same.

    Args:
        reads: What it reads. A path into its inputs by name, as ``"build.shell"``; another function of some of its inputs,
            by their names, whose result is read; either within ``by_value`` where it is compared by value. Objects are the
            same by identity, numbers and words by value, tuples that a function gives by what is in them. None: all inputs.
        most: How many results are kept.
        of: A path to the id of what it is about, where that is one of very many: what is moved about leaves no more than
            the newest ``MOST_OF_ONE`` of its own.
    """

    def around(study: Callable[P, R]) -> Callable[P, R]:
        inputs = signature(study).parameters
        names, defaults = list(inputs), [each_input.default for each_input in inputs.values()]
        plain = [_reader(read, names) for read in reads if isinstance(read, str)]
        deep = [_reader(read, names) for read in reads if not isinstance(read, str | _Value)]
        valued = [_reader(value.read, names) for value in reads if isinstance(value, _Value)]
        every = not reads
        whose = _reader(of, names) if of else None
        of_one: dict[Any, list[Hashable]] = {}
        kept: dict[Hashable, tuple[Any, R]] = {}
        _tables.extend((kept.clear, of_one.clear))

        @wraps(study)
        def run(*args: P.args, **kwargs: P.kwargs) -> R:
            full: tuple[Any, ...] = args
            if len(args) != len(names):
                full = (*args, *[kwargs.get(name, given) for name, given in zip(names[len(args) :], defaults[len(args) :], strict=True)])
            objects = full if every else [read(full) for read in plain]
            key: Any = tuple([_mark(each_object) for each_object in objects])
            held: Any = objects  # what is known by its id stays alive with its result
            if deep:
                more = [read(full) for read in deep]
                key, held = (key, *[_mark_of_each(one) for one in more]), (objects, more)
            if valued:
                key = (key, *[read(full) for read in valued])
            found = kept.get(key)
            if found is not None:
                return found[1] if not _proof else _kept(study, full, found[1])
            result = study(*args, **kwargs)
            kept[key] = (held, result)
            if whose is not None:
                own = of_one.setdefault(whose(full), [])
                own.append(key)
                if len(own) > MOST_OF_ONE:
                    kept.pop(own.pop(0), None)
            if len(kept) > most * ROOM:  # of many the oldest eighth at once: to find the very oldest costs as much as there are
                for old in list(islice(kept, max(most * ROOM // 8, 1))):
                    del kept[old]
            return result

        return run

    return around


def keep_each(made: Callable[[T], R]) -> Callable[[tuple[T, ...]], tuple[R, ...]]:
    """Map a pure function over a tuple of frozen objects; those that were in the last tuple keep their results."""
    last: tuple[tuple[T, ...], tuple[R, ...]] = ((), ())

    def fresh(items: tuple[T, ...]) -> tuple[R, ...]:
        return tuple([made(item) for item in items])

    def empty() -> None:
        nonlocal last
        last = ((), ())

    _tables.append(empty)

    @wraps(made)
    def run(items: tuple[T, ...]) -> tuple[R, ...]:
        nonlocal last
        before, results = last
        if items is before:
            return results
        if len(items) == len(before):
            anew = {at: new for at in places_changed(before, items) if (new := made(items[at])) is not results[at]}
            if anew:
                again = list(results)
                for at, new in anew.items():
                    again[at] = new
                results = tuple(again)
        else:
            kept = {id(one): at for at, one in enumerate(before)}
            at_of = [kept.get(id(item)) for item in items]
            results = tuple([made(item) if at is None else results[at] for item, at in zip(items, at_of, strict=True)])
        last = (items, results)
        return results if not _proof else _kept(wraps(made)(fresh), (items,), results)

    return run


def from_last(
    again: Callable[..., R | None], lane: Callable[..., Hashable] = lambda *_args: None, most: int = 1
) -> Callable[[Callable[P, R]], Callable[P, R]]:
    """Make a result from the last one of its lane, where little has changed since.

    Args:
        again: Takes the last result and the inputs; gives the new result, or None where too much has changed.
        lane: Which line of results a call belongs to (a mode, say).
        most: How many lanes are remembered.
    """

    def around(study: Callable[P, R]) -> Callable[P, R]:
        last: dict[Hashable, R] = {}
        _tables.append(last.clear)

        @wraps(study)
        def run(*args: P.args, **kwargs: P.kwargs) -> R:
            assert not kwargs, "kept studies take their inputs by position"
            key = lane(*args)
            made = again(last.pop(key), *args) if key in last else None
            result = study(*args, **kwargs) if made is None else made if not _proof else _kept(study, args, made)
            last[key] = result
            while len(last) > most:
                del last[next(iter(last))]
            return result

        return run

    return around
