"""What runs: a table that is typed into, and the day as bars beside it."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, get_args

import msgspec
from PySide6.QtCore import Qt
from PySide6.QtGui import QResizeEvent

from uncle_sled.core.document.edits import Op, add_to, remove, set_to
from uncle_sled.core.document.stow import Filled
from uncle_sled.core.document.systems import Off
from uncle_sled.core.drawing.systems.own_battery_rows import bank_words, over_words, own_battery_rows, rows_high
from uncle_sled.core.drawing.systems.stay_chart import day_chart
from uncle_sled.core.errors import EntryError
from uncle_sled.core.findings.systems.own_battery_rules import CAUTION as PACK_CAUTION
from uncle_sled.core.studies.systems.own_batteries import OwnBatteries, own_batteries
from uncle_sled.core.studies.systems.stay import Stay, stay_of
from uncle_sled.core.studies.systems.systems_as_built import stay_mode
from uncle_sled.core.wiring.appliances import Runs, all_that_runs
from uncle_sled.core.words import lower_first
from uncle_sled.desk.benches.systems.acts import Acts
from uncle_sled.desk.kit.panel import Group, PanelOf, rows, tools
from uncle_sled.desk.kit.parts import Act, Complaint, Drawing, Listed, Says, Scrolled, Split
from uncle_sled.desk.kit.table import Column
from uncle_sled.desk.session import Session

BESIDE_PX = 780
SIZES_PX = (612, 206)  # of table and bars beside each other
WHENS = ("any", "day", "night")
FILLS = get_args(Filled)


def number(text: str, what: str, most: float = 1e7) -> float | None:
    """A typed figure, None for nothing. Raises: EntryError: with what would be right."""
    body = text.strip().lower().replace(",", ".").rstrip("whax%× ").strip()
    if not body:
        return None
    try:
        value = float(body)
    except ValueError:
        raise EntryError(f"“{text}” is no {what}; a number from 0 to {most:g} would be right.") from None
    if not 0 <= value <= most:
        raise EntryError(f"“{text}” cannot be a {what}; 0 to {most:g} would be right.")
    return value


def load_ops(_session: Session, load: Runs, **fields: Any) -> list[Op]:
    """Ops that write figures of a load, wherever they stand."""
    return [set_to(f"{load.path}.{name}", value) for name, value in fields.items()]


def off_ops(session: Session, id: str, mode: str | None, on: bool) -> list[Op]:
    """Ops that leave a load off in a mode (None: for the stay), or bring it back."""
    said = next((off_ for off_ in session.build.systems.off if off_.id == id), None)
    now = said or Off(id)
    modes = tuple(each_mode for each_mode in now.modes if each_mode != mode)
    if mode is not None and not on:
        modes = (*modes, mode)
    after = msgspec.structs.replace(now, modes=modes, stay=(not on) if mode is None else now.stay)
    if not after.modes and not after.stay:
        return [remove(f"systems.off.{id}")] if said is not None else []
    record = msgspec.to_builtins(after)
    return [set_to(f"systems.off.{id}", record)] if said is not None else [add_to("systems.off", record)]


def _figure(value: float | None) -> str:
    return "?" if value is None else f"{value:g}"


def _own_battery(run: Runs) -> str:
    own = run.battery
    if own is None:
        return ""
    return f"{own.holds_wh:g} Wh" + ("" if own.filled == "home" and own.charge_w is None else f", {_figure(own.charge_w)} W")


def own_battery_of(text: str) -> dict[str, float | None]:
    """What a battery of its own holds and is filled at, as typed: 18 Wh, 10 W; nothing: it has none.

    Raises: EntryError: with what would be right.
    """
    parts = [part for part in text.lower().replace("wh", " ").replace("w", " ").replace(";", " ").replace(", ", " ").split() if part != "?"]
    if len(parts) > 2:
        raise EntryError(f"“{text}” is more than two numbers; 18 Wh, 10 W would be right: what it holds, and what its charger takes.")
    holds = number(parts[0], "number of watt hours") if parts else None
    return {"store_wh": holds, "charge_w": number(parts[1], "power", 1e5) if len(parts) > 1 else None}


class LoadsPanel(PanelOf[Acts]):
    def laid(self) -> Group:
        columns: tuple[Column[Runs], ...] = (
            Column("Load", lambda appliance: appliance.name, enter=self._name, ink=self._ink),
            Column(
                "Watts",
                lambda appliance: _figure(appliance.power_w if appliance.battery is None else appliance.battery.use_w),
                right=True,
                enter=self._watts,
                tip="While it runs, at its own plug; “5 A” is read as amps",
            ),
            Column("From", lambda appliance: "mains" if appliance.ac else "battery", enter=self._current, tip="battery (DC) or mains (AC)"),
            Column(
                "Hours",
                lambda appliance: _figure(appliance.hours_day if appliance.battery is None else appliance.battery.use_h),
                right=True,
                enter=self._hours,
                tip="A day",
            ),
            Column(
                "Duty",
                lambda appliance: f"{appliance.duty * 100:g} %",
                right=True,
                enter=self._duty,
                tip="Of its hours that it really draws",
            ),
            Column(
                "Wh a day",
                lambda appliance: "?" if appliance.unsaid or appliance.daily_wh is None else f"{appliance.daily_wh:.0f}",
                right=True,
                tip="At its own plug, without what an inverter takes",
            ),
            Column(
                "Start",
                lambda appliance: f"{appliance.surge:g} ×",
                right=True,
                enter=self._surge,
                tip="What it draws when it starts, as a multiple",
            ),
            Column(
                "When",
                lambda appliance: appliance.when if appliance.battery is None else appliance.battery.filled,
                enter=self._when,
                tip="any, day (8 to 20) or night; what has a battery of its own is filled by day, night, driving, or at home",
            ),
            Column(
                "Own Wh, W",
                _own_battery,
                enter=self._own_battery,
                tip="What it runs on by itself, and at how many watts that is filled: 18 Wh, 10 W",
            ),
            Column("State", self._state),
        )
        chosen = self.session
        self.table = self.put(
            Listed[Runs](
                "Loads",
                columns,
                lambda: all_that_runs(chosen.build),
                lambda appliance: appliance.id,
                lambda appliance: chosen.select((appliance.id,)),
                lambda appliance: appliance.id in chosen.selection,
                share=5,
            )
        )
        chart = Drawing(
            "Watt hours a day of each load",
            self._bars,
            "A day, at the battery",
            lambda: (
                "Nothing runs from a battery here: all of it runs from the hookup."
                if all_that_runs(chosen.build)
                else "Nothing runs yet: add a load, or give a thing its watts and hours."
            ),
            least=(SIZES_PX[1], 0),
        )
        alone = Drawing(
            "Things with a battery of their own, and when they are filled",
            lambda width, height: own_battery_rows(self._own_batteries(), self.words, width, height),
            "On a battery of their own",
            high=lambda: rows_high(self._own_batteries()),
        )
        left = rows(self.table, Scrolled(alone, when=lambda: bool(self._own_batteries().things), share=4))
        self.split = self.put(Split((left, chart), SIZES_PX, upright=False, share=1))
        any_ = lambda: self._chosen() is not None
        return rows(
            tools(
                Act("Add a load", "What runs and is no thing of Stow: lamps, telephones (A)", self.bench.add_load),
                Act("Must run", "It has a reserve of its own in the battery", self._turn_must, any_, lambda: self._is("must run")),
                Act(
                    "Off in this mode",
                    "It is left off in the mode that is shown, and not deleted",
                    self._turn_mode,
                    any_,
                    lambda: self._is("off, "),
                ),
                Act(
                    "Off for the stay", "It is left off in the stay that is reckoned", self._turn_stay, any_, lambda: self._is("off, stay")
                ),
                Act("Take it off", "Own loads only; things are taken out on Stow (Delete)", self.bench.take_off, self._own),
            ),
            Complaint(),
            self.split,
            Says(self._sum),
            Says(self._filling, face="small", hides=True),
            Says(lambda: PACK_CAUTION if self._own_batteries().things else "", "pencil", "small", hides=True),
        )

    def resizeEvent(self, _event: QResizeEvent) -> None:
        """Beside each other where the table has room, else over each other."""
        wide = self.width() >= BESIDE_PX
        way = Qt.Orientation.Horizontal if wide else Qt.Orientation.Vertical
        if self.split.orientation() != way:
            self.split.setOrientation(way)
            self.split.setSizes(list(SIZES_PX) if wide else [330, 150])

    def stay(self) -> Stay:
        return stay_of(self.session.build, self._mode())

    def _mode(self) -> str:
        mode = self.session.mode
        return mode.id if not mode.towing else stay_mode(self.session.build)

    def _own_batteries(self) -> OwnBatteries:
        return own_batteries(self.session.build, self._mode(), "mixed")

    def _filling(self) -> list[str]:
        made = self._own_batteries()
        return [*([bank_words(made.bank)] if made.bank is not None else []), *([over_words(made)] if made.things else [])]

    def _bars(self, width: float, height: float) -> tuple[Any, ...]:
        return day_chart(self.stay(), self.words, width, height)

    def _ink(self, appliance: Runs) -> str:
        return "pencil" if self._state(appliance).startswith("off") else "primer" if appliance.unsaid else ""

    def _state(self, appliance: Runs) -> str:
        said = next((off for off in self.session.build.systems.off if off.id == appliance.id), None)
        if said is not None and said.stay:
            return "off, stay"
        if said is not None and self.session.mode.id in said.modes:
            return f"off, {lower_first(self.session.mode.name)}"
        return "must run" if appliance.must_run else ""

    # entries
    def _take(self, appliance: Runs, title: str, make: Callable[[], list[Op]]) -> bool:
        try:
            ops = make()
        except EntryError as fault:
            self.complain(f"{appliance.name}, {title}: {fault}")
            return False
        self.complain("")
        return self.session.edit(f"{title} of {lower_first(appliance.name)}", ops, "Systems", (appliance.id,))

    def _name(self, appliance: Runs, text: str) -> bool:
        if not text.strip():
            return False
        root = f"systems.loads.{appliance.id}" if appliance.own else f"stow.things.{appliance.id}"
        return self._take(appliance, "Name", lambda: [set_to(f"{root}.name", text.strip()[:120])])

    def _watts(self, appliance: Runs, text: str) -> bool:
        amps = text.strip().lower().endswith("a")

        def make() -> list[Op]:
            value = number(text, "current" if amps else "power", 1e5)
            return load_ops(self.session, appliance, power_w=None if amps else value, amps=value if amps else None)

        return self._take(appliance, "Watts", make)

    def _current(self, appliance: Runs, text: str) -> bool:
        body = text.strip().lower()

        def make() -> list[Op]:
            if body not in ("battery", "mains", "dc", "ac"):
                raise EntryError(f"“{text}” is neither; battery or mains would be right.")
            ac = body in ("mains", "ac")
            fields: dict[str, Any] = {"current": "AC" if ac else "DC"}
            if ac:
                fields["volts"] = None
            return load_ops(self.session, appliance, **fields)

        return self._take(appliance, "Current", make)

    def _hours(self, appliance: Runs, text: str) -> bool:
        return self._take(appliance, "Hours", lambda: load_ops(self.session, appliance, hours_day=number(text, "number of hours", 24.0)))

    def _duty(self, appliance: Runs, text: str) -> bool:
        def make() -> list[Op]:
            value = number(text, "share", 100.0)
            return load_ops(self.session, appliance, duty=1.0 if value is None else value / 100)

        return self._take(appliance, "Duty", make)

    def _surge(self, appliance: Runs, text: str) -> bool:
        return self._take(appliance, "Start", lambda: load_ops(self.session, appliance, surge=number(text, "multiple", 20.0)))

    def _when(self, appliance: Runs, text: str) -> bool:
        body, own = text.strip().lower(), appliance.battery is not None

        def make() -> list[Op]:
            if body not in (FILLS if own else WHENS):
                raise EntryError(f"“{text}” is no time; {'day, night, driving or home' if own else 'any, day or night'} would be right.")
            return load_ops(self.session, appliance, **{"filled" if own else "when": body})

        return self._take(appliance, "When", make)

    def _own_battery(self, appliance: Runs, text: str) -> bool:
        return self._take(appliance, "Own battery", lambda: load_ops(self.session, appliance, **own_battery_of(text)))

    # what is chosen
    def _chosen(self) -> Runs | None:
        return next((appliance for appliance in self.table.rows if appliance.id in self.session.selection), None)

    def _is(self, state: str) -> bool:
        """Whether the chosen load must run, or is left off for the stay or in the mode that is shown."""
        appliance = self._chosen()
        if appliance is None:
            return False
        if state == "must run":
            return appliance.must_run
        now = self._state(appliance)
        return now == state or (state == "off, " and now.startswith(state) and now != "off, stay")

    def _own(self) -> bool:
        appliance = self._chosen()
        return appliance is not None and appliance.own

    def _turn_must(self) -> None:
        appliance = self._chosen()
        if appliance is not None:
            self._take(appliance, "Must run", lambda: load_ops(self.session, appliance, must_run=not appliance.must_run))
        self.refresh()

    def _turn_mode(self) -> None:
        appliance = self._chosen()
        if appliance is not None:
            off = self._state(appliance).startswith("off, ") and self._state(appliance) != "off, stay"
            self._take(appliance, "Off in this mode", lambda: off_ops(self.session, appliance.id, self.session.mode.id, off))
        self.refresh()

    def _turn_stay(self) -> None:
        appliance = self._chosen()
        if appliance is not None:
            off = self._state(appliance) == "off, stay"
            self._take(appliance, "Off for the stay", lambda: off_ops(self.session, appliance.id, None, off))
        self.refresh()

    def _sum(self) -> str:
        stay, words = self.stay(), self.words
        if not stay.demand.loads:
            return ""
        daily = stay.demand.daily_wh
        told = [f"{words.wh(daily)} a day at the battery"]
        if stay.bank is not None and stay.bank.volts:
            told[0] += f", {daily / stay.bank.volts:.0f} Ah at {stay.bank.volts:.0f} V"
        if stay.demand.unknown:
            told.append(f"{len(stay.demand.unknown)} not counted: watts or hours not said")
        mode = self.session.mode
        told.append(f"Reckoned as in {lower_first(mode.name)}" if not mode.towing else "Reckoned as in the first mode in which it stands")
        return ". ".join(told) + "."
