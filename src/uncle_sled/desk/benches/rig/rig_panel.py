"""The fields of the rig in three cards: what carries it, axle and tyres, plates and ratings."""

from __future__ import annotations

from uncle_sled.core.document.project import Build
from uncle_sled.core.sections import sections
from uncle_sled.desk.benches.rig.beside_it import classes_card, offers_card, other_wheels_card
from uncle_sled.desk.benches.rig.came_off import came_off_card
from uncle_sled.desk.benches.rig.plate_picture import PlatePicture
from uncle_sled.desk.kit.form import Row, plain
from uncle_sled.desk.kit.panel import Panel, card
from uncle_sled.desk.kit.parts import Cards, Fields, Own, note
from uncle_sled.desk.session import Session

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
    offered = [
        section
        for section in sections().values()
        if section.id in chosen or (section.inches == shown.imperial and section.deep >= LEAST_RAIL_M)
    ]
    return [("", none), *((section.id, _short(section.says(shown, short=True))) for section in offered)]


def _short(says: str) -> str:
    """A section in the room of a field: a tube is understood, and so are millimetres and inches."""
    return says.removeprefix("tube ").removesuffix(" mm").removesuffix('"').replace("aluminium", "alu.")


def _bought(build: Build) -> bool:
    return _ball(build) and build.rig.base == "as bought"


def _bought_torsion(build: Build) -> bool:
    return _bought(build) and _torsion(build)


def _bought_loose(build: Build) -> bool:
    return _bought(build) and build.rig.axle_place == "to be placed"


def _torsion(build: Build) -> bool:
    return _ball(build) and build.rig.suspension == "independent"


class RigPanel(Panel):
    def laid(self) -> Cards:
        session = self.session
        carries = [
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
        ]
        axles = [
            *plain("rig", "suspension axle_place track", when=_ball),
            Row("rig.frame_altered"),
            Row("rig.frame_mended", when=_ball),
            *plain("rig.tyre", "load_index speed_symbol grip rated_kpa least_kpa diameter width"),
            *plain("rig.tyre", "gap_left gap_right", when=_ball),
            *plain("rig", "spring_side brakes", when=_ball),
            *plain("rig", "spring_rate level_load", when=_torsion),
            Row("rig.ball_height", when=_ball),
            Row("rig.reference_height", when=_torsion),
        ]
        plates = [
            *plain(
                "rig",
                "gross_total axle_group coupler_rating hitch_rating jack_station jack_rating stabiliser_station stabiliser_rating chain_rating weight_distributing",
                when=_ball,
            ),
            *plain("rig.bed", "front_rating rear_rating gross_rating", when=_bed),
        ]
        return Cards(
            (
                card(
                    "What carries it",
                    Fields("", carries, "Rig", bare=True),
                    note("Not for gooseneck, fifth-wheel or drawbar trailers with a steered axle."),
                ),
                came_off_card(session, lambda: _bought(session.build)),
                Fields("Axle and tyres", axles, "Rig"),
                card("Plates and ratings", Own(PlatePicture, when=lambda: _ball(session.build)), Fields("", plates, "Rig", bare=True)),
                other_wheels_card(session),
                classes_card(session),
                offers_card(session),
            )
        )
