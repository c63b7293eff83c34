"""Sizes of wire, what they carry, and the fuses that guard them.

Building class: IEC 60364-5-52 method B1, three loaded, PVC, 30 degrees (metric), the 60 degree column of NEC 310.16 (AWG):
cautious, for mains and for conduit. Vehicle class: 105 degree insulation by ISO 10133 and ABYC E-11, for what is printed so.
"""

from __future__ import annotations

from typing import Literal, NamedTuple

import msgspec

Class = Literal["building", "vehicle"]
RHO_20, RHO_60 = 0.0175, 0.0203  # of copper [ohm mm2/m] at 20 degrees, and where it is loaded over half
HOT_SHARE = 0.5
COPPER_KG_M3, SHEATH = 8960.0, 1.35  # what insulation and sheath add to the copper's weight
START_DROP = 0.10  # of the volts, while something starts: a motor still turns over on nine tenths
FUSE_OVER, FUSE_OVER_HARD = 1.25, 1.5  # of the steady current; of what starts hard
LEAST_DROP = 0.03
FUSES_A = (
    1.0,
    2.0,
    3.0,
    5.0,
    7.5,
    10.0,
    15.0,
    20.0,
    25.0,
    30.0,
    35.0,
    40.0,
    50.0,
    60.0,
    70.0,
    80.0,
    90.0,
    100.0,
    110.0,
    125.0,
    150.0,
    175.0,
    200.0,
    225.0,
    250.0,
    300.0,
)
BREAKERS_A = {"230": (6.0, 10.0, 13.0, 16.0, 20.0, 25.0, 32.0), "120": (15.0, 20.0, 25.0, 30.0, 40.0, 50.0)}
LEAST_MAINS_MM2 = 1.5  # thinner is not laid for mains
# What a type of fuse breaks at the most [A], the least first. Makers' sheets say more and are to be read.
BREAKS_A = (("blade", 1000.0), ("bolt-down", 2000.0), ("terminal block, 10 kA", 10_000.0), ("class T, 20 kA", 20_000.0))


class Size(msgspec.Struct, frozen=True):
    """One size as sold: its name, copper [mm2], and what it carries by class [A]."""

    name: str
    mm2: float
    building_a: float
    vehicle_a: float

    def carries_a(self, insulation: Class) -> float:
        """What it carries by the table of its insulation [A]."""
        return self.building_a if insulation == "building" else self.vehicle_a


def _metric(mm2: float, building: float, vehicle: float) -> Size:
    return Size(f"{mm2:g} mm²", mm2, building, vehicle)


METRIC = tuple(
    _metric(*one)
    for one in (
        (0.75, 7, 16),
        (1, 10, 20),
        (1.5, 15, 25),
        (2.5, 21, 35),
        (4, 28, 45),
        (6, 36, 60),
        (10, 50, 90),
        (16, 68, 130),
        (25, 89, 170),
        (35, 110, 210),
        (50, 134, 270),
        (70, 171, 330),
        (95, 207, 390),
        (120, 239, 450),
    )
)
AWG = tuple(
    Size(f"AWG {name}", *rest)
    for name, *rest in (
        ("18", 0.82, 7, 20),
        ("16", 1.31, 10, 25),
        ("14", 2.08, 15, 35),
        ("12", 3.31, 20, 45),
        ("10", 5.26, 30, 60),
        ("8", 8.37, 40, 80),
        ("6", 13.3, 55, 120),
        ("4", 21.2, 70, 160),
        ("2", 33.6, 95, 210),
        ("1", 42.4, 110, 245),
        ("1/0", 53.5, 125, 285),
        ("2/0", 67.4, 145, 330),
        ("3/0", 85.0, 165, 385),
        ("4/0", 107.0, 195, 445),
    )
)
SIZES = {"mm2": METRIC, "AWG": AWG}
# Wholly in insulation, by how long [m]: share of the ampacity left. Source: BS 7671 practice.
IN_FOAM = ((0.0, 1.0), (0.05, 0.88), (0.1, 0.78), (0.2, 0.63), (0.4, 0.51), (0.5, 0.5))
NEAR_ENGINE = 0.85


def derating(bundle: int, in_foam_m: float, near_engine: bool) -> float:
    """Share of the ampacity that is left, 0 to 1: bundled, in insulation, in an engine's warmth."""
    share = 1.0 if bundle < 4 else 0.7 if bundle <= 6 else 0.6 if bundle <= 24 else 0.5
    at = next((k for k, (metres, _) in enumerate(IN_FOAM) if in_foam_m <= metres), None)
    if at is None:
        share *= IN_FOAM[-1][1]
    elif at > 0:
        (a, left), (b, right) = IN_FOAM[at - 1], IN_FOAM[at]
        share *= left + (right - left) * (in_foam_m - a) / (b - a)
    return share * (NEAR_ENGINE if near_engine else 1.0)


