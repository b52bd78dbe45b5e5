<script setup lang="ts">
import { watchDebounced } from '@vueuse/core'
import { computed, onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'

import type { FinishFace, Photo } from '../../api/types'
import { useBench } from '../../stores/bench'
import { useNotices } from '../../stores/notices'
import { useShelf } from '../../stores/shelf'
import ConfirmDialog from '../shared/ConfirmDialog.vue'
import TopBar from '../shared/TopBar.vue'
import BringPhoto from './BringPhoto.vue'
import FinishCard from './FinishCard.vue'
import FirstSteps from './FirstSteps.vue'
import ManyDialog from './ManyDialog.vue'
import PhotoCard from './PhotoCard.vue'

defineEmits<{ 'show-keys': [] }>()

const shelf = useShelf()
const notices = useNotices()
const router = useRouter()
const finishing = ref(false)
const chosenIds = ref<string[]>([])
const deleting = ref<{ kind: 'finish' | 'photo'; id: string; name: string } | null>(null)

onMounted(() => {
  useBench().close()
  document.title = 'Lucky Margin'
  void shelf.load()
})
watchDebounced(() => shelf.search, shelf.load, { debounce: 150 })

const isEmpty = computed(() => shelf.loaded && !shelf.photos.length && !shelf.binned)
const countInWords = computed(() => {
  if (shelf.search) return `${shelf.total} found`
  return `${shelf.total}, ${shelf.binned ? 'in the bin' : 'newest first'}`
})

/** In the order in which they were chosen. */
const chosenPhotos = computed(() =>
  chosenIds.value.flatMap((id) => shelf.photos.filter(({ sha256 }) => sha256 === id)),
)

function toggled(ids: string[], id: string, on: boolean): string[] {
  const others = ids.filter((one) => one !== id)
  return on ? [...others, id] : others
}

function toSheet(ids: string[]): void {
  if (ids.length) void router.push({ name: 'sheet', query: { of: ids.join(',') } })
}

function toggleBin(): void {
  shelf.binned = !shelf.binned
  shelf.search = ''
  void shelf.load()
}

function open(id: string): void {
  void router.push({ name: 'bench', params: { id } })
}

async function startFrom(photo: Photo): Promise<void> {
  try {
    open(await shelf.start(photo.sha256))
  } catch (error) {
    notices.tell(error)
  }
}

function askToDelete(finish: FinishFace): void {
  deleting.value = { kind: 'finish', id: finish.id, name: finish.name }
}

async function deleteForGood(): Promise<void> {
  const target = deleting.value
  if (target?.kind === 'finish') await shelf.deleteFinish(target.id)
  else if (target) await shelf.deletePhoto(target.id)
}
</script>

<template>
  <div class="shelf-page">
    <TopBar>
      <span class="spring"></span>
      <button type="button" :aria-pressed="shelf.binned" @click="toggleBin">
        {{ shelf.binned ? 'Back to the shelf' : 'Bin' }}
      </button>
      <button type="button" class="edged" @click="$emit('show-keys')">Keys ?</button>
    </TopBar>
    <div class="columns">
      <BringPhoto />
      <main>
        <div class="row">
          <h2>{{ shelf.binned ? 'Bin' : 'Finishes' }}</h2>
          <span v-if="shelf.loaded" class="soft">{{ countInWords }}</span>
          <template v-if="shelf.chosenFinishes.length && !shelf.binned">
            <button type="button" class="action" @click="toSheet(shelf.chosenFinishes)">
              Contact sheet of {{ shelf.chosenFinishes.length }}
            </button>
            <button type="button" class="link" @click="shelf.chosenFinishes = []">Choose none</button>
          </template>
          <input
            v-model="shelf.search"
            type="search"
            class="text-field search"
            placeholder="Search by name"
            aria-label="Search by name"
          />
        </div>
        <ul v-if="shelf.finishes.length" class="plank finishes" aria-label="Finishes">
          <FinishCard
            v-for="finish in shelf.finishes"
            :key="finish.id"
            :finish="finish"
            :binned="shelf.binned"
            :choosing="shelf.chosenFinishes.length > 0"
            :chosen="shelf.chosenFinishes.includes(finish.id)"
            @update:chosen="(on) => (shelf.chosenFinishes = toggled(shelf.chosenFinishes, finish.id, on))"
            @open="open(finish.id)"
            @rename="(name) => shelf.rename(finish, name)"
            @duplicate="shelf.duplicate(finish.id)"
            @go-back="shelf.goBack(finish)"
            @bin="shelf.putInBin(finish.id)"
            @restore="shelf.restore(finish.id)"
            @delete="askToDelete(finish)"
          />
        </ul>
        <div v-else-if="shelf.loaded" class="empty">
          <template v-if="shelf.search">
            <p>Nothing is called “{{ shelf.search }}”.</p>
            <button type="button" class="link strong" @click="shelf.search = ''">Show all</button>
          </template>
          <p v-else-if="shelf.binned">The bin is empty.</p>
          <FirstSteps v-else-if="isEmpty" />
          <p v-else>No finishes yet; pick a photo below to start one.</p>
        </div>
        <button
          v-if="shelf.finishes.length < shelf.total"
          type="button"
          class="link strong more"
          @click="shelf.loadMore"
        >
          Show more
        </button>
        <template v-if="!shelf.binned && shelf.photos.length">
          <div class="row">
            <h2>Photos</h2>
            <span class="soft">
              {{ shelf.photoCount }} {{ shelf.photoCount === 1 ? 'original' : 'originals' }}
            </span>
            <template v-if="chosenPhotos.length">
              <button type="button" class="action" @click="finishing = true">
                {{ chosenPhotos.length === 1 ? 'Finish 1 photo…' : `Finish ${chosenPhotos.length} photos…` }}
              </button>
              <button type="button" class="link" @click="chosenIds = []">Choose none</button>
            </template>
          </div>
          <ul class="plank photos" aria-label="Photos">
            <PhotoCard
              v-for="photo in shelf.photos"
              :key="photo.sha256"
              :photo="photo"
              :choosing="chosenPhotos.length > 0"
              :chosen="chosenIds.includes(photo.sha256)"
              @update:chosen="(on) => (chosenIds = toggled(chosenIds, photo.sha256, on))"
              @start="startFrom(photo)"
              @delete="deleting = { kind: 'photo', id: photo.sha256, name: photo.name }"
            />
          </ul>
          <button v-if="shelf.hasMorePhotos" type="button" class="link strong more" @click="shelf.loadMorePhotos">
            Show more photos
          </button>
        </template>
      </main>
    </div>
    <ManyDialog v-model="finishing" :photos="chosenPhotos" @made="toSheet" />
    <ConfirmDialog
      :model-value="deleting !== null"
      title="Delete for good?"
      :text="`“${deleting?.name}” is deleted with ${
        deleting?.kind === 'photo' ? 'its original' : 'all its changes'
      }; this can't be taken back.`"
      action="Delete"
      @update:model-value="deleting = null"
      @confirm="deleteForGood"
    />
  </div>
