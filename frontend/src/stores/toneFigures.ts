// What the service measured of the toned photo: its histogram, its curve, what is clipped.

import { defineStore } from 'pinia'
import { shallowRef } from 'vue'

import { post } from '../api/client'
import type { Finish, ToneFigures } from '../api/types'
import { useLatest } from '../composables/latest'
import { useNotices } from './notices'

export const useToneFigures = defineStore('toneFigures', () => {
  const notices = useNotices()
  const figures = shallowRef<ToneFigures | null>(null)

  const measuring = useLatest<{ document: Finish; size_id: string }>(async (wanted) => {
    try {
      figures.value = await post<ToneFigures>('/bench/tone', wanted)
    } catch (error) {
      notices.tell(error)
    }
  })

  const measure = (document: Finish, size_id: string) => measuring.ask({ document, size_id })

  return { figures, measure }
})
