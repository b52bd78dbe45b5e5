"""The desk for heavy work, and jobs that are done at it."""

import asyncio
import threading
import unittest
from unittest import mock

from fastapi import Request

from lucky_margin.core.document import CutOut
from lucky_margin.core.errors import BadInput, NotFound
from lucky_margin.core.export import export
from lucky_margin.core.proposals import subject_proposal
from lucky_margin.web.app_state import bytes_to_draw
from lucky_margin.web.jobs import Jobs
from lucky_margin.web.leaving import GoneAway, while_there
from lucky_margin.web.work_desk import Priority, Superseded, WorkDesk
from tests.support import finish_of, noise, scene_of, sources_of
from tests.web.client import ServiceTest

STAGE, PROOF, CHECK, JOB, THUMBNAIL = Priority


def _leaves_at(gone):
    """A connection that closes at ``gone``."""

    async def receive():
        await gone.wait()
        return {"type": "http.disconnect"}

    return receive


class DeskTest(unittest.IsolatedAsyncioTestCase):
    def setUp(self):
        self.desk = WorkDesk(threads=3, budget=100)
        self.addCleanup(self.desk.close)
        self.gate = threading.Event()
        self.addCleanup(self.gate.set)
        self.began, self.done = [], []

    def work(self, name):
        def work():
            self.began.append(name)
            self.gate.wait(5)
            self.done.append(name)
            return name

        return work

    async def ask(self, name, priority, channel=None, memory=0):
        waiting = self.desk.run(self.work(name), priority, channel=channel, memory=memory)
        task = asyncio.create_task(waiting)
        await asyncio.sleep(0)
        return task

    async def until_begun(self, count):
        while len(self.began) < count:
            await asyncio.sleep(0.001)
        await asyncio.sleep(0.02)  # whatever wrongly began would begin now
        self.assertEqual(len(self.began), count, self.began)


class WorkDeskTest(DeskTest):
    async def test_the_newest_of_a_channel_wins_and_nothing_queues_up(self):
        tasks = [await self.ask(number, STAGE, "stage") for number in range(6)]
        self.gate.set()
        results = await asyncio.gather(*tasks, return_exceptions=True)
        self.assertEqual(self.done, [0, 5])
        self.assertEqual([type(result) for result in results[1:5]], [Superseded] * 4)

    async def test_what_nobody_waits_for_any_more_is_not_begun(self):
        first, second = await self.ask("first", PROOF), await self.ask("second", PROOF)
        gone = asyncio.Event()
        request = Request({"type": "http"}, receive=_leaves_at(gone))
        wanted = self.desk.run(self.work("unseen"), PROOF)
        third = asyncio.create_task(while_there(request, wanted))
        await self.until_begun(1)
        gone.set()
        with self.assertRaises(GoneAway):
            await third
        self.gate.set()
        self.assertEqual(await asyncio.gather(first, second), ["first", "second"])
        await asyncio.sleep(0.02)
        self.assertEqual(self.done, ["first", "second"])

    async def test_who_stays_gets_what_was_asked_for(self):
        self.gate.set()
        request = Request({"type": "http"}, receive=_leaves_at(asyncio.Event()))
        self.assertEqual(await while_there(request, self.desk.run(self.work("a"), STAGE)), "a")

    async def test_the_stage_goes_before_proofs_and_one_is_drawn_at_a_time(self):
        tasks = [await self.ask(*one) for one in (("a", PROOF), ("b", PROOF), ("stage", STAGE))]
        await self.until_begun(1)
        self.gate.set()
        await asyncio.gather(*tasks)
        self.assertEqual(self.done, ["a", "stage", "b"])

    async def test_long_work_is_never_in_the_way_of_the_stage_or_of_checks(self):
        jobs = [await self.ask(number, JOB) for number in range(4)]
        await self.until_begun(1)  # of three threads one is the screen's, one kept from jobs
        rest = [await self.ask("stage", STAGE), await self.ask("check", CHECK)]
        await self.until_begun(3)
        self.assertEqual(set(self.began[1:]), {"stage", "check"})
        self.gate.set()
        await asyncio.gather(*rest, *jobs)

    async def test_thumbnails_do_not_keep_a_photo_waiting_that_comes_in(self):
        waiting = [await self.ask(number, THUMBNAIL) for number in range(3)]
        waiting.append(await self.ask("photo", CHECK))
        await self.until_begun(2)
        self.assertEqual(self.began, [0, "photo"])
        self.gate.set()
        await asyncio.gather(*waiting)

    async def test_checks_go_before_jobs_and_thumbnails_last(self):
        first = [await self.ask(name, CHECK) for name in "ab"]
        order = ((THUMBNAIL, "thumbnail"), (JOB, "job"), (CHECK, "check"))
        rest = [await self.ask(name, priority) for priority, name in order]
        await self.until_begun(2)
        self.gate.set()
        await asyncio.gather(*first, *rest)
        self.assertEqual(self.began[2:], ["check", "job", "thumbnail"])

    async def test_what_memory_is_too_short_for_waits_for_it(self):
        tasks = [await self.ask(name, CHECK, memory=60) for name in "ab"]
        tasks.append(await self.ask("small", THUMBNAIL, memory=1))
        await self.until_begun(1)  # the small one does not overtake, or "b" might wait for ever
        self.gate.set()
        await asyncio.gather(*tasks)
        self.assertEqual(self.began, ["a", "b", "small"])

    async def test_what_is_larger_than_all_memory_is_done_alone(self):
        self.gate.set()
        self.assertEqual(await (await self.ask("huge", JOB, memory=1000)), "huge")

    async def test_an_error_reaches_its_asker_and_the_desk_goes_on(self):
        self.gate.set()
        with self.assertRaises(ZeroDivisionError):
            await self.desk.run(lambda: 1 / 0, STAGE, channel="a")
        self.assertEqual(await self.desk.run(lambda: "fine", STAGE, channel="a"), "fine")

    async def test_who_went_away_is_passed_over(self):
        first = await self.ask("first", STAGE)
        gone = await self.ask("gone", STAGE)
        last = await self.ask("last", PROOF)
        gone.cancel()
        await asyncio.sleep(0)
        self.gate.set()
        await asyncio.gather(first, last)
        self.assertEqual(self.done, ["first", "last"])


