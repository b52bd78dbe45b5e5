<script setup lang="ts">
// Where a brush would be put down, in the SVG of a layer in output pixels.

import type { Place } from '../../../composables/photoBrush'

defineProps<{ at: Place; radius: number; isCross: boolean }>()
</script>

<template>
  <g>
    <circle :cx="at.x" :cy="at.y" :r="radius" />
    <path v-if="isCross" :d="`M${at.x - 2 * radius} ${at.y}h${4 * radius}M${at.x} ${at.y - 2 * radius}v${4 * radius}`" />
  </g>
</template>

<style scoped>
circle,
path {
  fill: none;
  stroke: #ffffff;
  stroke-width: 1.5;
  vector-effect: non-scaling-stroke;
  filter: drop-shadow(0 0 1px #1e2a2f);
}
</style>
