<script setup lang="ts">
// Something flat, such as a card or a print, seen straight on.

import { computed, ref } from 'vue'

import { readRatio } from '../../../composables/numbers'
import { useBench } from '../../../stores/bench'
import { useStage } from '../../../stores/stage'

const bench = useBench()
const stage = useStage()
const isSquared = computed(() => !!bench.document!.photo?.square)
const isPlacing = computed(() => stage.tool === 'corners')
/** Width over height as it was typed; nothing measures it. */
const typed = ref('')
const ratio = computed(() => readRatio(typed.value))
const isWrong = computed(() => typed.value.trim() !== '' && ratio.value === null)

async function square(): Promise<void> {
  const { width, height } = stage.picture
  const corners = stage.corners.map(([x, y]) => [x * width, y * height] as [number, number])
  await bench.edit({ kind: 'square_up', corners, ratio: ratio.value })
  if (isSquared.value) stage.tool = null
}
</script>

<template>
  <p class="hint">
    {{ isPlacing ? 'Drag the four corners onto the corners of the card, print or screen.' : 'Straightens a card, a print or a screen taken at an angle.' }}
  </p>
  <label v-if="isPlacing" class="ratio">
    <span>Real ratio</span>
    <input
      v-model="typed"
      class="text-field"
      :class="{ wrong: isWrong }"
      maxlength="20"
      placeholder="measured, or 85:55"
      :aria-invalid="isWrong"
      @keydown.enter="!isWrong && square()"
    />
  </label>
  <div class="buttons">
    <button v-if="isPlacing" type="button" class="action key" :disabled="isWrong" @click="square">Square it up</button>
    <button type="button" class="action" :aria-pressed="isPlacing" @click="stage.take('corners')">
      {{ isPlacing ? 'Cancel' : 'Place four corners' }}
    </button>
    <button
      v-if="isSquared && !isPlacing"
      type="button"
      class="action"
      @click="bench.edit({ kind: 'square_up', corners: null, ratio: null })"
    >
      Undo squaring
    </button>
  </div>
</template>

<style scoped>
.hint {
  color: var(--ink-soft);
  font-size: 12px;
}

.ratio {
  display: grid;
  grid-template-columns: 90px 1fr;
  gap: 8px;
  align-items: center;
  margin-top: 7px;
  font-size: 12px;
}

.wrong {
  border-color: var(--persimmon);
}

.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 8px;
}
</style>
