"""A material of one's own: by density, or by weight over an area, with where its figures are from."""

from __future__ import annotations

from PySide6.QtWidgets import QWidget

from uncle_sled.core.document.edits import add_to, fresh_id, set_to
from uncle_sled.core.document.field import field_of
from uncle_sled.core.document.project import OwnMaterial
from uncle_sled.core.errors import EntryError
from uncle_sled.core.material_words import FAMILIES, FORM_WORDS, FORMS
from uncle_sled.desk.kit.dialog import PanelDialog
from uncle_sled.desk.kit.fields import ChoiceField, TextField, TypedField
from uncle_sled.desk.kit.panel import Gap, Group, Panel, across, rows
from uncle_sled.desk.kit.parts import Act, Complaint, Says
from uncle_sled.desk.session import Session
from uncle_sled.exchange.clock import today

FIGURES = ("density_kg_m3", "conductivity_w_mk", "mu", "kg_m2", "r_m2k_w", "heat_j_kgk", "money_m2", "hours_m2")
FIELD_PX = 200
BENDS = ("plywood", "polycarbonate", "acrylic", "aluminium", "grp", "sandwich")


class OwnMaterialPanel(Panel):
    def laid(self) -> Group:
        mine = self.session.facts.materials
        self.name, self.source = TextField("Name"), TextField("Where its figures are from", may_be_empty=True)
        self.which = ChoiceField("Which", [("", "a new one"), *((material.id, material.name) for material in mine)])
        self.which.entered.connect(lambda value: self.show_material(str(value or "")))
        self.family = ChoiceField("What it is", [("", "nobody said"), *((family, family) for family in FAMILIES if family)])
        self.form = ChoiceField("Bought as", [(form, FORM_WORDS[form]) for form in FORMS])
        self.bends = ChoiceField("Bends like", [("", "does not bend, or always"), *((bend, bend) for bend in BENDS)])
        for choice in (self.which, self.family, self.form, self.bends):
            choice.setMinimumWidth(FIELD_PX)
        self.numbers: dict[str, TypedField] = {}
        for key in FIGURES:
            self.numbers[key] = field = TypedField(field_of(OwnMaterial, key), lambda: self.session.shown)
            field.show_value(None)
            field.wrong.connect(self.complain)
        lines: list[tuple[str, QWidget]] = [("Which", self.which)] if mine else []
        lines += [("Name", self.name), ("What it is", self.family), ("Bought as", self.form)]
        lines += [(field.name, field) for field in self.numbers.values()]
        lines += [("Bends like", self.bends), ("Source", self.source)]
        return rows(
            *(across(Says(title, "pencil", wide=110), field) for title, field in lines),
            Complaint(),
            across(
                Gap(),
                Act("Leave it", "Nothing changes", lambda: self.window().close(), plain=True),
                Act("Keep the material", "It stands beside the others from now on", self.keep, main=True),
            ),
        )

    def show_material(self, id: str) -> None:
        """What is known of one of one's own; empty for a new one."""
        material = next((each_material for each_material in self.session.facts.materials if each_material.id == id), None)
        self.name.setText(material.name if material is not None else "")
        self.source.setText(material.source if material is not None else "")
        for key, field in self.numbers.items():
            field.show_value(getattr(material, key, None))
        for name, choice in (("bends", self.bends), ("family", self.family), ("form", self.form)):
            choice.show_value(getattr(material, name, ""))

    def keep(self) -> None:
        made: dict[str, object] = {}
        for key, field in self.numbers.items():
            try:
                value = field.about.read(field.text(), self.session.shown) if field.text().strip() else None
            except EntryError as fault:
                self.complain(str(fault))
                return
            if value is not None:
                made[key] = value
        name = self.name.text().strip()
        if not name:
            self.complain("It needs a name.")
            return
        if "density_kg_m3" not in made and "kg_m2" not in made:
            self.complain("Say its density, or its weight over an area.")
            return
        mine = {material.id: material for material in self.session.facts.materials}
        id = str(self.which.currentData() or "") or fresh_id("own", list(mine))
        record: dict[str, object] = {
            "bends": self.bends.currentData() or "",
            "family": self.family.currentData() or "",
            "form": self.form.currentData() or "",
            "source": self.source.text().strip() or "own",
            "date": today(),
            "name": name,
            **made,
        }
        if id in mine:  # what was emptied is not known any more
            record = {**{key: None for key in FIGURES if key != "hours_m2"}, **record}
            ops = [set_to(f"facts.materials.{id}.{key}", value) for key, value in record.items()]
        else:
            ops = [add_to("facts.materials", {"id": id, **record})]
        if self.session.edit(f"A material of one's own: {name}", ops, "Shell", (), whole_project=True):
            self.window().close()


class OwnMaterialDialog(PanelDialog[OwnMaterialPanel]):
    """A material of one's own."""

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__("A material of your own", OwnMaterialPanel(session), parent=parent)
