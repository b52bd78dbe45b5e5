<script setup lang="ts">
// How thick the band is, all round or on each side.

import { computed, ref, watch } from 'vue'

import type { Sides } from '../../../api/types'
import { useBandEdits } from '../../../composables/bandEdits'
import { evenSides } from '../../../composables/sides'
import { useBench } from '../../../stores/bench'
import ChoiceChips, { type Choice } from '../../shared/ChoiceChips.vue'
import NumberField from '../../shared/NumberField.vue'
import SliderRow from '../../shared/SliderRow.vue'

const THICKNESS: Record<string, number> = { none: 0, thin: 0.01, medium: 0.025, wide: 0.05, broad: 0.08 }
const MOST = 0.45
const SIDES = ['top', 'right', 'bottom', 'left'] as const

const bench = useBench()
const { at, band, short, change } = useBandEdits()
const thickness = computed(() => band.value?.thickness ?? evenSides(0))
const isEven = computed(() => new Set(Object.values(thickness.value)).size === 1)
const wantsEach = ref(false)
const isLinked = computed(() => isEven.value && !wantsEach.value)
watch(at, () => (wantsEach.value = false))
/** Only round a rectangle, and not for a broken line. */
const canDiffer = computed(() => {
  const isBroken = band.value?.kind === 'line' && band.value.line !== 'solid'
  return !isBroken && bench.size!.shape.kind === 'rectangle'
})

const choices: Choice<string>[] = Object.keys(THICKNESS).map((key) => ({ key, label: key }))
const chosen = computed(() => {
  if (!isEven.value) return null
  const found = Object.entries(THICKNESS).find(
    ([, fraction]) => Math.abs(fraction - thickness.value.top) < 1e-6,
  )
  return found?.[0] ?? null
})

function typeSide(side: keyof Sides, px: number): void {
  void bench.edit(({ here, layout }) => {
    const { bands } = here.border
    const sides = bands[at.value]?.thickness ?? evenSides(0)
    const fraction = px / Math.min(layout.width, layout.height)
    return change({ thickness: { ...sides, [side]: fraction } }, bands)
  })
}

function link(): void {
  wantsEach.value = isLinked.value
  if (!wantsEach.value && !isEven.value) {
    void bench.edit(change({ thickness: evenSides(thickness.value.top) }))
  }
}
</script>

<template>
  <p class="field-label">Thickness</p>
  <ChoiceChips
    label="Thickness"
    :choices="choices"
    :chosen="chosen"
    @choose="(key) => bench.edit(change({ thickness: evenSides(THICKNESS[key]!) }))"
    @hover="(key) => (bench.tryOut = key ? change({ thickness: evenSides(THICKNESS[key]!) }) : null)"
  />
  <SliderRow
    v-if="isLinked || !canDiffer"
    label="All sides"
    :value="thickness.top * short"
    :max="Math.round(short * 0.15)"
    unit="px"
    :percent="short / 100"
    :digits="1"
    @move="(px) => bench.drag(change({ thickness: evenSides(px / short) }))"
    @change="(px) => bench.slide(change({ thickness: evenSides(px / short) }))"
  />
  <div v-else class="sides">
    <NumberField
      v-for="side in SIDES"
      :key="side"
      stacked
      :label="side"
      :value="thickness[side] * short"
      :percent="short / 100"
      :min="0"
      :max="short * MOST"
      @change="(px) => typeSide(side, px)"
    />
  </div>
  <button v-if="canDiffer" type="button" class="link" :aria-pressed="!isLinked" @click="link">
    {{ isLinked ? 'Set each side' : 'Same on all sides' }}
  </button>
</template>

<style scoped>
.sides {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 5px;
  margin-top: 8px;
}
</style>
