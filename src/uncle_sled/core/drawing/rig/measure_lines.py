"""The measures of a rig and of the car in front as lines with tags to type into: what is measured from where to where."""

from __future__ import annotations

import msgspec

from uncle_sled.core.document.brief import Vehicle
from uncle_sled.core.document.project import Build
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.drawing.primitives import Point, Poly, Primitive, Text, line
from uncle_sled.core.drawing.rig.car_side import WHEEL_M, car_stations
from uncle_sled.core.drawing.text_width import text_width
from uncle_sled.core.parts.heights import ball_height_m, frame_top_m
from uncle_sled.core.reading.studied import length_m
from uncle_sled.core.words import Words

TAG_PX, ROW_PX, SIZE = 17.0, 20.0, 11.0
ASIDE_M = 0.16


class Measure(msgspec.Struct, frozen=True):
    """One measure: the value's path, what it is called, its ends [m], and the row under the ground (0: where it is).

    Unknown ends are drawn where they usually are, dashed.
    """

    path: str
    name: str
    value: Length | Mass | None
    a: Point
    b: Point
    row: int = 0
    of_project: bool = False

    @property
    def kind(self) -> type[Length] | type[Mass]:
        """What is typed into it: a weight or a length."""
        return Mass if self.path.endswith(("_empty", "_mass")) else Length


class Tag(msgspec.Struct, frozen=True):
    """Where a measure's words stand [m], the middle, and how wide and high they are [m]."""

    measure: Measure
    words: str
    at: Point
    size: Point


def rig_measures(build: Build) -> tuple[Measure, ...]:
    """What is measured along and up the rig, nearest to the ground first."""
    rig = build.rig
    if rig.carrier == "vehicle bed":
        bed = rig.bed
        base = bed.wheelbase.si if bed.wheelbase else 3.0
        front = bed.bed_front.si if bed.bed_front else 0.8
        end = front + (bed.bed_length.si if bed.bed_length else base)
        top = bed.bed_top.si if bed.bed_top else 0.95
        return (
            Measure("rig.bed.wheelbase", "wheelbase", bed.wheelbase, (0, 0), (base, 0), 1),
            Measure("rig.bed.bed_front", "bed front", bed.bed_front, (0, 0), (front, 0), 2),
            Measure("rig.bed.bed_length", "bed length", bed.bed_length, (front, 0), (end, 0), 3),
            Measure("rig.bed.bed_top", "bed top", bed.bed_top, (end + 3 * ASIDE_M, 0), (end + 3 * ASIDE_M, top)),
        )
    end = rig.frame_length.si if rig.frame_length else length_m(build)
    nose = rig.drawbar_length.si if rig.drawbar_length else 0.3 * end
    top, ball = frame_top_m(build), ball_height_m(build)
    made = [Measure("rig.drawbar_length", "drawbar", rig.drawbar_length, (0, 0), (nose, 0), 1)]
    for at, axle in enumerate(rig.axles[:3]):
        name = "ball to axle" if len(rig.axles) == 1 else f"ball to axle {at + 1}"
        made.append(Measure(f"rig.axles.{axle.id}.station", name, axle.station, (0, 0), (axle.station.si, 0), 2 + at))
    made.append(Measure("rig.frame_length", "ball to tail", rig.frame_length, (0, 0), (end, 0), 2 + max(len(rig.axles[:3]), 0)))
    left, right = -ASIDE_M * 2, end + ASIDE_M * 2
    made.append(Measure("rig.ball_height", "ball height", rig.ball_height, (left, 0), (left, ball)))
    made.append(Measure("rig.frame_top", "frame top", rig.frame_top, (right, 0), (right, top)))
    return tuple(made)


def car_measures(car: Vehicle) -> tuple[Measure, ...]:
    """Where a car's axles and tail are, and what they weigh empty."""
    front, rear, tail = car_stations(car)
    path = f"facts.vehicles.{car.id}"
    high = WHEEL_M * 2 + 0.08
    return (
        Measure(f"{path}.bumper", "tail to ball", car.bumper, (tail, 0), (0, 0), 1, of_project=True),
        Measure(f"{path}.wheelbase", "wheelbase", car.wheelbase, (front, 0), (rear, 0), 2, of_project=True),
        Measure(f"{path}.ball_overhang", "axle to ball", car.ball_overhang, (rear, 0), (0, 0), 2, of_project=True),
        Measure(f"{path}.front_empty", "front empty", car.front_empty, (front, high), (front, high), 0, of_project=True),
        Measure(f"{path}.rear_empty", "rear empty", car.rear_empty, (rear, high), (rear, high), 0, of_project=True),
    )


def rows_of(measures: tuple[Measure, ...]) -> int:
    """How many rows of measure lines stand under each other."""
    return max((measure.row for measure in measures), default=0)


def tags_of(measures: tuple[Measure, ...], words: Words, px_per_m: float) -> tuple[Tag, ...]:
    """The tags, none over another: those of one row stand side by side where their lines are short."""
    made: list[Tag] = []
    for measure in measures:
        value = measure.value
        number = "?" if value is None else words.kg(value.si) if isinstance(value, Mass) else words.m(value.si)
        text = f"{measure.name} {number}"
        wide, high = (text_width(text, SIZE) + 12) / px_per_m, TAG_PX / px_per_m
        x, gap = (measure.a[0] + measure.b[0]) / 2, 6 / px_per_m
        upright = measure.a != measure.b and not measure.row
        if upright:  # beside its line, away from the rig
            x += (wide / 2 + gap) * (-1.0 if x < 0 else 1.0)
        elif measure.row and measure.b[0] - measure.a[0] < wide + 4 * gap:
            x = measure.b[0] + wide / 2 + gap
        y = -(measure.row * ROW_PX + 2) / px_per_m if measure.row else max(measure.a[1], measure.b[1]) + 0.75 * high
        if upright:
            y = max((measure.a[1] + measure.b[1]) / 2, 0.75 * high)
        before = [tag for tag in made if abs(tag.at[1] - y) < high]
        clash = max((tag.at[0] + tag.size[0] / 2 for tag in before if tag.at[0] <= x), default=-1e9)
        x = max(x, clash + wide / 2 + 4 / px_per_m)
        made.append(Tag(measure, text, (x, y), (wide, high)))
    return tuple(made)


def measure_shapes(tags: tuple[Tag, ...], px_per_m: float) -> tuple[Primitive, ...]:
    """Lines with their ends, and tags that look like fields."""
    shapes: list[Primitive] = []
    tick = 4 / px_per_m
    for tag in tags:
        measure = tag.measure
        known = measure.value is not None
        ink, dash = ("pencil", ()) if known else ("ochre", (4.0, 3.0))
        if measure.a != measure.b:
            y = tag.at[1] if measure.row else None
            a, b = (measure.a, measure.b) if y is None else ((measure.a[0], y), (measure.b[0], y))
            shapes.append(line(a, b, ink, 1.0, dash))
            for x, z in (a, b):
                shapes.append(line((x - tick, z - tick), (x + tick, z + tick), ink, 1.2))
        x, y, (wide, high) = tag.at[0], tag.at[1], tag.size
        box = ((x - wide / 2, y - high / 2), (x + wide / 2, y - high / 2), (x + wide / 2, y + high / 2), (x - wide / 2, y + high / 2))
        shapes.append(Poly(box, "rule" if known else "ochre", "field", 1.0, id=measure.path))
        shapes.append(Text((x, y), tag.words, SIZE, "ink" if known else "ochre word", ground="field", id=measure.path))
    return tuple(shapes)
