"""What window, trail, finder, keys, pictures and the walk know of a stop: its bench says so itself.

A stop's folder holds ``about.py`` with an ``ABOUT``; it loads neither Qt nor the bench, so that the start waits for none.
"""

from __future__ import annotations

from collections.abc import Callable
from functools import cache
from importlib import import_module
from importlib.util import find_spec
from typing import Any

import msgspec

from uncle_sled.core.document.project import Build, Project
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.trail import STOPS

Ids = tuple[str, ...]


class View(msgspec.Struct, frozen=True):
    """One view of a stop; the first ten on the keys 1 to 9 and 0. ``words`` end the sentence "Show …"."""

    name: str
    words: str
    tip: str = ""
    panel: str = ""  # what shows it, "module:Class" of the stop's folder
    picks: Callable[[Build, Studied], Ids] | None = None  # what is worth having in hand on it, for pictures and the walk


def view_key(number: int) -> str:
    """The key of a stop's views: 1 to 9, 0 for the tenth, none for what comes after it. Args: number: from 1."""
    return str(number % 10) if number <= 10 else ""


class Deed(msgspec.Struct, frozen=True):
    """One thing that can be done on the bench, with its key; ``run`` gets the bench."""

    id: str
    title: str
    key: str
    run: Callable[[Any], object]


class Shot(msgspec.Struct, frozen=True):
    """A picture for the docs: the view it shows, and what is made ready before it and put away after."""

    name: str
    view: str = ""
    ready: Callable[[Any], object] | None = None
    after: Callable[[Any], object] | None = None
    standing: bool = False  # in a mode in which it stands, where there is one
    demo: str = ""  # one decision of another demo, told in the guide; "" of the one that all pictures are of


class About(msgspec.Struct, frozen=True):
    """A stop as everybody else sees it."""

    stop: str
    bench: str  # "module:Class"; the class takes a session
    standing: Callable[[Project, Studied], tuple[str, str]]  # its state in 16 characters, and good or none
    views: tuple[View, ...] = ()
    deeds: tuple[Deed, ...] = ()
    mouse: tuple[str, ...] = ()  # what the hand can do
    shots: tuple[Shot, ...] = ()
    drawn: bool = False  # it has a sheet to scale, which can be fitted
    takes_things: bool = False  # its bench has ``add`` for things of the catalogue
    # the view that shows what a finding points at by an id or a word; nothing: it has one view only; None: it cannot
    shows: Callable[[Studied, str], str | None] | None = None

    def view(self, name: str) -> View:
        return next(view for view in self.views if view.name == name)


def _not_built(_project: Project, _s: Studied) -> tuple[str, str]:
    return "not built yet", "none"


@cache
def abouts() -> tuple[About, ...]:
    """Every stop of the trail, in its order; one without a folder says what it will add."""
    made = []
    for stop in STOPS:
        module = f"{__package__}.{stop.name.lower()}"
        if find_spec(module) is None:
            made.append(About(stop.name, f"{__package__}.not_yet:NotYet", _not_built))
        else:
            made.append(import_module(f"{module}.about").ABOUT)
    return tuple(made)


def about(stop: str) -> About:
    return next(about for about in abouts() if about.stop == stop)
