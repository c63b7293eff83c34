"""Shell: the body's form and size, and what each face weighs, beside its profile."""

from __future__ import annotations

import msgspec
from PySide6.QtCore import QPoint
from PySide6.QtWidgets import QMenu, QPushButton, QWidget

from uncle_sled.core.document.assemblies import WAYS
from uncle_sled.core.document.edits import Op, add_to, fresh_id, remove, set_to
from uncle_sled.core.document.presets import PRESETS
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.document.shell import Face
from uncle_sled.core.drawing.primitives import Primitive, dimension
from uncle_sled.core.drawing.rig_views import frame_top_m
from uncle_sled.core.studies.compare_ways import way_ops
from uncle_sled.core.studies.reading import silhouette_of
from uncle_sled.core.units import distance, weight
from uncle_sled.desk.benches.bench import Bench
from uncle_sled.desk.columns import Columns
from uncle_sled.desk.fields import label
from uncle_sled.desk.form import SOURCES, Form, Row
from uncle_sled.desk.session import Session
from uncle_sled.desk.sheet_view import SheetView

FORMS: list[tuple[object, str]] = [("none", "no body yet"), ("profile", "drawn profile"), ("box", "box")]
FACES = ("floor", "left side", "right side", "roof", "front", "rear", "bulkhead", "other")


