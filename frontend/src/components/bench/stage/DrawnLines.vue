<script setup lang="ts">
// Lines that were drawn on the photo, each of which can be clicked away.

import { computed } from 'vue'

import { lineOf } from '../../../composables/drawing'
import { useOutputSpace } from '../../../composables/outputSpace'
import { useBench } from '../../../stores/bench'

export interface DrawnLine {
  /** In photo space, 0 to 1; the radius in the photo's long sides. */
  points: [number, number][]
  radius: number
  colour: string
}

const props = defineProps<{
  /** The picture's top left corner on the stage, in CSS pixels. */
  origin: { x: number; y: number }
  lines: DrawnLine[]
  /** What they are together, and what a click on one does. */
  label: string
  does: string
}>()
const emit = defineEmits<{ take: [number: number] }>()

const bench = useBench()
const { transform } = useOutputSpace(() => props.origin)
const photo = computed(() => bench.shownLayout!.photo_space)
const longSide = computed(() => Math.max(photo.value.width, photo.value.height))

function pathOf({ points }: DrawnLine): string {
  return lineOf(points.map(([x, y]) => [x * photo.value.width, y * photo.value.height]))
}
</script>

<template>
  <svg v-if="lines.length" role="group" :aria-label="label">
    <g :transform="transform">
      <g :transform="`matrix(${photo.to_output.join(' ')})`">
        <path
          v-for="(line, number) in lines"
          :key="number"
          :d="pathOf(line)"
          :stroke="line.colour"
          :stroke-width="2 * line.radius * longSide"
          role="button"
          tabindex="0"
          :aria-label="`${does} ${number + 1}`"
          @pointerdown.stop
          @click="emit('take', number)"
          @keydown.enter.stop="emit('take', number)"
        />
      </g>
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
  stroke-linecap: round;
  stroke-linejoin: round;
  opacity: 0.55;
  pointer-events: stroke;
  cursor: pointer;
}

path:hover,
path:focus-visible {
  opacity: 0.9;
}
</style>
