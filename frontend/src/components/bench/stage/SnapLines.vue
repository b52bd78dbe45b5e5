<script setup lang="ts">
// What a drag was drawn to, and how far it is from the margin.

import { computed } from 'vue'

import type { Guide } from '../../../api/types'
import { useOutputSpace } from '../../../composables/outputSpace'
import { useBench } from '../../../stores/bench'

const props = defineProps<{
  /** The picture's top left corner on the stage, in CSS pixels. */
  origin: { x: number; y: number }
}>()

const bench = useBench()
const { transform, at } = useOutputSpace(() => props.origin)
const labelled = computed(() => bench.guides.filter(({ label }) => label))

function lineOf({ x1, y1, x2, y2 }: Guide) {
  return { x1, y1, x2, y2 }
}
</script>

<template>
  <svg v-if="bench.guides.length" aria-hidden="true">
    <g :transform="transform">
      <line v-for="(guide, number) in bench.guides" :key="number" v-bind="lineOf(guide)" />
    </g>
  </svg>
  <span
    v-for="guide in labelled"
    :key="guide.label + guide.x1"
    class="distance"
    :style="at((guide.x1 + guide.x2) / 2, (guide.y1 + guide.y2) / 2)"
  >
    {{ guide.label }}
  </span>
</template>

<style scoped>
svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}

line {
  stroke: #ffffff;
  stroke-width: 1.5;
  vector-effect: non-scaling-stroke;
  paint-order: stroke;
  filter: drop-shadow(0 0 1px rgb(30 42 47 / 90%));
}

.distance {
  position: absolute;
  padding: 1px 5px;
  transform: translate(-50%, -50%);
  border-radius: 3px;
  background: rgb(30 42 47 / 85%);
  color: #ffffff;
  font-size: 11px;
  font-variant-numeric: tabular-nums;
  pointer-events: none;
}
</style>
