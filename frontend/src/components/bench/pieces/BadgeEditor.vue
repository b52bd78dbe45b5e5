<script setup lang="ts">
import { computed } from 'vue'

import type { BadgePiece, PieceChanges } from '../../../api/types'
import { usePieceEdits } from '../../../composables/pieceEdits'
import { useBench } from '../../../stores/bench'
import ColourField from '../../shared/ColourField.vue'
import { BORDER_COLOURS } from '../colours'
import BadgeContent from './BadgeContent.vue'
import EdgeLine from './EdgeLine.vue'
import FormGlyph from './FormGlyph.vue'
import { FORMS } from './forms'
import { vRadios } from '../../../composables/radios'
import { lookingAt } from '../../../composables/lookingAt'
import TickBox from '../../shared/TickBox.vue'

const props = defineProps<{ piece: BadgePiece }>()

const bench = useBench()
const { set } = usePieceEdits()
const change = (changes: Partial<PieceChanges>) => void bench.edit(set(changes))

const POINTING: BadgePiece['form'][] = ['arrow', 'curved-arrow', 'line', 'bubble']
const EMPTY: BadgePiece['form'][] = ['curved-arrow', 'line', 'tick']
const points = computed(() => POINTING.includes(props.piece.form))
const holds = computed(() => !EMPTY.includes(props.piece.form))

/** Hold the tip where it is now, or let it go. */
function toggleTip(): void {
  const { id } = props.piece
  if (props.piece.tip) void bench.edit({ kind: 'release_tip', id })
  else void bench.edit({ kind: 'point_piece', id, end: 'tip', dx: 0, dy: 0, only_this_size: false })
}

/** A badge keeps its fill or its line; without both nothing of it would show. */
function toggleFill(): void {
  const bare = { colour: null, stroke: props.piece.stroke ?? '#1E2A2F' }
  change(props.piece.colour ? bare : { colour: '#B8401A' })
}

function toggleStroke(): void {
  const bare = { stroke: null, colour: props.piece.colour ?? '#B8401A' }
  change(props.piece.stroke ? bare : { stroke: '#1E2A2F' })
}
</script>

<template>
  <div v-radios class="forms" role="radiogroup" aria-label="Form">
    <button
      v-for="(name, form) in FORMS"
      :key="form"
      type="button"
      role="radio"
      :class="{ on: form === piece.form }"
      :data-tip="name"
      :aria-label="name"
      :aria-checked="form === piece.form"
      @click="change({ form })"
      v-on="lookingAt((on) => (bench.tryOut = on ? set({ form }) : null))"
    >
      <FormGlyph :form="form" />
    </button>
  </div>
  <BadgeContent v-if="holds" :piece="piece" />
  <TickBox v-if="points" label="Keep pointing at this spot" :checked="!!piece.tip" @update:checked="toggleTip" />
  <TickBox label="Filled" :checked="!!piece.colour" @update:checked="toggleFill" />
  <ColourField
    v-if="piece.colour"
    label="Fill"
    :value="piece.colour"
    :swatches="BORDER_COLOURS"
    @change="(colour) => change({ colour })"
    @hover="(colour) => (bench.tryOut = colour ? set({ colour }) : null)"
  />
  <TickBox label="Outline" :checked="!!piece.stroke" @update:checked="toggleStroke" />
  <EdgeLine :piece="piece" />
</template>

<style scoped>
.forms {
  display: grid;
  grid-template-columns: repeat(7, 1fr);
  gap: 4px;
  margin-top: 10px;
}

.forms button {
  display: grid;
  place-items: center;
  height: 30px;
  padding: 0;
  border: 1px solid var(--edge);
  border-radius: 4px;
  background: #ffffff;
}

.forms button.on {
  border-color: var(--clover);
  box-shadow: inset 0 0 0 1px var(--clover);
  background: var(--clover-pale);
}
</style>
