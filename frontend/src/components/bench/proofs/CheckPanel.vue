<script setup lang="ts">
import { watchDebounced } from '@vueuse/core'

import { useBench } from '../../../stores/bench'
import { useChecks } from '../../../stores/checks'

/** Checks wait until the stage has been idle this long. */
const IDLE_MS = 120

const bench = useBench()
const checks = useChecks()

watchDebounced(
  () => [bench.stageDrawn, bench.document],
  () => {
    if (bench.document) checks.measure(bench.document)
  },
  { debounce: IDLE_MS, immediate: true },
)
</script>

<template>
  <section aria-live="polite">
    <h2>Checks</h2>
    <ul>
      <li v-for="check in checks.found" :key="check.key">
        <i class="light" :class="{ look: check.light === 'look' }"></i>
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

.light {
  margin-top: 4px;
}

.link {
  text-align: left;
}
</style>
