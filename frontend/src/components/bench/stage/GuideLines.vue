<script setup lang="ts">
import { computed } from 'vue'

import { useStage } from '../../../stores/stage'

/** Lines over a window of 100 x 100, stretched to it. */
const LINES = {
  none: '',
  thirds: 'M33.333 0V100M66.667 0V100M0 33.333H100M0 66.667H100',
  centre: 'M50 0V100M0 50H100',
  diagonals: 'M0 0L100 100M100 0L0 100',
}

const stage = useStage()
const lines = computed(() => LINES[stage.guides])
</script>

<template>
  <svg class="guides" viewBox="0 0 100 100" preserveAspectRatio="none" aria-hidden="true">
    <path class="under" :d="lines" />
    <path :d="lines" />
  </svg>
</template>

<style scoped>
.guides {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}

path {
  fill: none;
  stroke: rgb(255 255 255 / 62%);
  stroke-width: 1;
  vector-effect: non-scaling-stroke;
}

path.under {
  stroke: rgb(30 42 47 / 35%);
  stroke-width: 2.5;
}
</style>
