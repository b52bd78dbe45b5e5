<script setup lang="ts">
// Naming what is kept for other finishes.

import { ref } from 'vue'

defineProps<{ label: string; example: string }>()
const emit = defineEmits<{ keep: [name: string] }>()

const name = ref('')

function keep(): void {
  const wished = name.value.trim()
  if (wished) emit('keep', wished)
}
</script>

<template>
  <form @submit.prevent="keep">
    <input v-model="name" class="text-field" maxlength="120" :aria-label="label" :placeholder="example" />
    <button type="submit" class="action" :disabled="!name.trim()">Save</button>
  </form>
</template>

<style scoped>
form {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 6px;
  margin-top: 8px;
}
</style>
