"""Rig: the frame to weld, the trailer as bought, or the vehicle under a bed, beside its drawing."""

from __future__ import annotations

from PySide6.QtWidgets import QPushButton, QWidget

from uncle_sled.core.document.edits import Op, add_to, fresh_id, remove, set_to
from uncle_sled.core.document.project import Build
from uncle_sled.core.document.quantity import Length, Mass, Stiffness
from uncle_sled.core.sections import sections
from uncle_sled.desk.benches.bench import Bench
from uncle_sled.desk.benches.rig.plate_picture import PlatePicture
from uncle_sled.desk.kit.columns import Columns
from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.kit.form import NUMBER, SOURCES, Form, Row
from uncle_sled.desk.session import Session
from uncle_sled.desk.sheet.measured_sheet import MeasuredSheet

CARRIERS: list[tuple[object, str]] = [("ball", "a coupler and ball"), ("vehicle bed", "a vehicle's bed")]
BASES: list[tuple[object, str]] = [("own frame", "own frame"), ("as bought", "bought, weighed")]
SPRINGS: list[tuple[object, str]] = [("", "not said"), ("over", "over the axle"), ("under", "under the axle")]
BRAKES: list[tuple[object, str]] = [
    ("", "not said"),
    ("none", "none"),
    ("overrun", "overrun"),
    ("electric", "electric"),
    ("hydraulic", "hydraulic"),
]
SUSPENSIONS: list[tuple[object, str]] = [
    ("single", "one axle"),
    ("equalised", "leaf, equalised"),
    ("independent", "torsion arms"),
]
LEAST_RAIL_M = 0.04
PLACES: list[tuple[object, str]] = [("fixed", "fixed"), ("to be placed", "still to be placed")]


def _ball(build: Build) -> bool:
    return build.rig.carrier == "ball"


def _bed(build: Build) -> bool:
    return build.rig.carrier == "vehicle bed"


def _own(build: Build) -> bool:
    return _ball(build) and build.rig.base == "own frame"


def _sectioned(build: Build) -> bool:
    return _own(build) and bool(build.rig.rail)


def _section_choices(session: Session, none: str = "not said") -> list[tuple[object, str]]:
    """Sections for a frame as they are sold where it is built, and what was chosen already."""
    rig, shown = session.build.rig, session.shown
    chosen = {rig.rail, rig.cross, rig.drawbar}
    offered = [
        one
        for one in sections().values()
        if one.id in chosen or (one.inches == shown.imperial and one.deep >= LEAST_RAIL_M)
    ]
    return [("", none), *((one.id, _short(one.says(shown))) for one in offered)]


def _short(says: str) -> str:
    """A section in the room of a field: a tube is understood, and so are millimetres."""
    return says.removeprefix("tube ").removesuffix(" mm").replace("aluminium", "alu.")


def _bought(build: Build) -> bool:
    return _ball(build) and build.rig.base == "as bought"


def _bought_torsion(build: Build) -> bool:
    return _bought(build) and _torsion(build)


def _bought_loose(build: Build) -> bool:
    return _bought(build) and build.rig.axle_place == "to be placed"


def _torsion(build: Build) -> bool:
    return _ball(build) and build.rig.suspension == "independent"


