"""On the road: what a ticket says, what tickets teach, papers, trips, standing; against the trade's check cases."""

from __future__ import annotations

import math
import random
import socket
import threading
from pathlib import Path

import msgspec
import numpy as np
import pytest

from tests.judging import settled_one
from uncle_sled.cli import main
from uncle_sled.core.document.edits import add_to, apply, set_to
from uncle_sled.core.document.project import Facts, empty_project
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.road import Reading, Road, Standing, Ticket, Trip, Wish
from uncle_sled.core.drawing.primitives import Text
from uncle_sled.core.drawing.road.papers import data_sheet, hand_over, standing_pages
from uncle_sled.core.errors import FileError
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.reading.learnt import columns_of, group_of
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.road.reconcile import accepted, correction_of, reconcile, update
from uncle_sled.core.studies.road.standing import block_loads_n, pad_side_m, stands, up_m, usual_blocks
from uncle_sled.core.studies.road.steady import Steadiness, parsed_line
from uncle_sled.core.studies.road.trips import taken
from uncle_sled.core.studies.road.weighing import (
    case_row,
    cases_like,
    jack_tongue_kg,
    modelled,
    nearest_case,
    plank_kg,
    reading_sigma_kg,
    stale,
    tilted_height_m,
    weighed,
)
from uncle_sled.core.studies.road.wishes import traced
from uncle_sled.exchange.battery_record import read_record
from uncle_sled.exchange.demos import DEMOS, demo
from uncle_sled.exchange.stand_in_scale import lines, read_loads, serve


def heron(*ops):
    """The teardrop before it was ever weighed."""
    project = demo("marsh-heron")
    build = apply(project.build, [set_to("road", Road()), *ops])
    return build, project.facts


def pads(s, case: str, more_kg: float = 0.0, at_m: float | None = None, step: float = 0.5, id: str = "tk1") -> Ticket:
    """A ticket of pads as a trailer would give it that is so much heavier at a place."""
    row = s.table.row(case)
    axle = float(s.readings.effective_axle_m[row])
    tongue = float(s.readings.tongue_kg[row]) + (more_kg * (1 - at_m / axle) if at_m is not None else 0.0)
    wheels = float(s.readings.total_kg[row]) + more_kg - tongue
    return Ticket(
        id,
        "2027-09-01",
        "wheel pads",
        (Reading("left", wheels / 2), Reading("right", wheels / 2), Reading("ball", tongue)),
        step_kg=step,
        case=case,
    )


# what a ticket says


def test_ways_of_weighing_are_those_of_the_notes() -> None:
    assert plank_kg(42, 3, 1.2, 0.4) == pytest.approx(117)
    assert jack_tongue_kg(62, 0.45, 3.10) == pytest.approx(53.0)
    assert reading_sigma_kg(20.0, 0.0, 900) == pytest.approx(5.77, abs=0.01)
    assert tilted_height_m(700, 60, 38, 3.0, 0.30, 0.45, 12) == pytest.approx(0.752, abs=0.001)
    assert abs(tilted_height_m(700, 61, 38, 3.0, 0.30, 0.45, 12) - 0.752) == pytest.approx(0.020, abs=0.001)
    build, facts = heron()
    ticket = Ticket(
        "t",
        "2027-01-01",
        "platform with the car",
        tuple(
            Reading(id, kg)
            for id, kg in (("steer", 1180.0), ("drive", 1420.0), ("trailer", 760.0), ("steer alone", 1225.0), ("drive alone", 1290.0))
        ),
    )
    what = weighed(ticket, study(build, facts))
    assert (what.tongue_kg, what.total_kg, what.axle_kg) == (85.0, 845.0, 760.0)
    assert what.sigma_tongue_kg == pytest.approx(11.6, abs=0.2)
    assert any("not enough" in one and "plank" in one for one in what.minds)


