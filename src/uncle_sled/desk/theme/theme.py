"""The theme in force: colours by name, the shipped fonts, the style sheet."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from functools import lru_cache
from pathlib import Path

from PySide6.QtGui import QColor, QFont, QFontDatabase, QPalette
from PySide6.QtWidgets import QApplication

from uncle_sled.core.drawing.inks import THEMES, mixed
from uncle_sled.shipped import shipped

TEXT_FAMILY, HEAD_FAMILY = "IBM Plex Sans Condensed", "Barlow Semi Condensed SemiBold"
SMALL, BODY, HEAD = 12, 13, 17

_now = {"name": "light"}


def load_fonts() -> None:
    """Register the shipped fonts with Qt."""
    for file in ("IBMPlexSansCondensed-Regular.ttf", "IBMPlexSansCondensed-SemiBold.ttf", "BarlowSemiCondensed-SemiBold.ttf"):
        QFontDatabase.addApplicationFontFromData(shipped(f"fonts/{file}"))


@lru_cache(maxsize=64)
def font(size: float, face: str = "text") -> QFont:
    """A shipped font at a size in pixels: text, strong or head."""
    made = QFont(HEAD_FAMILY if face == "head" else TEXT_FAMILY)
    made.setPixelSize(round(size))
    if face == "strong":
        made.setWeight(QFont.Weight.DemiBold)
    if face == "head":
        made.setWeight(QFont.Weight.DemiBold)
        made.setFeature(QFont.Tag("tnum"), 1)
    return made


def theme_name() -> str:
    return _now["name"]


@contextmanager
def paper_colours() -> Iterator[None]:
    """The light table for as long as something is printed."""
    before, _now["name"] = _now["name"], "light"
    try:
        yield
    finally:
        _now["name"] = before


def hex_of(name: str, tint: float = 1.0, ground: str = "paper") -> str:
    inks = THEMES[_now["name"]]
    return inks[name] if tint >= 1 else mixed(inks[name], inks[ground], tint)


@lru_cache(maxsize=512)
def _colour(_theme: str, name: str, tint: float, ground: str) -> QColor:
    return QColor(hex_of(name, tint, ground))


def colour(name: str, tint: float = 1.0, ground: str = "paper") -> QColor:
    return _colour(_now["name"], name, tint, ground)


def use_theme(app: QApplication, name: str) -> None:
    """Put the colours and the letters of a theme in force; who wears its sheet changes it by ``kit/dress``."""
    _now["name"] = name
    if app.font() != font(BODY):  # it is laid on every widget anew
        app.setFont(font(BODY))
    palette = QPalette()
    roles = {
        QPalette.ColorRole.Window: "kraft",
        QPalette.ColorRole.WindowText: "ink",
        QPalette.ColorRole.Base: "field",
        QPalette.ColorRole.Text: "ink",
        QPalette.ColorRole.Button: "paper",
        QPalette.ColorRole.ButtonText: "ink",
        QPalette.ColorRole.Highlight: "chalk",
        QPalette.ColorRole.HighlightedText: "on chalk",
        QPalette.ColorRole.ToolTipBase: "paper",
        QPalette.ColorRole.ToolTipText: "ink",
        QPalette.ColorRole.PlaceholderText: "pencil",
        QPalette.ColorRole.AlternateBase: "kraft",
    }
    for role, ink in roles.items():
        palette.setColor(role, colour(ink))
    app.setPalette(palette)


def style_sheet() -> str:
    """Set on the application it restyles every widget several times over: ``kit/dress`` says who wears it."""
    c = hex_of
    arrow = Path(__file__).with_name(f"arrow-{_now['name']}.svg").as_posix()
    tick = Path(__file__).with_name(f"tick-{_now['name']}.svg").as_posix()
    return f"""
    QWidget {{ color: {c("ink")}; font-family: "{TEXT_FAMILY}"; font-size: {BODY}px; }}
    QMainWindow, QDialog {{ background: {c("kraft")}; }}
    QToolTip {{ background: {c("paper")}; color: {c("ink")}; border: 1px solid {c("rule")}; padding: 4px; }}
    QLabel[ink="pencil"] {{ color: {c("pencil")}; }}
    QLabel[ink="primer"] {{ color: {c("primer")}; }}
    QLabel[ink="ochre word"] {{ color: {c("ochre word")}; }}
    QLabel[ink="spruce"] {{ color: {c("spruce")}; }}
    QLabel[face="head"] {{ font-family: "{HEAD_FAMILY}"; font-weight: 600; font-size: {HEAD}px; }}
    QLabel[face="title"] {{ font-family: "{HEAD_FAMILY}"; font-weight: 600; font-size: 15px; }}
    QLabel[face="strong"] {{ font-weight: 600; }}
    QLabel[notice="stop"] {{ background: {c("primer wash")}; color: {c("ink")}; border: 1px solid {c("primer")}; border-radius: 4px; }}
    QLabel[notice="note"] {{ background: {c("spruce wash")}; color: {c("ink")}; border: 1px solid {c("spruce")}; border-radius: 4px; }}
    QLabel[face="small"] {{ font-size: {SMALL}px; }}
    QPushButton, QToolButton {{ background: {c("paper")}; border: 1px solid {c("rule")}; border-radius: 4px; padding: 3px 9px; min-height: 20px; }}
    QPushButton[kind="view"], QPushButton[kind="tight"] {{ padding: 3px 6px; }}
    QPushButton[kind="view"]:focus, QPushButton[kind="tight"]:focus {{ padding: 2px 5px; }}
    QPushButton[kind="close"] {{ padding: 3px 3px; }}
    QPushButton[kind="close"]:focus {{ padding: 2px 2px; }}
    QPushButton:hover, QToolButton:hover {{ border-color: {c("field edge")}; }}
    QPushButton:focus, QToolButton:focus {{ border: 2px solid {c("chalk")}; padding: 2px 8px; }}
    QPushButton:checked, QToolButton:checked, QPushButton[kind="main"] {{ background: {c("chalk")}; color: {c("on chalk")}; border-color: {c("chalk")}; font-weight: 600; }}
    QPushButton[kind="main"]:focus, QPushButton:checked:focus {{ border: 2px solid {c("ink")}; }}
    QPushButton:disabled {{ color: {c("pencil")}; }}
    QPushButton[kind="main"]:disabled {{ background: {c("rule")}; border-color: {c("rule")}; color: {c("ink")}; }}
    QHeaderView::section {{ background: {c("kraft deep")}; color: {c("ink")}; border: none; border-right: 1px solid {c("rule")}; padding: 4px 6px; font-weight: 600; }}
    QTableView QTableCornerButton::section {{ background: {c("kraft deep")}; border: none; }}
    QHeaderView::up-arrow, QHeaderView::down-arrow {{ width: 9px; height: 6px; }}
    QTableView {{ gridline-color: {c("rule")}; alternate-background-color: {c("body")}; }}
    QTableView::item:focus {{ border: 2px solid {c("ochre")}; }}
    QPushButton[kind="link"] {{ background: transparent; border: 2px solid transparent; color: {c("chalk")}; padding: 1px 3px; min-height: 16px; text-align: left; }}
    QPushButton[kind="quiet"] {{ background: transparent; border: 1px solid transparent; color: {c("pencil")}; text-align: left; padding: 3px 26px 3px 6px; }}
    QPushButton[kind="fold"] {{ background: transparent; border: none; border-top: 1px solid {c("rule")}; border-radius: 0; color: {c("ink")}; text-align: left; padding: 4px 2px 2px 2px; font-weight: 600; }}
    QPushButton[kind="fold"]:checked {{ background: transparent; color: {c("chalk")}; }} QPushButton[kind="fold"]:focus {{ border: 2px solid {c("chalk")}; }}
    QPushButton[kind="quiet"]:hover {{ border-color: {c("field edge")}; }}
    QPushButton[kind="quiet"]:focus {{ border: 2px solid {c("chalk")}; padding: 2px 25px 2px 5px; }}
    QPushButton[kind="link"]:hover {{ text-decoration: underline; }}
    QPushButton[kind="link"]:focus {{ border-color: {c("chalk")}; border-radius: 3px; }}
    QLineEdit, QComboBox, QPlainTextEdit {{ background: {c("field")}; border: 1px solid {c("field edge")}; border-radius: 3px; padding: 2px 6px; min-height: 20px; selection-background-color: {c("chalk")}; selection-color: {c("on chalk")}; }}
    QLineEdit:focus, QComboBox:focus, QPlainTextEdit:focus {{ border: 2px solid {c("chalk")}; padding: 1px 5px; }}
    QLineEdit[wrong="true"] {{ border: 2px solid {c("primer")}; padding: 1px 5px; }}
    QComboBox::drop-down {{ border: none; width: 18px; }}
    QComboBox::down-arrow {{ image: url("{arrow}"); width: 9px; height: 6px; margin-right: 8px; }}
    QComboBox QAbstractItemView, QListWidget, QMenu, QTreeWidget, QTableView {{ background: {c("paper")}; border: 1px solid {c("rule")}; selection-background-color: {c("chalk")}; selection-color: {c("on chalk")}; outline: none; }}
    QListWidget::item {{ padding: 3px 6px; }}
    QMenu::item {{ padding: 4px 18px; }} QMenu::item:selected {{ background: {c("chalk")}; color: {c("on chalk")}; }} QMenu::item:disabled {{ color: {c("pencil")}; }}
    QMenu::separator {{ height: 1px; background: {c("rule")}; margin: 4px 8px; }}
    QCheckBox {{ spacing: 6px; }} QCheckBox:focus {{ color: {c("chalk")}; }}
    QCheckBox::indicator {{ width: 14px; height: 14px; border: 1px solid {c("field edge")}; border-radius: 3px; background: {c("field")}; }}
    QCheckBox::indicator:checked {{ background: {c("chalk")}; border-color: {c("chalk")}; image: url("{tick}"); }}
    QScrollArea {{ background: transparent; border: none; }} QScrollArea > QWidget > QWidget {{ background: transparent; }}
    QScrollBar:vertical {{ background: transparent; width: 10px; margin: 0; }} QScrollBar::handle:vertical {{ background: {c("rule")}; border-radius: 4px; min-height: 30px; margin: 1px; }}
    QScrollBar::handle:vertical:hover {{ background: {c("field edge")}; }} QScrollBar:horizontal {{ background: transparent; height: 10px; margin: 0; }} QScrollBar::handle:horizontal {{ background: {c("rule")}; border-radius: 4px; min-width: 30px; margin: 1px; }}
    QScrollBar::add-line, QScrollBar::sub-line {{ height: 0; width: 0; }} QScrollBar::add-page, QScrollBar::sub-page {{ background: transparent; }}
    QFrame#card {{ background: {c("paper")}; border: 1px solid {c("rule")}; border-radius: 5px; }}
    QFrame#header {{ background: {c("kraft deep")}; }} QWidget#rightpane {{ background: {c("kraft")}; border-left: 1px solid {c("rule")}; }}
    QFrame#popup {{ background: {c("paper")}; border: 1px solid {c("field edge")}; border-radius: 5px; }}
    QFrame#rule {{ background: {c("rule")}; max-height: 1px; min-height: 1px; border: none; }}
    """
