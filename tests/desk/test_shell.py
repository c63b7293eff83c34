import math

import msgspec
import pytest
from PySide6.QtCore import QPointF, Qt
from PySide6.QtGui import QColor, QImage, QPainter, QPolygonF
from PySide6.QtWidgets import QApplication

from tests.desk.driving import button_on, drag, drawing, form_on, key, move, named, press, release, told, type_words
from tests.desk.walk import faults_of
from tests.judging import judged_once
from uncle_sled.core.document.edits import remove, set_to
from uncle_sled.core.document.field import field_of
from uncle_sled.core.document.presets import PRESETS
from uncle_sled.core.document.project import empty_project
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import Shell
from uncle_sled.core.drawing.primitives import Poly, Text
from uncle_sled.core.drawing.shell.skeleton import near_faces
from uncle_sled.desk.benches.shell.layers_dialog import LayersDialog
from uncle_sled.desk.benches.shell.own_material_dialog import OwnMaterialDialog
from uncle_sled.desk.benches.shell.sketch import corners_fault
from uncle_sled.desk.benches.shell.ways_panel import CompareWays
from uncle_sled.desk.frame.variants_view import SideBySide, keep_as_variant, open_variant, throw_away
from uncle_sled.desk.kit.fields import ChoiceField
from uncle_sled.desk.kit.form import Form
from uncle_sled.exchange import sled_file
from uncle_sled.exchange.demos import demo
from uncle_sled.exchange.dxf_library import document

CTRL = Qt.KeyboardModifier.ControlModifier


def test_a_face_is_made_of_layers_and_given_back(open_on):
    window = open_on(demo("dark-sky"), judged=False)
    session = window.session
    weighed = {"layers": [], "made_of": "", "mass": {"si": 96.0, "typed": None}}
    session.edit("Roof as weighed", [set_to(f"shell.faces.roof.{name}", value) for name, value in weighed.items()], "Shell")
    session.go_to("Shell")
    bench = window.bench("Shell")
    bench.show_view("Faces")
    panel = bench.panel("Faces")
    before = session.build
    made_of = lambda: next(field for row, _, field in form_on(panel).rows if "roof" in row.path)
    made_of().entered.emit("aluminium and foam")

    face = next(f for f in session.build.shell.faces if f.id == "roof")
    assert face.made_of and len(face.layers) == 3
    assert "By their layers" in told(panel) and "Roof" in told(panel) and faults_of(window) == []
    made_of().entered.emit("")
    assert session.build == before


def test_ways_are_compared_and_one_is_kept(open_on):
    window = open_on(demo("marsh-heron"), judged=False)
    session = window.session
    session.go_to("Shell")
    before = session.project
    dialog = CompareWays(session, window)
    dialog.show()
    assert len(dialog.ways) >= 5 and dialog.ways[0].name == "As it stands" and not dialog.keep.isEnabled() and faults_of(dialog) == []
    assert session.project is before
    dialog.which.setCurrentIndex(1)
    dialog.refresh()
    dialog.table.selectRow(3)
    dialog.keep.click()

    sides = [f for f in session.build.shell.faces if f.kind in ("left side", "right side")]
    assert all(f.made_of == dialog.ways[3].name for f in sides) and len(session.history.done) == 1
    session.undo()
    assert session.project == before
    dialog = CompareWays(session, window)
    dialog.show()
    dialog.which.setCurrentIndex(dialog.which.count() - 1)
    dialog.refresh()
    names = [way.name for way in dialog.ways]
    assert "stitched ply" in names and faults_of(dialog) == []
    dialog.table.selectRow(names.index("stitched ply"))
    dialog.keep.click()
    assert session.build.shell.framing.school == "stitched ply"
    session.undo()
    assert session.project == before


def shell_bench(open_on, name="marsh-heron", view="Profile", **size):
    window = open_on(demo(name), judged=False, **size)
    window.session.go_to("Shell")
    bench = window.bench("Shell")
    bench.show_view(view)
    window.grab()
    return window, window.session, bench


def on_side(sheet, x, z):
    return sheet.frame("side").point((x, z))


