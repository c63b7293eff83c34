"""Does it get wet inside a wall? Temperature and vapour through the layers on a steady night.

Glaser: vapour runs straight over the sd values (mu x thickness) and never over saturation; where it would, it lies on it,
as a string pulled tight under the curve (lower hull). What comes to such a plane and does not go on condenses. delta0 2e-10
kg/(m s Pa), insulation split to R 0.25. Source: ISO 13788, steady profile.
"""

from __future__ import annotations

import itertools

import msgspec

from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.shell import Face
from uncle_sled.core.engine import keep
from uncle_sled.core.errors import GeometryError
from uncle_sled.core.framing.frame_body import Framed
from uncle_sled.core.parts.face_build import Library, film_outside, gap_m2k_w, library_of, warm_layers
from uncle_sled.core.studies.systems.heat import film_of
from uncle_sled.core.studies.systems.sweat import night_of, saturation_pa

DELTA = 2e-10  # kg/(m s Pa)
SPLIT_R = 0.25
NIGHT_H, DAY_H = 8.0, 16.0
LEAST_SD_M = 0.001
DRY_C, DRY_RH = 12.0, 0.7  # both sides, while it dries
LEAST_G_M2 = 0.05


class Layer(msgspec.Struct, frozen=True):
    """Of a path from inside out: name, thickness [m], R [m2K/W], sd [m]."""

    name: str
    thick_m: float
    r_m2k_w: float
    sd_m: float


class Profile(msgspec.Struct, frozen=True):
    """Through a face from inside to outside. At each cut: sd [m], depth [m], temperature [C], saturation and vapour [Pa].

    condenses_g_m2: in a night; at_m: depth of the plane that gets most, None where it stays dry; dries: in the day after.
    """

    id: str
    name: str
    layers: tuple[Layer, ...]
    sd_m: tuple[float, ...]
    depth_m: tuple[float, ...]
    t_c: tuple[float, ...]
    saturation_pa: tuple[float, ...]
    vapour_pa: tuple[float, ...]
    condenses_g_m2: float
    at_m: float | None
    at_name: str
    dries_g_m2: float
    why: str = ""

    @property
    def dries(self) -> bool:
        """Whether what condenses in a night dries again by day."""
        return self.condenses_g_m2 <= LEAST_G_M2 or self.dries_g_m2 >= self.condenses_g_m2


def lower_hull(points: list[tuple[float, float]]) -> list[tuple[float, float]]:
    """The string pulled tight under points with its ends at the first and the last. Source: monotone chain."""
    made: list[tuple[float, float]] = []
    for p in points:
        while len(made) > 1 and _turns_up(made[-2], made[-1], p) <= 0:
            made.pop()
        made.append(p)
    return made


def _turns_up(a: tuple[float, float], b: tuple[float, float], c: tuple[float, float]) -> float:
    return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])


