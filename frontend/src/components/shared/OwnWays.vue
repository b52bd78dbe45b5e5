<script setup lang="ts">
// Whether changes go to this size only, and what it does in its own way already.

import { computed } from 'vue'

import { useBench } from '../../stores/bench'

const props = defineProps<{
  step: 'turn' | 'tone' | 'border' | 'pieces' | 'watermark' | 'export'
  /** Without what differs, which is said elsewhere. */
  short?: boolean
}>()

const bench = useBench()
const hasOthers = computed(() => bench.document!.sizes.length > 1)
const differs = computed(() => bench.here!.differs.filter(({ step }) => step === props.step))
const fields = computed(() => [...new Set(differs.value.flatMap((one) => one.fields))])
</script>

<template>
  <template v-if="hasOthers">
    <label class="tick own">
      <input v-model="bench.onlyThisSize" type="checkbox" />
      Change only this size
    </label>
    <p v-if="fields.length && !short" class="differs">
      Here of its own: {{ fields.join(', ') }}.
      <button type="button" class="link" @click="bench.edit({ kind: 'follow', step })">follow the others</button>
    </p>
  </template>
</template>

<style scoped>
.own {
  margin-top: 10px;
}

.differs {
  margin-top: 3px;
  color: var(--ink-soft);
  font-size: 12px;
}
</style>
