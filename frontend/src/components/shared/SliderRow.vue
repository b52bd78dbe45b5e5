<script setup lang="ts">
import { ElSlider } from 'element-plus'

import NumberField from './NumberField.vue'

const props = withDefaults(
  defineProps<{
    label: string
    value: number
    min?: number
    max: number
    step?: number
    unit?: 'px' | '%' | ''
    percent?: number
    digits?: number
  }>(),
  { min: 0, step: 1, unit: '%', percent: undefined, digits: 0 },
)
const emit = defineEmits<{
  /** On the slider's way; not yet the end. */
  move: [value: number]
  /** Let go, or typed. */
  change: [value: number]
}>()
</script>

<template>
  <div class="slider-row">
    <span>{{ label }}</span>
    <ElSlider
      :model-value="value"
      :min="min"
      :max="max"
      :step="step"
      :show-tooltip="false"
      :aria-label="label"
      @input="(moved) => moved !== props.value && emit('move', moved as number)"
      @change="(moved) => emit('change', moved as number)"
    />
    <NumberField
      :value="value"
      :label="`${label}, typed`"
      :unit="unit"
      :percent="percent"
      :min="min"
      :max="max"
      :digits="digits"
      @change="(typed) => emit('change', typed)"
    />
  </div>
</template>

<style scoped>
.slider-row {
  display: grid;
  grid-template-columns: 66px 1fr 64px;
  gap: 14px;
  align-items: center;
  margin-top: 8px;
  font-size: 12px;
}
</style>
