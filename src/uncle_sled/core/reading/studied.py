"""Everything that one frame needs: parts, masses, readings, limits, kept by identity of build and facts."""

from __future__ import annotations

import msgspec
import numpy as np
from msgspec.structs import replace

from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.engine import keep, keep_each
from uncle_sled.core.errors import GeometryError
from uncle_sled.core.framing.frame_body import Framed
from uncle_sled.core.geometry.surfaces import silhouette
from uncle_sled.core.parts.all_parts import framed_of, parts_of
from uncle_sled.core.parts.part import Part
from uncle_sled.core.parts.support import Support, support_of
from uncle_sled.core.parts.unknown import Unknown, unknowns_of
from uncle_sled.core.reading.balance import Balance, balance
from uncle_sled.core.reading.band import Band, band_of
from uncle_sled.core.reading.learnt import Measured, measured, with_what_was_learnt
from uncle_sled.core.reading.limits import Limit, Unchecked, held_limits
from uncle_sled.core.reading.load_cases import MassTable, mass_table
from uncle_sled.core.reading.parked import Parked, parked

FARTHEST_M = 100.0
BARE_SHELL = "bare-shell"  # the standing case of that name


class Studied(msgspec.Struct, frozen=True):
    """The frame tier's results for one build."""

    build: Build
    facts: Facts
    parts: tuple[Part, ...]
    table: MassTable
    band: Band
    support: Support | None
    readings: Balance
    at_rest: Parked | None
    limits: tuple[Limit, ...]
    framed: Framed
    trouble: str | None  # why there is no reading, where geometry forbids one
    unknown: tuple[Unknown, ...] = ()  # what nobody gave, and what hides the reading first
    unchecked: tuple[Unchecked, ...] = ()  # limits that nothing could be held against
    measured: Measured | None = None  # what of every case was on a scale

    @property
    def towing_rows(self) -> list[int]:
        """Rows of the cases that are driven."""
        return [row for row, case in enumerate(self.table.cases) if case.mode.towing]

    @property
    def towed_rows(self) -> list[int]:
        """Towing cases that somebody tows: the standing bare shell only where it is all there is.

        An empty body is weighed and asked after; it is on the road at most once, and blocks nothing.
        """
        rows = self.towing_rows
        real = [row for row in rows if self.table.cases[row].id != BARE_SHELL]
        return real or rows


def whole(s: Studied) -> tuple[object, ...]:
    """What a study reads that may read anything of the build and the facts, for ``slow``."""
    return s.build, s.facts


def tail_m(build: Build) -> float | None:
    """Where a person can stand at the rear: the end of frame or body [m]."""
    ends = [build.rig.frame_length.si] if build.rig.frame_length else []
    if build.shell.form != "none" and build.shell.front and build.shell.length:
        ends.append(build.shell.front.si + build.shell.length.si)
    return max(ends, default=None)


@keep(most=6)
def study(build: Build, facts: Facts) -> Studied:
    """Run the frame tier: about 2 ms at 300 things and 12 cases."""
    parts = parts_of(build, facts)
    table = with_what_was_learnt(mass_table(build, parts), parts, build.road.corrections)
    band = band_of(build.brief, build.rig, facts)
    trouble = None
    try:
        support = support_of(build.rig)
    except GeometryError as fault:
        support, trouble = None, str(fault)
    unknown = unknowns_of(build, facts)
    if any(each_unknown.hides == "reading" for each_unknown in unknown):
        support = None
    readings = balance(table, support, band)
    if any(each_unknown.hides == "reading" for each_unknown in unknown):  # where its weight is, nobody knows either
        readings = replace(readings, cg_m=np.full_like(readings.cg_m, np.nan))
    at_rest = parked(build.rig, readings, tail_m(build))
    on_scale = measured(table, readings.tongue_kg, parts, build.road.corrections)
    held = held_limits(build, facts, table, readings, at_rest, unknown, on_scale)
    return Studied(
        build,
        facts,
        parts=parts,
        table=table,
        band=band,
        support=support,
        readings=readings,
        at_rest=at_rest,
        limits=held.limits,
        framed=framed_of(build, facts),
        trouble=trouble,
        unknown=unknown,
        unchecked=held.unchecked,
        measured=on_scale,
    )


@keep_each
def _reaches_m(thing: Thing) -> float:
    """How far aft a thing reaches [m]; one that was typed beyond any rig does not count."""
    end = thing.x.si + thing.length.si
    return end if abs(thing.x.si) < FARTHEST_M and thing.length.si < FARTHEST_M else -FARTHEST_M


@keep(most=4)
def length_m(build: Build) -> float:
    """How far the rig and body reach aft [m], for drawings and scales; 5 m where nothing is known."""
    ends = [axle.station.si + 0.3 for axle in build.rig.axles]
    ends += _reaches_m(build.stow.things)
    reach = tail_m(build)
    if reach is not None:
        ends.append(reach)
    if build.rig.carrier == "vehicle bed" and build.rig.bed.wheelbase:
        ends.append(build.rig.bed.wheelbase.si + 1.0)
    return max(ends, default=5.0)


silhouette_of = keep(most=4)(silhouette)  # of a shell, kept by identity
