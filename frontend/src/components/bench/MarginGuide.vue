<script setup lang="ts">
import { computed } from 'vue'

import { useBench } from '../../stores/bench'
import { useStage } from '../../stores/stage'

const props = defineProps<{
  /** The picture's top left corner on the stage, in CSS pixels. */
  origin: { x: number; y: number }
  /** Whether the stage shows the whole photo, so that the guide lies in the window. */
  onPhoto: boolean
}>()

const bench = useBench()
const stage = useStage()

/** From output pixels to CSS pixels of the stage. */
const transform = computed(() => {
  const { sampled, photo_box: box } = bench.layout!
  const { x, y } = props.origin
  if (!props.onPhoto) return `translate(${x} ${y}) scale(${stage.zoom})`
  const scale = (stage.zoom * sampled.width) / box.width
  const left = x + sampled.left * stage.zoom - box.left * scale
  const top = y + sampled.top * stage.zoom - box.top * scale
  return `translate(${left} ${top}) scale(${scale})`
})
</script>

<template>
  <svg aria-hidden="true">
    <g :transform="transform">
      <path class="under" :d="bench.layout!.margin_outline" />
      <path class="over" :d="bench.layout!.margin_outline" />
    </g>
  </svg>
</template>

<style scoped>
svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}

path {
  fill: none;
  stroke-width: 1;
  vector-effect: non-scaling-stroke;
}

.under {
  stroke: rgb(30 42 47 / 55%);
}

.over {
  stroke: rgb(255 255 255 / 85%);
  stroke-dasharray: 5 4;
}
</style>
