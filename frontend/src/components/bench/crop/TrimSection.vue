<script setup lang="ts">
import { onScopeDispose, ref, watch } from 'vue'

import type { Edit, Proposal } from '../../../api/types'
import { useBench } from '../../../stores/bench'
import { useLatest } from '../../../composables/latest'
import { useNotices } from '../../../stores/notices'
import { useStage } from '../../../stores/stage'
import SliderRow from '../../shared/SliderRow.vue'

/** In 8-bit steps; white paper with traces of compression stays below 4. */
const FIRST_TOLERANCE = 6

const bench = useBench()
const stage = useStage()
const notices = useNotices()
const tolerance = ref(FIRST_TOLERANCE)
const message = ref('')
const offered = ref<Edit | null>(null)

const looking = useLatest<number>(async (wanted) => {
  try {
    const proposal = await bench.ask<Proposal>('/bench/trim', { tolerance: wanted })
    message.value = proposal.message
    stage.found = proposal.box ?? null
    offered.value = proposal.edit ?? null
  } catch (error) {
    notices.tell(error)
  }
})

watch(tolerance, looking.ask, { immediate: true })
watch(() => [bench.sizeId, bench.here?.turn], () => looking.ask(tolerance.value))
onScopeDispose(() => (stage.found = null))

function take(): void {
  if (!offered.value) return
  void bench.edit(offered.value)
  leave()
}

function leave(): void {
  stage.found = null
  offered.value = null
  message.value = ''
}
</script>

<template>
  <SliderRow
    label="Tolerance"
    unit=""
    :value="tolerance"
    :max="64"
    @move="(value) => (tolerance = value)"
    @change="(value) => (tolerance = value)"
  />
  <p class="message" aria-live="polite">{{ message }}</p>
  <div v-if="offered" class="buttons">
    <button type="button" class="action key" @click="take">Trim to it</button>
    <button type="button" class="action" @click="leave">Cancel</button>
  </div>
</template>

<style scoped>
.message {
  margin-top: 6px;
  color: var(--ink-soft);
  font-size: 12px;
}

.buttons {
  display: flex;
  gap: 6px;
  margin-top: 6px;
}
</style>
