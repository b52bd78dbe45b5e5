// Writing in a text piece: shown as it is typed, and one change for each pause.

import { useDebounceFn } from '@vueuse/core'
import { computed, ref, watch } from 'vue'

import type { TextPiece } from '../api/types'
import { useBench } from '../stores/bench'
import { usePieceEdits } from './pieceEdits'

const PAUSE_MS = 600

export function useWriting(piece: () => TextPiece) {
  const bench = useBench()
  const { set, remove } = usePieceEdits()
  const typed = ref<string | null>(null)
  const text = computed(() => typed.value ?? piece().text)

  const pause = useDebounceFn(keep, PAUSE_MS)

  function write(now: string): void {
    typed.value = now
    bench.drag(set({ text: now }, [piece().id]))
    void pause()
  }

  /** What was typed is a change now. After leaving, a drag under way is somebody else's. */
  async function keep(): Promise<void> {
    if (typed.value !== null) await bench.endDrag()
  }

  /** Leaving keeps the text; one without any letter goes. */
  async function leave(): Promise<void> {
    await keep()
    typed.value = null
    if (!piece().text.trim()) remove()
  }

  // Undo takes back what was typed, and the field shows that.
  watch(
    () => piece().text,
    () => {
      if (!bench.isDragging) typed.value = null
    },
  )

  return { text, write, leave }
}
