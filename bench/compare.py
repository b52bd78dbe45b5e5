"""Another checkout against this one, in turn: ``make bench BASE=COMMIT``.

Each figure's own work is done by two processes of the base and one of this checkout, one after the
other, so that drift hits them alike; the two of the base say how much the same differs from
the same.
"""

import json
import statistics
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from contextlib import ExitStack, contextmanager
from pathlib import Path

from bench.figure import Figure, seconds

PAIRS = 15


class Worker:
    """A process that does figures' work in a checkout."""

    def __init__(self, checkout: Path) -> None:
        self._process = subprocess.Popen(
            [sys.executable, "-m", "bench", "--worker"],
            cwd=checkout,
            stdin=subprocess.PIPE,
            stdout=subprocess.PIPE,
            text=True,
        )

    def ask(self, name: str) -> float | None:
        """Seconds of one figure's work, done once; None where the checkout has no such figure."""
        assert self._process.stdin is not None
        assert self._process.stdout is not None
        self._process.stdin.write(f"{json.dumps(name)}\n")
        self._process.stdin.flush()
        line = self._process.stdout.readline()
        if not line:
            raise SystemExit("That commit's own bench can't be compared; name a newer one.")
        answer: float | None = json.loads(line)
        return answer

    def close(self) -> None:
        """End it by the end of its input, so that it ends what it started."""
        self._process.communicate()


def work_for(figures: list[Figure]) -> None:
    """Do the work of figures as they are named on standard input."""
    known = {figure.name: figure.ours for figure in figures}
    for line in sys.stdin:
        work = known.get(json.loads(line))
        print(json.dumps(work and seconds(work)), flush=True)


def compare(base: str, names: list[str]) -> None:
    """Print how this checkout compares with commit ``base``, figure by figure."""
    with ExitStack() as undo:
        checkout = undo.enter_context(_checked_out(base))
        workers = [Worker(place) for place in (checkout, Path.cwd(), checkout)]
        for worker in workers:
            undo.callback(worker.close)
        print(f"This checkout against {base}: median ratio of {PAIRS} pairs [same against same].")
        for name in names:
            print(_line(name, workers), flush=True)


@contextmanager
def _checked_out(commit: str) -> Iterator[Path]:
    """A commit in a folder of its own, its loops compiled."""
    with tempfile.TemporaryDirectory() as folder:
        checkout = Path(folder) / "base"
        subprocess.run(["git", "worktree", "add", "-q", "--detach", checkout, commit], check=True)
        try:
            subprocess.run([sys.executable, "-c", _COMPILE], cwd=checkout, check=True)
            yield checkout
        finally:
            subprocess.run(["git", "worktree", "remove", "--force", checkout], check=True)


_COMPILE = "from lucky_margin.core.warm_up import warm_up; warm_up()"


def _line(name: str, workers: list[Worker]) -> str:
    for worker in workers:
        if worker.ask(name) is None:  # once, so that nothing is cold
            return f"{name:52} new"
    ratios, same = [], []
    for _ in range(PAIRS):
        base, ours, again = (worker.ask(name) or 0 for worker in workers)
        ratios.append(ours / base)
        same.append(again / base)
    low, _, high = statistics.quantiles(same, n=4)
    return f"{name:52} {statistics.median(ratios):5.2f} [{low:.2f} to {high:.2f}]"
