<script setup lang="ts">
// Whether changes go to this size only, and what is different on it already.

import { computed } from 'vue'

import type { Edit } from '../../api/types'
import { useBench } from '../../stores/bench'
import TickBox from './TickBox.vue'

type Step = Extract<Edit, { kind: 'follow' }>['step']

const props = defineProps<{
  /** What it is about. */
  steps: Step[]
  /** Without what is different, which is said elsewhere. */
  short?: boolean
}>()

const bench = useBench()
const hasOthers = computed(() => bench.document!.sizes.length > 1)
const overrides = computed(() => bench.here!.overrides.filter(({ step }) => props.steps.includes(step as Step)))
const fields = computed(() => [...new Set(overrides.value.flatMap((one) => one.fields))])

function follow(): void {
  for (const step of new Set(overrides.value.map((one) => one.step as Step))) void bench.edit({ kind: 'follow', step })
}
</script>

<template>
  <template v-if="hasOthers">
    <TickBox v-model:checked="bench.onlyThisSize" label="Change only this size" />
    <p v-if="fields.length && !short" class="overrides">
      Different on this size: {{ fields.join(', ') }}.
      <button type="button" class="link" @click="follow">Use the shared setting</button>
    </p>
  </template>
</template>

<style scoped>
.tick {
  margin-top: 10px;
}

.overrides {
  margin-top: 3px;
  color: var(--ink-soft);
  font-size: 12px;
}
</style>
