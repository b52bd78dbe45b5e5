<script setup lang="ts">
// A piece alone, small, as it looks on the size in hand.

import { computed } from 'vue'

import { usePictures } from '../../../composables/pictures'
import { whenStageRests } from '../../../composables/stageRest'
import { useBench } from '../../../stores/bench'

const props = defineProps<{ id: string }>()

/** Small pictures wait for the proofs too. */
const IDLE_MS = 200
/** The longest side, in CSS pixels. */
const SIDE = 34

const bench = useBench()
const { shown, ask } = usePictures(`piece-${props.id}`)
const laid = computed(() => bench.layout?.pieces.find(({ id }) => id === props.id) ?? null)

/** The upright box round the piece, in output pixels; null when it is not on this size. */
const box = computed(() => {
  if (!laid.value || !bench.layout) return null
  const { x, y, width, height, angle } = laid.value
  const [cos, sin] = [Math.cos((angle * Math.PI) / 180), Math.sin((angle * Math.PI) / 180)].map(Math.abs)
  const wide = width * cos! + height * sin!
  const high = width * sin! + height * cos!
  const [left, top] = [Math.max(0, x - wide / 2), Math.max(0, y - high / 2)]
  const right = Math.min(bench.layout.width, x + wide / 2)
  const bottom = Math.min(bench.layout.height, y + high / 2)
  return right - left < 1 || bottom - top < 1 ? null : { left, top, width: right - left, height: bottom - top }
})

/** A stretch in whole pixels, at least one, of a picture's side. */
function within(start: number, length: number, side: number): { start: number; length: number } {
  const all = Math.max(1, Math.floor(side))
  const kept = Math.min(all, Math.max(1, Math.floor(length)))
  return { start: Math.min(Math.floor(start), all - kept), length: kept }
}

whenStageRests(
  () => box.value,
  (draft) => {
    if (!box.value) return
    const { left, top, width, height } = box.value
    const scale = Math.min(1, (SIDE * window.devicePixelRatio) / Math.max(width, height))
    const across = within(left * scale, width * scale, bench.layout!.width * scale)
    const down = within(top * scale, height * scale, bench.layout!.height * scale)
    ask({
      draft,
      size_id: bench.sizeId,
      edit: null,
      view: 'piece',
      scale,
      region: [across.start, down.start, across.length, down.length],
      place: 'proof',
      rough: true,
      held: [props.id],
    })
  },
  IDLE_MS,
)
</script>

<template>
  <span class="thumb"><img v-if="shown && box" :src="shown.url" alt="" /></span>
</template>

<style scoped>
/* A middle grey, on which light pieces show as well as dark ones. */
.thumb {
  display: grid;
  place-items: center;
  flex: none;
  width: 42px;
  height: 32px;
  border-radius: 3px;
  background: #9b9b98;
}

img {
  max-width: 36px;
  max-height: 26px;
}
</style>
