"""The wires in the body over their list: wire up, add, take off; a row and a line are the same wire."""

from __future__ import annotations

from functools import partial

from uncle_sled.core.document.edits import add_to, fresh_id
from uncle_sled.core.document.field import field_of
from uncle_sled.core.document.systems import Device
from uncle_sled.core.wiring.between import wire_between
from uncle_sled.core.wiring.wired import Laid, Wired, spots_of, wired_of
from uncle_sled.core.words import Words, lower_first, upper_first
from uncle_sled.desk.benches.systems.acts import Acts
from uncle_sled.desk.benches.systems.wire_sheet import WireSheet
from uncle_sled.desk.kit.panel import Group, PanelOf, across, rows
from uncle_sled.desk.kit.parts import Act, Choice, Listed, Menu, Split
from uncle_sled.desk.kit.table import Column

CLASS_PX = 760


class WiresPanel(PanelOf[Acts]):
    def laid(self) -> Group:
        self.sheet = WireSheet(self.session)
        columns: tuple[Column[Laid], ...] = (
            Column("No", lambda w: w.number, right=True, sort=lambda w: int(w.number) if w.number.isdigit() else 0),
            Column("From", lambda w: self._name(w.start), ink=self._ink),
            Column("To", lambda w: self._name(w.end), ink=self._ink),
            Column("A", lambda w: "" if w.kind == "earth" else "?" if w.current_a is None else f"{w.current_a:.1f}", right=True),
            Column("Length", self._length, right=True, tip="One way, along its route with its rises; ~ an end has no place yet"),
            Column("Size", lambda w: w.gauge if w.mm2 is not None else "none", right=True, ink=lambda w: "primer" if w.mm2 is None else ""),
            Column(
                "Drop",
                lambda w: "" if w.drop_share is None else f"{w.drop_share * 100:.1f} %",
                right=True,
                ink=lambda w: "primer" if w.drop_share is not None and w.drop_share > w.allowed + 1e-4 else "",
            ),
            Column("Fuse", self._fuse, right=True),
            Column(
                "Class",
                lambda w: "" if w.kind == "earth" else w.insulation,
                tip="building: cautious, in conduit; vehicle: printed 105",
                from_px=CLASS_PX,
            ),
        )
        chosen = self.session
        self.table = self.put(
            Listed[Laid](
                "Wires",
                columns,
                lambda: self.wired().wires,
                lambda w: w.id,
                lambda w: chosen.select((w.id,)),
                lambda w: w.id in chosen.selection,
            )
        )
        self.start = self.put(Choice("From", self._ends, tip="Where the wire comes from", letters=9, share=1))
        self.end = self.put(Choice("To", self._ends, tip="Where it goes", letters=9, share=1))
        return rows(
            across(
                Act("Wire it up", "Join whatever has no wire yet, in the usual way (W)", self.bench.wire_up),
                Menu("Add a device", [(name, partial(self.add_device, kind, name)) for kind, name in field_of(Device, "kind").choices]),
                self.start,
                self.end,
                Act("Add a wire", "From the one to the other", self.add_wire, may=lambda: len(self._ends()) > 1),
                Act(
                    "Take it off",
                    "The chosen wire or device; a device takes its wires along (Delete)",
                    self.bench.take_off,
                    may=self._can_go,
                ),
            ),
            Split((self.sheet, self.table), (360, 200), share=1),
        )

    def wired(self) -> Wired:
        s = self.session.studied
        return wired_of(s.build, s.framed)

    def _name(self, id: str) -> str:
        end = self.wired().net.ends.get(id)
        return end.name if end is not None else id

    def _ink(self, wire: Laid) -> str:
        return "primer" if any(wire.id in f.where and f.severity == "stop" for f in self.session.findings) else ""

    def _length(self, wire: Laid) -> str:
        told = Words(self.session.shown).m(wire.length_m)
        return f"~{told}" if wire.length_face == "guessed" else told

    def _fuse(self, wire: Laid) -> str:
        if wire.fused == "none":
            return ""
        return ("?" if wire.fuse_a is None else f"{wire.fuse_a:g} A") + ("" if wire.fused == "start" else f", {wire.fused}")

    def refreshed(self) -> None:
        if self.start.currentIndex() == self.end.currentIndex():
            self.end.setCurrentIndex(min(1, self.end.count() - 1))

    def _can_go(self) -> bool:
        return any(id in self.session.build.systems.ids for id in self.session.selection)

    def _ends(self) -> list[tuple[object, str]]:
        return [(end.id, end.name) for end in self.wired().net.ends.values()]

    def add_wire(self) -> None:
        start, end = self.start.currentData(), self.end.currentData()
        if start is None or end is None or start == end:
            self.session.said.emit("Choose two different ends: where the wire comes from, and where it goes.", "note")
            return
        wired = self.wired()
        id = fresh_id("wr", [w.id for w in self.session.build.systems.wires])
        kind, fused = wire_between(wired.net.ends[start], wired.net.ends[end])
        record = {"id": id, "start": start, "end": end, "kind": kind, "fused": fused}
        if self.session.edit(
            f"Wire {lower_first(wired.net.ends[start].name)} to {lower_first(wired.net.ends[end].name)}",
            [add_to("systems.wires", record)],
            "Systems",
            (id,),
        ):
            self.session.select((id,))

    def add_device(self, kind: object, name: str) -> None:
        systems = self.session.build.systems
        id = fresh_id("dv", [d.id for d in systems.devices])
        spots = spots_of(self.session.build)
        near = next((spots[d.id] for d in reversed(systems.devices)), None) or next(iter(spots.values()), (1.5, 0.0, 0.8))
        many = sum(1 for d in systems.devices if d.kind == kind)
        at = {axis: {"si": round(v, 3), "typed": None} for axis, v in zip("xyz", (near[0] + 0.12, near[1], near[2]), strict=True)}
        record = {"id": id, "kind": kind, "name": f"{name} {many + 1}" if many else name, **at}
        if self.session.edit(f"Add {lower_first(upper_first(name))}", [add_to("systems.devices", record)], "Systems", (id,)):
            self.session.select((id,))
