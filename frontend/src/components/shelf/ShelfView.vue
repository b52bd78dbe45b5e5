<script setup lang="ts">
import { watchDebounced } from '@vueuse/core'
import { computed, onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'

import type { FinishFace } from '../../api/types'
import { useBench } from '../../stores/bench'
import { useShelf } from '../../stores/shelf'
import ConfirmDialog from '../shared/ConfirmDialog.vue'
import TopBar from '../shared/TopBar.vue'
import UpkeepDialog from '../upkeep/UpkeepDialog.vue'
import BringPhoto from './BringPhoto.vue'
import FinishCard from './FinishCard.vue'
import FirstSteps from './FirstSteps.vue'
import PhotoPlank from './PhotoPlank.vue'

defineEmits<{ 'show-keys': [] }>()

const shelf = useShelf()
const router = useRouter()
const showUpkeep = ref(false)
const deleting = ref<FinishFace | null>(null)

onMounted(() => {
  useBench().close()
  document.title = 'Lucky Margin'
  void shelf.load()
})
watchDebounced(() => shelf.search, shelf.load, { debounce: 150 })

const isEmpty = computed(() => shelf.loaded && !shelf.hasPhotos && !shelf.binned)
const countInWords = computed(() => {
  if (shelf.search || shelf.users) return `${shelf.total} found`
  return `${shelf.total}, ${shelf.binned ? 'in the bin' : 'newest first'}`
})

function toggled(ids: string[], id: string, on: boolean): string[] {
  const others = ids.filter((one) => one !== id)
  return on ? [...others, id] : others
}

function toSheet(ids: string[]): void {
  if (ids.length) void router.push({ name: 'sheet', query: { of: ids.join(',') } })
}

function toggleBin(): void {
  shelf.users = null
  shelf.binned = !shelf.binned
  shelf.search = ''
  void shelf.load()
}

function open(id: string): void {
  void router.push({ name: 'bench', params: { id } })
}
</script>

<template>
  <div class="shelf-page">
    <TopBar>
      <span class="spring"></span>
      <button type="button" :aria-pressed="shelf.binned" @click="toggleBin">
        {{ shelf.binned ? 'Back to the shelf' : 'Bin' }}
      </button>
      <button type="button" data-tip="Backup, check, room on the disk" @click="showUpkeep = true">Upkeep</button>
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
            <button type="button" class="action" @click="shelf.putInBin(shelf.chosenFinishes)">
              Put {{ shelf.chosenFinishes.length }} in the bin
            </button>
            <button type="button" class="link" @click="shelf.chosenFinishes = []">Choose none</button>
          </template>
          <span v-if="shelf.users" class="of">
            with the photo “{{ shelf.users.name }}”
            <button type="button" class="link" @click="shelf.showUsers(null)">Show all finishes</button>
          </span>
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
            @bin="shelf.putInBin([finish.id])"
            @restore="shelf.restore(finish.id)"
            @delete="deleting = finish"
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
        <PhotoPlank v-if="!shelf.binned && shelf.hasPhotos" @made="toSheet" />
      </main>
    </div>
    <UpkeepDialog v-model="showUpkeep" />
    <ConfirmDialog
      :model-value="deleting !== null"
      title="Delete for good?"
      :text="`“${deleting?.name}” is deleted with all its changes; this can't be taken back.`"
      action="Delete"
      @update:model-value="deleting = null"
      @confirm="shelf.deleteFinish(deleting!.id)"
    />
  </div>
</template>

<style scoped src="./plank.css"></style>
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

.search {
  width: 220px;
  margin-left: auto;
  min-height: 31px;
}

.finishes {
  --plank: 162px;
}

.empty {
  display: grid;
  gap: 8px;
  justify-items: start;
  margin: 26px 0 40px;
  color: var(--ink-soft);
}
</style>
