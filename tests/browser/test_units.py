"""Parts of the interface alone, imported into an empty page: what happens between events that a
pointer can't bring about at will."""

import functools
import threading
import unittest
from http.server import SimpleHTTPRequestHandler, ThreadingHTTPServer
from pathlib import Path

from playwright.sync_api import sync_playwright

from tests.browser.base import ARGUMENTS, CHROMIUM

UNITS = Path(".setup/units")

SETUP = """
async () => {
    const { createEditQueue } = await import('/editQueue.js')
    const log = window.log = []
    window.waits = {}
    // A piece of work that ends when it is told to: pass(name), or fail(name).
    window.until = (name) => new Promise((resolve, reject) => waits[name] = { resolve, reject })
    window.pass = async (name) => { waits[name].resolve(); await tick() }
    window.fail = async (name) => { waits[name].reject(new TypeError(name)); await tick() }
    window.tick = () => new Promise((resolve) => setTimeout(resolve))
    window.queue = createEditQueue({
        begin: () => log.push('begin'),
        move: async (wish) => { log.push(`move ${wish}`); await (window.onMove?.(wish)) },
        putBack: async () => { log.push('put back') },
        finish: () => log.push('finish'),
    }, (error) => log.push(`told ${error.message}`))
    window.work = (name, wait = false) => queue.run(async () => {
        log.push(name)
        if (wait) await until(name)
    })
}
"""


class Quiet(SimpleHTTPRequestHandler):
    def log_message(self, *_):
        pass


class UnitTest(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        handler = functools.partial(Quiet, directory=str(UNITS))
        server = ThreadingHTTPServer(("127.0.0.1", 0), handler)
        cls.enterClassContext(server)
        threading.Thread(target=server.serve_forever, daemon=True).start()
        cls.addClassCleanup(server.shutdown)
        playwright = cls.enterClassContext(sync_playwright())
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=ARGUMENTS)
        cls.addClassCleanup(browser.close)
        cls.browser, cls.url = browser, f"http://127.0.0.1:{server.server_port}/"

    def setUp(self):
        self.page = self.browser.new_page()
        self.addCleanup(self.page.close)
        self.page.route("**/empty", lambda route: route.fulfill(body="", content_type="text/html"))
        self.page.goto(self.url + "empty")

    def logged(self, script):
        """What was logged while a script ran."""
        self.page.evaluate(SETUP)
        return self.page.evaluate(f"async () => {{ {script}\nreturn log }}")


class EditQueueTest(UnitTest):
    def test_works_one_after_the_other(self):
        script = "work('a', true); work('b'); await tick(); await pass('a')"
        self.assertEqual(self.logged(script), ["a", "b"])

    def test_one_that_throws_is_told_and_stops_nothing(self):
        script = """
            work('a', true); work('b'); await tick(); await fail('a')
            await queue.run(() => { throw new TypeError('at once') })
            await work('c')
        """
        self.assertEqual(self.logged(script), ["a", "told a", "b", "told at once", "c"])

    def test_a_drag_waits_for_what_came_before_and_holds_back_what_comes_after(self):
        script = """
            work('a', true); queue.drag(1); queue.drag(2); const after = work('b'); await tick()
            await pass('a'); await queue.end(); await after
        """
        # Of the moves that came while it waited only the newest is carried out.
        self.assertEqual(self.logged(script), ["a", "begin", "move 2", "finish", "b"])

    def test_a_move_that_throws_ends_neither_the_drag_nor_the_queue(self):
        script = """
            window.onMove = (wish) => { if (wish === 1) throw new TypeError('move') }
            queue.drag(1); await tick(); queue.drag(2); await tick(); await queue.end()
            await work('b')
        """
        expected = ["begin", "move 1", "told move", "move 2", "finish", "b"]
        self.assertEqual(self.logged(script), expected)

    def test_a_drag_that_begins_while_the_one_before_settles_is_not_lost(self):
        script = """
            window.onMove = (wish) => wish === 1 ? until('first') : null
            queue.drag(1); await tick(); const ended = queue.end(); queue.drag(2)
            const second = queue.end(); await tick(); await pass('first'); await ended; await second
            log.push(queue.state.value)
        """
        expected = ["begin", "move 1", "finish", "begin", "move 2", "finish", "idle"]
        self.assertEqual(self.logged(script), expected)

    def test_an_end_asked_before_a_drag_begins_does_not_end_it(self):
        """Typing ends twice, by leaving the field and by its pause, while a piece is taken hold
        of; under load the second end came when the piece's drag had just begun."""
        script = """
            window.onMove = (wish) => wish === 1 ? until('first') : null
            queue.drag(1); await tick(); const left = queue.end(); const paused = queue.end()
            queue.drag(2); await pass('first'); log.push(await left, await paused)
            queue.drag(3); await tick(); log.push(await queue.end())
        """
        expected = ["begin", "move 1", "finish", "begin", "move 2", True, False]
        self.assertEqual(self.logged(script), [*expected, "move 3", "finish", True])

    def test_a_cancelled_drag_is_put_back_and_what_waited_goes_on(self):
        script = """
            queue.drag(1); await tick(); const after = work('b'); await queue.cancel(); await after
            log.push(await queue.end())
        """
        self.assertEqual(self.logged(script), ["begin", "move 1", "put back", "finish", "b", False])

    def test_a_reset_frees_what_waited_for_a_drag_that_never_ends(self):
        script = """
            window.onMove = () => new Promise(() => {}) // an answer that never comes
            queue.drag(1); await tick(); const after = work('b'); queue.reset(); await after
            log.push(queue.state.value)
            window.onMove = null; queue.drag(2); await tick(); await queue.end()
        """
        expected = ["begin", "move 1", "finish", "b", "idle", "begin", "move 2", "finish"]
        self.assertEqual(self.logged(script), expected)

    def test_a_left_drag_is_ended_unless_it_moves_on_or_ends_by_itself(self):
        script = """
            const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms))
            const leave = () => queue.endSoon(30, () => { log.push('left'); void queue.end() })
            queue.drag(1); leave(); queue.drag(2); await wait(60); log.push(queue.state.value)
            leave(); await wait(60); log.push(queue.state.value)
            queue.drag(3); await tick(); leave(); await queue.end(); await wait(60)
        """
        expected = ["begin", "move 2", "dragging", "left", "finish", "idle"]
        expected += ["begin", "move 3", "finish"]
        self.assertEqual(self.logged(script), expected)

    def test_random_turns_end_idle_with_every_work_done_once(self):
        """Works, drags, ends, cancels and failures in any order, by a seeded generator."""
        script = """
            let seed = 7; const random = () => (seed = (seed * 16807) % 2147483647) / 2147483647
            window.onMove = () => random() < 0.3 ? Promise.reject(new TypeError('m'))
                : new Promise((resolve) => setTimeout(resolve, random() * 3))
            const works = []
            for (let turn = 0; turn < 400; turn += 1) {
                const way = random()
                if (way < 0.3) works.push(queue.run(async () => {
                    log.push(turn); if (random() < 0.3) throw new TypeError('w')
                }))
                else if (way < 0.7) queue.drag(turn)
                else if (way < 0.9) void queue.end()
                else void queue.cancel()
                if (random() < 0.4) await tick()
            }
            await queue.end(); await queue.end(); await Promise.all(works)
            return [works.length, log.filter((entry) => typeof entry === 'number').length,
                queue.state.value, queue.isBusy.value]
        """
        self.page.evaluate(SETUP)
        asked, done, state, busy = self.page.evaluate(f"async () => {{ {script} }}")
        self.assertGreater(asked, 80)
        self.assertEqual((done, state, busy), (asked, "idle", False))


