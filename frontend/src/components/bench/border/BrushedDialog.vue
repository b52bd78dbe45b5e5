<script setup lang="ts">
// This photo under a dozen brushed edges and in every blend mode, side by side; a click takes one.

import { computed } from 'vue'

import type { BandChanges, BandOf, Edit } from '../../../api/types'
import { vRadios } from '../../../composables/radios'
import { useBench } from '../../../stores/bench'
import AppDialog from '../../shared/AppDialog.vue'
import TryPicture from '../TryPicture.vue'
import { BLEND_GROUPS, BLEND_NAMES } from '../blends'

const props = defineProps<{ band: BandOf<'brushed'>; of: (fields: BandChanges) => Edit }>()
const open = defineModel<boolean>({ required: true })

const DOZEN = 12
const HEIGHT = 84
const MODES = BLEND_GROUPS.flatMap(({ modes }) => modes)

const bench = useBench()
/** The present one, then others. */
const seeds = computed(() => Array.from({ length: DOZEN }, (_, index) => (props.band.seed + 7 * index) % 10_000))

function take(fields: BandChanges): void {
  open.value = false
  void bench.edit(props.of(fields))
}
</script>

<template>
  <AppDialog v-model="open" title="Brushed edges on this photo" :width="1040">
    <h3>Other strokes</h3>
    <div v-radios class="pictures" role="radiogroup" aria-label="Strokes">
      <TryPicture
        v-for="(seed, index) in seeds"
        :key="seed"
        :name="`${index + 1}`"
        :channel="`stroke-${index}`"
        :edit="of({ seed })"
        :is-on="seed === band.seed"
        :height="HEIGHT"
        whole
        @choose="take({ seed })"
      />
    </div>
    <h3>Blend mode</h3>
    <div v-radios class="pictures" role="radiogroup" aria-label="Blend mode">
      <TryPicture
        v-for="mode in MODES"
        :key="mode"
        :name="BLEND_NAMES[mode]"
        :channel="`brushed-${mode}`"
        :edit="of({ blend: mode })"
        :is-on="mode === band.blend"
        :height="HEIGHT"
        whole
        @choose="take({ blend: mode })"
      />
    </div>
  </AppDialog>
</template>

<style scoped>
h3 {
  margin: 4px 0 5px;
  font: 600 12px var(--text);
  color: var(--ink-soft);
}

.pictures {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(110px, 1fr));
  gap: 8px;
  margin-bottom: 12px;
}
</style>
