// What the service measured about each size; the one in hand first.

import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'

import { postAbout } from '../api/drafts'
import type { Check, Laid } from '../api/types'
import { useLatest } from '../composables/latest'
import { useBench } from './bench'
import { useNotices } from './notices'

export const useChecks = defineStore('checks', () => {
  const bench = useBench()
  const notices = useNotices()
  const bySize = shallowRef<Record<string, Check[]>>({})
  const found = computed(() => bySize.value[bench.sizeId] ?? [])
  let wanted: Laid | null = null

  const measuring = useLatest<Laid>(async (draft) => {
    const ids = draft.sizes.map(({ id }) => id)
    const inHandFirst = ids.sort((one, other) => Number(other === bench.sizeId) - Number(one === bench.sizeId))
    for (const size_id of inHandFirst) {
      if (wanted !== draft) return // changed meanwhile; what comes next measures all anew
      try {
        const { checks } = await postAbout<{ checks: Check[] }>(draft, '/bench/checks', { size_id })
        bySize.value = { ...bySize.value, [size_id]: checks }
      } catch (error) {
        notices.tell(error)
        return
      }
    }
  })

  function measure(draft: Laid): void {
    wanted = draft
    measuring.ask(draft)
  }

  /** How many checks of a size ask for a look. */
  function looks(id: string): number {
    return (bySize.value[id] ?? []).filter((check) => check.severity === 'warning').length
  }

  return { bySize, found, measure, looks }
})
