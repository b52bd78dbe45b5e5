<script setup lang="ts">
import { computed } from 'vue'

import type { Photo } from '../../api/types'
import StarButton from '../library/StarButton.vue'

const props = defineProps<{
  photo: Photo
  /** Whether others are chosen already. */
  choosing: boolean
}>()
defineEmits<{ start: []; like: [on: boolean]; users: []; delete: [] }>()
const isChosen = defineModel<boolean>('chosen', { required: true })

const PLANK = 92
const WIDEST = 300

const side = computed(() => {
  const ratio = props.photo.width / props.photo.height
  const height = Math.max(20, Math.min(PLANK, WIDEST / ratio))
  return { width: `${Math.max(20, Math.min(WIDEST, height * ratio))}px`, height: `${height}px` }
})
</script>

<template>
  <li class="card">
    <label class="choose" :class="{ always: choosing }">
      <input v-model="isChosen" type="checkbox" :aria-label="`Choose ${photo.name}`" />
    </label>
    <StarButton :name="photo.name" :on="photo.favourite" @change="(on) => $emit('like', on)" />
    <button
      type="button"
      class="pictures"
      :aria-label="`Start a finish from ${photo.name}`"
      @click="$emit('start')"
    >
      <img
        :src="`/api/photos/${photo.sha256}/thumbnail?height=184`"
        :style="side"
        alt=""
        loading="lazy"
        draggable="false"
      />
    </button>
    <div class="words">
      <b :title="photo.name">{{ photo.name.replace(/\.\w+$/, '') }}</b>
      <span>
        {{ photo.width }} × {{ photo.height }}
        <template v-if="photo.uses">
          · <button type="button" class="link" @click="$emit('users')">in {{ photo.uses }} {{ photo.uses === 1 ? 'finish' : 'finishes' }}</button>
        </template>
      </span>
      <div class="actions">
        <a class="link" :href="`/api/photos/${photo.sha256}/original`" download>Download original</a>
        <button type="button" class="link" @click="$emit('delete')">Delete…</button>
      </div>
    </div>
  </li>
</template>

<style scoped src="./cards.css"></style>
<style scoped>
.star {
  position: absolute;
  bottom: calc(var(--card) - var(--plank) + 6px);
  left: 50px;
  z-index: 1;
  box-shadow: 0 1px 4px rgb(30 42 47 / 45%);
}

@media (hover: hover) {
  .star:not(.on) {
    opacity: 0;
  }
}

.card:hover .star,
.card:focus-within .star {
  opacity: 1;
}

span .link {
  min-height: 0;
  padding: 0;
  font-size: 12px;
}
</style>
