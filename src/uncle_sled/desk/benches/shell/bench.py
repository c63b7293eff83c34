"""Shell: the body's profile, what is cut into it, how it is framed and what its faces are made of."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

import msgspec
from PySide6.QtCore import QPoint, Qt, QTimer
from PySide6.QtWidgets import QFileDialog, QPushButton, QSplitter

from uncle_sled.core.document.cutting_in import CURVED, KINDS, first_opening
from uncle_sled.core.document.edits import Op, add_to, fresh_id, remove, set_to
from uncle_sled.core.document.field import field_of
from uncle_sled.core.document.file_beside import sketch_fault
from uncle_sled.core.document.presets import PRESETS
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import Shell
from uncle_sled.core.errors import EntryError, FileError, GeometryError
from uncle_sled.core.geometry.outline_taken import taken_from
from uncle_sled.core.geometry.tail_hatch import over_curve
from uncle_sled.core.parts.heights import frame_top_m
from uncle_sled.core.reading.studied import silhouette_of
from uncle_sled.core.words import Words, lower_first
from uncle_sled.desk.ask import ask_text
from uncle_sled.desk.benches.bench import PanelBench
from uncle_sled.desk.benches.shell.profile_panel import ProfilePanel
from uncle_sled.desk.benches.shell.shell_sheet import ShellSheet
from uncle_sled.desk.benches.shell.sketch import corners_fault, picture_of, sketch_record
from uncle_sled.desk.kit.dialog import popup_menu
from uncle_sled.desk.kit.panel import Panel
from uncle_sled.desk.session import Session
from uncle_sled.exchange.laid_beside import SKETCHES, laid_beside

FACES = ("floor", "left side", "right side", "roof", "front", "rear", "bulkhead", "other")
# Share of the height that the sheet gets in each view.
UPPER = {
    "Profile": 0.62,
    "Openings": 0.56,
    "Framing": 0.44,
    "Faces": 0.46,
    "Holds": 0.42,
    "Joints": 0.26,
    "Walls": 0.46,
    "Roof up": 0.36,
    "Survey": 0.40,
    "Reline": 0.42,
}


class ShellBench(PanelBench):
    strip = False

    def __init__(self, session: Session, stop: str) -> None:
        self.sheet = self.body = ShellSheet(session)
        self.parted: set[str] = set()  # views whose halves a hand has parted
        self.deeds: dict[str, list[QPushButton]] = {}  # of the title row, by the view they belong to
        super().__init__(session, stop)
        self.profile_button = self._button("Profile", "Shapes…", self._presets, "Take one of the usual silhouettes")
        self.point_button = self._button(
            "Profile", "Points…", self._points, "Add, take out or round a point; lay a picture under it, take an outline"
        )
        self.cut_button = self._button("Openings", "Cut in…", self.cut_menu, "Cut in a door, hatch, window, vent or cable")
        self.off_button = self._button("Openings", "Close up", self.close_up, "Take the chosen opening out again")
        self.face_button = self._button("Faces", "Add face", self._add_face, "Or take one off")
        self._button("Faces", "Ways…", self.compare, "The same faces made in other ways, side by side; nothing changes until you keep one")
        self.body.scaled.connect(self._scale_sketch)
        self.body.cornered.connect(self._straighten)
        session.selected.connect(self._selected)
        self.show_view("Profile")

    def stack_views(self) -> None:
        """The drawing above, the panel of the view under it."""
        super().stack_views()
        self.split = QSplitter(Qt.Orientation.Vertical)
        self.split.setChildrenCollapsible(False)
        self.split.addWidget(self.body)
        self.split.addWidget(self.panels)
        self.split.splitterMoved.connect(lambda *_: self.parted.add(self.view))
        self.rows.addWidget(self.split, 1)

    def make(self, name: str) -> Panel:
        return ProfilePanel(self.session, self.body) if name == "Profile" else super().make(name)

    def _button(self, view: str, text: str, does: Callable[[], object], tip: str) -> QPushButton:
        button = QPushButton(text)
        button.setProperty("kind", "tight")  # they stand in the row of views
        button.setToolTip(tip)
        button.clicked.connect(lambda _=False: does())
        self.top.insertWidget(self.top.count() - 2, button)
        self.deeds.setdefault(view, []).append(button)
        return button

    # views
    def show_view(self, name: str) -> None:
        self.body.show_view(name)
        super().show_view(name)
        self._part()
        for view, buttons in self.deeds.items():
            for button in buttons:
                button.setVisible(view == name)
        self._selected()
        QTimer.singleShot(0, self, self.refresh)  # once more when the panel knows its width

    def _part(self) -> None:
        """Each view gives its drawing the room that it wants, until a hand parts them otherwise."""
        if self.view not in self.parted:
            high, upper = self.split.height(), UPPER[self.view]
            self.split.setSizes([round(high * upper), round(high * (1 - upper))])

    def resizeEvent(self, _event: object) -> None:
        self._part()

    def showEvent(self, _event: object) -> None:
        self._part()
        self.refresh()

    def _selected(self) -> None:
        chosen = any(opening.id in self.session.selection for opening in self.session.build.shell.openings)
        self.off_button.setEnabled(chosen)

    # profile
    def _presets(self) -> None:
        menu = popup_menu(self)
        for name in PRESETS:
            menu.addAction(name).triggered.connect(lambda _=False, name=name: self.take_profile(name))
        menu.addSeparator()
        for value, words in field_of(Shell, "form").choices[2:]:
            menu.addAction(words).triggered.connect(lambda _=False, form=str(value), words=words: self.take_form(form, words))
        menu.popup(self.profile_button.mapToGlobal(QPoint(0, self.profile_button.height() + 2)))

    def take_form(self, form: str, words: str) -> None:
        self.session.edit(f"Body: {words}", [set_to("shell.form", form), *self._sizes()], "Shell")

    def take_profile(self, name: str) -> None:
        nodes = msgspec.to_builtins(PRESETS[name])
        self.session.edit(f"Profile: {name}", [set_to("shell.form", "profile"), set_to("shell.profile", nodes), *self._sizes()], "Shell")

    def _sizes(self, but: tuple[str, ...] = ()) -> list[Op]:
        """Sizes to begin with, where none were typed yet. Args: but: those that are known."""
        build = self.session.build
        first = {"front": 1.2, "length": 3.0, "width": 1.6, "height": 1.25, "floor": round(frame_top_m(build), 3), "wall": 0.04}
        return [
            set_to(f"shell.{name}", {"si": si, "typed": None})
            for name, si in first.items()
            if name not in but and getattr(build.shell, name) is None
        ]

    def _points(self) -> None:
        sheet = self.body
        menu = popup_menu(self)
        menu.addAction("Add a point").triggered.connect(lambda: sheet.add_point())
        menu.addAction("Take the chosen point out").triggered.connect(sheet.take_point)
        menu.addAction("Round it, or make it a corner").triggered.connect(sheet.round_point)
        menu.addSeparator()
        menu.addAction("Lay a picture under it…").triggered.connect(self.lay_sketch)
        menu.addAction("Take the outline from a DXF…").triggered.connect(self.choose_outline)
        if self.session.build.shell.sketch is not None:
            menu.addAction("Scale the picture by two points").triggered.connect(lambda: self.hold_sketch("scale"))
            menu.addAction("Straighten the picture by four points").triggered.connect(lambda: self.hold_sketch("corners"))
            menu.addAction("Slide the picture").triggered.connect(lambda: self.hold_sketch("move"))
            menu.addAction("Take the picture away").triggered.connect(
                lambda: self.session.edit("Take the picture away", [set_to("shell.sketch", None)], "Shell")
            )
        menu.popup(self.point_button.mapToGlobal(QPoint(0, self.point_button.height() + 2)))

    def hold_sketch(self, how: str) -> None:
        self.body.sketching, self.body.corners = how, []
        self.body.update()
        says = {
            "scale": "Pull from one point of the picture to another whose distance you know.",
            "corners": "Click the four corners of what is a rectangle in truth (a door, a sheet of ply): the upper left first, then clockwise.",
            "move": "Pull the picture to its place; choose another view when done.",
        }
        self.session.said.emit(says[how], "note")

    def lay_sketch(self) -> None:
        word, _ = QFileDialog.getOpenFileName(
            self, "A picture to be traced", "", "Pictures and drawings (*.png *.jpg *.jpeg *.bmp *.svg *.dxf)"
        )
        if word:
            self.lay_sketch_from(Path(word))

    def lay_sketch_from(self, path: Path) -> None:
        """Put a picture under the profile; it lies beside the build as a file. What cannot be read is said."""
        if self.session.path is None:
            self.session.said.emit("Save the build first: pictures lie beside its file.", "stop")
            return
        try:
            image, true = picture_of(path)
            at = laid_beside(path, Path(self.session.path), SKETCHES, sketch_fault)
        except FileError as fault:
            self.session.said.emit(str(fault), "stop")
            return
        record = sketch_record(at, self.session.build.shell, image, true)
        self.session.edit(f"Lay {path.name} under the profile", [set_to("shell.sketch", record)], "Shell")
        if true is None:
            self.hold_sketch("scale")

    def _straighten(self, corners: tuple[float, ...]) -> None:
        """Four corners were set; how large is that rectangle?"""
        fault = corners_fault(corners)
        if fault:
            self.session.said.emit(fault, "note")
            return
        wide = ask_text(self, "Straighten the picture", "How wide is that rectangle in truth?")
        high = ask_text(self, "Straighten the picture", "And how high?") if wide else ""
        if wide and high:
            self.straighten(corners, wide, high)

    def straighten(self, corners: tuple[float, ...], wide: str, high: str) -> None:
        sketch = self.session.build.shell.sketch
        if sketch is None:
            return
        try:
            sizes = [Length.read(text, self.session.shown) for text in (wide, high)]
        except EntryError as fault:
            self.session.said.emit(str(fault), "stop")
            return
        if min(size.si for size in sizes) < 0.01:
            self.session.said.emit("A side of the rectangle must be more than nothing.", "stop")
            return
        new = {
            **msgspec.to_builtins(sketch),
            "corners": list(corners),
            "true_wide": msgspec.to_builtins(sizes[0]),
            "true_high": msgspec.to_builtins(sizes[1]),
            "m_per_px": 1.0,  # from now on metres a pixel come from the rectangle, times this
        }
        self.session.edit("Straighten the picture", [set_to("shell.sketch", new)], "Shell")

    def choose_outline(self) -> None:
        word, _ = QFileDialog.getOpenFileName(self, "A drawing with the outline", "", "Drawings (*.dxf)")
        if word:
            usual = "3/16 in" if self.session.shown.imperial else "5 mm"
            text = ask_text(self, "Take the outline", "How far may the profile lie from it?", usual)
            if text:
                self.take_outline(Path(word), text)

    def take_outline(self, path: Path, tolerance: str) -> None:
        """The largest closed line of a DXF becomes the profile, in as few corners as the tolerance lets."""
        from uncle_sled.exchange.dxf_outlines import outlines_in  # the library of drawings is large

        try:
            allowed = Length.read(tolerance, self.session.shown).si
            taken = taken_from(outlines_in(path)[0], allowed)
        except (EntryError, FileError, GeometryError) as fault:
            self.session.said.emit(self.session.told(str(fault)), "stop")
            return
        ops = [
            set_to("shell.form", "profile"),
            set_to("shell.profile", msgspec.to_builtins(taken.nodes)),
            set_to("shell.length", {"si": round(taken.length_m, 5), "typed": None}),
            set_to("shell.height", {"si": round(taken.height_m, 5), "typed": None}),
            *self._sizes(("length", "height")),
        ]
        if self.session.edit(f"Outline from {path.name}", ops, "Shell"):
            words = Words(self.session.shown)
            self.session.said.emit(
                f"{len(taken.nodes)} corners of {taken.many}; none of the outline lies further than {words.thick(taken.off_m)} from the profile.",
                "note",
            )

    def _scale_sketch(self, far: float) -> None:
        """Two points were set that lie ``far`` apart as drawn; what is it really?"""
        words = Words(self.session.shown)
        text = ask_text(self, "Scale the picture", f"As drawn now they are {words.m(far)} apart. What is it really?")
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
        self.session.edit("Scale the picture", [set_to("shell.sketch.m_per_px", sketch.m_per_px * real / far)], "Shell")

    # openings
    def cut_menu(self) -> None:
        menu = popup_menu(self)
        for kind in KINDS:
            words = {"gland": "cable gland", "screw row": "row of screws"}.get(kind, kind)
            menu.addAction(words).triggered.connect(lambda _=False, kind=kind: self.cut_in(kind))
            if kind == "hatch" and self.session.build.shell.form == "profile":
                menu.addAction(CURVED).triggered.connect(self.cut_in_over_curve)
        menu.popup(self.cut_button.mapToGlobal(QPoint(0, self.cut_button.height() + 2)))

    def cut_in(self, kind: str) -> None:
        shell = self.session.build.shell
        if silhouette_of(shell) is None:
            self.session.said.emit("There is no body to cut into yet: take a silhouette first.", "note")
            return
        record = first_opening(shell, kind)
        if self.session.edit(f"Cut in a {lower_first(record['name'])}", [add_to("shell.openings", record)], "Shell", (record["id"],)):
            self.session.select((record["id"],))

    def cut_in_over_curve(self) -> None:
        """The tail begins at the hinge, and the hatch goes down from there over the curve."""
        ops, id = over_curve(self.session.build.shell)
        if not ops:
            self.session.said.emit("This profile has no tail that a hatch could go over; draw one that comes down to the floor.", "note")
        elif self.session.edit(f"Cut in a {CURVED}", list(ops), "Shell", (id,)):
            self.session.select((id,))

    def close_up(self) -> None:
        opening = next((o for o in self.session.build.shell.openings if o.id in self.session.selection), None)
        if opening is not None:
            self.session.edit(f"Close up {lower_first(opening.name)}", [remove(f"shell.openings.{opening.id}")], "Shell", (opening.id,))

    # faces
    def compare(self) -> None:
        from uncle_sled.desk.benches.shell.ways_panel import CompareWays  # not on the first screen

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
        menu.popup(self.face_button.mapToGlobal(QPoint(0, self.face_button.height() + 2)))

    def add_face(self, kind: str) -> None:
        id = fresh_id("f", [face.id for face in self.session.build.shell.faces])
        self.session.edit(
            f"Add a face: {kind}", [add_to("shell.faces", {"id": id, "kind": kind, "name": kind.capitalize()})], "Shell", (id,)
        )