class NumberTest(UnitTest):
    def test_sums_commas_units_and_nonsense(self):
        cases = {
            "1080/2": 540, "12,5": 12.5, "3.25 px": 3.25, "50 %": 540, "2*3+1": 7, "10 - 4": 6,
            "-8": -8, " 7 ": 7, "1/0": None, "abc": None, "": None, "1..2": None, "2**3": None,
            "alert(1)": None, "9" * 400: None, "3 kb": None,
        }  # fmt: skip
        found = self.page.evaluate(
            """async (texts) => {
                const { parseNumber } = await import('/numbers.js')
                return texts.map((text) => parseNumber(text, { unit: 'px', percent: 10.8 }))
            }""",
            list(cases),
        )
        self.assertEqual(dict(zip(cases, found, strict=True)), cases)


class LatestTest(UnitTest):
    def test_the_newest_wish_wins_and_a_failing_one_does_not_stop_the_next(self):
        found = self.page.evaluate(
            """async () => {
                const { useLatest } = await import('/latest.js')
                const done = []
                let free
                const { ask, settled } = useLatest(async (wish) => {
                    done.push(wish)
                    if (wish === 1) await new Promise((resolve) => free = resolve)
                })
                for (const wish of [1, 2, 3, 4]) ask(wish)
                free()
                await settled()
                ask(5)
                await settled()
                return done
            }"""
        )
        self.assertEqual(found, [1, 4, 5])


class LanesTest(UnitTest):
    def logged_in_lanes(self, script):
        """What was logged while five pieces of work went on in lanes, each until it is told."""
        return self.logged(f"""
            const {{ inLanes }} = await import('/lanes.js')
            const done = inLanes(['a', 'b', 'c', 'd', 'e'], async (name, lane) => {{
                log.push(`${{name}} in ${{lane}}`)
                await until(name)
                log.push(`${{name}} done`)
            }}).then(() => log.push('all done'), (error) => log.push(`threw ${{error.message}}`))
            await tick()
            {script}
            await done
        """)

    def test_work_is_begun_in_order_as_soon_as_a_lane_is_free(self):
        done = self.logged_in_lanes(
            "for (const name of ['b', 'a', 'd', 'c', 'e']) await pass(name)"
        )
        begun = ["a in 0", "b in 1", "c in 2", "b done", "d in 1", "a done", "e in 0"]
        self.assertEqual(done, [*begun, "d done", "c done", "e done", "all done"])

    def test_after_a_failure_no_more_is_begun_and_what_is_under_way_ends(self):
        done = self.logged_in_lanes("await fail('b'); await pass('a'); await pass('c')")
        self.assertEqual(done, ["a in 0", "b in 1", "c in 2", "a done", "c done", "threw b"])
