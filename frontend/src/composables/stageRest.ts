// What can wait until the stage is done: proofs, checks, figures. Made beside it, they would take the
// computer's time from what is looked at.

import { watchDebounced } from '@vueuse/core'

import type { Laid } from '../api/types'
import { useBench } from '../stores/bench'

/** Carry out `act` when the stage has rested for `idle` ms after it drew, or after `what` changed. */
export function whenStageRests(what: () => unknown, act: (draft: Laid) => unknown, idle: number): void {
  const bench = useBench()
  watchDebounced(
    () => [bench.stageDrawn, bench.isStageDrawing, bench.dragging, what()],
    () => {
      if (bench.draft && !bench.dragging && !bench.isStageDrawing) void act(bench.draft)
    },
    { debounce: idle, immediate: true },
  )
}
