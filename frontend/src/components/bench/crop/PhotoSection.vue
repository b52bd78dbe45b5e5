<script setup lang="ts">
// Another photo in this finish, or in a new one like it. What matters in it is found first, so that
// it is one change.

import { ref } from 'vue'
import { useRouter } from 'vue-router'

import type { Edit, Photo, Proposal } from '../../../api/types'
import { useBench } from '../../../stores/bench'
import { useNotices } from '../../../stores/notices'
import ChoiceChips, { type Choice } from '../../shared/ChoiceChips.vue'
import PicturePicker from '../pieces/PicturePicker.vue'

type Place = 'here' | 'new'

const PLACES: Choice<Place>[] = [
  { key: 'here', label: 'this finish' },
  { key: 'new', label: 'a new one like it' },
]

const bench = useBench()
const notices = useNotices()
const router = useRouter()
const place = ref<Place>('here')
const isLooking = ref(false)

async function swap(photo: Photo): Promise<void> {
  if (isLooking.value || photo.sha256 === bench.document!.photo?.sha256) return
  isLooking.value = true
  const finish = bench.saved?.id
  try {
    const { edit } = await bench.ask<Proposal>('/bench/swap', { sha256: photo.sha256 })
    const isStillOpen = bench.saved?.id === finish
    if (edit && isStillOpen) await put(photo, edit)
  } catch (error) {
    notices.tell(error)
  } finally {
    isLooking.value = false
  }
}

async function put(photo: Photo, edit: Edit): Promise<void> {
  if (place.value === 'here') return bench.edit(edit)
  const id = await bench.startLike(edit, photo.name.replace(/(.)\.\w+$/, '$1'))
  await router.push({ name: 'bench', params: { id } })
}
</script>

<template>
  <p class="hint">
    Another photo, and all else as it is here: sizes, tone, border, words. What was cropped, painted or marked on
    this photo stays with this one.
  </p>
  <ChoiceChips label="Put it in" :choices="PLACES" :chosen="place" @choose="(key) => (place = key)" />
  <PicturePicker label="Photo to put in" :chosen="bench.document!.photo?.sha256" @choose="swap" />
  <p class="hint" aria-live="polite">{{ isLooking ? 'Looking at the new photo…' : '' }}</p>
</template>

<style scoped>
.hint {
  color: var(--ink-soft);
  font-size: 12px;
}
</style>