</template>

<style scoped>
.shelf-page {
  display: flex;
  flex-direction: column;
  height: 100%;
}

.columns {
  display: grid;
  grid-template-rows: minmax(0, 1fr);
  grid-template-columns: 308px minmax(0, 1fr);
  flex: 1;
  min-height: 0;
}

main {
  padding: 16px 26px 40px 30px;
  overflow: auto;
}

/* On a narrow window one thing stands below the other. */
@media (max-width: 820px) {
  .columns {
    display: block;
    overflow: hidden auto;
  }

  main {
    padding: 16px;
    overflow: visible;
  }
}

.row {
  display: flex;
  flex-wrap: wrap;
  gap: 14px;
  align-items: baseline;
  margin: 6px 0 12px;
}

/* What is done with several that are chosen stays in reach. */
.row:has(.action) {
  position: sticky;
  top: -16px;
  z-index: 2;
  padding: 6px 0;
  background: var(--shelf);
}

h2 {
  font-size: 18px;
  font-weight: 700;
}

.soft {
  color: var(--ink-soft);
  font-size: 12px;
}

.search {
  width: 220px;
  margin-left: auto;
  min-height: 31px;
}

/* Cards stand on planks that go from side to side, one to each row of cards. */
.plank {
  --card: calc(var(--plank) + 72px);

  display: flex;
  flex-wrap: wrap;
  margin-bottom: 16px;
  background: linear-gradient(
      transparent var(--plank),
      var(--ink) var(--plank) calc(var(--plank) + 3px),
      transparent calc(var(--plank) + 3px)
    )
    0 0 / 100% var(--card);
}

.finishes {
  --plank: 162px;
}

.photos {
  --plank: 104px;
}

.empty {
  display: grid;
  gap: 8px;
  justify-items: start;
  margin: 26px 0 40px;
  color: var(--ink-soft);
}

.more {
  margin: -10px 0 18px;
}
</style>
