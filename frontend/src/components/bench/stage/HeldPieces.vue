<script setup lang="ts">
// Pieces that are being dragged, as a picture of their own: it goes with the pointer at once,
// over a picture without them.

import { computed, shallowRef, watch } from 'vue'

import type { Laid, PieceLaid } from '../../../api/types'
import { usePictures } from '../../../composables/pictures'
import { useBench } from '../../../stores/bench'
import { useStage } from '../../../stores/stage'

const props = defineProps<{
  /** The picture's top left corner on the stage, in CSS pixels. */
  origin: { x: number; y: number }
  /** Whether the picture underneath is one without the pieces. */
  isBare: boolean
}>()

const bench = useBench()
const stage = useStage()
const { shown, ask } = usePictures('held')
/** One of the pieces where the drag took it up, and the draft of that moment. */
const start = shallowRef<PieceLaid | null>(null)
const base = shallowRef<Laid | null>(null)

const laid = (id: string) => bench.layout?.pieces.find((piece) => piece.id === id) ?? null

watch(
  () => bench.held.join(),
  () => {
    if (!bench.held.length || !bench.dragBase) return
    base.value = bench.dragBase
    start.value = bench.dragBase.layout.pieces.find(({ id }) => bench.held.includes(id)) ?? null
    ask({
      draft: bench.dragBase,
      size_id: bench.sizeId,
      edit: null,
      view: 'piece',
      scale: Math.min(1, stage.zoom * window.devicePixelRatio),
      region: null,
      place: 'stage',
      held: [...bench.held],
    })
  },
)

const placed = computed(() => {
  const now = start.value && laid(start.value.id)
  if (!now || !start.value) return null
  const { width, height } = stage.picture
  return {
    left: `${props.origin.x + (now.x - start.value.x) * stage.zoom}px`,
    top: `${props.origin.y + (now.y - start.value.y) * stage.zoom}px`,
    width: `${width * stage.zoom}px`,
    height: `${height * stage.zoom}px`,
  }
})
/** The picture of these pieces has come, and the one underneath lacks them. */
const shows = computed(() => props.isBare && !!placed.value && shown.value?.wish.draft === base.value)
</script>

<template>
  <img v-if="shows" class="held" :src="shown!.url" :style="placed!" alt="" draggable="false" />
</template>

<style scoped>
.held {
  position: absolute;
  max-width: none;
  pointer-events: none;
}
</style>