def test_a_ticket_says_what_is_wanted_and_what_is_odd_about_it() -> None:
    build, facts = heron()
    s = study(build, facts)
    assert "not typed" in weighed(Ticket("t", "", "tongue scale"), s).faults[0]
    assert "below nothing" in weighed(Ticket("t", "", "tongue scale", (Reading("ball", -4.0),)), s).faults[0]
    jack = Ticket("t", "", "trailer on its jack", (Reading("whole", 600.0), Reading("axles", 640.0)), jack=Length(0.45))
    assert "wrong way round" in weighed(jack, s).faults[0]
    assert "jack" in weighed(msgspec.structs.replace(jack, jack=None), s).faults[0]
    plank = Ticket("t", "", "plank", (Reading("plank", 42.0), Reading("bare plank", 3.0)))
    assert "plank's two lengths" in weighed(plank, s).faults[0]
    row = s.table.row("going-out")
    total, ball = float(s.readings.total_kg[row]), float(s.readings.tongue_kg[row])
    pounds = Ticket(
        "t",
        "",
        "wheel pads",
        (Reading("left", (total - ball) / 2 / 0.4536), Reading("right", (total - ball) / 2 / 0.4536), Reading("ball", ball / 0.4536)),
        step_kg=1.0,
    )
    assert any("pounds were typed as kilograms" in one for one in weighed(pounds, s).minds)
    other = Ticket("t", "", "wheel pads", (Reading("left", 1500.0), Reading("right", 1500.0), Reading("ball", 200.0)))
    assert any("another trailer" in one for one in weighed(other, s).minds)


def test_the_nearest_case_is_shown_and_an_old_ticket_says_so() -> None:
    build, facts = heron()
    s = study(build, facts)
    for case in ("going-out", "coming-home", "bare-shell"):
        row = s.table.row(case)
        assert nearest_case(s, float(s.readings.total_kg[row]), float(s.readings.tongue_kg[row])) == row
    ticket = msgspec.structs.replace(pads(s, "going-out"), model=modelled(s))
    assert stale(ticket, s, s.table.row("going-out")) is None
    heavier = apply(build, [set_to("stow.things.t3.mass", {"si": 90.0}), add_to("road.tickets", ticket)])
    after = study(heavier, facts)
    off = stale(ticket, after, after.table.row("going-out"))
    assert off is not None and off.total == pytest.approx(0.13, abs=0.03)
    assert "ticket-old" in {one.code for one in findings(after)}
    # the same mass elsewhere is another trailer to the ball, and an old ticket teaches nothing
    aft = [set_to("stow.things.t3.x", {"si": 3.6}), add_to("road.tickets", ticket)]
    moved = study(apply(build, aft), facts)
    off = stale(ticket, moved, moved.table.row("going-out"))
    assert off is not None and abs(off.total) < 0.01 and off.tongue_kg < -3
    assert reconcile(moved) is None and "ticket-odd" not in {one.code for one in findings(moved)}


# what tickets teach

X = np.array([2.30, 2.75, 4.10, 2.20])
M0 = np.array([220.0, 260.0, 110.0, 90.0])
COV = np.diag([(0.03 * 220) ** 2, (0.06 * 260) ** 2 + (0.04 * 260) ** 2, (0.15 * 110) ** 2, (0.15 * 90) ** 2])
TRUE = M0 + np.array([0.0, 30.0, 0.0, 0.0])


def test_one_ticket_is_reconciled_as_in_the_notes() -> None:
    h = np.array([np.ones(4), 1 - X / 3.0])
    made = update(M0, COV, h, np.array([710.0, 59.17]), np.diag([4.0**2, 1.5**2]))
    assert made.mass == pytest.approx([222.1, 273.9, 114.5, 98.9], abs=0.1)
    assert np.sqrt(np.diag(made.cov)) == pytest.approx([6.3, 13.7, 4.8, 9.9], abs=0.05)
    assert made.predicted == pytest.approx([709.4, 59.05], abs=0.05)
    assert np.sqrt(np.diag(made.predicted_cov)) == pytest.approx([4.0, 1.47], abs=0.05)
    assert made.surprise == pytest.approx(1.09, abs=0.005)


