"""``make bench``: how the design's figures (section 7) come out on this machine.

Machines are noisy, so every figure is a ratio of medians taken in turn in one run. With
``BASE=COMMIT`` each is compared with that commit's instead.
"""

import argparse
from contextlib import ExitStack

from bench.batches import batch_report
from bench.compare import compare, work_for
from bench.cut_outs import cut_out_figures
from bench.figure import ROUNDS
from bench.files import file_figures, peak_memory, sampling_figures
from bench.material import DEMO_PHOTO
from bench.previews import preview_figures
from bench.repairs import repair_report
from bench.service import pointer_figures, shelf_figures

GROUPS = (
    preview_figures,
    cut_out_figures,
    file_figures,
    sampling_figures,
    shelf_figures,
    pointer_figures,
)


def main() -> None:
    parser = argparse.ArgumentParser(prog="bench")
    parser.add_argument("--base", default="", help="the commit to compare with")
    parser.add_argument("--worker", action="store_true", help="used by --base")
    chosen = parser.parse_args()
    with ExitStack() as undo:
        figures = [figure for group in GROUPS for figure in group(undo)]
        if chosen.worker:
            work_for(figures)
        elif chosen.base:
            compare(chosen.base, [figure.name for figure in figures])
        else:
            print(f"Medians of {ROUNDS} rounds; photo: {DEMO_PHOTO.name}, enlarged where need be.")
            for figure in figures:
                print(figure.report(), flush=True)
            print(peak_memory())
            print(batch_report(), flush=True)
            for line in repair_report():
                print(line, flush=True)


if __name__ == "__main__":
    main()
