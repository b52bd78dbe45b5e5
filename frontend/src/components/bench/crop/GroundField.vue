<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'

import type { Edit, Ground, Photo, StockBackdrop } from '../../../api/types'
import { usePhotoPages } from '../../../composables/photoPages'
import { useBench } from '../../../stores/bench'
import BackdropPicker from '../../library/BackdropPicker.vue'
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
  gradient: { kind: 'gradient', form: 'linear', start: '#F5F1E8', end: '#D9C6A5', angle: 180 },
  blurred: { kind: 'blurred', blur: 0.04 },
  this_photo: { kind: 'this_photo', blur: 0.012, grey: 0, light: 0 },
  stock: { kind: 'stock', key: 'paper', colours: ['#EFE9DD'], seed: 1, zoom: 1, x: 0.5, y: 0.5 },
}

const FRESH_PHOTO = { kind: 'photo', zoom: 1, x: 0.5, y: 0.5 } as const

/** What is done to the photo behind its own subject. */
const THIS_PHOTO = [
  { name: 'blur', label: 'Blur', least: 0, most: 10, step: 0.1 },
  { name: 'grey', label: 'Grey', least: 0, most: 100, step: 1 },
  { name: 'light', label: 'Brightness', least: -100, most: 100, step: 1 },
] as const

/** Which part shows of a ground that is larger than the size. */
const PLACING = [
  { name: 'zoom', label: 'Enlarge', least: 100, most: 400 },
  { name: 'x', label: 'Left, right', least: 0, most: 100 },
  { name: 'y', label: 'Up, down', least: 0, most: 100 },
] as const

const bench = useBench()
/** Another photo can be one only where there is one; the newest is tried out first. */
const newest = ref<Photo | null>(null)
const choices = computed<Choice<Kind>[]>(() =>
  (Object.keys(GROUND_WORDS) as Kind[])
    .filter((key) => isOffered(key) || key === props.ground.kind)
    .map((key) => ({ key, label: GROUND_WORDS[key] })),
)

/** What is behind the photo is of use only where something is cut out of that. */
function isOffered(key: Kind): boolean {
  if (key === 'photo') return !!newest.value
  return key !== 'this_photo' || (props.place === 'backdrop' && bench.here!.cut_out.on)
}

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
  if (kind === 'photo') return { ...FRESH_PHOTO, sha256: newest.value!.sha256 }
  return FIRST[kind]
}

function recoloured(at: number, colour: string): Edit {
  const { colours } = props.ground as StockBackdrop
  return change({ colours: colours.map((one, index) => (index === at ? colour : one)) })
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
    <ChoiceChips
      :label="`${label}, form`"
      :choices="[
        { key: 'linear', label: 'linear' },
        { key: 'radial', label: 'radial' },
      ]"
      :chosen="ground.form"
      @choose="(form) => bench.edit(change({ form }))"
      @hover="(form) => (bench.tryOut = form ? change({ form }) : null)"
    />
    <SliderRow
      v-if="ground.form === 'linear'"
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
  <div v-else-if="ground.kind === 'this_photo'" class="more">
    <SliderRow
      v-for="row in THIS_PHOTO"
      :key="row.name"
      :label="row.label"
      :value="ground[row.name] * 100"
      :min="row.least"
      :max="row.most"
      :step="row.step"
      :digits="row.step < 1 ? 1 : 0"
      @move="(percent) => bench.drag(change({ [row.name]: percent / 100 }))"
      @change="(percent) => bench.slide(change({ [row.name]: percent / 100 }))"
    />
  </div>
  <div v-else-if="ground.kind === 'stock'" class="more">
    <BackdropPicker
      :label="label"
      :chosen="ground.key"
      @choose="(chosen) => bench.edit(set(chosen))"
      @hover="(shown) => (bench.tryOut = shown ? set(shown) : null)"
    />
    <ColourField
      v-for="(colour, at) in ground.colours"
      :key="at"
      :label="`${label}, colour ${at + 1}`"
      :value="colour"
      :swatches="[]"
      @change="(now) => bench.edit(recoloured(at, now))"
    />
    <button type="button" class="link" @click="bench.edit(change({ seed: (ground.seed + 1) % 10000 }))">
      Another variation
    </button>
  </div>
  <PhotoChoice
    v-else-if="ground.kind === 'photo'"
    :label="`${label} photo`"
    :chosen="ground.sha256"
    :except="bench.document!.photo?.sha256"
    @choose="({ sha256 }) => bench.edit(set({ ...FRESH_PHOTO, sha256 }))"
  />
  <div v-if="ground.kind === 'stock' || ground.kind === 'photo'" class="more">
    <SliderRow
      v-for="row in PLACING"
      :key="row.name"
      :label="row.label"
      unit="%"
      :value="100 * ground[row.name]"
      :min="row.least"
      :max="row.most"
      @move="(percent) => bench.drag(change({ [row.name]: percent / 100 }))"
      @change="(percent) => bench.slide(change({ [row.name]: percent / 100 }))"
    />
  </div>
</template>

<style scoped>
.more {
  display: grid;
  gap: 6px;
  margin-top: 7px;
}
</style>
