<script setup lang="ts">
// Bars that stand for lines of words; each as wide as its share, in percent.

defineProps<{ shares: number[] }>()
</script>

<template>
  <span class="bars" aria-hidden="true">
    <i v-for="(share, line) in shares" :key="line" :style="{ width: `${share}%` }"></i>
  </span>
</template>

<style scoped>
.bars {
  display: grid;
  gap: 7px;
  width: 100%;
}

i {
  height: 8px;
  border-radius: 4px;
  background: var(--bar);
}
</style>
