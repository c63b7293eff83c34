"""Which bench and view can show what a finding points at, and what of it a drawing can mark."""

from __future__ import annotations

from uncle_sled.core.document.project import Build
from uncle_sled.core.reading.studied import Studied
from uncle_sled.desk.benches.about import abouts

# What a finding calls by a word: parts of the side view by their ids there.
DRAWN = {
    "ball": ("ball",),
    "rig": ("frame", "vehicle"),
    "jack": ("jack",),
    "shell": ("shell",),
    "front-axle": ("front-axle",),
    "rear-axle": ("rear-axle",),
}
ON_WHEELS = ("wheels", "tyre")


def where_to(s: Studied, ids: tuple[str, ...], stop: str) -> tuple[str, str]:
    """The stop and view that show the first of ``ids`` that some stop can show, its own before others."""
    order = sorted(abouts(), key=lambda said: said.stop != stop)
    for id in ids:
        for said in order:
            view = said.shows(s, id) if said.shows is not None else None
            if view is not None:
                return said.stop, view
    return stop, ""


def on_every_sheet(build: Build, ids: tuple[str, ...]) -> bool:
    """Whether all of it belongs to the rig and body, which every drawing to scale shows."""
    axles = {axle.id for axle in build.rig.axles}
    return all(id in DRAWN or id in ON_WHEELS or id in axles for id in ids[:1]) and bool(ids)


def chosen_of(build: Build, ids: tuple[str, ...]) -> tuple[str, ...]:
    """Those that can be taken in hand."""
    there = {thing.id for thing in build.stow.things} | {opening.id for opening in build.shell.openings}
    there |= {axle.id for axle in build.rig.axles}
    there |= {wall.id for wall in build.shell.partitions} | {loft.id for loft in build.shell.lofts}
    there |= build.systems.ids
    return tuple(id for id in ids if id in there)


def marked(build: Build, ids: tuple[str, ...]) -> tuple[str, ...]:
    """Ids of the shapes that a drawing marks for what was pointed at."""
    made: list[str] = []
    for id in ids:
        made += DRAWN.get(id, (id,))
        if id in ON_WHEELS:
            made += [axle.id for axle in build.rig.axles] or ["front-axle", "rear-axle"]
    return tuple(dict.fromkeys(made))


def field_path(ids: tuple[str, ...]) -> str | None:
    """The path of the value that a finding asks for; None where it asks for none."""
    return ids[1] if len(ids) > 1 and ids[0] == "rig" and "." in ids[1] else None
