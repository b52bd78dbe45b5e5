"""Many views drawing at once, for a long time: no error, and memory that does not grow."""

import threading
import time

from tests.endure import amount
from tests.support import encoded, gradient
from tests.web.client import ServiceTest


def resident_bytes():
    """The memory of this process that is in use."""
    with open("/proc/self/statm") as file:
        return int(file.read().split()[1]) * 4096


class SoakTest(ServiceTest):
    CHANNELS = 8

    def test_eight_channels(self):
        seconds = amount(6, 600)
        photo = self.added(encoded(gradient(1600, 1200)), "wide.png")["sha256"]
        document = self.finish["document"] | {"photo": {"sha256": photo}}
        answers, failures = [], []
        ends = time.monotonic() + seconds

        def draw(channel):
            turn = 0
            while time.monotonic() < ends:
                turn += 1
                edit = {"kind": "set_tone", "changes": {"exposure": (turn % 40 - 20) / 20}}
                body = self.draft(edit, document, channel=str(channel), scale=0.25 + turn % 3 / 4)
                body["place"] = "stage" if channel == 0 else "proof"
                answer = self.call("POST", "/bench/preview", json=body)
                (answers if answer.status_code in (200, 204) else failures).append(answer.text[:9])

        threads = [threading.Thread(target=draw, args=(n,)) for n in range(self.CHANNELS)]
        for thread in threads:
            thread.start()
        measured = []
        while time.monotonic() < ends:
            time.sleep(seconds / 20)
            measured.append(resident_bytes())
        for thread in threads:
            thread.join()
        self.assertEqual(failures, [])
        self.assertGreater(len(answers), seconds)
        if seconds >= 600:  # caches are full by then
            early, late = measured[len(measured) * 3 // 10], measured[-1]
            self.assertLess(late, 1.05 * early)
