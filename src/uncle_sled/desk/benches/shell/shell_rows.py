"""In hand for what belongs to the body: the fields of an opening, and of a generated stick."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from PySide6.QtWidgets import QGridLayout, QPushButton, QVBoxLayout, QWidget

from uncle_sled.core.document.cutting_in import on_the_other_side
from uncle_sled.core.document.edits import Op, add_to, set_to
from uncle_sled.core.document.quantity import Length, Quantity
from uncle_sled.core.document.shell import Section
from uncle_sled.core.framing.by_hand import as_generated_ops, change_ops, changes_of
from uncle_sled.core.framing.member import Member
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.leaf_side import leaf_side
from uncle_sled.core.parts.partitions import inner_of
from uncle_sled.core.units import show
from uncle_sled.core.words import Words, lower_first
from uncle_sled.desk.kit.fields import QuantityField, label
from uncle_sled.desk.kit.form import VERB, Row, plain
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.session import Session


def _is(id: str, kind: str) -> Callable[[Any], bool]:
    return lambda build: any(o.id == id and o.kind == kind for o in build.shell.openings)


def _is_glass(id: str) -> Callable[[Any], bool]:
    def shown(build: Any) -> bool:
        one = next((o for o in build.shell.openings if o.id == id), None)
        return one is not None and one.kind in ("window", "light", "vent")

    return shown


def opening_rows(session: Session, id: str, face: str) -> list[Row]:
    path = f"shell.openings.{id}"
    ends = face in ("front", "rear")
    flat = face in ("roof", "floor")
    return [
        *plain(path, "name kind face"),
        Row(
            f"{path}.along",
            title="From left" if ends else "From front",
            tip="From the body's left edge" if ends else "From the body's front to the near edge",
        ),
        Row(f"{path}.up", title="From left" if flat else "Sill", tip="From the body's left edge" if flat else "From the body's underside"),
        *plain(path, "width height corner hung"),
        Row(f"{path}.open_deg", when=_is(id, "hatch")),
        Row(f"{path}.opens"),
        Row(f"{path}.stays_open", when=_is(id, "vent")),
        *_shut_row(session, id),
        Row(f"{path}.glazing", when=_is_glass(id)),
        *plain(path, "u_w_m2k seal drip"),
        Row(f"{path}.cut_since", when=_weighed_whole),
        *plain(path, "mass source"),
        Row(f"{path}.latch_n", when=_is(id, "hatch")),
        *_leaf_rows(session, id),
        Row(
            path,
            title="Same on the other side",
            kind=VERB,
            tip="Another one like it, across from it",
            when=_in_a_side(id),
            ops=lambda _: [add_to("shell.openings", on_the_other_side(session.build.shell, id))],
        ),
    ]


def _leaf_rows(session: Session, id: str) -> list[Row]:
    """A door or hatch of one's own: what its leaf is made of."""
    path = f"shell.openings.{id}.leaf"

    def opening(build: Any) -> Any:
        return next((opening for opening in build.shell.openings if opening.id == id), None)

    def could(build: Any) -> bool:
        one = opening(build)
        return one is not None and one.kind in ("door", "hatch")

    def has(build: Any) -> bool:
        return could(build) and opening(build).leaf is not None

    def make(value: object) -> list[Op]:
        if not value:
            return [set_to(path, None)]
        stick = {"thick": {"si": 0.03}, "deep": {"si": 0.025}}
        return [set_to(path, {"stick": stick})]

    library, words = library_of(session.facts.materials), Words(session.shown)
    sheets = [
        (key, words.material(material.name))
        for key, material in library.items()
        if material.form == "sheet" and (material.density_kg_m3 or 0) < 1000
    ]
    foams: list[tuple[object, str]] = [
        ("", "none"),
        *((key, words.material(material.name)) for key, material in library.items() if material.form == "fill"),
    ]
    return [
        Row(path, kind=bool, when=could, ops=make, read=has),
        Row(f"{path}.stick.thick", title="Leaf stick seen", tip="Of its stiles and rails, as they show", least=0.005, when=has),
        Row(f"{path}.stick.deep", title="Leaf stick deep", tip="Through the leaf", least=0.005, when=has),
        Row(f"{path}.skin", kind=sheets, when=has),
        Row(f"{path}.skin_thick", when=has),
        Row(f"{path}.foam", kind=foams, when=has),
        Row(f"{path}.rib", kind=sheets, when=_bent(session, id)),
        Row(f"{path}.rib_pitch", when=_bent(session, id)),
        *plain(path, "window_width window_height", when=lambda build: has(build) and not _bent(session, id)(build)),
        *plain(path, "coat hinge_spacing hangs_on", when=has),
    ]


