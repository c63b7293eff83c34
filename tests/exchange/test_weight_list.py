import openpyxl
import pytest

from tests.builders import IMPERIAL, METRIC
from uncle_sled.core.errors import FileError
from uncle_sled.exchange.weight_list import guess_columns, guess_units, read_sheet, take


def written(tmp_path, text, name="list.csv", encoding="utf-8"):
    path = tmp_path / name
    path.write_bytes(text.encode(encoding))
    return path


def taken(path, shown=METRIC, ids=(), **bare):
    sheet = read_sheet(path)
    columns = guess_columns(sheet)
    return take(sheet, columns, {**guess_units(sheet, columns, shown), **bare}, list(ids), 0.6)


def test_a_plain_list(tmp_path):
    path = written(tmp_path, "Name,Weight (kg),From ball (m),Length m\nJug,21.6,2.4,0.3\nBattery,12.5 kg,0.7,0.33\n")
    got = taken(path, ids=["t4"])

    assert got.faults == ()
    assert [(t.id, t.name, t.mass.si, t.x.si) for t in got.things] == [
        ("t5", "Jug", 21.6, 2.25),
        ("t6", "Battery", 12.5, pytest.approx(0.535)),
    ]
    assert got.things[0].z.si == 0.6 and got.things[1].mass.typed == "12.5 kg"


def test_semicolons_and_decimal_commas(tmp_path):
    got = taken(written(tmp_path, "Teil;Gewicht kg;Abstand mm\nKanister;21,6;2400\nKiste;1.234,5;900\n"))

    assert [t.mass.si for t in got.things] == [21.6, 1234.5]
    assert got.things[0].x.si == pytest.approx(2.25)


def test_pounds_and_feet_and_mixed_units(tmp_path):
    got = taken(written(tmp_path, "item\tlb\tstation\nVice\t190\t4' 2\"\nStock\t12 kg\t36\n"), IMPERIAL)

    assert got.things[0].mass.si == pytest.approx(86.1826, abs=1e-3)
    assert got.things[0].x.si + 0.15 == pytest.approx(1.27)
    assert got.things[1].mass.si == 12.0 and got.things[1].x.si + 0.15 == pytest.approx(0.9144)


def test_faulty_lines_are_told_by_their_number(tmp_path):
    text = "name,weight,from ball m\nA,5,1\nB,heavy,1\nC,-4,1\n\nD,,1\nE,999999,1\nF,5,77\nG,3,-\nTotal,17,\n,,\n"
    got = taken(written(tmp_path, text))

    assert [t.name for t in got.things] == ["A"]
    assert [f.line for f in got.faults] == [3, 4, 6, 7, 8, 9]
    assert "less than nothing" in got.faults[1].says and "is the unit right" in got.faults[3].says


def test_no_headings_and_one_column(tmp_path):
    sheet = read_sheet(written(tmp_path, "Jug,20,2.4\nBox,10,3\n"))
    assert sheet.headings == ("Column 1", "Column 2", "Column 3") and len(sheet.rows) == 2

    got = taken(written(tmp_path, "name\nJug\n"))
    assert got.things == () and "no weight" in got.faults[0].says


@pytest.mark.parametrize("encoding", ["utf-8", "utf-8-sig", "utf-16", "cp1252"])
def test_encodings(tmp_path, encoding):
    sheet = read_sheet(written(tmp_path, "name;weight\nKühlbox;12\n", encoding=encoding))

    assert sheet.rows[0][1][0] == "Kühlbox"
    assert bool(sheet.note) is (encoding == "cp1252")


def test_a_spreadsheet_with_formulas_and_merged_cells(tmp_path):
    book = openpyxl.Workbook()
    sheet = book.active
    for row in (
        ["Things", None, None],
        ["Name", "Weight kg", "From ball m"],
        ["Jug", 21.6, 2.4],
        ["Box", "=B3/2", 3.0],
        ["Pair", 4, 3.5],
        ["Pair", None, 3.9],
    ):
        sheet.append(row)
    sheet.merge_cells("B5:B6")
    book.create_sheet("more")
    book.save(tmp_path / "list.xlsx")
    read = read_sheet(tmp_path / "list.xlsx")
    columns = {**dict.fromkeys(guess_columns(read)), "name": 0, "mass": 1, "x": 2}
    got = take(read, columns, {"mass": "kg", "length": "m"}, [], 0.6)

    assert "formulas without a stored result" in read.note and "first sheet" in read.note
    assert [(t.name, t.mass.si) for t in got.things] == [("Jug", 21.6), ("Pair", 4.0), ("Pair", 4.0)]
    assert any("formula" in f.says for f in got.faults)


@pytest.mark.parametrize(
    ("name", "data", "says"),
    [
        ("x.csv", b"", "is empty"),
        ("x.csv", b"\x00\x01\x02", "not a text file"),
        ("x.xlsx", b"PK\x03\x04 broken", "could not be read as a spreadsheet"),
        ("x.xls", b"\xd0\xcf\x11\xe0\xa1\xb1\x1a\xe1", "old binary"),
        ("x.csv", b"\xff\xfe\x41", "UTF-16"),
        ("x.csv", b"name,weight\n" + b"box,1\n" * 100_000, "more than 2000 lines"),
    ],
)
def test_what_is_no_list_is_said(tmp_path, name, data, says):
    (tmp_path / name).write_bytes(data)

    with pytest.raises(FileError, match=says):
        read_sheet(tmp_path / name)


def test_a_folder_is_no_list(tmp_path):
    with pytest.raises(FileError, match="is a folder"):
        read_sheet(tmp_path)
