<script setup lang="ts">
// What makes letters stand off the picture: an outline, a shadow, a plate.

import type { PieceChanges, TextPiece } from '../../../api/types'
import { usePieceEdits } from '../../../composables/pieceEdits'
import { useBench } from '../../../stores/bench'
import ColourField from '../../shared/ColourField.vue'
import SliderRow from '../../shared/SliderRow.vue'
import TickBox from '../../shared/TickBox.vue'

const props = defineProps<{ piece: TextPiece }>()

const OUTLINE = { width: 0.06, colour: '#1E2A2F' }
const PLATE = { padding: 0.35, radius: 0.2, colour: '#1E2A2F', opacity: 0.6 }

const bench = useBench()
const { set } = usePieceEdits()

const outlined = (fields: Partial<typeof OUTLINE>): Partial<PieceChanges> => ({
  outline: { ...OUTLINE, ...props.piece.outline, ...fields },
})
const plated = (fields: Partial<typeof PLATE>): Partial<PieceChanges> => ({
  plate: { ...PLATE, ...props.piece.plate, ...fields },
})
const change = (changes: Partial<PieceChanges>) => void bench.edit(set(changes))
const move = (changes: Partial<PieceChanges>) => bench.drag(set(changes))
const slide = (changes: Partial<PieceChanges>) => void bench.slide(set(changes))
</script>

<template>
  <TickBox label="Outline" :checked="!!piece.outline" @update:checked="change(piece.outline ? { outline: null } : outlined({}))" />
  <template v-if="piece.outline">
    <SliderRow
      label="Width"
      :value="100 * piece.outline.width"
      :max="30"
      @move="(value) => move(outlined({ width: value / 100 }))"
      @change="(value) => slide(outlined({ width: value / 100 }))"
    />
    <ColourField label="Outline colour" :value="piece.outline.colour" :swatches="[]" @change="(colour) => change(outlined({ colour }))" />
  </template>
  <TickBox label="Background box" :checked="!!piece.plate" @update:checked="change(piece.plate ? { plate: null } : plated({}))" />
  <template v-if="piece.plate">
    <SliderRow
      label="Padding"
      :value="100 * piece.plate.padding"
      :max="150"
      @move="(value) => move(plated({ padding: value / 100 }))"
      @change="(value) => slide(plated({ padding: value / 100 }))"
    />
    <SliderRow
      label="Corners"
      :value="100 * piece.plate.radius"
      :max="150"
      @move="(value) => move(plated({ radius: value / 100 }))"
      @change="(value) => slide(plated({ radius: value / 100 }))"
    />
    <SliderRow
      label="Opacity"
      :value="100 * piece.plate.opacity"
      :max="100"
      @move="(value) => move(plated({ opacity: value / 100 }))"
      @change="(value) => slide(plated({ opacity: value / 100 }))"
    />
    <ColourField label="Box colour" :value="piece.plate.colour" :swatches="[]" @change="(colour) => change(plated({ colour }))" />
  </template>
</template>

<style scoped>
.tick {
  margin: 4px 0 0;
}

.slider-row {
  margin-top: 3px;
}
</style>
