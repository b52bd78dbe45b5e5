<script setup lang="ts">
// Keeping this tone as a look, and colour tables in and out.

import { ref } from 'vue'

import { post, upload } from '../../../api/client'
import type { Cube, SavedLook } from '../../../api/types'
import { downloadFrom } from '../../../composables/downloads'
import { useToneEdits } from '../../../composables/toneEdits'
import { useBench } from '../../../stores/bench'
import { useNotices } from '../../../stores/notices'

const emit = defineEmits<{ kept: [] }>()

const bench = useBench()
const notices = useNotices()
const { tone, isAnySet } = useToneEdits()
const naming = ref(false)
const name = ref('')
const file = ref<HTMLInputElement>()

async function keep(): Promise<void> {
  const wished = name.value.trim()
  if (!wished) return
  try {
    await post<SavedLook>('/looks', { name: wished, tone: tone.value })
    notices.say(`“${wished}” is kept among the looks.`)
    naming.value = false
    name.value = ''
    emit('kept')
  } catch (error) {
    notices.tell(error)
  }
}

async function bring(): Promise<void> {
  const chosen = file.value?.files?.[0]
  if (!chosen) return
  try {
    const path = `/looks/table?name=${encodeURIComponent(chosen.name.slice(0, 120))}`
    await upload<SavedLook>(path, chosen, () => {})
    emit('kept')
  } catch (error) {
    notices.tell(error)
  } finally {
    file.value!.value = ''
  }
}

async function save(): Promise<void> {
  try {
    const cube = await bench.ask<Cube>('/looks/cube', { title: bench.document!.name })
    const url = URL.createObjectURL(new Blob([cube.text], { type: 'text/plain' }))
    downloadFrom(url, cube.file_name)
    URL.revokeObjectURL(url)
    const left = cube.left_out.length ? ` It leaves out ${cube.left_out.join('; ')}.` : ''
    notices.say(`Saved ${cube.file_name}.${left}`)
  } catch (error) {
    notices.tell(error)
  }
}
</script>

<template>
  <form v-if="naming" class="name" @submit.prevent="keep">
    <input v-model="name" class="text-field" maxlength="120" aria-label="Name of the look" placeholder="Thursday light" />
    <button type="submit" class="action" :disabled="!name.trim()">Keep</button>
  </form>
  <p class="links">
    <button type="button" class="link" :disabled="!isAnySet" @click="naming = !naming">keep as a look</button>
    <button type="button" class="link" @click="file?.click()">add a .cube</button>
    <button type="button" class="link" :disabled="!isAnySet" @click="save">save as .cube</button>
    <input ref="file" type="file" accept=".cube" class="visually-hidden" tabindex="-1" aria-label="A .cube file" @change="bring" />
  </p>
</template>

<style scoped>
.name {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 6px;
  margin-top: 8px;
}

.links {
  display: flex;
  gap: 14px;
  margin-top: 6px;
}

.link:disabled {
  color: var(--ink-soft);
  text-decoration: none;
}
</style>
