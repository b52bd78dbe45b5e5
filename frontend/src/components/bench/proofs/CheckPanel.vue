<script setup lang="ts">
import { ref, watch } from 'vue'

import type { Edit } from '../../../api/types'
import { whenStageRests } from '../../../composables/stageRest'
import { useBench } from '../../../stores/bench'
import { useChecks } from '../../../stores/checks'

const IDLE_MS = 120

const bench = useBench()
const checks = useChecks()

/** The same edit for every size, where it was for one and there are others. */
function forAll(edit: Edit): Edit | null {
  const isOwn = 'only_this_size' in edit && edit.only_this_size
  return isOwn && bench.document!.sizes.length > 1 ? { ...edit, only_this_size: false } : null
}

/** Screen readers are told of warnings that are new, not of all that stand there still. */
const told = ref('')
watch(
  () => checks.found.filter(({ severity }) => severity === 'warning').map(({ text }) => text),
  (now, before) => {
    const fresh = now.filter((text) => !before.includes(text))
    told.value = fresh.map((text) => `Warning: ${text}`).join(' ')
  },
)

whenStageRests(() => bench.draft?.draft, checks.measure, IDLE_MS)
</script>

<template>
  <section>
    <h2>Checks</h2>
    <p class="visually-hidden" role="status">{{ told }}</p>
    <ul>
      <li v-for="check in checks.found" :key="check.text">
        <i class="check-light" :class="{ look: check.severity === 'warning' }"></i>
        <span>
          {{ check.text }}
          <button
            v-if="check.action"
            type="button"
            class="link strong"
            @click="bench.edit(check.action.edit)"
          >
            {{ check.action.label }}
          </button>
          <button
            v-if="check.action && forAll(check.action.edit)"
            type="button"
            class="link"
            @click="bench.edit(forAll(check.action.edit)!)"
          >
            in all sizes
          </button>
        </span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
section {
  margin-top: 10px;
  padding-top: 10px;
  border-top: 2px solid var(--ink);
}

h2 {
  margin-bottom: 9px;
  font-size: 16px;
  font-weight: 700;
}

li {
  display: grid;
  grid-template-columns: 14px 1fr;
  gap: 6px;
  margin-bottom: 8px;
  font-size: 12px;
}

.check-light {
  margin-top: 4px;
}

.link {
  margin-right: 8px;
  text-align: left;
}
</style>
