"""Templates in the window, files made by the helper, the guide, shop mode, all exports, a bench as a picture; sources and manual."""

from __future__ import annotations

import re
from pathlib import Path

import pytest
from PySide6.QtCore import Qt, QUrl
from PySide6.QtGui import QImage, QTextDocument
from PySide6.QtWidgets import QApplication, QDialog

from tests.desk.driving import button_on, charts_on, enter, in_place, key, named, told
from tests.desk.walk import faults_of
from uncle_sled.cli import _parser, main
from uncle_sled.core.document.edits import set_to
from uncle_sled.core.document.project import empty_project
from uncle_sled.core.findings.all_findings import PLACES, RULES, findings
from uncle_sled.core.findings.sources import source_of, why_of
from uncle_sled.core.trail import TRAIL
from uncle_sled.desk.frame.all_exports import AllExports
from uncle_sled.desk.frame.guide import Guide, parts
from uncle_sled.desk.frame.making import Making
from uncle_sled.desk.frame.shop_screen import BUTTON_PX, ShopScreen
from uncle_sled.desk.kit.fields import ChoiceField
from uncle_sled.exchange.demos import demo
from uncle_sled.exchange.exports import EXPORTS
from uncle_sled.exchange.man_page import man_page

ROOT = Path(__file__).parents[2]


def opened(open_on, name="marsh-heron", **size):
    window = open_on(demo(name), judged=False, **size)
    window.session.go_to("Cut")
    bench = window.bench("Cut")
    bench.show_view("Templates")
    window.grab()
    return window, window.session, bench.panel("Templates")


def test_templates_are_listed_mapped_and_signed_off_by_the_bar(open_on) -> None:
    window, session, panel = opened(open_on)
    assert len(panel.table.rows) > 10 and panel.chosen().id == "side/left side"
    assert charts_on(panel)[0].make(400.0, 300.0) and "nobody measured" in told(panel)
    enter(panel.bar, "98.7 mm")
    assert session.build.cut.bar_measured.si == pytest.approx(0.0987) and "Not signed off" in told(panel)
    enter(panel.bar, "100.1 mm")
    assert "signed off" in told(panel) and "Not" not in told(panel)
    many = panel.many(panel.chosen())
    named(panel, ChoiceField, "Paper").entered.emit("A3")
    assert panel.paper == "A3" and panel.many(panel.chosen()) < many
    panel.table.selectRow(2)
    assert panel.chosen().kind == "inner" and faults_of(window) == []
    session.undo()
    session.undo()
    assert session.build.cut.bar_measured is None


def test_the_set_is_written_down_and_undone(open_on) -> None:
    _window, session, panel = opened(open_on)
    before = session.project
    button_on(panel, "It is printed").click()
    assert session.build.cut.revision == 1 and len(session.build.cut.printed) > 10
    assert "revision B" in told(panel)
    session.undo()
    assert session.project == before


def test_files_are_written_from_the_panel_and_bad_places_are_said(open_on, tmp_path, monkeypatch) -> None:
    window, _session, panel = opened(open_on)
    said = []
    window.say = lambda text, bad: said.append((text, bad))
    window.export_to("templates-pdf", tmp_path / "one.pdf", (("inner/side",), "A3"))
    assert (tmp_path / "one.pdf").read_bytes().startswith(b"%PDF") and said[-1][1] == "note"
    window.export_to("templates-pdf", tmp_path, (("inner/side",), "A3"))
    assert "is a folder" in said[-1][0] and said[-1][1] == "stop"
    window.export_to("set-pdf", tmp_path / "no" / "such" / "set.pdf")
    assert said[-1][1] == "stop" and "could not be written" in said[-1][0]
    asked = []
    monkeypatch.setattr(type(window), "export", lambda self, kind, more=((), ""): asked.append((kind, more)))
    button_on(panel, "This one as PDF…").click()
    button_on(panel, "All as PDF…").click()
    button_on(panel, "Drawing set…").click()
    assert asked == [("templates-pdf", (("side/left side",), "A4")), ("templates-pdf", ((), "A4")), ("set-pdf", ((), "A4"))]


