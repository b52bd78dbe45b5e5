<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Border, BorderChanges, Edit, Sides } from '../../api/types'
import { evenSides } from '../../composables/sides'
import { useBench } from '../../stores/bench'
import ChoiceChips, { type Choice } from '../shared/ChoiceChips.vue'
import ColourField from '../shared/ColourField.vue'
import NumberField from '../shared/NumberField.vue'
import OverrideNote from '../shared/OverrideNote.vue'
import SliderRow from '../shared/SliderRow.vue'
import { BORDER_COLOURS } from './colours'

const THICKNESS: Record<string, number> = { none: 0, thin: 0.01, medium: 0.025, wide: 0.05, broad: 0.08 }
const MOST = 0.45
const LINES: Choice<Border['line']>[] = [
  { key: 'solid', label: 'solid' },
  { key: 'double', label: 'double' },
  { key: 'dashed', label: 'dashed' },
  { key: 'dotted', label: 'dotted' },
]
const SIDES = ['top', 'right', 'bottom', 'left'] as const

const bench = useBench()
const border = computed(() => bench.here!.border)
const short = computed(() => Math.min(bench.layout!.width, bench.layout!.height))
const isEven = computed(() => new Set(Object.values(border.value.thickness)).size === 1)
const isLinked = ref(isEven.value)
/** Only a solid line round a rectangle can be of another thickness on each side. */
const canDiffer = computed(
  () => border.value.line === 'solid' && bench.size!.shape.kind === 'rectangle',
)

const thicknessChoices: Choice<string>[] = Object.keys(THICKNESS).map((key) => ({ key, label: key }))
const chosenThickness = computed(() => {
  if (!isEven.value) return null
  const found = Object.entries(THICKNESS).find(
    ([, fraction]) => Math.abs(fraction - border.value.thickness.top) < 1e-6,
  )
  return found?.[0] ?? null
})

/** Changing anything of a border that is switched off switches it on. */
function change(changes: BorderChanges): Edit {
  return { kind: 'set_border', changes: { ...changes, on: true }, only_this_size: bench.onlyThisSize }
}

function tryOut(changes: BorderChanges | null): void {
  bench.tryOut = changes && change(changes)
}

function typeSide(side: keyof Sides, px: number): void {
  void bench.edit(({ here, layout }) => {
    const fraction = px / Math.min(layout.width, layout.height)
    return change({ thickness: { ...here.border.thickness, [side]: fraction } })
  })
}

function link(): void {
  isLinked.value = !isLinked.value
  if (isLinked.value && !isEven.value) {
    void bench.edit(change({ thickness: evenSides(border.value.thickness.top) }))
  }
}

</script>

<template>
  <p class="field-label">Thickness</p>
  <ChoiceChips
    label="Thickness"
    :choices="thicknessChoices"
    :chosen="chosenThickness"
    @choose="(key) => bench.edit(change({ thickness: evenSides(THICKNESS[key]!) }))"
    @hover="(key) => tryOut(key ? { thickness: evenSides(THICKNESS[key]!) } : null)"
  />
  <SliderRow
    v-if="isLinked || !canDiffer"
    label="All sides"
    :value="border.thickness.top * short"
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
      :value="border.thickness[side] * short"
      :percent="short / 100"
      :min="0"
      :max="short * MOST"
      @change="(px) => typeSide(side, px)"
    />
  </div>
  <button v-if="canDiffer" type="button" class="link" :aria-pressed="!isLinked" @click="link">
    {{ isLinked ? 'Set each side' : 'Same on all sides' }}
  </button>
  <p class="field-label">Style</p>
  <ChoiceChips
    label="Style"
    :choices="LINES"
    :chosen="border.line"
    @choose="(line) => bench.edit(change({ line }))"
    @hover="(line) => tryOut(line ? { line } : null)"
  />
  <p class="field-label">Colour</p>
  <ColourField
    label="Border colour"
    :value="border.colour"
    :swatches="BORDER_COLOURS"
    @change="(colour) => bench.edit(change({ colour }))"
    @hover="(colour) => tryOut(colour ? { colour } : null)"
  />
  <SliderRow
    label="Opacity"
    :value="border.opacity * 100"
    :max="100"
    @move="(percent) => bench.drag(change({ opacity: percent / 100 }))"
    @change="(percent) => bench.slide(change({ opacity: percent / 100 }))"
  />
  <p class="field-label">Position</p>
  <ChoiceChips
    label="Position"
    :choices="[
      { key: 'inside', label: 'over the photo' },
      { key: 'outside', label: 'around the photo' },
    ]"
    :chosen="border.outside ? 'outside' : 'inside'"
    @choose="(key) => bench.edit(change({ outside: key === 'outside' }))"
    @hover="(key) => tryOut(key ? { outside: key === 'outside' } : null)"
  />
  <OverrideNote :steps="['border']" />
</template>

<style scoped>
.sides {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 5px;
  margin-top: 8px;
}
</style>
