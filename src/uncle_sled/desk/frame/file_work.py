"""What the window does with files: begin, open, keep, bring in, export, print; it asks before anything is lost."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtCore import QTimer
from PySide6.QtWidgets import QFileDialog, QMainWindow, QWidget

from uncle_sled.core.document.project import Project, empty_project
from uncle_sled.core.errors import SledError
from uncle_sled.core.trail import HOME
from uncle_sled.desk.ask import ask
from uncle_sled.desk.frame.keeper import Keeper
from uncle_sled.desk.frame.written import written
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.one_shown import OneShown
from uncle_sled.desk.session import Session
from uncle_sled.desk.settings import Settings
from uncle_sled.exchange import sled_file
from uncle_sled.exchange.clock import today
from uncle_sled.exchange.demos import demo
from uncle_sled.exchange.file_names import suggested
from uncle_sled.exchange.recovery import Autosave, drop_autosave, left_behind
from uncle_sled.exchange.sled_file import Opened
from uncle_sled.exchange.typed_pairs import PairsDisagree, settled

if TYPE_CHECKING:
    from uncle_sled.core.drawing.page import Page
    from uncle_sled.desk.frame.bring_list import BringList
    from uncle_sled.desk.frame.first_page import FirstPage

FILTER = "Uncle Sled builds (*.sled)"


class FileWork(Guarded, QMainWindow):
    """The window's half that knows files. The other half gives it what is declared here."""

    session: Session
    settings: Settings
    keeper: Keeper
    pages: OneShown
    whole: QWidget

    @property
    def first_page(self) -> FirstPage:
        raise NotImplementedError

    def say(self, text: str, severity: str) -> None:
        raise NotImplementedError

    def shown_bench(self) -> QWidget:
        raise NotImplementedError

    def first_views(self) -> None:
        raise NotImplementedError

    def first_walk(self) -> None:
        raise NotImplementedError

    def _align(self) -> None:
        raise NotImplementedError

    def may_leave(self) -> bool:
        """Ask before changes that were not saved are let go."""
        if not self.session.history.modified:
            return True
        done = len(self.session.history.done)
        what = f"{done} changes that were" if done != 1 else "a change that was"
        text = f"{self.session.project.name} has {what} not saved. Leaving now loses them."
        answer = ask(self, "Not saved yet", text, [("save", "Save first"), ("lose", "Lose them"), ("", "Stay here")])
        return self.save() if answer == "save" else answer == "lose"

    def new(self) -> None:
        if self.may_leave():
            from uncle_sled.desk.frame.new_build import NewBuild

            dialog = NewBuild(self.settings, self)
            dialog.made.connect(self.begin)
            dialog.open()

    def begin(self, project: Project) -> None:
        """A new build is on the bench, not saved yet."""
        self.keeper.drop()
        self.session.open(project, None, unsaved=True)
        self.keeper.begin(None)
        self.show_build()
        self.first_views()
        # what was bought begins with its weighing
        self.session.go_to("Rig" if project.build.rig.base == "as bought" else HOME)
        if self.settings.get("walk") == "ask":
            self.first_walk()

    def open_demo(self, name: str) -> None:
        if self.may_leave():
            self.keeper.drop()
            self.session.open(demo(name), None)
            self.keeper.begin(None)
            self.show_build()
            self.first_views()

    def open_file(self) -> None:
        if not self.may_leave():
            return
        word, _ = QFileDialog.getOpenFileName(self, "Open a build", str(self.session.path or Path.home()), FILTER)
        if word:
            self.open_path(Path(word))

    def open_asked(self, path: Path) -> None:
        if self.may_leave():
            self.open_path(path)

    def open_path(self, path: Path) -> bool:
        """Open a file, asking where another window has it; what cannot be read is said and nothing changes."""
        opened = self._read(path)
        if opened is None:
            return False
        how = self.keeper.may_open(path)
        if not how:
            return False
        self.keeper.drop()
        self.session.open(opened.project, path, unsaved=bool(opened.said), read_only=how == "read")
        self.keeper.begin(path)
        self._opened(path)
        self.show_build()
        self.first_views()
        self._tell_mended(opened)
        return True

    def _read(self, path: Path) -> Opened | None:
        """A build as read; None, and said, where it cannot be. Pairs that disagree are asked about."""
        try:
            return sled_file.opened(path)
        except PairsDisagree as fault:
            from uncle_sled.desk.frame.which_to_take import which_to_take

            takes = which_to_take(self, path.name, fault.pairs)
            if takes is None:
                return None
            said = tuple(f"{pair.place}: the {'words' if take == 'typed' else 'number'} was taken." for pair, take in takes)
            return Opened(settled(fault.project, takes), said)
        except SledError as fault:
            self.say(str(fault), "stop")
            return None

    def _tell_mended(self, opened: Opened) -> None:
        """What was read otherwise than it stood in the file: said once, and written so with the next save."""
        if opened.said:
            more = f" And {len(opened.said) - 3} more." if len(opened.said) > 3 else ""
            self.say(f"Mended on opening; save it to keep it so. {' '.join(opened.said[:3])}{more}", "note")

    def _opened(self, path: Path) -> None:
        try:
            self.settings.opened(path)
        except SledError as fault:
            self.say(str(fault), "stop")

    def go_on(self, autosave: Autosave) -> None:
        """Go on with what a crash left behind; it counts as not saved."""
        opened = self._read(autosave.path)
        if opened is None:
            return
        project = opened.project
        path = autosave.of if autosave.of is not None and autosave.of.parent.is_dir() else None
        read_only = path is not None and self.keeper.may_open(path) != "write"
        self.session.open(project, path, unsaved=True, read_only=read_only)
        self.keeper.begin(path)
        self.keeper.adopt(autosave)
        self.show_build()
        self.say(f"{project.name} is back as it was kept. Save it when you have looked.", "note")

    def throw_away(self, autosave: Autosave) -> None:
        text = f"The kept copy of {autosave.name} would be gone for good. The saved file, if there is one, stays."
        if ask(self, "Throw it away", text, [("yes", "Throw it away"), ("", "Keep it")]) == "yes":
            drop_autosave(autosave)
            self.show_first_page()

    def close_build(self) -> None:
        if self.may_leave():
            self.keeper.close()
            self.session.open(empty_project(), None)
            self.show_first_page()

    def show_first_page(self) -> None:
        self.first_page.show_page(self.settings.recent, left_behind())
        self.pages.setCurrentWidget(self.first_page)
        self.setWindowTitle("Uncle Sled")

    def show_build(self) -> None:
        self.pages.setCurrentWidget(self.whole)
        QTimer.singleShot(0, self, self._align)

    def take_over(self) -> None:
        """Open a second build beside this one and take something of it."""
        word, _ = QFileDialog.getOpenFileName(self, "Take over from which build?", str(self.session.path or Path.home()), FILTER)
        if word:
            self.take_over_from(Path(word))

    def take_over_from(self, path: Path) -> None:
        from uncle_sled.desk.frame.take_over import TakeOver

        try:
            source = sled_file.read(path)
        except SledError as fault:
            self.say(str(fault), "stop")
            return
        self.session.put_back(because="another build was opened beside it")
        TakeOver(self.session, source, self).open()

    def bring_list(self) -> None:
        word, _ = QFileDialog.getOpenFileName(self, "Bring in a list of weights", str(Path.home()), "Lists (*.csv *.tsv *.txt *.xlsx)")
        if word:
            self.bring_from(Path(word))

    def bring_from(self, path: Path) -> BringList | None:
        from uncle_sled.desk.frame.bring_list import BringList
        from uncle_sled.exchange.weight_list import read_sheet

        try:
            sheet = read_sheet(path)
        except SledError as fault:
            self.say(str(fault), "stop")
            return None
        dialog = BringList(self.session, path, sheet, self)
        dialog.open()
        return dialog

    def save(self) -> bool:
        return self.save_to(self.session.path) if self.session.path is not None else self.save_as()

    def save_to(self, path: Path) -> bool:
        """Save, asking first where somebody else's work would be overwritten."""
        may = self.keeper.may_save(path)
        if may == "as":
            return self.save_as()
        if may != "yes":
            return False
        if not self.session.save(path):
            return False
        self.keeper.saved(path)
        self._opened(path)
        return True

    def save_as(self) -> bool:
        first = self.session.path or suggested(None, self.session.project.name, "", "sled")
        word, _ = QFileDialog.getSaveFileName(self, "Save the build", str(first), FILTER)
        if not word:
            return False
        path = Path(word)
        path = path if path.suffix else path.with_suffix(".sled")
        if path == self.session.path and self.session.read_only:
            self.say("That name is held by another window; choose another one.", "stop")
            return False
        return self.save_to(path)

    def _printed_page(self, kind: str) -> Page:
        from uncle_sled.core.drawing.balance.balance_sheet import balance_sheet
        from uncle_sled.core.drawing.rig.scale_sheet import scale_sheet

        s, day = self.session.studied, today()
        if kind == "sheet":
            return balance_sheet(s, self.session.findings, self.session.project.name, day)
        return scale_sheet(s, self.session.row, self.session.project.name, day)

    def print_sheet(self) -> None:
        self._print(self._printed_page("sheet"))

    def print_drawing(self) -> None:
        self._print(self._printed_page("drawing"))

    def _print(self, page: Page) -> None:
        from uncle_sled.desk.kit.printing import choose_printer, page_printer, print_page

        printer = page_printer(page)
        if choose_printer(printer, self):
            print_page(page, printer)
            self.say(f"Sent to the printer: {page.title}.", "note")

    def export(self, kind: str, more: tuple[tuple[str, ...], str] = ((), "")) -> None:
        """Ask where it goes and write it. Args: more: which templates, on what paper."""
        from uncle_sled.exchange.exports import EXPORTS

        ending, what = EXPORTS[kind].ending, EXPORTS[kind].what
        first = suggested(self.session.path, self.session.project.name, kind, ending)
        word, _ = QFileDialog.getSaveFileName(self, what, str(first), f"{ending.upper()} (*.{ending})")
        if word:
            self.export_to(kind, Path(word), more)

    def look(self, kind: str, more: tuple[tuple[str, ...], str] = ((), "")) -> None:
        """The pages of an export to look at, and to print. What takes long is drawn by the helper, with Stop."""
        from uncle_sled.exchange.export import export_pages
        from uncle_sled.exchange.exports import EXPORTS

        session = self.session
        if EXPORTS[kind].heavy and session.worker is not None:
            from uncle_sled.desk.frame.making import Making

            making = Making(session, kind, None, more, self)
            making.said.connect(lambda says, bad: self.say(says, bad))
            making.came.connect(lambda pages: self.show_pages(pages, kind, more))
            making.open()
            return
        try:
            self.show_pages(export_pages(kind, session.project.name, session.studied, session.findings, *more), kind, more)
        except SledError as fault:
            self.say(str(fault), "stop")

    def show_pages(self, pages: tuple[Page, ...], kind: str, more: tuple[tuple[str, ...], str] = ((), "")) -> None:
        from uncle_sled.desk.frame.page_view import PageView

        if not pages:
            self.say("There is no page of it yet.", "stop")
            return
        view = PageView(pages, lambda: self.export(kind, more), self)
        view.said.connect(lambda says, bad: self.say(says, bad))
        view.open()

    def picture(self) -> None:
        """The shown bench as a picture."""
        first = suggested(self.session.path, self.session.project.name, self.session.stop, "png")
        word, _ = QFileDialog.getSaveFileName(self, "Picture of this bench", str(first), "PNG (*.png)")
        if word:
            self.picture_to(Path(word))

    def picture_to(self, path: Path) -> None:
        from PySide6.QtCore import QBuffer, QByteArray, QIODevice

        data = QByteArray()
        buffer = QBuffer(data)
        buffer.open(QIODevice.OpenModeFlag.WriteOnly)
        self.shown_bench().grab().save(buffer, "PNG")
        self.say(*written(path, lambda: bytes(data.data())))

    def export_to(self, kind: str, path: Path, more: tuple[tuple[str, ...], str] = ((), "")) -> None:
        from uncle_sled.exchange.export import export_bytes
        from uncle_sled.exchange.exports import EXPORTS

        if EXPORTS[kind].heavy and self.session.worker is not None:
            from uncle_sled.desk.frame.making import Making

            making = Making(self.session, kind, path, more, self)
            making.said.connect(lambda says, bad: self.say(says, bad))
            making.open()
            return
        session = self.session
        self.say(*written(path, lambda: export_bytes(kind, session.project.name, session.studied, session.findings, *more)))
