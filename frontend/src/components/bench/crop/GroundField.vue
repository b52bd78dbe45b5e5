<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'

import type { Edit, Ground, Photo } from '../../../api/types'
import { usePhotoPages } from '../../../composables/photoPages'
import { useBench } from '../../../stores/bench'
import ChoiceChips, { type Choice } from '../../shared/ChoiceChips.vue'
import ColourField from '../../shared/ColourField.vue'
import SliderRow from '../../shared/SliderRow.vue'
import PhotoChoice from '../PhotoChoice.vue'
import { GROUND_COLOURS } from '../colours'
import { GROUND_WORDS } from './words'

const props = defineProps<{
  label: string
  hint: string
  place: 'backdrop' | 'outside'
  ground: Ground
}>()

type Kind = Ground['kind']

const FIRST: Record<Exclude<Kind, 'photo'>, Ground> = {
  transparent: { kind: 'transparent' },
  colour: { kind: 'colour', colour: '#FFFFFF' },
  gradient: { kind: 'gradient', start: '#F5F1E8', end: '#D9C6A5', angle: 180 },
  blurred: { kind: 'blurred', blur: 0.04 },
}

const bench = useBench()
/** Another photo can be one only where there is one; the newest is tried out first. */
const newest = ref<Photo | null>(null)
const choices = computed<Choice<Kind>[]>(() =>
  (Object.keys(GROUND_WORDS) as Kind[])
    .filter((key) => key !== 'photo' || newest.value || props.ground.kind === 'photo')
    .map((key) => ({ key, label: GROUND_WORDS[key] })),
)

const { photos, load } = usePhotoPages()
onMounted(async () => {
  await load()
  newest.value = photos.value.find(({ sha256 }) => sha256 !== bench.document!.photo?.sha256) ?? null
})

function set(ground: Ground): Edit {
  return { kind: 'set_ground', place: props.place, ground, only_this_size: bench.onlyThisSize }
}

function first(kind: Kind): Ground {
  if (kind === props.ground.kind) return props.ground
  return kind === 'photo' ? { kind, sha256: newest.value!.sha256 } : FIRST[kind]
}

function change(fields: object): Edit {
  return set({ ...props.ground, ...fields } as Ground)
}
</script>

<template>
  <p class="field-label">{{ label }} <span>{{ hint }}</span></p>
  <ChoiceChips
    :label="label"
    :choices="choices"
    :chosen="ground.kind"
    @choose="(kind) => bench.edit(set(first(kind)))"
    @hover="(kind) => (bench.tryOut = kind ? set(first(kind)) : null)"
  />
  <div v-if="ground.kind === 'colour'" class="more">
    <ColourField
      :label="`${label} colour`"
      :value="ground.colour"
      :swatches="GROUND_COLOURS"
      @change="(colour) => bench.edit(change({ colour }))"
      @hover="(colour) => (bench.tryOut = colour ? change({ colour }) : null)"
    />
  </div>
  <div v-else-if="ground.kind === 'gradient'" class="more">
    <ColourField
      :label="`${label}, first colour`"
      :value="ground.start"
      :swatches="[]"
      @change="(start) => bench.edit(change({ start }))"
    />
    <ColourField
      :label="`${label}, last colour`"
      :value="ground.end"
      :swatches="[]"
      @change="(end) => bench.edit(change({ end }))"
    />
    <SliderRow
      label="Direction"
      unit="°"
      :value="ground.angle"
      :min="0"
      :max="360"
      @move="(angle) => bench.drag(change({ angle }))"
      @change="(angle) => bench.slide(change({ angle }))"
    />
  </div>
  <SliderRow
    v-else-if="ground.kind === 'blurred'"
    label="Blur"
    :value="ground.blur * 100"
    :min="1"
    :max="20"
    :step="0.5"
    :digits="1"
    @move="(percent) => bench.drag(change({ blur: percent / 100 }))"
    @change="(percent) => bench.slide(change({ blur: percent / 100 }))"
  />
  <PhotoChoice
    v-else-if="ground.kind === 'photo'"
    :label="`${label} photo`"
    :chosen="ground.sha256"
    :except="bench.document!.photo?.sha256"
    @choose="({ sha256 }) => bench.edit(set({ kind: 'photo', sha256 }))"
  />
</template>

<style scoped>
.more {
  display: grid;
  gap: 6px;
  margin-top: 7px;
}
</style>
