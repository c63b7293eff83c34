"""In hand: what is selected, its fields, how sure it is, and what moving it does to the ball."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PySide6.QtCore import Qt, QTimer, Signal
from PySide6.QtWidgets import QHBoxLayout, QLabel, QPushButton, QScrollArea, QSizePolicy, QVBoxLayout, QWidget

from uncle_sled.core.document.placing import stand_of
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import Loft, Opening, Partition
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.framing.member import Member
from uncle_sled.core.parts.part import SURENESS
from uncle_sled.core.units import distance, show, weight
from uncle_sled.core.words import lower_first, upper_first
from uncle_sled.desk.kit.elided import ElidedLabel
from uncle_sled.desk.kit.fields import ChoiceField, QuantityField, label
from uncle_sled.desk.kit.form import Form, Row, plain
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.refocus import focus_kept
from uncle_sled.desk.kit.tab_zone import Leave, step
from uncle_sled.desk.session import Session

if TYPE_CHECKING:
    from uncle_sled.desk.benches.shell.shell_rows import MemberForm


class InHand(Guarded, QWidget):
    """The right pane's lower part; it keeps its height."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        # Uncle takes what he needs first; this takes the rest
        self.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Ignored)
        self._later = QTimer(self)
        self._later.setSingleShot(True)
        self._later.setInterval(150)
        self._later.timeout.connect(self.refresh)
        self.form: Form | MemberForm | None = None
        self.form_for: tuple[str, object] | None = None
        self.sections: list[Form] = []
        self.tank_says: QLabel | None = None
        self.tank_foot: QWidget | None = None
        self.mode_heading: QPushButton | None = None
        self.open: set[str] = set()  # headings that a hand opened
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
        self.area = QScrollArea()
        self.area.setWidgetResizable(True)
        self.area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.inside = QWidget()
        self.body = QVBoxLayout(self.inside)
        self.body.setContentsMargins(0, 0, 14, 0)
        self.body.setSpacing(4)
        self.area.setWidget(self.inside)
        rows.addWidget(self.area, 1)
        self.note = label("", "small", "pencil", wrap=True)
        self.note.setContentsMargins(0, 0, 14, 0)
        rows.addWidget(self.note)
        self.filler = QWidget()
        rows.addWidget(self.filler, 1)
        session.selected.connect(self.refresh)
        session.changed.connect(self._changed)
        session.case_changed.connect(self.refresh)
        self.refresh()

    filled = Signal(bool)  # whether something is in hand now

    leave: Leave | None = None  # where Tab goes from the last and the first of it

    def focusNextPrevChild(self, forward: bool) -> bool:
        return step(self, forward, self.leave) or super().focusNextPrevChild(forward)

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
        with focus_kept(self.inside):
            self._refresh()

    def _refresh(self) -> None:
        session = self.session
        things = self._things()
        axle = next((a for a in session.build.rig.axles if a.id in session.selection), None)
        if len(things) == 1:
            thing = things[0]
            self._use_thing(thing)
            self.name.show_text(thing.name)
            self.note.setText(self._thing_note(thing))
        elif axle is not None and not things:
            self._use_form(axle.id, tank=False)
            self.name.show_text("Axle")
            self.note.setText(
                "Still to be placed: drag the wheel on the Rig stop."
                if session.build.rig.axle_place == "to be placed"
                else "The axle is fixed."
            )
        elif not things and (opening := self._opening()) is not None:
            from uncle_sled.desk.benches.shell.shell_rows import opening_note, opening_rows

            self._use_form(f"{opening.id} {opening.face}", tank=False, rows=opening_rows(session, opening.id, opening.face))
            self.name.show_text(opening.name)
            self.note.setText(opening_note(session, opening.id))
        elif not things and (inner := self._inner()) is not None:
            from uncle_sled.desk.benches.shell.shell_rows import inner_note, loft_rows, partition_rows

            way = getattr(inner, "way", "")
            rows = partition_rows(session, inner.id, way) if way else loft_rows(session, inner.id)
            self._use_form(f"{inner.id} {way}", tank=False, rows=rows)
            self.name.show_text(inner.name)
            self.note.setText(inner_note(session, inner.id))
        elif not things and set(session.selection) & session.build.systems.ids:
            from uncle_sled.desk.benches.systems import wire_rows

            part = wire_rows.found(session)
            assert part is not None
            self._use_form(
                f"{part.id} {type(part).__name__} {getattr(part, 'kind', '')}", tank=False, rows=wire_rows.rows_of(session, part)
            )
            self.name.show_text(wire_rows.name_of(session, part))
            self.note.setText(wire_rows.note_of(session, part))
        elif not things and (member := self._member()) is not None:
            self._use_member(member.id)
            self.name.show_text(f"{upper_first(member.kind)}, {member.face}")
            self.note.setText("Changed by hand; it stays so through every reframing." if member.by_hand else "As the school laid it.")
        else:
            self._drop_form()
            self.name.show_text(f"{len(things)} things" if things else "")
            chosen = session.studied.parts if session.selection else ()
            total = sum(p.mass_kg for p in chosen if p.id.split("/")[0] in session.selection)
            if things:
                self.note.setText(f"Together {weight(total, session.shown)} empty. Drag one and all move.")
            elif session.selection:
                self.note.setText(f"Part of the body or rig, {weight(total, session.shown)} together.")
            else:
                self.note.setText("Nothing. Click a thing, a wheel or a plumb-bob.")
        self.filled.emit(bool(things) or self.form is not None or bool(session.selection))
        self.area.setVisible(self.form is not None)
        self.filler.setVisible(self.form is None)
        if self.form is not None:
            self.form.refresh()
            for section in self.sections:
                if not section.isHidden():
                    section.refresh()
            if self.mode_heading is not None:
                self.mode_heading.setText(f"In {lower_first(self.session.mode.name)}")
            if len(things) == 1:
                self._where(things[0])
                if self.tank_says is not None and self.tank_foot is not None and self.tank_foot.isVisible():
                    from uncle_sled.desk.benches.stow.thing_rows import tank_words

                    self.tank_says.setText(tank_words(session, things[0]))
                    self.pad.setVisible(things[0].tank is not None and things[0].tank.shape == "outline")
                    self.tank_says.setFixedHeight(max(self.tank_says.heightForWidth(max(self.width() - 30, 120)), 14))

    def _drop_form(self) -> None:
        if self.form is not None:
            self.form.hide()
            self.sections = []
            self.tank_says = self.tank_foot = self.mode_heading = None
            while self.body.count():  # the stretch under it goes as well, or the next form sinks
                item = self.body.takeAt(0)
                gone = item.widget() if item is not None else None
                if gone is not None:
                    gone.hide()
                    gone.setParent(None)
                    gone.deleteLater()
            self.form, self.form_for = None, None

    def _opening(self) -> Opening | None:
        return next((o for o in self.session.build.shell.openings if o.id in self.session.selection), None)

    def _inner(self) -> Partition | Loft | None:
        shell = self.session.build.shell
        return next((inner for inner in shell.inner if inner.id in self.session.selection), None)

    def _member(self) -> Member | None:
        chosen = self.session.selection
        if len(chosen) != 1 or "/" not in chosen[0]:
            return None
        return next((m for m in self.session.studied.framed.members if m.id == chosen[0]), None)

    def _use_member(self, id: str) -> None:
        if self.form_for != (id, False):
            self._drop_form()
            from uncle_sled.desk.benches.shell.shell_rows import MemberForm

            self.form, self.form_for = MemberForm(self.session, id), (id, False)
            self.body.addWidget(self.form)
            self.body.addStretch(1)

    def _use_form(self, id: str, tank: bool, rows: list[Row] | None = None) -> None:
        if self.form_for == (id, tank):
            return
        self._drop_form()
        rows = rows or self._axle_rows(id)
        # a change made here belongs to the bench on which it is made, where that one may make it
        self.form = Form(self.session, "", rows, "", card=False, label_px=84)
        self.form_for = (id, tank)
        self.body.addWidget(self.form)
        self.body.addStretch(1)

    def _use_thing(self, thing: Thing) -> None:
        """The sections of a thing; those that a hand opened stay open from one thing to the next."""
        forms, rooms = tuple((s.id, s.name) for s in thing.states), tuple(c.id for c in thing.clear)
        key = (thing.id, (thing.tank is not None, forms, rooms, len(self.session.build.stow.things)))
        if self.form_for == key:
            return
        from uncle_sled.desk.benches.stow.thing_rows import thing_sections  # nothing is in hand at start

        if self.form_for is None or self.form_for[0] != thing.id:
            self.area.verticalScrollBar().setValue(0)  # what was scrolled to belonged to another thing
        self._drop_form()
        for at, (heading, rows) in enumerate(thing_sections(self.session, thing)):
            form = Form(self.session, "", rows, "Stow", card=False, label_px=84)
            if at == 0:
                self.form = form
            else:
                self.body.addWidget(self._heading(heading, form))
                self.sections.append(form)
            self.body.addWidget(form)
            form.setVisible(at == 0 or heading in self.open)  # once it has its parent, or it would be a window
            if heading == "Shape of the tank":
                self.tank_foot = self._tank_foot(thing)
                self.body.addWidget(self.tank_foot)
                self.tank_foot.setVisible(heading in self.open)
        self.form_for = key
        self.body.addStretch(1)

    def _tank_foot(self, thing: Thing) -> QWidget:
        """What the shape holds, and the habit of equal jugs."""
        from uncle_sled.desk.benches.stow.outline_pad import OutlinePad

        foot = QWidget()
        rows = QVBoxLayout(foot)
        rows.setContentsMargins(0, 0, 0, 2)
        rows.setSpacing(3)
        self.tank_says = label("", "small", "pencil", wrap=True)
        rows.addWidget(self.tank_says)
        self.pad = OutlinePad(self.session, thing.id)
        rows.addWidget(self.pad)
        if thing.tank is not None and thing.tank.contents == "fresh":
            equal = QPushButton("Equal grey jug")
            equal.setToolTip("Same-size fresh and grey: what goes in comes out, and it never runs over")
            equal.clicked.connect(lambda _=False, id=thing.id: self._equal(id))
            rows.addWidget(equal)
        return foot

    def _equal(self, id: str) -> None:
        thing = next((t for t in self.session.build.stow.things if t.id == id), None)
        if thing is not None:
            from uncle_sled.desk.benches.stow.thing_rows import equal_grey

            equal_grey(self.session, thing)

    def _heading(self, heading: str, form: Form) -> QPushButton:
        button = QPushButton(heading)
        if heading == "In this mode":
            self.mode_heading = button
        button.setProperty("kind", "fold")
        button.setCheckable(True)
        button.setChecked(heading in self.open)

        def turn(on: bool) -> None:
            (self.open.add if on else self.open.discard)(heading)
            form.setVisible(on)
            form.refresh()
            if heading == "Shape of the tank" and self.tank_foot is not None:
                self.tank_foot.setVisible(on)
                self.refresh()

        button.clicked.connect(turn)
        return button

    def _axle_rows(self, id: str) -> list[Row]:
        path = f"rig.axles.{id}"
        return plain(path, "station mass rating source")

    def _where(self, thing: Thing) -> None:
        """Fields of place show the place of the mode that is shown."""
        if not isinstance(self.form, Form):
            return
        mode = self.session.mode
        if thing.id in mode.touched:
            place = stand_of(thing, mode)
            for row, _, field in self.form.rows:
                axis = {"Front edge": "x", "Middle": "y", "Underside": "z"}.get(row.title)
                if axis and isinstance(field, QuantityField):
                    field.show_value(Length(round(getattr(place, axis), 4)))
                if row.title == "Turned" and isinstance(field, ChoiceField):
                    field.show_value(place.turn)

    def _thing_note(self, thing: Thing) -> str:
        from uncle_sled.core.studies.balance.moves import ball_per_100_mm_kg, slide_window_m, stays_inside

        session, shown = self.session, self.session.shown
        doubt = thing.mass.si * SURENESS[thing.source]
        says = f"Give or take {show(doubt, 'mass', shown.mass, 2 if doubt < 0.3 else 1)}."
        per = ball_per_100_mm_kg(session.studied, thing.id, session.row)
        if per is not None and session.studied.table.cases and session.studied.table.cases[session.row].mode.towing:
            step = "4 in" if shown.imperial else "100 mm"
            says += f" Each {step} forward: {show(abs(per) * (1.016 if step == '4 in' else 1.0), 'mass', shown.mass, 1)} {'more' if per >= 0 else 'less'} on the ball."
            window = slide_window_m(session.studied, thing.id)
            if window is not None and window[1] - window[0] < 8 and not window[0] <= 0 <= window[1]:
                near = window[0] if window[0] > 0 else window[1]
                if stays_inside(session.studied, thing, near):
                    says += f" {distance(abs(near), shown)} {'back' if near > 0 else 'forward'} settles every case."
        return says
