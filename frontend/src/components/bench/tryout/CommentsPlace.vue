<script setup lang="ts">
// Small and round beside a name, among others, at three usual widths.

import type { Placed } from './places'
import WordBars from './WordBars.vue'

defineProps<Placed>()

const ROWS = [
  { side: 40, ours: false },
  { side: 40, ours: true },
  { side: 40, ours: false },
  { side: 28, ours: true },
  { side: 28, ours: false },
]
</script>

<template>
  <div class="thread">
    <div class="head">
      <img :src="source" :alt="name" style="width: 96px; height: 96px" />
      <b>{{ name }}</b>
    </div>
    <div v-for="({ side, ours }, row) in ROWS" :key="row" class="row" :class="{ answer: side < 40 }">
      <img v-if="ours" :src="source" :alt="name" :style="{ width: `${side}px`, height: `${side}px` }" />
      <i v-else :style="{ width: `${side}px`, height: `${side}px` }"></i>
      <WordBars :shares="ours ? [30, 88] : [24, 70, 40]" />
    </div>
  </div>
</template>

<style scoped>
.thread {
  display: grid;
  gap: 18px;
  align-content: start;
  justify-self: center;
  width: min(560px, 100%);
  padding: 20px;
  background: var(--leaf);
}

.head,
.row {
  display: flex;
  gap: 12px;
  align-items: center;
}

.head b {
  font-size: 17px;
}

.answer {
  padding-left: 52px;
}

img,
i {
  flex: none;
  border-radius: 50%;
  object-fit: cover;
}

i {
  background: var(--bar);
}
</style>
