<script setup lang="ts">
import { nextTick, ref } from 'vue'

import { parseNumber } from '../../../composables/numbers'

const props = defineProps<{
  value: number
  label: string
  /** Where the tag lies from its grip, by compass point. */
  side: string
  /** Paler until it is pointed at or typed in. */
  quiet?: boolean
}>()
const emit = defineEmits<{ change: [value: number] }>()

const typed = ref<string | null>(null)
const field = ref<HTMLInputElement>()
const isBad = ref(false)

async function open(): Promise<void> {
  typed.value = String(Math.round(props.value))
  isBad.value = false
  await nextTick()
  field.value?.select()
}

function commit(): void {
  const value = parseNumber(typed.value ?? '', { unit: 'px' })
  isBad.value = value === null
  if (value === null) return
  typed.value = null
  if (value !== props.value) emit('change', value)
}

/** Leaving keeps a good number and drops a bad one. */
function leave(): void {
  if (typed.value === null) return
  commit()
  typed.value = null
}
</script>

<template>
  <span class="tag" :class="[`at-${side}`, { quiet }]" @pointerdown.stop>
    <input
      v-if="typed !== null"
      ref="field"
      v-model="typed"
      inputmode="decimal"
      :aria-label="label"
      :aria-invalid="isBad"
      @keydown.enter="commit"
      @keydown.escape.stop="typed = null"
      @blur="leave"
    />
    <button v-else type="button" :aria-label="`${label}: ${Math.round(value)}; type it`" @click="open">
      {{ Math.round(value) }}
    </button>
  </span>
</template>

<style scoped>
.tag {
  position: absolute;
  cursor: default;
}

.tag.quiet:not(:hover, :focus-within) {
  opacity: 0.72;
}

.tag button,
.tag input {
  min-width: 30px;
  height: 24px;
  padding: 2px 6px;
  border: 0;
  border-radius: 3px;
  background: var(--paper);
  color: var(--ink);
  font-size: 12px;
  font-weight: 600;
  box-shadow: 0 1px 4px rgb(0 0 0 / 45%);
}

.tag input {
  width: 62px;
  outline: 2px solid var(--ink);
}

.tag input[aria-invalid='true'] {
  outline-color: var(--persimmon);
}

.at-n {
  transform: translate(-50%, calc(-100% - 10px));
}

.at-s {
  transform: translate(-50%, 10px);
}

.at-e {
  transform: translate(12px, -50%);
}

.at-w {
  transform: translate(calc(-100% - 12px), -50%);
}
</style>
