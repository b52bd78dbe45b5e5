<script setup lang="ts">
// The black and the white point as grips under the histogram, whose sides are where nothing is set:
// inwards they stretch, outwards black is lifted to grey and white lowered.

import { useTemplateRef } from 'vue'

import type { Edit } from '../../../api/types'
import { followPointer } from '../../../composables/drags'
import { arrowWay } from '../../../composables/keyNames'
import { useToneEdits } from '../../../composables/toneEdits'
import { useBench } from '../../../stores/bench'
import NumberField from '../../shared/NumberField.vue'

type End = 'black_point' | 'white_point'

/** Share of the strip on either side of the histogram, for lifting. */
const ASIDE = 0.12
/** Share of the histogram that full stretching reaches into it. */
const REACH = 0.27 * (1 - 2 * ASIDE)
const ENDS: { end: End; label: string; sign: 1 | -1 }[] = [
  { end: 'black_point', label: 'Black point', sign: -1 },
  { end: 'white_point', label: 'White point', sign: 1 },
]

const bench = useBench()
const { tone, change, reset } = useToneEdits()
const strip = useTemplateRef<HTMLElement>('strip')

const within = (value: number) => Math.round(Math.max(-100, Math.min(100, value)))
const edit = (end: End, value: number): Edit => change({ [end]: within(value) })

/** How far inwards a grip lies from the histogram's side, in shares of the strip. */
function inwards(amount: number, sign: 1 | -1): number {
  const stretch = (sign * amount) / 100
  return stretch * (stretch > 0 ? REACH : ASIDE)
}

function place(end: End, sign: 1 | -1): string {
  const from = ASIDE + inwards(tone.value[end], sign)
  return `${100 * (end === 'black_point' ? from : 1 - from)}%`
}

function press(event: PointerEvent, end: End, sign: 1 | -1): void {
  const width = strip.value!.getBoundingClientRect().width
  const begins = inwards(tone.value[end], sign)
  const side = end === 'black_point' ? 1 : -1
  followPointer(event, {
    move: (dx) => {
      const now = begins + (side * dx) / width
      bench.drag(edit(end, (sign * 100 * now) / (now > 0 ? REACH : ASIDE)))
    },
    end: () => void bench.endDrag(),
  })
}

function nudge(event: KeyboardEvent, end: End): void {
  const way = arrowWay(event)
  if (!way) return
  event.preventDefault()
  event.stopPropagation()
  void bench.edit(edit(end, tone.value[end] + way[0] - way[1]), 'after a pause')
}
</script>

<template>
  <div ref="strip" class="strip">
    <button
      v-for="{ end, label, sign } in ENDS"
      :key="end"
      type="button"
      role="slider"
      class="grip-target"
      :class="end"
      :style="{ left: place(end, sign) }"
      :aria-label="label"
      :aria-valuenow="tone[end]"
      aria-valuemin="-100"
      aria-valuemax="100"
      :data-tip="`${label}. Double-click resets it.`"
      @pointerdown="(event) => press(event, end, sign)"
      @keydown="(event) => nudge(event, end)"
      @dblclick="reset([end])"
    ></button>
  </div>
  <div class="numbers">
    <NumberField
      v-for="{ end, label } in ENDS"
      :key="end"
      stacked
      :label="label.toLowerCase()"
      :value="tone[end]"
      :min="-100"
      :max="100"
      @change="(value) => bench.edit(edit(end, value))"
    />
  </div>
</template>

<style scoped>
.strip {
  position: relative;
  height: 24px;
}

button {
  position: absolute;
  top: 0;
  width: 24px;
  height: 24px;
  padding: 0;
  border: 0;
  background: none;
  transform: translateX(-50%);
  cursor: ew-resize;
  touch-action: none;
}

button::before {
  content: '';
  position: absolute;
  top: 1px;
  left: 5px;
  width: 10px;
  height: 10px;
  border: 2px solid var(--ink);
  border-radius: 0 50% 50% 50%;
  background: var(--ink);
  transform: rotate(45deg);
}

.white_point::before {
  background: #ffffff;
}

.numbers {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
</style>
