<script setup lang="ts">
// A font and one of its weights, as plain lists.

import { computed, onMounted } from 'vue'

import type { TextPiece } from '../../api/types'
import { useFonts } from '../../stores/fonts'

const family = defineModel<TextPiece['family']>('family', { required: true })
const weight = defineModel<number>('weight', { required: true })

const WEIGHTS: Record<number, string> = { 400: 'regular', 700: 'bold', 900: 'heavy' }

const fonts = useFonts()
const chosen = computed(() => fonts.named(family.value))

onMounted(fonts.load)
</script>

<template>
  <div class="row">
    <select v-model="family" class="text-field" aria-label="Font">
      <option v-if="!chosen" :value="family">not on this list</option>
      <option v-for="{ key, name } in fonts.fonts" :key="key" :value="key">{{ name }}</option>
    </select>
    <select v-if="(chosen?.weights.length ?? 0) > 1" v-model.number="weight" class="text-field" aria-label="Weight">
      <option v-for="one in chosen!.weights" :key="one" :value="one">{{ WEIGHTS[one] ?? one }}</option>
    </select>
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 1fr 100px;
  gap: 6px;
  margin-top: 6px;
}
</style>
