<script setup lang="ts">
// One height and one line for all subjects that are cut out.

import { ref } from 'vue'

import { useSheet } from '../../stores/sheet'
import AppDialog from '../shared/AppDialog.vue'
import SliderRow from '../shared/SliderRow.vue'

const open = defineModel<boolean>({ required: true })
const sheet = useSheet()
/** Percent of a picture's height; the line is counted from its top. */
const height = ref(70)
const line = ref(88)

function place(): void {
  open.value = false
  void sheet.standAlike(height.value / 100, line.value / 100)
}
</script>

<template>
  <AppDialog v-model="open" title="Same size in every picture" :width="460">
    <p>Every subject that is cut out is made as high, and stands on the same line, in all of its sizes.</p>
    <SliderRow label="Height" unit="%" :value="height" :min="10" :max="100" @move="(value) => (height = value)" @change="(value) => (height = value)" />
    <SliderRow label="Line" unit="%" :value="line" :min="10" :max="100" @move="(value) => (line = value)" @change="(value) => (line = value)" />
    <template #footer>
      <button type="button" class="action" @click="open = false">Cancel</button>
      <button type="button" class="action key" @click="place">
        {{ sheet.cutOut.length === 1 ? 'Place 1 subject' : `Place ${sheet.cutOut.length} subjects` }}
      </button>
    </template>
  </AppDialog>
</template>

<style scoped>
p {
  margin-bottom: 12px;
  color: var(--ink-soft);
}

.action {
  margin-left: 8px;
}
</style>
