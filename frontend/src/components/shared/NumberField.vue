<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import { formatNumber, parseNumber, type Units } from '../../composables/numbers'

const props = withDefaults(
  defineProps<{
    value: number
    label: string
    unit?: Units['unit']
    percent?: number
    pixel?: number
    min?: number
    max?: number
    digits?: number
    /** Show the label inside the field, above the number. */
    stacked?: boolean
  }>(),
  { unit: 'px', percent: undefined, pixel: undefined, min: -Infinity, max: Infinity, digits: 1, stacked: false },
)
const emit = defineEmits<{ change: [value: number] }>()

const field = ref<HTMLInputElement>()
const typed = ref<string | null>(null)
const shown = computed(() => typed.value ?? formatNumber(props.value, props.digits))
const parsed = computed(() => {
  const value = parseNumber(shown.value, props)
  return value !== null && value >= props.min && value <= props.max ? value : null
})
const isBad = computed(() => typed.value !== null && parsed.value === null)
const hint = computed(() => {
  if (!isBad.value) return ''
  const from = Number.isFinite(props.min) ? ` from ${formatNumber(props.min)}` : ''
  const to = Number.isFinite(props.max) ? ` to ${formatNumber(props.max)}` : ''
  return `A number${from}${to} is needed; the last good value stays.`
})

watch(() => props.value, () => (typed.value = null))

function commit(): void {
  if (typed.value === null || parsed.value === null) return
  const value = parsed.value
  typed.value = null
  if (formatNumber(value, 6) !== formatNumber(props.value, 6)) emit('change', value)
}

function leave(): void {
  commit()
  typed.value = null
}

function cancel(): void {
  typed.value = null
  field.value?.blur()
}
</script>

<template>
  <label class="number" :class="{ stacked, bad: isBad }" :title="hint">
    <span v-if="stacked" class="name" aria-hidden="true">{{ label }}</span>
    <span class="entry">
      <input
        ref="field"
        inputmode="decimal"
        :aria-label="label"
        autocomplete="off"
        spellcheck="false"
        :value="shown"
        :aria-invalid="isBad"
        @input="typed = ($event.target as HTMLInputElement).value"
        @focus="field?.select()"
        @blur="leave"
        @keydown.enter.prevent="commit"
        @keydown.escape.stop="cancel"
      />
      <span v-if="unit && !stacked" class="unit" aria-hidden="true">{{ unit }}</span>
    </span>
    <span v-if="isBad" class="visually-hidden" role="alert">{{ hint }}</span>
  </label>
</template>

<style scoped>
.number {
  display: flex;
  flex-direction: column;
  justify-content: center;
  min-width: 0;
  min-height: 28px;
  padding: 3px 7px;
  border: 1px solid var(--edge);
  border-radius: 4px;
  background: #ffffff;
}

.number:focus-within {
  outline: 2px solid var(--ink);
  outline-offset: 1px;
}

.number.bad {
  border-color: var(--persimmon);
  box-shadow: inset 0 0 0 1px var(--persimmon);
}

.name {
  color: var(--ink-soft);
  font-size: 11px;
  line-height: 1.1;
  white-space: nowrap;
}

.entry {
  display: flex;
  align-items: baseline;
  gap: 3px;
}

input {
  width: 100%;
  min-width: 0;
  padding: 0;
  border: 0;
  outline: 0;
  background: none;
}

.unit {
  color: var(--ink-soft);
  font-size: 12px;
}
</style>
