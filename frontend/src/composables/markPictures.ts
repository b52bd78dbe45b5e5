// Pictures of a mark's design before it is kept.

import { useObjectUrl, watchDebounced } from '@vueuse/core'
import { shallowRef } from 'vue'

import { picture } from '../api/client'
import type { MarkDesign, MarkShade } from '../api/types'
import { useNotices } from '../stores/notices'

const PAUSE_MS = 120

export function isEmptyMark({ words, line, icon }: MarkDesign): boolean {
  return !(words.trim() || line.trim() || icon)
}

/** The address of a picture that follows the design; undefined while there is nothing on it. */
export function useMarkPicture(design: () => MarkDesign, shade: MarkShade) {
  const notices = useNotices()
  const drawn = shallowRef<Blob>()
  let asked = 0

  watchDebounced(
    () => JSON.stringify(design()),
    async () => {
      const turn = (asked += 1)
      const now = design()
      try {
        const blob = isEmptyMark(now) ? null : await picture('/marks/drawn', { design: now, shade })
        if (turn === asked) drawn.value = blob ?? undefined
      } catch (error) {
        notices.tell(error)
      }
    },
    { debounce: PAUSE_MS, immediate: true },
  )

  return useObjectUrl(drawn)
}
