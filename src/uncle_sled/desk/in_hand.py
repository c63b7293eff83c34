"""In hand: what is selected, its fields, how sure it is, and what moving it does to the ball."""

from __future__ import annotations

from PySide6.QtCore import Qt, QTimer
from PySide6.QtWidgets import QHBoxLayout, QScrollArea, QSizePolicy, QVBoxLayout, QWidget

from uncle_sled.core.document.edits import Op, set_to
from uncle_sled.core.document.placing import place_ops, spot_of
from uncle_sled.core.document.quantity import Length, Mass, Volume
from uncle_sled.core.document.shell import Opening
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.findings.words import upper_first
from uncle_sled.core.framing.member import Member
from uncle_sled.core.parts.part import SURENESS
from uncle_sled.core.studies.moves import ball_per_100_mm_kg, slide_window_m
from uncle_sled.core.units import distance, show, weight
from uncle_sled.desk.fields import ChoiceField, QuantityField, label
from uncle_sled.desk.form import SOURCES, Form, Row
from uncle_sled.desk.header import ElidedLabel
from uncle_sled.desk.session import Session
from uncle_sled.desk.shell_rows import MemberForm, opening_note, opening_rows

CONTENTS: list[tuple[object, str]] = [
    ("fresh", "fresh water"),
    ("grey", "grey water"),
    ("black", "black water"),
    ("gas", "gas"),
    ("petrol", "petrol"),
    ("diesel", "diesel"),
]
TURNS: list[tuple[object, str]] = [(0, "as it is"), (90, "quarter turn"), (180, "half turn"), (270, "three quarters")]


