<script setup lang="ts">
// Scrolled past on a phone that is 390 points wide; a tall picture is a full screen.

import type { Placed } from './places'
import WordBars from './WordBars.vue'

defineProps<Placed>()
</script>

<template>
  <div class="phone">
    <WordBars :shares="[34]" />
    <img :src="source" :alt="name" />
    <WordBars :shares="[92, 60]" />
    <div class="next"></div>
    <WordBars :shares="[80]" />
  </div>
</template>

<style scoped>
.phone {
  display: grid;
  gap: 12px;
  align-content: start;
  justify-self: center;
  width: 390px;
  padding: 18px 0;
  background: var(--leaf);
}

.phone > :not(img, .next) {
  padding: 0 14px;
}

img {
  display: block;
  width: 100%;
}

.next {
  height: 150px;
  background: var(--bar);
}
</style>