def test_three_tickets_find_what_one_cannot() -> None:
    arm = 1 - X / 3.0
    rows, z = [], []
    for there in ([1, 1, 0, 0], [1, 1, 1, 0], [1, 1, 1, 1]):
        on = np.array(there, dtype=float)
        rows += [on, on * arm]
        z += [float(on @ TRUE), float((on * arm) @ TRUE)]
    made = update(M0, COV, np.array(rows), np.array(z), np.diag([16.0, 2.25] * 3))
    assert made.mass == pytest.approx([222.6, 286.3, 110.9, 90.2], abs=0.15)
    assert np.sqrt(np.diag(made.cov)) == pytest.approx([5.1, 6.6, 2.6, 3.8], abs=0.1)
    assert made.mass[1] - 260 == pytest.approx(26.3, abs=0.15)


def test_a_planted_excess_is_not_claimed_from_one_ticket_and_comes_back_from_three() -> None:
    build, facts = heron()
    s = study(build, facts)
    body = [k for k, part in enumerate(s.parts) if group_of(part) == "body"]
    mass = s.table.mass_kg[s.table.row("going-out"), body]
    at = float((mass * s.table.x_m[s.table.row("going-out"), body]).sum() / mass.sum())
    one = [pads(s, "going-out", 30.0, at)]
    loaded = study(apply(build, [add_to("road.tickets", one[0])]), facts)
    made = reconcile(loaded)
    assert made is not None and made.tickets[0].surprise is not None
    three = [pads(s, case, 30.0, at, id=f"tk{k}") for k, case in enumerate(("bare-shell", "for-sale", "going-out"))]
    taught = study(apply(build, [add_to("road.tickets", one) for one in three]), facts)
    more = reconcile(taught)
    assert more is not None
    found = {group.id: group for group in more.groups}
    excess = found["body"].after_kg - found["body"].before_kg
    assert abs(excess - 30.0) < 2 * found["body"].sigma_kg + 3.0
    assert found["body"].sigma_kg < next(g for g in made.groups if g.id == "body").sigma_kg
    assert any("body" in words.lower() and "heavier" in words for words in more.says)
    assert all(abs(g.after_kg - g.before_kg) < 12 for g in more.groups if g.id not in ("body",))


def test_accepting_corrects_every_case_once_and_scales_with_later_edits() -> None:
    build, facts = heron()
    s = study(build, facts)
    ticket = pads(s, "going-out", 24.0, 2.7)
    s = study(apply(build, [add_to("road.tickets", ticket)]), facts)
    made = reconcile(s)
    assert made is not None
    done = apply(s.build, [add_to("road.corrections", correction_of(s, made, "co1"))])
    after = study(done, facts)
    row = after.table.row("going-out")
    assert float(after.readings.total_kg[row]) == pytest.approx(float(s.readings.total_kg[row]) + 24, abs=2)
    assert float(after.readings.tongue_sigma_kg[row]) < float(s.readings.tongue_sigma_kg[row])
    home = after.table.row("coming-home")
    assert float(after.readings.total_kg[home]) > float(s.readings.total_kg[home]) + 10
    assert accepted(after) == {"tk1"} and reconcile(after) is None  # a second accept of it finds nothing open
    again = reconcile(after, [ticket])
    assert again is not None and (again.tickets[0].surprise or 0) < 1.0
    # a wall that is made twice as heavy later carries the same factor
    factor = {one.id: one.factor for one in done.road.corrections[-1].groups}
    bare, learnt = study(build, facts), after
    body = columns_of(after.parts)["body"]
    assert learnt.table.mass_kg[row, body].sum() == pytest.approx(bare.table.mass_kg[row, body].sum() * factor["body"])
    thicker = [set_to(f"shell.faces.{build.shell.faces[0].id}.layers.{build.shell.faces[0].layers[0].id}.thickness", {"si": 0.02})]
    one, two = study(apply(build, thicker), facts), study(apply(done, thicker), facts)
    assert two.table.mass_kg[row, body].sum() == pytest.approx(one.table.mass_kg[row, body].sum() * factor["body"])
    assert study(apply(done, [set_to("road.corrections", [])]), facts).readings.total_kg == pytest.approx(s.readings.total_kg, nan_ok=True)


