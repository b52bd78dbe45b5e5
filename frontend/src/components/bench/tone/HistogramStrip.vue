<script setup lang="ts">
import { computed } from 'vue'

import { whenStageRests } from '../../../composables/stageRest'
import { useBench } from '../../../stores/bench'
import { useToneFigures } from '../../../stores/toneFigures'

const IDLE_MS = 60
const WIDTH = 256
const HEIGHT = 58

const bench = useBench()
const measured = useToneFigures()
const figures = computed(() => measured.figures)

whenStageRests(
  () => [bench.draft?.draft, bench.sizeId],
  (draft) => measured.measure(draft, bench.sizeId),
  IDLE_MS,
)

/** The highest step that is shown whole; single spikes may go past the top. */
const top = computed(() => {
  const all = [...(figures.value?.brightness ?? [1])].sort((one, other) => other - one)
  return Math.max(all[2] ?? 1, 0.004)
})

function area(shares: number[]): string {
  const step = WIDTH / shares.length
  const points = shares.map((share, index) => {
    const height = Math.min(1, Math.sqrt(share / top.value)) * HEIGHT
    return `L${(index + 0.5) * step} ${HEIGHT - height}`
  })
  return `M0 ${HEIGHT}${points.join('')}L${WIDTH} ${HEIGHT}Z`
}
</script>

<template>
  <div class="histogram">
    <svg v-if="figures" :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" preserveAspectRatio="none" role="img" aria-label="Histogram of the photo in its window">
      <path class="grey" :d="area(figures.brightness)" />
      <path class="red" :d="area(figures.red)" />
      <path class="green" :d="area(figures.green)" />
      <path class="blue" :d="area(figures.blue)" />
    </svg>
  </div>
</template>

<style scoped>
/* As far from both sides as the grips under it need to lift black and lower white. */
.histogram {
  min-height: 58px;
  padding: 0 12%;
}

svg {
  display: block;
  width: 100%;
  height: 58px;
  border-radius: 3px;
  background: #333331;
}

path {
  fill: none;
  stroke-width: 1.2;
  vector-effect: non-scaling-stroke;
}

.grey {
  fill: rgb(255 255 255 / 30%);
}

.red {
  stroke: #e08a78;
}

.green {
  stroke: #8fc79b;
}

.blue {
  stroke: #8fb2e6;
}
</style>
