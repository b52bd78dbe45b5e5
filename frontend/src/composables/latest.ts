// Newest wins: while one run is under way only the newest wish after it is kept, nothing queues
// up, and the last wish is always the one that is carried out at the end.

import { onScopeDispose } from 'vue'

export function useLatest<Wish>(carryOut: (wish: Wish) => Promise<void>) {
  let next: { wish: Wish } | null = null
  let loop: Promise<void> | null = null
  let stopped = false

  /** Carry out `wish`, unless a newer one comes before its turn. */
  function ask(wish: Wish): void {
    next = { wish }
    loop ??= run().finally(() => (loop = null))
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
    while (loop) await loop
  }

  onScopeDispose(() => {
    stopped = true
  })

  return { ask, settled }
}
