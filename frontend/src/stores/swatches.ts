// Colours that are offered everywhere: those of the photo, those of the house styles, and those that
// were chosen lately.

import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, shallowRef, watch } from 'vue'

import { get } from '../api/client'
import type { Palette } from '../api/types'
import { useBench } from './bench'
import { useNotices } from './notices'
import { useStyles } from './styles'

const MOST_RECENT = 8
const MOST_OF_A_STYLE = 6

export const useSwatches = defineStore('swatches', () => {
  const bench = useBench()
  const notices = useNotices()
  const styles = useStyles()
  const ofPhoto = shallowRef<string[]>([])
  const recent = useLocalStorage<string[]>('lucky-margin-recent-colours', [])
  const photo = computed(() => bench.document?.photo?.sha256)

  let loading = Promise.resolve()

  watch(photo, (sha256) => (loading = load(sha256)), { immediate: true })

  /** The colours of each house style, the one that new photos start in first. */
  const ofStyles = computed(() => {
    const first = (id: string) => (id === styles.chosen ? 0 : 1)
    const sorted = [...styles.list].sort((one, other) => first(one.style.id) - first(other.style.id))
    return sorted.map(({ style, colours }) => ({ name: style.name, colours: colours.slice(0, MOST_OF_A_STYLE) }))
  })

  async function load(sha256: string | undefined): Promise<void> {
    ofPhoto.value = []
    void styles.loadOnce()
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

  return { ofPhoto, ofStyles, recent, remember, whenKnown }
})
