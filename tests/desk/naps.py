"""Jobs for the worker's tests."""

import os
import time


def nap(project, tell, seconds):
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        tell(1 - max(end - time.monotonic(), 0) / seconds, "napping")
        time.sleep(0.01)
    return "slept"


def echo(project, tell, word):
    return word


def deaf(project, tell, seconds):
    time.sleep(seconds)


def die(project, tell):
    os._exit(3)


def breaks(project, tell):
    raise ValueError("it broke")
