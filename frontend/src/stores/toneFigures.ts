// What the service measured of the toned photo: its histogram, its curve, what is clipped.

import { defineStore } from 'pinia'
import { shallowRef } from 'vue'

import { postAbout, type Named } from '../api/drafts'
import type { ToneFigures } from '../api/types'
import { useLatest } from '../composables/latest'
import { useNotices } from './notices'

export const useToneFigures = defineStore('toneFigures', () => {
  const notices = useNotices()
  const figures = shallowRef<ToneFigures | null>(null)

  const measuring = useLatest<{ draft: Named; size_id: string }>(async ({ draft, size_id }) => {
    try {
      figures.value = await postAbout<ToneFigures>(draft, '/bench/tone', { size_id })
    } catch (error) {
      notices.tell(error)
    }
  })

  const measure = (draft: Named, size_id: string) => measuring.ask({ draft, size_id })

  return { figures, measure }
})
