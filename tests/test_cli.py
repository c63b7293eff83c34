import json
import os
import re
import subprocess
import sys
from pathlib import Path
from xml.etree import ElementTree

import jsonschema
import msgspec
import pytest

from tests.builders import a_project, a_rig, a_thing
from tests.core.test_deciding import loaded
from tests.judging import judged_once
from uncle_sled.cli import main
from uncle_sled.core.document.catalogue_line import as_text, from_text
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.reading.studied import study
from uncle_sled.exchange import sled_file
from uncle_sled.exchange.demos import DEMOS, demo
from uncle_sled.exchange.export import export_bytes
from uncle_sled.exchange.exports import EXPORTS

SCHEMA = json.loads((Path(__file__).parent.parent / "docs" / "report.schema.json").read_text())


@pytest.fixture(autouse=True)
def demos_judged_once(monkeypatch):
    """What helps is looked for once a demo and session."""
    monkeypatch.setattr("uncle_sled.core.remedies.remedies.with_remedies", judged_once)


def run_json(capsys, *words):
    assert main(list(words)) == 0
    return json.loads(capsys.readouterr().out)


def test_a_report_is_told_again_without_working_it_out_while_nothing_changed(capsys, monkeypatch, tmp_path):
    path, worked_out = tmp_path / "heron.sled", []
    sled_file.save(demo("marsh-heron"), path)
    monkeypatch.setattr("uncle_sled.core.remedies.remedies.with_remedies", lambda s: worked_out.append(s) or judged_once(s))
    first = run_json(capsys, "report", str(path), "--json")
    assert run_json(capsys, "report", str(path), "--json") == first and len(worked_out) == 1

    moved = demo("marsh-heron").with_build(apply(demo("marsh-heron").build, [set_to("rig.track", {"si": 1.61, "typed": None})]))
    sled_file.save(moved, path)
    assert run_json(capsys, "report", str(path), "--json")["build"] == first["build"] and len(worked_out) == 2
    monkeypatch.setattr("uncle_sled.exchange.kept_reports.__version__", "another")
    run_json(capsys, "report", str(path), "--json")
    assert len(worked_out) == 3  # another program may tell it otherwise
    monkeypatch.setenv("XDG_CACHE_HOME", str(path))  # no folder: nothing can be kept there
    run_json(capsys, "report", str(path), "--json", "--case", "coming-home")
    assert len(worked_out) == 4


@pytest.mark.parametrize("name", DEMOS)
def test_the_report_keeps_its_contract(name, capsys):
    got = run_json(capsys, "report", name, "--json")

    jsonschema.validate(got, SCHEMA)
    bed = got["build"]["carrier"] == "vehicle bed"
    for case in got["cases"]:
        masses, axles = case["masses"], case["axle_kg"]
        assert sum(m["mass_kg"] for m in masses) == pytest.approx(case["total_kg"])
        if bed:
            assert case["tongue_kg"] is None
            assert sum(axles) == pytest.approx(case["total_kg"])
            continue
        assert sum(axles) == pytest.approx(case["left_kg"] + case["right_kg"])
        assert sum(axles) == pytest.approx(case["total_kg"] - case["tongue_kg"])
        moment = sum(m["mass_kg"] * m["x_m"] for m in masses)
        if got["rig"]["effective_axle_m"] is not None:
            assert case["tongue_kg"] == pytest.approx(case["total_kg"] - moment / got["rig"]["effective_axle_m"])
        else:
            stations = [axle["station_m"] for axle in got["rig"]["axles"]]
            assert sum(a * x for a, x in zip(axles, stations, strict=True)) == pytest.approx(moment)


def test_an_empty_build_reports_null_and_never_nan(tmp_path, capsys):
    from uncle_sled.core.document.project import empty_project

    sled_file.save(empty_project(), tmp_path / "e.sled")
    got = run_json(capsys, "report", str(tmp_path / "e.sled"), "--json")

    jsonschema.validate(got, SCHEMA)
    assert got["cases"][0]["tongue_kg"] is None and got["axle_placing"] is None


