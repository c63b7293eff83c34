"""What a face may be made of: layers from outside in, ready to take."""

from __future__ import annotations

from collections.abc import Iterable

from uncle_sled.core.document.project import OwnWay
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import Layer


def _layers(*rows: tuple[str, float, float], first: int = 1) -> tuple[Layer, ...]:
    """Material, thickness [mm] and the share of timber framing in it."""
    return tuple(Layer(f"l{at}", material, Length(mm / 1000), share) for at, (material, mm, share) in enumerate(rows, first))


# The usual ways, for small bodies first.
WAYS: dict[str, tuple[Layer, ...]] = {
    "ply and foam": _layers(("birch-ply", 6, 0), ("xps", 25, 0.15), ("light-ply", 3, 0)),
    "thin ply and foam": _layers(("birch-ply", 3, 0), ("birch-ply", 3, 0), ("xps", 25, 0.15), ("light-ply", 3, 0)),
    "bare 18 mm ply": _layers(("birch-ply", 18, 0), ("paint", 0, 0)),
    "aluminium and foam": _layers(("aluminium", 1, 0), ("xps", 25, 0.15), ("light-ply", 3, 0)),
    "laminate and foam": _layers(("grp", 1.5, 0), ("xps", 25, 0.15), ("light-ply", 3, 0)),
    "laminate sandwich": _layers(("grp", 1.5, 0), ("pir", 30, 0), ("grp", 1.5, 0)),
    "bought panel": _layers(("grp", 1.5, 0), ("light-ply", 3, 0), ("xps", 41, 0), ("light-ply", 3, 0), ("grp", 1.5, 0)),
    "bought floor panel": _layers(("grp", 1.5, 0), ("light-ply", 3, 0), ("xps", 38, 0), ("birch-ply", 9, 0)),
    "siding on studs": _layers(("board-siding", 18, 0), ("membrane", 0, 0), ("mineral-wool", 95, 0.15), ("softwood-ply", 9, 0)),
    "boards on a ventilated gap": (
        *_layers(("board-siding", 18, 0)),
        Layer("l2", "gap-vented", Length(0.022), battens="level"),
        *_layers(("membrane", 0, 0), ("softwood-ply", 9, 0), ("mineral-wool", 95, 0.15), ("softwood-ply", 9, 0), first=3),
    ),
    "stitched ply and foam": _layers(("paint", 0, 0), ("glass-epoxy", 0, 0), ("birch-ply", 6, 0), ("xps", 25, 0), ("light-ply", 3, 0)),
    "foam and cloth": _layers(("paint", 0, 0), ("glass-epoxy", 0, 0), ("xps", 50, 0), ("glass-epoxy", 0, 0)),
    "floor between the frame's steel": (
        *_layers(("aluminium", 1, 0)),
        Layer("l2", "xps", Length(0.08), steel_share=0.1),
        *_layers(("birch-ply", 15, 0), first=3),
    ),
    "floor of ply and foam": _layers(("birch-ply", 12, 0), ("xps", 30, 0.12), ("birch-ply", 9, 0)),
}
FLOORS = frozenset({"floor of ply and foam", "floor between the frame's steel", "bought floor panel"})  # ways that are walked on
EVERYWHERE = frozenset({"bare 18 mm ply"})  # ways for a floor as well as for any other face


def ways_for(own: Iterable[OwnWay], floor: bool) -> dict[str, tuple[Layer, ...]]:
    """Layers by the name of the way: what is shipped for such a face, and one's own; of one name the own one."""
    made = {name: layers for name, layers in WAYS.items() if (name in FLOORS) is floor or name in EVERYWHERE}
    return made | {way.name: way.layers for way in own if way.floor is floor}
