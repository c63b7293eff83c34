"""The profile view's lower half: the form with its sizes, the room in it, the chosen point, wheel boxes and nose box."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import Any

from uncle_sled.core.document.edits import set_to
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import ProfileNode, Shell
from uncle_sled.core.document.walling import first_nose_box, first_wheel_boxes
from uncle_sled.core.drawing.shell.room_words import room_words
from uncle_sled.core.geometry.profile_edit import moved
from uncle_sled.desk.benches.shell.shell_sheet import ShellSheet
from uncle_sled.desk.kit.fields import QuantityField
from uncle_sled.desk.kit.form import Row, plain
from uncle_sled.desk.kit.panel import Panel, across, card
from uncle_sled.desk.kit.parts import Act, Cards, Complaint, Fields, Own, Says, note
from uncle_sled.desk.session import Session


def _form_is(*forms: str) -> Callable[[Any], bool]:
    return lambda build: build.shell.form in forms


def _has(name: str) -> Callable[[Any], bool]:
    return lambda build: getattr(build.shell, name) is not None


class ProfilePanel(Panel):
    def __init__(self, session: Session, sheet: ShellSheet) -> None:
        self.sheet = sheet
        super().__init__(session)
        sheet.node_chosen.connect(self.refresh)

    def laid(self) -> Cards:
        self.node_fields = {
            key: self.put(Own(partial(self._field, key, title), partial(self._show_field, key)))
            for key, title in (("u", "From front"), ("v", "Height"))
        }
        form = [
            Row("shell.form"),
            Row("shell.low_side", when=_form_is("shed", "flat")),
            *plain("shell", "front length width height"),
            Row("shell.eaves", when=_form_is("shed", "flat", "gable", "butterfly")),
            Row("shell.bevel", when=_form_is("bevelled")),
            Row("shell.roof_overhang", when=_form_is("gable", "butterfly")),
            *plain("shell", "nose_point tail_clip", when=_form_is("box", "flat", "shed")),
            *plain("shell", "tail_clip_across clipped", when=_has("tail_clip")),
            Row("shell.tail_from", when=_form_is("profile")),
            *plain("shell", "floor wall mattress"),
        ]
        boxes = [
            *plain("shell.wheel_boxes", "length width height", when=_has("wheel_boxes")),
            *plain("shell.nose_box", "length width height mass source", when=_has("nose_box")),
        ]
        return Cards(
            (
                card(
                    "Form",
                    Fields("", form, "Shell", bare=True),
                    note("Bodies that fold (a roof or side on hinges) are not drawn here; plan them as they stand on the road."),
                ),
                card("Room and outside", Says(lambda: room_words(self.studied, self.words))),
                card(
                    "Point of the profile",
                    *(
                        across(Says(title, "pencil", wide=96), field)
                        for title, field in zip(("From front", "Height"), self.node_fields.values(), strict=True)
                    ),
                    Complaint(),
                    Says(self._node_told, "pencil", "small"),
                    when=lambda: self._shell.form == "profile",
                ),
                card(
                    "Wheel boxes and nose box",
                    Fields("", boxes, "Shell", bare=True),
                    across(
                        Act(
                            "Add wheel boxes",
                            "Over the wheels of all axles",
                            self.toggle_wheel_boxes,
                            plain=True,
                            when=lambda: self._shell.wheel_boxes is None,
                        ),
                        Act(
                            "No wheel boxes",
                            "They go out of the floor",
                            self.toggle_wheel_boxes,
                            plain=True,
                            when=lambda: self._shell.wheel_boxes is not None,
                        ),
                        Act(
                            "Add a nose box", "On the drawbar", self.toggle_nose_box, plain=True, when=lambda: self._shell.nose_box is None
                        ),
                        Act(
                            "No nose box",
                            "It goes off the drawbar",
                            self.toggle_nose_box,
                            plain=True,
                            when=lambda: self._shell.nose_box is not None,
                        ),
                    ),
                ),
            )
        )

    @property
    def _shell(self) -> Shell:
        return self.session.build.shell

    # the chosen point
    def _field(self, key: str, title: str) -> QuantityField:
        made = QuantityField(Length, title, lambda: self.session.shown, may_be_empty=False, least=None)
        made.entered.connect(partial(self._type_node, key))
        made.wrong.connect(self.complain)
        return made

    def _node(self) -> ProfileNode | None:
        shell, at = self.session.build.shell, self.sheet.node
        if at is not None and at >= len(shell.profile):
            self.sheet.node = at = None
        return shell.profile[at] if at is not None and shell.length is not None and shell.height is not None else None

    def _is_foot(self) -> bool:
        return self.sheet.node in (0, len(self.session.build.shell.profile) - 1)

    def _show_field(self, key: str, field: QuantityField) -> None:
        shell, node = self.session.build.shell, self._node()
        field.setEnabled(node is not None and not self._is_foot())
        if node is None or shell.length is None or shell.height is None:
            field.show_value(None)
        else:
            field.show_value(Length(node.u * shell.length.si if key == "u" else node.v * shell.height.si))

    def _node_told(self) -> str:
        if self._node() is None:
            return "Click a blue diamond on the outline; double-click the outline for one more."
        if self._is_foot():
            return "A foot stays at its end of the floor."
        return "Pull it or its crosses; Shift breaks the tangent, Ctrl does not snap, Delete takes it out."

    def _type_node(self, key: str, value: Length) -> None:
        shell, node = self.session.build.shell, self._node()
        if node is None or self.sheet.node is None or shell.length is None or shell.height is None:
            return
        u = value.si / shell.length.si if key == "u" else node.u
        v = value.si / shell.height.si if key == "v" else node.v
        self.sheet.edit_profile("Place a point of the profile", moved(shell.profile, self.sheet.node, "node", u, v))
        self.refresh()

    # boxes
    def toggle_wheel_boxes(self) -> None:
        build = self.session.build
        if build.shell.wheel_boxes is not None:
            self.session.edit("No wheel boxes", [set_to("shell.wheel_boxes", None)], "Shell")
            return
        record = first_wheel_boxes(build)
        if record is None:
            self.session.said.emit("Wheel boxes stand over the wheels: give the rig an axle first.", "note")
            return
        self.session.edit("Add wheel boxes", [set_to("shell.wheel_boxes", record)], "Shell")

    def toggle_nose_box(self) -> None:
        if self.session.build.shell.nose_box is not None:
            self.session.edit("No nose box", [set_to("shell.nose_box", None)], "Shell")
            return
        self.session.edit("Add a nose box", [set_to("shell.nose_box", first_nose_box())], "Shell")