def test_tickets_that_contradict_each_other_are_named_with_by_how_much() -> None:
    build, facts = heron()
    s = study(build, facts)
    a, b = pads(s, "going-out"), msgspec.structs.replace(pads(s, "going-out", 60.0, 2.7, id="tk2"), on="2027-09-02")
    both = study(apply(build, [add_to("road.tickets", a), add_to("road.tickets", b)]), facts)
    made = reconcile(both)
    assert made is not None and "60 kg" in made.fights[0] and "2027-09-01" in made.fights[0]
    assert "tickets-fight" in {one.code for one in findings(both)}
    far = study(apply(build, [add_to("road.tickets", pads(s, "going-out", 150.0, 2.7))]), facts)
    assert "ticket-odd" in {one.code for one in findings(far)}


def test_the_demos_tell_their_stories() -> None:
    project = demo("marsh-heron")
    made = reconcile(study(project.build, project.facts))
    assert made is not None and any("body" in one.lower() and "heavier" in one for one in made.says)
    rosin = demo("rosin-box")
    s = study(rosin.build, rosin.facts)
    coarse, plank = (weighed(one, s) for one in rosin.build.road.tickets)
    assert any("not enough" in one for one in coarse.minds) and not plank.minds and not plank.faults
    keeper = demo("orchard-keeper")
    made_up = stands(study(keeper.build, keeper.facts))
    assert len(made_up.blocks) == 3 and not made_up.lifts and made_up.blocks[-1].up_m > made_up.blocks[0].up_m
    sky = demo("dark-sky")
    assert sky.build.road.trips[0].nights == 4 and sky.build.road.trips[0].planned_nights == 6


# the scale


def test_rubbish_half_lines_and_drop_outs_are_survived() -> None:
    rng = random.Random(3)
    signs = "0123456789.,-+ ekgE\x00\xff\t;|"
    for _ in range(100_000):
        line = "".join(rng.choice(signs) for _ in range(rng.randint(0, 14)))
        value = parsed_line(line)
        assert value is None or (isinstance(value, float) and abs(value) <= 60_000)
    assert parsed_line("412.50") == 412.5 and parsed_line(" 412,5 kg") == 412.5 and parsed_line("1e5") is None
    assert parsed_line("4" * 200) is None and parsed_line("") is None and parsed_line("nan") is None


def test_a_scale_is_steady_when_it_holds_still_for_three_seconds() -> None:
    held = Steadiness()
    for k in range(20):
        held.add(k * 0.1, 100.0 + k * 2)
    assert held.steady_kg() is None
    for k in range(40):
        held.add(2.0 + k * 0.1, 140.0 + (0.1 if k % 2 else -0.1))
    assert held.steady_kg() == pytest.approx(140.0, abs=0.05)
    held.add(5.9, 300.0)
    assert held.steady_kg() is None
    held.add(1.0, 5.0)  # the clock was set back: it begins anew
    assert held.last() == 5.0 and held.steady_kg() is None and held.drift_kg() is None


def test_the_stand_in_settles_fails_and_serves_on_loopback(tmp_path: Path) -> None:
    (tmp_path / "loads.txt").write_text("412.5 6  # left wheel\nrubbish 1\n0 1\nfail\n")
    loads = read_loads(tmp_path / "loads.txt")
    sent = list(lines(loads))
    numbers = [parsed_line(one or "") for one in sent[:60]]
    assert numbers[0] != pytest.approx(412.5, abs=5) and numbers[-1] == pytest.approx(412.5, abs=0.5)
    assert sent[-1] is None and all(parsed_line(one or "") is None for one in sent[60:70])
    ports: list[str] = []
    ready = threading.Event()

    def said(words: str) -> None:
        ports.append(words)
        ready.set()

    thread = threading.Thread(target=serve, args=(loads, 0, said, 0.0, True), daemon=True)
    thread.start()
    assert ready.wait(5)
    port = int(ports[0].split("port ")[1].split(";")[0])
    with socket.create_connection(("127.0.0.1", port), 5) as caller:
        data = b""
        while chunk := caller.recv(4096):
            data += chunk
    thread.join(5)
    assert data.decode().count("\n") == len(sent) - 1
    with socket.socket() as taken_port:
        taken_port.bind(("127.0.0.1", 0))
        taken_port.listen(1)
        with pytest.raises(FileError, match="cannot be had"):
            serve(loads, taken_port.getsockname()[1], said, 0.0, True)
    for bad in ("heavy\n", "5 -1\n", "", "1e9 3\n"):
        (tmp_path / "bad.txt").write_text(bad)
        with pytest.raises(FileError):
            read_loads(tmp_path / "bad.txt")
    assert main(["stand-in", "scale", "--from", str(tmp_path / "none.txt")]) == 2


