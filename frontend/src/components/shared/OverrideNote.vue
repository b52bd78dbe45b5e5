<script setup lang="ts">
// Whether changes go to this size only, and what is different on it already.

import { computed } from 'vue'

import type { Edit } from '../../api/types'
import { useBench } from '../../stores/bench'

const props = defineProps<{
  step: Extract<Edit, { kind: 'follow' }>['step']
  /** Without what is different, which is said elsewhere. */
  short?: boolean
}>()

const bench = useBench()
const hasOthers = computed(() => bench.document!.sizes.length > 1)
const overrides = computed(() => bench.here!.overrides.filter(({ step }) => step === props.step))
const fields = computed(() => [...new Set(overrides.value.flatMap((one) => one.fields))])
</script>

<template>
  <template v-if="hasOthers">
    <label class="tick">
      <input v-model="bench.onlyThisSize" type="checkbox" />
      Change only this size
    </label>
    <p v-if="fields.length && !short" class="overrides">
      Different on this size: {{ fields.join(', ') }}.
      <button type="button" class="link" @click="bench.edit({ kind: 'follow', step })">use the shared setting</button>
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
