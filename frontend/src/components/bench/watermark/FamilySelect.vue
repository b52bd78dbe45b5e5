<script setup lang="ts">
// A family and one of its weights, as plain lists.

import { computed, onMounted, shallowRef } from 'vue'

import { get } from '../../../api/client'
import type { FontList, TextPiece } from '../../../api/types'
import { useNotices } from '../../../stores/notices'

const family = defineModel<TextPiece['family']>('family', { required: true })
const weight = defineModel<number>('weight', { required: true })

const WEIGHTS: Record<number, string> = { 400: 'regular', 700: 'bold', 900: 'heavy' }

const notices = useNotices()
const fonts = shallowRef<FontList['fonts']>([])
const weights = computed(() => fonts.value.find(({ key }) => key === family.value)?.weights ?? [])

onMounted(async () => {
  try {
    fonts.value = (await get<FontList>('/fonts')).fonts
  } catch (error) {
    notices.tell(error)
  }
})
</script>

<template>
  <div class="row">
    <label>
      <span class="visually-hidden">Font</span>
      <select v-model="family" class="text-field">
        <option v-for="{ key, name } in fonts" :key="key" :value="key">{{ name }}</option>
      </select>
    </label>
    <label>
      <span class="visually-hidden">Weight</span>
      <select v-model.number="weight" class="text-field">
        <option v-for="one in weights" :key="one" :value="one">{{ WEIGHTS[one] ?? one }}</option>
      </select>
    </label>
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 1fr 100px;
  gap: 6px;
}
</style>