# papers, trips, standing


def words_on(pages) -> list[str]:
    return [shape.text for page in pages for shape in page.shapes if isinstance(shape, Text)]


@pytest.mark.parametrize("name", DEMOS)
def test_papers_never_invent_a_number(name: str) -> None:
    project = demo(name)
    s = study(project.build, project.facts)
    told = words_on(data_sheet(s, project.name, "today"))
    assert any("computed" in one for one in told) and any("not known" in one or "not given" in one for one in told)
    assert not any("nan" in one.lower().split() for one in told)
    hand = words_on(hand_over(s, project.name, "today"))
    assert any("What was asked for" in one for one in hand)
    for page in (
        *data_sheet(s, project.name, "today"),
        *hand_over(s, project.name, "today"),
        *standing_pages(stands(s), s, project.name, "today"),
    ):
        for shape in page.shapes:
            if isinstance(shape, Text):
                assert 0 <= shape.at[1] <= page.height
    bare = study(empty_project().build, Facts())
    assert data_sheet(bare, "x", "today") and standing_pages(stands(bare), bare, "x", "today") == ()


def test_a_weighed_case_says_so_on_the_data_sheet_and_altered_axles_have_no_rating() -> None:
    project = demo("marsh-heron")
    s = study(project.build, project.facts)
    told = words_on(data_sheet(s, "Heron", "today"))
    assert any(one.startswith("weighed 2027-09-05") for one in told)
    altered = apply(project.build, [set_to("rig.axles.a1.altered", True)])
    assert any("rating unknown" in one for one in words_on(data_sheet(study(altered, project.facts), "Heron", "today")))


def test_wishes_are_traced_and_an_open_one_is_found() -> None:
    build, facts = heron(add_to("road.wishes", Wish("ws1", "Waders", "t12")), add_to("road.wishes", Wish("ws2", "A bath")))
    s = study(build, facts)
    met, open_ = traced(s)
    assert met.met and met.mass_kg is not None and not open_.met and open_.mass_kg is None
    assert [one.where for one in findings(s) if one.code == "wish-open"] == [("wish", "ws2")]
    agreed = apply(build, [set_to("road.wishes.ws2.agreed", "left out")])
    assert "wish-open" not in {one.code for one in findings(study(agreed, facts))}
    gone = apply(build, [set_to("road.wishes.ws1.where", "nothing")])
    assert not traced(study(gone, facts))[0].met


def test_what_trips_took_can_be_taken_into_the_plan() -> None:
    build, facts = heron(add_to("road.trips", Trip("t", "Trip", nights=2, people=2, water_l=20.0)))
    s = study(build, facts)
    water = next(one for one in taken(s) if one.unit == "L")
    assert water.took == 5.0 and water.ratio is not None and water.ratio < 0.8
    found = settled_one(s, "trip-taught")
    assert found.remedy is not None
    after = study(apply(build, found.remedy.ops), facts)
    assert "trip-taught" not in {one.code for one in findings(after)}


