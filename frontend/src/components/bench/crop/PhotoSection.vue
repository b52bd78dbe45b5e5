<script setup lang="ts">
// Another photo in this finish, or in a new one like it. What matters in it is found first, so that
// it is one change.

import { ref } from 'vue'
import { useRouter } from 'vue-router'

import { Cancelled } from '../../../api/client'
import type { Edit, JobTold, Photo, Proposal } from '../../../api/types'
import { runJob } from '../../../composables/jobs'
import { TAB } from '../../../composables/pictures'
import { useBench } from '../../../stores/bench'
import { useNotices } from '../../../stores/notices'
import { useWork } from '../../../stores/work'
import ChoiceChips, { type Choice } from '../../shared/ChoiceChips.vue'
import PicturePicker from '../pieces/PicturePicker.vue'

type Place = 'here' | 'new'

const PLACES: Choice<Place>[] = [
  { key: 'here', label: 'this finish' },
  { key: 'new', label: 'a new one like it' },
]

const LABEL = 'Looking at the new photo'

const bench = useBench()
const notices = useNotices()
const work = useWork()
const router = useRouter()
const place = ref<Place>('here')

async function swap(photo: Photo): Promise<void> {
  if (photo.sha256 === bench.document!.photo?.sha256) return
  work.cancel(LABEL)
  const finish = bench.saved?.id
  try {
    const { edit } = await work.run(LABEL, (following) =>
      runJob<Proposal>(
        () => bench.ask<JobTold>('/bench/swap', { sha256: photo.sha256, channel: `${TAB}-swap` }),
        following,
      ),
    )
    const isStillOpen = bench.saved?.id === finish
    if (edit && isStillOpen) await put(photo, edit)
  } catch (error) {
    if (!(error instanceof Cancelled)) notices.tell(error)
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
</template>

<style scoped>
.hint {
  color: var(--ink-soft);
  font-size: 12px;
}
</style>
