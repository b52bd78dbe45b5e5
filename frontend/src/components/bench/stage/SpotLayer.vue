<script setup lang="ts">
// Spots as they are worked on: what is being drawn, and those that are filled.

import { computed } from 'vue'

import type { Spot } from '../../../api/types'
import { lineOf, useDrawing } from '../../../composables/drawing'
import { useOutputSpace } from '../../../composables/outputSpace'
import { useBench } from '../../../stores/bench'
import { useSpots } from '../../../stores/spots'
import BrushMark from './BrushMark.vue'

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

const photo = computed(() => bench.shownLayout!.photo_space)
const onPhoto = computed(() => `matrix(${photo.value.to_output.join(' ')})`)
const line = computed(() => lineOf(drawn.value.map(({ x, y }) => [x, y])))
const brushAt = computed(() => spots.cross ?? hovered.value)
const shown = computed(() => (spots.shows ? bench.document!.spots.filled : []))

function pathOf({ points }: Spot): string {
  return lineOf(points.map(([x, y]) => [x * photo.value.width, y * photo.value.height]))
}

function remove(number: number): void {
  void bench.edit({ kind: 'remove_spot', number })
}
</script>

<template>
  <div class="spots" @pointerdown="press" @pointermove="hover" @pointerleave="hovered = null">
    <svg aria-hidden="true">
      <g :transform="transform">
        <path v-if="line" class="line" :d="line" :stroke-width="2 * spots.shownRadius" />
        <BrushMark v-if="brushAt" :at="brushAt" :radius="spots.shownRadius" :is-cross="!!spots.cross" />
      </g>
    </svg>
    <svg v-if="shown.length" role="group" aria-label="Spots">
      <g :transform="transform">
        <g :transform="onPhoto">
          <path
            v-for="(spot, number) in shown"
            :key="number"
            class="line filled"
            :d="pathOf(spot)"
            :stroke-width="2 * spot.radius * spots.longSide"
            role="button"
            tabindex="0"
            :aria-label="`Remove spot ${number + 1}`"
            @pointerdown.stop
            @click="remove(number)"
            @keydown.enter.stop="remove(number)"
          />
        </g>
      </g>
    </svg>
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
  stroke: var(--honey);
  stroke-linecap: round;
  stroke-linejoin: round;
  opacity: 0.55;
}

.filled {
  pointer-events: stroke;
  cursor: pointer;
}

.filled:hover,
.filled:focus-visible {
  stroke: #d4503c;
  opacity: 0.9;
}
</style>
