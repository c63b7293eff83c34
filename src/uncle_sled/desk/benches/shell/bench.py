"""Shell: the body's profile, what is cut into it, how it is framed and what its faces are made of."""

from __future__ import annotations

import base64
from collections.abc import Callable
from pathlib import Path
from typing import Any

import msgspec
from PySide6.QtCore import QBuffer, QByteArray, QIODevice, QPoint, Qt, QTimer
from PySide6.QtGui import QImage, QImageWriter
from PySide6.QtWidgets import QFileDialog, QHBoxLayout, QLabel, QPushButton, QSizePolicy, QSplitter, QStackedWidget, QVBoxLayout, QWidget

from uncle_sled.core.document.cutting_in import KINDS, first_opening
from uncle_sled.core.document.edits import Op, add_to, fresh_id, remove, set_to
from uncle_sled.core.document.field import field_of
from uncle_sled.core.document.presets import PRESETS
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import Opening, Shell
from uncle_sled.core.drawing.primitives import Primitive, Text, placed
from uncle_sled.core.drawing.shell.jamb import jamb, leaf_words
from uncle_sled.core.errors import EntryError
from uncle_sled.core.geometry.profile_edit import moved
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.heights import frame_top_m
from uncle_sled.core.parts.leaf import leaf_of
from uncle_sled.core.reading.studied import silhouette_of
from uncle_sled.core.studies.shell.bends import sheet_bends
from uncle_sled.core.studies.shell.holes import holes
from uncle_sled.core.studies.shell.shell_measures import measures
from uncle_sled.core.words import Words, lower_first
from uncle_sled.desk.ask import ask_text
from uncle_sled.desk.benches.bench import Bench
from uncle_sled.desk.benches.shell.flat_view import FlatView
from uncle_sled.desk.benches.shell.openings_table import OpeningsTable
from uncle_sled.desk.benches.shell.shell_sheet import ShellSheet
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.columns import Columns
from uncle_sled.desk.kit.dialog import popup_menu
from uncle_sled.desk.kit.fields import QuantityField, label
from uncle_sled.desk.kit.form import Form, Row, plain
from uncle_sled.desk.session import Session

FACES = ("floor", "left side", "right side", "roof", "front", "rear", "bulkhead", "other")
SKETCH_PX = 1600
PREFERRED, IGNORED = QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Ignored
# Share of the height that the sheet gets in each view.
UPPER = {
    "Profile": 0.62,
    "Openings": 0.56,
    "Framing": 0.44,
    "Faces": 0.46,
    "Holds": 0.42,
    "Joints": 0.26,
    "Walls": 0.46,
    "Survey": 0.40,
    "Reline": 0.42,
}


def _form_is(*forms: str) -> Callable[[Any], bool]:
    return lambda build: build.shell.form in forms


def _has(name: str) -> Callable[[Any], bool]:
    return lambda build: getattr(build.shell, name) is not None


def _tell(words: QLabel, text: str) -> None:
    """Words in a card, with the height that they need at its width."""
    words.setText(text)
    words.setMinimumHeight(words.heightForWidth(max(words.width(), 200)))


