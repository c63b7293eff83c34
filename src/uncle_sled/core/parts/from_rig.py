"""Parts of the frame, the axles, a bought base or the vehicle under a bed."""

from __future__ import annotations

import math

from uncle_sled.core.document.rig import Rig
from uncle_sled.core.errors import GeometryError
from uncle_sled.core.parts.frame_steel import bars_of, frame_kg
from uncle_sled.core.parts.part import MEMBER_M, SURENESS, Part
from uncle_sled.core.parts.support import moment_of_axle_loads_kg_m, support_weighed


def wheel_radius_m(rig: Rig) -> float:
    """Radius of the wheels with their tyres [m]; 0.3 while no tyre is known."""
    return (rig.tyre.diameter.si if rig.tyre.diameter else 0.6) / 2


def frame_cg_m(rig: Rig) -> float:
    """Station of a plain A-frame's centre [m]: rails and cross-members aft, two drawbar legs ahead.

    By its sections where they are said; else all steel is taken as one, with a cross-member every
    0.6 m of rail. Where the builder knows better, ``rig.frame_cg`` says so.
    """
    if rig.frame_cg:
        return rig.frame_cg.si
    bars = bars_of(rig)
    if bars:
        return sum(bar.mass_kg * bar.x_m for bar in bars) / sum(bar.mass_kg for bar in bars)
    length = rig.frame_length.si if rig.frame_length else 0.0
    nose = min(rig.drawbar_length.si if rig.drawbar_length else 0.3 * length, length)
    width = rig.frame_width.si if rig.frame_width else 1.5
    rails, legs = 2 * (length - nose), 2 * math.hypot(nose, width / 2)
    cross = (int((length - nose) / 0.6) + 1) * width
    steel = rails + cross + legs
    return 0.0 if steel <= 0 else ((rails + cross) * (nose + length) / 2 + legs * nose / 2) / steel


def parts_of_rig(rig: Rig) -> tuple[Part, ...]:
    """Frame, axles, wheels and coupler, or a bed's vehicle by its two axles, as masses in their places."""
    if rig.carrier == "vehicle bed":
        return _bed_vehicle(rig)
    wheel = wheel_radius_m(rig)
    top = rig.frame_top.si if rig.frame_top else wheel + 0.15
    if rig.base == "as bought":
        return _bought(rig, top)
    parts = []
    kg = frame_kg(rig)
    if kg:
        typed = rig.frame_mass is not None
        source = rig.frame_source if typed else "computed"
        length = rig.frame_length.si if rig.frame_length else 0.0
        parts.append(
            Part(
                "frame",
                "Frame",
                group="frame",
                made_by="rig.frame_mass",
                source=source,
                mass_kg=kg,
                x_m=frame_cg_m(rig),
                y_m=0.0,
                z_m=top - 0.04,
                size_m=(length, rig.frame_width.si if rig.frame_width else 0.0, 0.08),
                station_sigma_m=MEMBER_M if rig.frame_cg else 0.03 * length,
                bias_group="frame" if source == "computed" else None,
                base=True,
            )
        )
    parts += [
        Part(
            axle.id,
            "Axle and wheels" if len(rig.axles) == 1 else f"Axle and wheels {at}",
            group="frame",
            made_by=f"rig.axles.{axle.id}.mass",
            source=axle.source,
            mass_kg=axle.mass.si,
            x_m=axle.station.si,
            y_m=0.0,
            z_m=wheel,
            size_m=(2 * wheel, rig.track.si if rig.track else 0.0, 2 * wheel),
            station_sigma_m=MEMBER_M,
            bias_group=None,
            base=True,
        )
        for at, axle in enumerate(rig.axles, 1)
        if axle.mass and axle.mass.si > 0
    ]
    return tuple(parts)


def bought_centre_m(rig: Rig) -> float | None:
    """Station of a bought trailer's own centre [m], axles where they stand now; None where it was not weighed so.

    Where the weighing put it: a (1 - T/W) for one axle or equalised ones, and for independent ones the centre for which
    the same spring model, at the hitch's height of that weighing, gives the weighed ball. Axles that were moved since
    took their own weight along and nothing else. Source: moments about the ball.
    """
    total, ball = rig.bought_total, rig.bought_ball
    if total is None or total.si <= 0 or ball is None or ball.si > total.si or not rig.axles:
        return None
    now = sum(axle.station.si for axle in rig.axles) / len(rig.axles)
    then = rig.bought_axle.si if rig.bought_axle else now
    stood = support_weighed(rig)
    if stood is None:
        return None
    moment = moment_of_axle_loads_kg_m(total.si - ball.si, stood) if stood.independent else (total.si - ball.si) * stood.mean_axle_m
    moved = sum(axle.mass.si for axle in rig.axles if axle.mass) * (now - then)
    return (moment + moved) / total.si


def _bought(rig: Rig, top: float) -> tuple[Part, ...]:
    """One base part with the weighed total. Where its centre is not known it stands in the middle, and nothing is read off."""
    if not (rig.bought_total and rig.bought_total.si > 0):
        return ()
    total = rig.bought_total.si
    try:
        centre = bought_centre_m(rig)
    except GeometryError:  # an axle where none can be: said by who asks for the support
        centre = None
    ball = rig.bought_ball.si if rig.bought_ball else 0.0
    axle = sum(a.station.si for a in rig.axles) / len(rig.axles) if rig.axles else 0.0
    long = rig.frame_length.si if rig.frame_length else 0.0
    doubt = axle * math.hypot(SURENESS[rig.bought_source] * ball, 0.5) / total
    return (
        Part(
            "base",
            "Trailer as bought",
            group="shell",
            made_by="rig.bought_total",
            source=rig.bought_source,
            mass_kg=total,
            x_m=centre if centre is not None else axle or long / 2,
            y_m=0.0,
            z_m=top + 0.45,
            size_m=(long, rig.frame_width.si if rig.frame_width else 0.0, 0.9),
            station_sigma_m=max(doubt, MEMBER_M),
            base=True,
        ),
    )


def _bed_vehicle(rig: Rig) -> tuple[Part, ...]:
    bed = rig.bed
    if not bed.wheelbase:
        return ()
    parts = []
    for key, name, mass, x in (
        ("front-axle", "Vehicle, front axle", bed.front_empty, 0.0),
        ("rear-axle", "Vehicle, rear axle", bed.rear_empty, bed.wheelbase.si),
    ):
        if mass and mass.si > 0:
            field = "front_empty" if key == "front-axle" else "rear_empty"
            parts.append(
                Part(
                    key,
                    name,
                    group="vehicle",
                    made_by=f"rig.bed.{field}",
                    source="data_sheet",
                    mass_kg=mass.si,
                    x_m=x,
                    y_m=0.0,
                    z_m=0.7,
                    size_m=(0.7, 1.6, 0.7),
                    station_sigma_m=MEMBER_M,
                    base=True,
                )
            )
    return tuple(parts)
