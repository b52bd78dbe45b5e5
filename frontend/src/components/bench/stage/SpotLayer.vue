<script setup lang="ts">
// Spots as they are worked on: what is being drawn, and those that are filled.

import { computed } from 'vue'

import { lineOf, useDrawing } from '../../../composables/drawing'
import { useOutputSpace } from '../../../composables/outputSpace'
import { useBench } from '../../../stores/bench'
import { useSpots } from '../../../stores/spots'
import BrushMark from './BrushMark.vue'
import DrawnLines from './DrawnLines.vue'

const props = defineProps<{
  /** The picture's top left corner on the stage, in CSS pixels. */
  origin: { x: number; y: number }
}>()

const bench = useBench()
const spots = useSpots()
const { transform } = useOutputSpace(() => props.origin)
const { drawn, hovered, press, hover } = useDrawing({
  origin: () => props.origin,
  begin: () => (spots.cross = null),
  end: (places) => void spots.draw(places),
})

const HONEY = '#d99a1e'

const line = computed(() => lineOf(drawn.value.map(({ x, y }) => [x, y])))
const brushAt = computed(() => spots.cross ?? hovered.value)
const shown = computed(() =>
  spots.shows ? bench.document!.spots.filled.map((spot) => ({ ...spot, colour: HONEY })) : [],
)

function remove(number: number): void {
  void bench.edit({ kind: 'remove_spot', number })
}
</script>

<template>
  <div class="spots" @pointerdown="press" @pointermove="hover" @pointerleave="hovered = null">
    <svg aria-hidden="true">
      <g :transform="transform">
        <path v-if="line" class="line" :stroke="HONEY" :d="line" :stroke-width="2 * spots.shownRadius" />
        <BrushMark v-if="brushAt" :at="brushAt" :radius="spots.shownRadius" :is-cross="!!spots.cross" />
      </g>
    </svg>
    <DrawnLines :origin="origin" :lines="shown" label="Spots" does="Remove spot" @take="remove" />
  </div>
</template>

<style scoped>
.spots {
  position: absolute;
  inset: 0;
  z-index: 2;
  cursor: none;
}

.panning .spots {
  pointer-events: none;
}

svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}

.line {
  fill: none;
  stroke-linecap: round;
  stroke-linejoin: round;
  opacity: 0.55;
}
</style>
