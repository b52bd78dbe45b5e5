<script setup lang="ts">
// The card under a message that shares a link.

import type { Placed } from './places'
import WordBars from './WordBars.vue'

defineProps<Placed>()
</script>

<template>
  <div class="talk">
    <div class="message"><WordBars :shares="[100, 62]" /></div>
    <div class="card" :style="{ width: `${Math.min(size.seen_width, 520)}px` }">
      <img :src="source" :alt="name" />
      <div>
        <b>{{ name }}</b>
        <WordBars :shares="[86, 40]" />
      </div>
    </div>
    <div class="message"><WordBars :shares="[70]" /></div>
  </div>
</template>

<style scoped>
.talk {
  display: grid;
  gap: 12px;
  align-content: start;
  justify-self: center;
  width: min(560px, 100%);
}

.message,
.card {
  border-radius: 10px;
  background: var(--leaf);
  overflow: hidden;
}

.message {
  width: 300px;
  padding: 14px;
}

.card img {
  display: block;
  width: 100%;
}

.card div {
  display: grid;
  gap: 8px;
  padding: 12px 14px 16px;
}

.card b {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
