<script setup lang="ts">
// One of a band's colours.

import { useBandEdits } from '../../../composables/bandEdits'
import { useBench } from '../../../stores/bench'
import ColourField from '../../shared/ColourField.vue'
import { BORDER_COLOURS } from '../colours'

defineProps<{ title: string; label: string; field: 'colour' | 'core' | 'ground'; value: string }>()

const bench = useBench()
const { change } = useBandEdits()
</script>

<template>
  <p class="field-label">{{ title }}</p>
  <ColourField
    :label="label"
    :value="value"
    :swatches="BORDER_COLOURS"
    @change="(colour) => bench.edit(change({ [field]: colour }))"
    @hover="(colour) => (bench.tryOut = colour ? change({ [field]: colour }) : null)"
  />
</template>
