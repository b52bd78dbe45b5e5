<script setup lang="ts">
// The photos on the shelf: found by name and colour, chosen to be finished or deleted.

import { watchDebounced } from '@vueuse/core'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'

import type { Photo } from '../../api/types'
import { useNotices } from '../../stores/notices'
import { useShelf } from '../../stores/shelf'
import LibraryFilters from '../library/LibraryFilters.vue'
import ConfirmDialog from '../shared/ConfirmDialog.vue'
import ManyDialog from './ManyDialog.vue'
import PhotoCard from './PhotoCard.vue'

const emit = defineEmits<{ made: [ids: string[]] }>()

const shelf = useShelf()
const notices = useNotices()
const router = useRouter()
const chosenIds = ref<string[]>([])
const finishing = ref(false)
const deleting = ref<Photo[]>([])

/** In the order in which they were chosen. */
const chosen = computed(() =>
  chosenIds.value.flatMap((id) => shelf.photos.filter(({ sha256 }) => sha256 === id)),
)
const isFiltered = computed(() => Object.values(shelf.photoQuery).some(Boolean))
const count = computed(() => {
  if (isFiltered.value) return `${shelf.photoCount} found`
  return `${shelf.photoCount} ${shelf.photoCount === 1 ? 'original' : 'originals'}`
})
const warning = computed(() => {
  const [first] = deleting.value
  if (!first) return ''
  const what = deleting.value.length === 1 ? `“${first.name}” and its original are` : `${deleting.value.length} photos and their originals are`
  return `${what} deleted; this can't be taken back.`
})

watchDebounced(shelf.photoQuery, () => shelf.loadPhotos(), { debounce: 150 })

function tick(id: string, on: boolean): void {
  const others = chosenIds.value.filter((one) => one !== id)
  chosenIds.value = on ? [...others, id] : others
}

async function startFrom({ sha256 }: Photo): Promise<void> {
  try {
    void router.push({ name: 'bench', params: { id: await shelf.start(sha256) } })
  } catch (error) {
    notices.tell(error)
  }
}
</script>

<template>
  <div class="row">
    <h2>Photos</h2>
    <span class="soft">{{ count }}</span>
    <template v-if="chosen.length">
      <button type="button" class="action" @click="finishing = true">
        {{ chosen.length === 1 ? 'Finish 1 photo…' : `Finish ${chosen.length} photos…` }}
      </button>
      <button type="button" class="action" @click="deleting = chosen">Delete {{ chosen.length }}…</button>
      <button type="button" class="link" @click="chosenIds = []">Choose none</button>
    </template>
    <LibraryFilters v-model="shelf.photoQuery" class="looking" label="photos" placeholder="search photos" />
  </div>
  <ul v-if="shelf.photos.length" class="plank photos" aria-label="Photos">
    <PhotoCard
      v-for="photo in shelf.photos"
      :key="photo.sha256"
      :photo="photo"
      :choosing="chosen.length > 0"
      :chosen="chosenIds.includes(photo.sha256)"
      @update:chosen="(on) => tick(photo.sha256, on)"
      @start="startFrom(photo)"
      @like="(on) => shelf.likePhoto(photo, on)"
      @users="shelf.showUsers(photo)"
      @delete="deleting = [photo]"
    />
  </ul>
  <p v-else class="soft none">
    No photo is like that.
    <button type="button" class="link strong" @click="shelf.showAllPhotos">Show all photos</button>
  </p>
  <button v-if="shelf.hasMorePhotos" type="button" class="link strong more" @click="shelf.loadMorePhotos">
    Show more photos
  </button>
  <ManyDialog v-model="finishing" :photos="chosen" @made="(ids) => emit('made', ids)" />
  <ConfirmDialog
    :model-value="deleting.length > 0"
    title="Delete for good?"
    :text="warning"
    action="Delete"
    @update:model-value="deleting = []"
    @confirm="shelf.deletePhotos(deleting)"
  />
</template>

<style scoped src="./plank.css"></style>
<style scoped>
.photos {
  --plank: 104px;
}

/* In one line. */
.looking {
  flex-wrap: nowrap;
  margin-left: auto;
}

.looking :deep(.text-field) {
  flex: 0 1 auto;
}

.looking :deep(input.text-field) {
  flex-basis: 150px;
}

.none {
  margin: 10px 0 30px;
}
</style>
