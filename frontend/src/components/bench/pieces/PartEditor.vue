<script setup lang="ts">
// Part of a text, styled apart: what is marked on the picture becomes bold, another colour,
// struck through.

import { computed } from 'vue'

import type { TextPart, TextPiece } from '../../../api/types'
import { usePieceEdits } from '../../../composables/pieceEdits'
import { useBench } from '../../../stores/bench'
import { useSelection } from '../../../stores/selection'
import ColourField from '../../shared/ColourField.vue'
import TickBox from '../../shared/TickBox.vue'

const props = defineProps<{
  piece: TextPiece
  /** Weights that the family has. */
  weights: number[]
  hasItalic: boolean
}>()

const NOTHING = { start: 0, end: 0 }

const bench = useBench()
const selection = useSelection()
const { set } = usePieceEdits()

/** Characters as the service counts them. */
const points = (end: number) => [...props.piece.text.slice(0, end)].length
const range = computed(() => {
  const { start, end } = selection.typing === props.piece.id ? selection.marked : NOTHING
  return { start: points(start), end: points(end) }
})
const isMarked = computed(() => range.value.end > range.value.start)
const here = computed(() =>
  props.piece.parts.find(({ start, end }) => start < range.value.end && end > range.value.start),
)
const otherWeight = computed(() =>
  props.piece.weight >= 700 ? Math.min(...props.weights) : Math.max(...props.weights),
)

/** The marked letters with these fields; what lay over them before is cut away. */
function change(fields: Partial<TextPart>): void {
  const { start, end } = range.value
  const own = { weight: null, italic: null, colour: null, struck: false, ...here.value, ...fields, start, end }
  const others = props.piece.parts.flatMap((part) => [
    { ...part, end: Math.min(part.end, start) },
    { ...part, start: Math.max(part.start, end) },
  ])
  const isPlain = own.weight === null && own.italic === null && own.colour === null && !own.struck
  const parts = [...others, ...(isPlain ? [] : [own])].filter((part) => part.end > part.start)
  void bench.edit(set({ parts: parts.sort((a, b) => a.start - b.start) }))
}
</script>

<template>
  <div v-if="isMarked" class="part" role="group" aria-label="Marked letters">
    <p class="field-label">Marked letters</p>
    <div class="row">
      <label v-if="weights.length > 1" class="tick">
        <input type="checkbox" :checked="here?.weight != null" @change="change({ weight: here?.weight == null ? otherWeight : null })" />
        {{ piece.weight >= 700 ? 'Lighter' : 'Bolder' }}
      </label>
      <TickBox v-if="hasItalic" :label="piece.italic ? 'Upright' : 'Italic'" :checked="here?.italic != null" @update:checked="change({ italic: here?.italic == null ? !piece.italic : null })" />
      <TickBox label="Struck through" :checked="!!here?.struck" @update:checked="change({ struck: !here?.struck })" />
    </div>
    <ColourField label="Marked letters’ colour" :value="here?.colour ?? piece.colour" :swatches="[]" @change="(colour) => change({ colour })" />
  </div>
</template>

<style scoped>
.part {
  margin-top: 6px;
  padding: 0 8px 8px;
  border-left: 2px solid var(--clover);
}

.row {
  display: flex;
  gap: 12px;
}
</style>
