<script setup lang="ts">
// Which house style new photos start in.

import { onMounted, ref } from 'vue'

import { useStyles } from '../../stores/styles'
import StylesDialog from './StylesDialog.vue'

const styles = useStyles()
const open = ref(false)

onMounted(styles.load)

function choose(event: Event): void {
  void styles.setDefault((event.target as HTMLSelectElement).value || null)
}
</script>

<template>
  <section v-if="styles.loaded" aria-label="House style">
    <label>
      <span class="field-label">New photos start in</span>
      <select class="text-field" :value="styles.chosen ?? ''" :disabled="!styles.list.length" @change="choose">
        <option value="">no house style</option>
        <option v-for="{ style } in styles.list" :key="style.id" :value="style.id">{{ style.name }}</option>
      </select>
    </label>
    <button type="button" class="link" @click="open = true">House styles…</button>
    <StylesDialog v-model="open" />
  </section>
</template>

<style scoped>
section {
  margin: 14px 0;
}

select {
  width: 100%;
  margin: 3px 0 4px;
}
</style>