def test_an_opening_is_dragged_and_its_wall_reframes_in_one_step(open_on):
    window, session, bench = shell_bench(open_on, view="Openings")
    sheet, before = bench.sheet, session.project
    sticks = session.studied.framed.on("left side")
    drag(sheet, on_side(sheet, 1.25 + 0.85, 0.56 + 0.7), (0.2 * sheet.scale, 0), CTRL)
    opening = next(o for o in session.build.shell.openings if o.id == "window")

    assert opening.along.si == pytest.approx(0.94, abs=0.01) and opening.along.typed is None
    assert session.studied.framed.on("left side") != sticks and session.selection == ("window",)
    assert window.in_hand.name.full == "Side window" and len(session.history.done) == 1
    session.undo()
    assert session.project == before
    # a number typed during the drag places the near edge exactly; Escape gives back
    spot = on_side(sheet, 1.25 + 0.85, 0.56 + 0.7)
    press(sheet, spot)
    move(sheet, spot + QPointF(30, 0))
    type_words(sheet, "0.9 m")
    key(sheet, Qt.Key.Key_Return)
    assert next(o for o in session.build.shell.openings if o.id == "window").along.si == pytest.approx(0.9)
    press(sheet, on_side(sheet, 1.25 + 1.0, 0.56 + 0.7))
    move(sheet, on_side(sheet, 1.25 + 1.4, 0.56 + 0.7))
    key(sheet, Qt.Key.Key_Escape)
    assert next(o for o in session.build.shell.openings if o.id == "window").along.si == pytest.approx(0.9)


def test_an_opening_dragged_over_another_is_told_and_the_drawing_stays(open_on):
    window, session, bench = shell_bench(open_on, "orchard-keeper", "Openings")
    sheet = bench.sheet
    body = session.studied.framed.body
    win = next(o for o in session.build.shell.openings if o.id == "win2")
    start = on_side(sheet, body.front + win.along.si + 0.3, body.under + win.up.si + 0.4)
    drag(sheet, start, (2.1 * sheet.scale, 0), CTRL)

    assert {f.code for f in session.studied.framed.faults} == {"openings-meet"}
    assert session.studied.framed.members and sheet.good_framed() is session.studied.framed
    window.in_hand.refresh()  # it follows a drag ten times a second
    assert "lies over" in window.in_hand.note.text()
    session.undo()
    assert session.studied.framed.faults == ()


def test_a_roof_vent_is_dragged_on_the_flat_roof(open_on):
    window, session, bench = shell_bench(open_on, view="Openings")
    session.select(("vent",))
    flat = bench.panel("Openings").flat
    window.grab()
    assert flat.kind == "roof"
    surface = flat.surfaces()[0]
    cut = next(c for c in session.studied.framed.cuts if c.id == "vent")
    spot = flat.frame(surface.id).point((cut.shape.centroid.x, cut.shape.centroid.y))
    drag(flat, spot, (0.15 * flat.scale, -0.2 * flat.scale), CTRL)
    vent = next(o for o in session.build.shell.openings if o.id == "vent")

    assert vent.up.si == pytest.approx(0.81, abs=0.02) and vent.along.si > 1.85
    assert session.studied.framed.faults == ()


def test_cutting_in_closing_up_and_the_table(open_on):
    _window, session, bench = shell_bench(open_on, view="Openings")
    rows = bench.panel("Openings").table.model().rowCount()
    for kind in ("light", "screw row"):
        bench.cut_in(kind)
    assert bench.panel("Openings").table.model().rowCount() == rows + 2 and "in the roof" in told(bench.panel("Openings"))
    assert bench.panel("Openings").table.selectedIndexes()
    bench.panel("Openings").table.selectRow(0)
    assert session.selection == (bench.panel("Openings").table.rows[0].opening.id,)
    bench.off_button.click()
    assert bench.panel("Openings").table.model().rowCount() == rows + 1
    for _ in range(3):
        session.undo()
    assert bench.panel("Openings").table.model().rowCount() == rows and not session.history.modified


def test_a_profile_point_is_pulled_with_its_tangent_and_bad_shapes_are_refused(open_on):
    _window, session, bench = shell_bench(open_on)
    sheet, before = bench.sheet, session.project
    node = session.build.shell.profile[2]
    drag(sheet, sheet.spot(node.u, node.v), (0, -30), CTRL)
    assert sheet.node == 2 and session.build.shell.height.si > 1.35 and len(session.history.done) == 1
    session.undo()
    assert session.project == before
    # over the nose and back: it stays where it last was good, and says so
    rear = session.build.shell.profile[3]
    press(sheet, sheet.spot(rear.u, rear.v))
    move(sheet, sheet.spot(-0.3, 0.5), keys=CTRL)
    assert "cross itself" in sheet.gesture.says
    key_escape_gesture(sheet)
    assert session.build == before.build
    sheet.choose_node(3)
    bench.panel("Profile").node_fields["u"].setText("2.9 m")
    bench.panel("Profile").node_fields["u"].setModified(True)
    bench.panel("Profile").node_fields["u"].editingFinished.emit()
    assert session.build.shell.profile[3].u == pytest.approx(2.9 / 3.05)
    sheet.add_point()
    sheet.take_point()
    assert len(session.build.shell.profile) == len(before.build.shell.profile)
    sheet.choose_node(2)
    sheet.round_point()
    key(sheet, Qt.Key.Key_Up)
    while session.history.done:
        session.undo()
    assert session.project == before