def test_one_case_by_id_or_name(capsys):
    by_id = run_json(capsys, "report", "marsh-heron", "--json", "--case", "coming-home")
    by_name = run_json(capsys, "report", "marsh-heron", "--json", "--case", "Coming home")

    assert [c["id"] for c in by_id["cases"]] == ["coming-home"] and by_id == by_name
    assert [f["code"] for f in by_id["findings"] if f["code"].startswith("ball-")] == ["ball-light"]
    assert main(["report", "marsh-heron", "--case", "moon"]) == 2
    assert "coming-home" in capsys.readouterr().err


def test_reading_in_words_is_in_the_builds_units(capsys):
    assert main(["report", "rosin-box"]) == 0
    out = capsys.readouterr().out

    assert (" lb" in out and " kg" not in out and "Slide" in out) or "Set" in out


def test_check_exits_as_it_should(tmp_path, capsys):
    stop = a_project([a_thing(mass=300.0, x=3.8)], rig=a_rig(axle=2.5))
    sled_file.save(stop, tmp_path / "stop.sled")
    sled_file.save(a_project(rig=a_rig(axle=2.75)), tmp_path / "good.sled")
    bare = stop.with_build(apply(stop.build, [set_to("rig.axles", [])]))
    sled_file.save(bare, tmp_path / "bare.sled")
    (tmp_path / "junk.sled").write_text("{")

    codes = {name: main(["check", str(tmp_path / f"{name}.sled")]) for name in ("stop", "good", "bare", "junk", "gone")}

    assert codes == {"stop": 1, "good": 0, "bare": 3, "junk": 2, "gone": 2}


@pytest.mark.parametrize("kind", ["csv", "pdf", "svg"])
@pytest.mark.parametrize("name", DEMOS)
def test_exports_are_whole_files(kind, name, tmp_path, capsys):
    out = tmp_path / f"sheet.{kind}"

    assert main(["export", name, "--to", kind, "--out", str(out)]) == 0
    data = out.read_bytes()
    if kind == "pdf":
        assert data.startswith(b"%PDF") and data.rstrip().endswith(b"%%EOF")
    elif kind == "svg":
        root = ElementTree.fromstring(data)
        texts = {e.text for e in root.iter("{http://www.w3.org/2000/svg}text")}
        assert demo(name).name in texts and "Nearest to their limits" in texts
        assert len(list(root.iter("{http://www.w3.org/2000/svg}polygon"))) > 10
    else:
        lines = data.decode().splitlines()
        assert lines[0].startswith("case,id,name") and any(",total,Whole," in line for line in lines)


def test_csv_cells_are_never_formulas():
    assert as_text("=1+1") == "'=1+1" and as_text("Jug") == "Jug" and as_text("-1+A1") == "'-1+A1"
    assert all(from_text(as_text(cell)) == cell for cell in ("=1+1", "Jug", "@x", "-2", "\t=1", " +1", "", "' y"))


def test_an_export_over_a_folder_is_said_in_words(tmp_path, capsys):
    assert main(["export", "dark-sky", "--to", "csv", "--out", str(tmp_path)]) == 2
    assert "is a folder" in capsys.readouterr().err


_BLOCK = "import sys; sys.modules['PySide6'] = None; from uncle_sled.cli import main; sys.exit(main({words!r}))"


@pytest.mark.parametrize("words", [["report", "dark-sky", "--json"], ["check", "rosin-box"]])
def test_the_command_line_runs_without_qt(words):
    done = subprocess.run([sys.executable, "-c", _BLOCK.format(words=words)], capture_output=True, text=True)

    assert done.returncode in (0, 1), done.stderr


def test_the_application_without_qt_says_what_is_missing():
    done = subprocess.run([sys.executable, "-c", _BLOCK.format(words=["demo"])], capture_output=True, text=True)

    assert done.returncode == 2 and "needs PySide6" in done.stderr and "Traceback" not in done.stderr


def test_nothing_heavy_is_loaded_before_the_first_reading():
    code = (
        "import sys; from uncle_sled.desk.app import application, open_window; from uncle_sled.exchange.demos import demo\n"
        "app = application(); w = open_window(demo('marsh-heron')); w.show(); app.processEvents(); w.grab()\n"
        "print([m for m in ('scipy', 'ezdxf', 'openpyxl', 'pint', 'reportlab', 'jsonschema') if m in sys.modules])"
    )
    done = subprocess.run(
        [sys.executable, "-c", code], capture_output=True, text=True, env={**__import__("os").environ, "QT_QPA_PLATFORM": "offscreen"}
    )

    assert done.stdout.strip() == "[]", done.stderr


