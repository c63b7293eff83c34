"""Load cases as columns: what each weighs and puts where, with levels and cargo edited in place; the sweep under it."""

from __future__ import annotations

from collections.abc import Hashable
from functools import partial

import msgspec

from uncle_sled.core.document.edits import Op, add_to, fresh_id, remove
from uncle_sled.core.document.stow import LoadCase
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.stow.case_lines import Line, case_lines, read_level, reading_of
from uncle_sled.core.drawing.stow.fan import fan, levels_words, read_off
from uncle_sled.core.reading.load_cases import Case, is_own, is_standing
from uncle_sled.core.studies.balance.sweep import sweep
from uncle_sled.core.words import Words, lower_first
from uncle_sled.desk.ask import ask_text
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.panel import Gap, Group, Panel, rows, tools
from uncle_sled.desk.kit.parts import Act, Own, Remade, Says, Split, hint
from uncle_sled.desk.kit.table import Column, Table, TableModel
from uncle_sled.desk.session import Session

COLUMN_PX, FIRST_PX = 86, 140


def _with(session: Session, case: LoadCase) -> list[Op]:
    """Ops that put a case into the build in place of the one of its id."""
    have = any(each_case.id == case.id for each_case in session.build.stow.cases)
    return [*([remove(f"stow.cases.{case.id}")] if have else []), add_to("stow.cases", msgspec.to_builtins(case))]


def set_level(session: Session, case: LoadCase, id: str, level: float) -> bool:
    """A tank's level in a case; a standing case becomes the builder's own by it."""
    levels = [lv for lv in msgspec.to_builtins(case.levels) if lv["id"] != id] + [{"id": id, "level": level}]
    made = msgspec.convert({**msgspec.to_builtins(case), "levels": levels}, LoadCase)
    name = next((t.name for t in session.build.stow.things if t.id == id), id)
    return session.edit(f"{name} at {level * 100:.0f} %: {lower_first(case.name)}", _with(session, made), "Stow", (id,))


def set_aboard(session: Session, case: LoadCase, id: str, on: bool) -> bool:
    aboard = [row for row in msgspec.to_builtins(case.aboard) if row["id"] != id] + [{"id": id, "aboard": on}]
    made = msgspec.convert({**msgspec.to_builtins(case), "aboard": aboard}, LoadCase)
    name = next((t.name for t in session.build.stow.things if t.id == id), id)
    says = f"{name} {'comes along' if on else 'stays behind'}: {lower_first(case.name)}"
    return session.edit(says, _with(session, made), "Stow", (id,))


def swept_row(session: Session) -> int:
    """The case that is swept: the shown one, or the first on the road where that one stands."""
    cases = session.studied.table.cases
    if cases and cases[session.row].mode.towing:
        return session.row
    return next((row for row, case in enumerate(cases) if case.mode.towing), 0)


class Fan(Chart):
    """The sweep of the case that is shown; the pointer reads a combination off."""

    def __init__(self, session: Session) -> None:
        super().__init__(session, "Every tank at every level", self._shapes, empty=self._why_none)
        self.setMinimumHeight(130)
        self.reads(self._read)

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        s = self.session.studied
        found = sweep(s, swept_row(self.session))
        return fan(s, found, Words(self.session.shown), width, height) if found is not None else ()

    def _read(self, x: float, y: float, width: float, height: float) -> str:
        s = self.session.studied
        found = sweep(s, swept_row(self.session))
        return read_off(s, found, Words(self.session.shown), (x, y), width, height) if found is not None else ""

    def _why_none(self) -> str:
        if self.session.studied.support is None:
            return "There is no reading yet, so there is nothing to sweep."
        return "Nothing is on the road yet that could be swept."


