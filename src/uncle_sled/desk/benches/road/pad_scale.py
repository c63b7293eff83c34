"""A pad scale on this computer's loopback: lines are read as they come, rubbish and drop-outs are said and survived."""

from __future__ import annotations

import socket
import time

from PySide6.QtCore import QObject, QSocketNotifier, QTimer, Signal

from uncle_sled.core.studies.road.steady import LONGEST, Steadiness, parsed_line

SILENT_MS, CONNECT_S = 4000, 0.5


class PadScale(QObject):
    """``told`` carries what is to be said, whether it is steady, and whether the scale is lost."""

    told = Signal(str, bool, bool)

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self.socket: socket.socket | None = None
        self._notifier: QSocketNotifier | None = None
        self.held = Steadiness()
        self.rubbish = 0
        self._rest = b""
        self._silence = QTimer(self)
        self._silence.setInterval(SILENT_MS)
        self._silence.timeout.connect(self._silent)

    @property
    def listening(self) -> bool:
        return self.socket is not None

    def listen(self, port: int) -> None:
        self.stop()
        self.held.clear()
        self.rubbish, self._rest = 0, b""
        try:
            made = socket.create_connection(("127.0.0.1", port), CONNECT_S)
        except ConnectionRefusedError:
            self._tell("Nothing answers at that port: is the scale on, and is it this number?", ended=True)
            return
        except OSError as fault:
            self._tell(f"The scale cannot be heard: {fault.strerror or fault}.", ended=True)
            return
        made.settimeout(0.0)
        self.socket = made
        self._notifier = QSocketNotifier(made.fileno(), QSocketNotifier.Type.Read, self)
        self._notifier.activated.connect(self._ready)
        self._silence.start()
        self._tell("Listening …")

    def stop(self) -> None:
        self._silence.stop()
        if self._notifier is not None:
            self._notifier.setEnabled(False)
            self._notifier.deleteLater()
            self._notifier = None
        if self.socket is not None:
            self.socket.close()
            self.socket = None

    def steady_kg(self) -> float | None:
        return self.held.steady_kg() if self.socket is not None else None

    def _ready(self) -> None:
        if self.socket is None:
            return
        try:
            data = self.socket.recv(65536)
        except BlockingIOError:
            return
        except OSError as fault:
            self._lost(f"The scale cannot be heard: {fault.strerror or fault}.")
            return
        if not data:
            self._lost("The scale hung up; what was taken is kept.")
            return
        self.feed(data)

    def feed(self, data: bytes) -> None:
        """Bytes as they came; half a line waits for its end."""
        self._silence.start()
        lines = (self._rest + data).split(b"\n")
        self._rest = lines.pop()[-4 * LONGEST :]
        now = time.monotonic()
        for raw in lines:
            kg = parsed_line(raw.decode("utf-8", "replace"))
            if kg is None:
                self.rubbish += bool(raw.strip())
            else:
                self.held.add(now, kg)
        self._say()

    def _tell(self, says: str, *, steady: bool = False, ended: bool = False) -> None:
        self.told.emit(says, steady, ended)

    def _say(self) -> None:
        last, steady = self.held.last(), self.held.steady_kg()
        if last is None:
            self._tell("The scale sends nothing that is a number.")
            return
        told = f"{last:.1f} kg, " + ("steady" if steady is not None else "settling")
        drift = self.held.drift_kg()
        if steady is None and drift is not None and abs(drift) > 2:
            told += f"; it drifts, {drift:+.1f} kg in six seconds".replace("-", "−")
        if self.rubbish:
            told += f"; {self.rubbish} lines were no numbers"
        self._tell(told + ".", steady=steady is not None)

    def _silent(self) -> None:
        if self.socket is not None:
            self._tell("The scale is silent; is it on?")

    def _lost(self, says: str) -> None:
        if self.socket is not None:
            self.stop()
            self._tell(says, ended=True)