def _odd_command_lines(folder):
    """Command lines of a hurried hand, each of which has something wrong in it."""
    good = folder / "good.sled"
    sled_file.save(demo("rosin-box"), good)
    (folder / "empty.sled").write_bytes(b"")
    (folder / "deep.sled").write_bytes(b"[" * 200_000)
    (folder / "newer.sled").write_text(json.dumps({**json.loads(good.read_bytes()), "version": 99}))
    (folder / "loop.sled").symlink_to(folder / "loop.sled")
    (folder / "dead.sled").symlink_to(folder / "nowhere")
    names = [
        "no-such.sled",
        str(folder),
        "",
        ".",
        "/",
        "Marsh-Heron",
        "n" * 300,
        "/".join(["a" * 100] * 50),
        "a\nb",
        "-",
        str(good / "x"),
        "/dev/null",
        "/dev/zero",
        *(str(folder / f"{one}.sled") for one in ("empty", "deep", "newer", "loop", "dead")),
    ]
    yield from (["report", name] for name in names)
    yield from (["check", name] for name in names[::3])
    yield from (["export", name, "--to", "csv"] for name in names[::3])
    yield ["report", str(good), "--case", "nobody"]
    yield ["report", str(good), "--case", ""]
    yield ["export", str(good), "--to", "csv", "--out", str(folder)]
    yield ["export", str(good), "--to", "csv", "--out", str(folder / "no" / "such" / "a.csv")]
    yield ["export", str(good), "--to", "svg", "--out", str(folder / ("n" * 300))]
    yield ["shots", str(folder / "s"), "--size", "²x²"]
    yield ["shots", str(folder / "s"), "--size", "99999999x10"]
    yield ["shots", str(folder / "s"), "--scale", "nan"]
    yield ["shots", str(good)]


def test_odd_command_lines_are_refused_in_words(tmp_path, capsys):
    tried = 0
    for words in _odd_command_lines(tmp_path):
        try:
            code: object = main(words)
        except SystemExit as leaves:  # the parser's own refusals
            code = leaves.code
        out, err = capsys.readouterr()

        assert code == 2, words
        assert not out and err.strip() and "Traceback" not in err, words
        assert len(err) < 2_000, words
        tried += 1
    assert tried > 35


def test_a_parsers_own_refusals_name_what_would_be_right(capsys):
    for words in (["nonsense"], ["export", "rosin-box", "--to", "exe"], ["demo", "nobody"], ["report"]):
        with pytest.raises(SystemExit) as leaves:
            main(words)
        assert leaves.value.code == 2
        assert "usage" in capsys.readouterr().err


def test_an_export_without_a_name_writes_over_nothing(tmp_path, capsys):
    sled_file.save(demo("rosin-box"), tmp_path / "mine.sled")
    own = tmp_path / "mine.csv"
    own.write_text("a list of one's own")

    assert main(["export", str(tmp_path / "mine.sled"), "--to", "csv"]) == 0
    assert main(["export", str(tmp_path / "mine.sled"), "--to", "csv"]) == 0

    assert own.read_text() == "a list of one's own"
    assert capsys.readouterr().out.split() == [str(tmp_path / "mine-2.csv")] * 2, "the same again is the same file"
    for kind in ("pdf", "axle-order", "gauges"):
        assert main(["export", str(tmp_path / "mine.sled"), "--to", kind]) == 0
    assert {p.name for p in tmp_path.glob("*.pdf")} == {"mine.pdf", "mine-axle-order.pdf", "mine-gauges.pdf"}


