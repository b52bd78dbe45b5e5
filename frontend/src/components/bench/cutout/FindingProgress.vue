<script setup lang="ts">
defineProps<{
  /** How much of the finding is done, 0 to 1. */
  share: number
}>()
</script>

<template>
  <p class="finding" role="status">
    Finding the subject
    <progress :value="share" max="1"></progress>
    <slot></slot>
  </p>
</template>

<style scoped>
.finding {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-top: 7px;
  color: var(--ink-soft);
  font-size: 12px;
}

progress {
  flex: 1;
  min-width: 0;
}
</style>
