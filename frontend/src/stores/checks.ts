// What the service measured about the size in hand.

import { defineStore } from 'pinia'
import { shallowRef } from 'vue'

import { post } from '../api/client'
import type { Check, Finish } from '../api/types'
import { useLatest } from '../composables/latest'
import { useNotices } from './notices'

export const useChecks = defineStore('checks', () => {
  const notices = useNotices()
  const found = shallowRef<Check[]>([])

  const measuring = useLatest<{ document: Finish; size_id: string }>(async (draft) => {
    try {
      found.value = (await post<{ checks: Check[] }>('/bench/checks', draft)).checks
    } catch (error) {
      notices.tell(error)
    }
  })

  const measure = (document: Finish, size_id: string) => measuring.ask({ document, size_id })

  return { found, measure }
})
