<script setup lang="ts">
// One quiet hint about the step in hand, until it is dismissed for good.

import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'

import { shownKeys } from '../../composables/keyNames'
import { useBench } from '../../stores/bench'

const HINTS: Record<string, string> = {
  crop: 'Drag the window to choose what shows, or drag outside it to draw a new one. “+ size” adds another size.',
  spots: 'Click dust on the picture. For a wire, draw along it.',
  tone: '“Suggest a tone” is a good start. Press O to compare with the photo before editing.',
  cut_out: 'Find the subject, then look at its edge at 100 % (P). The brushes put right what is wrong.',
  treatments: 'Rest the pointer on a picture to try it on yours. “Lifts” raises a part of the photo.',
  border: 'Rest the pointer on a choice to try it on the picture. Nothing changes until you click.',
  pieces: 'Double-click words on the picture to write in them. Drag them to move them.',
  watermark: 'Type your name, or make a mark once and use it on every finish.',
  export: 'The file has exactly the pixels of its size. “Save several” saves all sizes at once.',
}

const WITHOUT_PHOTO = '“Backgrounds” colours the picture. “Photo”, below it, puts one in at any time.'

const bench = useBench()
const dismissed = useLocalStorage<string[]>('lucky-margin-hints-dismissed', [])
const step = computed(() => bench.openStep ?? '')
const hint = computed(() => {
  if (dismissed.value.includes(step.value)) return undefined
  return step.value === 'crop' && !bench.document?.photo ? WITHOUT_PHOTO : HINTS[step.value]
})
</script>

<template>
  <p v-if="hint" class="hint" role="note">
    <span>{{ shownKeys(hint) }}</span>
    <button type="button" class="link" @click="dismissed.push(step)">Got it</button>
  </p>
</template>

<style scoped>
/* It lies over the stage, and lets all but its button through. */
.hint {
  position: absolute;
  bottom: 8px;
  left: 30px;
  z-index: 1;
  display: flex;
  gap: 14px;
  align-items: center;
  max-width: min(430px, 70%);
  padding: 6px 12px;
  border-radius: 5px;
  background: rgb(51 51 49 / 90%);
  color: #f4f3ee;
  font-size: 12px;
  pointer-events: none;
}

.link {
  flex: none;
  color: inherit;
  font-weight: 600;
  pointer-events: auto;
}
</style>