class MemoryTest(unittest.TestCase):
    def test_a_cut_out_is_reckoned_with_whatever_the_scale(self):
        finish = finish_of()
        cut_out = finish.model_copy(update={"cut_out": CutOut(on=True)})
        sources = sources_of(noise(300, 200))
        for scale in (1, 0.25):
            plain, cut = (bytes_to_draw(scene_of(one, sources), scale) for one in (finish, cut_out))
            self.assertEqual(cut - plain, 300 * 200 * 25)


class JobTest(DeskTest):
    def setUp(self):
        super().setUp()
        self.jobs = Jobs(self.desk)
        self.steps = []

    def told(self, name, steps=4):
        def work(progress):
            self.began.append(name)
            for step in range(steps):
                progress(step / steps)
                self.steps.append(step)
                self.gate.wait(5)
            return name

        return work

    async def test_news_come_as_they_are_made_and_the_result_at_the_end(self):
        job = self.jobs.start("a", self.told("a"))
        self.assertEqual((job.state, job.news), ("waiting", 0))
        await job.news_after(0, 5)
        self.assertEqual(job.state, "running")
        seen = job.news
        await job.news_after(seen, 0.01)  # nothing new: it waits no longer than that
        self.gate.set()
        await job.over(5)
        self.assertEqual((job.state, job.progress, job.result), ("done", 1.0, "a"))
        self.assertGreater(job.news, seen)

    async def test_a_cancelled_job_stops_at_its_next_step(self):
        job = self.jobs.start("a", self.told("a"))
        await self.until_begun(1)
        self.jobs.cancel(job.id)
        self.assertEqual(job.state, "cancelled")
        self.gate.set()
        await self.desk.run(lambda: None, JOB)
        await asyncio.sleep(0.02)
        self.assertEqual(self.steps, [0])
        self.assertEqual((job.state, job.result), ("cancelled", None))

    async def test_the_newest_of_a_key_wins_and_others_go_on(self):
        older = self.jobs.start("a", self.told("older"))
        other = self.jobs.start("b", self.told("other"))
        newer = self.jobs.start("a", self.told("newer"))
        self.assertEqual(older.state, "cancelled")
        self.gate.set()
        await asyncio.gather(newer.over(5), other.over(5))
        self.assertEqual((newer.state, other.state, older.state), ("done", "done", "cancelled"))

    async def test_a_failure_is_told_and_what_nobody_foresaw_is_logged(self):
        def refuse(progress):
            raise BadInput("No.")

        job = self.jobs.start("a", refuse)
        await job.over(5)
        self.assertEqual((job.state, str(job.error)), ("failed", "No."))
        with self.assertLogs("lucky_margin", "ERROR"):
            broken = self.jobs.start("a", lambda progress: 1 / 0)
            await broken.over(5)
        self.assertIsInstance(broken.error, ZeroDivisionError)

    async def test_closing_stops_what_is_under_way(self):
        job = self.jobs.start("a", self.told("a"))
        await self.until_begun(1)
        self.jobs.close()
        self.gate.set()
        await self.desk.run(lambda: None, JOB)
        self.assertEqual((job.state, self.steps), ("cancelled", [0]))

    async def test_only_so_many_are_remembered(self):
        self.gate.set()
        with mock.patch("lucky_margin.web.jobs.KEPT_JOBS", 2):
            jobs = [self.jobs.start(str(number), self.told(number)) for number in range(4)]
        with self.assertRaises(NotFound):
            self.jobs.get(jobs[0].id)
        self.assertIs(self.jobs.get(jobs[3].id), jobs[3])