class InHand(QWidget):
    """The right pane's lower part; it keeps its height."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        # Uncle takes what he needs first; this takes the rest
        self.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Ignored)
        self._later = QTimer(self)
        self._later.setSingleShot(True)
        self._later.setInterval(100)
        self._later.timeout.connect(self.refresh)
        self.form: Form | MemberForm | None = None
        self.form_for: tuple[str, bool] | None = None
        rows = QVBoxLayout(self)
        rows.setContentsMargins(14, 6, 0, 6)
        rows.setSpacing(4)
        top = QHBoxLayout()
        top.setContentsMargins(0, 0, 14, 0)
        top.addWidget(label("In hand", "head"))
        top.addStretch(1)
        self.name = ElidedLabel("strong", "")
        self.name.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        self.name.setMaximumWidth(200)
        top.addWidget(self.name)
        rows.addLayout(top)
        self.scroll = QScrollArea()
        self.scroll.setWidgetResizable(True)
        self.scroll.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.scroll.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.inside = QWidget()
        self.body = QVBoxLayout(self.inside)
        self.body.setContentsMargins(0, 0, 14, 0)
        self.body.setSpacing(4)
        self.scroll.setWidget(self.inside)
        rows.addWidget(self.scroll, 1)
        self.note = label("", "small", "pencil", wrap=True)
        self.note.setContentsMargins(0, 0, 14, 0)
        rows.addWidget(self.note)
        self.filler = QWidget()
        rows.addWidget(self.filler, 1)
        session.selected.connect(self.refresh)
        session.changed.connect(self._changed)
        session.case_changed.connect(self.refresh)
        self.refresh()

    def hasHeightForWidth(self) -> bool:
        return False  # or the wrapping note would claim the height that Uncle needs

    def _things(self) -> list[Thing]:
        chosen = set(self.session.selection)
        return [thing for thing in self.session.build.stow.things if thing.id in chosen]

    def _changed(self) -> None:
        """While a hand drags, the fields follow ten times a second: the frame belongs to drawing and reading."""
        if not self.session.dragging:
            self.refresh()
        elif not self._later.isActive():
            self._later.start()

    def refresh(self) -> None:
        session = self.session
        things = self._things()
        axle = next((a for a in session.build.rig.axles if a.id in session.selection), None)
        if len(things) == 1:
            thing = things[0]
            self._use_form(thing.id, thing.tank is not None)
            self.name.show_text(thing.name)
            self.note.setText(self._thing_note(thing))
        elif axle is not None and not things:
            self._use_form(axle.id, False, axle=True)
            self.name.show_text("Axle")
            self.note.setText(
                "Still to be placed: drag the wheel on the Rig stop."
                if session.build.rig.axle_place == "to be placed"
                else "The axle is fixed."
            )
        elif not things and (opening := self._opening()) is not None:
            self._use_form(f"{opening.id} {opening.face}", False, rows=opening_rows(opening.id, opening.face))
            self.name.show_text(opening.name)
            self.note.setText(opening_note(session, opening.id))
        elif not things and (member := self._member()) is not None:
            self._use_member(member.id)
            self.name.show_text(f"{upper_first(member.kind)}, {member.face}")
            self.note.setText(
                "Changed by hand; it stays so through every reframing." if member.by_hand else "As the school laid it."
            )
        else:
            self._drop_form()
            self.name.show_text(f"{len(things)} things" if things else "")
            total = sum(p.mass_kg for p in session.studied.parts if p.id in session.selection)
            if things:
                self.note.setText(f"Together {weight(total, session.shown)} empty. Drag one and all move.")
            elif session.selection:
                self.note.setText(f"Part of the body or rig, {weight(total, session.shown)} together.")
            else:
                self.note.setText("Nothing. Click a thing, a wheel or a plumb-bob.")
        self.scroll.setVisible(self.form is not None)
        self.filler.setVisible(self.form is None)
        if self.form is not None:
            self.form.refresh()
            if len(things) == 1:
                self._where(things[0])

    def _drop_form(self) -> None:
        if self.form is not None:
            self.form.hide()
            self.form.deleteLater()
            while self.body.count():  # the stretch under it goes as well, or the next form sinks
                self.body.takeAt(0)
            self.form, self.form_for = None, None

    def _opening(self) -> Opening | None:
        return next((o for o in self.session.build.shell.openings if o.id in self.session.selection), None)

    def _member(self) -> Member | None:
        chosen = self.session.selection
        if len(chosen) != 1 or "/" not in chosen[0]:
            return None
        return next((m for m in self.session.studied.framed.members if m.id == chosen[0]), None)

    def _use_member(self, id: str) -> None:
        if self.form_for != (id, False):
            self._drop_form()
            self.form, self.form_for = MemberForm(self.session, id), (id, False)
            self.body.addWidget(self.form)
            self.body.addStretch(1)

    def _use_form(self, id: str, tank: bool, axle: bool = False, rows: list[Row] | None = None) -> None:
        if self.form_for == (id, tank):
            return
        self._drop_form()
        stop = "Rig" if axle else "Stow" if rows is None else "Shell"
        rows = rows or (self._axle_rows(id) if axle else self._thing_rows(id, tank))
        self.form = Form(self.session, "", rows, stop, card=False, label_px=84)
        self.form_for = (id, tank)
        self.body.addWidget(self.form)
        self.body.addStretch(1)

    def _axle_rows(self, id: str) -> list[Row]:
        path = f"rig.axles.{id}"
        return [
            Row("From the ball", f"{path}.station", Length, empty=False),
            Row("Weight", f"{path}.mass", Mass, "Axle, wheels and springs together"),
            Row("Rated", f"{path}.rating", Mass),
            Row("Known by", f"{path}.source", SOURCES),
        ]

    def _thing_rows(self, id: str, tank: bool) -> list[Row]:
        path = f"stow.things.{id}"

        def put(axis: int) -> object:
            def ops(value: Length) -> list[Op]:
                thing = next(t for t in self.session.build.stow.things if t.id == id)
                mode = self._mode()
                spot, _ = spot_of(thing, mode)
                if not any(place.id == id for place in mode.places):
                    home = self.session.build.stow.modes[0]
                    if mode.id == home.id or mode.towing:
                        return [set_to(f"{path}.{'xyz'[axis]}", {"si": value.si, "typed": value.typed})]
                new = [*spot]
                new[axis] = value.si
                return place_ops(self.session.build, mode, thing, (new[0], new[1], new[2]))

            return ops

        rows = [
            Row("Name", f"{path}.name", str, empty=False),
            Row(
                "Front edge",
                f"{path}.x",
                Length,
                "From the ball, or from the front axle of a bed",
                None,
                False,
                ops=put(0),
            ),  # type: ignore[arg-type]
            Row("Middle", f"{path}.y", Length, "Right of the middle line; left is minus", None, False, ops=put(1)),  # type: ignore[arg-type]
            Row("Underside", f"{path}.z", Length, "Above the ground", 0.0, False, ops=put(2)),  # type: ignore[arg-type]
            Row("Length", f"{path}.length", Length, empty=False),
            Row("Width", f"{path}.width", Length, empty=False),
            Row("Height", f"{path}.height", Length, empty=False),
            Row("Turned", f"{path}.turn", TURNS),
            Row("Empty" if tank else "Weight", f"{path}.mass", Mass, empty=False),
            Row("Known by", f"{path}.source", SOURCES),
        ]
        if tank:
            rows += [Row("Holds", f"{path}.tank.volume", Volume), Row("What", f"{path}.tank.contents", CONTENTS)]
        rows += [
            Row("Weight off", f"{path}.cg_dx", Length, "How far aft of its middle its weight sits", None),
            Row("Held by", f"{path}.held_by", str),
        ]
        rows += [
            Row("Goes home with the people", f"{path}.cargo", bool),
            Row("Stands outside the body", f"{path}.outside", bool),
            Row("Stays where it is", f"{path}.stays", bool),
        ]
        return rows

    def _mode(self):  # type: ignore[no-untyped-def]
        cases = self.session.studied.table.cases
        return cases[self.session.row].mode if cases else self.session.build.stow.modes[0]

    def _where(self, thing: Thing) -> None:
        """Fields of place show the place of the mode that is shown."""
        if not isinstance(self.form, Form):
            return
        place = next((p for p in self._mode().places if p.id == thing.id), None)
        if place is not None:
            for row, _, field in self.form.rows:
                axis = {"Front edge": "x", "Middle": "y", "Underside": "z"}.get(row.title)
                if axis and isinstance(field, QuantityField):
                    field.show_value(getattr(place, axis))
                if row.title == "Turned" and isinstance(field, ChoiceField):
                    field.show_value(place.turn)

    def _thing_note(self, thing: Thing) -> str:
        session, shown = self.session, self.session.shown
        doubt = thing.mass.si * SURENESS[thing.source]
        says = f"Give or take {show(doubt, 'mass', shown.mass, 2 if doubt < 0.3 else 1)}."
        per = ball_per_100_mm_kg(session.studied, thing.id, session.row)
        if per is not None and session.studied.table.cases and session.studied.table.cases[session.row].mode.towing:
            step = "4 in" if shown.length in ("in", "ft-in") else "100 mm"
            says += f" Each {step} forward: {show(abs(per) * (1.016 if step == '4 in' else 1.0), 'mass', shown.mass, 1)} {'more' if per >= 0 else 'less'} on the ball."
            window = slide_window_m(session.studied, thing.id)
            if window is not None and window[1] - window[0] < 8 and not window[0] <= 0 <= window[1]:
                near = window[0] if window[0] > 0 else window[1]
                says += f" {distance(abs(near), shown)} {'back' if near > 0 else 'forward'} settles every case."
        return says
