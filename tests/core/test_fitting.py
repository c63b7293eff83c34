"""Who fits, gets out, reaches and passes, what holds and what the sweep says: against hand sums and check cases."""

import itertools

import msgspec
import numpy as np
import pytest

from tests.builders import a_bed, a_body, a_build, a_hole, a_rig, a_shell, a_tank, a_thing
from tests.judging import settled_one
from uncle_sled.core.document.brief import Brief, Person, Vehicle
from uncle_sled.core.document.edits import apply
from uncle_sled.core.document.placing import delete_ops
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length, Mass, Volume
from uncle_sled.core.document.shell import Face
from uncle_sled.core.document.stow import Hold, Level, LoadCase, Mode, Place, Tank
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.reading.studied import study
from uncle_sled.core.remedies.remedies import worse_than
from uncle_sled.core.studies.balance.sweep import steps_for, sweep
from uncle_sled.core.studies.balance.tow_vehicle import front_axle, payload_left_kg, rear_axle
from uncle_sled.core.studies.stow.at_hand import aisle_m, arrival_kit, hatch_head_m, heights, passing, seats
from uncle_sled.core.studies.stow.beds import beds_in, narrow, sleepers_in, standing_room_m
from uncle_sled.core.studies.stow.restraints import restraints
from uncle_sled.core.studies.stow.ways_out import second_way_missing, ways_out
from uncle_sled.core.units import GRAVITY

FLOOR = 0.62
ROAD, CAMP = Mode("road", "Road", True), Mode("camp", "Camp", False)


def people(*tall):
    return Facts(tuple(Person(f"p{k}", f"Sleeper {k}", Length(h) if h else None) for k, h in enumerate(tall)))


def build_of(*things, **changes):
    return a_build(things, shell=changes.pop("shell", a_body()), **changes)


def bed(long=1.95, wide=1.3, id="bed", **changes):
    return a_thing(id, 15, x=2.0, y=0.0, z=1.0, size=(long, wide, 0.1), kind="bed", name="Bed", **changes)


def codes(build, facts=None):
    return {f.code for f in findings(study(build, facts or Facts()))}


def one(build, code, facts=None):
    return settled_one(study(build, facts or Facts()), code)


# sleeping
@pytest.mark.parametrize(("tall", "fits"), [(1.80, True), (1.801, False), (1.60, True)])
def test_a_bench_of_one_metre_ninety_takes_one_eighty(tall, fits):
    """Check case: a bench 0.6 x 1.9 m with its table leaf: sleepers over 1.80 m do not fit lengthways."""
    build = build_of(bed(1.9, 0.6))

    assert [s.fits for s in sleepers_in(build, people(tall), CAMP)] == [fits]
    assert ("sleeper-no-bed" in codes(build, people(tall))) is not fits


def test_the_tallest_gets_the_longest_bed_and_width_is_shared_out():
    short = bed(1.75, 0.7, "short", turn=90)
    build = build_of(bed(1.95, 1.15), short)
    found = {s.name: s for s in sleepers_in(build, people(1.6, 1.82, 1.8, 1.5), CAMP)}

    assert [found[f"Sleeper {k}"].bed for k in (1, 2)] == ["bed", "bed"] and found["Sleeper 1"].spot == 0
    assert found["Sleeper 0"].bed == "short" and not found["Sleeper 3"].fits
    wide = beds_in(build, people(1.82, 1.8), CAMP)[0]
    assert narrow(wide, sleepers_in(build, people(1.82, 1.8), CAMP)) == pytest.approx(0.575)
    assert "bed-narrow" in codes(build, people(1.82, 1.8))
    assert not beds_in(build, Facts(), CAMP)[1].lengthways


def test_heights_that_are_not_known_and_modes_without_a_bed_are_said():
    nobody = sleepers_in(build_of(), people(1.7), CAMP)
    unknown = sleepers_in(build_of(bed()), people(None), CAMP)

    assert not nobody[0].fits and "no bed" in nobody[0].why
    assert not unknown[0].fits and "height" in unknown[0].why
    assert "sleeper-no-bed" not in codes(build_of(), people(1.7)) | codes(build_of(bed()), people(None))


