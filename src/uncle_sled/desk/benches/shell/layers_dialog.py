"""What a face is made of, layer by layer from outside in, with its section drawn."""

from __future__ import annotations

from functools import partial

import msgspec
from PySide6.QtWidgets import QCheckBox, QWidget

from uncle_sled.core.document.assemblies import WAYS
from uncle_sled.core.document.edits import add_to, fresh_id, set_to
from uncle_sled.core.document.field import field_of
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import Face, Layer
from uncle_sled.core.drawing.shell.shell_views import layer_words
from uncle_sled.core.errors import GeometryError
from uncle_sled.core.parts.face_build import SHUT_MM2_M, VENTED_MM2_M, FaceBuild, face_build, library_of
from uncle_sled.core.words import lower_first
from uncle_sled.desk.ask import ask_text
from uncle_sled.desk.benches.shell.own_material_dialog import OwnMaterialDialog
from uncle_sled.desk.benches.shell.section_picture import SectionPicture
from uncle_sled.desk.kit.dialog import PanelDialog
from uncle_sled.desk.kit.fields import QuantityField
from uncle_sled.desk.kit.panel import Gap, Group, Panel, across, rows, tools
from uncle_sled.desk.kit.parts import Act, Choice, Complaint, Own, Remade, Says, hint
from uncle_sled.desk.session import Session

USUAL_FRAMING = 0.15
OPEN: list[tuple[object, str]] = [(None, "open? not said"), (VENTED_MM2_M, "wide open"), (SHUT_MM2_M, "barely open"), (0.0, "shut")]
MOST_LAYERS = 10


USUAL_STEEL = 0.10  # of a floor between cross-members 45 mm wide, some 450 mm apart
THROUGH = (("", "no sticks"), ("sticks", "sticks in it"), ("steel", "frame's steel"))


