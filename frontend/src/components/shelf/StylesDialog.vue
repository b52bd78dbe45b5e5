<script setup lang="ts">
// All house styles: what each gives, renewed, saved to a file, brought in, removed.

import { ref } from 'vue'

import { useStyles } from '../../stores/styles'
import AppDialog from '../shared/AppDialog.vue'

const open = defineModel<boolean>({ required: true })
const styles = useStyles()
const picker = ref<HTMLInputElement>()

async function bring(): Promise<void> {
  const file = picker.value?.files?.[0]
  if (file) await styles.addFile(file)
  if (picker.value) picker.value.value = ''
}
</script>

<template>
  <AppDialog v-model="open" title="House styles" :width="620">
    <p v-if="!styles.list.length">
      None yet. Open a finish that looks as your pictures should, click “House style” in its docket, and keep one.
    </p>
    <ul>
      <li v-for="{ style, gives, older_uses } in styles.list" :key="style.id">
        <h3>{{ style.name }} <small v-if="style.id === styles.chosen">for new photos</small></h3>
        <p>{{ gives.join(' · ') }}</p>
        <p class="links">
          <button v-if="older_uses" type="button" class="link strong" @click="styles.renew(style)">
            {{ older_uses === 1 ? 'Renew 1 finish' : `Renew ${older_uses} finishes` }}
          </button>
          <button v-if="style.id !== styles.chosen" type="button" class="link" @click="styles.setDefault(style.id)">
            Start new photos in it
          </button>
          <a class="link" :href="`/api/styles/${style.id}/file`" download>Save as a file</a>
          <button type="button" class="link" @click="styles.forget(style)">Remove</button>
        </p>
      </li>
    </ul>
    <template #footer>
      <input ref="picker" type="file" accept=".zip" class="visually-hidden" tabindex="-1" aria-label="A house style's file" @change="bring" />
      <button type="button" class="action" @click="picker?.click()">Add from a file…</button>
    </template>
  </AppDialog>
</template>

<style scoped>
ul {
  max-height: 52vh;
  overflow: auto;
}

li {
  padding: 8px 0;
  border-bottom: 1px dashed var(--rule);
}

h3 {
  font-size: 15px;
}

h3 small {
  margin-left: 6px;
  color: var(--clover);
  font-size: 12px;
  font-weight: 500;
}

p {
  color: var(--ink-soft);
  font-size: 12px;
}

.links {
  display: flex;
  gap: 16px;
  margin-top: 4px;
}
</style>
