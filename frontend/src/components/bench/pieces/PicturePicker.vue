<script setup lang="ts">
// Pictures of the shelf, and new ones from files: logos keep their transparency.

import { ref } from 'vue'

import { upload } from '../../../api/client'
import type { Photo } from '../../../api/types'
import { useNotices } from '../../../stores/notices'
import PhotoChoice from '../PhotoChoice.vue'

withDefaults(defineProps<{ label?: string; chosen?: string }>(), {
  label: 'Picture to add',
  chosen: undefined,
})
const emit = defineEmits<{ choose: [photo: Photo] }>()

const notices = useNotices()
const file = ref<HTMLInputElement>()

async function bring(): Promise<void> {
  const chosen = file.value?.files?.[0]
  if (!chosen) return
  try {
    const path = `/photos?name=${encodeURIComponent(chosen.name.slice(0, 120))}`
    emit('choose', await upload<Photo>(path, chosen))
  } catch (error) {
    notices.tell(error)
  }
}
</script>

<template>
  <PhotoChoice :label="label" :chosen="chosen" @choose="(photo) => emit('choose', photo)" />
  <button type="button" class="link" @click="file?.click()">From a file…</button>
  <input ref="file" type="file" accept="image/*" class="visually-hidden" tabindex="-1" aria-label="A picture file" @change="bring" />
</template>
