<script setup lang="ts">
// What a notice says, with a cross that the keyboard reaches too.
defineProps<{ text: string }>()
const emit = defineEmits<{ close: [] }>()

let before: EventTarget | null = null

function arrive(event: FocusEvent): void {
  before = event.relatedTarget
}

/** Whoever closes a notice goes on where they were. */
function close(): void {
  emit('close')
  if (before instanceof HTMLElement) before.focus()
}
</script>

<template>
  <p class="el-message__content">{{ text }}</p>
  <button type="button" class="close" aria-label="Close" @focus="arrive" @click="close">×</button>
</template>

<style scoped>
.close {
  flex: none;
  width: 24px;
  height: 24px;
  margin: -4px -6px -4px auto;
  border: 0;
  background: none;
  color: var(--ink-soft);
  font: inherit;
  font-size: 17px;
  line-height: 1;
  cursor: pointer;
}

.close:hover {
  color: var(--ink);
}
</style>
