<script setup lang="ts">
// Outlines to choose from: ready-made ones, and own ones that were kept.

import { computed, onMounted, ref, shallowRef } from 'vue'

import { get, post, remove } from '../../../api/client'
import type { KeptOutlines, SubjectOutline } from '../../../api/types'
import { useNotices } from '../../../stores/notices'
import ChoiceChips, { type Choice } from '../../shared/ChoiceChips.vue'
import KeepForm from '../../shared/KeepForm.vue'
import { READY } from './readyOutlines'

const props = defineProps<{ lines: SubjectOutline[] }>()
const emit = defineEmits<{ choose: [lines: SubjectOutline[]]; hover: [lines: SubjectOutline[] | null] }>()

const notices = useNotices()
const own = shallowRef<KeptOutlines[]>([])
const naming = ref(false)

const choices = computed<Choice<string>[]>(() => [
  ...Object.keys(READY).map((key) => ({ key, label: key })),
  ...own.value.map(({ id, name }) => ({ key: String(id), label: name })),
])
const chosen = computed(() => choices.value.find(({ key }) => isSame(linesOf(key)))?.key ?? null)
const chosenOwn = computed(() => own.value.find(({ id }) => String(id) === chosen.value))

function linesOf(key: string): SubjectOutline[] {
  return READY[key] ?? own.value.find(({ id }) => String(id) === key)!.outlines.lines
}

function isSame(lines: SubjectOutline[]): boolean {
  return JSON.stringify(lines) === JSON.stringify(props.lines)
}

async function load(): Promise<void> {
  try {
    own.value = (await get<{ own: KeptOutlines[] }>('/outlines')).own
  } catch (error) {
    notices.tell(error)
  }
}
onMounted(load)

async function keep(name: string): Promise<void> {
  try {
    await post<KeptOutlines>('/outlines', { name, outlines: { lines: props.lines } })
    naming.value = false
    notices.say(`“${name}” is saved with the outlines.`)
  } catch (error) {
    notices.tell(error)
  }
  await load()
}

async function forget({ id }: KeptOutlines): Promise<void> {
  try {
    await remove(`/outlines/${id}`)
  } catch (error) {
    notices.tell(error)
  }
  await load()
}
</script>

<template>
  <ChoiceChips
    label="Ready-made outlines"
    :choices="choices"
    :chosen="chosen"
    @choose="(key) => emit('choose', linesOf(key))"
    @hover="(key) => emit('hover', key === null ? null : linesOf(key))"
  />
  <KeepForm v-if="naming" label="Name of these outlines" example="Sticker" @keep="keep" />
  <p v-if="lines.length" class="links">
    <button v-if="chosenOwn" type="button" class="link" @click="forget(chosenOwn)">
      Remove “{{ chosenOwn.name }}”
    </button>
    <button v-else-if="!chosen" type="button" class="link" @click="naming = !naming">Save these outlines</button>
  </p>
</template>

<style scoped>
.links {
  margin-top: 6px;
}
</style>