def test_sitting_up_and_standing_are_judged_where_the_brief_asks():
    low = msgspec.structs.replace(bed(), z=Length(1.75))
    asks = {"brief": Brief(sits_up=True, stands=True)}
    # the ceiling stands 0.12 under the top of 2.6; floor at 0.62
    assert beds_in(build_of(low), Facts(), CAMP)[0].head_room_m == pytest.approx(2.48 - 1.85, abs=0.004)
    assert standing_room_m(build_of(), Facts()) == pytest.approx(1.86, abs=0.004)
    assert {"no-sitting-up", "no-standing"} <= codes(build_of(low, **asks), people(1.83))
    assert not {"no-sitting-up", "no-standing"} & codes(build_of(low), people(1.83))
    assert "no-standing" not in codes(build_of(low, **asks), people(1.80))


# getting out
DOOR = a_hole("door", "right side", 2.5, 0.2, 0.7, 1.6, "door")
WINDOW = a_hole("win", "left side", 0.8, 0.9, 0.64, 0.45)


def test_two_ways_out_are_counted_by_size_and_by_what_stands_before_them():
    shell = a_body(openings=(DOOR, WINDOW, a_hole("slit", "left side", 2.5, 1.0, 0.9, 0.4)))
    good = {w.id for w in ways_out(build_of(bed(), shell=shell), people(1.7), CAMP) if w.good}
    assert good == {"door", "win"} and "no-second-way-out" not in codes(build_of(bed(), shell=shell))

    chest = a_thing("c", 60, x=1.9, y=-0.75, z=1.3, size=(0.9, 0.24, 0.7))
    blocked = build_of(bed(), chest, shell=shell)
    why = {w.id: w.why for w in ways_out(blocked, Facts(), CAMP)}
    assert "blocked by Box c" in why["win"] and "least" in why["slit"]
    found = one(blocked, "no-second-way-out")
    assert found.severity == "stop" and "One way out only" in found.title and found.caution and found.why_none

    half = a_thing("c", 60, x=1.9, y=-0.75, z=1.3, size=(0.3, 0.24, 0.7))  # leaves less than 430 of it free, lying or upright
    assert not next(w for w in ways_out(build_of(bed(), half, shell=shell), Facts(), CAMP) if w.id == "win").good


def test_stove_garage_bulkhead_and_windows_that_do_not_open():
    shell = a_body(openings=(DOOR, WINDOW))
    stove = a_thing("s", 5, x=3.9, y=0.5, z=1.2, size=(0.4, 0.4, 0.1), kind="appliance", burns="gas")
    bike = a_thing("b", 15, x=1.6, y=-0.5, z=FLOOR, size=(0.4, 0.2, 0.5), kind="vehicle aboard")
    ways = {w.id: w.through for w in ways_out(build_of(bed(), stove, bike, shell=shell), Facts(), CAMP)}
    assert ways == {"door": "galley", "win": "garage"}
    assert "every way out" in (second_way_missing(ways_out(build_of(bed(), stove, bike, shell=shell), Facts(), CAMP)) or "")

    wall = Face("bulk", "bulkhead", "Bulkhead", Mass(10.0), weight_at=Length(3.4))
    behind = build_of(bed(1.2), shell=msgspec.structs.replace(shell, faces=(wall,)))
    assert {w.id: w.why for w in ways_out(behind, Facts(), CAMP)}["door"] == "lies behind the bulkhead"
    shut = msgspec.structs.replace(WINDOW, opens=False)
    assert ways_out(build_of(bed(), shell=a_body(openings=(shut,))), Facts(), CAMP)[0].why == "does not open"
    assert "ways-not-drawn" in codes(build_of(bed())) and "ways-not-drawn" not in codes(build_of())


# at hand
def test_the_arrival_kit_is_reached_without_moving_anything():
    shell = a_body(openings=(DOOR,))
    kit = a_thing("k", 5, x=3.8, y=0.6, z=FLOOR, size=(0.3, 0.2, 0.2), arrival=True)
    deep = a_thing("d", 5, x=3.8, y=-0.6, z=FLOOR, size=(0.3, 0.2, 0.2), arrival=True)
    out = a_thing("o", 5, x=0.5, z=0.5, size=(0.3, 0.2, 0.2), arrival=True, outside=True)
    chest = a_thing("c", 20, x=3.6, y=0.79, z=FLOOR, size=(0.8, 0.15, 0.9))
    build = build_of(kit, deep, out, shell=shell)

    assert {one.id: one.good for one in arrival_kit(build, Facts(), ROAD)} == {"k": True, "d": False, "o": True}
    buried = arrival_kit(build_of(kit, chest, shell=shell), Facts(), ROAD)[0]
    assert not buried.good and buried.behind == "c"
    assert "arrival-buried" in codes(build_of(kit, chest, shell=shell))
    assert "no door" in arrival_kit(build_of(kit), Facts(), ROAD)[0].why