def profile(
    id: str,
    name: str,
    layers: tuple[Layer, ...],
    inside_c: float,
    inside_pa: float,
    outside_c: float,
    outside_pa: float,
    films: tuple[float, float],
) -> Profile:
    """Temperature, saturation and vapour through layers from inside out. Args: films: inside and outside [m2K/W].

    Raises: GeometryError: no layers, or no resistance to vapour at all.
    """
    if not layers or sum(each_layer.sd_m for each_layer in layers) <= 0:
        raise GeometryError(f"{name}: layers with an sd of nothing; a mu of 1 is air.")
    whole = sum(each_layer.r_m2k_w for each_layer in layers) + sum(films)
    r, sd, depth = films[0], 0.0, 0.0
    cuts = [(sd, depth, r, layers[0].name)]
    for layer in layers:
        many = max(int(layer.r_m2k_w / SPLIT_R) + (1 if layer.r_m2k_w % SPLIT_R > 1e-9 else 0), 1)
        for _ in range(many):
            r += layer.r_m2k_w / many
            sd += max(layer.sd_m, LEAST_SD_M if layer.thick_m > 0 else 0.0) / many
            depth += layer.thick_m / many
            cuts.append((sd, depth, r, layer.name))
    temps = [inside_c - at / whole * (inside_c - outside_c) for _, _, at, _ in cuts]
    sat = [saturation_pa(t) for t in temps]
    points = [
        (0.0, min(inside_pa, sat[0])),
        *[(cut[0], p) for cut, p in zip(cuts[1:-1], sat[1:-1], strict=True)],
        (cuts[-1][0], min(outside_pa, sat[-1])),
    ]
    hull = lower_hull(points)
    vapour = [_on(hull, cut[0]) for cut in cuts]
    wet = []
    for k in range(1, len(hull) - 1):
        before, at, after = hull[k - 1], hull[k], hull[k + 1]
        into = (before[1] - at[1]) / max(at[0] - before[0], 1e-9)
        onward = (at[1] - after[1]) / max(after[0] - at[0], 1e-9)
        wet.append((DELTA * (into - onward) * 3600 * NIGHT_H * 1000, at[0]))
    gain, where = max(wet, default=(0.0, 0.0))
    total = sum(g for g, _ in wet)
    plane = next((cut for cut in cuts if abs(cut[0] - where) < 1e-9), cuts[0])
    sd_whole = cuts[-1][0]
    lacking = saturation_pa(DRY_C) * (1 - DRY_RH)
    dries = 0.0
    if total > 0:
        dries = DELTA * lacking * (1 / max(where, 1e-3) + 1 / max(sd_whole - where, 1e-3)) * 3600 * DAY_H * 1000
    return Profile(
        id,
        name,
        layers=layers,
        sd_m=tuple(c[0] for c in cuts),
        depth_m=tuple(c[1] for c in cuts),
        t_c=tuple(temps),
        saturation_pa=tuple(sat),
        vapour_pa=tuple(vapour),
        condenses_g_m2=total,
        at_m=plane[1] if total > LEAST_G_M2 else None,
        at_name=plane[3] if gain > 0 else "",
        dries_g_m2=dries,
    )


def _on(hull: list[tuple[float, float]], sd: float) -> float:
    for a, b in itertools.pairwise(hull):
        if sd <= b[0] + 1e-12:
            return a[1] + (b[1] - a[1]) * (sd - a[0]) / max(b[0] - a[0], 1e-12)
    return hull[-1][1]


def layers_of(face: Face, library: Library) -> tuple[Layer, ...] | None:
    """The layers of a face from inside out, as far as a ventilated gap; None where a material lets nobody know what it does to vapour."""
    made = []
    for layer in reversed(warm_layers(face.layers, library)):
        material = library.get(layer.material)
        if material is None:
            return None
        if material.mu is None and material.kg_m2 is None:
            return None
        t = layer.thickness.si
        mu = material.mu
        if mu is None:  # paint and the like: no layer for vapour
            continue
        thick = t if t > 0 else 0.0005
        r = gap_m2k_w(t, face.kind) if material.air else material.resistance_m2k_w(t)
        made.append(Layer(material.name, t, r, mu * thick))
    return tuple(made) if made else None


@keep("build.shell", "build.brief", "build.systems", "facts.materials", "framed", most=4)
def profiles_of(build: Build, facts: Facts, framed: Framed) -> tuple[Profile, ...]:
    """Every face with layers on the brief's coldest night; none while the night is not known."""
    night = night_of(build, facts, framed)
    if night.inside_rh is None or night.inside_c is None or night.outside_c is None or build.brief.humidity_out is None:
        return ()
    library = library_of(facts.materials)
    inside_pa = min(night.inside_rh, 1.0) * saturation_pa(night.inside_c)
    outside_pa = build.brief.humidity_out * saturation_pa(night.outside_c)
    made = []
    for face in build.shell.faces:
        layers = layers_of(face, library) if face.layers and face.kind not in ("bulkhead", "other") else None
        if layers is None:
            continue
        films = (film_of(face.kind), film_outside(face.layers, face.kind, library))
        try:
            made.append(profile(face.id, face.name, layers, night.inside_c, inside_pa, night.outside_c, outside_pa, films))
        except GeometryError:
            continue
    return tuple(made)