def key_escape_gesture(sheet):
    gesture, sheet.gesture = sheet.gesture, None
    gesture.cancelled()


def test_a_stick_is_changed_by_hand_and_given_back(open_on):
    window, session, bench = shell_bench(open_on, "orchard-keeper", "Framing")
    flat, before = bench.panel("Framing").flat, session.project
    stud = next(m for m in session.studied.framed.on("left side") if m.kind == "stud")
    frame = flat.frame("left side")
    mid = stud.shape.centroid
    press(flat, frame.point((mid.x, mid.y)))
    release(flat, frame.point((mid.x, mid.y)))
    assert session.selection == (stud.id,) and "Stud" in window.in_hand.name.full
    form = window.in_hand.form
    enter(form.fields["by"], '2"')
    assert next(m for m in session.studied.framed.members if m.id == stud.id).by_hand
    assert form.back.isVisibleTo(form) and "by hand" in window.in_hand.note.text()
    enter(form.fields["thick"], '2 1/2"')
    assert len(session.build.shell.framing.changes) == 2
    form.back.click()
    assert session.build.shell.framing.changes == () and session.build == before.build
    session.select((stud.id,))
    window.in_hand.form.out.click()
    assert stud.id not in {m.id for m in session.studied.framed.members}
    bench.refresh()
    button_on(bench.panel("Framing"), "Put back what was left out").click()
    bench.panel("Framing").add_stick()
    assert [c.op for c in session.build.shell.framing.changes] == ["add"]


def settled(window):
    """Everything laid out again after quick changes, with the remedies in."""
    window.session.judge(judged_once(window.session.studied))
    for _ in range(4):
        QApplication.processEvents()
    return faults_of(window)


def enter(field, words):
    field.setText(words)
    field.setModified(True)
    field.editingFinished.emit()


def test_schools_and_sizes_are_switched_and_bad_ones_are_told(open_on):
    window, session, bench = shell_bench(open_on, view="Framing")
    panel = bench.panel("Framing")
    row = next(r for r, _, _ in form_on(panel).rows if r.path == "shell.framing.school")
    form_on(panel).take(row, "stick timber")
    assert {m.kind for m in session.studied.framed.members} >= {"stud", "plate", "spar", "joist"} or session.studied.framed.faults
    deep = next((r, f) for r, _, f in form_on(panel).rows if r.path == "shell.framing.stick.deep")
    enter(deep[1], "300 mm")
    assert "stick-too-deep" in {f.code for f in session.findings}
    form_on(panel).take(deep[0], None)
    assert session.build.shell.framing.stick is None
    pitch = next(f for r, _, f in form_on(panel).rows if r.path == "shell.framing.pitch")
    enter(pitch, "1 mm")
    assert "no-pitch" in {f.code for f in session.findings} and bench.sheet.good_framed() is not None
    assert settled(window) == []


def test_layers_are_changed_one_by_one_with_a_material_of_ones_own(open_on):
    window, session, _bench = shell_bench(open_on, view="Faces")
    face = next(f for f in session.build.shell.faces if f.id == "left")
    before = session.build
    own = OwnMaterialDialog(session, window).panel
    own.keep()
    assert "name" in own.complaint.text()
    own.name.setText("Old oak")
    own.keep()
    assert "density" in own.complaint.text()
    own.numbers["density_kg_m3"].setText("very heavy")
    own.keep()
    assert "cannot be read as a density" in own.complaint.text()
    own.numbers["density_kg_m3"].setText("99000")
    own.keep()
    assert "too much" in own.complaint.text()
    own.numbers["density_kg_m3"].setText("700")
    own.keep()
    assert session.facts.materials[0].name == "Old oak" and session.facts.materials[0].form == ""
    asked = OwnMaterialDialog(session, window)
    asked.show()
    assert faults_of(asked) == []
    again = asked.panel
    again.which.show_value("own1")
    again.show_material("own1")
    assert again.name.text() == "Old oak" and again.numbers["density_kg_m3"].text() == "700 kg/m³"
    again.family.show_value("plywood")
    again.form.show_value("sheet")
    again.numbers["density_kg_m3"].setText("710")
    again.keep()
    (kept,) = session.facts.materials
    assert (kept.id, kept.family, kept.form, kept.density_kg_m3) == ("own1", "plywood", "sheet", 710.0)
    session.undo()
    dialog = LayersDialog(session, face, window)
    dialog.show()
    assert faults_of(dialog) == []
    panel = dialog.panel
    panel.add_layer()
    panel.change(3, material="own1", thickness=Length(0.004))
    panel.further_out(3)
    assert faults_of(dialog) == [] and named(panel, ChoiceField, "Material of layer 3").currentData() == "own1"
    panel.keep_button.click()
    layers = session.build.shell.faces[1].layers
    assert [la.material for la in layers] == ["light-ply", "xps", "own1", "light-ply"]
    session.undo()
    assert session.build == before


