"""Numbers of pieces: drafts until they are printed; then they stay, are never given again, and what changed is told.

A number is the letters of its face or thing and a count from the front and below. A mirrored pair is one record: its two
pieces have the same number, left and right. Source: shop notes.
"""

from __future__ import annotations

import re
from collections.abc import Iterable
from typing import Literal

import msgspec

from uncle_sled.core.document.cut import Cut, Numbered
from uncle_sled.core.document.edits import Op, set_to
from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.engine import keep
from uncle_sled.core.geometry.surfaces import SIDES
from uncle_sled.core.parts.all_parts import framed_of
from uncle_sled.core.studies.cut.piece import Piece
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.core.wiring.wired import wired_of

Standing = Literal["draft", "as printed", "changed"]
PAIRED = "SI"  # of a piece that is on both sides
LETTERS = {
    "floor": "FL",
    "left side": "LS",
    "right side": "RS",
    "roof": "RO",
    "roof left": "RL",
    "roof right": "RR",
    "front": "FR",
    "rear": "RE",
    "nose": "NO",
    "hatch": "HA",
    "ceiling": "CE",
    "bulkhead": "BU",
    "wiring": "W",
}


class Named(msgspec.Struct, frozen=True):
    """A piece with its number as it is written beside it. number: None while nothing was printed with it."""

    piece: Piece
    number: str | None
    label: str
    standing: Standing

    @property
    def order(self) -> tuple[str, int, str]:
        """By letters, then by count and not by its digits, then by side: what lists and tables are sorted by."""
        letters, _, rest = self.label.partition("-")
        digits = rest.split(" ")[0]
        return letters, int(digits) if digits.isdigit() else 0, self.label


class Numbers(msgspec.Struct, frozen=True):
    """All pieces with their numbers, in the order of the take-off; gone: printed once, no longer drawn."""

    named: tuple[Named, ...]
    gone: tuple[str, ...]

    @property
    def of(self) -> dict[str, Named]:
        """Every piece with its number, by the piece's key."""
        return {numbered.piece.key: numbered for numbered in self.named}

    @property
    def changed(self) -> tuple[Named, ...]:
        """Those that are not as they were printed."""
        return tuple(numbered for numbered in self.named if numbered.standing == "changed")

    @property
    def drafts(self) -> tuple[Named, ...]:
        """Those that were never printed."""
        return tuple(numbered for numbered in self.named if numbered.standing == "draft")


def letters_of(of: str) -> str:
    """The letters of a face or a thing: two of one word, or the first of each."""
    if of in LETTERS:
        return LETTERS[of]
    words = re.findall(r"[A-Za-z0-9]+", of)
    made = "".join(word[0] for word in words) if len(words) > 1 else "".join(words)[:3]
    return made.upper() or "P"


def made_of(piece: Piece) -> str:
    """What a piece is cut from and how large: what is compared with the last print."""
    return _made(piece, piece.stuff or piece.material)


def is_made(piece: Piece, mark: str) -> bool:
    """Whether a piece is still what was printed; marks of older files name its material by its words."""
    return mark in (made_of(piece), _made(piece, piece.material))


def _made(piece: Piece, stuff: str) -> str:
    ends = " ".join(f"{deg:.1f}" for deg in piece.ends_deg)
    return f"{piece.kind}; {stuff}; {piece.length_m * 1e3:.1f} x {piece.width_m * 1e3:.1f}; {ends}; {piece.area_m2 * 1e4:.0f}"


def runs_of(build: Build, facts: Facts) -> tuple[Piece, ...]:
    """Wires by circuit as pieces to cut with the pliers, with the number that the diagram gives them."""
    if not build.systems.wires:
        return ()
    wired = wired_of(build, framed_of(build, facts))
    names = {id: end.name for id, end in wired.net.ends.items()}
    return tuple(
        Piece(
            f"wire/{wire.id}",
            f"wire {wire.number}: {names.get(wire.start, wire.start)} to {names.get(wire.end, wire.end)}",
            of="wiring",
            kind="wire",
            own_number=str(wire.number),
            material=f"{wire.gauge} wire" if wire.mm2 is not None else "wire of no known size",
            thickness_m=0.0,
            length_m=wire.length_m,
            width_m=0.0,
            grain="any",
            area_m2=0.0,
        )
        for wire in wired.wires
    )


@keep("build.cut.numbers", take_off, "build.systems", "build.stow", "build.brief", most=4)
def numbers_of(build: Build, facts: Facts) -> Numbers:
    """Every piece with its number, or a draft of one."""
    pieces = (*take_off(build, facts).pieces, *runs_of(build, facts))
    records, gone = _matched(build.cut, pieces)
    by_key = {key: numbered for numbered in records for key in (numbered.key, numbered.other) if key}
    drafts = _drafts(build.cut, [piece for piece in pieces if piece.key not in by_key])
    named = []
    for piece in pieces:
        record = by_key.get(piece.key)
        if piece.own_number:  # as the diagram has it, printed or not
            label = f"{letters_of(piece.of)}-{piece.own_number}"
            same = record is None or is_made(piece, record.made)
            standing: Standing = "draft" if record is None else "as printed" if same else "changed"
            named.append(Named(piece, record.id if record is not None else None, label, standing))
        elif record is None:
            named.append(Named(piece, None, _label(drafts[piece.key], piece), "draft"))
        else:
            same = is_made(piece, record.made) or (bool(record.other) and record.made == _mirror_made(record, piece))
            named.append(Named(piece, record.id, _label(record.id, piece), "as printed" if same else "changed"))
    return Numbers(tuple(named), tuple(numbered.id for numbered in gone))