@pytest.mark.parametrize(
    ("size", "kind", "goes"),
    [
        ((1.75, 0.60, 1.10), "vehicle aboard", True),
        ((1.95, 0.85, 1.20), "vehicle aboard", False),  # wider than the door
        ((1.20, 0.60, 1.70), "vehicle aboard", False),  # higher, and not tipped over
        ((2.50, 0.90, 0.30), "gear", True),  # tipped on its side
        ((1.00, 0.90, 0.80), "gear", False),
    ],
)
def test_what_comes_and_goes_passes_a_door(size, kind, goes):
    build = build_of(a_thing("t", 20, x=1.6, z=FLOOR, size=size, kind=kind, cargo=True), shell=a_body(openings=(DOOR,)))

    assert [p.good for p in passing(build, Facts())] == [goes]
    assert ("door-too-small" in codes(build)) is not goes


def test_the_aisle_is_the_widest_strip_that_leads_to_the_bed():
    shell = a_body(openings=(DOOR,))
    left = a_thing("l", 30, x=2.0, y=-0.58, z=FLOOR, size=(1.6, 0.6, 0.9))
    right = a_thing("r", 30, x=2.0, y=0.58, z=FLOOR, size=(1.6, 0.6, 0.9))
    far = a_thing("bed", 15, x=1.35, y=0.0, z=FLOOR, size=(0.6, 1.6, 0.4), kind="bed")
    build = build_of(left, right, far, shell=shell)

    assert aisle_m(build, Facts(), CAMP) == pytest.approx(0.56, abs=0.02)  # from -0.28 to 0.28
    assert next(f.severity for f in findings(study(build, Facts())) if f.code == "aisle-narrow") == "note"
    nearer = msgspec.structs.replace(right, y=Length(0.44))
    assert aisle_m(build_of(left, nearer, far, shell=shell), Facts(), CAMP) == pytest.approx(0.42, abs=0.02)
    wall = a_thing("w", 30, x=2.0, y=0.0, z=FLOOR, size=(0.3, 1.75, 0.9))
    assert aisle_m(build_of(wall, far, shell=shell), Facts(), CAMP) == 0.0
    assert aisle_m(build_of(far), Facts(), CAMP) is None and aisle_m(a_build(shell=a_shell()), Facts(), CAMP) is None


def test_seats_counters_and_the_open_hatch():
    bench = a_thing("b", 15, x=2.0, z=FLOOR, size=(1.0, 0.5, 0.45), roles=("seat",), places=2)
    counter = a_thing("c", 15, x=3.0, z=FLOOR, size=(1.0, 0.5, 1.05), roles=("counter",))
    build = build_of(bench, counter, brief=Brief(eats_inside=3, pets=1))
    tops = {h.id: (h.height_m, h.good) for h in heights(build, Facts(), CAMP)}

    assert tops == {"b": (pytest.approx(0.45), True), "c": (pytest.approx(1.05), False)}
    assert seats(build, CAMP) == 2 and {"too-few-seats", "no-pet-place", "counter-height"} <= codes(build)
    hatch = a_hole("h", "rear", 0.3, 0.4, 1.4, 0.8, "hatch", hung="top", open_deg=120)
    found = hatch_head_m(build_of(shell=a_body(openings=(hatch,))), Facts())
    assert found[0][2] == pytest.approx(0.5 + 0.4 + 0.8 + 0.6 * 0.8 * 0.5)
    assert "hatch-low" in codes(build_of(shell=a_body(openings=(msgspec.structs.replace(hatch, open_deg=90),))), people(1.9))


# held down
def test_what_leans_on_a_latch_counts_with_it():
    locker = a_thing("l", 12, hold=Hold("latch", 2, Mass(10.0)))
    inside = [a_thing(f"i{k}", 5, inside="l") for k in range(2)]
    bike = a_thing("b", 30, kind="vehicle aboard", hold=Hold("strap", 2, Mass(25.0), "skin"))
    crate = a_thing("c", 8, hold=Hold("lip"))
    found = {r.id: r for r in restraints(build_of(), study(build_of(locker, *inside, bike, crate), Facts()).table)}
    assert found == {}
    build = build_of(locker, *inside, bike, crate)
    found = {r.id: r for r in restraints(build, study(build, Facts()).table)}

    assert found["l"].along_n == pytest.approx(22 * GRAVITY) and found["l"].wanted_n["side"] == pytest.approx(0.8 * 22 * GRAVITY)
    assert found["l"].weakest.capacity_n == pytest.approx(20 * GRAVITY) and found["l"].fault == "weak"
    assert found["i0"].fault == "" and found["i0"].in_thing == "l"
    assert found["b"].along_n == pytest.approx(2 * 30 * GRAVITY) and found["b"].fault == "skin"
    assert found["c"].fault == "jumps"
    remedy = one(build, "held-weak").remedy
    assert remedy is not None and "held-weak" not in codes(apply(build, remedy.ops))


