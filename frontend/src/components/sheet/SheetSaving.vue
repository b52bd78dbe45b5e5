<script setup lang="ts">
// Saving all that is on the sheet: how far it is, paused, gone on with, called off.

import { useSheet } from '../../stores/sheet'

const sheet = useSheet()
</script>

<template>
  <div class="saving">
    <template v-if="sheet.state !== 'idle'">
      <span aria-live="polite">{{ sheet.saved }} of {{ sheet.pictureCount }}</span>
      <progress :value="sheet.saved" :max="sheet.pictureCount" aria-label="Saved"></progress>
      <button v-if="sheet.state === 'saving'" type="button" class="action" @click="sheet.pause">Pause</button>
      <button v-else type="button" class="action key" @click="sheet.resume">Go on</button>
      <button type="button" class="action" @click="sheet.cancel">Cancel</button>
    </template>
    <button v-else type="button" class="action key" :disabled="!sheet.pictureCount" @click="sheet.saveAll">
      Save all as one zip
    </button>
  </div>
</template>

<style scoped>
.saving {
  display: flex;
  gap: 10px;
  align-items: center;
  margin-left: auto;
}
</style>
