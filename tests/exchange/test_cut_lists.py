"""Lists of pieces and stock as people write them, and a plan as it is told."""

from __future__ import annotations

import json
from pathlib import Path

import openpyxl
import pytest

from uncle_sled.core.errors import FileError
from uncle_sled.core.studies.cut.cut_plan import cut_plan
from uncle_sled.exchange.cut_lists import read_lists
from uncle_sled.exchange.cut_report import cut_report, cut_text

STOCK = "id,kind,material,length_mm,width_mm,qty,price\nfull,sheet,ply,2440,1220,,40\nlong,bar,pine,2400,,,6\n"
PIECES = "id,kind,material,length_mm,width_mm,qty,grain,outline\na,sheet,ply,600,400,2,any,\nr,bar,pine,1195,,4,,\n"


def written(folder: Path, pieces: str = PIECES, stock: str = STOCK) -> tuple[Path, Path]:
    (folder / "p.csv").write_text(pieces, encoding="utf-8")
    (folder / "s.csv").write_text(stock, encoding="utf-8")
    return folder / "p.csv", folder / "s.csv"


def test_columns_may_stand_in_any_order_and_unit(tmp_path: Path) -> None:
    pieces = "material;qty;length_in;id;width_in;kind;note\nply;2;23 5/8;a;15,75;SHEET;mine\npine;;4 ft;r;;Bar;\n"
    wanted, stocks = read_lists(*written(tmp_path, pieces), 0.003, 0.0)
    a, r = wanted
    assert (a.kind, a.qty, a.grain) == ("sheet", 2, "any") and a.length_m == pytest.approx(23.625 * 0.0254)
    assert a.width_m == pytest.approx(0.40005)
    assert (r.kind, r.qty, r.width_m) == ("bar", 1, 0.0) and r.length_m == pytest.approx(1.2192)
    assert [(one.id, one.qty, one.price) for one in stocks] == [("full", None, 40.0), ("long", None, 6.0)]


def test_a_spreadsheet_is_read_like_a_text(tmp_path: Path) -> None:
    book = openpyxl.Workbook()
    for line in PIECES.splitlines():
        book.active.append([float(cell) if cell.isdigit() else cell for cell in line.split(",")])  # type: ignore[union-attr]
    book.save(tmp_path / "p.xlsx")
    plain, stock = written(tmp_path)
    assert read_lists(tmp_path / "p.xlsx", stock, 0.003, 0.0) == read_lists(plain, stock, 0.003, 0.0)


def test_an_outline_is_corners_parted_by_semicolons(tmp_path: Path) -> None:
    pieces = "id,kind,material,length_mm,width_mm,outline\ng,sheet,ply,400,300,0 0; 400 0; 0 300;\n"
    (one,), _ = read_lists(*written(tmp_path, pieces), 0.003, 0.0)
    assert one.outline == ((0.0, 0.0), (0.4, 0.0), (0.0, 0.3)) and one.qty == 1


def test_an_id_that_would_run_in_a_spreadsheet_is_read_as_its_text(tmp_path: Path) -> None:
    (one,), _ = read_lists(*written(tmp_path, "id,kind,material,length_mm\n'=cmd,bar,pine,500\n"), 0.003, 0.0)
    assert one.id == "=cmd"


def test_every_fault_of_both_lists_is_said_at_once(tmp_path: Path) -> None:
    pieces = PIECES + "b,sheet,ply,0,10,1,any,\n,bar,pine,10,,1,,\nc,sheet,,10,10,1,any,\nd,sheet,ply,10,,1,any,\ne,bar,pine,1e9,,,,\n"
    stock = STOCK + "x,sheet,ply,100,100,1.5,\ny,plank,ply,1,1,,\n"
    with pytest.raises(FileError) as said:
        read_lists(*written(tmp_path, pieces, stock), 0.003, 0.0)
    faults = "\n".join(said.value.faults)
    for words in ("p.csv, line 5: id", "p.csv, line 6: material", "p.csv, line 7: width", "p.csv, line 8: length"):
        assert words in faults
    assert "s.csv, line 4: qty" in faults and "s.csv, line 5: kind" in faults
    with pytest.raises(FileError, match=r"p\.csv, line 4: length is 0"):  # once they can be read, what cannot be cut
        read_lists(*written(tmp_path, PIECES + "b,sheet,ply,0,10,1,any,\n"), 0.003, 0.0)