class ShellBench(Bench):
    stop = "Shell"

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.profile_button = QPushButton("Profile…")
        self.profile_button.setToolTip("Take one of the usual silhouettes")
        self.profile_button.clicked.connect(self._presets)
        self.face_button = QPushButton("Add a face")
        self.face_button.clicked.connect(self._add_face)
        self.top.addWidget(self.profile_button)
        self.top.addWidget(self.face_button)
        self.ways_button = QPushButton("Compare ways…")
        self.ways_button.setToolTip(
            "The same faces made in other ways, side by side; nothing changes until you keep one"
        )
        self.ways_button.clicked.connect(self.compare)
        self.top.addWidget(self.ways_button)
        self.end_top("left side, to scale")
        self.sheet = SheetView(session, plan=False)
        self.rows.addWidget(self.sheet, 6)
        self.form = Form(
            session,
            "Form",
            [
                Row("Body", "shell.form", FORMS),
                Row("Front", "shell.front", Length, "Body's front, from the ball (or the front axle of a bed)", None),
                Row("Length", "shell.length", Length),
                Row("Width", "shell.width", Length),
                Row("Height", "shell.height", Length, "Floor underside to roof top"),
                Row("Underside", "shell.floor", Length, "Above ground"),
                Row("Wall", "shell.wall", Length, "Thickness of walls, floor and roof"),
            ],
            "Shell",
        )
        self.sums = label("", "small", "pencil", wrap=True)
        self.form.layout().addWidget(self.sums)
        self.faces: Form | None = None
        self.sources: Form | None = None
        self.face_ids: tuple[tuple[str, str], ...] = ()
        self.columns: Columns | None = None
        session.changed.connect(self.refresh)
        self._make_faces()

    def showEvent(self, event: object) -> None:
        self.refresh()

    def _make_faces(self) -> None:
        faces = self.session.build.shell.faces
        self.face_ids = tuple((face.id, face.made_of) for face in faces)
        self.faces = Form(
            self.session,
            "What each face weighs",
            [
                Row(
                    face.name,
                    f"shell.faces.{face.id}.mass",
                    Mass,
                    f"{face.name} with its fittings and fasteners",
                    when=self._typed(face.id),
                )
                for face in faces
            ],
            "Shell",
        )
        self.by_layers = label("", "small", "pencil", wrap=True)
        self.by_layers.setMinimumHeight(18)
        self.faces.layout().addWidget(self.by_layers)
        self.made = Form(self.session, "Made of", [self._way_row(face) for face in faces], "Shell", label_px=84)
        self.sources = Form(
            self.session,
            "Known by",
            [Row(face.name, f"shell.faces.{face.id}.source", SOURCES, when=self._typed(face.id)) for face in faces],
            "Shell",
        )
        if not faces:
            text = "No face yet. Take a profile, or add a face; a shell that was bought is weighed with the trailer."
            none_yet = label(text, wrap=True)
            none_yet.setMinimumHeight(56)
            self.faces.layout().addWidget(none_yet)
        if self.columns is not None:
            self.form.setParent(None)
            self.rows.removeWidget(self.columns)
            self.columns.hide()
            self.columns.deleteLater()
        self.columns = Columns(list[QWidget]([self.form, self.faces, self.made, self.sources]))
        self.rows.addWidget(self.columns, 5)
        self._refresh_forms()

    def _typed(self, id: str):  # type: ignore[no-untyped-def]
        """Whether a face's weight is typed; one that is made of layers weighs what they weigh."""
        return lambda build: not any(face.id == id and face.layers for face in build.shell.faces)

    def _way_row(self, face: Face) -> Row:
        ways = [name for name in WAYS if name.startswith("floor") is (face.kind == "floor") or "bare" in name]
        known: list[tuple[object, str]] = [("", "as typed"), *((name, name) for name in ways)]
        if face.made_of and face.made_of not in ways:
            known.append((face.made_of, face.made_of))

        def ops(name: object) -> list[Op]:
            layers = face.layers if name == face.made_of else WAYS.get(str(name), ())
            return list(way_ops((face.id,), str(name), layers))

        return Row(
            face.name,
            f"shell.faces.{face.id}.made_of",
            known,
            "Layers from outside in; its weight follows the drawing",
            ops=ops,
        )

    def compare(self) -> None:
        from uncle_sled.desk.compare_ways import CompareWays  # not on the first screen

        if silhouette_of(self.session.build.shell) is None or not self.session.build.shell.faces:
            self.session.said.emit("There is no body with faces yet: take a profile and add its faces first.", "note")
            return
        CompareWays(self.session, self).open()

    def _refresh_forms(self) -> None:
        self.form.refresh()
        if self.faces is not None and self.sources is not None:
            self.faces.refresh()
            self.sources.refresh()
            self.made.refresh()
            self.made.setVisible(bool(self.face_ids))
            shown = self.session.shown
            layered = {face.id for face in self.session.build.shell.faces if face.layers}
            told = [
                f"{part.name} {weight(part.mass_kg, shown)}"
                for part in self.session.studied.parts
                if part.id in layered
            ]
            self.by_layers.setText(f"By their layers: {', '.join(told)}" if told else "")
            self.by_layers.setVisible(bool(told))
            self.sources.setVisible(bool(self.face_ids))

    def refresh(self) -> None:
        if not self.isVisible():
            return
        build, shown = self.session.build, self.session.shown
        if tuple((face.id, face.made_of) for face in build.shell.faces) != self.face_ids:
            self._make_faces()
        self._refresh_forms()
        body = silhouette_of(build.shell)
        total = sum(part.mass_kg for part in self.session.studied.parts if part.made_by.startswith("shell."))
        area = "" if body is None else f"Side {body.area_m2:.2f} m² in the drawing. "
        self.sums.setText(
            f"{area}Faces weigh {weight(total, shown)} together."
            if build.shell.form != "none"
            else "Take a profile to begin."
        )
        extra: tuple[Primitive, ...] = ()
        if body is not None and build.shell.length and build.shell.front:
            # over the roof, clear of wheels and labels
            high = float(body.skin[:, 1].max()) + 0.16
            a, b = (build.shell.front.si, high), (build.shell.front.si + build.shell.length.si, high)
            extra = dimension(a, b, f"outside {distance(build.shell.length.si, shown)}", 0.03)
        if self.sheet is not None:
            self.sheet.set_extra(extra)

    def _presets(self) -> None:
        menu = QMenu(self)
        for name in PRESETS:
            menu.addAction(name).triggered.connect(lambda _=False, name=name: self.take_profile(name))
        menu.addAction("box").triggered.connect(
            lambda _=False: self.session.edit("Body: box", [set_to("shell.form", "box"), *self._sizes()], "Shell")
        )
        menu.exec(self.profile_button.mapToGlobal(QPoint(0, self.profile_button.height() + 2)))

    def take_profile(self, name: str) -> None:
        nodes = msgspec.to_builtins(PRESETS[name])
        self.session.edit(
            f"Profile: {name}",
            [set_to("shell.form", "profile"), set_to("shell.profile", nodes), *self._sizes()],
            "Shell",
        )

    def _sizes(self):  # type: ignore[no-untyped-def]
        """Sizes to begin with, where none were typed yet."""
        build = self.session.build
        first = {
            "front": 1.2,
            "length": 3.0,
            "width": 1.6,
            "height": 1.25,
            "floor": round(frame_top_m(build), 3),
            "wall": 0.04,
        }
        return [
            set_to(f"shell.{name}", {"si": si, "typed": None})
            for name, si in first.items()
            if getattr(build.shell, name) is None
        ]

    def _add_face(self) -> None:
        menu = QMenu(self)
        for kind in FACES:
            menu.addAction(kind).triggered.connect(lambda _=False, kind=kind: self.add_face(kind))
        menu.addSeparator()
        for face in self.session.build.shell.faces:
            menu.addAction(f"Take off: {face.name}").triggered.connect(
                lambda _=False, face=face: self.session.edit(
                    f"Take off the face {face.name}", [remove(f"shell.faces.{face.id}")], "Shell"
                )
            )
        menu.exec(self.face_button.mapToGlobal(QPoint(0, self.face_button.height() + 2)))

    def add_face(self, kind: str) -> None:
        id = fresh_id("f", [face.id for face in self.session.build.shell.faces])
        self.session.edit(
            f"Add a face: {kind}",
            [add_to("shell.faces", {"id": id, "kind": kind, "name": kind.capitalize()})],
            "Shell",
            (id,),
        )
