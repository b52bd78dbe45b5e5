<script setup lang="ts">
// Looking after the shelf: what room it takes, backing up and restoring, checking, thinning out.

import { computed, ref, watch } from 'vue'

import { get } from '../../api/client'
import type { DiskUse } from '../../api/types'
import { formatNumber, formatWeight } from '../../composables/numbers'
import { useNotices } from '../../stores/notices'
import { useShelf } from '../../stores/shelf'
import AppDialog from '../shared/AppDialog.vue'
import CheckSection from './CheckSection.vue'
import ThinSection from './ThinSection.vue'

const open = defineModel<boolean>({ required: true })

const notices = useNotices()
const shelf = useShelf()
const use = ref<DiskUse | null>(null)
const picker = ref<HTMLInputElement>()

const rows = computed(() => [
  { label: 'Photos', part: use.value?.photos },
  { label: 'Saved files', part: use.value?.files },
  { label: 'Cut-outs', part: use.value?.cut_outs },
  { label: 'Changes of all finishes', part: use.value?.changes },
  { label: 'Daily copies of those', part: use.value?.snapshots },
  { label: 'Previews, made again when needed', part: use.value?.previews },
])

watch(open, (now) => now && load())

async function load(): Promise<void> {
  try {
    use.value = await get<DiskUse>('/shelf/disk-use')
  } catch (error) {
    notices.tell(error)
  }
}

async function backUp(): Promise<void> {
  open.value = false
  await shelf.backUp()
}

async function restore(): Promise<void> {
  const file = picker.value?.files?.[0]
  if (picker.value) picker.value.value = ''
  if (!file) return
  open.value = false
  await shelf.restoreBackup(file)
}
</script>

<template>
  <AppDialog v-model="open" title="Look after the shelf" :width="620" :asks="false">
    <section class="upkeep">
      <h3>Room on the disk</h3>
      <table>
        <tbody>
          <tr v-for="{ label, part } in rows" :key="label">
            <th scope="row">{{ label }}</th>
            <td>{{ part ? formatNumber(part.count) : '…' }}</td>
            <td>{{ part ? formatWeight(part.bytes) : '…' }}</td>
          </tr>
        </tbody>
      </table>
    </section>
    <section class="upkeep">
      <h3>Backup</h3>
      <p>One archive with every photo, finish, font and saved file, each with its checksum.</p>
      <div class="actions">
        <button type="button" class="action" @click="backUp">Back up</button>
        <button type="button" class="action" @click="picker?.click()">Restore a backup…</button>
        <input ref="picker" type="file" accept=".zip" class="visually-hidden" tabindex="-1" aria-label="A backup" @change="restore" />
        <span>An empty shelf can be filled from a backup.</span>
      </div>
    </section>
    <CheckSection @done="load" />
    <ThinSection @done="load" />
  </AppDialog>
</template>

<style src="./upkeep.css"></style>
<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
}

th {
  font-weight: 400;
  text-align: left;
}

td {
  text-align: right;
}
</style>
