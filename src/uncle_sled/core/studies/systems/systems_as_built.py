"""What the systems of a build come to: the stay, water, what burns, warmth by night and sun, each of the build as it stands."""

from __future__ import annotations

from uncle_sled.core.document.project import Build
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.systems.gas import Gas, gas_of
from uncle_sled.core.studies.systems.heat import Gains, Losses, gains, losses
from uncle_sled.core.studies.systems.stay import Stay, stay_of
from uncle_sled.core.studies.systems.sweat import Night, night_of, sleepers
from uncle_sled.core.studies.systems.water import Water, water_of


def stay_mode(build: Build) -> str:
    """The mode in which the stay is reckoned: the first in which it stands, else the first."""
    return next((mode.id for mode in build.stow.modes if not mode.towing), build.stow.modes[0].id)


def the_stay(s: Studied) -> Stay:
    """The stay off the grid in the mode that it is lived in."""
    return stay_of(s.build, stay_mode(s.build))


def the_water(s: Studied) -> Water:
    """Water for those who sleep here."""
    return water_of(s.build, sleepers(s.build, s.facts))


def the_gas(s: Studied) -> Gas:
    """Gas and other fuel of everything that burns."""
    return gas_of(s.build)


def the_losses(s: Studied) -> Losses:
    """Warmth that the body loses on the coldest night."""
    return losses(s.build, s.facts, s.framed)


def the_night(s: Studied) -> Night:
    """The coldest night's air inside and outside."""
    return night_of(s.build, s.facts, s.framed)


def the_gains(s: Studied) -> Gains:
    """Warmth that comes in on the hottest day."""
    return gains(s.build, s.facts, s.framed, sleepers(s.build, s.facts))
