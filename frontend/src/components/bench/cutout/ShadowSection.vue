<script setup lang="ts">
import { computed } from 'vue'

import type { CastShadow, ContactShadow, Edit, SubjectShadow } from '../../../api/types'
import { useBench } from '../../../stores/bench'
import ChoiceChips, { type Choice } from '../../shared/ChoiceChips.vue'
import ColourField from '../../shared/ColourField.vue'
import SliderRow from '../../shared/SliderRow.vue'

const CAST: CastShadow = { angle: 150, distance: 0.03, softness: 0.04, colour: '#000000', opacity: 0.35 }
const CONTACT: ContactShadow = { height: 0.05, softness: 0.03, colour: '#000000', opacity: 0.5 }

type Ready = 'none' | 'soft' | 'floating' | 'standing' | 'from the photo'
const READY: Record<Ready, SubjectShadow> = {
  none: { cast: null, contact: null, own: 0 },
  soft: { cast: CAST, contact: null, own: 0 },
  floating: { cast: { ...CAST, angle: 180, distance: 0.09, softness: 0.12, opacity: 0.3 }, contact: null, own: 0 },
  standing: { cast: null, contact: CONTACT, own: 0 },
  'from the photo': { cast: null, contact: null, own: 1 },
}
const choices: Choice<Ready>[] = (Object.keys(READY) as Ready[]).map((key) => ({ key, label: key }))

const CAST_LENGTHS = [
  { name: 'distance', label: 'Distance', most: 0.3 },
  { name: 'softness', label: 'Softness', most: 0.3 },
] as const
const CONTACT_LENGTHS = [
  { name: 'height', label: 'Height', most: 0.3 },
  { name: 'softness', label: 'Fade', most: 0.3 },
] as const

const bench = useBench()
const shadow = computed(() => bench.here!.subject_shadow)
const short = computed(() => Math.min(bench.layout!.width, bench.layout!.height))
const chosen = computed(
  () => choices.find(({ key }) => JSON.stringify(READY[key]) === JSON.stringify(shadow.value))?.key ?? null,
)

function change(changes: Partial<SubjectShadow>): Edit {
  return { kind: 'set_subject_shadow', changes, only_this_size: bench.onlyThisSize }
}

function changeCast(fields: Partial<CastShadow>): Edit {
  return change({ cast: { ...CAST, ...shadow.value.cast, ...fields } })
}

function changeContact(fields: Partial<ContactShadow>): Edit {
  return change({ contact: { ...CONTACT, ...shadow.value.contact, ...fields } })
}
</script>

<template>
  <ChoiceChips
    label="Ready-made shadows"
    :choices="choices"
    :chosen="chosen"
    @choose="(key) => bench.edit(change(READY[key]))"
    @hover="(key) => (bench.tryOut = key ? change(READY[key]) : null)"
  />
  <template v-if="shadow.cast">
    <SliderRow
      label="Direction"
      unit="°"
      :value="shadow.cast.angle"
      :min="0"
      :max="360"
      @move="(angle) => bench.drag(changeCast({ angle }))"
      @change="(angle) => bench.slide(changeCast({ angle }))"
    />
    <SliderRow
      v-for="row in CAST_LENGTHS"
      :key="row.name"
      :label="row.label"
      unit="px"
      :value="shadow.cast[row.name] * short"
      :percent="short / 100"
      :max="Math.round(row.most * short)"
      @move="(px) => bench.drag(changeCast({ [row.name]: px / short }))"
      @change="(px) => bench.slide(changeCast({ [row.name]: px / short }))"
    />
    <SliderRow
      label="Opacity"
      :value="100 * shadow.cast.opacity"
      :min="1"
      :max="100"
      @move="(percent) => bench.drag(changeCast({ opacity: percent / 100 }))"
      @change="(percent) => bench.slide(changeCast({ opacity: percent / 100 }))"
    />
    <ColourField
      label="Shadow colour"
      :value="shadow.cast.colour"
      :swatches="[]"
      @change="(colour) => bench.edit(changeCast({ colour }))"
    />
  </template>
  <p class="links">
    <button v-if="!shadow.cast" type="button" class="link" @click="bench.edit(change({ cast: CAST }))">
      Add a cast shadow
    </button>
    <button v-else type="button" class="link" @click="bench.edit(change({ cast: null }))">Remove the cast shadow</button>
    <button v-if="!shadow.contact" type="button" class="link" @click="bench.edit(change({ contact: CONTACT }))">
      Add a contact shadow
    </button>
    <button v-else type="button" class="link" @click="bench.edit(change({ contact: null }))">Remove the contact shadow</button>
  </p>
  <template v-if="shadow.contact">
    <SliderRow
      v-for="row in CONTACT_LENGTHS"
      :key="row.name"
      :label="row.label"
      unit="px"
      :value="shadow.contact[row.name] * short"
      :percent="short / 100"
      :max="Math.round(row.most * short)"
      @move="(px) => bench.drag(changeContact({ [row.name]: px / short }))"
      @change="(px) => bench.slide(changeContact({ [row.name]: px / short }))"
    />
    <SliderRow
      label="Strength"
      :value="100 * shadow.contact.opacity"
      :min="1"
      :max="100"
      @move="(percent) => bench.drag(changeContact({ opacity: percent / 100 }))"
      @change="(percent) => bench.slide(changeContact({ opacity: percent / 100 }))"
    />
  </template>
  <SliderRow
    label="Real shadow"
    :value="100 * shadow.own"
    :max="100"
    @move="(percent) => bench.drag(change({ own: percent / 100 }))"
    @change="(percent) => bench.slide(change({ own: percent / 100 }))"
  />
</template>

<style scoped>
.links {
  display: flex;
  gap: 12px;
  margin-top: 8px;
}
</style>
