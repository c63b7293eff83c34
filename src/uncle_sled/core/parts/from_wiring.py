"""Wires with their fuses, and the devices they end at, as parts."""

from __future__ import annotations

from uncle_sled.core.document.project import Build
from uncle_sled.core.document.systems import Device
from uncle_sled.core.engine import keep_each
from uncle_sled.core.framing.frame_body import Framed
from uncle_sled.core.parts.part import MEMBER_M, PLACED_M, Part
from uncle_sled.core.wiring.wired import Laid, device_kg, wired_of

LEAST_KG = 1e-6
MADE_BY, WIRING = "systems.", "wiring"  # of all of it: it hangs as one weight


@keep_each
def _of_wire(wire: Laid) -> Part | None:
    if wire.mass_kg < LEAST_KG:
        return None
    x, y, z = wire.middle_m
    return Part(
        f"{WIRING}/{wire.id}",
        f"Wire {wire.number}",
        group="power",
        made_by=f"{MADE_BY}wires.{wire.id}",
        source="computed",
        mass_kg=wire.mass_kg,
        x_m=x,
        y_m=y,
        z_m=z,
        station_sigma_m=PLACED_M,
        bias_group="wiring",
    )


@keep_each
def _of_device(device: Device) -> Part:
    return Part(
        f"{WIRING}/{device.id}",
        device.name,
        group="power",
        made_by=f"{MADE_BY}devices.{device.id}",
        source="estimated",
        mass_kg=device_kg(device),
        x_m=device.x.si,
        y_m=device.y.si,
        z_m=device.z.si,
        station_sigma_m=MEMBER_M,
    )


def parts_of_wiring(build: Build, framed: Framed) -> tuple[Part, ...]:
    """In the order of the file: devices, then wires; a wire without a size weighs nothing yet."""
    if not build.systems.wires and not build.systems.devices:
        return ()
    wired = wired_of(build, framed)
    return (*_of_device(wired.devices), *(part for part in _of_wire(wired.wires) if part is not None))
