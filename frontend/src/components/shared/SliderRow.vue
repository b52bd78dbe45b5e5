<script setup lang="ts">
import { ElSlider } from 'element-plus'
import { onScopeDispose, ref, watch } from 'vue'

import { useExplained, vTip } from '../../composables/explanations'
import NumberField from './NumberField.vue'

const props = withDefaults(
  defineProps<{
    label: string
    value: number
    min?: number
    max: number
    step?: number
    unit?: 'px' | '%' | '°' | 'K' | 's' | ''
    percent?: number
    digits?: number
    /** Where the handle stands when that is not the value itself: a step from 0 to `last`. */
    position?: number
    last?: number
    /** Where on the way nothing is changed, 0 to 1, for a value that goes both ways. */
    zero?: number
    ofPosition?: (position: number) => number
  }>(),
  {
    min: 0,
    step: 1,
    unit: '%',
    percent: undefined,
    digits: 0,
    position: undefined,
    last: undefined,
    zero: undefined,
    ofPosition: (position: number) => position,
  },
)
const emit = defineEmits<{
  /** On the slider's way; not yet the end. */
  move: [value: number]
  /** Let go, or typed. */
  change: [value: number]
  /** Double-clicked, or Backspace pressed on the handle: back to how it came. */
  reset: []
}>()

const tip = useExplained(() => props.label)

/** How long the handle stays where it was put, while the value follows through the service. */
const SETTLE_MS = 400

// The slider reads its own position back when it is let go, so that may not lag behind.
const standing = () => props.position ?? props.value
const handle = ref(standing())
let settling: ReturnType<typeof setTimeout> | undefined

watch(standing, (place) => {
  if (settling === undefined) handle.value = place
})
onScopeDispose(() => clearTimeout(settling))

function hold(): void {
  clearTimeout(settling)
  settling = setTimeout(() => {
    settling = undefined
    handle.value = standing()
  }, SETTLE_MS)
}

function move(moved: number): void {
  if (moved === handle.value) return
  handle.value = moved
  hold()
  emit('move', props.ofPosition(moved))
}

function letGo(): void {
  hold()
  emit('change', props.ofPosition(handle.value))
}
</script>

<template>
  <div
    v-tip="tip"
    class="slider-row"
    :class="{ both: min < 0 || zero !== undefined }"
    :style="{ '--zero': `${100 * (zero ?? 0.5)}%` }"
  >
    <span @dblclick="emit('reset')">{{ label }}</span>
    <ElSlider
      :model-value="handle"
      :min="last === undefined ? min : 0"
      :max="last ?? max"
      :step="step"
      :format-value-text="(place: number) => String(ofPosition(place))"
      :show-tooltip="false"
      :aria-label="label"
      @input="(moved) => move(moved as number)"
      @change="letGo"
      @dblclick="emit('reset')"
      @keydown.backspace="emit('reset')"
    />
    <NumberField
      :value="handle === standing() ? value : ofPosition(handle)"
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
  grid-template-columns: 86px 1fr 60px;
  gap: 10px;
  align-items: center;
  margin-top: 5px;
  font-size: 12px;
}

/* A value that goes both ways has a mark where it changes nothing, and nothing to fill up from the left. */
.both :deep(.el-slider__bar) {
  background: none;
}

.both :deep(.el-slider__runway)::before {
  content: '';
  position: absolute;
  top: -4px;
  left: var(--zero);
  width: 1px;
  height: 11px;
  background: var(--edge);
}
</style>