def drop_v(length_m: float, current_a: float, mm2: float, ampacity_a: float) -> float:
    """What is lost there and back [V]; warmer copper where it is loaded over half of what it may carry."""
    rho = RHO_60 if ampacity_a > 0 and current_a > HOT_SHARE * ampacity_a else RHO_20
    return 2 * length_m * current_a * rho / mm2


def fuse_for(current_a: float, ampacity_a: float, hard: bool, standard: tuple[float, ...] = FUSES_A, start_a: float = 0.0) -> float | None:
    """The next standard fuse over the load, and over what it draws while it starts, that is not over the wire [A].

    None where there is none.
    """
    wanted = max(current_a * (FUSE_OVER_HARD if hard else FUSE_OVER), start_a)
    found = next((one for one in standard if one >= wanted - 1e-9), None)
    return found if found is not None and found <= ampacity_a + 1e-9 else None


class Chosen(msgspec.Struct, frozen=True):
    """A size for a wire: the size, what it carries derated [A], its drop [V], its fuse [A]; ``why`` where there is none."""

    size: Size | None
    ampacity_a: float
    drop_v: float
    fuse_a: float | None
    why: str = ""


class Run(NamedTuple):
    """What a wire has to carry. share: of the volts that may be lost; start_a: what it carries

    for over a second while the hardest of its loads starts, 0 where nothing does.
    """

    length_m: float
    current_a: float
    volts: float
    share: float
    start_a: float = 0.0


class Guard(NamedTuple):
    """How it is fused. typed_a: where somebody chose a fuse; further_a: the fuse or breaker further up that guards it where

    it has none of its own; hard: its load starts hard.
    """

    hard: bool = False
    fused: bool = True
    standard: tuple[float, ...] = FUSES_A
    typed_a: float | None = None
    further_a: float = 0.0


PLAIN = Guard()


def choose(run: Run, insulation: Class, left: float, sizes: tuple[Size, ...], guard: Guard = PLAIN) -> Chosen:
    """The smallest size whose drop, ampacity and fuse are right. Args: left: what derating leaves, 0 to 1."""
    length_m, current_a, volts, share, start_a = run
    hard, fused, standard, typed_fuse_a, guard_a = guard
    small: Chosen | None = None
    for size in sizes:
        carries = size.carries_a(insulation) * left
        if carries < max(current_a, guard_a) - 1e-9:
            continue
        fuse = typed_fuse_a if typed_fuse_a is not None else fuse_for(current_a, carries, hard, standard, start_a) if fused else None
        if fused and (fuse is None or fuse > carries + 1e-9):
            continue
        lost = drop_v(length_m, current_a, size.mm2, carries)
        small = Chosen(size, carries, lost, fuse)
        at_start = drop_v(length_m, start_a, size.mm2, carries) if start_a > 0 else 0.0
        if lost <= share * volts + 1e-9 and at_start <= max(share, START_DROP) * volts + 1e-9:
            return small
    if small is not None:
        return Chosen(None, 0.0, 0.0, None, f"even {small.size.name if small.size else ''} loses more than allowed over that length")
    if guard_a > current_a and not fused:
        return Chosen(
            None,
            0.0,
            0.0,
            None,
            f"no size in the table carries the {guard_a:g} A that the fuse before it lets through; a fuse of its own is missing",
        )
    if fused and current_a * (FUSE_OVER_HARD if hard else FUSE_OVER) > standard[-1]:
        return Chosen(None, 0.0, 0.0, None, f"no fuse of up to {standard[-1]:g} A is large enough; a higher voltage would be right")
    return Chosen(None, 0.0, 0.0, None, "no size in the table carries that; a higher voltage would be right")


def judged(
    size_mm2: float, length_m: float, current_a: float, insulation: Class, left: float, sizes: tuple[Size, ...]
) -> tuple[float | None, float]:
    """Ampacity [A] and drop [V] of copper that somebody chose.

    A size of either table counts as that table says; between listed sizes the smaller one's ampacity. None for what is thinner
    than all of them: nobody says what that carries.
    """
    every = (*sizes, *METRIC, *AWG)
    same = next((size for size in every if abs(size.mm2 - size_mm2) <= 0.01 * size.mm2), None)
    below = [size for size in sizes if size.mm2 <= size_mm2] or [size for size in every if size.mm2 <= size_mm2]
    size = same or (below[-1] if below else None)
    carries = size.carries_a(insulation) * left if size is not None else None
    return carries, drop_v(length_m, current_a, size_mm2, carries or 0.0)


def breaking_type(fault_a: float) -> str:
    """The plainest type of fuse that breaks a short of so many amps; nothing where none of the list does."""
    return next((name for name, most in BREAKS_A if most >= fault_a), "")


def copper_kg(length_m: float, mm2: float, cores: int) -> float:
    """Weight of a run with its insulation [kg]."""
    return length_m * mm2 * 1e-6 * COPPER_KG_M3 * cores * SHEATH
