<script setup lang="ts">
import { ref, watch } from 'vue'

import { get } from '../../../api/client'
import type { Exported } from '../../../api/types'
import { sayWhen } from '../../../composables/dates'
import { formatWeight } from '../../../composables/numbers'
import { useBench } from '../../../stores/bench'
import { useNotices } from '../../../stores/notices'
import AppDialog from '../../shared/AppDialog.vue'

const open = defineModel<boolean>({ required: true })
defineEmits<{ download: [exported: Exported] }>()

const bench = useBench()
const notices = useNotices()
const exported = ref<Exported[]>([])

watch(open, async (now) => {
  if (!now || !bench.saved) return
  try {
    exported.value = (await get<{ exports: Exported[] }>(`/finishes/${bench.saved.id}/exports`)).exports
  } catch (error) {
    notices.tell(error)
  }
})

async function openAsItWas(id: number): Promise<void> {
  open.value = false
  await bench.openExport(id)
}
</script>

<template>
  <AppDialog v-model="open" title="Earlier exports" :width="560">
    <p v-if="!exported.length" class="none">Nothing has been exported from this finish yet.</p>
    <ol v-else>
      <li v-for="one in exported" :key="one.id">
        <span class="what">
          <b>{{ one.file_name }}</b>
          <span>
            {{ one.size_name }}, {{ one.width }} × {{ one.height }} px, {{ formatWeight(one.bytes) }},
            {{ sayWhen(one.created_at) }}
          </span>
        </span>
        <button type="button" class="link strong" @click="$emit('download', one)">Download again</button>
        <button type="button" class="link" @click="openAsItWas(one.id)">Open that state</button>
      </li>
    </ol>
  </AppDialog>
</template>

<style scoped>
ol {
  max-height: 50vh;
  overflow: auto;
}

li {
  display: grid;
  grid-template-columns: 1fr auto auto;
  gap: 14px;
  align-items: center;
  padding: 6px 2px;
  border-bottom: 1px dashed var(--rule);
}

.what b,
.what span {
  display: block;
  overflow-wrap: anywhere;
}

.what b {
  font-weight: 600;
}

.what span,
.none {
  color: var(--ink-soft);
  font-size: 12px;
}
</style>
