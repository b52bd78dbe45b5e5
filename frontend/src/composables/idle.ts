import { computed, type ComputedRef } from 'vue'

import { useBench } from '../stores/bench'

/** While something is dragged the stage has the machine to itself until the pointer rests. */
const RESTING_MS = 350

/** How long to wait for quiet before doing what may wait: `ms`, longer during a drag. */
export function useIdle(ms: number): ComputedRef<number> {
  const bench = useBench()
  return computed(() => (bench.dragging ? RESTING_MS : ms))
}
