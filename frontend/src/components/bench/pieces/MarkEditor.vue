<script setup lang="ts">
// A kept mark on the picture: which one, and its colour.

import type { MarkPiece, PieceChanges } from '../../../api/types'
import { usePieceEdits } from '../../../composables/pieceEdits'
import { useBench } from '../../../stores/bench'
import ColourField from '../../shared/ColourField.vue'
import { LETTER_COLOURS } from '../colours'
import MarkShelf from '../watermark/MarkShelf.vue'

defineProps<{ piece: MarkPiece }>()

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
  <ColourField
    label="Mark colour"
    :value="piece.colour"
    :swatches="LETTER_COLOURS"
    @change="(colour) => change({ colour })"
    @hover="(colour) => tryOut(colour ? { colour } : null)"
  />
</template>