@pytest.mark.parametrize("coding", ["ascii", "latin-1"])
def test_terminals_without_the_letters_are_written_to(coding, tmp_path):
    project = a_project([a_thing()], rig=a_rig())
    sled_file.save(msgspec.structs.replace(project, name="Ünï ‮ 🛻"), tmp_path / "a.sled")
    for words in (["report"], ["report", "--json"]):
        done = subprocess.run(
            [sys.executable, "-m", "uncle_sled.cli", words[0], str(tmp_path / "a.sled"), *words[1:]],
            env={**os.environ, "PYTHONIOENCODING": coding},
            capture_output=True,
            check=False,
        )
        assert done.returncode == 0 and b"Traceback" not in done.stderr
    assert json.loads(done.stdout)["build"]["name"] == "Ünï ‮ 🛻"


@pytest.mark.skipif(not Path("/dev/full").exists(), reason="no full device here")
@pytest.mark.parametrize("words", [["report"], ["report", "--json"], ["check"]])
def test_a_full_disk_is_said(words):
    with open("/dev/full", "wb") as full:
        done = subprocess.run(
            [sys.executable, "-m", "uncle_sled.cli", words[0], "rosin-box", *words[1:]], stdout=full, stderr=subprocess.PIPE, check=False
        )

    assert done.returncode == 2 and b"could not be written out" in done.stderr and b"Traceback" not in done.stderr


def test_signs_that_no_xml_holds_are_left_out_of_an_svg():
    made = demo("rosin-box")
    data = export_bytes("svg", "a\x01b\x00c\ufffe", study(made.build, made.facts), ())

    assert "a b c" in ElementTree.fromstring(data).find("{http://www.w3.org/2000/svg}title").text


CUT_PIECES = """id,kind,material,length_mm,width_mm,qty,grain,outline
side,sheet,ply 9,2100,1150,2,along,
gusset,sheet,ply 9,400,300,2,any,0 0; 400 0; 0 300
rail,bar,pine,2050,,6,,
stud,bar,pine,"610,5",,14,,
"""
CUT_STOCK = "id;kind;material;length_in;width_in;qty;price\nfull;sheet;ply 9;96;48;;48,50\nl24;bar;pine;94,5;;;6,2\n"


def cut_lists(tmp_path: Path, pieces: str = CUT_PIECES, stock: str = CUT_STOCK) -> list[str]:
    (tmp_path / "pieces.csv").write_text(pieces)
    (tmp_path / "stock.csv").write_text(stock)
    return ["cut", str(tmp_path / "pieces.csv"), "--stock", str(tmp_path / "stock.csv")]


def test_lists_are_cut_without_a_build(tmp_path: Path, capfd: pytest.CaptureFixture[str]) -> None:
    ask = cut_lists(tmp_path)
    assert main([*ask, "--json"]) == 0
    made = json.loads(capfd.readouterr().out)
    assert made["sheets"]["used"] == 2 and made["sheets"]["bound"] == 2 and made["unplaced"] == []
    assert made["bars"]["used"] == 11 and made["bars"]["bound"] == 11  # six rails alone, three studs a bar
    assert made["money"] == pytest.approx(2 * 48.5 + 11 * 6.2)
    assert sum(len(one["pieces"]) for one in made["sheets"]["layouts"]) == 4
    assert main(ask) == 0
    out, err = capfd.readouterr()
    assert (
        "there can be no fewer" in out
        and "the least money there can be" in out
        and "across the length at 2100.0 mm" in out
        and "guards on" in out
        and not err
    )


def test_what_fits_nowhere_is_listed_and_told_by_the_exit(tmp_path: Path, capfd: pytest.CaptureFixture[str]) -> None:
    ask = cut_lists(tmp_path, CUT_PIECES + "mast,bar,pine,5000,,2,,\n")
    assert main(ask) == 1
    assert "NOT PLACED: 2 of mast" in capfd.readouterr().out
    assert main([*ask, "--json"]) == 1
    assert json.loads(capfd.readouterr().out)["unplaced"] == [{"piece": "mast", "qty": 2}]


