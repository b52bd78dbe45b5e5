<script setup lang="ts">
// What is written into the file beside the picture.

import { computed, ref } from 'vue'

import { useBench } from '../../../stores/bench'
import TickBox from '../../shared/TickBox.vue'

const TEXTS = [
  { key: 'title', label: 'Title', placeholder: '', letters: 200 },
  { key: 'description', label: 'Description', placeholder: '', letters: 1000 },
  { key: 'author', label: 'Author', placeholder: 'as in the original', letters: 200 },
  { key: 'copyright', label: 'Copyright', placeholder: 'as in the original', letters: 200 },
] as const

const bench = useBench()
const showDetails = ref(false)
const settings = computed(() => bench.here!.export)

function setDetail(detail: Record<string, string | boolean>): void {
  void bench.edit({ kind: 'set_file_details', ...detail })
}
</script>

<template>
  <button type="button" class="link" :aria-expanded="showDetails" @click="showDetails = !showDetails">
    File information
  </button>
  <template v-if="showDetails">
    <label v-for="{ key, label, placeholder, letters } in TEXTS" :key="key">
      <span class="field-label">{{ label }}</span>
      <input
        class="text-field"
        :placeholder="placeholder"
        :maxlength="letters"
        :value="settings[key]"
        @change="setDetail({ [key]: ($event.target as HTMLInputElement).value })"
      />
    </label>
    <TickBox label="Keep camera data" :checked="settings.keep_camera_data" @update:checked="setDetail({ keep_camera_data: $event })" />
    <TickBox label="Keep the location" :checked="settings.keep_place" @update:checked="setDetail({ keep_place: $event })" />
  </template>
</template>
