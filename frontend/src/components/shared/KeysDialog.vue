<script setup lang="ts">
import { KEYS } from '../../composables/keys'
import AppDialog from './AppDialog.vue'

const open = defineModel<boolean>({ required: true })
</script>

<template>
  <AppDialog v-model="open" title="Keys" :width="460">
    <table>
      <tbody>
        <tr v-for="key in KEYS" :key="key.keys">
          <th scope="row">{{ key.keys }}</th>
          <td>{{ key.does }}</td>
        </tr>
      </tbody>
    </table>
    <p>Number fields take a comma or a point, %, px, and small sums such as 1080/2.</p>
  </AppDialog>
</template>

<style scoped>
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
  width: 150px;
  font-weight: 600;
  white-space: nowrap;
}

p {
  margin-top: 12px;
  color: var(--ink-soft);
}
</style>
