<script setup lang="ts">
// The part of the photo that the treatment is made of.

import { computed } from 'vue'

import type { AreaMask, MaskKind, Treatment } from '../../../api/types'
import { useTreatmentEdits } from '../../../composables/treatmentEdits'
import { useBench } from '../../../stores/bench'
import { useFinding } from '../../../stores/finding'
import ChoiceChips, { type Choice } from '../../shared/ChoiceChips.vue'
import { MASK_KINDS, MASK_NAMES } from '../masks/masks'
import MaskEditor from '../masks/MaskEditor.vue'

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
const MOST = 4

const bench = useBench()
const finding = useFinding()
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

async function narrow(mask: MaskKind): Promise<void> {
  const number = at.value
  if (mask === 'subject' && !(await finding.isSubjectKnown())) return
  await bench.edit({ kind: 'add_mask', place: 'treatment', number, mask, only_this_size: bench.onlyThisSize })
}
</script>

<template>
  <p class="field-label">Where</p>
  <ChoiceChips label="Where" :choices="PARTS" :chosen="part" @choose="limit" />
  <MaskEditor
    v-for="(mask, index) in masks"
    :key="`${at}-${index}`"
    place="treatment"
    :mask="mask"
    :number="at"
    :at="index"
    :is-only="false"
    :of="(now) => change({ masks: now })"
    :masks="masks"
  />
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
  <p v-if="masks.length < MOST" class="narrow">
    Limit to:
    <button v-for="kind in MASK_KINDS" :key="kind" type="button" class="link" @click="narrow(kind)">
      {{ MASK_NAMES[kind] }}
    </button>
  </p>
</template>

<style scoped>
.narrow {
  display: flex;
  flex-wrap: wrap;
  gap: 0 8px;
  align-items: center;
  margin-top: 4px;
  color: var(--ink-soft);
  font-size: 12px;
}
</style>