class JobRouteTest(ServiceTest):
    def weigh(self, channel="a"):
        body = {"revision": self.finish["revision"], "size_id": "main", "channel": channel}
        return self.ok("POST", f"{self.address}/weigh", json=body)

    def test_long_work_is_followed_cancelled_and_the_bench_stays_usable(self):
        may_end = threading.Event()
        self.addCleanup(may_end.set)

        def slow(scene, progress):
            progress(0.5)
            may_end.wait(10)
            return export(scene, progress)

        with mock.patch("lucky_margin.web.routes.exports.export", side_effect=slow):
            job = self.weigh()
            self.assertEqual((job["state"], job["progress"]), ("running", 0.5))
            self.laid(self.draft())
            self.assertEqual(self.call("DELETE", f"/jobs/{job['id']}").status_code, 204)
            told = self.ok("GET", f"/jobs/{job['id']}", params={"news": job["news"]})
            self.assertEqual((told["state"], told["result"]), ("cancelled", None))
            may_end.set()
        self.assertEqual(self.done(self.weigh())["width"], 300)

    def test_finding_a_subject_can_be_called_off_on_the_way(self):
        may_end = threading.Event()
        self.addCleanup(may_end.set)
        body = self.draft(channel="a")

        def slow(scene, **how):
            may_end.wait(10)
            return subject_proposal(scene, **how)

        with mock.patch(
            "lucky_margin.core.proposals.for_photos.subject_proposal", side_effect=slow
        ):
            job = self.ok("POST", "/bench/subject", json=body)
            self.assertEqual(job["state"], "running")
            self.laid(self.draft())
            self.assertEqual(self.call("DELETE", f"/jobs/{job['id']}").status_code, 204)
            may_end.set()
        told = self.ok("GET", f"/jobs/{job['id']}")
        self.assertEqual((told["state"], told["result"]), ("cancelled", None))
        found = self.done(self.ok("POST", "/bench/subject", json=body))
        self.assertEqual(found["edit"]["kind"], "set_subject")
        cut = self.laid(self.draft(found["edit"]))
        self.assertTrue(cut["here"]["cut_out"]["on"])

    def test_a_job_that_nobody_knows(self):
        self.refused(404, "GET", f"/jobs/{'0' * 32}")
        self.refused(404, "DELETE", f"/jobs/{'0' * 32}")
        self.refused(422, "GET", "/jobs/no-such-name")
