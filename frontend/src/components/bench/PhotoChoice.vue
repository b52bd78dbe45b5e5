<script setup lang="ts">
// Photos of the shelf to choose one from.

import { watchDebounced } from '@vueuse/core'
import { computed, onMounted, reactive, ref } from 'vue'

import type { Photo } from '../../api/types'
import { everything } from '../../composables/library'
import { usePhotoPages } from '../../composables/photoPages'
import { vRadios } from '../../composables/radios'
import LibraryFilters from '../library/LibraryFilters.vue'

const props = defineProps<{
  label: string
  /** The chosen one, by its hash. */
  chosen?: string
  /** One that can't be chosen, by its hash. */
  except?: string
}>()
const emit = defineEmits<{ choose: [photo: Photo] }>()

/** So many are found by eye. */
const FEW = 12

const query = reactive(everything())
const { photos, total, hasMore, load, loadMore } = usePhotoPages(query)
/** Whether there were ever more than a few. */
const many = ref(false)
const offered = computed(() => photos.value.filter(({ sha256 }) => sha256 !== props.except))

watchDebounced(query, load, { debounce: 150 })
onMounted(async () => {
  await load()
  many.value = total.value > FEW
})
</script>

<template>
  <LibraryFilters v-if="many" v-model="query" label="photos" placeholder="search by name" />
  <div v-radios class="photos" role="radiogroup" :aria-label="label">
    <button
      v-for="photo in offered"
      :key="photo.sha256"
      type="button"
      role="radio"
      class="face"
      :data-tip="photo.name"
      :aria-label="photo.name"
      :aria-checked="photo.sha256 === chosen"
      @click="emit('choose', photo)"
    >
      <img :src="`/api/photos/${photo.sha256}/thumbnail?height=64`" alt="" />
    </button>
    <button v-if="hasMore" type="button" class="link" @click="loadMore">Show more</button>
  </div>
</template>

<style scoped src="../library/face.css"></style>
<style scoped>
.photos {
  --face-fit: contain;

  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 5px;
  max-height: 150px;
  margin-top: 6px;
  padding: 4px;
  overflow-y: auto;
}

.face {
  height: 44px;
  padding: 2px;
}
</style>
