// A text that is shown on the picture as it is typed: one change for each pause.

import { useDebounceFn } from '@vueuse/core'

import type { Edit } from '../api/types'
import { useBench } from '../stores/bench'

const PAUSE_MS = 600

export function useTyping(editOf: (text: string) => Edit) {
  const bench = useBench()
  let isTyping = false

  const pause = useDebounceFn(keep, PAUSE_MS)

  function type(text: string): void {
    isTyping = true
    bench.drag(editOf(text))
    void pause()
  }

  /** What was typed is a change now. After leaving, a drag under way is somebody else's. */
  async function keep(): Promise<void> {
    if (isTyping) await bench.endDrag()
  }

  async function leave(): Promise<void> {
    const last = keep()
    isTyping = false
    await last
  }

  return { type, leave }
}
