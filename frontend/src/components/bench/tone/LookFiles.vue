<script setup lang="ts">
// Keeping this tone as a look, and colour tables in and out.

import { ref } from 'vue'

import { post, upload } from '../../../api/client'
import type { Cube, SavedLook } from '../../../api/types'
import { downloadBlob } from '../../../composables/downloads'
import { useToneEdits } from '../../../composables/toneEdits'
import { useBench } from '../../../stores/bench'
import { useNotices } from '../../../stores/notices'
import KeepForm from '../../shared/KeepForm.vue'

const emit = defineEmits<{ kept: [] }>()

const bench = useBench()
const notices = useNotices()
const { tone, isAnySet } = useToneEdits()
const naming = ref(false)
const file = ref<HTMLInputElement>()

async function keep(name: string): Promise<void> {
  try {
    await post<SavedLook>('/looks', { name, tone: tone.value })
    notices.say(`“${name}” is saved with the looks.`)
    naming.value = false
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
    await upload<SavedLook>(path, chosen)
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
    downloadBlob(new Blob([cube.text], { type: 'text/plain' }), cube.file_name)
    const left = cube.left_out.length ? ` It leaves out ${cube.left_out.join('; ')}.` : ''
    const off = cube.off ? ` Such a table is coarse: off by up to ${cube.off}.` : ''
    notices.say(`Saved ${cube.file_name}.${left}${off}`)
  } catch (error) {
    notices.tell(error)
  }
}
</script>

<template>
  <KeepForm v-if="naming" label="Name of the look" example="Thursday light" @keep="keep" />
  <p class="links">
    <button type="button" class="link" :disabled="!isAnySet" @click="naming = !naming">Save as a look</button>
    <button type="button" class="link" @click="file?.click()">Add a .cube</button>
    <button type="button" class="link" :disabled="!isAnySet" @click="save">Save as .cube</button>
    <input ref="file" type="file" accept=".cube" class="visually-hidden" tabindex="-1" aria-label="A .cube file" @change="bring" />
  </p>
</template>

<style scoped>
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
