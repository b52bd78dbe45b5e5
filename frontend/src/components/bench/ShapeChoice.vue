<script setup lang="ts">
// A shape and the numbers of its form.

import type { Edit, Shape } from '../../api/types'
import { useBench } from '../../stores/bench'
import NumberField from '../shared/NumberField.vue'
import SliderRow from '../shared/SliderRow.vue'
import { SHAPE_WORDS } from './crop/words'
import { vRadios } from '../../composables/radios'
import { lookingAt } from '../../composables/lookingAt'

type Kind = Shape['kind']

/** Small outlines of 16 x 16. */
const ICONS: Record<Kind, string> = {
  rectangle: 'M1.5 3.5h13v9h-13z',
  circle: 'M8 1.8a6.2 6.2 0 1 1 0 12.4a6.2 6.2 0 1 1 0-12.4z',
  oval: 'M8 3.6c3.9 0 6.7 2 6.7 4.4s-2.8 4.4-6.7 4.4S1.3 10.4 1.3 8S4.1 3.6 8 3.6z',
  arch: 'M3 14V7a5 5 0 0 1 10 0v7z',
  triangle: 'M8 2.2L14.5 13.8H1.5z',
  diamond: 'M8 1.5L14.5 8L8 14.5L1.5 8z',
  polygon: 'M8 1.6L13.6 4.8V11.2L8 14.4L2.4 11.2V4.8z',
  star: 'M8 1.5l2 4.4 4.8.5-3.6 3.2 1 4.7L8 11.9l-4.2 2.4 1-4.7L1.2 6.4 6 5.9z',
  heart: 'M8 14L2.3 8.1a3.4 3.4 0 0 1 5.7-3.5a3.4 3.4 0 0 1 5.7 3.5z',
  bubble: 'M3.5 2h9a2 2 0 0 1 2 2v5a2 2 0 0 1-2 2H8l-4.5 3.4L4.8 11H3.5a2 2 0 0 1-2-2V4a2 2 0 0 1 2-2z',
  blob: 'M8.6 1.8c3 .2 5 2.2 4.9 4.6c-.1 1.9 1.2 3 .5 5c-.7 2-3.4 3.200-6.200 2.600c-3-.6-5.900-2.300-5.800-5.400C2.100 5.400 4.600 1.500 8.600 1.800z',
}
const KINDS = Object.keys(ICONS) as Kind[]

const props = defineProps<{
  shape: Shape
  /** The edit that gives what is worked on this shape. */
  of: (shape: Shape) => Edit
}>()

const bench = useBench()

function fresh(kind: Kind): Shape {
  const { scale, x, y } = props.shape
  const place = { scale, x, y }
  switch (kind) {
    case 'rectangle':
      return { kind, radius: 0, ...place }
    case 'polygon':
      return { kind, sides: 6, ...place }
    case 'star':
      return { kind, points: 5, depth: 0.5, ...place }
    case 'blob':
      return { kind, seed: 1, ...place }
    default:
      return { kind, ...place }
  }
}

const edit = (fields: Partial<Shape>): Edit => props.of({ ...props.shape, ...fields } as Shape)
const choose = (kind: Kind): Edit => props.of(fresh(kind))
</script>

<template>
  <div v-radios class="shapes" role="radiogroup" aria-label="Shape">
    <button
      v-for="kind in KINDS"
      :key="kind"
      type="button"
      role="radio"
      class="shape"
      :class="{ on: kind === shape.kind }"
      :aria-checked="kind === shape.kind"
      :aria-label="SHAPE_WORDS[kind]"
      :data-tip="SHAPE_WORDS[kind]"
      @click="bench.edit(choose(kind))"
      v-on="lookingAt((on) => (bench.tryOut = on ? choose(kind) : null))"
    >
      <svg width="18" height="18" viewBox="0 0 16 16" aria-hidden="true"><path :d="ICONS[kind]" /></svg>
    </button>
  </div>
  <SliderRow
    v-if="shape.kind === 'rectangle'"
    label="Corners"
    :value="shape.radius * 100"
    :max="50"
    :step="0.5"
    :digits="1"
    :percent="1"
    @move="(percent) => bench.drag(edit({ radius: percent / 100 }))"
    @change="(percent) => bench.slide(edit({ radius: percent / 100 }))"
  />
  <SliderRow
    v-if="shape.kind === 'polygon'"
    label="Sides"
    unit=""
    :value="shape.sides"
    :min="3"
    :max="24"
    @move="(sides) => bench.drag(edit({ sides: Math.round(sides) }))"
    @change="(sides) => bench.slide(edit({ sides: Math.round(sides) }))"
  />
  <template v-if="shape.kind === 'star'">
    <SliderRow
      label="Points"
      unit=""
      :value="shape.points"
      :min="3"
      :max="24"
      @move="(points) => bench.drag(edit({ points: Math.round(points) }))"
      @change="(points) => bench.slide(edit({ points: Math.round(points) }))"
    />
    <SliderRow
      label="Depth"
      :value="shape.depth * 100"
      :min="5"
      :max="90"
      @move="(percent) => bench.drag(edit({ depth: percent / 100 }))"
      @change="(percent) => bench.slide(edit({ depth: percent / 100 }))"
    />
  </template>
  <p v-if="shape.kind === 'blob'" class="blob">
    <span>Outline</span>
    <NumberField
      label="Form of the blob"
      :value="shape.seed"
      :min="0"
      :max="9999"
      :digits="0"
      @change="(seed) => bench.edit(edit({ seed: Math.round(seed) }))"
    />
    <button
      type="button"
      class="action"
      @click="bench.edit(edit({ seed: (shape.seed + 1) % 10000 }))"
    >
      Another
    </button>
  </p>
</template>

<style scoped>
.shapes {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
}

.shape {
  display: grid;
  place-items: center;
  width: 38px;
  height: 30px;
  padding: 0;
  border: 1px solid var(--edge);
  border-radius: 4px;
  background: #ffffff;
}

.shape:hover {
  border-color: var(--ink);
}

.shape.on {
  border-color: var(--clover);
  box-shadow: inset 0 0 0 1px var(--clover);
  background: var(--clover-pale);
}

path {
  fill: none;
  stroke: currentColor;
  stroke-width: 1.2;
  stroke-linejoin: round;
}

.blob {
  display: grid;
  grid-template-columns: 66px 64px auto;
  gap: 14px;
  align-items: center;
  margin-top: 8px;
  font-size: 12px;
}
</style>
