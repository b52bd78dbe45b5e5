<script setup lang="ts">
// A watermark on one spot, taken hold of and moved inside the margin.

import { computed } from 'vue'

import { snapOf, useEditDrags } from '../../../composables/editDrags'
import { useOutputSpace } from '../../../composables/outputSpace'
import { useBench } from '../../../stores/bench'
import SnapLines from './SnapLines.vue'

const props = defineProps<{
  /** The picture's top left corner on the stage, in CSS pixels. */
  origin: { x: number; y: number }
}>()

const bench = useBench()
const { placed, at } = useOutputSpace(() => props.origin)
const { follow } = useEditDrags()
const box = computed(() => bench.shownLayout!.watermark)
const style = computed(() => {
  if (!box.value) return {}
  const { left, top, width, height } = box.value
  const { scale } = placed.value
  return { ...at(left, top), width: `${width * scale}px`, height: `${height * scale}px` }
})

function press(event: PointerEvent): void {
  const { scale } = placed.value
  const only_this_size = bench.onlyThisSize
  follow(event, (dx, dy, now) => ({
    kind: 'drag_watermark',
    dx: dx / scale,
    dy: dy / scale,
    snap: snapOf(now, scale),
    only_this_size,
  }))
}
</script>

<template>
  <button
    v-if="box"
    type="button"
    class="mark"
    :style="style"
    aria-label="The watermark; the arrow keys move it"
    @pointerdown="press"
  ></button>
  <SnapLines :origin="origin" />
</template>

<style scoped>
.mark {
  position: absolute;
  min-width: 24px;
  min-height: 24px;
  padding: 0;
  border: 0;
  background: none;
  cursor: move;
  touch-action: none;
}

.mark:hover,
.mark:focus-visible {
  outline: 0;
  box-shadow:
    0 0 0 1px rgb(255 255 255 / 85%),
    0 0 0 2.5px rgb(30 42 47 / 75%);
}
</style>
