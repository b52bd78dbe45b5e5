<script setup lang="ts">
// The part of the photo that the treatment is made of.

import { computed } from 'vue'

import type { AreaMask, Treatment } from '../../../api/types'
import { useTreatmentEdits } from '../../../composables/treatmentEdits'
import { useBench } from '../../../stores/bench'
import { useFinding } from '../../../stores/finding'
import { useStage } from '../../../stores/stage'
import ChoiceChips, { type Choice } from '../../shared/ChoiceChips.vue'
import TickBox from '../../shared/TickBox.vue'
import MaskList from '../masks/MaskList.vue'

type Part = 'all' | 'subject' | 'rest'

const PARTS: Choice<Part>[] = [
  { key: 'all', label: 'whole photo' },
  { key: 'subject', label: 'the subject' },
  { key: 'rest', label: 'all but the subject' },
]
const COVERS: Choice<Treatment['covers']>[] = [
  { key: 'all', label: 'photo and lifts' },
  { key: 'base', label: 'only under lifts' },
  { key: 'lifts', label: 'only lifts' },
]

const bench = useBench()
const finding = useFinding()
const stage = useStage()
const { treatment, at, change } = useTreatmentEdits()
const masks = computed(() => treatment.value!.masks)
const part = computed<Part | null>(() => {
  const [only, ...others] = masks.value
  if (!only) return 'all'
  if (others.length || only.kind !== 'subject') return null
  return only.inverted ? 'rest' : 'subject'
})

const ofPart = (now: Part): AreaMask[] =>
  now === 'all' ? [] : [{ kind: 'subject', inverted: now === 'rest', shift: 0, feather: 0 }]

async function limit(now: Part): Promise<void> {
  if (now === 'all' || (await finding.isSubjectKnown())) await bench.edit(change({ masks: ofPart(now) }))
}
</script>

<template>
  <p class="field-label">Where</p>
  <ChoiceChips label="Where" :choices="PARTS" :chosen="part" @choose="limit" />
  <MaskList place="treatment" :number="at" :masks="masks" :least="0" :of="(now) => change({ masks: now })" />
  <TickBox v-if="masks.length" v-model:checked="stage.showsMask" label="Show mask" />
  <template v-if="bench.here!.lifts.lifted.length">
    <p class="field-label">Covers</p>
    <ChoiceChips
      label="Covers"
      :choices="COVERS"
      :chosen="treatment!.covers"
      @choose="(covers) => bench.edit(change({ covers }))"
      @hover="(covers) => (bench.tryOut = covers ? change({ covers }) : null)"
    />
  </template>
</template>
