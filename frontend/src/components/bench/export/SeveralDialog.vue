<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import { post } from '../../../api/client'
import type { Exported } from '../../../api/types'
import { downloadFrom } from '../../../composables/downloads'
import { formatWeight } from '../../../composables/numbers'
import { Cancelled } from '../../../api/client'
import { weigh } from '../../../composables/weighing'
import { useBench } from '../../../stores/bench'
import { useChecks } from '../../../stores/checks'
import { useNotices } from '../../../stores/notices'
import AppDialog from '../../shared/AppDialog.vue'
import ChoiceChips from '../../shared/ChoiceChips.vue'

const open = defineModel<boolean>({ required: true })

const bench = useBench()
const checks = useChecks()
const notices = useNotices()
const chosen = ref<string[]>([])
const packing = ref<'zip' | 'pdf' | 'files'>('zip')
const done = ref<Record<string, Exported & { met: boolean }>>({})
const underWay = ref('')
let stopping = new AbortController()

const sizes = computed(() => bench.draft!.sizes)
const isRunning = computed(() => underWay.value !== '')
const finished = computed(() => Object.values(done.value))
const total = computed(() => finished.value.reduce((sum, file) => sum + file.bytes, 0))

watch(open, (now) => {
  if (!now) return cancel()
  chosen.value = sizes.value.map(({ id }) => id)
  done.value = {}
})

function state(id: string): string {
  const file = done.value[id]
  if (file) return `${formatWeight(file.bytes)}${file.met ? '' : ', over the limit'}`
  if (underWay.value === id) return 'Making the file…'
  return isRunning.value && chosen.value.includes(id) ? 'waiting' : ''
}

async function save(): Promise<void> {
  if (!(await bench.settle()) || !bench.saved) return
  const { signal } = (stopping = new AbortController())
  done.value = {}
  const { id: finish, revision } = bench.saved
  try {
    for (const { id: size_id } of sizes.value.filter(({ id }) => chosen.value.includes(id))) {
      if (signal.aborted) return
      underWay.value = size_id
      const weighed = await weigh({ finish, revision, size_id, view: 'several' }, { signal })
      const wanted = { revision, size_id, sha256: weighed.sha256 }
      const file = await post<Exported>(`/finishes/${finish}/exports`, wanted)
      done.value = { ...done.value, [size_id]: { ...file, met: weighed.meets_cap } }
    }
    deliver()
  } catch (error) {
    if (!(error instanceof Cancelled)) notices.tell(error)
  } finally {
    underWay.value = ''
  }
}

function deliver(): void {
  if (packing.value === 'files') {
    for (const { id, file_name } of finished.value) downloadFrom(`/api/exports/${id}/file`, file_name)
  } else if (finished.value.length) {
    const ids = finished.value.map(({ id }) => `ids=${id}`).join('&')
    downloadFrom(`/api/exports/${packing.value}?${ids}`, `finish.${packing.value}`)
  }
}

function cancel(): void {
  stopping.abort()
}
</script>

<template>
  <AppDialog v-model="open" title="Save several sizes" :width="620">
    <ul>
      <li v-for="size in sizes" :key="size.id">
        <label class="tick">
          <input v-model="chosen" type="checkbox" :value="size.id" :disabled="isRunning" />
          <span>
            <b>{{ size.name }}</b>
            {{ done[size.id]?.file_name ?? '' }}
          </span>
        </label>
        <span>{{ size.width }} × {{ size.height }} px</span>
        <span class="looks">
          <template v-if="checks.looks(size.id)">
            <i class="check-light look"></i>{{ checks.looks(size.id) }} {{ checks.looks(size.id) === 1 ? 'warning' : 'warnings' }}
          </template>
        </span>
        <span class="state" aria-live="polite">{{ state(size.id) }}</span>
      </li>
    </ul>
    <div class="packing">
      <ChoiceChips
        label="Save as"
        :choices="[
          { key: 'zip', label: 'one zip' },
          { key: 'pdf', label: 'pages of one PDF' },
          { key: 'files', label: 'single files' },
        ]"
        :chosen="packing"
        @choose="(key) => (packing = key)"
      />
      <p aria-live="polite">
        <template v-if="finished.length && !isRunning">
          {{ finished.length }} {{ finished.length === 1 ? 'file' : 'files' }}, {{ formatWeight(total) }} together.
        </template>
        <template v-else-if="isRunning">
          {{ finished.length + 1 }} of {{ chosen.length }}
          <progress :value="finished.length" :max="chosen.length"></progress>
        </template>
      </p>
    </div>
    <template #footer>
      <button v-if="isRunning" type="button" class="action" @click="cancel">Cancel</button>
      <button v-else type="button" class="action" @click="open = false">Close</button>
      <button type="button" class="action key" :disabled="isRunning || !chosen.length" @click="save">
        {{ chosen.length === 1 ? 'Save 1 size' : `Save ${chosen.length} sizes` }}
      </button>
    </template>
  </AppDialog>
</template>

<style scoped>
ul {
  max-height: 46vh;
  overflow: auto;
}

li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 100px 96px 110px;
  gap: 8px;
  align-items: center;
  min-height: 34px;
  border-bottom: 1px dashed var(--rule);
  font-size: 12px;
}

.tick {
  margin: 0;
}

.tick span {
  min-width: 0;
  overflow-wrap: anywhere;
}

b {
  display: block;
  font-size: 13px;
  font-weight: 600;
}

.state {
  text-align: right;
}

.check-light {
  margin-right: 5px;
}

.packing {
  display: flex;
  justify-content: space-between;
  align-items: center;
  min-height: 34px;
  margin-top: 10px;
}

progress {
  width: 120px;
}

.action {
  margin-left: 8px;
}
</style>