def test_a_sketch_is_laid_under_scaled_by_two_points_and_slid(open_on, tmp_path):
    window, session, bench = shell_bench(open_on)

    def sketch():
        return session.build.shell.sketch

    picture = QImage(400, 200, QImage.Format.Format_RGB32)
    picture.fill(0xFFFFFF)
    picture.save(str(tmp_path / "s.png"))
    (tmp_path / "bad.png").write_text("no picture")
    said = []
    session.said.connect(lambda text, _: said.append(text))
    bench.lay_sketch_from(tmp_path / "s.png")
    assert sketch() is None and "Save the build first" in said[-1]
    (tmp_path / "builds").mkdir()
    session.path = tmp_path / "builds" / "heron.sled"
    bench.lay_sketch_from(tmp_path / "bad.png")
    assert sketch() is None and "not a picture" in said[-1]
    bench.lay_sketch_from(tmp_path / "s.png")
    assert sketch().file == "sketches/s.png" and (tmp_path / "builds" / "sketches" / "s.png").is_file() and not sketch().picture
    assert sketch().m_per_px == pytest.approx(3.05 / 400) and bench.sheet.sketching == "scale"

    def body_fill():
        return next(one.fill for leaf in bench.sheet.leaves() for one in leaf.shapes if isinstance(one, Poly) and one.id == "shell")

    assert body_fill() == "", "the picture is seen through the body"
    bench.scale_sketch(1.0, "2 m")
    assert sketch().m_per_px == pytest.approx(2 * 3.05 / 400)
    for bad in ("-1 m", "a bit"):
        bench.scale_sketch(1.0, bad)
    assert sketch().m_per_px == pytest.approx(2 * 3.05 / 400)
    bench.hold_sketch("move")
    drag(bench.sheet, QPointF(300, 120), (40, 0))
    assert sketch().x.si == pytest.approx(1.25 + 40 / bench.sheet.scale, abs=0.01)
    window.grab()
    again = sled_file.read_bytes(sled_file.to_bytes(session.project), "x")
    assert again == session.project and "base64" not in sled_file.to_bytes(session.project).decode()
    (tmp_path / "builds" / "sketches" / "s.png").unlink()
    bench.sheet.sketching = "corners"  # it is read anew
    assert bench.sheet.sketch_image()[2] == "sketches/s.png is not there."


