"""Every sheet that goes round a curve, with the radius it gets and the tightest it takes."""

from __future__ import annotations

import msgspec

from uncle_sled.core.document.shell import Layer
from uncle_sled.core.geometry.bend_radius import judge, sprung_radius_m
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.reading.studied import Studied, silhouette_of
from uncle_sled.core.studies.shell.compare_ways import CURVED, radius_of


class SheetBend(msgspec.Struct, frozen=True):
    """One layer on one curved face; ``formed_m`` is the radius to glue to where equal layers spring back [m], else None."""

    face_id: str
    layer_id: str
    material: str
    thickness_m: float
    radius_m: float
    tightest_m: float
    verdict: str
    formed_m: float | None


def sheet_bends(s: Studied) -> tuple[SheetBend, ...]:
    """Bends of a drawn profile, outside layer first; none for bodies of flat faces."""
    body = silhouette_of(s.build.shell)
    if body is None or s.build.shell.form != "profile":
        return ()
    library = library_of(s.facts.materials)
    made = []
    for face in s.build.shell.faces:
        if face.kind not in CURVED:
            continue
        radius = radius_of(body, face.kind)
        for layer in face.layers:
            material = library.get(layer.material)
            if material is None or material.bends in ("", "sandwich"):
                continue
            twins = _glued(face.layers, layer)
            bend = judge(material.bends, layer.thickness.si, radius)
            # glued to a tighter form, n equal layers open up to the radius that is wanted
            formed = radius * radius / sprung_radius_m(radius, twins) if twins > 1 and radius < 1e6 else None
            made.append(
                SheetBend(
                    face.id,
                    layer.id,
                    material=material.name,
                    thickness_m=layer.thickness.si,
                    radius_m=radius,
                    tightest_m=bend.tightest_m,
                    verdict=bend.verdict,
                    formed_m=formed,
                )
            )
    return tuple(made)


def _glued(layers: tuple[Layer, ...], layer: Layer) -> int:
    """How many equal sheets lie on each other here, this one with them."""
    run: list[Layer] = []
    for each_layer in layers:
        same = each_layer.material == layer.material and each_layer.thickness.si == layer.thickness.si
        if same:
            run.append(each_layer)
        elif layer in run:
            break
        else:
            run = []
    return len(run) if layer in run else 1
