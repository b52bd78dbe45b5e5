<script setup lang="ts">
import { computed } from 'vue'

import { settingWords, useToneEdits, type Setting } from '../../../composables/toneEdits'
import { useBench } from '../../../stores/bench'
import SliderRow from '../../shared/SliderRow.vue'

const props = defineProps<{ name: Setting }>()

const bench = useBench()
const { tone, change, reset } = useToneEdits()
const FROM_ZERO: Setting[] = [
  'black_and_white',
  'noise_reduction',
  'colour_noise_reduction',
  'sharpening',
]

const label = computed(() => {
  const words = settingWords(props.name)
  return words[0]!.toUpperCase() + words.slice(1)
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
    @reset="reset([name])"
    @move="(value) => bench.drag(change({ [name]: value }))"
    @change="(value) => bench.slide(change({ [name]: value }))"
  />
</template>