def _bent(session: Session, id: str) -> Callable[[Any], bool]:
    """Whether the leaf of an opening goes round a curve."""

    def bent(build: Any) -> bool:
        opening = next((opening for opening in build.shell.openings if opening.id == id), None)
        if opening is None or opening.leaf is None:
            return False
        side = leaf_side(session.studied.framed, opening)
        return side is not None and side.bent

    return bent


def _door_is(id: str, *kinds: str) -> Callable[[Any], bool]:
    return lambda build: any(partition.id == id and partition.door in kinds for partition in build.shell.partitions)


def partition_rows(session: Session, id: str, way: str) -> list[Row]:
    """The fields of a wall inside."""
    path = f"shell.partitions.{id}"
    leaf = _door_is(id, "opening", "hinged", "sliding", "pocket")
    skins = [(key, Words(session.shown).material(material.name)) for key, material in library_of(session.facts.materials).items()]
    across = way == "across"
    return [
        Row(f"{path}.name"),
        Row(
            f"{path}.at",
            title="From front" if across else "From left",
            tip="Its front face from the body's front" if across else "Its left face from the left wall inside",
        ),
        *plain(path, "thick start end height made"),
        Row(f"{path}.skin", kind=skins),
        *plain(path, "skin_thickness pitch door"),
        *plain(path, "door_from door_width door_height", when=leaf),
        Row(f"{path}.hung", when=_door_is(id, "hinged", "sliding", "pocket")),
        Row(f"{path}.opens", when=_door_is(id, "hinged", "sliding")),
        *plain(path, "mass source"),
    ]


USUAL_STICK = {"joist": {"thick": 0.045, "deep": 0.12}, "rung": {"thick": 0.035, "deep": 0.07}}


def _joist_read(id: str, side: str, what: str) -> Callable[[Any], Any]:
    def read(build: Any) -> Any:
        stick = next((getattr(loft, what) for loft in build.shell.lofts if loft.id == id), None)
        return getattr(stick, side) if stick is not None else None

    return read


def _joist(session: Session, id: str, side: str, what: str) -> Callable[[Any], list[Op]]:
    """One side of a joist or rung; the other is a usual one until it is typed."""

    def ops(value: Any) -> list[Op]:
        if value is None:
            return [set_to(f"shell.lofts.{id}.{what}", None)]
        other = "deep" if side == "thick" else "thick"
        kept = _joist_read(id, other, what)(session.build)
        sides = {side: value, other: kept or Length(USUAL_STICK[what][other])}
        return [set_to(f"shell.lofts.{id}.{what}", {k: {"si": v.si, "typed": v.typed} for k, v in sides.items()})]

    return ops


def _climbs(id: str) -> Callable[[Any], bool]:
    return lambda build: any(loft.id == id and loft.climb == "ladder" for loft in build.shell.lofts)


SIDES = {("joist", "thick"): "Joist thick", ("joist", "deep"): "Joist deep", ("rung", "thick"): "Rung high", ("rung", "deep"): "Rung deep"}


