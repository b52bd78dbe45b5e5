<script setup lang="ts">
import { ElSlider } from 'element-plus'
import { onScopeDispose, ref, watch } from 'vue'

import NumberField from './NumberField.vue'

const props = withDefaults(
  defineProps<{
    label: string
    value: number
    min?: number
    max: number
    step?: number
    unit?: 'px' | '%' | '°' | ''
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
  /** Double-clicked, or Backspace pressed on the handle: back to how it came. */
  reset: []
}>()

/** How long the handle stays where it was put, while the value follows through the service. */
const SETTLE_MS = 400

// The slider reads its own position back when it is let go, so that may not lag behind.
const position = ref(props.value)
let settling: ReturnType<typeof setTimeout> | undefined

watch(
  () => props.value,
  (value) => {
    if (settling === undefined) position.value = value
  },
)
onScopeDispose(() => clearTimeout(settling))

function hold(): void {
  clearTimeout(settling)
  settling = setTimeout(() => {
    settling = undefined
    position.value = props.value
  }, SETTLE_MS)
}

function move(moved: number): void {
  if (moved === position.value) return
  position.value = moved
  hold()
  emit('move', moved)
}

function letGo(): void {
  hold()
  emit('change', position.value)
}
</script>

<template>
  <div class="slider-row" :class="{ both: min < 0 }">
    <span @dblclick="emit('reset')">{{ label }}</span>
    <ElSlider
      :model-value="position"
      :min="min"
      :max="max"
      :step="step"
      :show-tooltip="false"
      :aria-label="label"
      @input="(moved) => move(moved as number)"
      @change="letGo"
      @dblclick="emit('reset')"
      @keydown.backspace="emit('reset')"
    />
    <NumberField
      :value="position"
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

/* A value that goes both ways has its zero in the middle, and nothing to fill up from the left. */
.both :deep(.el-slider__bar) {
  background: none;
}

.both :deep(.el-slider__runway)::before {
  content: '';
  position: absolute;
  top: -4px;
  left: 50%;
  width: 1px;
  height: 11px;
  background: var(--edge);
}
</style>