@pytest.mark.parametrize(
    ("pieces", "stock", "words"),
    [
        ("", STOCK, "is empty"),
        ("id,kind,material,length_mm\n", STOCK, "holds no pieces"),
        (PIECES, "id,kind,material\nfull,sheet,ply\n", "no column for length"),
        (PIECES, "id,kind,material,length_furlong\nfull,sheet,ply,1\n", "no unit of length"),
        (PIECES.replace("1195", '"1,195"'), STOCK, "could be a thousand"),
        (PIECES, STOCK.replace("6\n", "1e400\n"), "no sum of money"),
    ],
)
def test_what_is_no_list_is_said(tmp_path: Path, pieces: str, stock: str, words: str) -> None:
    with pytest.raises(FileError, match=words):
        read_lists(*written(tmp_path, pieces, stock), 0.003, 0.0)
    with pytest.raises(FileError, match=r"none\.csv"):
        read_lists(tmp_path / "none.csv", tmp_path / "s.csv", 0.003, 0.0)


def test_the_plan_is_told_with_its_numbers(tmp_path: Path) -> None:
    wanted, stocks = read_lists(*written(tmp_path), 0.003, 0.0)
    plan = cut_plan(wanted, stocks, 0.003)
    made = json.loads(json.dumps(cut_report(plan), allow_nan=False))
    assert made["bars"]["used"] == 2 == made["bars"]["bound"] and made["bars"]["over_share"] == 0
    assert made["bars"]["patterns"] == [
        {"material": "pine", "stock": "long", "times": 2, "pieces": ["r", "r"], "left_m": pytest.approx(0.007), "overlaps": []}
    ]
    (layout,) = made["sheets"]["layouts"]
    assert layout["stock"] == "full" and [one["piece"] for one in layout["pieces"]] == ["a", "a"]
    assert made["sheets"]["waste_share"] == pytest.approx(1 - 2 * 0.24 / (2.44 * 1.22), abs=1e-6)
    assert made["money"] == 52.0 and made["unplaced"] == []
    text = cut_text(plan)
    assert "pine: 2 bars, the least money there can be" in text and "2 x long: r, r; 7.0 mm left" in text
    assert "ply: 1 sheet, there can be no fewer" in text and "Stock for 52.00." in text and "dust" in text


def test_nothing_to_cut_from_leaves_all_of_it(tmp_path: Path) -> None:
    wanted, stocks = read_lists(*written(tmp_path, PIECES, "id,kind,material,length_mm,width_mm\no,bar,oak,900,\n"), 0.003, 0.0)
    plan = cut_plan(wanted, stocks, 0.003)
    made = cut_report(plan)
    assert made["unplaced"] == [{"piece": "r", "qty": 4}, {"piece": "a", "qty": 2}]
    assert made["sheets"]["waste_share"] is None and made["sheets"]["used"] == 0 == made["bars"]["used"]
    assert "NOT PLACED: 4 of r" in cut_text(plan)


def test_outlines_are_nested_where_that_is_asked(tmp_path, capsys):
    (tmp_path / "p.csv").write_text("id,kind,material,length_mm,width_mm,qty,outline\nt,sheet,ply,2400,1200,2,0 0; 2400 0; 0 1200\n")
    (tmp_path / "s.csv").write_text("id,kind,material,length_mm,width_mm\nb,sheet,ply,2440,1220\n")
    from uncle_sled.cli import main

    args = ["cut", str(tmp_path / "p.csv"), "--stock", str(tmp_path / "s.csv"), "--json", "--kerf", "0"]
    assert main(args) == 0
    assert json.loads(capsys.readouterr().out)["sheets"]["used"] == 2
    assert main([*args, "--free"]) == 0
    made = json.loads(capsys.readouterr().out)["sheets"]
    assert made["used"] == 1 and made["gap"] == 0 and made["layouts"][0]["cuts"] == []
