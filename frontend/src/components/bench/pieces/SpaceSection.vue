<script setup lang="ts">
// Pieces turned out of the picture's plane, and blurred.

import { computed } from 'vue'

import type { Perspective, Piece } from '../../../api/types'
import { usePieceEdits } from '../../../composables/pieceEdits'
import { useBench } from '../../../stores/bench'
import { useSelection } from '../../../stores/selection'
import FoldSection from '../../shared/FoldSection.vue'
import SliderRow from '../../shared/SliderRow.vue'
import TickBox from '../../shared/TickBox.vue'

const props = defineProps<{ piece: Piece }>()

const FLAT: Perspective = { lean: 0, swing: 0, distance: 2.5, corners: null }
const TURNS = [
  { field: 'lean', label: 'Lean back' },
  { field: 'swing', label: 'Swing' },
] as const
/** In longer sides of the piece: from nearer nothing can be seen whole. */
const NEAREST = 1.2
const WEAKEST = 6
const MOST_BLUR = 0.05

const bench = useBench()
const selection = useSelection()
const { set } = usePieceEdits()
const short = computed(() => Math.min(bench.layout!.width, bench.layout!.height))
const space = computed(() => props.piece.perspective ?? FLAT)
const isPulled = computed(() => !!space.value.corners)
const isTurned = computed(() => isPulled.value || space.value.lean !== 0 || space.value.swing !== 0)
/** An arrow that is held at the photo has its two ends to be pulled by. */
const hasCorners = computed(() => !(props.piece.kind === 'badge' && props.piece.tip))
const summary = computed(() => {
  const words = [isTurned.value && 'turned', props.piece.blur > 0 && 'blurred'].filter(Boolean)
  return words.join(', ') || 'flat'
})

/** Leaning and swinging begin from what is flat again. */
const turned = (fields: Partial<Perspective>) => set({ perspective: { ...space.value, corners: null, ...fields } })
/** Percent of the strongest perspective, and back. */
const strengthOf = (distance: number) => (100 * NEAREST) / distance
const distanceOf = (strength: number) => (100 * NEAREST) / Math.max(strength, WEAKEST)
</script>

<template>
  <FoldSection title="Perspective and blur" :summary="summary">
    <SliderRow
      v-for="{ field, label } in TURNS"
      :key="field"
      :label="label"
      unit="°"
      :value="space[field]"
      :min="-80"
      :max="80"
      @reset="bench.edit(turned({ [field]: 0 }))"
      @move="(value) => bench.drag(turned({ [field]: value }))"
      @change="(value) => bench.slide(turned({ [field]: value }))"
    />
    <SliderRow
      v-if="isTurned && !isPulled"
      label="Depth"
      :value="strengthOf(space.distance)"
      :min="WEAKEST"
      :max="100"
      @move="(value) => bench.drag(turned({ distance: distanceOf(value) }))"
      @change="(value) => bench.slide(turned({ distance: distanceOf(value) }))"
    />
    <p class="links">
      <TickBox v-if="hasCorners" v-model:checked="selection.pullsCorners" label="Pull the corners" />
      <button v-if="isTurned" type="button" class="link" @click="bench.edit(set({ perspective: null }))">Flat</button>
    </p>
    <SliderRow
      label="Blur"
      unit="px"
      :value="piece.blur * short"
      :max="Math.round(MOST_BLUR * short)"
      :step="0.5"
      :digits="1"
      :percent="short / 100"
      @reset="bench.edit(set({ blur: 0 }))"
      @move="(px) => bench.drag(set({ blur: px / short }))"
      @change="(px) => bench.slide(set({ blur: px / short }))"
    />
  </FoldSection>
</template>

<style scoped>
.slider-row {
  margin-top: 4px;
}

.links {
  display: flex;
  justify-content: space-between;
  align-items: center;
  font-size: 12px;
}

.fold {
  margin-top: 10px;
}
</style>
