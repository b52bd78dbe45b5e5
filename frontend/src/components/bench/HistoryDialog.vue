<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import { get } from '../../api/client'
import type { Revision } from '../../api/types'
import { sayWhen } from '../../composables/dates'
import { useBench } from '../../stores/bench'
import { useNotices } from '../../stores/notices'
import ChoiceChips from '../shared/ChoiceChips.vue'
import AppDialog from '../shared/AppDialog.vue'

const open = defineModel<boolean>({ required: true })
const bench = useBench()
const notices = useNotices()
const revisions = ref<Revision[]>([])
const show = ref<'versions' | 'all'>('all')

const shown = computed(() =>
  revisions.value.filter((revision) => show.value === 'all' || revision.version_name),
)

watch(open, async (now) => {
  if (!now || !bench.saved) return
  try {
    await bench.settle()
    const answer = await get<{ revisions: Revision[] }>(`/finishes/${bench.saved.id}/revisions`)
    revisions.value = answer.revisions
    show.value = answer.revisions.some((revision) => revision.version_name) ? 'versions' : 'all'
  } catch (error) {
    notices.tell(error)
  }
})

async function reopen(revision: Revision): Promise<void> {
  open.value = false
  await bench.reopen(revision.id)
}

async function toOriginal(): Promise<void> {
  open.value = false
  await bench.backToOriginal()
}
</script>

<template>
  <AppDialog v-model="open" title="Versions and changes" :width="520">
    <div class="head">
      <ChoiceChips
        label="What to show"
        :choices="[
          { key: 'versions', label: 'kept versions' },
          { key: 'all', label: 'every change' },
        ]"
        :chosen="show"
        @choose="(key) => (show = key)"
      />
      <button type="button" class="action" @click="toOriginal">Back to the original</button>
    </div>
    <p v-if="!shown.length" class="none">No versions yet. “Keep a version” saves the finish as it is now under a name.</p>
    <ol v-else>
      <li v-for="revision in shown" :key="revision.id" :class="{ now: revision.id === bench.saved?.revision }">
        <span class="what">
          <b v-if="revision.version_name">{{ revision.version_name }}</b>
          <span>{{ revision.label }}</span>
        </span>
        <span class="when">{{ sayWhen(revision.created_at) }}</span>
        <span v-if="revision.id === bench.saved?.revision" class="when">now</span>
        <button v-else type="button" class="link strong" @click="reopen(revision)">
          Open<span class="visually-hidden"> {{ revision.version_name ?? revision.label }}</span>
        </button>
      </li>
    </ol>
  </AppDialog>
</template>

<style scoped>
.head {
  display: flex;
  justify-content: space-between;
  margin-bottom: 10px;
}

ol {
  max-height: 50vh;
  overflow: auto;
}

li {
  display: grid;
  grid-template-columns: 1fr auto 44px;
  gap: 12px;
  align-items: center;
  padding: 5px 2px;
  border-bottom: 1px dashed var(--rule);
}

.what b,
.what span {
  display: block;
  overflow-wrap: anywhere;
}

.what b + span,
.when,
.none {
  color: var(--ink-soft);
  font-size: 12px;
}
</style>