class RigBench(Bench):
    def __init__(self, session: Session, stop: str) -> None:
        super().__init__(session, stop)
        self.axle_button = QPushButton("Add an axle")
        self.axle_button.clicked.connect(self.add_axle)
        self.less_button = QPushButton("Take one off")
        self.less_button.setToolTip("Take the last axle off")
        self.less_button.clicked.connect(self.take_axle)
        self.top.addWidget(self.axle_button)
        self.top.addWidget(self.less_button)
        self.end_top("left side, to scale; click a measure and type")
        self.sheet = MeasuredSheet(session, "rig", axle=True)
        self.rows.addWidget(self.sheet, 6)
        self.forms = [
            Form(
                session,
                "What carries it",
                [
                    Row("Stands on", "rig.carrier", CARRIERS),
                    Row("Base", "rig.base", BASES, when=_ball),
                    Row("Weighed total", "rig.bought_total", Mass, when=_bought),
                    Row(
                        "On the ball",
                        "rig.bought_ball",
                        Mass,
                        "Ball weight as weighed or from the papers",
                        when=_bought,
                    ),
                    Row("Known by", "rig.bought_source", SOURCES, when=_bought),
                    Row(
                        "Ball was at",
                        "rig.bought_hitch",
                        Length,
                        "Height of the ball when it was weighed; empty: level",
                        when=_bought_torsion,
                        blank="level",
                    ),
                    Row(
                        "Axle was at",
                        "rig.bought_axle",
                        Length,
                        "Middle of the axles when it was weighed; empty: where they stand",
                        when=_bought_loose,
                        blank="where they stand",
                    ),
                    Row(
                        "Rails",
                        "rig.rail",
                        _section_choices(session),
                        "Section of the two rails; the frame's weight follows where it is not typed",
                        when=_own,
                    ),
                    Row(
                        "Cross-members",
                        "rig.cross",
                        _section_choices(session, "as the rails"),
                        "Section of what lies between the rails",
                        when=_sectioned,
                    ),
                    Row(
                        "Cross every",
                        "rig.cross_pitch",
                        Length,
                        "Middle to middle at most; empty: 0.6 m",
                        0.1,
                        when=_sectioned,
                        blank=Length(0.6),
                    ),
                    Row(
                        "Drawbar legs",
                        "rig.drawbar",
                        _section_choices(session, "as the rails"),
                        "Section of the two legs to the ball",
                        when=_sectioned,
                    ),
                    Row(
                        "Frame weight",
                        "rig.frame_mass",
                        Mass,
                        "Without axle and wheels; empty: by its sections",
                        when=_own,
                        blank="by its sections",
                    ),
                    Row("Known by", "rig.frame_source", SOURCES, when=_own),
                    Row(
                        "Weight at",
                        "rig.frame_cg",
                        Length,
                        "Station of the frame's own weight, if known; else from its steel",
                        when=_own,
                    ),
                    Row("Length", "rig.frame_length", Length, "Ball to tail end", when=_ball),
                    Row("Drawbar", "rig.drawbar_length", Length, "Ball to first cross-member", when=_ball),
                    Row("Frame width", "rig.frame_width", Length, when=_ball),
                    Row("Frame top", "rig.frame_top", Length, "Above ground", when=_ball),
                    Row("Wheelbase", "rig.bed.wheelbase", Length, when=_bed),
                    Row("Front empty", "rig.bed.front_empty", Mass, when=_bed),
                    Row("Rear empty", "rig.bed.rear_empty", Mass, when=_bed),
                    Row("Bed front", "rig.bed.bed_front", Length, "From the front axle", None, when=_bed),
                    Row("Bed length", "rig.bed.bed_length", Length, when=_bed),
                    Row("Bed width", "rig.bed.bed_width", Length, when=_bed),
                    Row("Bed top", "rig.bed.bed_top", Length, "Above ground", when=_bed),
                    Row("Track", "rig.bed.track", Length, when=_bed),
                ],
                "Rig",
            ),
            Form(
                session,
                "Axle and tyres",
                [
                    Row("Axles", "rig.suspension", SUSPENSIONS, when=_ball),
                    Row(
                        "Place", "rig.axle_place", PLACES, "While it is still to be placed, drag the wheel", when=_ball
                    ),
                    Row("Track", "rig.track", Length, "Between tyre centre lines", when=_ball),
                    Row(
                        "Frame or axles altered",
                        "rig.frame_altered",
                        bool,
                        "Cut, widened or welded on since it was made: its plates hold no more",
                    ),
                    Row(
                        "Mended a crack at",
                        "rig.frame_mended",
                        Length,
                        "Behind the ball, where it cracked and was reinforced; empty: nowhere",
                        None,
                        when=_ball,
                        blank="nowhere",
                    ),
                    Row("Tyre index", "rig.tyre.load_index", int, "Load index on the sidewall, such as 84"),
                    Row("Speed symbol", "rig.tyre.speed_symbol", str, "The letter after the load index, such as N"),
                    Row(
                        "Cornering, times",
                        "rig.tyre.grip",
                        NUMBER,
                        "Of what is usual: 0.7 soft or worn, 1.2 hard and new; empty: 1. Sway reads it",
                        blank="1",
                    ),
                    Row(
                        "Rated pressure",
                        "rig.tyre.rated_kpa",
                        NUMBER,
                        "kPa, cold, at its full load; 100 kPa is 14.5 psi",
                    ),
                    Row("Least pressure", "rig.tyre.least_kpa", NUMBER, "kPa, never under this"),
                    Row("Tyre height", "rig.tyre.diameter", Length),
                    Row("Tyre width", "rig.tyre.width", Length),
                    Row(
                        "Gap left",
                        "rig.tyre.gap_left",
                        Length,
                        "Measured between tyre and fender or wheel box",
                        when=_ball,
                    ),
                    Row(
                        "Gap right",
                        "rig.tyre.gap_right",
                        Length,
                        "Fenders get welded off centre: measure both",
                        when=_ball,
                    ),
                    Row("Springs", "rig.spring_side", SPRINGS, when=_ball),
                    Row("Brakes", "rig.brakes", BRAKES, "Which are asked for is a local rule", when=_ball),
                    Row("Spring rate", "rig.spring_rate", Stiffness, "Per wheel", when=_torsion),
                    Row(
                        "Rides level at",
                        "rig.level_load",
                        Mass,
                        "Axle load at which the frame rides level",
                        when=_torsion,
                    ),
                    Row("Ball height", "rig.ball_height", Length, when=_ball),
                    Row(
                        "Level height",
                        "rig.reference_height",
                        Length,
                        "Ball height with the frame level",
                        when=_torsion,
                    ),
                ],
                "Rig",
            ),
            Form(
                session,
                "Plates and ratings",
                [
                    Row(
                        "Whole trailer",
                        "rig.gross_total",
                        Mass,
                        "On the plate: trailer with everything, hitched or not",
                        when=_ball,
                    ),
                    Row("Axle group", "rig.axle_group", Mass, "On the plate: on the wheels when coupled", when=_ball),
                    Row("Coupler", "rig.coupler_rating", Mass, "Vertical load", when=_ball),
                    Row("Hitch", "rig.hitch_rating", Mass, "Vertical load", when=_ball),
                    Row("Jack at", "rig.jack_station", Length, "From the ball", when=_ball),
                    Row("Jack rated", "rig.jack_rating", Mass, when=_ball),
                    Row(
                        "Stabilisers at",
                        "rig.stabiliser_station",
                        Length,
                        "From the ball; empty: none",
                        when=_ball,
                        blank="none",
                    ),
                    Row("Stabiliser rated", "rig.stabiliser_rating", Mass, "One of them", when=_ball),
                    Row(
                        "Chain rated",
                        "rig.chain_rating",
                        Mass,
                        "One chain; each has to hold the whole trailer",
                        when=_ball,
                    ),
                    Row(
                        "Weight-distributing hitch",
                        "rig.weight_distributing",
                        bool,
                        "The reading is without its bars",
                        when=_ball,
                    ),
                    Row("Front axle", "rig.bed.front_rating", Mass, when=_bed),
                    Row("Rear axle", "rig.bed.rear_rating", Mass, when=_bed),
                    Row("Whole vehicle", "rig.bed.gross_rating", Mass, when=_bed),
                ],
                "Rig",
            ),
        ]
        self.forms[0].whole.addWidget(
            label(
                "Not for gooseneck, fifth-wheel or drawbar trailers with a steered axle.", "small", "pencil", wrap=True
            )
        )
        self.plates = PlatePicture()
        self.forms[2].whole.insertWidget(1, self.plates)
        self.rows.addWidget(Columns(list[QWidget](self.forms)), 5)
        session.changed.connect(self.refresh)
        self.refresh()

    def refresh(self) -> None:
        if not self.isVisible():
            return  # showEvent brings it up to date
        for form in self.forms:
            form.refresh()
        self.plates.setVisible(_ball(self.session.build))
        self.axle_button.setVisible(_ball(self.session.build))
        self.less_button.setVisible(_ball(self.session.build) and bool(self.session.build.rig.axles))

    def showEvent(self, event: object) -> None:
        self.refresh()

    def add_axle(self) -> None:
        rig = self.session.build.rig
        axles = rig.axles
        at = axles[-1].station.si + 0.86 if axles else 0.62 * (rig.frame_length.si if rig.frame_length else 4.0)
        id = fresh_id("a", [axle.id for axle in axles])
        ops: list[Op] = [add_to("rig.axles", {"id": id, "station": {"si": round(at, 3), "typed": None}})]
        if axles and rig.suspension == "single":
            ops.append(set_to("rig.suspension", "equalised"))
        self.session.edit("Add an axle", ops, "Rig", (id,))
        self.session.select((id,))

    def take_axle(self) -> None:
        axles = self.session.build.rig.axles
        if axles:
            ops = [remove(f"rig.axles.{axles[-1].id}")] + (
                [set_to("rig.suspension", "single")] if len(axles) == 2 else []
            )
            self.session.edit("Take an axle off", ops, "Rig")
