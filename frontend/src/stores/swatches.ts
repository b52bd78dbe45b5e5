// Colours that are offered everywhere: those of the photo, and those that were chosen lately.

import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, shallowRef, watch } from 'vue'

import { get } from '../api/client'
import type { Palette } from '../api/types'
import { useBench } from './bench'
import { useNotices } from './notices'

const MOST_RECENT = 8

export const useSwatches = defineStore('swatches', () => {
  const bench = useBench()
  const notices = useNotices()
  const ofPhoto = shallowRef<string[]>([])
  const recent = useLocalStorage<string[]>('lucky-margin-recent-colours', [])
  const photo = computed(() => bench.document?.photo?.sha256)

  let loading = Promise.resolve()

  watch(photo, (sha256) => (loading = load(sha256)), { immediate: true })

  async function load(sha256: string | undefined): Promise<void> {
    ofPhoto.value = []
    if (!sha256) return
    try {
      const { colours } = await get<Palette>(`/bench/palette/${sha256}`)
      if (sha256 === photo.value) ofPhoto.value = colours
    } catch (error) {
      notices.tell(error)
    }
  }

  /** The colours of the photo as soon as they have come; none if they could not. */
  async function whenKnown(): Promise<string[]> {
    await loading
    return ofPhoto.value
  }

  function remember(colour: string): void {
    recent.value = [colour, ...recent.value.filter((one) => one !== colour)].slice(0, MOST_RECENT)
  }

  return { ofPhoto, recent, remember, whenKnown }
})
