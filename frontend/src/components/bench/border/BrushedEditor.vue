<script setup lang="ts">
import { computed, ref } from 'vue'

import { useBandEdits } from '../../../composables/bandEdits'
import { useBench } from '../../../stores/bench'
import { BLEND_NAMES } from '../blends'
import BandAmount from './BandAmount.vue'
import BandChoice from './BandChoice.vue'
import BandColour from './BandColour.vue'
import BrushedDialog from './BrushedDialog.vue'

const SEEDS = 10_000

const bench = useBench()
const { bandOf, change } = useBandEdits()
const band = computed(() => bandOf('brushed'))
const comparing = ref(false)

const shuffled = () => change({ seed: Math.floor(Math.random() * SEEDS) })
</script>

<template>
  <template v-if="band">
    <BandChoice
      label="Brush"
      field="look"
      :words="['paint', 'dry', 'chalk', 'torn', 'ink', 'dots', 'mosaic']"
      :chosen="band.look"
    />
    <p class="links">
      <button type="button" class="link strong" @click="comparing = true">Try them all</button>
      <button type="button" class="link" @click="bench.edit(shuffled())">Shuffle</button>
      <span>{{ BLEND_NAMES[band.blend] }}</span>
    </p>
    <BrushedDialog v-model="comparing" :band="band" :of="change" />
    <BandColour title="Colour" label="Brush colour" field="colour" :value="band.colour" />
    <BandAmount label="Roughness" field="roughness" :value="band.roughness" />
    <BandAmount label="Softness" field="softness" :value="band.softness" />
  </template>
</template>

<style scoped>
.links {
  display: flex;
  gap: 14px;
  align-items: baseline;
  margin-top: 6px;
}

.links span {
  margin-left: auto;
  color: var(--ink-soft);
  font-size: 12px;
}
</style>
