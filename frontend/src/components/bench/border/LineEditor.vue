<script setup lang="ts">
import { computed } from 'vue'

import { useBandEdits } from '../../../composables/bandEdits'
import { useFrames } from '../../../stores/frames'
import BandAmount from './BandAmount.vue'
import BandChoice from './BandChoice.vue'
import BandColour from './BandColour.vue'

const { bandOf } = useBandEdits()
const frames = useFrames()
/** Before there is any band, what the first one will be. */
const line = computed(() => bandOf('line') ?? frames.fresh('line')!)
</script>

<template>
  <BandChoice label="Style" field="line" :words="['solid', 'double', 'dashed', 'dotted']" :chosen="line.line" />
  <BandChoice label="Corners" field="corners" :words="['square', 'round', 'cut']" :chosen="line.corners" />
  <BandAmount v-if="line.corners !== 'square'" label="Corner size" field="corner_size" :value="line.corner_size" :most="0.3" />
  <BandColour title="Colour" label="Border colour" field="colour" :value="line.colour" />
</template>
