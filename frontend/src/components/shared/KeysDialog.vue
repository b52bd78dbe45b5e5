<script setup lang="ts">
import { ElSwitch } from 'element-plus'

import { shownKeys } from '../../composables/keyNames'
import type { Key } from '../../composables/keyTable'
import { useLetterKeys } from '../../composables/letterKeys'
import AppDialog from './AppDialog.vue'

const open = defineModel<boolean>({ required: true })

const props = defineProps<{ table: Key[] }>()

const letterKeys = useLetterKeys()
const half = Math.ceil(props.table.length / 2)
const columns = [props.table.slice(0, half), props.table.slice(half)]
</script>

<template>
  <AppDialog v-model="open" title="Keys" :width="860">
    <div class="columns">
      <table v-for="(keys, index) in columns" :key="index">
        <tbody>
          <tr v-for="key in keys" :key="key.does">
            <th scope="row">{{ shownKeys(key.keys) }}</th>
            <td>{{ key.does }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <label class="switch">
      <ElSwitch v-model="letterKeys" size="small" aria-label="Keys of a single letter, digit or sign" />
      Keys of a single letter, digit or sign
    </label>
    <p>Number fields take a comma or a point, %, px, and small sums such as 1080/2.</p>
  </AppDialog>
</template>

<style scoped>
.switch {
  display: flex;
  gap: 10px;
  align-items: center;
  margin-top: 14px;
}

.columns {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 26px;
  align-items: start;
}

table {
  width: 100%;
  border-collapse: collapse;
}

th,
td {
  padding: 5px 8px 5px 0;
  border-bottom: 1px dashed var(--rule);
  text-align: left;
}

th {
  width: 120px;
  font-weight: 600;
  white-space: nowrap;
}

p {
  margin-top: 12px;
  color: var(--ink-soft);
}
</style>
