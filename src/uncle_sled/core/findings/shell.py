"""Judgements on the body: sheets that will not go round, layers that nobody can make."""

from __future__ import annotations

from collections.abc import Iterator

from uncle_sled.core.document.edits import Op
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import Face, Layer
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.findings.words import Words
from uncle_sled.core.geometry.bends import judge
from uncle_sled.core.parts.face_build import material_of
from uncle_sled.core.studies.compare_ways import CURVED, radius_of, way_ops
from uncle_sled.core.studies.reading import Studied, silhouette_of

THINNEST_M = 0.0015  # half of the thinnest sheet that can be bought


def shell_findings(s: Studied, words: Words) -> Iterator[Finding]:
    body = silhouette_of(s.build.shell)
    if body is None or s.build.shell.form != "profile":
        return
    for face in s.build.shell.faces:
        if face.kind not in CURVED or not face.layers:
            continue
        radius = radius_of(body, face.kind)
        for layer in face.layers:
            material = material_of(layer)
            if not material.bends or material.bends == "sandwich":
                continue
            bend = judge(material.bends, layer.thickness.si, radius)
            if bend.verdict != "allowed":
                yield _bend(face, material.name, layer, radius, bend.tightest_m, bend.verdict == "refused", words)
                break


def _bend(face: Face, name: str, layer: Layer, radius: float, tightest: float, refused: bool, words: Words) -> Finding:
    thick = f"{layer.thickness.si * 1000:g} mm {name.lower()}"
    says = (
        f"{thick} takes {words.m(tightest)} bent cold across the grain; {face.name.lower()} turns on {words.m(radius)}."
        if refused
        else f"{thick} takes {words.m(tightest)} and {face.name.lower()} turns on {words.m(radius)}: bend a test strip first."
    )
    return Finding(
        "will-not-bend" if refused else "bends-tight",
        "mind" if refused else "note",
        "Shell",
        f"{face.name} will not bend" if refused else f"{face.name} bends tight",
        says,
        "Radius table for cold, dry sheets. Two thin sheets glued over each other go round where one thick one breaks.",
        (face.id,),
        None,
        tightest / max(radius, 1e-6),
        "Sheets under strain spring: clamp both ends, wear eye protection.",
        None,
        None if refused else "Only a test strip tells.",
    )


def thinner_layers(face: Face, radius: float) -> tuple[tuple[Layer, ...], int] | None:
    """The face's layers with each sheet that is too thick parted in two or three, or None where that does not help."""
    for n in (2, 3):
        made: list[Layer] = []
        for layer in face.layers:
            bends = material_of(layer).bends
            if not bends or bends == "sandwich" or judge(bends, layer.thickness.si, radius).verdict != "refused":
                made.append(layer)
                continue
            thin = layer.thickness.si / n
            if thin < THINNEST_M or judge(bends, thin, radius).verdict == "refused":
                break
            made += [
                Layer(f"{layer.id}-{k}", layer.material, Length(round(thin, 5)), layer.framing) for k in range(1, n + 1)
            ]
        else:
            if len(made) > len(face.layers):
                return tuple(made), n
    return None


def bend_ops(s: Studied, face_id: str) -> tuple[tuple[Op, ...], int] | None:
    """Ops that make a face of thinner sheets, and into how many each was parted."""
    body = silhouette_of(s.build.shell)
    face = next((f for f in s.build.shell.faces if f.id == face_id), None)
    found = thinner_layers(face, radius_of(body, face.kind)) if body is not None and face is not None else None
    if face is None or found is None:
        return None
    return way_ops((face.id,), f"{face.made_of}, in thin sheets", found[0]), found[1]
