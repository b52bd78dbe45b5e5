<script setup lang="ts">
import { computed, onMounted } from 'vue'

import { useTreatmentEdits } from '../../../composables/treatmentEdits'
import { useBench } from '../../../stores/bench'
import { useTreatments } from '../../../stores/treatments'
import ChoiceChips from '../../shared/ChoiceChips.vue'
import FoldSection from '../../shared/FoldSection.vue'
import OverrideNote from '../../shared/OverrideNote.vue'
import SliderRow from '../../shared/SliderRow.vue'
import TickBox from '../../shared/TickBox.vue'
import BlendSelect from '../BlendSelect.vue'
import { TREATMENT_NAMES } from './numbers'
import LiftSection from './LiftSection.vue'
import TreatmentGallery from './TreatmentGallery.vue'
import TreatmentSettings from './TreatmentSettings.vue'
import TreatmentWhere from './TreatmentWhere.vue'

const MOST = 12

const bench = useBench()
const treatments = useTreatments()
const { made, at, treatment, adding, change, remove, move, work, showGrips } = useTreatmentEdits()

const choices = computed(() =>
  made.value.map(({ kind, on }, index) => ({
    key: String(index),
    label: `${index + 1} ${TREATMENT_NAMES[kind]}${on ? '' : ' (off)'}`,
  })),
)
const name = computed(() => treatment.value && TREATMENT_NAMES[treatment.value.kind])
const liftWords = computed(() => {
  const count = bench.here!.lifts.lifted.length
  return count ? `${count} lifted` : 'none'
})

onMounted(treatments.load)
showGrips()
</script>

<template>
  <template v-if="made.length">
    <template v-if="made.length > 1">
      <p class="field-label">In this order</p>
      <ChoiceChips
        label="Treatment to work on"
        :choices="choices"
        :chosen="adding ? null : String(at)"
        @choose="(key) => work(Number(key))"
      />
    </template>
    <p v-if="adding" class="hint">
      Pick one more below.
      <button type="button" class="link" @click="adding = false">Don’t add</button>
    </p>
    <p v-else class="links">
      <TickBox label="On" :checked="treatment!.on" @update:checked="bench.edit(change({ on: !treatment!.on }))" />
      <button v-if="at > 0" type="button" class="link" @click="move(-1)">Earlier</button>
      <button v-if="at < made.length - 1" type="button" class="link" @click="move(1)">Later</button>
      <button type="button" class="link" @click="remove">Remove</button>
      <button v-if="made.length < MOST" type="button" class="link strong" @click="adding = true">Add another</button>
    </p>
  </template>
  <TreatmentGallery />
  <FoldSection v-if="treatment" title="Settings" :summary="name!" starts-open>
    <TreatmentSettings />
    <TreatmentWhere />
    <SliderRow
      label="Strength"
      :value="treatment.strength"
      :max="100"
      @move="(strength) => bench.drag(change({ strength }))"
      @change="(strength) => bench.slide(change({ strength }))"
    />
    <div class="blend">
      <span>Blend</span>
      <BlendSelect :blend="treatment.blend" @choose="(blend) => bench.edit(change({ blend }))" />
    </div>
  </FoldSection>
  <FoldSection title="Lifts" :summary="liftWords">
    <LiftSection />
  </FoldSection>
  <OverrideNote :steps="['treatments', 'lifts']" />
</template>

<style scoped>
.links {
  display: flex;
  flex-wrap: wrap;
  gap: 0 14px;
  align-items: center;
  margin: 4px 0 8px;
  font-size: 12px;
}

.links .tick {
  margin: 0;
}

.links .strong {
  margin-left: auto;
}

.hint {
  margin: 6px 0 8px;
  font-size: 12px;
}

.blend {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 8px;
  align-items: center;
  margin-top: 6px;
  font-size: 12px;
}
</style>
