"""Every part of a build, front half of the house to the studies."""

from __future__ import annotations

from uncle_sled.core.document.project import Build
from uncle_sled.core.document.rig import Rig
from uncle_sled.core.document.shell import Shell
from uncle_sled.core.engine import keep_last
from uncle_sled.core.parts.from_rig import parts_of_rig
from uncle_sled.core.parts.from_shell import parts_of_shell
from uncle_sled.core.parts.from_stow import parts_of_things
from uncle_sled.core.parts.part import Part


@keep_last(8)
def _base(rig: Rig, shell: Shell) -> tuple[Part, ...]:
    return parts_of_rig(rig) + parts_of_shell(shell)


def parts_of(build: Build) -> tuple[Part, ...]:
    """Rig, shell and things as parts, in that order."""
    return _base(build.rig, build.shell) + parts_of_things(build.stow.things)