def _side(session: Session, id: str, what: str, side: str, tip: str) -> Row:
    """One side of a loft's joists or of its ladder's rungs."""
    return Row(
        f"shell.lofts.{id}.{what}",
        title=SIDES[what, side],
        kind=Length,
        tip=tip,
        least=0.005,
        when=_climbs(id) if what == "rung" else None,
        ops=_joist(session, id, side, what),
        read=_joist_read(id, side, what),
    )


def loft_rows(session: Session, id: str) -> list[Row]:
    """The fields of a loft."""
    path = f"shell.lofts.{id}"
    return [
        *plain(path, "name front rear top thick climb guard"),
        _side(session, id, "joist", "thick", "Upright from wall to wall; wanted to say whether it carries"),
        _side(session, id, "joist", "deep", "Upright from wall to wall"),
        _side(session, id, "rung", "thick", "Of its ladder, from below"),
        _side(session, id, "rung", "deep", "What one steps on"),
        *plain(path, "joist_pitch mass source"),
    ]


def inner_note(session: Session, id: str) -> str:
    """What a wall or loft weighs, or why it is not built."""
    s, words = session.studied, Words(session.shown)
    body = s.framed.body
    made = inner_of(s.build.shell, body, library_of(s.facts.materials)) if body is not None else ()
    inner = next((each_inner for each_inner in made if each_inner.id == id), None)
    if inner is None:
        return "There is no body to stand in."
    return (
        words.told(f"{inner.name} {inner.fault}.")
        if inner.fault
        else f"{words.kg(inner.mass_kg)} as it stands. Drag it in the plan, or type where it is."
    )


def _in_a_side(id: str) -> Callable[[Any], bool]:
    return lambda build: on_the_other_side(build.shell, id) is not None


def _weighed_whole(build: Any) -> bool:
    return bool(build.rig.carrier == "ball" and build.rig.base == "as bought")


def _shut_row(session: Session, id: str) -> list[Row]:
    """Whether a door or hatch stays shut in the mode that is shown, where modes open them at all."""

    def ops(value: bool) -> list[Op]:
        mode = session.mode
        shut = [one for one in mode.shut if one != id] + ([id] if value else [])
        return [set_to(f"stow.modes.{mode.id}.shut", shut)]

    def opens(build: Any) -> bool:
        door = any(o.id == id and o.kind in ("door", "hatch") for o in build.shell.openings)
        return door and not session.mode.towing

    return [
        Row(
            f"shell.openings.{id}.id",
            title="Stays shut in this mode",
            kind=bool,
            tip="In camp doors and hatches stand open unless they stay shut; shut, they block no place and no way.",
            when=opens,
            ops=ops,
            read=lambda _: id in session.mode.shut,
        )
    ]


def opening_note(session: Session, id: str) -> str:
    """What the frame does around an opening, in one line."""
    s, words = session.studied, Words(session.shown)
    fault = next((f for f in s.framed.faults if id in f.where), None)
    if fault is not None:
        return words.told(fault.says)
    around: dict[str, int] = {}
    for m in s.framed.members:
        if m.anchor == id or m.anchor.startswith(f"{id}/"):
            around[m.kind] = around.get(m.kind, 0) + 1
    part = next((p for p in s.parts if p.id == id), None)
    says = "Moving it reframes its face."
    if around:
        says = f"Framed by {', '.join(f'{n} {kind}' + ('s' if n > 1 else '') for kind, n in around.items())}. {says}"
    return f"{words.kg(part.mass_kg)}, {part.source.replace('_', ' ')}. {says}" if part is not None else says


