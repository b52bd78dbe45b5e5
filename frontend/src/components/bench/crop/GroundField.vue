<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'

import { get } from '../../../api/client'
import type { Edit, Ground, Photo } from '../../../api/types'
import { useBench } from '../../../stores/bench'
import { useNotices } from '../../../stores/notices'
import ChoiceChips, { type Choice } from '../../shared/ChoiceChips.vue'
import ColourField from '../../shared/ColourField.vue'
import SliderRow from '../../shared/SliderRow.vue'
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
const notices = useNotices()
const photos = ref<Photo[]>([])
const others = computed(() => photos.value.filter(({ sha256 }) => sha256 !== bench.document!.photo.sha256))
const choices = computed<Choice<Kind>[]>(() =>
  (Object.keys(GROUND_WORDS) as Kind[])
    .filter((key) => key !== 'photo' || others.value.length > 0 || props.ground.kind === 'photo')
    .map((key) => ({ key, label: GROUND_WORDS[key] })),
)

onMounted(async () => {
  try {
    photos.value = (await get<{ photos: Photo[] }>('/photos')).photos
  } catch (error) {
    notices.tell(error)
  }
})

function set(ground: Ground): Edit {
  return { kind: 'set_ground', place: props.place, ground }
}

function first(kind: Kind): Ground {
  if (kind === props.ground.kind) return props.ground
  return kind === 'photo' ? { kind, sha256: others.value[0]!.sha256 } : FIRST[kind]
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
  <div v-else-if="ground.kind === 'photo'" class="photos" role="group" :aria-label="`${label} photo`">
    <button
      v-for="photo in others"
      :key="photo.sha256"
      type="button"
      :aria-label="photo.name"
      :aria-pressed="photo.sha256 === ground.sha256"
      @click="bench.edit(set({ kind: 'photo', sha256: photo.sha256 }))"
    >
      <img :src="`/api/photos/${photo.sha256}/thumbnail?height=64`" alt="" />
    </button>
  </div>
</template>

<style scoped>
.more {
  display: grid;
  gap: 6px;
  margin-top: 7px;
}

.photos {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  margin-top: 7px;
}

.photos button {
  padding: 0;
  border: 1px solid var(--edge);
  border-radius: 4px;
  overflow: hidden;
}

.photos button[aria-pressed='true'] {
  box-shadow:
    0 0 0 2px var(--card),
    0 0 0 4px var(--clover);
}

.photos img {
  display: block;
  width: 52px;
  height: 40px;
  object-fit: cover;
}
</style>