def test_a_heavy_file_is_made_by_the_helper_and_can_be_stopped(open_on, qtbot, tmp_path) -> None:
    from uncle_sled.desk.worker import Worker

    worker = Worker()
    try:
        window = open_on(demo("dark-sky"), judged=False, worker=worker)
        path = tmp_path / "set.pdf"
        making = Making(window.session, "set-pdf", path, ((), ""), window)
        said = []
        making.said.connect(lambda text, bad: said.append((text, bad)))
        making.open()
        qtbot.waitUntil(lambda: bool(said), timeout=60_000)
        assert said[0][1] == "note" and path.read_bytes().startswith(b"%PDF")
        other = Making(window.session, "templates-pdf", tmp_path / "never.pdf", ((), "A4"), window)
        other.open()
        other.stop_button.click()
        QApplication.processEvents()
        assert not (tmp_path / "never.pdf").exists()
    finally:
        worker.stop()


def test_an_empty_build_has_no_templates_and_says_what_makes_one(open_on) -> None:
    window = open_on(empty_project(), judged=False)
    window.session.go_to("Cut")
    window.bench("Cut").show_view("Templates")
    panel = window.bench("Cut").panel("Templates")
    assert panel.chosen() is None and "No template yet" in in_place(panel) and not button_on(panel, "This one as PDF…").isEnabled()
    assert faults_of(window) == []


@pytest.mark.parametrize("size", [(1280, 800), (1100, 700)])
def test_the_view_is_clean_in_feet_too(open_on, size) -> None:
    window, session, _panel = opened(open_on, "orchard-keeper", size=size)
    assert faults_of(window) == []
    session.edit("Metres", [set_to("brief.reading", {"length": "mm", "mass": "kg", "volume": "L"})], "Brief")
    for _ in range(4):
        QApplication.processEvents()
    assert faults_of(window) == []


# guide, shop mode, exports, picture
def test_the_guide_opens_at_its_stop_and_is_the_one_of_the_docs(open_on) -> None:
    assert (ROOT / "docs/guide.md").read_text() == (ROOT / "src/uncle_sled/guide/guide.md").read_text()
    made = parts()
    for stop in TRAIL:
        assert any(name.lower().startswith(stop.lower()) for name in made), stop
    window = open_on(demo("marsh-heron"), judged=False)
    for stop in TRAIL:
        dialog = Guide(stop, window)
        assert dialog.list.currentItem().text().lower().startswith(stop.lower())
        assert len(dialog.text.toPlainText()) > 200
        picture = re.search(r"!\[[^]]*\]\(([^)]+)\)", list(dialog.parts.values())[dialog.list.currentRow()])
        assert picture is not None and (ROOT / "docs" / picture[1]).exists()
        shown = dialog.text.loadResource(QTextDocument.ResourceType.ImageResource, QUrl(picture[1]))
        assert not QImage.fromData(shown).isNull(), stop
    dialog.list.setCurrentRow(1)
    assert "first build" in dialog.list.currentItem().text().lower() and "Find struts" in dialog.text.toPlainText()


def test_shop_mode_shows_every_stop_in_large_type_with_large_targets(open_on) -> None:
    window = open_on(demo("marsh-heron"), judged=False)
    window.session.go_to("Balance")
    screen = ShopScreen(window.session, window)
    screen.show()
    seen = []
    for _ in TRAIL:
        seen.append(screen.stop)
        screen.grab()
        assert screen.card.written
        screen.buttons[2].click()
    assert sorted(seen) == sorted(TRAIL) and seen[0] == "Balance" == screen.stop
    assert all(button.height() >= BUTTON_PX for button in screen.buttons)
    screen.buttons[0].click()
    assert screen.stop == TRAIL[TRAIL.index("Balance") - 1]
    screen.buttons[1].click()
    assert not screen.isVisible()


def test_every_export_is_in_one_list_with_what_it_is_for(open_on) -> None:
    window = open_on(demo("marsh-heron"), judged=False)
    asked = []
    dialog = AllExports(asked.append, window)
    assert dialog.model.rows == tuple(EXPORTS)
    assert all(column.text(kind) for kind in dialog.model.rows for column in dialog.model.columns)
    dialog.table.selectRow(list(EXPORTS).index("stl"))
    dialog.write_button.click()
    assert asked == ["stl"]
    for id in ("guide", "shop-mode", "all-exports"):
        window.acts.qt[id].trigger()
    QApplication.processEvents()
    assert {type(d) for d in window.findChildren(QDialog)} >= {Guide, ShopScreen, AllExports}
    for dialog in window.findChildren(QDialog):
        dialog.close()