def test_a_battery_record_with_gaps_is_read_for_what_it_holds(tmp_path: Path) -> None:
    path = tmp_path / "b.csv"
    path.write_text(
        "time;watts\n2027-05-01 20:00;60\n2027-05-01 20:30;60\nrubbish;x\n2027-05-01 21:00;-40\n2027-05-02 06:00;20\n2027-05-02 07:00;20\n"
    )
    read = read_record(path)
    assert read.gaps == 9.0 and read.left_out == 1 and read.hours == 2.0
    assert read.out_wh == pytest.approx(30 + 5 + 20) and "no record" in read.says()
    path.write_text("time,volts,amps\n2027-05-01 20:00,12.5,4\n2027-05-01 21:00,12.5,4\n")
    assert read_record(path).out_wh == pytest.approx(50.0)
    for bad in ("when,what\n1,2\n", "time,watts\n2027-05-01,5\n"):
        path.write_text(bad)
        with pytest.raises(FileError):
            read_record(path)


def test_blocks_pads_and_levels_are_those_of_the_notes() -> None:
    loads = block_loads_n(5300 * 9.80665, 3.45, np.array([0.4, 3.45, 6.5])) / 2
    assert loads == pytest.approx([8662] * 3, abs=2)
    assert pad_side_m(8662, 75.0) == pytest.approx(0.34, abs=0.005)
    assert pad_side_m((5300 * 9.80665 + 1050 * 17.25) / 6, 75.0) == pytest.approx(0.39, abs=0.01)
    assert [up_m(at, 0.140, 6.9) * 1000 for at in (0.4, 3.4, 6.5)] == pytest.approx([8, 69, 132], abs=0.5)
    off = block_loads_n(1000.0, 1.0, np.array([0.0, 4.0]))
    assert off == pytest.approx([750, 250]) and block_loads_n(1000.0, -1.0, np.array([0.0, 4.0]))[1] < 0
    build, facts = heron(set_to("road.standing", Standing(blocks=(Length(0.1), Length(0.3)))))
    s = study(build, facts)
    assert stands(s).lifts and "block-lifts" in {one.code for one in findings(s)}
    assert len(usual_blocks(s, 4).blocks) == 4
    windy = study(apply(build, [set_to("road.standing", Standing(wind_pa=1500.0))]), facts)
    assert stands(windy).anchor_n > 0 and stands(study(empty_project().build, Facts())).why


def test_total_and_ball_by_two_numbers_and_what_was_aboard_is_asked() -> None:
    """845 kg in all on steps of 20, 85 on the ball: doubts 20 / sqrt 12 each; a case is only that which was said."""
    s = study(*heron())
    ticket = Ticket("t", "2027-01-02", "total and ball", (Reading("total", 845.0), Reading("ball", 85.0)), grade=0.0)
    what = weighed(ticket, s)
    assert (what.total_kg, what.tongue_kg) == (845.0, 85.0) and what.sigma_total_kg == pytest.approx(20 / math.sqrt(12))
    assert (
        "typed the wrong way round"
        in weighed(msgspec.structs.replace(ticket, readings=(Reading("total", 85.0), Reading("ball", 845.0))), s).faults[0]
    )
    like = cases_like(s, what)
    assert {aboard.row for aboard in like} == set(s.towing_rows) and case_row(s, ticket) is None
    for aboard in like:
        assert aboard.more_kg == pytest.approx(845.0 - float(s.readings.total_kg[aboard.row]))
        assert aboard.ball_more_kg == pytest.approx(85.0 - float(s.readings.tongue_kg[aboard.row]))
    said = msgspec.structs.replace(ticket, case=s.table.cases[like[0].row].id)
    assert case_row(s, said) == like[0].row and reconcile(s, (ticket,)) is None


def test_ground_that_bears_nothing_is_taken_as_soft_and_said():
    project = demo("orchard-keeper")
    build = project.build
    blank, none = (msgspec.structs.replace(build.road.standing, bearing_kpa=value) for value in (None, 0.0))
    made = [
        stands(study(msgspec.structs.replace(build, road=msgspec.structs.replace(build.road, standing=standing)), project.facts))
        for standing in (blank, none)
    ]
    assert made[0].blocks == made[1].blocks and any("soft ground" in text for text in made[1].assumed)
