<script setup lang="ts">
// The families, each showing the user's own words; hovering tries one on the picture.

import { computed, ref } from 'vue'

import type { FontList, TextPiece } from '../../../api/types'

const props = defineProps<{ fonts: FontList['fonts']; piece: TextPiece }>()
const emit = defineEmits<{
  choose: [key: TextPiece['family']]
  hover: [key: TextPiece['family'] | null]
}>()

const open = ref(false)
const chosen = computed(() => props.fonts.find(({ key }) => key === props.piece.family))
const words = computed(() => props.piece.text.trim().split('\n')[0]!.slice(0, 40) || 'Pebblewick')

function sample(key: string): string {
  const { weight } = props.piece
  return `/api/fonts/${key}/sample?${new URLSearchParams({ words: words.value, weight: String(weight) })}`
}

function choose(key: TextPiece['family']): void {
  open.value = false
  emit('choose', key)
}
</script>

<template>
  <button type="button" class="action family" :aria-expanded="open" @click="open = !open">
    <span>Font: {{ chosen?.name ?? '…' }}</span>
    <span aria-hidden="true">{{ open ? '▴' : '▾' }}</span>
  </button>
  <ul v-if="open" aria-label="Fonts">
    <li v-for="{ key, name, kind } in fonts" :key="key">
      <button
        type="button"
        :class="{ on: key === piece.family }"
        :aria-pressed="key === piece.family"
        :aria-label="`${name}, ${kind}`"
        @click="choose(key)"
        @pointerenter="emit('hover', key)"
        @pointerleave="emit('hover', null)"
        @focus="emit('hover', key)"
        @blur="emit('hover', null)"
      >
        <img :src="sample(key)" alt="" loading="lazy" />
        <span>{{ name }}</span>
      </button>
    </li>
  </ul>
</template>

<style scoped>
.family {
  display: flex;
  justify-content: space-between;
  width: 100%;
  margin-top: 7px;
}

ul {
  max-height: 250px;
  margin-top: 4px;
  border: 1px solid var(--edge);
  border-radius: 4px;
  background: #ffffff;
  overflow-y: auto;
}

button:not(.family) {
  display: flex;
  gap: 8px;
  justify-content: space-between;
  align-items: center;
  width: 100%;
  height: 34px;
  padding: 2px 8px;
  border: 0;
  background: none;
  font-size: 11px;
}

button:not(.family):hover,
button:not(.family):focus-visible {
  background: var(--paper);
}

button.on {
  box-shadow: inset 3px 0 0 var(--clover);
}

img {
  height: 28px;
  max-width: 160px;
  object-fit: contain;
  object-position: left;
}

li span {
  flex: none;
  color: var(--ink-soft);
}
</style>
