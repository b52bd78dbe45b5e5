<script setup lang="ts">
// A QR code: what it says and its colours; it becomes a picture of the shelf.

import { ref } from 'vue'

import { post } from '../../../api/client'
import type { Photo } from '../../../api/types'
import { useNotices } from '../../../stores/notices'
import ColourField from '../../shared/ColourField.vue'
import TickBox from '../../shared/TickBox.vue'

const emit = defineEmits<{ choose: [code: Photo] }>()

const INK = [
  { name: 'Black', colour: '#000000' },
  { name: 'Ink', colour: '#1E2A2F' },
]

const notices = useNotices()
const text = ref('')
const dark = ref('#000000')
const onWhite = ref(true)

async function make(): Promise<void> {
  try {
    const light = onWhite.value ? '#FFFFFF' : null
    emit('choose', await post<Photo>('/codes', { text: text.value, dark: dark.value, light }))
  } catch (error) {
    notices.tell(error)
  }
}
</script>

<template>
  <form @submit.prevent="make">
    <label>
      <span class="field-label">The code says <span>an address, or any words</span></span>
      <input v-model="text" class="text-field" maxlength="4000" autocomplete="off" spellcheck="false" />
    </label>
    <ColourField label="Code colour" plain :value="dark" :swatches="INK" @change="dark = $event" />
    <TickBox v-model:checked="onWhite" label="On white" />
    <button type="submit" class="action" :disabled="!text.trim()">Add the code</button>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 6px;
  justify-items: start;
  margin-top: 6px;
}

label {
  width: 100%;
}
</style>
