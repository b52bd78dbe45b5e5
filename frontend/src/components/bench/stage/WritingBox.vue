<script setup lang="ts">
// Writing on the stage, right under the text that is written.

import { computed, onMounted, ref } from 'vue'

import type { PieceLaid, TextPiece } from '../../../api/types'
import { useOutputSpace } from '../../../composables/outputSpace'
import { useWriting } from '../../../composables/writing'
import { useSelection } from '../../../stores/selection'

const props = defineProps<{
  piece: TextPiece
  laid: PieceLaid
  origin: { x: number; y: number }
}>()

const ROOM = 12

const selection = useSelection()
const { placed, at } = useOutputSpace(() => props.origin)
const { text, write, leave } = useWriting(() => props.piece)
const field = ref<HTMLTextAreaElement>()

const place = computed(() => ({
  ...at(props.laid.x, props.laid.y + props.laid.height / 2),
  marginTop: `${ROOM}px`,
  width: `${Math.min(420, Math.max(180, props.laid.width * placed.value.scale))}px`,
}))
const rows = computed(() => Math.min(6, text.value.split('\n').length))

onMounted(() => {
  field.value!.focus()
  if (selection.firstLetter) write(props.piece.text + selection.firstLetter)
  else field.value!.select()
})

async function close(): Promise<void> {
  await leave()
  if (selection.typing === props.piece.id) selection.typing = null
}
</script>

<template>
  <textarea
    ref="field"
    :style="place"
    :value="text"
    :rows="rows"
    maxlength="5000"
    spellcheck="true"
    aria-label="Words of the text"
    @input="write(($event.target as HTMLTextAreaElement).value)"
    @keydown.escape.stop="field!.blur()"
    @keydown.stop
    @pointerdown.stop
    @blur="close"
  ></textarea>
</template>

<style scoped>
textarea {
  position: absolute;
  z-index: 4;
  padding: 6px 8px;
  transform: translateX(-50%);
  border: 0;
  border-radius: 4px;
  outline: 2px solid var(--ink);
  background: var(--paper);
  color: var(--ink);
  font: 14px/1.35 var(--text);
  text-align: center;
  resize: none;
  box-shadow: 0 2px 8px rgb(0 0 0 / 40%);
}
</style>
