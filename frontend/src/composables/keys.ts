// Key presses on their way to the table of keys. No key works inside a text field.

import { useEventListener } from '@vueuse/core'
import { useRoute } from 'vue-router'

import { useBench } from '../stores/bench'
import { isDialogOpen } from './dialogs'
import { isTyping } from './keyNames'
import type { Key } from './keyTable'
import { usePieceClipboard } from './pieceClipboard'

export function useKeys(table: Key[]): void {
  const route = useRoute()
  const bench = useBench()
  usePieceClipboard()

  useEventListener(window, 'keydown', (event: KeyboardEvent) => {
    if (isTyping(event.target) || event.altKey) return
    const onBench = route.name === 'bench' && !!bench.draft && !isDialogOpen()
    const meant = table.find(
      (key) => key.takes?.(event) && (key.everywhere || onBench) && (key.when?.() ?? true),
    )
    if (!meant) return
    meant.run?.(event)
    event.preventDefault()
  })
}
