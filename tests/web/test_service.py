"""The service as a whole: who may ask, errors, previews, and no blocking of the event loop."""

import asyncio
import inspect
import threading
import time
import unittest
from unittest import mock

from lucky_margin.core import errors
from lucky_margin.web import problems
from lucky_margin.web.preview_desk import PreviewDesk, Superseded
from tests.web.client import ServiceTest


class GuardTest(ServiceTest):
    def test_other_hosts_are_refused(self):
        for host in ("evil.example", "127.0.0.1.evil.example:80", "192.168.0.7", ""):
            with self.subTest(host):
                self.refused(421, "GET", "/photos", headers={"host": host})
        for host in ("127.0.0.1:8750", "localhost", "[::1]:80"):
            with self.subTest(host):
                self.ok("GET", "/photos", headers={"host": host})

    def test_other_origins_are_refused(self):
        for origin in ("http://evil.example", "null", "http://127.0.0.1:9999"):
            with self.subTest(origin):
                self.refused(403, "POST", f"{self.address}/bin", headers={"origin": origin})
        self.ok("POST", f"{self.address}/bin", headers={"origin": "http://127.0.0.1"})

    def test_every_answer_carries_the_content_policy(self):
        for path in ("/photos", "/photos/none", "/finishes"):
            policy = self.call("GET", path).headers["content-security-policy"]
            self.assertIn("default-src 'none'", policy)
            self.assertNotIn("unsafe-eval", policy)


class ProblemTest(ServiceTest):
    def test_every_error_has_a_status(self):
        kinds = {
            kind
            for _, kind in inspect.getmembers(errors, inspect.isclass)
            if issubclass(kind, errors.LuckyMarginError) and kind is not errors.LuckyMarginError
        }
        self.assertEqual(set(problems.STATUS), kinds)

    def test_the_unknown_tells_nothing_of_the_inside(self):
        inside = RuntimeError("secret path /data")
        with mock.patch("lucky_margin.store.photos.PhotoStore.list", side_effect=inside):
            problem = self.refused(500, "GET", "/photos")
        self.assertNotIn("secret", str(problem))

    def test_unknown_addresses_and_methods(self):
        self.refused(404, "GET", "/nothing/here")
        self.refused(405, "PATCH", "/photos")

    def test_every_error_of_the_tree_is_in_its_picture(self):
        for kind in problems.STATUS:
            self.assertIn(kind.__name__, errors.__doc__)


class EventLoopTest(ServiceTest):
    def test_slow_work_does_not_block_other_requests(self):
        """While one request sleeps in a worker, another is answered."""
        finished = []

        def slow(*args, **kwargs):
            time.sleep(0.6)
            finished.append("slow")
            raise errors.NotFound("Slow, and not there.")

        with mock.patch("lucky_margin.store.photos.PhotoStore.add", side_effect=slow):
            sender = threading.Thread(
                target=lambda: self.call("POST", "/photos", params={"name": "a"}, content=b"x")
            )
            sender.start()
            time.sleep(0.15)
            self.ok("GET", "/sizes")
            finished.append("quick")
            sender.join()
        self.assertEqual(finished, ["quick", "slow"])

    def test_no_route_that_works_runs_on_the_loop(self):
        """Only routes that await something themselves may be coroutines."""
        coroutines = {
            route.endpoint.__name__
            for route in flat(self.app.routes)
            if inspect.iscoroutinefunction(getattr(route, "endpoint", None))
        }
        self.assertLessEqual(coroutines, {"add_photo", "preview", "openapi"})


def flat(routes):
    for route in routes:
        yield route
        yield from flat(getattr(route, "routes", None) or [])


class PreviewDeskTest(unittest.IsolatedAsyncioTestCase):
    def setUp(self):
        self.desk = PreviewDesk()
        self.addCleanup(self.desk.close)
        self.gate = threading.Event()
        self.drawn = []

    def draw(self, name):
        def work():
            self.gate.wait(5)
            self.drawn.append(name)
            return name

        return work

    async def ask(self, channel, priority, name):
        task = asyncio.create_task(self.desk.draw(channel, priority, self.draw(name)))
        await asyncio.sleep(0)
        return task

    async def test_the_newest_of_a_channel_wins_and_nothing_queues_up(self):
        tasks = [await self.ask("stage", 0, number) for number in range(6)]
        self.gate.set()
        results = await asyncio.gather(*tasks, return_exceptions=True)
        self.assertEqual(self.drawn, [0, 5])
        self.assertEqual([type(result) for result in results[1:5]], [Superseded] * 4)

    async def test_the_stage_goes_before_proofs(self):
        tasks = [
            await self.ask("first", 1, "first"),
            await self.ask("proof", 1, "proof"),
            await self.ask("stage", 0, "stage"),
        ]
        self.gate.set()
        await asyncio.gather(*tasks)
        self.assertEqual(self.drawn, ["first", "stage", "proof"])

    async def test_an_error_reaches_its_asker_and_the_desk_goes_on(self):
        self.gate.set()
        with self.assertRaises(ZeroDivisionError):
            await self.desk.draw("a", 0, lambda: 1 / 0)
        self.assertEqual(await self.desk.draw("a", 0, lambda: "fine"), "fine")

    async def test_a_client_that_went_away_is_passed_over(self):
        first = await self.ask("first", 0, "first")
        gone = await self.ask("gone", 0, "gone")
        last = await self.ask("last", 1, "last")
        gone.cancel()
        await asyncio.sleep(0)
        self.gate.set()
        await asyncio.gather(first, last)
        self.assertEqual(self.drawn, ["first", "last"])
