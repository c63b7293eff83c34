"""A short part of the sweep over every number of every kind of item; the whole of it is ``python -m tests.core.sweep``."""

import pytest

from tests.core.sweep import fault_of, faults_in, made, places, put
from uncle_sled.core.engine import forget
from uncle_sled.exchange.demos import demo

PROJECT = demo("rosin-box")
FOUND = list(places(PROJECT))


def test_every_kind_of_item_is_found():
    kinds = {kind.cls.__name__ for _, kind, _ in FOUND}
    assert len(FOUND) == len({kind.cls for _, kind, _ in FOUND}) >= 75
    assert {"Wire", "Ticket", "Opening", "Layer", "Strut", "Winch", "Glue", "Lift", "Trip", "LogEntry", "Bay", "Partition"} <= kinds


@pytest.mark.parametrize("at", range(5, len(FOUND), 19), ids=lambda at: FOUND[at][0] or "build")
def test_its_numbers_at_nothing_next_to_nothing_and_most(at):
    path, kind, build = FOUND[at]
    assert faults_in(PROJECT, path, kind, build) == []
    forget()


def test_a_number_is_put_where_it_belongs():
    path, kind, build = next(one for one in FOUND if one[1].cls.__name__ == "Wire")
    most, taken = put(build, path, kind, "most")
    assert "area_mm2" in taken and most != build and made(kind)["id"] == "swept"
    assert fault_of(PROJECT, PROJECT.build) == ""