@pytest.mark.parametrize(
    ("pieces", "stock", "more", "words"),
    [
        (CUT_PIECES.replace("2050", "0"), CUT_STOCK, [], "pieces.csv, line 4: length"),
        (CUT_PIECES.replace("2050", "soon"), CUT_STOCK, [], "pieces.csv, line 4: length: “soon”"),
        (CUT_PIECES.replace(",6,", ",two,"), CUT_STOCK, [], "pieces.csv, line 4: qty: “two”"),
        (CUT_PIECES.replace("along", "up"), CUT_STOCK, [], "pieces.csv, line 2: grain: “up”"),
        (CUT_PIECES.replace("rail,bar", "rail,tube"), CUT_STOCK, [], "sheet or bar would be right"),
        (CUT_PIECES.replace("400 0; 0 300", "400"), CUT_STOCK, [], "pieces.csv, line 3: outline: “400”"),
        (CUT_PIECES.replace("0 300", "800 0"), CUT_STOCK, [], "pieces.csv, line 3: the outline"),
        (CUT_PIECES + "rail,bar,pine,2051,,1,,\n", CUT_STOCK, [], "pieces.csv, line 6: “rail” stands twice"),
        (CUT_PIECES.replace("length_mm", "length_yd"), CUT_STOCK, [], "no unit of length"),
        (CUT_PIECES.replace("id,", "name,"), CUT_STOCK, [], "no column for id"),
        (CUT_PIECES, CUT_STOCK.replace("6,2", "cheap"), [], "stock.csv, line 3: price: “cheap”"),
        (CUT_PIECES, CUT_STOCK.replace("6,2", "-6"), [], "stock.csv, line 3: price is below 0"),
        (CUT_PIECES, CUT_STOCK + "l24;bar;pine;90;;;6\n", [], "stock.csv, line 4: “l24” stands twice"),
        (CUT_PIECES, CUT_STOCK, ["--trim", "700"], "stock.csv, line 2: the trim takes all"),
        (CUT_PIECES, CUT_STOCK, ["--kerf", "350"], "pieces.csv, line 3: the saw takes more"),
        (CUT_PIECES, CUT_STOCK, ["--kerf=-1"], "--kerf -1 is not possible"),
        (CUT_PIECES, CUT_STOCK, ["--seconds", "nan"], "--seconds nan is not possible"),
    ],
)
def test_faults_of_lists_are_said_by_line_and_nothing_is_cut(
    tmp_path: Path, capfd: pytest.CaptureFixture[str], pieces: str, stock: str, more: list[str], words: str
) -> None:
    assert main([*cut_lists(tmp_path, pieces, stock), *more]) == 2
    out, err = capfd.readouterr()
    assert words in err and not out and "Traceback" not in err


def test_a_file_by_itself_is_opened(tmp_path, monkeypatch):
    opened = []
    monkeypatch.setattr("uncle_sled.cli._desk", lambda args: opened.append(args.file) or 0)
    sled_file.save(demo("rosin-box"), tmp_path / "mine.sled")
    assert main([str(tmp_path / "mine.sled")]) == 0 and opened == [str(tmp_path / "mine.sled")]


def test_searches_stand_in_the_report_where_they_are_asked_for_and_a_wish_is_answered(tmp_path, capsys, monkeypatch):
    monkeypatch.setattr("uncle_sled.core.remedies.arranging.places.MOST_PLACES", 300)
    path = tmp_path / "loaded.sled"
    sled_file.save(loaded(), path)
    assert "searched" not in run_json(capsys, "report", str(path), "--json")
    got = run_json(capsys, "report", str(path), "--json", "--searches")

    jsonschema.validate(got, SCHEMA)
    found = got["searched"]
    assert {"arrangements", "trades", "tolerances", "stairs"} == set(found)
    assert found["trades"]["builds"][0]["id"] == "" and len(found["trades"]["fronts"]) == 4
    assert found["tolerances"]["reached"] in (True, False)
    assert found["arrangements"]["found"] or found["arrangements"]["why"]

    assert main(["takes", str(path), "60 kg less"]) == 0
    said = capsys.readouterr().out
    assert "60 kg less, now" in said and "- Leave" in said and "not proven least" in said
    assert main(["takes", str(path), "something nice"]) != 0
    assert "is not understood" in capsys.readouterr().err


def test_the_readme_names_every_kind_that_is_exported() -> None:
    line = next(line for line in (Path(__file__).parent.parent / "README.md").read_text().splitlines() if "./sled export" in line)
    named = re.findall(r"[a-z]+(?:-[a-z]+)*", line.partition("--to ")[2])

    assert sorted(set(EXPORTS) - set(named)) == []