def test_a_picture_taken_aslant_is_straightened_by_four_points(open_on, tmp_path):
    """A rectangle of 1.2 x 0.8 m in a picture of 400 x 300, its right edge further away: straightened its corners are square and true."""
    _window, session, bench = shell_bench(open_on)
    session.path = tmp_path / "heron.sled"
    seen = [(80.0, 60.0), (320.0, 90.0), (320.0, 210.0), (80.0, 240.0)]
    picture = QImage(400, 300, QImage.Format.Format_RGB32)
    picture.fill(0xFFFFFF)
    painter = QPainter(picture)
    painter.setBrush(QColor("black"))
    painter.drawPolygon(QPolygonF([QPointF(x, y) for x, y in seen]))
    painter.end()
    picture.save(str(tmp_path / "door.png"))
    bench.lay_sketch_from(tmp_path / "door.png")
    assert session.build.shell.sketch.file == "door.png"  # it lies beside the build already
    bench.hold_sketch("corners")
    sheet, frame, sketch = bench.body, bench.body.frame("side"), session.build.shell.sketch
    set_so = []
    sheet.cornered.disconnect()
    sheet.cornered.connect(set_so.append)
    for x, y in seen:
        at = frame.point((sketch.x.si + x * sketch.m_per_px, sketch.z.si + (300 - y) * sketch.m_per_px))
        press(sheet, at)
        release(sheet, at)
    (shares,) = set_so
    assert list(shares) == pytest.approx([v for x, y in seen for v in (x / 400, y / 300)], abs=0.01)
    assert "clockwise" in corners_fault((*shares[6:], *shares[4:6], *shares[2:4], *shares[:2])) and corners_fault(shares) == ""
    bench.straighten(tuple(v for x, y in seen for v in (x / 400, y / 300)), "1.2 m", "0.8 m")
    image, m_per_px, why = sheet.sketch_image()
    dark = [
        (x, y)
        for x in range(image.width())
        for y in range(image.height())
        if QColor(image.pixel(x, y)).lightness() < 60 and image.pixelColor(x, y).alpha() > 200
    ]
    wide, high = (max(at[k] for at in dark) - min(at[k] for at in dark) + 1 for k in (0, 1))
    assert why == "" and (wide * m_per_px, high * m_per_px) == (pytest.approx(1.2, abs=0.02), pytest.approx(0.8, abs=0.02))
    assert len(dark) == pytest.approx(wide * high, rel=0.02)  # it fills its box: square on
    before = session.build
    for bad in ("-1 m", "wide"):
        bench.straighten(shares, bad, "1 m")
    assert session.build == before


def test_drawings_lie_under_the_profile_and_give_their_outline(open_on, tmp_path):
    """A half-round nose of 0.5 m and a straight tail as DXF in millimetres: within 4 mm of it, true to its length."""
    window, session, bench = shell_bench(open_on)
    session.path = tmp_path / "heron.sled"
    drawing = document.Drawing.new()
    drawing.header["$INSUNITS"] = 4
    space = drawing.modelspace()
    space.add_line((500, 0), (3000, 0))
    space.add_line((3000, 0), (2600, 1000))
    space.add_line((2600, 1000), (500, 1000))
    space.add_arc((500, 500), 500, 90, 270)
    space.add_circle((1500, 500), 100)
    drawing.saveas(tmp_path / "side.dxf")
    said = []
    session.said.connect(lambda text, _: said.append(text))
    bench.lay_sketch_from(tmp_path / "side.dxf")
    image, m_per_px, why = bench.body.sketch_image()
    assert why == "" and image.width() * m_per_px == pytest.approx(3.0, rel=0.02) and bench.sheet.sketching != "scale"
    bench.take_outline(tmp_path / "side.dxf", "4 mm")
    shell = session.build.shell
    assert (shell.length.si, shell.height.si) == (pytest.approx(3.0, abs=1e-3), pytest.approx(1.0, abs=1e-3))
    assert f"{len(shell.profile)} corners of" in said[-1] and len(shell.profile) < 25
    area = session.studied.framed.body.side.area_m2
    true = 2.1 * 1.0 + 0.4 * 1.0 / 2 + math.pi * 0.5**2 / 2
    assert area == pytest.approx(true, rel=0.02)
    before = session.build
    (tmp_path / "open.dxf").write_text("nothing")
    for path, tolerance, says in (("open.dxf", "4 mm", "no DXF"), ("side.dxf", "0", "more than nothing"), ("side.dxf", "wide", "")):
        bench.take_outline(tmp_path / path, tolerance)
        assert says in said[-1]
    assert session.build == before
    (tmp_path / "side.svg").write_text(
        '<svg xmlns="http://www.w3.org/2000/svg" width="300" height="100"><rect width="300" height="100"/></svg>'
    )
    bench.lay_sketch_from(tmp_path / "side.svg")
    assert session.build.shell.sketch.file == "side.svg" and not bench.body.sketch_image()[0].isNull()
    window.grab()


def test_variants_are_kept_opened_compared_and_thrown_away(open_on):
    window, session, _bench = shell_bench(open_on)
    assert keep_as_variant(session, "with a lower roof") and window.header.variant.full == "with a lower roof"
    session.edit("Lower", [set_to("shell.height", {"si": 1.2, "typed": None})], "Shell")
    dialog = SideBySide(session, window)
    dialog.show()
    assert dialog.table.columnCount() == len(session.project.variants) and faults_of(dialog) == []
    body = [dialog.table.item(1, at).text() for at in (0, dialog.table.columnCount() - 1)]
    assert body[0] != body[1]
    dialog.table.selectColumn(0)
    dialog.open_button.click()
    assert session.build.name == "as drawn" and session.build.shell.height.si == 1.28
    said = []
    session.said.connect(lambda text, _: said.append(text))
    assert not keep_as_variant(session, "as drawn") and "already" in said[-1]
    many = len(session.project.variants)
    assert open_variant(session, session.project.variants[-1].id)
    assert throw_away(session, session.build.id) and len(session.project.variants) == many - 1
    while session.history.done:
        session.undo()
    assert not session.history.modified


