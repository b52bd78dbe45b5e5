// Key presses on their way to the table of keys. No key works inside a text field.

import { useEventListener } from '@vueuse/core'
import { useRoute } from 'vue-router'

import { useBench } from '../stores/bench'
import { isDialogOpen } from './dialogs'
import { isCharacter, isTyping, pressesButton } from './keyNames'
import type { Key } from './keyTable'
import { useLetterKeys } from './letterKeys'
import { usePieceClipboard } from './pieceClipboard'

export function useKeys(table: Key[]): void {
  const route = useRoute()
  const bench = useBench()
  usePieceClipboard()
  const letterKeys = useLetterKeys()

  useEventListener(window, 'keydown', (event: KeyboardEvent) => {
    if (isTyping(event.target) || pressesButton(event) || event.altKey) return
    if (isCharacter(event) && !letterKeys.value) return
    const onBench = route.name === 'bench' && !!bench.draft && !isDialogOpen()
    const meant = table.find(
      (key) => key.takes?.(event) && (key.everywhere || onBench) && (key.when?.() ?? true),
    )
    if (!meant) return
    meant.run?.(event)
    event.preventDefault()
  })
}
