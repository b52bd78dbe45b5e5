<script setup lang="ts">
// Pictures of the shelf, and new ones from files: logos keep their transparency.

import { onMounted, ref, shallowRef } from 'vue'

import { get, upload } from '../../../api/client'
import type { Photo } from '../../../api/types'
import { useNotices } from '../../../stores/notices'

const emit = defineEmits<{ choose: [photo: Photo] }>()

const notices = useNotices()
const photos = shallowRef<Photo[]>([])
const file = ref<HTMLInputElement>()

onMounted(async () => {
  try {
    photos.value = (await get<{ photos: Photo[] }>('/photos')).photos
  } catch (error) {
    notices.tell(error)
  }
})

async function bring(): Promise<void> {
  const chosen = file.value?.files?.[0]
  if (!chosen) return
  try {
    const path = `/photos?name=${encodeURIComponent(chosen.name.slice(0, 120))}`
    emit('choose', await upload<Photo>(path, chosen, () => {}))
  } catch (error) {
    notices.tell(error)
  }
}
</script>

<template>
  <div class="pictures" role="group" aria-label="Picture to add">
    <button v-for="photo in photos" :key="photo.sha256" type="button" :title="photo.name" :aria-label="photo.name" @click="emit('choose', photo)">
      <img :src="`/api/photos/${photo.sha256}/thumbnail?height=64`" alt="" />
    </button>
  </div>
  <button type="button" class="link" @click="file?.click()">from a file</button>
  <input ref="file" type="file" accept="image/*" class="visually-hidden" tabindex="-1" aria-label="A picture file" @change="bring" />
</template>

<style scoped>
.pictures {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 4px;
  max-height: 150px;
  margin-top: 6px;
  overflow-y: auto;
}

button:not(.link) {
  height: 44px;
  padding: 2px;
  border: 1px solid var(--edge);
  border-radius: 4px;
  background: var(--paper-deep);
}

img {
  display: block;
  width: 100%;
  height: 100%;
  object-fit: contain;
}
</style>