def test_forms_boxes_and_an_empty_body(open_on):
    window, session, bench = shell_bench(open_on)
    views = ("Profile", "Openings", "Framing", "Faces")
    for k, (form, words) in enumerate(field_of(Shell, "form").choices[1:]):
        bench.take_form(form, words)
        for view in views if k == 0 else {views[k % 4], "Framing"}:  # every view by turns
            bench.show_view(view)
            for _ in range(4):
                QApplication.processEvents()
            assert faults_of(window) == [], (form, view)
    assert settled(window) == []
    bench.panel("Profile").toggle_wheel_boxes()
    bench.panel("Profile").toggle_nose_box()
    assert session.build.shell.wheel_boxes is not None and "nose-box" in {p.id for p in session.studied.parts}
    bench.panel("Profile").toggle_nose_box()
    empty, session, bench = open_on(empty_project(), judged=False), None, None
    session = empty.session
    session.go_to("Shell")
    bench = empty.bench("Shell")
    for view in ("Profile", "Openings", "Framing", "Faces"):
        bench.show_view(view)
        assert faults_of(empty) == [], view
    bench.cut_in("door")
    bench.panel("Profile").toggle_wheel_boxes()
    bench.compare()
    bench.sheet.add_point()
    assert not session.history.done


def test_what_holds_is_shown_as_bars_and_on_the_body(open_on):
    window, session, bench = shell_bench(open_on)
    bench.show_view("Holds")
    panel = bench.panel("Holds")
    panel.refresh()
    assert "checked" in told(panel) and faults_of(window) == []
    before = len([one for one in panel.checks() if one.use is not None])
    enter(bench.field_of("brief.ground_snow_kpa"), "1.2")
    assert session.build.brief.ground_snow_kpa == 1.2
    assert len([one for one in panel.checks() if one.use is not None]) == before + 2
    enter(bench.field_of("brief.ground_snow_kpa"), "60")
    assert session.build.brief.ground_snow_kpa == 1.2  # no snow is so deep
    enter(bench.field_of("shell.framing.screw"), "60 mm")
    assert any(one.id == "screw" and one.use > 1 for one in panel.checks())
    texts = [one.text for one in panel.chart.make(700.0, 500.0) if isinstance(one, Text)]
    assert any("of" in text and "%" in text for text in texts) and any(text.startswith("not checked") for text in texts)
    marks = [one for leaf in bench.sheet.leaves() for one in leaf.shapes if isinstance(one, Text) and one.text == "1"]
    assert marks


def test_joints_are_made_parted_and_laid_flat(open_on):
    window, session, bench = shell_bench(open_on)
    bench.show_view("Joints")
    panel = bench.panel("Joints")
    start = session.build
    assert "Water is kept out of all" in told(panel)
    panel.tables["Seams"].selectRow(0)
    panel.make("trim", "")
    panel.make("tape", "")
    panel.make("sealant", "")
    assert "Nothing keeps water out of 1" in told(panel) and panel.tables["Seams"].rows[0].water is False
    panel.tables["Seams"].selectRow(0)
    assert named(panel, ChoiceField, "Trim").currentData() == "" and drawing(panel, "The body unfolded").make(600.0, 300.0)
    panel.take_usual()
    assert panel.tables["Seams"].rows[0].made is not None
    assert faults_of(window) == []
    panel.show_mode("Sections")
    panel.longest.setText("1.6 m")
    panel.longest.editingFinished.emit()
    panel.part_faces()
    assert len(session.build.shell.splits) >= 3 and len(panel.tables["Sections"].rows) > 6
    row = next(k for k, one in enumerate(panel.tables["Sections"].rows) if one.face == "floor")
    panel.tables["Sections"].selectRow(row)
    panel.make_whole()
    assert not any(one.face == "floor" for one in session.build.shell.splits)
    panel.part_at("floor", 1.5)
    assert any(one.face == "floor" for one in session.build.shell.splits) and faults_of(window) == []
    panel.show_mode("Panels")
    assert any("does not bend" in one.fault for one in panel.tables["Panels"].rows) and faults_of(window) == []
    while session.history.done:
        session.undo()
    assert session.build == start


