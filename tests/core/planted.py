"""Sound little builds, and the same with one fault planted in each."""

from typing import Any

from msgspec.structs import replace

from tests.builders import a_bed, a_body, a_build, a_rig, a_tank, a_thing
from uncle_sled.core.document.brief import Brief, Vehicle
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.document.rig import Axle, Tyre
from uncle_sled.core.document.shell import Face
from uncle_sled.core.document.stow import Hold
from uncle_sled.core.reading.studied import study

CAR = Vehicle(
    "v",
    "Estate",
    Mass(100.0),
    Mass(1800.0),
    Mass(3500.0),
    Mass(1300.0),
    Mass(900.0),
    Mass(780.0),
    Length(2.7),
    Length(1.05),
    front_axle_rating=Mass(1200.0),
)
FACTS = Facts(vehicles=(CAR,))
KINDS: Any = {"floor": 55.0, "roof": 35.0, "left side": 32.0, "right side": 32.0, "front": 16.0, "rear": 16.0}
FACES = tuple(Face(kind.replace(" ", "-"), kind, kind.capitalize(), Mass(kg), "weighed") for kind, kg in KINDS.items())
STRAPS = Hold("strap", 2, Mass(250.0), "framing", 45.0, 45.0)


def a_sound_rig(**changes):
    rig = a_rig(
        axle=3.02,
        frame=220.0,
        frame_cg=2.75,
        frame_length=Length(5.2),
        tyre=Tyre(100, "N", Length(0.64), rated_kpa=350.0, least_kpa=200.0),
        axles=(Axle("a1", Length(3.19), Mass(90.0), Mass(1500.0), "weighed"),),
        gross_total=Mass(1500.0),
        axle_group=Mass(1500.0),
        coupler_rating=Mass(150.0),
        hitch_rating=Mass(150.0),
        jack_rating=Mass(300.0),
        chain_rating=Mass(2000.0),
        stabiliser_station=Length(4.9),
        stabiliser_rating=Mass(500.0),
        brakes="overrun",
        track=Length(1.9),
        ball_height=Length(0.43),
    )
    return replace(rig, **changes)


def a_sound_trailer(things=None, **changes):
    """A box of 4 by 2 m on one axle: every limit given and kept, everything held."""
    shell = replace(a_body(), faces=FACES, floor=Length(0.55))
    things = (
        things
        if things is not None
        else (
            a_thing("bed", 40.0, x=1.5, z=0.67, size=(1.2, 1.4, 0.4), hold=STRAPS, source="weighed"),
            a_thing("box", 60.0, x=3.3, z=0.67, size=(0.6, 1.0, 0.5), hold=STRAPS, source="weighed"),
        )
    )
    brief = Brief(fastest_kmh=100.0, road_height=Length(4.0), road_width=Length(2.55), road_length=Length(12.0))
    return a_build(things, rig=a_sound_rig(), shell=shell, brief=brief, **changes)


def a_sound_bed():
    bed = a_bed(front_rating=Mass(2200.0), rear_rating=Mass(2600.0))
    return a_build(
        [a_thing("box", 150.0, x=1.7, z=1.0, size=(1.0, 1.2, 0.8), hold=replace(STRAPS, many=4))], rig=replace(bed, tyre=Tyre(121, "L"))
    )


def a_sound_frame():
    """No body yet: a frame with one box on it."""
    return a_build(
        [a_thing("box", 60.0, x=2.6, z=0.6, hold=STRAPS, source="weighed")],
        rig=a_rig(axle=2.865, frame=300.0, frame_cg=2.65, stabiliser_station=Length(4.0)),
    )


def moved(build, id, **places):
    return apply(build, [set_to(f"stow.things.{id}.{axis}", {"si": at, "typed": None}) for axis, at in places.items()])


def with_(build, *ops):
    return apply(build, [set_to(path, value) for path, value in ops])


def plant():
    """Code of the fault, and the build that has it."""
    sound = a_sound_trailer()
    kg = lambda value: {"si": value, "typed": None}
    yield "ball-light", moved(sound, "box", x=4.4)
    yield "ball-heavy", moved(with_(sound, ("stow.things.box.mass", kg(220.0))), "box", x=2.75)
    yield "leans", moved(with_(sound, ("stow.things.box.mass", kg(160.0))), "box", y=0.38, x=3.02)
    yield "over-gross", with_(sound, ("rig.gross_total", kg(500.0)))
    yield "over-jack", with_(sound, ("rig.jack_rating", kg(40.0)))
    yield "held-weak", with_(sound, ("stow.things.box.hold.rated", kg(80.0)))
    yield "held-loose", with_(sound, ("stow.things.box.hold", None))
    yield "clash", moved(sound, "bed", x=2.5)
    yield "too-large", with_(sound, ("brief.road_height", kg(2.5)))
    yield "too-fast", with_(sound, ("brief.fastest_kmh", 150.0))
    yield (
        "no-seal",
        with_(
            sound,
            (
                "shell.openings",
                [
                    {
                        "id": "w",
                        "kind": "window",
                        "name": "Window",
                        "face": "left side",
                        "along": kg(1.0),
                        "up": kg(0.9),
                        "width": kg(0.6),
                        "height": kg(0.4),
                        "drip": True,
                    }
                ],
            ),
        ),
    )
    yield "floats", with_(moved(sound, "box", z=1.6), ("stow.things.box.hold", None))
    yield "latch-opens", with_(sound, ("stow.things.box.latch", {"kind": "push", "rated_n": 40.0, "leans": kg(9.0)}))
    yield "not-known", with_(sound, ("rig.frame_mass", None))


def a_tank_pair():
    return a_tank("f", 40.0, x=2.0), a_tank("g", 40.0, contents="grey", x=2.5)


def read(build):
    return study(build, FACTS)
