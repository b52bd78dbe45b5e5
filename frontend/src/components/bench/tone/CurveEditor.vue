<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Edit, Tone } from '../../../api/types'
import { followPointer } from '../../../composables/drags'
import { arrowWay } from '../../../composables/keyNames'
import { useToneEdits } from '../../../composables/toneEdits'
import { useBench } from '../../../stores/bench'
import { useToneFigures } from '../../../stores/toneFigures'
import NumberField from '../../shared/NumberField.vue'

type Point = Tone['curve'][number]

const SIDE = 100
const MOST_POINTS = 16
/** How near, of the whole, points may come to each other, and a press to a point. */
const APART = 0.02
const NEAR = 0.06

const bench = useBench()
const { tone, change, reset, isSet } = useToneEdits()
const measured = useToneFigures()
const chosen = ref(0)
const points = computed(() => tone.value.curve)
const point = computed(() => points.value[Math.min(chosen.value, points.value.length - 1)]!)
const line = computed(() => {
  const curve = measured.figures?.curve ?? [0, 1]
  const last = curve.length - 1
  return `M${curve.map((y, index) => `${(index / last) * SIDE} ${(1 - y) * SIDE}`).join('L')}`
})

/** The curve with one point elsewhere, kept between its neighbours. */
function moved(from: Point[], index: number, x: number, y: number): Point[] {
  const low = index ? from[index - 1]!.x + APART : 0
  const high = index < from.length - 1 ? from[index + 1]!.x - APART : 1
  const place = { x: Math.min(high, Math.max(low, x)), y: Math.min(1, Math.max(0, y)) }
  return from.map((one, at) => (at === index ? place : one))
}

const edit = (curve: Point[]): Edit => change({ curve })

function press(event: PointerEvent): void {
  if (event.button !== 0) return
  const frame = (event.currentTarget as Element).getBoundingClientRect()
  const x = (event.clientX - frame.left) / frame.width
  const y = 1 - (event.clientY - frame.top) / frame.height
  let curve = [...points.value]
  let index = curve.findIndex((one) => Math.hypot(one.x - x, one.y - y) < NEAR)
  if (index < 0) {
    if (curve.length >= MOST_POINTS) return
    index = curve.filter((one) => one.x < x).length
    const crowded = curve.some((one) => Math.abs(one.x - x) < APART)
    if (crowded) return
    curve = [...curve.slice(0, index), { x, y }, ...curve.slice(index)]
    bench.drag(edit(curve))
  }
  chosen.value = index
  const from = curve[index]!
  followPointer(event, {
    move: (dx, dy) =>
      bench.drag(edit(moved(curve, index, from.x + dx / frame.width, from.y - dy / frame.height))),
    end: () => void bench.endDrag(),
  })
}

function nudge(event: KeyboardEvent): void {
  const way = arrowWay(event)
  if (!way) return
  event.preventDefault()
  event.stopPropagation()
  const { x, y } = point.value
  const curve = moved(points.value, chosen.value, x + way[0] / 100, y - way[1] / 100)
  void bench.edit(edit(curve), 'after a pause')
}

function type(part: 'x' | 'y', value: number): void {
  const x = part === 'x' ? value / 100 : point.value.x
  const y = part === 'y' ? value / 100 : point.value.y
  void bench.edit(edit(moved(points.value, chosen.value, x, y)))
}

function remove(): void {
  if (points.value.length <= 2) return
  void bench.edit(edit(points.value.filter((_, at) => at !== chosen.value)))
  chosen.value = Math.max(0, chosen.value - 1)
}
</script>

<template>
  <svg
    class="curve"
    :viewBox="`-3 -3 ${SIDE + 6} ${SIDE + 6}`"
    tabindex="0"
    role="group"
    aria-label="Curve; a click adds a point, the arrow keys move the chosen one"
    @pointerdown="press"
    @keydown="nudge"
  >
    <path class="grid" d="M25 0V100M50 0V100M75 0V100M0 25H100M0 50H100M0 75H100M0 100L100 0" />
    <path class="line" :d="line" />
    <circle
      v-for="({ x, y }, index) in points"
      :key="index"
      :cx="x * SIDE"
      :cy="(1 - y) * SIDE"
      r="3"
      :class="{ on: index === chosen }"
    />
  </svg>
  <div class="numbers">
    <NumberField
      stacked
      label="in, %"
      :value="point.x * 100"
      :min="0"
      :max="100"
      @change="(value) => type('x', value)"
    />
    <NumberField
      stacked
      label="out, %"
      :value="point.y * 100"
      :min="0"
      :max="100"
      @change="(value) => type('y', value)"
    />
    <button type="button" class="action" :disabled="points.length <= 2" @click="remove">Remove</button>
  </div>
  <button v-if="isSet('curve')" type="button" class="link" @click="reset(['curve'])">Reset the curve</button>
</template>

<style scoped>
.curve {
  display: block;
  width: 100%;
  max-width: 220px;
  margin: 0 auto;
  border-radius: 4px;
  background: #333331;
  cursor: crosshair;
  touch-action: none;
}

.grid {
  fill: none;
  stroke: #6b6b68;
  stroke-width: 0.4;
}

.line {
  fill: none;
  stroke: #f5f1e8;
  stroke-width: 1.2;
}

circle {
  fill: #333331;
  stroke: #f5f1e8;
  stroke-width: 1.2;
}

circle.on {
  fill: #f5f1e8;
}

.numbers {
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: 6px;
  align-items: center;
  margin-top: 8px;
}
</style>