class MemberForm(Guarded, QWidget):
    """A generated stick: what it is, and what a hand may change; changes stay through every regeneration."""

    def __init__(self, session: Session, id: str) -> None:
        super().__init__()
        self.session, self.id = session, id
        rows = QVBoxLayout(self)
        rows.setContentsMargins(0, 0, 0, 0)
        rows.setSpacing(5)
        self.says = label("", wrap=True)
        rows.addWidget(self.says)
        grid = QGridLayout()
        grid.setHorizontalSpacing(8)
        grid.setVerticalSpacing(4)
        grid.setColumnMinimumWidth(0, 84)
        grid.setColumnStretch(1, 1)
        rows.addLayout(grid)
        self.complaint = label("", "small", "primer", wrap=True)
        self.fields: dict[str, QuantityField] = {}
        for at, (key, title, least) in enumerate((("by", "Moved by", None), ("thick", "Thick", 0.005), ("deep", "Deep", 0.005))):
            field = QuantityField(Length, title, lambda: session.shown, key == "by", least)
            field.entered.connect(lambda value, key=key: self._take(key, value))
            field.wrong.connect(self._complain)
            grid.addWidget(label(title, "", "pencil"), at, 0)
            grid.addWidget(field, at, 1)
            self.fields[key] = field
        rows.addWidget(self.complaint)
        self.out = QPushButton("Leave it out")
        self.out.clicked.connect(self._leave_out)
        self.back = QPushButton("As generated")
        self.back.setToolTip("Give the stick back to the school, without what was changed by hand")
        self.back.clicked.connect(self._as_generated)
        rows.addWidget(self.out)
        rows.addWidget(self.back)
        rows.addStretch(1)
        self.complaint.hide()
        self.refresh()

    def _complain(self, says: str) -> None:
        self.complaint.setText(says)
        self.complaint.setVisible(bool(says))

    @property
    def member(self) -> Member | None:
        return next((m for m in self.session.studied.framed.members if m.id == self.id), None)

    def refresh(self) -> None:
        member, words = self.member, Words(self.session.shown)
        for widget in (*self.fields.values(), self.out):
            widget.setEnabled(member is not None)
        if member is None:
            self.says.setText("This stick is not there any more.")
            self.back.setVisible(False)
            return
        ends = " and ".join(f"{abs(e):.0f}°" for e in member.ends_deg if abs(e) > 0.5)
        self.says.setText(
            f"{words.section(member.section_m)}, {words.cut(member.length_m)} long, {show(member.mass_kg, 'mass', self.session.shown.mass, 1)}. "
            f"Ends {ends + ' off square' if ends else 'square'}. {words.cut(member.at_m[0])} from "
            f"{'the front axle' if self.session.build.rig.carrier == 'vehicle bed' else 'the ball'}."
        )
        mine = changes_of(self.session.build.shell, member)
        by = next((c.by for c in mine if c.op == "move"), None)
        self.fields["by"].show_value(by)
        self.fields["by"].setPlaceholderText("not moved")
        self.fields["thick"].show_value(Length(member.section_m[0]))
        self.fields["deep"].show_value(Length(member.section_m[1]))
        self.back.setVisible(bool(mine) or member.role == "added")

    def _take(self, key: str, value: Quantity | None) -> None:
        member = self.member
        if member is None:
            return
        shell = self.session.build.shell
        if key == "by":
            ops = change_ops(shell, member, "move", value if isinstance(value, Length) else None)
            self._edit(f"Move the {member.kind} by hand", ops, member)
        elif isinstance(value, Length):
            thick, deep = (Length(v) for v in member.section_m)
            section = Section(value, deep) if key == "thick" else Section(thick, value)
            self._edit(f"Another size for the {member.kind}", change_ops(shell, member, "section", None, section), member)

    def _leave_out(self) -> None:
        member = self.member
        if member is not None:
            self._edit(f"Leave out the {member.kind}", change_ops(self.session.build.shell, member, "leave out"), member)

    def _as_generated(self) -> None:
        member = self.member
        if member is not None:
            self._edit(f"Give back the {lower_first(member.kind)}", as_generated_ops(self.session.build.shell, member), member)

    def _edit(self, says: str, ops: list, member: Member) -> None:  # type: ignore[type-arg]
        if ops:
            self.session.edit(says, ops, "Shell", (member.id,))
        self.refresh()
