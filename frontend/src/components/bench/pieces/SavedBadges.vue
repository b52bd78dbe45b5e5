<script setup lang="ts">
// Badges that were saved, to be put on this picture.

import { onMounted } from 'vue'

import type { Piece } from '../../../api/types'
import { useBadges } from '../../../stores/badges'

const emit = defineEmits<{ take: [parts: Piece[]] }>()

const badges = useBadges()

onMounted(badges.load)

/** They are moved together. */
const grouped = (parts: Piece[]): Piece[] => parts.map((part) => ({ ...part, group: 1 }))
</script>

<template>
  <template v-if="badges.kept.length">
    <p class="field-label">Saved</p>
    <ul>
      <li v-for="badge in badges.kept" :key="badge.id">
        <button type="button" class="action" @click="emit('take', grouped(badge.parts))">{{ badge.name }}</button>
        <button type="button" class="link" :aria-label="`Remove “${badge.name}”`" @click="badges.forget(badge)">Remove</button>
      </li>
    </ul>
  </template>
</template>

<style scoped>
ul {
  display: grid;
  gap: 4px;
}

li {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  align-items: center;
}

.action {
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
