<script setup lang="ts">
// What is written into the file beside the picture.

import { computed, ref } from 'vue'

import { useBench } from '../../../stores/bench'

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
    <label class="tick">
      <input
        type="checkbox"
        :checked="settings.keep_camera_data"
        @change="setDetail({ keep_camera_data: ($event.target as HTMLInputElement).checked })"
      />
      Keep camera data
    </label>
    <label class="tick">
      <input
        type="checkbox"
        :checked="settings.keep_place"
        @change="setDetail({ keep_place: ($event.target as HTMLInputElement).checked })"
      />
      Keep the place where it was taken
    </label>
  </template>
</template>
