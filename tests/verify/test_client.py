"""How long a worker is waited for: by what it computes, where the system tells."""

from __future__ import annotations

import sys

import pytest

from clean_carry.source.system import processor_seconds
from clean_carry.verify.client import Worker, WorkerFailed

pytestmark = pytest.mark.skipif(processor_seconds(1) is None, reason="needs computing times")

ANSWERS = """
import json, sys, time
for line in sys.stdin:
    request = json.loads(line)
    until = time.monotonic() + request["seconds"]
    while time.monotonic() < until:
        if request["rests"]:
            time.sleep(0.1)
    print(json.dumps({"id": request["id"], "ok": True}), flush=True)
"""


def worker() -> Worker:
    return Worker(lambda: [sys.executable, "-c", ANSWERS], waits_ready=False)


def test_a_worker_that_waits_for_a_processor_may_take_longer() -> None:
    asked = worker()
    assert asked.ask({"seconds": 1.5, "rests": True}, 0.5)["ok"]
    asked.close()


@pytest.mark.parametrize(("seconds", "rests"), [(60, False), (60, True)])
def test_one_that_computes_or_waits_too_long_is_ended(seconds: int, rests: bool) -> None:
    asked = worker()
    with pytest.raises(WorkerFailed, match="did not come to an end"):
        asked.ask({"seconds": seconds, "rests": rests}, 0.5)
    assert asked.ended
