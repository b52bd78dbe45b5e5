<script setup lang="ts">
// Kept marks: taken, made, changed, downloaded, renewed in the finishes that use them.

import { computed, onMounted, ref, shallowRef } from 'vue'

import { get, post, remove } from '../../../api/client'
import type { MarkKept, MarkList, UsedMark } from '../../../api/types'
import { useBench } from '../../../stores/bench'
import { useNotices } from '../../../stores/notices'
import MarkDialog from './MarkDialog.vue'
import { vRadios } from '../../../composables/radios'
import { lookingAt } from '../../../composables/lookingAt'

const props = defineProps<{
  /** The mark that is used, as it was when it was taken. */
  used: UsedMark | null
}>()
const emit = defineEmits<{ take: [mark: UsedMark | null]; hover: [mark: UsedMark | null] }>()

const bench = useBench()
const notices = useNotices()
const marks = shallowRef<MarkKept[]>([])
const loaded = ref(false)
const making = ref(false)
const changed = shallowRef<MarkKept | null>(null)

async function load(): Promise<void> {
  try {
    marks.value = (await get<MarkList>('/marks')).marks
    loaded.value = true
  } catch (error) {
    notices.tell(error)
  }
}
onMounted(load)

/** The same mark as it is on the shelf now. */
const kept = computed(() => marks.value.find(({ mark }) => mark.id === props.used?.id) ?? null)

function make(one: MarkKept | null): void {
  changed.value = one
  making.value = true
}

/** A mark that was made or changed is taken at once by this finish. */
async function take({ mark }: MarkKept): Promise<void> {
  emit('take', mark)
  await load()
}

/** Put a mark that was forgotten back on the shelf, as this finish has it. */
async function keepAgain(): Promise<void> {
  try {
    const { name, design } = props.used!
    await take(await post<MarkKept>('/marks', { name, design }))
  } catch (error) {
    notices.tell(error)
  }
}

async function renew({ mark }: MarkKept): Promise<void> {
  try {
    const { finishes } = await post<{ finishes: number }>(`/marks/${mark.id}/renew`)
    notices.say(finishes === 1 ? 'One other finish has the new mark.' : `${finishes} finishes have the new mark.`)
    await load()
  } catch (error) {
    notices.tell(error)
  }
}

async function forget({ mark }: MarkKept): Promise<void> {
  try {
    await remove(`/marks/${mark.id}`)
    await load()
  } catch (error) {
    notices.tell(error)
  }
}
</script>

<template>
  <div v-radios class="marks" role="radiogroup" aria-label="Saved marks">
    <button
      v-for="{ mark: one } in marks"
      :key="one.id"
      type="button"
      role="radio"
      :class="{ on: one.id === used?.id }"
      :data-tip="one.name"
      :aria-label="one.name"
      :aria-checked="one.id === used?.id"
      @click="emit('take', one.id === used?.id ? null : one)"
      v-on="lookingAt((on) => emit('hover', on ? one : null))"
    >
      <img :src="`/api/marks/${one.id}/picture?shade=dark&v=${one.version}`" alt="" />
    </button>
    <button type="button" class="new" @click="make(null)">Make a mark</button>
  </div>
  <p v-if="kept" class="links">
    <button type="button" class="link" @click="make(kept)">Edit</button>
    <a :href="`/api/marks/${kept.mark.id}/file?kind=png&shade=dark`" download>PNG</a>
    <a :href="`/api/marks/${kept.mark.id}/file?kind=svg&shade=dark`" download>SVG</a>
    <button type="button" class="link" @click="forget(kept!)">Remove</button>
  </p>
  <p v-if="used && loaded && !kept" class="older">
    “{{ used.name }}” is no longer among your marks; this finish still has it.
    <button type="button" class="link strong" @click="keepAgain">Save it again</button>
  </p>
  <p v-if="kept && kept.mark.version > used!.version" class="older">
    This finish has version {{ used!.version }}; version {{ kept.mark.version }} is the newest.
    <button type="button" class="link strong" @click="emit('take', kept.mark)">Use the new version</button>
  </p>
  <p v-if="kept && kept.older_uses && !bench.isDirty" class="older">
    {{ kept.older_uses }} {{ kept.older_uses === 1 ? 'other finish has' : 'other finishes have' }} an older version.
    <button type="button" class="link strong" @click="renew(kept!)">Update them</button>
  </p>
  <MarkDialog v-model="making" :kept="changed" @kept="take" />
</template>

<style scoped>
.marks {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 5px;
  margin-top: 5px;
}

.marks button {
  height: 58px;
  padding: 6px;
  border: 1px solid var(--edge);
  border-radius: 4px;
  background: #ffffff;
}

.marks button.on {
  border-color: var(--clover);
  box-shadow: inset 0 0 0 1px var(--clover);
}

.marks .new {
  border-style: dashed;
  background: none;
  font-size: 12px;
}

.marks img {
  display: block;
  width: 100%;
  height: 100%;
  object-fit: contain;
}

.links {
  display: flex;
  gap: 14px;
  align-items: baseline;
  margin-top: 5px;
  font-size: 12px;
}

.links a {
  color: inherit;
}

.older {
  margin-top: 5px;
  font-size: 12px;
}
</style>
