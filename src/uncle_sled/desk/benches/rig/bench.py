"""Rig: the frame to weld, the trailer as bought, or the vehicle under a bed, beside its drawing."""

from __future__ import annotations

from PySide6.QtWidgets import QPushButton, QWidget

from uncle_sled.core.document.edits import Op, add_to, fresh_id, remove, set_to
from uncle_sled.core.document.project import Build
from uncle_sled.core.sections import sections
from uncle_sled.desk.benches.bench import Bench
from uncle_sled.desk.benches.rig.plate_picture import PlatePicture
from uncle_sled.desk.kit.columns import Columns
from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.kit.form import Form, Row, plain
from uncle_sled.desk.session import Session
from uncle_sled.desk.sheet.measured_sheet import MeasuredSheet

LEAST_RAIL_M = 0.04


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
    offered = [one for one in sections().values() if one.id in chosen or (one.inches == shown.imperial and one.deep >= LEAST_RAIL_M)]
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
                    Row("rig.carrier"),
                    Row("rig.base", when=_ball),
                    *plain("rig", "bought_total bought_ball bought_source", when=_bought),
                    Row("rig.bought_hitch", when=_bought_torsion),
                    Row("rig.bought_axle", when=_bought_loose),
                    Row("rig.rail", kind=_section_choices(session), when=_own),
                    Row("rig.cross", kind=_section_choices(session, "as the rails"), when=_sectioned),
                    Row("rig.cross_pitch", when=_sectioned),
                    Row("rig.drawbar", kind=_section_choices(session, "as the rails"), when=_sectioned),
                    *plain("rig", "frame_mass frame_source frame_cg", when=_own),
                    *plain("rig", "frame_length drawbar_length frame_width frame_top", when=_ball),
                    *plain("rig.bed", "wheelbase front_empty rear_empty bed_front bed_length bed_width bed_top track", when=_bed),
                ],
                "Rig",
            ),
            Form(
                session,
                "Axle and tyres",
                [
                    *plain("rig", "suspension axle_place track", when=_ball),
                    Row("rig.frame_altered"),
                    Row("rig.frame_mended", when=_ball),
                    *plain("rig.tyre", "load_index speed_symbol grip rated_kpa least_kpa diameter width"),
                    *plain("rig.tyre", "gap_left gap_right", when=_ball),
                    *plain("rig", "spring_side brakes", when=_ball),
                    *plain("rig", "spring_rate level_load", when=_torsion),
                    Row("rig.ball_height", when=_ball),
                    Row("rig.reference_height", when=_torsion),
                ],
                "Rig",
            ),
            Form(
                session,
                "Plates and ratings",
                [
                    *plain(
                        "rig",
                        "gross_total axle_group coupler_rating hitch_rating jack_station jack_rating stabiliser_station stabiliser_rating chain_rating weight_distributing",
                        when=_ball,
                    ),
                    *plain("rig.bed", "front_rating rear_rating gross_rating", when=_bed),
                ],
                "Rig",
            ),
        ]
        self.forms[0].whole.addWidget(
            label("Not for gooseneck, fifth-wheel or drawbar trailers with a steered axle.", "small", "pencil", wrap=True)
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
            ops = [remove(f"rig.axles.{axles[-1].id}")] + ([set_to("rig.suspension", "single")] if len(axles) == 2 else [])
            self.session.edit("Take an axle off", ops, "Rig")
