<script setup lang="ts">
// Ready-made treatments as small pictures of this photo.

import { computed } from 'vue'

import type { Treatment } from '../../../api/types'
import { vRadios } from '../../../composables/radios'
import { useTreatmentEdits } from '../../../composables/treatmentEdits'
import { useBench } from '../../../stores/bench'
import { useTreatments } from '../../../stores/treatments'
import FoldSection from '../../shared/FoldSection.vue'
import TryPicture from '../TryPicture.vue'

const bench = useBench()
const treatments = useTreatments()
const { treatment, adding, short, take, pick } = useTreatmentEdits()

/** How much of the shorter side a small picture shows of what is too fine for the whole. */
const CLOSE = 0.3
const FINE: Treatment['kind'][] = ['dots', 'drawing', 'paint', 'relief', 'grain']

/** Where it is made, and how strongly, is no part of a style. */
const style = (one: Treatment) => JSON.stringify({ ...one, on: 0, strength: 0, blend: 0, masks: 0, covers: 0, centre: 0 })
const chosen = computed(() => {
  const now = treatment.value && style(treatment.value)
  return treatments.stock.find((one) => style(one.treatment) === now)
})
const summary = computed(() => {
  if (adding.value) return 'pick one more'
  if (!treatment.value) return 'pick one'
  return chosen.value?.name ?? 'your own'
})
</script>

<template>
  <FoldSection title="Ready-made" :summary="summary" starts-open>
    <div v-radios class="treatments" role="radiogroup" aria-label="Ready-made treatments">
      <TryPicture
        v-for="one in treatments.stock"
        :key="one.key"
        :name="one.name"
        :channel="`treatment-${one.key}`"
        :edit="take(one.treatment, [])"
        :is-on="one === chosen"
        :height="58"
        :middle="FINE.includes(one.treatment.kind) ? CLOSE * short : undefined"
        @choose="pick(one.treatment)"
        @hover="(on) => (bench.tryOut = on ? take(one.treatment) : null)"
      />
    </div>
  </FoldSection>
</template>

<style scoped>
.treatments {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 6px;
}
</style>
