<script setup lang="ts">
// The head of a page, with a menu above and a title that lies over it.

import type { Placed } from './places'
import WordBars from './WordBars.vue'

defineProps<Placed>()
</script>

<template>
  <div class="page">
    <nav aria-hidden="true"><i></i><i></i><i></i></nav>
    <div class="head">
      <img :src="source" :alt="name" />
      <b>{{ name }}</b>
    </div>
    <WordBars :shares="[96, 90, 94, 55]" />
  </div>
</template>

<style scoped>
.page {
  display: grid;
  gap: 16px;
  align-content: start;
  width: 100%;
  padding-bottom: 24px;
  background: var(--leaf);
}

nav {
  display: flex;
  gap: 22px;
  justify-content: flex-end;
  padding: 14px 24px 0;
}

nav i {
  width: 62px;
  height: 8px;
  border-radius: 4px;
  background: var(--bar);
}

.head {
  position: relative;
}

img {
  display: block;
  width: 100%;
}

b {
  position: absolute;
  bottom: 14px;
  left: 24px;
  padding: 4px 10px;
  background: var(--leaf);
  font-size: 20px;
}

.page > .bars {
  padding: 0 24px;
}
</style>
