<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { ref } from 'vue'
import { RouterView } from 'vue-router'

import ServiceBanner from './components/shared/ServiceBanner.vue'
import WorkList from './components/shared/WorkList.vue'
import ControlTip from './components/shared/ControlTip.vue'
import KeysDialog from './components/shared/KeysDialog.vue'
import { useBringing } from './composables/bringing'
import { useKeys } from './composables/keys'
import { useKeyTable } from './composables/keyTable'

const { bring } = useBringing()
const over = ref(false)
const showKeys = ref(false)

const keyTable = useKeyTable(() => (showKeys.value = true))
useKeys(keyTable)

// Photos come in by dropping anywhere, pasting or picking, all by the same way.
useEventListener(window, 'dragover', (event: DragEvent) => {
  if (!event.dataTransfer?.types.includes('Files')) return
  event.preventDefault()
  over.value = true
})
useEventListener(window, 'dragleave', (event: DragEvent) => {
  if (!event.relatedTarget) over.value = false
})
useEventListener(window, 'drop', (event: DragEvent) => {
  over.value = false
  if (!event.dataTransfer?.files.length) return
  event.preventDefault()
  void bring([...event.dataTransfer.files])
})
useEventListener(window, 'paste', (event: ClipboardEvent) => {
  const files = [...(event.clipboardData?.files ?? [])].filter((file) => file.type.startsWith('image/'))
  if (!files.length) return
  event.preventDefault()
  void bring(files.map(dated))
})

/** A pasted picture has no name of its own worth keeping, so it gets the date. */
function dated(file: File): File {
  const now = new Date()
  const two = (value: number) => String(value).padStart(2, '0')
  const day = `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`
  const time = `${two(now.getHours())}.${two(now.getMinutes())}.${two(now.getSeconds())}`
  return new File([file], `Pasted ${day} ${time}.png`, { type: file.type })
}
</script>

<template>
  <RouterView @show-keys="showKeys = true" />
  <ServiceBanner />
  <WorkList />
  <ControlTip />
  <KeysDialog v-model="showKeys" :table="keyTable" />
  <div v-if="over" class="drop-here" aria-hidden="true"><span>Drop to start a finish</span></div>
</template>

<style scoped>
.drop-here {
  position: fixed;
  inset: 10px;
  z-index: 3000;
  display: grid;
  place-items: center;
  border: 3px dashed var(--paper);
  border-radius: 10px;
  background: rgb(30 42 47 / 72%);
  color: var(--paper);
  font: 600 26px var(--heading);
  pointer-events: none;
}
</style>
