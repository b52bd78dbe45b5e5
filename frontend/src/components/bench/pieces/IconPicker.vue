<script setup lang="ts">
// The shipped icons, found by what they show.

import { watchDebounced } from '@vueuse/core'
import { ref, shallowRef } from 'vue'

import { get } from '../../../api/client'
import type { IconList } from '../../../api/types'
import { useNotices } from '../../../stores/notices'
import { vRadios } from '../../../composables/radios'
import { lookingAt } from '../../../composables/lookingAt'

defineProps<{ chosen: string | null }>()
const emit = defineEmits<{ choose: [icon: string | null]; hover: [icon: string | null] }>()

const PAUSE_MS = 150

const notices = useNotices()
const search = ref('')
const icons = shallowRef<string[]>([])

watchDebounced(
  search,
  async (words) => {
    try {
      icons.value = (await get<IconList>(`/icons?search=${encodeURIComponent(words)}`)).icons
    } catch (error) {
      notices.tell(error)
    }
  },
  { debounce: PAUSE_MS, immediate: true },
)
</script>

<template>
  <div class="picker">
    <label>
      <span class="visually-hidden">Search icons</span>
      <input v-model="search" class="text-field" maxlength="60" placeholder="search icons: cup, star, post …" />
    </label>
    <div v-radios class="icons" role="radiogroup" aria-label="Icon">
      <button
        v-for="icon in icons"
        :key="icon"
        type="button"
        role="radio"
        :class="{ on: icon === chosen }"
        :data-tip="icon.replaceAll('-', ' ')"
        :aria-label="icon.replaceAll('-', ' ')"
        :aria-checked="icon === chosen"
        @click="emit('choose', icon === chosen ? null : icon)"
        v-on="lookingAt((on) => emit('hover', on ? icon : null))"
      >
        <img :src="`/api/icons/${icon}/picture`" width="20" height="20" loading="lazy" alt="" />
      </button>
      <p v-if="!icons.length">No icon shows that; try another word.</p>
    </div>
  </div>
</template>

<style scoped>
.picker {
  margin-top: 6px;
}

.icons {
  display: grid;
  grid-template-columns: repeat(8, 1fr);
  gap: 3px;
  max-height: 122px;
  margin-top: 4px;
  overflow-y: auto;
}

.icons button {
  display: grid;
  place-items: center;
  height: 30px;
  padding: 0;
  border: 1px solid transparent;
  border-radius: 4px;
  background: #ffffff;
}

.icons button:hover {
  border-color: var(--edge);
}

.icons button.on {
  border-color: var(--clover);
  background: var(--clover-pale);
}

.icons p {
  grid-column: 1 / -1;
  color: var(--ink-soft);
  font-size: 12px;
}
</style>
