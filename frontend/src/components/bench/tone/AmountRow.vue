<script setup lang="ts">
import { computed } from 'vue'

import { useToneEdits, type Setting } from '../../../composables/toneEdits'
import { useBench } from '../../../stores/bench'
import SliderRow from '../../shared/SliderRow.vue'

const props = defineProps<{ name: Setting }>()

const bench = useBench()
const { tone, change, reset } = useToneEdits()
const LABELS: Partial<Record<Setting, string>> = {
  noise_reduction: 'Noise',
  colour_noise_reduction: 'Colour noise',
}
const FROM_ZERO: Setting[] = [
  'black_and_white',
  'noise_reduction',
  'colour_noise_reduction',
  'sharpening',
]

const label = computed(() => {
  const name = props.name.replaceAll('_', ' ')
  return LABELS[props.name] ?? name[0]!.toUpperCase() + name.slice(1)
})
const isExposure = computed(() => props.name === 'exposure')
const least = computed(() => (isExposure.value ? -5 : FROM_ZERO.includes(props.name) ? 0 : -100))
</script>

<template>
  <SliderRow
    :label="label"
    unit=""
    :value="tone[name]"
    :min="least"
    :max="isExposure ? 5 : 100"
    :step="isExposure ? 0.05 : 1"
    :digits="isExposure ? 2 : 0"
    :title="isExposure ? 'EV; double-click or Backspace puts it back' : 'Double-click or Backspace puts it back'"
    @reset="reset([name])"
    @move="(value) => bench.drag(change({ [name]: value }))"
    @change="(value) => bench.slide(change({ [name]: value }))"
  />
</template>

<style scoped>
.slider-row {
  margin-top: 3px;
}
</style>
