// The ready-made treatments.

import { defineStore } from 'pinia'
import { shallowRef } from 'vue'

import { get } from '../api/client'
import type { StockTreatment } from '../api/types'
import { useNotices } from './notices'

export const useTreatments = defineStore('treatments', () => {
  const notices = useNotices()
  const stock = shallowRef<StockTreatment[]>([])

  async function load(): Promise<void> {
    try {
      stock.value = await get<StockTreatment[]>('/treatments')
    } catch (error) {
      notices.tell(error)
    }
  }

  return { stock, load }
})
