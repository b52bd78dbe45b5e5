// How spots are worked on: the brush, and whether they are shown. Nothing here edits but its strokes.

import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'

import { createPhotoBrush, type Place } from '../composables/photoBrush'
import { useBench } from './bench'

export const useSpots = defineStore('spots', () => {
  const bench = useBench()
  const inHand = createPhotoBrush(0.012)
  const shows = ref(false)
  const isOpen = computed(() => bench.openStep === 'spots')

  /** Fill what lies along these places. */
  function draw(places: Place[]): Promise<void> {
    return bench.edit({ kind: 'draw_spot', radius: inHand.radius.value, points: places.map(inHand.turnedAt) })
  }

  function dab(): void {
    if (inHand.cross.value) void draw([inHand.cross.value])
  }

  watch([isOpen, () => bench.saved?.id], () => {
    inHand.cross.value = null
    shows.value = false
  })

  return { ...inHand, shows, isOpen, draw, dab }
})
