<script setup lang="ts">
import { computed } from 'vue'

import { LARGEST, SMALLEST } from '../../composables/photoBrush'
import SliderRow from './SliderRow.vue'

const props = defineProps<{
  /** Its diameter and the photo's long side, in long sides and photo pixels. */
  brush: { size: number; longSide: number; resize: (factor: number) => void }
}>()

/** The slider's steps: each is as much larger than the one before. */
const STEPS = 100
const SPAN = Math.log(LARGEST / SMALLEST)

const position = computed(() => Math.round((STEPS * Math.log(props.brush.size / SMALLEST)) / SPAN))

function sizeAt(step: number): number {
  return SMALLEST * Math.exp((SPAN * step) / STEPS) * props.brush.longSide
}

function set(px: number): void {
  props.brush.resize(px / props.brush.longSide / props.brush.size)
}
</script>

<template>
  <SliderRow
    label="Brush size"
    :value="brush.size * brush.longSide"
    :position="position"
    :last="STEPS"
    :of-position="sizeAt"
    :min="SMALLEST * brush.longSide"
    :max="LARGEST * brush.longSide"
    unit="px"
    @move="set"
    @change="set"
  />
</template>