def _mirror_made(record: Numbered, piece: Piece) -> str:
    """The right-hand one of a pair is made like the left-hand one, its ends the other way round."""
    turned = msgspec.structs.replace(piece, ends_deg=(-piece.ends_deg[0], -piece.ends_deg[1]))
    swapped = msgspec.structs.replace(piece, ends_deg=piece.ends_deg[::-1])
    both = msgspec.structs.replace(piece, ends_deg=(-piece.ends_deg[1], -piece.ends_deg[0]))
    return record.made if any(is_made(piece, record.made) for piece in (turned, swapped, both)) else ""


def _label(number: str, piece: Piece) -> str:
    side = {"left side": " left", "right side": " right"}.get(piece.of, "") if piece.pair else ""
    return f"{number}{side}"


def _matched(cut: Cut, pieces: Iterable[Piece]) -> tuple[list[Numbered], list[Numbered]]:
    """Printed records with the keys of the pieces that have them now, and those whose piece is gone.

    First by what it is in the drawing; then what only changed its place: same face, same kind, same make.
    """
    free = {piece.key: piece for piece in pieces}
    found: list[Numbered] = []
    lost: list[tuple[Numbered, str]] = []
    for record in cut.numbers:
        first, other = free.pop(record.key, None), free.pop(record.other, None) if record.other else None
        if first is not None or other is not None:
            found.append(msgspec.structs.replace(record, key=first.key if first else "", other=other.key if other else ""))
        else:
            lost.append((record, record.key.split("/")[0]))
    gone: list[Numbered] = []
    for record, of in lost:
        key = next((k for k, piece in free.items() if piece.of == of and is_made(piece, record.made)), None)
        if key is None or record.gone:
            gone.append(record)
            continue
        piece = free.pop(key)
        mirror = piece.pair if record.other and piece.pair in free else ""
        if mirror:
            free.pop(mirror)
        found.append(msgspec.structs.replace(record, key=key, other=mirror or ""))
    return found, gone


def _drafts(cut: Cut, pieces: list[Piece]) -> dict[str, str]:
    """Numbers that the next print would give, after the highest that each face ever had."""
    taken: dict[str, int] = {}
    for record in cut.numbers:
        letters, _, count = record.id.rpartition("-")
        if count.isdigit():
            taken[letters] = max(taken.get(letters, 0), int(count))
    made: dict[str, str] = {}
    keys = {piece.key for piece in pieces}
    for piece in sorted(pieces, key=_order):
        if piece.key in made:
            continue
        letters = PAIRED if piece.pair in keys and piece.of in SIDES else letters_of(piece.of)
        if piece.own_number:
            made[piece.key] = f"{letters}-{piece.own_number}"
            continue
        taken[letters] = taken.get(letters, 0) + 1
        made[piece.key] = f"{letters}-{taken[letters]}"
        if piece.pair in keys:
            made[piece.pair or ""] = made[piece.key]
    return made


def _order(piece: Piece) -> tuple[object, ...]:
    """From the front and below, the left of a pair before its right; sheets of a face after its sticks."""
    s = min((x for x, _ in piece.place), default=0.0)
    t = min((y for _, y in piece.place), default=0.0)
    kind = {"bar": 0, "trim": 1, "sheet": 2, "fill": 3, "wire": 4}.get(piece.kind, 5)
    return piece.of == "right side", piece.of, kind, round(s, 3), round(t, 3), piece.key


def print_ops(build: Build, facts: Facts) -> tuple[Op, ...]:
    """The edit "Number and print": every piece has its number for good, and what changed counts as printed anew."""
    numbers = numbers_of(build, facts)
    by_number: dict[str, list[Named]] = {}
    for numbered in numbers.named:
        by_number.setdefault(numbered.number or _bare(numbered), []).append(numbered)
    records = []
    for number, some in by_number.items():
        first = some[0]
        other = some[1].piece.key if len(some) > 1 else ""
        records.append(Numbered(number, first.piece.key, other, made_of(first.piece)))
    kept = {number.id: number for number in build.cut.numbers}
    records += [msgspec.structs.replace(kept[id], gone=True) for id in numbers.gone]
    return (set_to("cut.numbers", [msgspec.to_builtins(number) for number in records]), set_to("cut.prints", build.cut.prints + 1))


def _bare(numbered: Named) -> str:
    return numbered.label.removesuffix(" left").removesuffix(" right")
