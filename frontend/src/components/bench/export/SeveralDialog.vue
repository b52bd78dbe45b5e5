<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue'

import { Cancelled } from '../../../api/client'
import { downloadFrom } from '../../../composables/downloads'
import { inLanes } from '../../../composables/lanes'
import { formatWeight } from '../../../composables/numbers'
import { saveSize, type SavedSize } from '../../../composables/weighing'
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
const done = ref<Record<string, SavedSize>>({})
const underWay = reactive(new Set<string>())
const isRunning = ref(false)
let stopping = new AbortController()

const sizes = computed(() => bench.draft!.sizes)
const finished = computed(() => sizes.value.flatMap(({ id }) => done.value[id] ?? []))
const total = computed(() => finished.value.reduce((sum, file) => sum + file.bytes, 0))

watch(open, (now) => {
  if (!now) return cancel()
  chosen.value = sizes.value.map(({ id }) => id)
  done.value = {}
})

function state(id: string): string {
  const file = done.value[id]
  if (file) return `${formatWeight(file.bytes)}${file.meetsCap ? '' : ', over the limit'}`
  if (underWay.has(id)) return 'Making the file…'
  return isRunning.value && chosen.value.includes(id) ? 'waiting' : ''
}

async function save(): Promise<void> {
  if (!(await bench.settle()) || !bench.saved) return
  const { signal } = (stopping = new AbortController())
  done.value = {}
  const { id: finish, revision } = bench.saved
  isRunning.value = true
  try {
    await inLanes(inOrder(), async (size_id, lane) => {
      underWay.add(size_id)
      const file = await saveSize({ finish, revision, size_id }, lane, signal).finally(() => underWay.delete(size_id))
      done.value = { ...done.value, [size_id]: file }
    })
    deliver()
  } catch (error) {
    if (!(error instanceof Cancelled)) notices.tell(error)
  } finally {
    isRunning.value = false
  }
}

/** What is chosen, in the order of the sizes. */
function inOrder(): string[] {
  return sizes.value.map(({ id }) => id).filter((id) => chosen.value.includes(id))
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
          {{ Math.min(finished.length + 1, chosen.length) }} of {{ chosen.length }}
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