class LayersPanel(Panel):
    """Works on a copy; the face changes in one step when it is kept."""

    def __init__(self, session: Session, face: Face) -> None:
        self.face, self.layers = face, list(face.layers)
        super().__init__(session)

    def laid(self) -> Group:
        self.keep_button = self.put(
            Act(
                "Keep these layers",
                "The face is made of them from now on",
                self.keep,
                lambda: not isinstance(self._built(), str),
                main=True,
            )
        )
        left = rows(
            Says("Layers from outside in", face="title"),
            Remade(lambda: tuple((layer.id, self._air(at)) for at, layer in enumerate(self.layers)), self._rows),
            tools(
                Act("Add a layer inside", "The last one", self.add_layer, lambda: len(self.layers) < MOST_LAYERS, plain=True),
                Act("New material…", "A material of your own, with where its figures are from", self.new_material, plain=True),
                Act(
                    "Keep as a way…",
                    "Under a name, to make other faces of and to compare",
                    self.keep_as_way,
                    lambda: bool(self.layers),
                    plain=True,
                ),
            ),
            Complaint(),
            Gap(),
            share=3,
        )
        right = rows(
            Own(lambda: SectionPicture(self.session), lambda picture: picture.show_face(self._trial()), share=1),
            Says(self._names, face="small"),
            Says(self._sums),
            share=2,
        )
        return rows(
            across(left, right, gap=14, share=1),
            across(
                hint("Parallel paths flatter metal framing. Dust and resin: mask and gloves."),
                Gap(),
                Act("Leave it as it is", "Nothing changes", lambda: self.window().close(), plain=True),
                self.keep_button,
            ),
        )

    def _rows(self) -> Group:
        return rows(*(self._row(at) for at in range(len(self.layers))), gap=4)

    def _row(self, at: int) -> Group:
        return across(
            Says(str(at + 1), "pencil", wide=14),
            Choice(
                f"Material of layer {at + 1}",
                self._materials,
                lambda value: self.change(at, material=str(value)),
                lambda: self.layers[at].material,
                letters=18,
                share=1,
            ),
            Own(partial(self._thick, at), lambda field: field.show_value(self.layers[at].thickness), wide=84),
            *(self._gap(at) if self._air(at) else (self._sticks_of(at),)),
            Act("out", "One place further outside", lambda: self.further_out(at), lambda: at > 0, plain=True),
            Act("remove", "Takes this layer off", lambda: self._remove(at), plain=True),
        )

    def _thick(self, at: int) -> QuantityField:
        field = QuantityField(Length, f"Thickness of layer {at + 1}", lambda: self.session.shown, may_be_empty=False)
        field.entered.connect(lambda value: self.change(at, thickness=value))
        field.wrong.connect(self.complain)
        return field

    def _air(self, at: int) -> str:
        """Whether a layer is a gap, and what kind."""
        known = library_of(self.session.facts.materials).get(self.layers[at].material)
        return known.air if known is not None else ""

    def _sticks_of(self, at: int) -> Own[QCheckBox] | Choice:
        if self.face.kind == "floor":
            return Choice(
                f"What goes through layer {at + 1}",
                THROUGH,
                partial(self._goes_through, at),
                lambda: "steel" if self.layers[at].steel_share > 0 else "sticks" if self.layers[at].framing > 0 else "",
                "A floor may lie between the steel of the trailer's own frame, which weighs there",
                letters=11,
            )
        return Own(partial(self._sticks, at), lambda box: box.setChecked(self.layers[at].framing > 0))

    def _goes_through(self, at: int, what: object) -> None:
        self.change(at, framing=USUAL_FRAMING if what == "sticks" else 0.0, steel_share=USUAL_STEEL if what == "steel" else 0.0)

    def _gap(self, at: int) -> tuple[Choice, ...]:
        """How the battens of a gap run, and how far it is open."""
        of = Choice(
            f"Battens of layer {at + 1}",
            field_of(Layer, "battens").choices,
            lambda value: self.change(at, battens=str(value)),
            lambda: self.layers[at].battens,
            letters=10,
        )
        if self._air(at) != "vented":
            return (of,)
        return of, Choice(
            f"Layer {at + 1} is open above and below",
            OPEN,
            lambda value: self.change(at, open_mm2_m=value),
            lambda: next((known for known, _ in OPEN if known == self.layers[at].open_mm2_m), None),
            letters=10,
        )

    def _sticks(self, at: int) -> QCheckBox:
        box = QCheckBox("sticks in it")
        box.clicked.connect(lambda on: self.change(at, framing=USUAL_FRAMING if on else 0.0))
        return box

    def _materials(self) -> list[tuple[object, str]]:
        named = [(m.id, self.words.material(m.name)) for m in library_of(self.session.facts.materials).values()]
        return sorted(named, key=lambda pair: pair[1])  # type: ignore[return-value]

    def change(self, at: int, **changes: object) -> None:
        """Another material, thickness or share of sticks of one layer."""
        self.layers[at] = msgspec.structs.replace(self.layers[at], **changes)
        self.complain("")
        self.refresh()

    def further_out(self, at: int) -> None:
        self.layers[at - 1], self.layers[at] = self.layers[at], self.layers[at - 1]
        self.refresh()

    def _remove(self, at: int) -> None:
        del self.layers[at]
        self.refresh()

    def add_layer(self) -> None:
        id = fresh_id("l", [layer.id for layer in self.layers])
        self.layers.append(Layer(id, "light-ply", Length(0.003)))
        self.refresh()

    def new_material(self) -> None:
        OwnMaterialDialog(self.session, self).exec()
        self.refresh()

    def keep_as_way(self) -> None:
        """These layers under a name; one that is there already takes them."""
        name = ask_text(self, "Keep as a way", "What do you call these layers?", "" if self.face.made_of in WAYS else self.face.made_of)
        if not name:
            return
        if name in WAYS:
            self.complain(f"“{name}” is a way that is shipped; another name would be right.")
            return
        known = {way.name: way.id for way in self.session.facts.ways}
        layers, floor = msgspec.to_builtins(tuple(self.layers)), self.face.kind == "floor"
        if name in known:
            ops = [set_to(f"facts.ways.{known[name]}.layers", layers), set_to(f"facts.ways.{known[name]}.floor", floor)]
        else:
            ops = [add_to("facts.ways", {"id": fresh_id("way", list(known.values())), "name": name, "layers": layers, "floor": floor})]
        if self.session.edit(f"Keep the way {name}", ops, "Shell", (), whole_project=True):
            self.complain(f"Kept as “{name}”: it is offered on Faces and in Ways…")

    # what it comes to
    def _trial(self) -> Face:
        return msgspec.structs.replace(self.face, layers=tuple(self.layers))

    def _names(self) -> str:
        return "\n".join(layer_words(self._trial(), library_of(self.session.facts.materials), self.words))

    def _built(self) -> FaceBuild | str:
        """The face of these layers, or why it cannot be."""
        try:
            return face_build(tuple(self.layers), self.face.kind, library_of(self.session.facts.materials))
        except GeometryError as fault:
            return str(fault)

    def _sums(self) -> str:
        words, made = self.words, self._built()
        if isinstance(made, str):
            return words.told(made)
        bend = "any curve" if made.tightest_m <= 0 else words.m(made.tightest_m)
        return (
            f"{words.of(made.kg_m2, 'kg/m2', 1)}, {words.layer(made.thickness_m)}, {words.resistance(made.r_m2k_w)}, "
            f"U {words.of(made.u_w_m2k, 'W/m2K', 2)}; money {made.money_m2:.0f} and {made.hours_m2:.1f} h a m²; goes round {bend}."
        )

    def keep(self) -> None:
        same = tuple(self.layers) == self.face.layers
        done = self.session.edit(
            f"Layers of the {lower_first(self.face.name)}",
            [
                set_to(f"shell.faces.{self.face.id}.layers", msgspec.to_builtins(tuple(self.layers))),
                set_to(f"shell.faces.{self.face.id}.made_of", self.face.made_of if same else "own layers"),
            ],
            "Shell",
            (self.face.id,),
        )
        if done or same:
            self.window().close()


class LayersDialog(PanelDialog[LayersPanel]):
    """The layers of one face."""

    def __init__(self, session: Session, face: Face, parent: QWidget | None = None) -> None:
        super().__init__(f"What the {lower_first(face.name)} is made of", LayersPanel(session, face), (820, 430), parent)