@pytest.mark.parametrize("school", ["welded tube", "strip ribs"])
def test_other_schools_are_taken_and_their_fields_come(open_on, school):
    window, session, bench = shell_bench(open_on)
    bench.show_view("Framing")
    size = {"thick": {"si": 0.025}, "deep": {"si": 0.025}}
    session.edit("School", [set_to("shell.framing", {"school": school, "stick": size, "rib": size, "joist": size})], "Shell")
    assert faults_of(window) == [] and len(session.studied.framed.members) > 40
    wanted = {"welded tube": ("shell.framing.tube_wall", "1.5 mm"), "strip ribs": ("shell.framing.strip", "2 mm")}
    path, typed = wanted[school]
    enter(bench.field_of(path), typed)
    assert faults_of(window) == []
    kept = getattr(session.build.shell.framing, path.rsplit(".", 1)[1])
    assert kept.typed == typed
    for face in ("left side", "roof", "floor"):
        bench.panel("Framing").show_face(face)
        assert faults_of(window) == []


def test_the_whole_frame_stands_in_three_directions_and_is_peeled(open_on):
    window, session, bench = shell_bench(open_on, view="Framing")
    panel = bench.panel("Framing")
    panel.show_face("")
    assert panel.solid.isVisible() and not panel.flat.isVisible() and faults_of(window) == []
    near = len(near_faces(session.studied))
    assert panel.peel.maximum() == near >= 3

    def seen(peeled):
        panel.peel.setValue(peeled)
        shapes = panel.solid.make(600.0, 360.0)
        assert all(0 <= x <= 600 and 0 <= y <= 360 for one in shapes if isinstance(one, Poly) for x, y in one.points)
        return sum(isinstance(one, Poly) and one.fill == "paper" for one in shapes), {
            one.id for one in shapes if isinstance(one, Poly) and one.id
        }

    skins = [seen(k)[0] for k in range(near + 1)]
    assert skins == list(range(near, -1, -1))  # one face less at every step
    assert seen(near)[1] == {m.id for m in session.studied.framed.members}
    panel.show_face("roof")
    assert panel.flat.isVisible() and not panel.peel.isVisible() and faults_of(window) == []


def test_a_door_of_ones_own_is_made_in_hand_and_drawn_through_its_jamb(open_on):
    window, session, bench = shell_bench(open_on, view="Openings")
    door = next(one.id for one in session.build.shell.openings if one.kind == "door")
    session.select((door,))
    QApplication.processEvents()
    assert not bench.panel("Openings").jamb.isVisible()
    start = session.build
    session.edit(
        "Own",
        [
            set_to(f"shell.openings.{door}.leaf", {"stick": {"thick": {"si": 0.03}, "deep": {"si": 0.025}}}),
            set_to(f"shell.openings.{door}.mass", None),
        ],
        "Shell",
    )
    session.select((door,))
    assert bench.panel("Openings").jamb.isVisible() and "Leaf " in told(bench.panel("Openings"))
    shapes = bench.panel("Openings").jamb.make(240.0, 160.0)
    assert any("full size on paper" in one.text for one in shapes if isinstance(one, Text))
    assert faults_of(window) == []
    rows = {row.title for form in window.in_hand.findChildren(Form) for row, _, field in form.rows if not field.isHidden()}
    assert {"Made by yourself", "Leaf stick seen", "Hinges apart"} <= rows
    session.undo()
    assert session.build == start


def test_a_hatch_over_the_curve_is_cut_in_drawn_and_hung(open_on):
    window, session, bench = shell_bench(open_on)
    session.edit(
        "Round tail", [remove("shell.openings.hatch"), set_to("shell.profile", msgspec.to_builtins(PRESETS["classic round nose"]))]
    )
    bench.show_view("Openings")
    bench.cut_in_over_curve()
    id = session.selection[0]
    panel = bench.panel("Openings")
    QApplication.processEvents()

    assert session.build.shell.tail_from is not None and "ribs sawn to the curve" in told(panel)
    assert panel.rib.isVisible() and panel.jamb.isVisible() and not panel.flat.isVisible() and faults_of(window) == []
    titles = {row.title for row, _, field in window.in_hand.form.rows if not field.isHidden()}
    assert {"Ribs of", "Ribs apart"} <= titles and "Window in it wide" not in titles
    window.session.select(("window",))
    QApplication.processEvents()
    assert panel.flat.isVisible() and not panel.rib.isVisible()
    bench.show_view("Profile")
    assert session.edit("Tail begins further aft", [set_to("shell.tail_from", {"si": 2.5, "typed": None})])
    assert next(p for p in session.studied.parts if p.id == id).source == "computed" and faults_of(window) == []
    # a body without a drawn profile has no such tail
    session.edit("Box", [set_to("shell.form", "box")])
    said = []
    session.said.connect(lambda words, _: said.append(words))
    bench.cut_in_over_curve()
    assert "no tail" in said[0]


