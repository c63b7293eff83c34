"""Systems: what runs, how long the power lasts, and how it is wired."""

from __future__ import annotations

from uncle_sled.catalogue.things import entries
from uncle_sled.core.document.edits import Op, add_to, fresh_id, remove
from uncle_sled.core.studies.systems.wire_whole import wire_whole_ops
from uncle_sled.core.words import lower_first
from uncle_sled.desk.benches.bench import PanelBench
from uncle_sled.desk.session import Session

CAUTION = "Screening only: batteries and mains burn and kill. Licensed people and local codes decide."


class SystemsBench(PanelBench):
    def __init__(self, session: Session, stop: str) -> None:
        super().__init__(session, stop, CAUTION)
        for signal in (session.case_changed, session.selected):
            signal.connect(self.refresh)
        self.show_view("Loads")

    # what can be done
    def wire_up(self) -> bool:
        """Join whatever has no wire yet, in the usual way."""
        session = self.session
        ops, controller = wire_whole_ops(session.build, session.facts, session.studied.framed, entries())
        if not ops:
            why = (
                "Everything that runs or gives is wired."
                if session.build.systems.wires
                else "There is nothing to wire yet: a battery, a station or a hookup is wanted, and something that runs."
            )
            session.said.emit(why, "note")
            return False
        done = session.edit("Wire up what is loose", ops, "Systems")
        if done:
            many = sum(1 for op in ops if op.path == "systems.wires")
            more = f" A {lower_first(controller.name)} is put aboard for the panels." if controller is not None else ""
            session.said.emit(
                f"{many} wire{'s' if many != 1 else ''} laid in the usual way.{more} Look each over, and say where devices sit.", "note"
            )
        return done

    def add_load(self) -> None:
        """Something that runs and is no thing: lamps, telephones."""
        session = self.session
        id = fresh_id("ld", [load.id for load in session.build.systems.loads])
        if session.edit(
            "Add a load",
            [add_to("systems.loads", {"id": id, "name": "Lamps", "power_w": 12.0, "hours_day": 4.0, "when": "night"})],
            "Systems",
            (id,),
        ):
            self.show_view("Loads")
            session.select((id,))

    def take_off(self) -> None:
        """The chosen wires, devices and own loads go; a device takes its wires along."""
        session = self.session
        systems = session.build.systems
        ops: list[Op] = []
        names: list[str] = []
        for root, some in (("wires", systems.wires), ("devices", systems.devices), ("loads", systems.loads)):
            for part in some:
                if part.id in session.selection:
                    ops.append(remove(f"systems.{root}.{part.id}"))
                    names.append(lower_first(part.name) if part.name else f"wire {part.id[2:]}")
        if not ops:
            session.said.emit("Choose a wire, a device or a load of its own first; things are taken out on Stow.", "note")
            return
        session.edit(f"Take off {names[0]}" + (f" and {len(names) - 1} more" if len(names) > 1 else ""), ops, "Systems")
