// Writing in a text piece: shown as it is typed, and one change for each pause.

import { computed, ref, watch } from 'vue'

import type { TextPiece } from '../api/types'
import { useBench } from '../stores/bench'
import { usePieceEdits } from './pieceEdits'
import { useTyping } from './typing'

export function useWriting(piece: () => TextPiece) {
  const bench = useBench()
  const { set, remove } = usePieceEdits()
  const typed = ref<string | null>(null)
  const text = computed(() => typed.value ?? piece().text)
  const typing = useTyping((now) => set({ text: now }, [piece().id]))

  function write(now: string): void {
    typed.value = now
    typing.type(now)
  }

  /** Make what was typed a change of its own. */
  async function commit(): Promise<void> {
    await typing.leave()
    typed.value = null
  }

  /** Leaving keeps the text; one without any letter goes. */
  async function leave(): Promise<void> {
    const isEmpty = !text.value.trim()
    await commit()
    if (isEmpty) remove()
  }

  // Undo takes back what was typed, and the field shows that.
  watch(
    () => piece().text,
    () => {
      if (!bench.isDragging) typed.value = null
    },
  )

  return { text, write, commit, leave }
}
