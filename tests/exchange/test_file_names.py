"""Names that a file may have: whatever a build is called, what is suggested can be written, beside its own file."""

from __future__ import annotations

from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from msgspec.structs import replace

from uncle_sled.core.errors import FileError
from uncle_sled.exchange.demos import demo
from uncle_sled.exchange.export import write_file
from uncle_sled.exchange.exports import EXPORTS
from uncle_sled.exchange.file_names import MOST_BYTES, file_stem, suggested


@pytest.mark.parametrize(
    ("name", "stem"),
    [
        ("Marsh Heron", "marsh-heron"),
        ("2/3 of a sled", "2-3-of-a-sled"),
        ("/etc/passwd", "etc-passwd"),
        ("..", "build"),
        ("", "build"),
        ("   ", "build"),
        ("a\\b:c*d?", "a-b-c-d"),
        ("Häuschen №2", "häuschen-2"),
        ("v1.2 (final)", "v1.2-final"),
        ("new\nline\ttab", "new-line-tab"),
        (".hidden", "hidden"),
        ("trailing.", "trailing"),
    ],
)
def test_stems_by_hand(name, stem) -> None:
    assert file_stem(name) == stem


@given(st.text(max_size=400))
@settings(max_examples=150, deadline=None)
def test_any_name_makes_one_file_in_its_folder(name) -> None:
    stem = file_stem(name)
    assert stem and len(stem.encode()) <= MOST_BYTES and Path(stem).name == stem
    assert not stem.startswith((".", "-")) and "\0" not in stem
    path = suggested(None, name, "templates-pdf", "pdf")
    assert path.parent == Path.home() and path.suffix == ".pdf"


def test_a_file_is_called_by_what_is_in_it_and_no_two_kinds_alike(tmp_path) -> None:
    own = tmp_path / "my build.sled"
    assert suggested(own, "x", "templates-pdf", "pdf") == tmp_path / "my build-templates.pdf"
    assert suggested(own, "x", "pdf", "pdf") == tmp_path / "my build.pdf"
    assert suggested(own, "x", "axle-order", "pdf") == tmp_path / "my build-axle-order.pdf"
    assert suggested(own, "x", "Stow", "png") == tmp_path / "my build-stow.png"
    names = [suggested(own, "x", kind, one.ending) for kind, one in EXPORTS.items()]
    assert len(set(names)) == len(names)


def test_a_name_that_was_long_or_strange_can_be_written(tmp_path) -> None:
    for name in ("長い" * 90, "a" * 300, "x/" * 60):
        path = tmp_path / suggested(None, name, "framing-pdf", "pdf").name
        write_file(path, b"%PDF-")
        assert path.read_bytes() == b"%PDF-"


def test_the_window_asks_under_the_suggested_name(open_on, monkeypatch, tmp_path) -> None:
    from PySide6.QtWidgets import QFileDialog

    asked = []
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *said: asked.append(Path(said[2])) or ("", ""))
    window = open_on(replace(demo("marsh-heron"), name="Heron / 2nd: wider"), judged=False)
    window.export("framing-pdf")
    window.export("card-pdf")
    window.picture()
    window.save_as()
    assert [path.name for path in asked] == [
        "heron-2nd-wider-framing.pdf",
        "heron-2nd-wider-card.pdf",
        f"heron-2nd-wider-{window.session.stop.lower()}.png",
        "heron-2nd-wider.sled",
    ]


def test_a_place_that_cannot_be_written_is_named(tmp_path) -> None:
    with pytest.raises(FileError, match="is a folder"):
        write_file(tmp_path, b"x")
    with pytest.raises(FileError, match="could not be written"):
        write_file(tmp_path / "none" / "x.pdf", b"x")
    (tmp_path / "file").write_text("x")
    with pytest.raises(FileError):
        write_file(tmp_path / "file" / "x.pdf", b"x")
    assert (tmp_path / "file").read_text() == "x"
