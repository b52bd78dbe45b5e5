// Whether a dialog is open: keys then belong to it, wherever the focus is.

import { onScopeDispose, ref, watch, type Ref } from 'vue'

const openCount = ref(0)

export function useOpenDialog(open: Ref<boolean>): void {
  let counted = false

  function count(now: boolean): void {
    if (now !== counted) openCount.value += now ? 1 : -1
    counted = now
  }

  watch(open, count, { immediate: true })
  onScopeDispose(() => count(false))
}

export function isDialogOpen(): boolean {
  return openCount.value > 0
}