class CaseBench(Panel):
    """The table over the fan."""

    follows = ("changed", "case_changed")

    def laid(self) -> Group:
        self.fan = self.put(Own(lambda: Fan(self.session), Fan.update, share=1))
        self.tables = self.put(Remade(self._shape, self._listed))
        under = rows(Says("Every tank at every level", face="title"), self.fan, Says(self._told, "pencil", "small"), gap=3)
        return rows(
            tools(
                Act("Add a case…", "A copy of the case that is shown, under a name of your own", self.ask_add, plain=True),
                Act("Give back", "A standing case as it was; one of your own is taken away", self.give_back, self._is_own, plain=True),
                Gap(),
                hint("Type a level, tick what comes along. • is changed by you."),
            ),
            Split((self.tables, under), (330, 230), share=1),
        )

    @property
    def cases(self) -> tuple[Case, ...]:
        return self.studied.table.cases

    # the table: a column a case, made anew where there are other cases
    def _shape(self) -> Hashable | None:
        build = self.session.build
        return tuple((case.id, case.name, case.says, case.same_as, is_own(build, case.case)) for case in self.cases) or None

    def _listed(self) -> Own[Table[Line]]:
        return Own(self._new_table, lambda table: table.show_rows(case_lines(self.studied), lambda a, b: a.key == b.key))

    def _new_table(self) -> Table[Line]:
        build = self.session.build
        columns = [Column[Line]("", lambda line: line.title, FIRST_PX, ground=_ground, plain=_is_head)]
        for row, case in enumerate(self.cases):
            same = f" Same as {', '.join(lower_first(name) for name in case.same_as)}." if case.same_as else ""
            columns.append(
                Column(
                    case.name + ("\u00a0•" if is_own(build, case.case) else ""),
                    partial(self._text, row),
                    COLUMN_PX,
                    right=True,
                    ink=partial(self._ink, row),
                    ground=partial(self._ground, row),
                    plain=_is_head,
                    tip=f"{case.mode.name}: {case.says}.{same}",
                    enter=partial(self._enter, row),
                    may=partial(self._may, row),
                    ticked=partial(self._aboard, row),
                    tick=partial(self._tick, row),
                )
            )
        self.table = made = Table(TableModel(columns), "Load cases as columns")
        made.horizontalHeader().sectionClicked.connect(lambda at: self._show(at - 1))
        made.clicked.connect(lambda index: self._show(index.column() - 1))
        return made

    def _loaded(self, row: int) -> bool:
        return row < len(self.cases) and self.cases[row].case.stage == "loaded"

    def _text(self, row: int, line: Line) -> str:
        if row >= len(self.cases):
            return ""
        if line.kind == "reading":
            return reading_of(self.studied, line.key, row, self.words)[0]
        if line.kind == "level" and self._loaded(row):
            level = next((at.level for at in self.cases[row].case.levels if at.id == line.key), 0.0)
            return f"{level * 100:.0f} %"
        return "" if line.kind == "head" or (line.kind == "aboard" and self._loaded(row)) else "–"

    def _ink(self, row: int, line: Line) -> str:
        return reading_of(self.studied, line.key, row, self.words)[1] if line.kind == "reading" and row < len(self.cases) else ""

    def _aboard(self, row: int, line: Line) -> bool | None:
        if line.kind != "aboard" or not self._loaded(row):
            return None
        table = self.studied.table
        return line.key in table.ids and bool(table.mass_kg[row, table.ids.index(line.key)])

    def _enter(self, row: int, line: Line, text: str) -> bool:
        level = read_level(text)
        if level is None:
            self.session.said.emit(f"{line.title}: “{text}” is no level; 0 to 100 %, “full”, “half” or “empty” would be right.", "stop")
            return False
        return set_level(self.session, self.cases[row].case, line.key, level)

    def _ground(self, row: int, line: Line) -> str:
        return _ground(line) or ("chalk wash" if row == self.session.row else "")

    def _may(self, row: int, line: Line) -> bool:
        return line.kind == "level" and self._loaded(row)

    def _tick(self, row: int, line: Line, on: bool) -> bool:
        return set_aboard(self.session, self.cases[row].case, line.key, on)

    # what is said and done
    def _is_own(self) -> bool:
        return bool(self.cases) and is_own(self.session.build, self.cases[self.session.row].case)

    def _told(self) -> str:
        s, words, row = self.studied, self.words, swept_row(self.session)
        found = sweep(s, row)
        if found is None or not found.tanks:
            return "" if found is None else "No tank rides along, so there is nothing to sweep."
        worst = max((found.worst_low, found.worst_high), key=lambda spot: spot.out_kg)
        way = "light" if worst is found.worst_low else "heavy"
        if found.of == "rear axle":
            way = "much on the front axle" if worst is found.worst_low else "much on the rear axle"
        well = "in the band" if found.of == "ball" else "within both axles"
        tail = f" {found.left_out} small tanks keep their level." if found.left_out else ""
        tried = f"{len(found.load_kg)} combinations with the cargo of {lower_first(self.cases[row].name) if self.cases else ''}."
        if worst.out_kg <= 0:
            return f"{tried} All of them are {well}.{tail}"
        return f"{tried} Worst: {words.kg(worst.out_kg)} too {way} with {levels_words(s, worst)}.{tail}"

    def _show(self, row: int) -> None:
        if 0 <= row < len(self.cases):
            self.session.show_case(self.cases[row].id)

    def ask_add(self) -> None:
        if not self.cases:
            return
        name = ask_text(self, "A case of your own", "What is it called?", "Half full, no cargo")
        if name:
            self.add(name)

    def add(self, name: str) -> None:
        """The shown case under another name, to be changed."""
        case = self.cases[self.session.row].case
        id = fresh_id("case", [c.case.id for c in self.cases] + [c.id for c in self.session.build.stow.cases])
        made = msgspec.structs.replace(case, id=id, name=name.strip()[:40], mode=self.session.mode.id)
        if self.session.edit(f"Add the case {name.strip()[:40]}", _with(self.session, made), "Stow"):
            if not any(c.id == id for c in self.session.studied.table.cases):
                self.session.said.emit("It weighs as another one does, and is shown with it until a level or a thing is changed.", "note")
            self.session.show_case(id)

    def give_back(self) -> None:
        case = self.cases[self.session.row].case
        if not is_own(self.session.build, case):
            return
        word = "Give back" if is_standing(self.session.build, case.id) else "Take away"
        self.session.edit(f"{word} the case {lower_first(case.name)}", [remove(f"stow.cases.{case.id}")], "Stow")


def _is_head(line: Line) -> bool:
    return line.kind == "head"


def _ground(line: Line) -> str:
    return "kraft" if line.kind == "head" else ""
