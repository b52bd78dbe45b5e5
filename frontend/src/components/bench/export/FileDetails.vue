<script setup lang="ts">
// What is written into the file beside the picture.

import { computed, ref } from 'vue'

import { useBench } from '../../../stores/bench'
import TickBox from '../../shared/TickBox.vue'

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
    <label>
      <span class="field-label">Author</span>
      <input
        class="text-field"
        placeholder="as in the original"
        maxlength="200"
        :value="settings.author"
        @change="setDetail({ author: ($event.target as HTMLInputElement).value })"
      />
    </label>
    <label>
      <span class="field-label">Copyright</span>
      <input
        class="text-field"
        placeholder="as in the original"
        maxlength="200"
        :value="settings.copyright"
        @change="setDetail({ copyright: ($event.target as HTMLInputElement).value })"
      />
    </label>
    <TickBox label="Keep camera data" :checked="settings.keep_camera_data" @update:checked="setDetail({ keep_camera_data: $event })" />
    <TickBox label="Keep the location" :checked="settings.keep_place" @update:checked="setDetail({ keep_place: $event })" />
  </template>
</template>