def test_a_tank_is_held_full_and_loose_things_are_one_finding():
    build = build_of(a_tank("w", 40), a_thing("t", 10), a_thing("s", 2))
    found = {r.id: r for r in restraints(build, study(build, Facts()).table)}
    loose = one(build, "held-loose")

    assert found.keys() == {"w", "t"} and found["w"].mass_kg == pytest.approx(44.0)
    assert loose.severity == "note" and set(loose.where) == {"w", "t"}  # nobody has begun to hold things down
    begun = build_of(a_tank("w", 40, hold=Hold("strap", 2, Mass(100.0))), a_thing("t", 10))
    assert one(begun, "held-loose").severity == "mind" and one(begun, "held-loose").remedy is not None
    said = build_of(a_tank("w", 40, held_by="two straps"), a_thing("t", 10, held_by="net"))
    assert "held-loose" not in codes(said) and "held-unrated" in codes(said)


# sweep
def test_the_sweep_is_that_of_whole_studies_one_by_one():
    wedge = Tank(Volume(0.06), "grey", "wedge", thin_height=Length(0.0))
    things = [a_tank("a", 70, x=1.6), a_tank("b", 50, contents="grey", x=4.0, size=(0.6, 0.5, 0.4), tank=wedge)]
    build = build_of(*things, a_thing("t", 30, cargo=True, x=2.5))
    s = study(build, Facts())
    found = sweep(s, s.table.row("going-out"))
    levels = np.linspace(0, 1, steps_for(2))
    told = {}
    for a, b in itertools.product(levels[::7], repeat=2):
        case = LoadCase("own", "Own", "road", "loaded", (Level("a", float(a)), Level("b", float(b))))
        own = msgspec.structs.replace(build, stow=msgspec.structs.replace(build.stow, cases=(case,)))
        other = study(own, Facts())
        row = next(r for r, c in enumerate(other.table.cases) if c.id == "own" or "Own" in c.same_as)
        told[float(a), float(b)] = float(other.readings.tongue_kg[row])
    grid = list(itertools.product(levels, repeat=2))

    for at, (a, b) in enumerate(grid):
        if (float(a), float(b)) in told:
            assert found.load_kg[at] == pytest.approx(told[float(a), float(b)], abs=1e-6)
    out = found.low_kg - found.load_kg
    assert found.worst_low.out_kg == pytest.approx(out.max()) and len(found.load_kg) == steps_for(2) ** 2
    assert found.worst_low.load_kg == pytest.approx(found.load_kg[int(out.argmax())])


def test_many_tanks_none_and_a_bed_are_swept_or_said():
    many = [a_tank(f"w{k}", 10 + k, x=1.5 + 0.1 * k) for k in range(20)]
    s = study(build_of(*many), Facts())
    found = sweep(s, 0)

    assert len(found.load_kg) == 4096 and found.left_out == 8 and "w0" not in found.tanks
    bare = study(build_of(), Facts())
    assert len(sweep(bare, 0).load_kg) == 1 and sweep(bare, 99) is None
    truck = study(build_of(rig=a_bed()), Facts())
    on_bed = sweep(truck, 0)
    assert on_bed.of == "rear axle" and on_bed.load_kg[0] == pytest.approx(float(truck.readings.axle_kg[0, 1]))
    assert on_bed.high_kg[0] == pytest.approx(min(2400, float(truck.readings.total_kg[0]) - 0.9 * 1400))
    camp = next(r for r, c in enumerate(s.table.cases) if not c.mode.towing)
    assert sweep(s, camp) is None


def test_payload_left_is_what_is_nearest():
    rig = a_rig(gross_total=Mass(700.0))
    build = build_of(a_thing("t", 100), rig=rig)
    s = study(build, Facts())
    total = float(s.readings.total_kg[0])

    assert payload_left_kg(s, 0) == pytest.approx(700 - total)
    assert payload_left_kg(study(build_of(rig=a_rig(axles=())), Facts()), 0) is None


