<script setup lang="ts">
// One of many small pictures in a list, as wide as people usually see it.

import type { Placed } from './places'
import WordBars from './WordBars.vue'

defineProps<Placed>()

const ROWS = [1, 2, 3, 4, 5, 6]
/** The row that the picture is in, and the widest that a picture of a list is. */
const OURS = 3
const WIDEST = 220
</script>

<template>
  <ul>
    <li v-for="row in ROWS" :key="row">
      <span class="picture" :style="{ width: `${Math.min(size.seen_width, WIDEST)}px`, aspectRatio: size.width / size.height }">
        <img v-if="row === OURS" :src="source" :alt="name" />
      </span>
      <WordBars :shares="row % 2 ? [78, 42] : [60, 36]" />
    </li>
  </ul>
</template>

<style scoped>
ul {
  display: grid;
  gap: 10px;
  align-content: start;
  justify-self: center;
  width: min(620px, 100%);
  padding: 16px;
  background: var(--leaf);
}

li {
  display: flex;
  gap: 14px;
  align-items: center;
}

.picture {
  flex: none;
  background: var(--bar);
}

.picture:has(img) {
  background: none;
}

img {
  display: block;
  width: 100%;
}
</style>
