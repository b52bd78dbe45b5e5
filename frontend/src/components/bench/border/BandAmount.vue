<script setup lang="ts">
// A band's length, in pixels of this size, or its share of something.

import { computed } from 'vue'

import { useBandEdits } from '../../../composables/bandEdits'
import { useBench } from '../../../stores/bench'
import SliderRow from '../../shared/SliderRow.vue'

const props = defineProps<{
  label: string
  field: 'bevel' | 'depth' | 'corner_size' | 'softness' | 'roughness'
  value: number
  /** The most of a length, in short sides; without it the value is a share, 0 to 1. */
  most?: number
}>()

const bench = useBench()
const { short, change } = useBandEdits()
const unit = computed(() => (props.most === undefined ? 100 : short.value))
</script>

<template>
  <SliderRow
    :label="label"
    :value="value * unit"
    :max="most === undefined ? 100 : Math.round(most * short)"
    :unit="most === undefined ? '%' : 'px'"
    :percent="most === undefined ? undefined : short / 100"
    :digits="most === undefined ? 0 : 1"
    :step="most === undefined ? 1 : 0.5"
    @move="(amount) => bench.drag(change({ [field]: amount / unit }))"
    @change="(amount) => bench.slide(change({ [field]: amount / unit }))"
  />
</template>
