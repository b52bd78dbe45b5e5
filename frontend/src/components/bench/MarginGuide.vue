<script setup lang="ts">
import { useOutputSpace } from '../../composables/outputSpace'
import { useBench } from '../../stores/bench'

const props = defineProps<{
  /** The picture's top left corner on the stage, in CSS pixels. */
  origin: { x: number; y: number }
}>()

const bench = useBench()
const transform = useOutputSpace(() => props.origin)
</script>

<template>
  <svg aria-hidden="true">
    <g :transform="transform">
      <path class="under" :d="bench.shownLayout!.margin_outline" />
      <path class="over" :d="bench.shownLayout!.margin_outline" />
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
