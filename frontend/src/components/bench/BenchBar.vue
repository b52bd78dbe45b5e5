<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'

import { explain, vTip } from '../../composables/explanations'
import { useBench } from '../../stores/bench'
import { useNotices } from '../../stores/notices'
import { useSheet } from '../../stores/sheet'
import TopBar from '../shared/TopBar.vue'
import HistoryDialog from './HistoryDialog.vue'
import VersionDialog from './VersionDialog.vue'

defineEmits<{ 'show-keys': [] }>()

const bench = useBench()
const notices = useNotices()
const sheet = useSheet()
const router = useRouter()
const name = ref('')
const showHistory = ref(false)
const showVersion = ref(false)

const state = computed(() => {
  if (notices.unreachable && bench.isDirty) return 'not saved yet'
  if (bench.isUnsaved) return 'saving…'
  const changes = bench.saved?.changes ?? 1
  return changes === 1 ? 'saved · no changes yet' : `saved · change ${changes - 1}`
})

watch(
  () => bench.document?.name,
  (now) => (name.value = now ?? ''),
  { immediate: true },
)

function rename(): void {
  const wished = name.value.trim()
  if (!wished) name.value = bench.document?.name ?? ''
  else if (wished !== bench.document?.name) void bench.edit({ kind: 'rename', name: wished })
}

async function toShelf(): Promise<void> {
  if ((await bench.settle()) || !bench.stale) await router.push({ name: 'shelf' })
}

async function toSheet(): Promise<void> {
  if ((await bench.settle()) || !bench.stale) await router.push({ name: 'sheet', query: { of: sheet.ids.join(',') } })
}
</script>

<template>
  <TopBar>
    <button type="button" class="edged" @click="toShelf">Shelf</button>
    <button v-if="bench.saved && sheet.ids.includes(bench.saved.id)" type="button" class="edged" @click="toSheet">
      Contact sheet
    </button>
    <template v-if="bench.saved">
      <input
        v-model="name"
        class="name"
        aria-label="Name of this finish"
        maxlength="120"
        :size="Math.max(8, Math.min(28, name.length))"
        spellcheck="false"
        @blur="rename"
        @keydown.enter="($event.target as HTMLInputElement).blur()"
        @keydown.escape.stop="name = bench.document?.name ?? ''"
      />
      <button v-tip="explain('Changes')" type="button" class="state" @click="showHistory = true">
        <span aria-live="polite">{{ state }}</span>
      </button>
      <span class="spring"></span>
      <button v-tip="explain('Undo')" type="button" :disabled="!bench.saved.can_undo && !bench.isDirty" @click="bench.undo">
        Undo
      </button>
      <button v-tip="explain('Redo')" type="button" :disabled="!bench.saved.can_redo" @click="bench.redo">Redo</button>
      <button v-tip="explain('Keep a version')" type="button" class="edged" @click="showVersion = true">Keep a version</button>
      <button v-tip="explain('Keys')" type="button" aria-label="Keys" @click="$emit('show-keys')">?</button>
      <button type="button" class="key" @click="bench.openStep = 'export'">Export…</button>
    </template>
  </TopBar>
  <HistoryDialog v-model="showHistory" />
  <VersionDialog v-model="showVersion" />
</template>

<style scoped>
.name {
  min-width: 0;
  padding: 4px 6px;
  border: 1px solid transparent;
  border-radius: 4px;
  background: none;
  color: var(--cream);
  font-weight: 500;
  text-overflow: ellipsis;
}

.name:hover {
  border-color: #6b7a7f;
}

.top .state {
  padding: 5px 6px;
  color: #a9b8b6;
  font-size: 12px;
  font-weight: 400;
}
</style>
