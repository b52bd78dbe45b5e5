<script setup lang="ts">
import { computed } from 'vue'

import { useBandEdits } from '../../../composables/bandEdits'
import { useBench } from '../../../stores/bench'
import SliderRow from '../../shared/SliderRow.vue'
import BandAmount from './BandAmount.vue'
import BandChoice from './BandChoice.vue'
import BandColour from './BandColour.vue'

const bench = useBench()
const { bandOf, change } = useBandEdits()
const mat = computed(() => bandOf('mat'))
</script>

<template>
  <template v-if="mat">
    <BandChoice label="Profile" field="profile" :words="['board', 'sloped', 'round', 'stepped']" :chosen="mat.profile" />
    <BandColour title="Colour" label="Mat colour" field="colour" :value="mat.colour" />
    <BandChoice label="Texture" field="texture" :words="['smooth', 'paper', 'linen']" :chosen="mat.texture" />
    <BandAmount label="Bevel" field="bevel" :value="mat.bevel" :most="0.05" />
    <BandColour v-if="mat.bevel" title="Core, in the bevel" label="Core colour" field="core" :value="mat.core" />
    <SliderRow
      label="Light from"
      :value="mat.light"
      :min="-180"
      :max="180"
      unit="°"
      @move="(light) => bench.drag(change({ light }))"
      @change="(light) => bench.slide(change({ light }))"
    />
    <BandAmount label="Depth" field="depth" :value="mat.depth" :most="0.06" />
    <BandAmount label="Softness" field="softness" :value="mat.softness" />
  </template>
</template>
