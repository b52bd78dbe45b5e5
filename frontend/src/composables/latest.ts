// Newest wins: while as many runs are under way as there are lanes, only the newest wish after them
// is kept, nothing queues up, and the last wish is always the one that is carried out at the end.

import { onScopeDispose } from 'vue'

export function useLatest<Wish>(carryOut: (wish: Wish) => Promise<void>, lanes = 1) {
  let next: { wish: Wish } | null = null
  const running = new Set<Promise<void>>()
  let stopped = false

  /** Carry out `wish`, unless a newer one comes before its turn. */
  function ask(wish: Wish): void {
    next = { wish }
    if (running.size >= lanes) return
    const lane = run().finally(() => running.delete(lane))
    running.add(lane)
  }

  async function run(): Promise<void> {
    while (next && !stopped) {
      const { wish } = next
      next = null
      await carryOut(wish)
    }
  }

  /** Resolves when nothing is wished for any more. */
  async function settled(): Promise<void> {
    while (running.size) await Promise.all(running)
  }

  onScopeDispose(() => {
    stopped = true
  })

  return { ask, settled }
}