def test_screws_are_told_by_joint_and_drawn(open_on):
    window, session, bench = shell_bench(open_on, view="Joints")
    panel = bench.panel("Joints")
    panel.show_mode("Screws")
    QApplication.processEvents()
    table = panel.tables["Screws"]

    assert table.isVisible() and len(table.rows) == 12 and "kinds of joint" in told(panel) and faults_of(window) == []
    table.selectRow(2)
    QApplication.processEvents()
    assert faults_of(window) == []
    session.edit("Deeper boards", [set_to("shell.faces.left.layers.l1.thickness", {"si": 0.03, "typed": None})], "Shell")
    assert "bites too little" in str([table.model().index(row, 2).data() for row in range(table.model().rowCount())])
    session.edit("Not framed", [set_to("shell.framing.school", "none")], "Shell")
    assert "wants no screws" in told(panel) and faults_of(window) == []


def test_a_gap_with_battens_is_laid_and_kept_as_a_way(open_on, monkeypatch):
    window, session, bench = shell_bench(open_on, view="Faces")
    face = next(f for f in session.build.shell.faces if f.id == "left")
    dialog = LayersDialog(session, face, window)
    dialog.show()
    panel = dialog.panel
    panel.add_layer()
    panel.change(3, material="gap-vented", thickness=Length(0.022))
    QApplication.processEvents()
    battens = named(panel, ChoiceField, "Battens of layer 4")
    battens.entered.emit("level")
    named(panel, ChoiceField, "Layer 4 is open above and below").entered.emit(1500.0)
    assert panel.layers[3].battens == "level" and panel.layers[3].open_mm2_m == 1500.0 and faults_of(dialog) == []
    monkeypatch.setattr("uncle_sled.desk.benches.shell.layers_dialog.ask_text", lambda *_: "ply and foam")
    panel.keep_as_way()
    assert "is shipped" in panel.complaint.text() and session.facts.ways == ()
    monkeypatch.setattr("uncle_sled.desk.benches.shell.layers_dialog.ask_text", lambda *_: "My wall")
    panel.keep_as_way()
    panel.keep_as_way()
    (way,) = session.facts.ways
    assert way.name == "My wall" and way.layers == tuple(panel.layers) and not way.floor
    dialog.close()
    bench.panel("Faces").refresh()
    right = next(field for row, _, field in form_on(bench.panel("Faces")).rows if row.path == "shell.faces.right.made_of")
    assert "My wall" in [said for _, said in right.choices]
    right.entered.emit("My wall")
    assert next(f for f in session.build.shell.faces if f.id == "right").layers == way.layers
    compared = CompareWays(session, window)
    assert "My wall" in [one.name for one in compared.ways]
    assert sled_file.read_bytes(sled_file.to_bytes(session.project), "x") == session.project


def test_a_roof_that_goes_up_is_made_lifted_and_given_back(open_on):
    window, session, bench = shell_bench(open_on)
    bench.show_view("Roof up")
    panel = bench.panel("Roof up")
    start = session.build
    button_on(panel, "A roof that goes up").click()
    assert "Head room" in told(panel) and "Cloth:" in told(panel) and "lifted by hand" in told(panel)
    session.edit("Lower", [set_to("shell.rising.rise", {"si": 0.3, "typed": "300 mm"})], "Shell")
    button_on(panel, "Find struts").click()
    assert session.build.shell.rising.strut is not None and "in frost the gas gives" in told(panel)
    assert drawing(panel, "The roof down and up").make(400.0, 260.0) and drawing(panel, "What the hands feel on the way").make(300.0, 240.0)
    assert faults_of(window) == []
    button_on(panel, "No struts").click()
    assert session.build.shell.rising.strut is None
    session.edit("Too long", [set_to("shell.rising.part_to", {"si": 9.0, "typed": "9 m"})], "Shell")
    assert "past the body" in told(panel)
    button_on(panel, "It stays down").click()
    assert session.build.shell.rising is None and not told(panel).strip().startswith("Straight")
    session.undo()
    assert session.build.shell.rising is not None
    for _ in range(5):
        session.undo()
    assert session.build == start
