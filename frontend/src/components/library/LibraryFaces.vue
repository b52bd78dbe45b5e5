<script setup lang="ts">
// Things of the library by their pictures, to choose one.

import { lookingAt } from '../../composables/lookingAt'
import { vRadios } from '../../composables/radios'
import StarButton from './StarButton.vue'

export interface Face {
  key: string
  name: string
  favourite: boolean
  /** Where its picture is. */
  picture: string
  /** More about it. */
  more?: string
}

defineProps<{ label: string; faces: Face[]; chosen?: string | null }>()
const emit = defineEmits<{
  choose: [key: string]
  hover: [key: string | null]
  like: [key: string, favourite: boolean]
}>()
</script>

<template>
  <div v-radios class="faces" role="radiogroup" :aria-label="label">
    <span v-for="{ key, name, favourite, picture, more } in faces" :key="key" class="cell">
      <button
        type="button"
        role="radio"
        class="face"
        :data-tip="more ? `${name}: ${more}` : name"
        :aria-label="name"
        :aria-checked="key === chosen"
        @click="emit('choose', key)"
        v-on="lookingAt((on) => emit('hover', on ? key : null))"
      >
        <img :src="picture" alt="" loading="lazy" draggable="false" />
      </button>
      <StarButton :name="name" :on="favourite" :class="{ quiet: !favourite }" @change="(on) => emit('like', key, on)" />
    </span>
  </div>
</template>

<style scoped src="./face.css"></style>
<style scoped>
.faces {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(60px, 1fr));
  gap: 6px;
  max-height: 214px;
  padding: 4px;
  overflow-y: auto;
}

.cell {
  position: relative;
  display: block;
}

.star {
  position: absolute;
  top: 0;
  right: 0;
}

@media (hover: hover) {
  .quiet {
    opacity: 0;
  }
}

.cell:hover .quiet,
.quiet:focus-visible {
  opacity: 1;
}
</style>
