<script setup lang="ts">
import { computed } from 'vue'

import type { Brush } from '../../../api/types'
import { useBench } from '../../../stores/bench'
import { useCutOut } from '../../../stores/cutOut'
import BrushSize from '../../shared/BrushSize.vue'
import ChoiceChips, { type Choice } from '../../shared/ChoiceChips.vue'
import SliderRow from '../../shared/SliderRow.vue'

const BRUSHES: Choice<Brush>[] = [
  { key: 'keep', label: 'keep' },
  { key: 'leave_out', label: 'leave out' },
  { key: 'soft_edge', label: 'soft edge' },
  { key: 'erase', label: 'erase' },
  { key: 'bring_back', label: 'bring back' },
]
const HINTS: Record<Brush, string> = {
  keep: 'Draw over what was lost; similar parts close by come back too.',
  leave_out: 'Draw over what should not be there; parts like it go too.',
  soft_edge: 'Draw along hair, grass or fur, over all of its soft rim.',
  erase: 'Paint away exactly what you touch.',
  bring_back: 'Paint back exactly what you touch.',
}

const bench = useBench()
const cutOut = useCutOut()
const strokes = computed(() => bench.document!.cut_out.strokes)
const paints = computed(() => cutOut.brush === 'erase' || cutOut.brush === 'bring_back')
</script>

<template>
  <p class="field-label">Touch up with a brush</p>
  <ChoiceChips label="Brush" :choices="BRUSHES" :chosen="cutOut.brush" @choose="cutOut.take" />
  <p class="message">
    {{ cutOut.brush ? HINTS[cutOut.brush] : 'With no brush chosen, dragging moves the subject.' }}
  </p>
  <BrushSize v-if="cutOut.brush" :brush="cutOut" />
  <SliderRow
    v-if="paints"
    label="Brush softness"
    :value="100 * cutOut.softness"
    :max="100"
    @move="(percent) => (cutOut.softness = percent / 100)"
    @change="(percent) => (cutOut.softness = percent / 100)"
  />
  <p v-if="strokes.length" class="links">
    <button type="button" class="link" :aria-pressed="cutOut.showsStrokes" @click="cutOut.showsStrokes = !cutOut.showsStrokes">
      {{ cutOut.showsStrokes ? 'Hide strokes' : `Show strokes (${strokes.length})` }}
    </button>
    <button type="button" class="link" @click="bench.edit({ kind: 'delete_stroke', number: strokes.length - 1 })">
      Delete the last
    </button>
    <button type="button" class="link" @click="bench.edit({ kind: 'delete_stroke', number: null })">Delete all</button>
  </p>
  <p v-if="cutOut.showsStrokes" class="message">Click a stroke on the picture to delete it.</p>
</template>

<style scoped>
.message {
  margin-top: 6px;
  color: var(--ink-soft);
  font-size: 12px;
}

.links {
  display: flex;
  flex-wrap: wrap;
  gap: 0 12px;
  margin-top: 7px;
}

.links button {
  white-space: nowrap;
}
</style>
