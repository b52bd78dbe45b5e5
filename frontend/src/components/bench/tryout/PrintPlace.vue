<script setup lang="ts">
// On paper, about as large as it is printed.

import { computed } from 'vue'

import type { Placed } from './places'

const props = defineProps<Placed>()

const MM_PER_INCH = 25.4

const width = computed(() => (props.size.width / props.ppi) * MM_PER_INCH)
</script>

<template>
  <figure>
    <img :src="source" :alt="name" :style="{ width: `${width}mm` }" />
    <figcaption>{{ width.toFixed(0) }} mm wide, about true size on most screens</figcaption>
  </figure>
</template>

<style scoped>
figure {
  display: grid;
  gap: 12px;
  place-content: center;
  margin: 0;
}

img {
  display: block;
  filter: drop-shadow(0 2px 5px rgb(0 0 0 / 35%));
}

figcaption {
  font-size: 12px;
  text-align: center;
}
</style>
