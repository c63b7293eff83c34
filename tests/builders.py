"""Small builds made by hand, so that tests say only what matters to them."""

from typing import Any

import msgspec

from uncle_sled.core.document.presets import PRESETS
from uncle_sled.core.document.project import Build, Project
from uncle_sled.core.document.quantity import Length, Mass, Volume
from uncle_sled.core.document.rig import Axle, BedVehicle, Rig
from uncle_sled.core.document.shell import Face, Framing, Opening, Shell
from uncle_sled.core.document.stow import Stow, Tank, Thing
from uncle_sled.core.units import Shown

METRIC, IMPERIAL = Shown("mm", "kg", "L"), Shown("ft-in", "lb", "gal")


def a_thing(id="t1", mass=20.0, x=2.0, y=0.0, z=0.6, size=(0.4, 0.4, 0.3), **changes):
    """A box whose front edge is at x."""
    lx, ly, lz = size
    box = [Length(v) for v in (lx, ly, lz, x, y, z)]
    name, kind = changes.pop("name", f"Box {id}"), changes.pop("kind", "gear")
    made = Thing(id, name, kind, box[0], box[1], box[2], box[3], box[4], box[5], Mass(mass), "estimated")
    return msgspec.structs.replace(made, **changes)


def a_tank(id="w1", litres=40.0, contents="fresh", mass=4.0, **changes):
    tank = changes.pop("tank", None) or Tank(Volume(litres / 1000), contents)
    return a_thing(id, mass, kind="tank", tank=tank, **changes)


def a_rig(axle=3.0, frame=200.0, frame_cg=2.6, **changes):
    """An own frame on one axle, its parts weighing 200 kg and 60 kg."""
    rig = Rig(
        frame_length=Length(4.2),
        drawbar_length=Length(1.2),
        frame_width=Length(1.4),
        frame_top=Length(0.5),
        frame_mass=Mass(frame),
        frame_cg=Length(frame_cg),
        frame_source="weighed",
        axles=(Axle("a1", Length(axle), Mass(60.0), Mass(1300.0)),),
        track=Length(1.6),
        jack_station=Length(0.5),
    )
    return msgspec.structs.replace(rig, **changes)


def a_bed(**changes):
    """A light truck with a bed."""
    bed = BedVehicle(
        "truck",
        Length(3.4),
        Mass(1400.0),
        Mass(1000.0),
        Mass(1900.0),
        Mass(2400.0),
        Mass(4000.0),
        Length(1.6),
        Length(1.3),
        Length(4.0),
        Length(2.0),
        Length(0.9),
    )
    return Rig(carrier="vehicle bed", bed=msgspec.structs.replace(bed, **changes))


def a_shell(**changes):
    shell = Shell(
        "profile",
        Length(1.2),
        Length(3.0),
        Length(1.6),
        Length(1.3),
        Length(0.55),
        Length(0.04),
        profile=PRESETS["round nose, straight tail"],
        faces=(Face("floor", "floor", "Floor", Mass(40.0), "computed"), Face("roof", "roof", "Roof", Mass(30.0), "computed")),
    )
    return msgspec.structs.replace(shell, **changes)


def a_body(form="box", school="none", **changes):
    """A body 4.0 long, 2.0 wide, 2.1 high, 1.2 from the ball and 0.5 up, in a wall 120 mm thick."""
    sizes: dict[str, Any] = {
        k: Length(v) for k, v in zip(("front", "length", "width", "height", "floor", "wall"), (1.2, 4.0, 2.0, 2.1, 0.5, 0.12), strict=True)
    }
    shell = Shell(form, profile=PRESETS["round nose, straight tail"], framing=Framing(school), **sizes)
    return msgspec.structs.replace(shell, **changes)


def a_hole(id, face, along, up, width, height, kind="window", **changes):
    lengths: list[Any] = [Length(v) for v in (along, up, width, height)]
    made = Opening(id, kind, id.capitalize(), face, *lengths)
    return msgspec.structs.replace(made, **changes)


def a_build(things=(), rig=None, shell=None, **changes):
    return msgspec.structs.replace(
        Build("as-drawn", "as drawn", rig=rig or a_rig(), shell=shell or Shell(), stow=Stow(tuple(things))), **changes
    )


def a_project(things=(), **changes):
    return Project("Test sled", (a_build(things, **changes),), "as-drawn")
