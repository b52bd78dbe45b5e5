<script setup lang="ts">
// The line along a badge's or a picture's edge.

import type { BadgePiece, PicturePiece } from '../../../api/types'
import { usePieceEdits } from '../../../composables/pieceEdits'
import { useBench } from '../../../stores/bench'
import ColourField from '../../shared/ColourField.vue'
import SliderRow from '../../shared/SliderRow.vue'
import { BORDER_COLOURS } from '../colours'

defineProps<{ piece: BadgePiece | PicturePiece }>()

const bench = useBench()
const { set } = usePieceEdits()
</script>

<template>
  <template v-if="piece.stroke">
    <ColourField
      label="Outline colour"
      :value="piece.stroke"
      :swatches="BORDER_COLOURS"
      @change="(stroke) => bench.edit(set({ stroke }))"
      @hover="(stroke) => (bench.tryOut = stroke ? set({ stroke }) : null)"
    />
    <SliderRow
      label="Width"
      :digits="1"
      :step="0.1"
      :value="100 * piece.stroke_width"
      :max="8"
      @move="(value) => bench.drag(set({ stroke_width: value / 100 }))"
      @change="(value) => bench.slide(set({ stroke_width: value / 100 }))"
    />
  </template>
</template>
