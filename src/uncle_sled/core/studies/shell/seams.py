"""Every joint of the faces: what trim, tape and sealant it has, and whether water and air layer go on over it.

Water: the outermost layer of each face goes on where one skin runs over, under cloth and resin, or under a trim that is bedded
in tape or sealant; a drip edge alone keeps an open edge. Air: the layers meet under tape or sealant. Under the floor splash
comes from below: tape or sealant, no trim is wanted. Source: shell notes, water; shop practice.
"""

from __future__ import annotations

from collections.abc import Hashable

import msgspec

from uncle_sled.core.document.shell import SeamMade, Shell
from uncle_sled.core.engine import by_value, keep
from uncle_sled.core.framing.frame_body import Framed, face_of
from uncle_sled.core.framing.no_sticks import WITHOUT_STICKS
from uncle_sled.core.geometry.body_joints import Joint, joints_of
from uncle_sled.core.geometry.surfaces import Body
from uncle_sled.core.parts.fillets import Filleted, filleted
from uncle_sled.core.reading.studied import Studied

RUNS_OVER_DEG = 12.0  # less than that the skin is bent over it


class Seam(msgspec.Struct, frozen=True):
    """One joint. made: None where nobody said; water, air: whether the layers go on; says: of which layers, in words."""

    joint: Joint
    made: SeamMade | None
    water: bool
    air: bool
    says: str

    @property
    def id(self) -> str:
        """That of its joint."""
        return self.joint.id

    @property
    def length_m(self) -> float:
        """That of its joint [m]."""
        return self.joint.length_m

    @property
    def whole(self) -> bool:
        """Whether nothing is to be made: one skin runs over it."""
        return runs_over(self.joint)

    @property
    def name(self) -> str:
        """The two faces that meet there."""
        other = self.joint.b or "open edge"
        return (
            f"{self.joint.a[:1].upper()}{self.joint.a[1:]} to {other}"
            if self.joint.b
            else f"{self.joint.a[:1].upper()}{self.joint.a[1:]}, open edge"
        )


def joints(s: Studied) -> tuple[Joint, ...]:
    """Joints of the body as drawn; none without one."""
    body = s.framed.body
    return joints_kept(body) if body is not None and body.width > 0 else ()


def _drawn(body: Body) -> Hashable:
    """What the joints depend on, by value: sticks and openings leave them as they are."""
    return tuple(
        (face.id, face.polygon.wkb, face.origin, face.along, face.up, None if face.chain is None else face.chain.tobytes())
        for face in body.surfaces
    )


@keep(by_value(_drawn), most=8)
def joints_kept(body: Body) -> tuple[Joint, ...]:
    return joints_of(body)


@keep("s.build.shell", "s.framed.body", most=4)
def seams(s: Studied) -> tuple[Seam, ...]:
    """Every joint of the body, those that leak first, then the longest."""
    said = {made.id: made for made in s.build.shell.seams}
    made = [_seam(s, joint, said.get(joint.id)) for joint in joints(s)]
    return tuple(sorted(made, key=lambda seam: (seam.water and seam.air, seam.water, -seam.joint.length_m)))


def runs_over(joint: Joint) -> bool:
    """Whether one skin is bent over the joint, so that there is none."""
    return bool(joint.b) and joint.turn_deg < RUNS_OVER_DEG and "floor" not in joint.kinds


def _seam(s: Studied, joint: Joint, made: SeamMade | None) -> Seam:
    bedded = made is not None and (made.tape != "" or made.sealant != "")
    cloth = made is not None and made.tape == "cloth and resin"
    if runs_over(joint):
        return Seam(joint, made, water=True, air=True, says="one skin bends over it")
    if not joint.b:  # an overhang: nothing to be tight against
        drip = made is not None and made.trim in ("drip edge", "cap")
        return Seam(joint, made, drip, air=True, says="an edge that rain runs to: a drip edge throws it off")
    if "floor" in joint.kinds:
        water = bedded
    else:
        water = cloth or (made is not None and made.trim != "" and bedded)
    return Seam(joint, made, water, bedded or cloth, _layers(s, joint))


def _layers(s: Studied, joint: Joint) -> str:
    """Which layers have to meet: the outermost of both."""
    names = []
    for kind in joint.kinds:
        face = face_of(s.build.shell, kind)
        names.append(face.layers[0].material if face is not None and face.layers else "")
    if not all(names):
        return "what the faces are made of is not said"
    return f"{names[0]} to {names[1]}" if names[0] != names[1] else f"{names[0]} to itself"


def fillets_of(shell: Shell, framed: Framed) -> Filleted | None:
    """What holds a body without sticks; None of any other."""
    if shell.framing.school not in WITHOUT_STICKS or framed.body is None or framed.body.width <= 0:
        return None
    return filleted(shell, joints_kept(framed.body))


def usual(joint: Joint, *, glued: bool = False) -> SeamMade | None:
    """What is usual on a joint; nothing where one skin runs over. Args: glued: a body without sticks, its joints under cloth."""
    if runs_over(joint):
        return None
    if not joint.b:
        return SeamMade(joint.id, "drip edge", "butyl", "")
    if glued:
        return SeamMade(joint.id, "", "cloth and resin", "fillet")
    if "floor" in joint.kinds:
        return SeamMade(joint.id, "", "foam", "bead")
    return SeamMade(joint.id, "drip edge" if "roof" in joint.kinds and joint.turn_deg > 30 else "angle", "butyl", "bead")


def usual_seams(s: Studied) -> tuple[SeamMade, ...]:
    """What was said, and the usual on every joint that nobody said anything of."""
    said = {made.id: made for made in s.build.shell.seams}
    made = []
    for joint in joints(s):
        each_made = said.get(joint.id) or usual(joint, glued=s.build.shell.framing.school in WITHOUT_STICKS)
        if each_made is not None:
            made.append(each_made)
    return tuple(made)
