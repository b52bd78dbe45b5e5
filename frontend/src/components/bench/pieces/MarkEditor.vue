<script setup lang="ts">
// A kept mark on the picture: which one, and its colour.

import type { MarkPiece, MarkShade, PieceChanges } from '../../../api/types'
import { usePieceEdits } from '../../../composables/pieceEdits'
import { useBench } from '../../../stores/bench'
import ChoiceChips, { type Choice } from '../../shared/ChoiceChips.vue'
import ColourField from '../../shared/ColourField.vue'
import { LETTER_COLOURS } from '../colours'
import MarkShelf from '../watermark/MarkShelf.vue'

defineProps<{ piece: MarkPiece }>()

type Shade = MarkShade | 'one'
const SHADES: Choice<Shade>[] = [
  { key: 'dark', label: 'its dark version' },
  { key: 'light', label: 'its light version' },
  { key: 'one', label: 'one colour' },
]
const shadeOf = (key: Shade) => (key === 'one' ? null : key)

const bench = useBench()
const { set } = usePieceEdits()
const change = (changes: Partial<PieceChanges>) => void bench.edit(set(changes))
const tryOut = (changes: Partial<PieceChanges> | null) => (bench.tryOut = changes && set(changes))
</script>

<template>
  <MarkShelf
    :used="piece.mark"
    @take="(mark) => mark && change({ mark })"
    @hover="(mark) => tryOut(mark && { mark })"
  />
  <p class="field-label">Colour</p>
  <ChoiceChips
    v-if="piece.mark.design.colours"
    label="Colours of the mark"
    :choices="SHADES"
    :chosen="piece.shade ?? 'one'"
    @choose="(key) => change({ shade: shadeOf(key) })"
    @hover="(key) => tryOut(key && { shade: shadeOf(key) })"
  />
  <ColourField
    v-if="!piece.mark.design.colours || !piece.shade"
    class="one"
    label="Mark colour"
    :value="piece.colour"
    :swatches="LETTER_COLOURS"
    @change="(colour) => change({ colour })"
    @hover="(colour) => tryOut(colour ? { colour } : null)"
  />
</template>

<style scoped>
.one {
  margin-top: 7px;
}
</style>
