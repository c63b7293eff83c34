"""Power that goes at any moment of a save, on a disk that forgets what was not settled: the old or the new one is there, whole."""

import itertools
import os

import pytest

from uncle_sled.exchange import whole_file
from uncle_sled.exchange.whole_file import write_whole


class Disk:
    """Watches what a save asks of the system, and tells what a disk may hold after it went dark at each moment.

    A file's bytes are sure once it was settled (fsync) after they were written; until then they may be anything. A name given,
    moved or taken away is sure once its folder was settled; until then any of those may have been kept, and any not.
    """

    def __init__(self, folder, monkeypatch):
        self.folder, self.events, self.files = folder, [], {}
        real = {name: getattr(os, name) for name in ("open", "fsync", "replace", "link", "unlink", "close")}
        handles = {}

        def opened(path, flags, mode=0o777, **named):
            handle = real["open"](path, flags, mode, **named)
            handles[handle] = str(path)
            if flags & os.O_CREAT:
                self.events.append(("new", str(path), str(path)))
            return handle

        def settled(handle):
            path = handles[handle]
            if os.path.isdir(path):
                self.events.append(("folder settled", path, ""))
            else:
                with open(path, "rb") as file:
                    self.events.append(("settled", path, file.read()))
            real["fsync"](handle)

        def moved(a, b, **named):
            real["replace"](a, b, **named)
            self.events.append(("moved", str(a), str(b)))

        def linked(a, b, **named):
            real["link"](a, b, **named)
            self.events.append(("linked", str(a), str(b)))

        def gone(path, **named):
            real["unlink"](path, **named)
            self.events.append(("gone", str(path), ""))

        for name, watched in (("open", opened), ("fsync", settled), ("replace", moved), ("link", linked), ("unlink", gone)):
            monkeypatch.setattr(os, name, watched)

    def after(self, many, before):
        """Every state that may be found after that many events. Args: before: name to bytes, as it was settled before the save."""
        names = {name: f"old {name}" for name in before}  # name to file, as they are sure
        held = {f"old {name}": data for name, data in before.items()}  # file to its sure bytes; missing: anything
        living, waiting, number = dict(names), [], itertools.count()
        for kind, a, b in self.events[:many]:
            if kind == "new":
                living[a] = f"file {next(number)}"
                waiting.append((a, living[a]))
            elif kind == "settled":
                held[living[a]] = b
            elif kind == "linked":
                living[b] = living[a]
                waiting.append((b, living[b]))
            elif kind == "moved":
                living[b] = living.pop(a)
                waiting.append((b, living[b]))
                waiting.append((a, None))
            elif kind == "gone":
                living.pop(a, None)
                waiting.append((a, None))
            else:
                names, waiting = dict(living), []
        for kept in itertools.product((False, True), repeat=len(waiting)):
            state = dict(names)
            for take, (name, file) in zip(kept, waiting, strict=True):
                if take:
                    state[name] = file
            yield {name: held.get(file, "anything") for name, file in state.items() if file is not None}


def saved(tmp_path, monkeypatch, backup, before):
    path = tmp_path / "build.sled"
    for name, data in before.items():
        (tmp_path / name).write_bytes(data)
    disk = Disk(tmp_path, monkeypatch)
    write_whole(path, b"new", backup)
    monkeypatch.undo()
    return disk, str(path), {str(tmp_path / name): data for name, data in before.items()}


@pytest.mark.parametrize(
    ("backup", "before"),
    [
        (False, {}),
        (False, {"build.sled": b"old"}),
        (True, {"build.sled": b"old"}),
        (True, {"build.sled": b"old", "build.sled.bak": b"older"}),
    ],
)
def test_whenever_the_power_goes_one_whole_file_is_there(tmp_path, monkeypatch, backup, before):
    disk, path, before = saved(tmp_path, monkeypatch, backup, before)

    states = 0
    for many in range(len(disk.events) + 1):
        for state in disk.after(many, before):
            states += 1
            assert state.get(path) in ((b"old", b"new") if before else (None, b"new")), (many, state)
            if f"{path}.bak" in before:
                assert state[f"{path}.bak"] in (b"older", b"old"), (many, state)
            elif f"{path}.bak" in state:
                assert state[f"{path}.bak"] == b"old"
    ended = list(disk.after(len(disk.events), before))
    assert states > 8 and len(ended) == 1 and ended[0][path] == b"new"  # what was said to be saved is sure
    assert not backup or ended[0][f"{path}.bak"] == b"old"


def test_a_save_that_does_not_settle_its_file_or_its_folder_is_found(tmp_path, monkeypatch):
    monkeypatch.setattr(whole_file, "_settle", lambda folder: None)
    disk, path, before = saved(tmp_path, monkeypatch, False, {"build.sled": b"old"})
    assert {state[path] for state in disk.after(len(disk.events), before)} == {b"old", b"new"}  # said to be saved, and not sure

    disk.events = [event for event in disk.events if event[0] != "settled"]
    assert "anything" in {state[path] for state in disk.after(len(disk.events), before)}