def test_a_bench_is_written_as_a_picture(open_on, tmp_path) -> None:
    window = open_on(demo("marsh-heron"), judged=False)
    window.session.go_to("Stow")
    path = tmp_path / "stow.png"
    window.picture_to(path)
    image = QImage(str(path))
    bench = window.bench("Stow")
    assert (image.width(), image.height()) == (bench.width(), bench.height())
    said = []
    window.say = lambda text, bad: said.append(bad)
    window.picture_to(tmp_path)
    assert said == ["stop"]


# words
def test_every_rule_names_its_source() -> None:
    assert all(len(place.SOURCE) > 15 for place in PLACES)
    for code in RULES:
        assert source_of(code)
    with pytest.raises(KeyError):
        source_of("no-such-code")
    project = demo("marsh-heron")
    from uncle_sled.core.reading.studied import study

    for one in findings(study(project.build, project.facts)):
        assert why_of(one).startswith(one.why) and "Source: " in why_of(one)


def test_why_on_a_card_says_the_source(open_on) -> None:
    window = open_on(demo("marsh-heron"), judged=False)
    card = next(iter(window.says.cards.values()))
    card.why_button.click()
    assert "Source: " in card.why.text()


def test_the_manual_page_is_that_of_the_command_line(capsys) -> None:
    written = (ROOT / "docs/uncle-sled.1").read_text()
    assert man_page(_parser()) == written
    assert main(["man"]) == 0 and capsys.readouterr().out == written
    for verb in ("open", "demo", "report", "check", "export", "cut", "codes", "shots"):
        assert f".SS {verb}" in written
    assert all(kind in written.replace("\\", "") for kind in EXPORTS)


def test_pages_are_looked_at_one_by_one_and_all_of_them_go_to_the_printer(open_on, qapp, tmp_path, monkeypatch) -> None:
    """From the menu to the paper: the frame's pages, on with the arrow key, and as many on the print as there are, each at its size."""
    from pypdf import PdfReader

    from uncle_sled.desk.frame.page_view import PageView
    from uncle_sled.desk.kit import printing

    window = open_on(demo("marsh-heron"), judged=False)
    window.acts.qt["look-frame-pdf"].trigger()
    (view,) = window.findChildren(PageView)
    assert view.told.text() == f"1 of {len(view.pages)}: Marsh Heron: frame" and not view.back.isEnabled()
    for _ in range(len(view.pages) + 2):
        key(view, Qt.Key.Key_Right)
    assert view.at == len(view.pages) - 1 and not view.on.isEnabled()
    assert view.sheet.accessibleName() == view.pages[-1].title
    assert not view.grab().isNull()

    def to_a_file(printer, _parent) -> bool:
        printer.setOutputFormat(printer.OutputFormat.PdfFormat)
        printer.setOutputFileName(str(tmp_path / "print.pdf"))
        return True

    monkeypatch.setattr(printing, "choose_printer", to_a_file)
    said = []
    view.said.connect(lambda words, bad: said.append((words, bad)))
    view.all.click()
    printed = PdfReader(tmp_path / "print.pdf")
    assert len(printed.pages) == len(view.pages) and said == [(f"Sent to the printer: {len(view.pages)} pages.", "note")]
    for page, made in zip(view.pages, printed.pages, strict=True):
        assert float(made.mediabox.width) == pytest.approx(page.width, abs=2) and float(made.mediabox.height) == pytest.approx(
            page.height, abs=2
        )
    view.close()


def test_what_has_no_pages_yet_says_what_is_wanted_and_opens_nothing(open_on) -> None:
    from uncle_sled.desk.frame.page_view import PageView

    window = open_on(empty_project(), judged=False)
    for kind, words in (("frame-pdf", "no frame to weld"), ("templates-pdf", "nothing to make a template of"), ("buy-pdf", "")):
        window.look(kind)
        assert not window.findChildren(PageView)
        assert words in window.notice.text() or words in " ".join(label.text() for label in window.findChildren(type(window.notice)))


def test_the_builders_paper_is_chosen_on_brief_and_undone(open_on) -> None:
    from uncle_sled.core.drawing.paper import paper_of

    window = open_on(demo("marsh-heron"), judged=False)
    session = window.session
    session.go_to("Brief")
    session.edit("Paper", [set_to("brief.paper", "Tabloid")], "Brief")
    assert paper_of(session.build).name == "Tabloid"
    session.undo()
    assert paper_of(session.build).name == "A4"
