<script setup lang="ts">
// Badges of several parts, own ones and those in stock, to be put on this picture.

import { computed } from 'vue'

import type { BadgeShown, Piece } from '../../api/types'
import { useLibrary } from '../../composables/library'
import { useBadges } from '../../stores/badges'
import LibraryFaces, { type Face } from './LibraryFaces.vue'
import LibraryFilters from './LibraryFilters.vue'

const emit = defineEmits<{ take: [parts: Piece[]] }>()

const OWN = 'own badge:'

const badges = useBadges()
const { query, items, kinds, loaded, load, like, taken } = useLibrary<BadgeShown>('badges')

const faces = computed<Face[]>(() =>
  items.value.map(({ key, name, favourite }) => ({
    key,
    name,
    favourite,
    picture: `/api/library/badges/${encodeURIComponent(key)}/picture`,
  })),
)
const own = computed(() => items.value.filter(({ key }) => key.startsWith(OWN)))

/** The parts are moved together. */
function take(key: string): void {
  const { parts } = items.value.find((item) => item.key === key)!
  emit(
    'take',
    parts.map((part) => ({ ...part, group: 1 })),
  )
  void taken(key)
}

async function forget(key: string): Promise<void> {
  await badges.forget(Number(key.slice(OWN.length)))
  await load()
}
</script>

<template>
  <p class="field-label">Ready-made</p>
  <LibraryFilters v-model="query" label="badges" placeholder="sale, gift, handmade …" :kinds="kinds" />
  <LibraryFaces v-if="faces.length" class="badges" label="Badge of several parts" :faces="faces" @choose="take" @like="like" />
  <p v-else-if="loaded" class="none">No badge is like that; try another word or any colour.</p>
  <ul v-if="own.length" aria-label="Saved badges">
    <li v-for="{ key, name } in own" :key="key">
      <span>{{ name }}</span>
      <button type="button" class="link" :aria-label="`Remove “${name}”`" @click="forget(key)">Remove</button>
    </li>
  </ul>
</template>

<style scoped>
/* A whole badge shows, on a middle grey that suits light ones as well as dark ones. */
.badges {
  --face-fit: contain;
}

.badges :deep(.face) {
  padding: 3px;
  background: #b9b8b3;
}

.none {
  color: var(--ink-soft);
  font-size: 12px;
}

li {
  display: flex;
  gap: 8px;
  justify-content: space-between;
  align-items: center;
}

li span {
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
