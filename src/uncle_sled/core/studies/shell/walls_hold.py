"""Do walls keep square: racking by sheets, screws and bonds, on what is left between openings."""

from __future__ import annotations

import math
from collections.abc import Iterator

from uncle_sled.core.framing.frame_body import face_of
from uncle_sled.core.geometry.surfaces import SIDES, Surface
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.shell import strength as st
from uncle_sled.core.studies.shell.check import Check, unchecked
from uncle_sled.core.studies.shell.what_carries import sheets_m, standing_kg
from uncle_sled.core.words import Words, lower_first

BOND_PA, BOND_WIDE_M = 0.15e6, 0.030


SCREW_N = 250.0  # one of 4.8 mm in 9 mm ply, pulled


SCREW_PITCH_M = 0.15


# walls
def racking_checks(s: Studied) -> Iterator[Check]:
    """Shear of the walls that run along and across, on what of them is sheathed."""
    body, words = s.framed.body, Words(s.build.brief.reading.shown())
    assert body is not None
    mass = standing_kg(s, heaviest=True)
    for id, name, kinds in (("racking-along", "Walls along, pushed", SIDES), ("racking-across", "Walls across, pushed", ("front", "rear"))):
        walls = [face for face in body.surfaces if face.kind in kinds and not face.swept]
        if id == "racking-across" and not walls:
            yield unchecked(id, name, "nose and tail are skins that run over, not walls")
            continue
        sheathed, thin, unsaid = 0.0, math.inf, ""
        for wall in walls:
            face = face_of(s.build.shell, wall.kind)
            thick = sheets_m(s, face)
            if thick <= 0:
                unsaid = f"the {lower_first(wall.id)} has no sheets of wood that are known (Faces)"
            thin = min(thin, thick)
            sheathed += sum(_piers_m(wall, s.framed.holes_in(wall.id)))
        if s.build.shell.framing.school == "sandwich panels" and mass is not None and walls:
            yield _bonded(s, id, name, walls, mass)
            continue
        if unsaid:
            yield unchecked(id, name, unsaid, tuple(face.id for face in walls))
            continue
        if mass is None or sheathed <= 0:
            why = "no weight is known" if mass is None else "no pier is as wide as half its height"
            yield unchecked(id, name, why, tuple(face.id for face in walls))
            continue
        limit = st.RACKING_N_M * min(thin / st.RACKING_M, 1.0)
        how = f"0.8 g on {words.kg(mass)} over {words.m(sheathed)} sheathed in {words.thick(thin)}"
        spot = (body.front + body.length / 2, 0.0, body.under + body.height / 2)
        yield Check(
            id,
            name,
            where=tuple(face.id for face in walls),
            value=st.racking_n_m(mass, sheathed),
            limit=limit,
            unit="N/m",
            how=how,
            source="{2.5 kN/m} for {9 mm} fixed every {150 mm}, in proportion under that",
            spot=spot,
        )


def _bonded(s: Studied, id: str, name: str, walls: list[Surface], mass: float) -> Check:
    """Panels are stiff in their plane: what gives is the bond along their feet."""
    body, words = s.framed.body, Words(s.build.brief.reading.shown())
    assert body is not None
    foot = sum(sum(_piers_m(face, s.framed.holes_in(face.id))) for face in walls)
    if foot <= 0:
        return unchecked(id, name, "no pier is as wide as half its height", tuple(face.id for face in walls))
    shear = st.racking_n_m(mass, foot) / BOND_WIDE_M
    how = f"0.8 g on {words.kg(mass)} along {words.m(foot)} of bond {words.thick(BOND_WIDE_M)} wide"
    spot = (body.front + body.length / 2, 0.0, body.under + 0.1)
    return Check(
        id,
        name,
        where=tuple(face.id for face in walls),
        value=shear,
        limit=BOND_PA,
        unit="Pa",
        how=how,
        source="a tenth of an adhesive's sheet figure; rivets not counted",
        spot=spot,
    )


def _piers_m(wall: Surface, holes: tuple[object, ...]) -> list[float]:
    """Whole stretches of a wall between its openings that are at least half as wide as it is high [m]."""
    left, low, right, high = wall.polygon.bounds
    gaps = sorted((h.bounds[0], h.bounds[2]) for h in holes)  # type: ignore[attr-defined]
    piers, at = [], left
    for a, b in gaps:
        piers.append(a - at)
        at = max(at, b)
    piers.append(right - at)
    return [pier for pier in piers if pier >= (high - low) / 2]