# bad input and remedies
def test_levels_volumes_and_outlines_that_cannot_be_are_said():
    case = LoadCase("own", "Own", "road", "loaded", (Level("w", 1.3),))
    build = build_of(a_tank("w", 40), a_tank("n", -5), a_tank("big", 400))
    build = msgspec.structs.replace(build, stow=msgspec.structs.replace(build.stow, cases=(case,)))

    assert {"level-odd", "tank-negative", "tank-too-small"} <= codes(build)
    odd = one(build, "level-odd")
    assert "130 %" in odd.title and odd.remedy is not None
    assert apply(build, odd.remedy.ops).stow.cases[0].levels[0].level == 1.0


def test_an_empty_mode_and_places_of_things_that_are_gone():
    cargo = Mode("cargo", "Cargo", True, (Place("ghost", Length(1.0), Length(0.0), Length(0.6)),), ("t1",))
    build = build_of(a_thing("t1"))
    build = msgspec.structs.replace(build, stow=msgspec.structs.replace(build.stow, modes=(ROAD, cargo)))

    assert {"mode-empty", "mode-stray"} <= codes(build)
    assert "mode-empty" not in codes(build_of())


def test_grey_follows_fresh():
    build = build_of(a_tank("f", 40, x=2.0, z=FLOOR), a_tank("g", 20, contents="grey", x=3.2, z=FLOOR))
    remedy = one(build, "grey-small").remedy
    after = apply(build, remedy.ops)

    assert after.stow.things[1].tank.volume == build.stow.things[0].tank.volume
    assert "grey-small" not in codes(after)


REMEDIES = {
    "clash": lambda: build_of(a_thing("a", 20, x=2.0, z=FLOOR), a_thing("b", 5, x=2.2, z=FLOOR)),
    "clash-body": lambda: build_of(a_thing("a", 20, x=1.22, z=FLOOR)),
    "stands-outside": lambda: build_of(a_thing("a", 20, x=0.4, z=0.7)),
    "covers": lambda: build_of(
        a_thing("l", 8, x=2.3, y=-0.75, z=1.3, size=(0.4, 0.24, 0.3)),
        shell=a_body(openings=(a_hole("win", "left side", 1.0, 0.8, 0.6, 0.4, seal="bulb", drip=True),)),
    ),
    "held-jumps": lambda: build_of(a_thing("a", 20, x=2.0, z=FLOOR, hold=Hold("rail"))),
}


@pytest.mark.parametrize("code", list(REMEDIES))
def test_each_trouble_has_a_remedy_that_settles_it_and_adds_none(code):
    build = REMEDIES[code]()
    s = study(build, Facts())
    found = one(build, code)

    assert found.remedy is not None, found.why_none
    after = apply(build, found.remedy.ops)
    judged = findings(study(after, Facts()))
    assert found.key not in {f.key for f in judged} and not any(map(worse_than(findings(s)), judged))


def test_a_container_is_moved_with_what_is_in_it():
    locker = a_thing("l", 30, x=1.22, z=FLOOR, size=(0.6, 0.4, 0.5))
    inner = a_thing("i", 5, x=1.3, z=0.7, size=(0.2, 0.2, 0.2), inside="l")
    build = build_of(locker, inner)
    after = apply(build, one(build, "clash-body").remedy.ops)
    gap = [t.x.si for t in build.stow.things], [t.x.si for t in after.stow.things]

    assert gap[1][0] - gap[0][0] == pytest.approx(gap[1][1] - gap[0][1]) and gap[1][0] > gap[0][0]


def test_deleting_a_container_frees_what_was_in_it():
    build = build_of(a_thing("l"), a_thing("i", inside="l"))
    after = apply(build, delete_ops(build, ("l",)))

    assert [(t.id, t.inside) for t in after.stow.things] == [("i", None)]


def test_the_car_s_axles_by_moments():
    """Check: 80 kg on a ball 1.0 m behind the rear axle of a 2.7 m wheelbase: rear + 109.6, front - 29.6."""
    car = Vehicle("v", "Car", front_empty=Mass(900.0), rear_empty=Mass(600.0), wheelbase=Length(2.7), ball_overhang=Length(1.0))
    s = study(build_of(a_thing("t", 60, x=1.6)), Facts(vehicles=(car,)))
    tongue = float(s.readings.tongue_kg[0])

    assert rear_axle(s, 0).kg == pytest.approx(600 + tongue * 3.7 / 2.7)
    assert front_axle(s, 0).kg == pytest.approx(900 - tongue / 2.7)
    camp = next(r for r, c in enumerate(s.table.cases) if not c.mode.towing)
    assert rear_axle(s, camp) is None and front_axle(s, camp) is None
