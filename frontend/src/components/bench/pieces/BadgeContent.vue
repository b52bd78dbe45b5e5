<script setup lang="ts">
// What is inside a badge: words, or an icon.

import { ref } from 'vue'

import type { BadgePiece, PieceChanges } from '../../../api/types'
import { usePieceEdits } from '../../../composables/pieceEdits'
import { useTyping } from '../../../composables/typing'
import { useBench } from '../../../stores/bench'
import ColourField from '../../shared/ColourField.vue'
import { BORDER_COLOURS } from '../colours'
import FamilySelect from '../../shared/FamilySelect.vue'
import IconPicker from './IconPicker.vue'

const props = defineProps<{ piece: BadgePiece }>()

const bench = useBench()
const { set } = usePieceEdits()
const picking = ref(props.piece.form === 'icon' && !props.piece.icon)
const typing = useTyping((text) => set({ text }))
const change = (changes: Partial<PieceChanges>) => void bench.edit(set(changes))
const tryIcon = (icon: string | null) => (bench.tryOut = icon ? set({ icon, text: '' }) : null)
</script>

<template>
  <label v-if="piece.form !== 'icon'">
    <span class="field-label">Words inside</span>
    <input
      class="text-field"
      maxlength="200"
      :value="piece.text"
      @input="typing.type(($event.target as HTMLInputElement).value)"
      @blur="typing.leave"
    />
  </label>
  <button type="button" class="link" :aria-expanded="picking" @click="picking = !picking">
    {{ piece.icon ? `Icon: ${piece.icon.replaceAll('-', ' ')}` : piece.form === 'icon' ? 'Choose an icon' : 'Use an icon instead' }}
  </button>
  <IconPicker v-if="picking" :chosen="piece.icon ?? null" @choose="(icon) => change({ icon, text: '' })" @hover="tryIcon" />
  <FamilySelect
    v-if="piece.form !== 'icon' && piece.text"
    :family="piece.family"
    :words="piece.text"
    :weight="piece.weight"
    @update:family="(family) => change({ family })"
    @update:weight="(weight) => change({ weight })"
  />
  <template v-if="piece.form !== 'icon' && (piece.text || piece.icon)">
    <p class="field-label">Colour of the words</p>
    <ColourField
      label="Words in the badge"
      :value="piece.letters"
      :swatches="BORDER_COLOURS"
      @change="(letters) => change({ letters })"
      @hover="(letters) => (bench.tryOut = letters ? set({ letters }) : null)"
    />
  </template>
</template>

<style scoped>
.link {
  margin-top: 4px;
}
</style>