class ShellBench(Bench):
    def __init__(self, session: Session, stop: str) -> None:
        super().__init__(session, stop)
        self.add_views()
        self.top.addSpacing(2)
        self.profile_button = self._button("Shapes…", self._presets, "Take one of the usual silhouettes")
        self.point_button = self._button("Points…", self._points, "Add, take out or round a point; lay a sketch under it")
        self.cut_button = self._button("Cut in…", self.cut_menu, "Cut in a door, hatch, window, vent or cable")
        self.off_button = self._button("Close up", self.close_up, "Take the chosen opening out again")
        self.face_button = self._button("Add face", self._add_face, "")
        self.ways_button = self._button(
            "Ways…", self.compare, "The same faces made in other ways, side by side; nothing changes until you keep one"
        )
        self.end_top("")
        self.sheet = ShellSheet(session)
        self.sheet.node_chosen.connect(self._node_fields)
        self.sheet.scaled.connect(self._scale_sketch)
        self.panels = QStackedWidget()
        self.split = QSplitter(Qt.Orientation.Vertical)
        self.split.setChildrenCollapsible(False)
        self.split.addWidget(self.sheet)
        self.split.addWidget(self.panels)
        self.split.splitterMoved.connect(lambda *_: self.parted.add(self.view))
        self.parted: set[str] = set()  # views whose halves a hand has parted
        self.rows.addWidget(self.split, 1)
        self._make_profile_panel()
        self.openings_table = OpeningsTable(session)
        self.opening_flat = FlatView(session)
        openings = QWidget()
        row = QHBoxLayout(openings)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(8)
        left = QVBoxLayout()
        left.setSpacing(3)
        self.holes_words = label("", "small", "pencil", wrap=True)
        left.addWidget(self.openings_table, 1)
        left.addWidget(self.holes_words)
        row.addLayout(left, 5)
        right = QVBoxLayout()
        right.setSpacing(6)
        self.jamb = Chart(session, "Through the jamb of the chosen door", self._jamb, "")
        right.addWidget(self.opening_flat, 1)
        right.addWidget(self.jamb, 1)
        row.addLayout(right, 2)
        self.framing, self.faces_panel = self.make("Framing"), self.make("Faces")
        self.holds, self.joints, self.walls = self.make("Holds"), self.make("Joints"), self.make("Walls")
        self.survey, self.reline = self.make("Survey"), self.make("Reline")
        for panel in (
            self.profile_panel,
            openings,
            self.framing,
            self.faces_panel,
            self.holds,
            self.joints,
            self.walls,
            self.survey,
            self.reline,
        ):
            self.panels.addWidget(panel)
        session.changed.connect(self.refresh)
        session.selected.connect(self._selected)
        self.show_view("Profile")

    def _button(self, text: str, does: object, tip: str) -> QPushButton:
        button = QPushButton(text)
        button.setToolTip(tip)
        button.clicked.connect(lambda _=False: does())  # type: ignore[operator]
        self.top.addWidget(button)
        return button

    # views
    def show_view(self, name: str) -> None:
        self.view = name
        self.view_buttons[name].setChecked(True)
        self.sheet.show_view(name)  # type: ignore[union-attr]
        self.panels.setCurrentIndex(list(self.view_buttons).index(name))
        for at in range(self.panels.count()):  # a page that is not shown asks for no room
            shown = at == self.panels.currentIndex()
            page = self.panels.widget(at)
            if page is not None:
                page.setSizePolicy(PREFERRED, PREFERRED if shown else IGNORED)
        self._part()
        for button, view in (
            (self.profile_button, "Profile"),
            (self.point_button, "Profile"),
            (self.cut_button, "Openings"),
            (self.off_button, "Openings"),
            (self.face_button, "Faces"),
            (self.ways_button, "Faces"),
        ):
            button.setVisible(view == name)
        self.refresh()
        QTimer.singleShot(0, self, self.refresh)  # once more when the panel knows its width

    def _part(self) -> None:
        """Each view gives its drawing the room that it wants, until a hand parts them otherwise."""
        if self.view not in self.parted:
            high, upper = self.split.height(), UPPER[self.view]
            self.split.setSizes([round(high * upper), round(high * (1 - upper))])

    def resizeEvent(self, event: object) -> None:
        self._part()

    def showEvent(self, event: object) -> None:
        self._part()
        self.refresh()

    def refresh(self) -> None:
        if not self.isVisible():
            return
        if self.view == "Profile":
            self._refresh_profile()
        elif self.view == "Openings":
            self.openings_table.refresh()
            self._selected()
            self._count_holes()
        elif self.view == "Framing":
            self.framing.refresh()
        elif self.view == "Holds":
            self.holds.refresh()
        elif self.view == "Joints":
            self.joints.refresh()
        elif self.view == "Walls":
            self.walls.refresh()
        elif self.view == "Survey":
            self.survey.refresh()
        elif self.view == "Reline":
            self.reline.refresh()
        else:
            self.faces_panel.refresh()

    # profile
    def _make_profile_panel(self) -> None:
        session = self.session
        self.form = Form(
            session,
            "Form",
            [
                Row("shell.form"),
                Row("shell.low_side", when=_form_is("shed", "flat")),
                *plain("shell", "front length width height"),
                Row("shell.eaves", when=_form_is("shed", "flat", "gable", "butterfly")),
                Row("shell.bevel", when=_form_is("bevelled")),
                Row("shell.roof_overhang", when=_form_is("gable", "butterfly")),
                *plain("shell", "nose_point tail_clip", when=_form_is("box", "flat", "shed")),
                *plain("shell", "tail_clip_across clipped", when=_has("tail_clip")),
                *plain("shell", "floor wall mattress"),
            ],
            "Shell",
        )
        self.form.whole.addWidget(
            label(
                "Bodies that fold (a roof or side on hinges) are not drawn here; plan them as they stand on the road.",
                "small",
                "pencil",
                wrap=True,
            )
        )
        self.room = Form(session, "Room and outside", [], "Shell")
        self.room_words = label("", "", wrap=True)
        self.room.whole.addWidget(self.room_words)
        self.node_card = Form(session, "Point of the profile", [], "Shell")
        self.node_fields: dict[str, QuantityField] = {}
        for at, (key, title) in enumerate((("u", "From front"), ("v", "Height"))):
            field = QuantityField(Length, title, lambda: session.shown, False, None)
            field.entered.connect(lambda value, key=key: self._type_node(key, value))
            field.wrong.connect(self.node_card._complain)
            self.node_card.grid.addWidget(label(title, "", "pencil"), at, 0)
            self.node_card.grid.addWidget(field, at, 1)
            self.node_fields[key] = field
        self.node_words = label("", "small", "pencil", wrap=True)
        self.node_card.whole.addWidget(self.node_words)
        self.boxes = Form(session, "Wheel boxes and nose box", self._box_rows(), "Shell")
        self.box_buttons = QHBoxLayout()
        self.wheel_button = QPushButton()
        self.wheel_button.clicked.connect(self.toggle_wheel_boxes)
        self.nose_button = QPushButton()
        self.nose_button.clicked.connect(self.toggle_nose_box)
        for button in (self.wheel_button, self.nose_button):
            self.box_buttons.addWidget(button)
        self.boxes.whole.addLayout(self.box_buttons)
        self.profile_panel = Columns(list[QWidget]([self.form, self.room, self.node_card, self.boxes]))

    def _box_rows(self) -> list[Row]:
        wheel, nose = _has("wheel_boxes"), _has("nose_box")
        path = "shell.wheel_boxes"
        return [*plain(path, "length width height", when=wheel), *plain("shell.nose_box", "length width height mass source", when=nose)]

    def _refresh_profile(self) -> None:
        self.form.refresh()
        self.boxes.refresh()
        shell = self.session.build.shell
        self.wheel_button.setText("No wheel boxes" if shell.wheel_boxes else "Add wheel boxes")
        self.nose_button.setText("No nose box" if shell.nose_box else "Add a nose box")
        self.node_card.setVisible(shell.form == "profile")
        self._node_fields()
        _tell(self.room_words, self._room())
        self.profile_panel.settle()

    def _room(self) -> str:
        s, words = self.session.studied, Words(self.session.shown)
        m = measures(s)
        if m is None:
            return "Take a silhouette or a form and type its sizes to begin."
        lines = [f"Side {words.m2(m.outline_area_m2, 2)}, skin {words.m2(m.skin_area_m2)} in all."]
        if m.inside_length_m is not None:
            lines.append(f"Inside {words.m(m.inside_length_m)} long at the mattress")
        if m.inside_width_m is not None and m.inside_height_m is not None:
            lines[-1] += f", {words.m(m.inside_width_m)} wide, {words.m(m.inside_height_m)} head room at most."
        if self.session.build.shell.form == "profile":
            radii = [f"{kind} {words.m(r)}" for kind, r in m.radii_m if r < 50]
            lines.append(f"Tightest radius: {', '.join(radii) or 'all flat'}.")
        formed = {b.face_id: b for b in sheet_bends(s) if b.formed_m is not None and b.radius_m < 50}
        for face in s.build.shell.faces:
            bend = formed.get(face.id)
            if bend is not None and bend.formed_m is not None:
                lines.append(
                    f"{face.name}: glue its sheets to a form of {words.m(bend.formed_m)}; they spring to {words.m(bend.radius_m)}."
                )
        if m.departure_deg is not None:
            lines.append(f"Departs at {m.departure_deg:.0f}° behind the rear tyre.")
        if m.overhang_m is not None and m.overhang_m > 0.01:
            lines.append(f"Reaches {words.m(m.overhang_m)} past the frame's end.")
        if m.hatch_line is not None:
            lines.append(f"Hatch line {words.m(m.hatch_line[1])} above the ground.")
        total = sum(p.mass_kg for p in s.parts if p.made_by.startswith("shell."))
        whole = self.session.build.rig.base == "as bought" and self.session.build.rig.carrier == "ball"
        told = f"What came into the shell since it was weighed: {words.kg(total)}." if whole else f"The body weighs {words.kg(total)}."
        lines.append(told)
        return "\n".join(lines)

    def _node_fields(self) -> None:
        shell = self.session.build.shell
        node = self.sheet.node  # type: ignore[union-attr]
        if node is not None and node >= len(shell.profile):
            self.sheet.node = node = None  # type: ignore[union-attr]
        there = node is not None and shell.length is not None and shell.height is not None
        for field in self.node_fields.values():
            field.setEnabled(there and node not in (0, len(shell.profile) - 1))
        if there and node is not None and shell.length and shell.height:
            n = shell.profile[node]
            self.node_fields["u"].show_value(Length(n.u * shell.length.si))
            self.node_fields["v"].show_value(Length(n.v * shell.height.si))
            self.node_words.setText(
                "A foot stays at its end of the floor."
                if node in (0, len(shell.profile) - 1)
                else "Pull it or its crosses; Shift breaks the tangent, Ctrl does not snap, Delete takes it out."
            )
        else:
            for field in self.node_fields.values():
                field.show_value(None)
            self.node_words.setText("Click a blue diamond on the outline; double-click the outline for one more.")

    def _type_node(self, key: str, value: Length) -> None:
        shell, sheet = self.session.build.shell, self.sheet
        assert isinstance(sheet, ShellSheet)
        if sheet.node is None or shell.length is None or shell.height is None:
            return
        n = shell.profile[sheet.node]
        u = value.si / shell.length.si if key == "u" else n.u
        v = value.si / shell.height.si if key == "v" else n.v
        sheet.edit_profile("Place a point of the profile", moved(shell.profile, sheet.node, "node", u, v))
        self._node_fields()

    def toggle_wheel_boxes(self) -> None:
        build = self.session.build
        if build.shell.wheel_boxes is not None:
            self.session.edit("No wheel boxes", [set_to("shell.wheel_boxes", None)], "Shell")
            return
        if not build.rig.axles and build.rig.carrier == "ball":
            self.session.said.emit("Wheel boxes stand over the wheels: give the rig an axle first.", "note")
            return
        stations = [a.station.si for a in build.rig.axles] or [0.0]
        wheel = build.rig.tyre.diameter.si if build.rig.tyre.diameter else 0.6
        size = {"length": {"si": round(max(stations) - min(stations) + wheel + 0.2, 3)}, "width": {"si": 0.22}, "height": {"si": 0.22}}
        self.session.edit("Add wheel boxes", [set_to("shell.wheel_boxes", size)], "Shell")

    def toggle_nose_box(self) -> None:
        if self.session.build.shell.nose_box is not None:
            self.session.edit("No nose box", [set_to("shell.nose_box", None)], "Shell")
            return
        size = {"length": {"si": 0.4}, "width": {"si": 0.9}, "height": {"si": 0.45}}
        self.session.edit("Add a nose box", [set_to("shell.nose_box", size)], "Shell")

    def _presets(self) -> None:
        menu = popup_menu(self)
        for name in PRESETS:
            menu.addAction(name).triggered.connect(lambda _=False, name=name: self.take_profile(name))
        menu.addSeparator()
        for value, words in field_of(Shell, "form").choices[2:]:
            menu.addAction(words).triggered.connect(lambda _=False, form=str(value), words=words: self.take_form(form, words))
        menu.exec(self.profile_button.mapToGlobal(QPoint(0, self.profile_button.height() + 2)))

    def take_form(self, form: str, words: str) -> None:
        self.session.edit(f"Body: {words}", [set_to("shell.form", form), *self._sizes()], "Shell")

    def take_profile(self, name: str) -> None:
        nodes = msgspec.to_builtins(PRESETS[name])
        self.session.edit(f"Profile: {name}", [set_to("shell.form", "profile"), set_to("shell.profile", nodes), *self._sizes()], "Shell")

    def _sizes(self) -> list[Op]:
        """Sizes to begin with, where none were typed yet."""
        build = self.session.build
        first = {"front": 1.2, "length": 3.0, "width": 1.6, "height": 1.25, "floor": round(frame_top_m(build), 3), "wall": 0.04}
        return [set_to(f"shell.{name}", {"si": si, "typed": None}) for name, si in first.items() if getattr(build.shell, name) is None]

    def _points(self) -> None:
        sheet = self.sheet
        assert isinstance(sheet, ShellSheet)
        menu = popup_menu(self)
        menu.addAction("Add a point").triggered.connect(lambda: sheet.add_point())
        menu.addAction("Take the chosen point out").triggered.connect(sheet.take_point)
        menu.addAction("Round it, or make it a corner").triggered.connect(sheet.round_point)
        menu.addSeparator()
        menu.addAction("Lay a sketch under it…").triggered.connect(self.lay_sketch)
        if self.session.build.shell.sketch is not None:
            menu.addAction("Scale the sketch by two points").triggered.connect(lambda: self._hold_sketch("scale"))
            menu.addAction("Slide the sketch").triggered.connect(lambda: self._hold_sketch("move"))
            menu.addAction("Take the sketch away").triggered.connect(
                lambda: self.session.edit("Take the sketch away", [set_to("shell.sketch", None)], "Shell")
            )
        menu.exec(self.point_button.mapToGlobal(QPoint(0, self.point_button.height() + 2)))

    def _hold_sketch(self, how: str) -> None:
        self.sheet.sketching = how  # type: ignore[union-attr]
        says = "Pull from one point of the sketch to another whose distance you know."
        self.session.said.emit(says if how == "scale" else "Pull the sketch to its place; choose another view when done.", "note")

    def lay_sketch(self) -> None:
        word, _ = QFileDialog.getOpenFileName(self, "A picture of the sketch", "", "Pictures (*.png *.jpg *.jpeg *.bmp)")
        if word:
            self.lay_sketch_from(Path(word))

    def lay_sketch_from(self, path: Path) -> None:
        """Put a picture under the profile, as wide as the body for a start. What cannot be read is said."""
        image = QImage(str(path))
        if image.isNull():
            self.session.said.emit(f"{path.name} is not a picture that can be read; a PNG or JPEG would be right.", "stop")
            return
        if max(image.width(), image.height()) > SKETCH_PX:
            image = image.scaled(SKETCH_PX, SKETCH_PX, Qt.AspectRatioMode.KeepAspectRatio, Qt.TransformationMode.SmoothTransformation)
        buffer = QBuffer()
        buffer.open(QIODevice.OpenModeFlag.WriteOnly)
        writer = QImageWriter(buffer, QByteArray(b"jpeg"))
        writer.setQuality(80)
        writer.write(image.convertToFormat(QImage.Format.Format_RGB32))
        shell = self.session.build.shell
        long = shell.length.si if shell.length else 3.0
        record = {
            "picture": base64.b64encode(bytes(buffer.data().data())).decode(),
            "x": {"si": shell.front.si if shell.front else 1.2},
            "z": {"si": shell.floor.si if shell.floor else 0.5},
            "m_per_px": long / image.width(),
        }
        self.session.edit(f"Lay {path.name} under the profile", [set_to("shell.sketch", record)], "Shell")
        self._hold_sketch("scale")

    def _scale_sketch(self, far: float) -> None:
        """Two points were set that lie ``far`` apart as drawn; what is it really?"""
        words = Words(self.session.shown)
        text = ask_text(self, "Scale the sketch", f"As drawn now they are {words.m(far)} apart. What is it really?")
        if text:
            self.scale_sketch(far, text)

    def scale_sketch(self, far: float, text: str) -> None:
        sketch = self.session.build.shell.sketch
        if sketch is None:
            return
        try:
            real = Length.read(text, self.session.shown).si
        except EntryError as fault:
            self.session.said.emit(str(fault), "stop")
            return
        if real <= 0:
            self.session.said.emit("A distance must be more than nothing.", "stop")
            return
        self.session.edit("Scale the sketch", [set_to("shell.sketch.m_per_px", sketch.m_per_px * real / far)], "Shell")

    # openings
    def _selected(self) -> None:
        if self.view != "Openings":
            return
        opening = next((o for o in self.session.build.shell.openings if o.id in self.session.selection), None)
        self.off_button.setEnabled(opening is not None)
        if opening is not None:
            self.opening_flat.show_kind(opening.face)
        self.jamb.setVisible(opening is not None and opening.leaf is not None)
        self.jamb.update()
        self._count_holes()

    def _chosen_leaf(self) -> Opening | None:
        chosen = self.session.selection
        return next((o for o in self.session.build.shell.openings if o.id in chosen and o.leaf is not None), None)

    def _jamb(self, width: float, height: float) -> tuple[Primitive, ...]:
        """A cut through the jamb, as large as there is room; full size is on paper."""
        opening = self._chosen_leaf()
        if opening is None:
            return ()
        words = Words(self.session.shown)
        shapes, wide, high = jamb(self.session.studied, opening, words)
        if not shapes:
            return ()
        scale = min((width - 24) / wide, (height - 52) / high)
        title = Text((12, height - 12), "Through the jamb; full size on paper", 11, "pencil", anchor="left")
        return (title, *placed(shapes, scale, 12, 30 + 0.02 * scale))

    def _count_holes(self) -> None:
        found, words = holes(self.session.studied), Words(self.session.shown)
        roof = sum(h.many for h in found if h.on_roof)
        seam = sum(h.seam_m for h in found)
        opening = self._chosen_leaf()
        made = leaf_of(opening, library_of(self.session.facts.materials)) if opening is not None else None
        if made is not None:
            self.holes_words.setText(leaf_words(made, words))
            return
        self.holes_words.setText(
            f"{_holes(sum(h.many for h in found))} in the skin, {roof} in the roof, {words.m(seam)} of seam. Drag one on the drawing; its face reframes."
            if found
            else "Nothing is cut in yet. A door, a hatch, a window: Cut in…"
        )

    def cut_menu(self) -> None:
        menu = popup_menu(self)
        for kind in KINDS:
            words = {"gland": "cable gland", "screw row": "row of screws"}.get(kind, kind)
            menu.addAction(words).triggered.connect(lambda _=False, kind=kind: self.cut_in(kind))
        menu.exec(self.cut_button.mapToGlobal(QPoint(0, self.cut_button.height() + 2)))

    def cut_in(self, kind: str) -> None:
        shell = self.session.build.shell
        if silhouette_of(shell) is None:
            self.session.said.emit("There is no body to cut into yet: take a silhouette first.", "note")
            return
        record = first_opening(shell, kind)
        if self.session.edit(f"Cut in a {lower_first(record['name'])}", [add_to("shell.openings", record)], "Shell", (record["id"],)):
            self.session.select((record["id"],))

    def close_up(self) -> None:
        opening = next((o for o in self.session.build.shell.openings if o.id in self.session.selection), None)
        if opening is not None:
            self.session.edit(f"Close up {lower_first(opening.name)}", [remove(f"shell.openings.{opening.id}")], "Shell", (opening.id,))

    # faces
    def compare(self) -> None:
        from uncle_sled.desk.benches.shell.compare_ways import CompareWays  # not on the first screen

        if silhouette_of(self.session.build.shell) is None or not self.session.build.shell.faces:
            self.session.said.emit("There is no body with faces yet: take a silhouette and add its faces first.", "note")
            return
        CompareWays(self.session, self).open()

    def _add_face(self) -> None:
        menu = popup_menu(self)
        for kind in FACES:
            menu.addAction(kind).triggered.connect(lambda _=False, kind=kind: self.add_face(kind))
        menu.addSeparator()
        for face in self.session.build.shell.faces:
            menu.addAction(f"Take off: {face.name}").triggered.connect(
                lambda _=False, face=face: self.session.edit(f"Take off the face {face.name}", [remove(f"shell.faces.{face.id}")], "Shell")
            )
        menu.exec(self.face_button.mapToGlobal(QPoint(0, self.face_button.height() + 2)))

    def add_face(self, kind: str) -> None:
        id = fresh_id("f", [face.id for face in self.session.build.shell.faces])
        self.session.edit(
            f"Add a face: {kind}", [add_to("shell.faces", {"id": id, "kind": kind, "name": kind.capitalize()})], "Shell", (id,)
        )


def _holes(many: int) -> str:
    return "1 hole" if many == 1 else f"{many} holes"
