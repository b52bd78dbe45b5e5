<script setup lang="ts">
// Warmth in kelvin, on a slider whose steps look even: those of the reciprocal.

import { computed } from 'vue'

import SliderRow from '../../shared/SliderRow.vue'

const props = defineProps<{ value: number }>()
const emit = defineEmits<{ move: [value: number]; change: [value: number]; reset: [] }>()

const LEAST = 2500
const MOST = 15000
const NEUTRAL = 6500
const STEPS = 200

const toKelvin = (step: number) => {
  const reciprocal = 1 / LEAST + (step / STEPS) * (1 / MOST - 1 / LEAST)
  return Math.round(1 / reciprocal / 10) * 10
}
const toStep = (kelvin: number) => ((1 / kelvin - 1 / LEAST) / (1 / MOST - 1 / LEAST)) * STEPS

const position = computed(() => toStep(props.value))
</script>

<template>
  <SliderRow
    label="Warmth"
    unit="K"
    :value="value"
    :position="position"
    :of-position="toKelvin"
    :min="LEAST"
    :max="MOST"
    :last="STEPS"
    :zero="toStep(NEUTRAL) / STEPS"
    @reset="emit('reset')"
    @move="(kelvin) => emit('move', kelvin)"
    @change="(kelvin) => emit('change', kelvin)"
  />
</template>
