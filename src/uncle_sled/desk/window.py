"""The window: it only assembles header, trail, bench, right pane and Sled line, and ties their signals.

Dialogs and pages that are not on the first screen are imported where they are first opened: the start
to the first reading is held to a ratio of a bare window's (benchmarks/start.py).
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtCore import QEvent, QPoint, Qt, QTimer
from PySide6.QtGui import QCloseEvent, QKeyEvent, QResizeEvent
from PySide6.QtWidgets import QApplication, QFrame, QHBoxLayout, QLabel, QMenu, QPushButton, QSizePolicy, QVBoxLayout, QWidget

from uncle_sled.core.document.stow import Thing
from uncle_sled.core.errors import SledError
from uncle_sled.core.findings.finding import Finding, to_settle
from uncle_sled.core.slow import by_name
from uncle_sled.core.trail import TRAIL, stop_of
from uncle_sled.desk.actions import Act, Actions
from uncle_sled.desk.benches.about import About, about, abouts, view_key
from uncle_sled.desk.benches.bench import Bench
from uncle_sled.desk.frame.file_work import FileWork
from uncle_sled.desk.frame.header import Header
from uncle_sled.desk.frame.in_hand import InHand
from uncle_sled.desk.frame.keeper import Keeper
from uncle_sled.desk.frame.says import Says
from uncle_sled.desk.frame.sled_line import SledLine
from uncle_sled.desk.frame.trail_view import Trail
from uncle_sled.desk.kit.dialog import popup_menu
from uncle_sled.desk.kit.dress import dress, wear
from uncle_sled.desk.kit.one_shown import OneShown
from uncle_sled.desk.kit.tab_zone import enter
from uncle_sled.desk.session import Session
from uncle_sled.desk.settings import Settings
from uncle_sled.desk.theme.theme import theme_name
from uncle_sled.exchange.demos import DEMOS
from uncle_sled.exchange.exports import exports_of

if TYPE_CHECKING:
    from uncle_sled.desk.frame.finder import Finder
    from uncle_sled.desk.frame.first_page import FirstPage
    from uncle_sled.desk.frame.tour import Tour


RIGHT_PX, HAND_PX, HAND_EMPTY_PX = 300, 220, 64
QWIDGETSIZE_MAX = 16_777_215  # no greatest height
FIRST_READ_MS = 20  # the frame with the first reading reaches the screen before anything is judged


class Window(FileWork):
    def __init__(self, session: Session, settings: Settings | None = None) -> None:
        super().__init__()
        self.session = session
        self.settings = settings or Settings()
        self.setMinimumSize(760, 560)
        self.acts = Actions(self, self.settings.keys)
        self.keeper = Keeper(session, self)
        self.header = Header(session)
        self.trail = Trail()
        self.stack = OneShown()
        self.benches: dict[str, Bench] = {}
        self.says, self.in_hand = Says(session), InHand(session)
        self.in_hand.leave, self.says.leave = self._from_hand, self._from_says
        self.sled_line = SledLine(session)
        self.tour: Tour | None = None
        self.notice = QLabel(self)
        self.notice.setAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents)
        self.finder: Finder | None = None
        self._assemble()
        dress(self)
        self._notice_timer = QTimer(self)
        self._notice_timer.setSingleShot(True)
        self._notice_timer.timeout.connect(self.notice.hide)
        self._make_actions()
        self.trail.chosen.connect(session.go_to)
        self.header.wants_finder.connect(self.find_anything)
        self.header.wants_menu.connect(lambda at: self.file_menu().popup(at))
        session.stop_changed.connect(self.show_stop)
        self.says.said.connect(self._states)
        self.sled_line.first_read.connect(lambda: QTimer.singleShot(FIRST_READ_MS, self, self._first_read))
        session.said.connect(self.say)
        session.flash.connect(self._flash)
        session.pointed.connect(self.point_at)
        session.file_changed.connect(self._title)
        self.show_stop(session.stop)
        self._title()
        sheet = self.bench(session.stop).sheet
        if sheet is not None:
            sheet.setFocus()

    def _assemble(self) -> None:
        middle = QWidget()
        row = QHBoxLayout(middle)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        self.right = QWidget()
        self.right.setObjectName("rightpane")
        self.right.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.right.setFixedWidth(RIGHT_PX)
        rows = QVBoxLayout(self.right)
        rows.setContentsMargins(0, 0, 0, 0)
        rows.setSpacing(0)
        rows.addWidget(self.says, 0)
        rule = QFrame()
        rule.setObjectName("rule")
        rows.addWidget(rule)
        rows.addWidget(self.in_hand, 1)
        self._right_rows = rows
        self.in_hand.filled.connect(self._share_right)
        self._share_right(something=False)
        self.drawer_button = QPushButton("Uncle says")
        self.drawer_button.clicked.connect(self._drawer)
        self.drawer_button.hide()
        row.addWidget(self.trail)
        row.addWidget(self.stack, 1)
        row.addWidget(self.right)
        whole = QWidget()
        column = QVBoxLayout(whole)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self.header)
        column.addWidget(middle, 1)
        column.addWidget(self.sled_line)
        self.whole = whole
        self._first_page: FirstPage | None = None
        self.pages = OneShown()
        self.pages.addWidget(whole)
        self.setCentralWidget(self.pages)
        self.pages.shown.connect(self.notice.hide)
        self.header.layout().insertWidget(self.header.layout().count() - 2, self.drawer_button)  # type: ignore[union-attr,attr-defined]
        self.notice.setWordWrap(True)
        self.notice.setMargin(8)
        self.notice.setTextFormat(Qt.TextFormat.PlainText)
        self.notice.hide()

    @property
    def first_page(self) -> FirstPage:
        """Made when it is first shown; a build that is opened at once does not wait for it."""
        if self._first_page is None:
            from uncle_sled.desk.frame.first_page import FirstPage

            self._first_page = first = FirstPage()
            first.wants_new.connect(self.new)
            first.wants_open.connect(self.open_file)
            first.wants_file.connect(lambda word: self.open_path(Path(word)))
            first.wants_demo.connect(self.open_demo)
            first.wants_recovered.connect(self.go_on)
            first.throws_away.connect(self.throw_away)
            self.pages.addWidget(first)
        return self._first_page

    # stops
    def bench(self, stop: str) -> Bench:
        """The bench of a stop, made when it is first opened."""
        if stop not in self.benches:
            said = about(stop)
            made: Bench = by_name(said.bench)(self.session, stop)
            self.benches[stop] = made
            self.stack.addWidget(made)
            if made.sheet is not None:
                made.sheet.view_changed.connect(self._align)
                made.sheet.leave = self._from_sheet
        return self.benches[stop]

    def first_views(self) -> None:
        """Another build begins on the first view of every bench."""
        for stop, bench in self.benches.items():
            views = about(stop).views
            if views:
                bench.show_view(views[0].name)

    def show_stop(self, stop: str) -> None:
        bench = self.bench(stop)
        self.stack.setCurrentWidget(bench)
        bench.show_lead()
        self.acts.show_bench(stop)
        self._fold()
        self.sled_line.set_strip(bench.strip or self._small)
        self._states()
        if bench.sheet is not None and self.isVisible():
            bench.sheet.setFocus()
        QTimer.singleShot(0, self, self._align)

    def _align(self) -> None:
        """Hang the bobs straight under the drawing."""
        sheet = self.bench(self.session.stop).sheet
        if sheet is None or not sheet.isVisible():
            self.sled_line.set_axis(None)
            return
        left = sheet.mapTo(self, QPoint(0, 0)).x()
        self.sled_line.set_axis((left + sheet.x0, sheet.scale))

    def _states(self) -> None:
        reading_first = self.session.reading_first  # what each stop stands at is worked out once the first reading is painted
        self.trail.show_states({} if reading_first else {stop: self._state(stop) for stop in TRAIL}, self.session.stop)
        settle = to_settle(self.session.findings)
        self.drawer_button.setText(f"Uncle says {settle}" if settle else "Uncle says")

    def _state(self, stop: str) -> tuple[str, str]:
        found = self.session.findings
        count = to_settle(found, stop)
        if count:
            worst = "stop" if any(f.severity == "stop" and f.stop == stop for f in found) else "mind"
            return f"{count} to settle", worst
        return about(stop).standing(self.session.project, self.session.studied)

    def _first_read(self) -> None:
        """The first reading is on the screen: what is said about it follows, and the helper warms up."""
        self.says.show_working()
        self.session.judge_now()

    def _flash(self, ids: tuple[str, ...]) -> None:
        sheet = self.bench(self.session.stop).sheet
        if sheet is not None:
            sheet.flash(ids)

    def point_at(self, finding: Finding) -> None:
        """Go to the bench and view that can show it, and mark it there until the next click."""
        from uncle_sled.desk.frame.pointing import chosen_of, field_path, marked, on_every_sheet, where_to

        session, path = self.session, field_path(finding.where)
        if path is not None:  # what is missing is shown by the field that it is typed into
            stop, view = where_to(session.studied, tuple(path.split(".")[2:3]), stop_of([path]) or finding.stop)
        else:
            stop, view = where_to(session.studied, finding.where, finding.stop)
        if finding.case_id is not None:
            session.show_case(finding.case_id)
        sheet = self.bench(session.stop).sheet
        if path is None and sheet is not None and sheet.isVisible() and on_every_sheet(session.build, finding.where):
            stop, view = session.stop, ""
        session.go_to(stop)
        bench = self.bench(stop)
        if view:
            bench.show_view(view)
        session.select(chosen_of(session.build, finding.where))
        if bench.sheet is not None:
            bench.sheet.point(marked(session.build, finding.where))
        field = bench.field_of(path) if path is not None else None
        if field is not None:
            field.setFocus(Qt.FocusReason.OtherFocusReason)

    # words to the user
    def say(self, text: str, severity: str) -> None:
        """A line over the bench that goes by itself; what went wrong stays longer."""
        self.notice.setProperty("notice", "stop" if severity == "stop" else "note")
        self.notice.style().unpolish(self.notice)
        self.notice.style().polish(self.notice)
        self.notice.setText(self.session.told(text))
        self.notice.setFixedWidth(min(560, self.stack.width() - 40))
        self.notice.adjustSize()
        # at the foot of the bench, over no tab or button, and a click goes through it
        corner = self.stack.mapTo(self, QPoint(0, self.stack.height()))
        left = corner.x() + (self.stack.width() - self.notice.width()) // 2
        self.notice.move(left, corner.y() - self.notice.height() - 10)
        self.notice.show()
        self.notice.raise_()
        self._notice_timer.start(9000 if severity == "stop" else 3500)

    def _title(self) -> None:
        self.setWindowTitle(f"{self.session.project.name} · Uncle Sled")

    # actions
    def _make_actions(self) -> None:
        s = self.session
        for act in (
            Act("new", "New build…", "File", "Ctrl+N", self.new),
            Act("open", "Open a build…", "File", "Ctrl+O", self.open_file),
            Act("save", "Save", "File", "Ctrl+S", self.save),
            Act("save-as", "Save as…", "File", "Ctrl+Shift+S", self.save_as),
            Act("list", "Bring in a list of weights…", "File", "", self.bring_list),
            Act("take-over", "Take over from another build…", "File", "", self.take_over),
            Act("sheet-pdf", "Balance sheet as PDF…", "File", "", lambda: self.export("pdf")),
            Act("sheet-svg", "Balance sheet as SVG…", "File", "", lambda: self.export("svg")),
            Act("masses-csv", "All masses as CSV…", "File", "", lambda: self.export("csv")),
            Act("picture", "Picture of this bench as PNG…", "File", "", self.picture),
            Act("all-exports", "All exports, and what each is for…", "File", "Ctrl+E", self.all_exports),
            Act("print-sheet", "Print the balance sheet…", "File", "Ctrl+P", self.print_sheet),
            Act("print-drawing", "Print the drawing to scale…", "File", "", self.print_drawing),
            Act("first-page", "Close this build", "File", "Ctrl+W", self.close_build),
            Act("quit", "Quit", "File", "Ctrl+Q", self.close),
            Act("undo", "Undo", "Change", "Ctrl+Z", s.undo),
            Act("redo", "Do again", "Change", "Ctrl+Shift+Z, Ctrl+Y", s.redo),
            Act("keep", "Keep what is tried", "Change", "Ctrl+Return, Ctrl+Enter", s.keep),
            Act("put-back", "Put back what is tried", "Change", "Escape", self.escape),
            Act("try-worst", "Try what helps the worst", "Change", "Ctrl+T", self.try_worst),
            Act("keep-variant", "Keep as a variant…", "Change", "", self.keep_variant),
            Act("side-by-side", "Variants side by side…", "View", "", self.side_by_side),
            Act("case-next", "Next load case", "View", "]", lambda: s.step_case(1)),
            Act("case-before", "Load case before", "View", "[", lambda: s.step_case(-1)),
            Act("first-walk", "A first walk", "View", "", self.first_walk),
            Act("fit", "Show all of the drawing", "View", "F", self.fit, ",".join(a.stop for a in abouts() if a.drawn)),
            Act("theme", "Night shop or day", "View", "Ctrl+Shift+L", self.other_theme),
            Act("find", "Find anything", "View", "Ctrl+F", self.find_anything),
            Act("to-hand", "Go to In hand", "View", "F6", lambda: self._to(self.in_hand)),
            Act("to-uncle", "Go to what Uncle says first", "View", "F7", lambda: self._to(self.says)),
            Act("guide", "Guide to this stop", "View", "Shift+F1", self.guide),
            Act("shop-mode", "Shop mode: the answer in large type", "View", "F8", self.shop_mode),
            Act("keys", "Keys of this bench", "View", "F1", self.keys),
            Act("settings", "Settings…", "View", "Ctrl+,", self.show_settings),
            *(act for at, said in enumerate(abouts(), 1) for act in self._acts_of(said, at)),
            *(
                Act(f"demo-{name}", f"Open the demo {name.replace('-', ' ').title()}", "File", "", partial(self.open_demo, name))
                for name in DEMOS
            ),
        ):
            self.acts.add(act)

    def _acts_of(self, said: About, number: int) -> Iterator[Act]:
        """What a stop brings: going there, its views on the keys 1, 2, 3, its deeds, its files."""
        stop = said.stop
        yield Act(f"stop-{stop.lower()}", f"Go to {stop}", "Trail", f"Ctrl+{number}", partial(self.session.go_to, stop))
        for at, view in enumerate(said.views, 1):
            show = partial(self._show_view, stop, view.name)
            yield Act(f"{stop.lower()}-{view.name.lower()}", f"Show {view.words}", stop, view_key(at), show, stop)
        for deed in said.deeds:
            yield Act(deed.id, deed.title, stop, deed.key, partial(self._do, stop, deed.run), stop)
        for export in exports_of(stop):
            yield Act(f"write-{export.kind}", export.title, "File", "", partial(self.export, export.kind))
            if export.ending == "pdf":
                yield Act(f"look-{export.kind}", f"Look at: {export.paper}…", "File", "", partial(self.look, export.kind))

    def _show_view(self, stop: str, view: str) -> None:
        self.session.go_to(stop)  # the finder asks for it from anywhere
        self.bench(stop).show_view(view)

    def _do(self, stop: str, run: Callable[[Bench], object]) -> None:
        self.session.go_to(stop)
        run(self.bench(stop))

    def fit(self) -> None:
        sheet = self.bench(self.session.stop).sheet
        if sheet is not None:
            sheet.fit()

    def file_menu(self) -> QMenu:
        menu = popup_menu(self)

        def put(into: QMenu, *ids: str) -> None:
            for id in ids:
                if id:
                    into.addAction(self.acts.qt[id])
                else:
                    into.addSeparator()

        put(menu, "new", "open")
        recent = menu.addMenu("Recent")
        there = [Path(word) for word in self.settings.recent if Path(word).exists()]
        for path in there:
            recent.addAction(f"{path.name}   {path.parent}").triggered.connect(lambda _=False, path=path: self.open_asked(path))
        recent.setEnabled(bool(there))
        put(menu, "save", "save-as", "", "list", "take-over", "")
        export = menu.addMenu("Export")
        put(export, "all-exports", "picture", "", "sheet-pdf", "sheet-svg", "masses-csv")
        for said in abouts():
            written = exports_of(said.stop)
            if written:
                put(export, "", *(f"write-{export.kind}" for export in written))
        pages = menu.addMenu("Look at pages and print")
        for said in abouts():
            papers = [export for export in exports_of(said.stop) if export.ending == "pdf"]
            if papers:
                pages.addSection(said.stop)
                put(pages, *(f"look-{export.kind}" for export in papers))
        put(menu, "print-sheet", "print-drawing", "")
        put(menu.addMenu("Demos"), *(f"demo-{name}" for name in DEMOS))
        put(menu, "", "settings", "guide", "shop-mode", "keys", "theme", "", "first-page", "quit")
        return menu

    def keep_variant(self) -> None:
        from uncle_sled.desk.frame.variants_view import ask_keep

        ask_keep(self.session, self)

    def side_by_side(self) -> None:
        from uncle_sled.desk.frame.variants_view import SideBySide

        SideBySide(self.session, self).open()

    def escape(self) -> None:
        if self.session.ghost is not None:
            self.session.put_back()
        else:
            self.session.select(())

    def try_worst(self) -> None:
        finding = self.says.worst()
        if finding is not None:
            self.says._try(finding)
        else:
            self.session.said.emit("Nothing to try just now.", "note")

    def _to(self, panel: QWidget) -> None:
        """The keyboard to the first field or button of a panel that can take it."""
        if not self.right.isVisible():
            self._drawer()
        if enter(panel):
            return
        self.say("There is nothing in it to go to yet: click a thing first.", "note")

    # Tab: from the drawing to what is in hand, from there to Uncle's cards, and back the same way
    def _from_sheet(self, forward: bool) -> bool:
        return forward and bool(self.session.selection) and self.right.isVisible() and enter(self.in_hand)

    def _from_hand(self, forward: bool) -> bool:
        if forward:
            return enter(self.says)
        sheet = self.bench(self.session.stop).sheet
        if sheet is None or not sheet.isVisible():
            return False
        sheet.setFocus(Qt.FocusReason.BacktabFocusReason)
        return True

    def _from_says(self, forward: bool) -> bool:
        return not forward and enter(self.in_hand, forward=False)

    def _add_thing(self, thing: Thing) -> None:
        """A thing of the catalogue on the bench that takes them."""
        stop = next(said.stop for said in abouts() if said.takes_things)
        self.session.go_to(stop)
        self.bench(stop).add(thing)  # type: ignore[attr-defined]

    def _share_right(self, something: bool) -> None:
        """Nothing in hand gives its room to Uncle."""
        self.in_hand.setMinimumHeight(HAND_PX if something else 0)
        self.in_hand.setMaximumHeight(QWIDGETSIZE_MAX if something else HAND_EMPTY_PX)
        self.says.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Maximum if something else QSizePolicy.Policy.Expanding)
        self._right_rows.setStretch(0, 0 if something else 1)

    def first_walk(self) -> None:
        """Six cards over the build that is open."""
        if self.tour is not None or self.pages.currentWidget() is not self.whole:
            return
        from uncle_sled.desk.frame.tour import Step, Tour

        self.tour = Tour(
            self,
            (
                Step(
                    "Nine stops",
                    "From what you want to the road. Each mark says how it stands: a ring is still open, a square must be settled.",
                    lambda: self.trail,
                ),
                Step(
                    "The drawing",
                    "Everything has its true size. Drag a thing, a wheel or a wall; click a measure and type it.",
                    lambda: self.stack,
                ),
                Step(
                    "The reading",
                    "What is on the ball follows every hand, in every case; the green is where it should be.",
                    lambda: self.sled_line,
                ),
                Step(
                    "Uncle says",
                    "What is wrong, what of it is of this stop, and what helps. Try it shows it as a ghost; nothing changes until you keep it.",
                    lambda: self.says,
                ),
                Step(
                    "In hand", "What you click is here with all its figures; a number in another unit may be typed.", lambda: self.in_hand
                ),
                Step(
                    "Find anything",
                    "Type what you look for in your own words: a heater, the scale, feet. Shift+F1 opens the guide at this place.",
                    lambda: self.header.finder,
                ),
            ),
        )
        self.tour.left.connect(self._walked)

    def _walked(self) -> None:
        self.tour = None
        if self.settings.get("walk") != "done":
            try:
                self.settings.set("walk", "done")
            except SledError as fault:
                self.say(str(fault), "stop")

    def _make_own(self, name: str) -> None:
        stop = next(said.stop for said in abouts() if said.takes_things)
        self.session.go_to(stop)
        self.bench(stop).make_own(name)  # type: ignore[attr-defined]

    def find_anything(self) -> None:
        from uncle_sled.desk.frame.finder import Finder

        if self.finder is not None:
            self.finder.deleteLater()
        self.finder = Finder(self.session, self.acts, self, self._add_thing, self._make_own)
        at = self.header.finder.mapToGlobal(QPoint(self.header.finder.width(), self.header.finder.height() + 2))
        self.finder.move(at.x() - self.finder.width(), at.y())
        self.finder.show()
        self.finder.line.setFocus()

    def other_theme(self) -> None:
        name = "dark" if theme_name() == "light" else "light"
        try:
            self.settings.set("theme", name)
        except SledError as fault:
            self.say(str(fault), "stop")
        self.setting_changed("theme", name)

    def setting_changed(self, key: str, value: str) -> None:
        app = QApplication.instance()
        if key == "theme" and isinstance(app, QApplication):
            wear(app, value)
            for widget in app.allWidgets():
                widget.update()

    def shown_bench(self) -> QWidget:
        return self.bench(self.session.stop)

    def guide(self) -> None:
        from uncle_sled.desk.frame.guide import Guide

        Guide(self.session.stop, self).open()

    def shop_mode(self) -> None:
        from uncle_sled.desk.frame.shop_screen import ShopScreen

        ShopScreen(self.session, self).open()

    def all_exports(self) -> None:
        from uncle_sled.desk.frame.all_exports import AllExports

        AllExports(self.export, self).open()

    def keys(self) -> None:
        from uncle_sled.desk.frame.dialogs import Keys

        Keys(self.acts, self.settings, self.session.stop, self).open()

    def show_settings(self) -> None:
        from uncle_sled.desk.frame.dialogs import SettingsDialog

        SettingsDialog(self.settings, self.setting_changed, self).open()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.escape()
        else:
            super().keyPressEvent(event)

    # size
    _small = False

    def _fold(self) -> None:
        self._small = self.width() < 1100 or self.height() < 700
        self.trail.fold(self._small)
        self.right.setVisible(not self._small)
        self.drawer_button.setVisible(self._small)

    def _drawer(self) -> None:
        self.right.setVisible(not self.right.isVisible())

    def resizeEvent(self, _event: QResizeEvent) -> None:
        before = self._small
        self._small = self.width() < 1100 or self.height() < 700
        if before != self._small:
            self._fold()
            self.sled_line.set_strip(self.bench(self.session.stop).strip or self._small)
        self.header.case_button.setFixedWidth(min(360, max(200, self.width() // 3 - 60)))
        self.header.refresh()
        QTimer.singleShot(0, self, self._align)

    def changeEvent(self, event: QEvent) -> None:
        """What is in a hand is put down where another window comes before this one: its release may never arrive."""
        if event.type() == QEvent.Type.ActivationChange and not self.isActiveWindow():
            self.session.let_go()
        super().changeEvent(event)

    def closeEvent(self, event: QCloseEvent) -> None:
        if self.may_leave():
            self.keeper.close()
            if self.session.worker is not None:
                self.session.worker.stop()
            event.accept()
        else:
            event.ignore()
