<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'

import type { Proposal } from '../../../api/types'
import { useTips, vTip } from '../../../composables/explanations'
import { useBench } from '../../../stores/bench'
import { useNotices } from '../../../stores/notices'
import { useStage } from '../../../stores/stage'

const bench = useBench()
const tip = useTips()
const stage = useStage()
const notices = useNotices()
const message = ref('')
const said = useTemplateRef('said')
const looking = ref(false)
const focus = computed(() => bench.document!.focus)

// What was said of a proposal is no longer true of what is set after it.
let proposed = ''
watch(focus, (now) => {
  if (JSON.stringify(now) !== proposed) message.value = ''
})

async function propose(): Promise<void> {
  looking.value = true
  try {
    const proposal = await bench.ask<Proposal>('/bench/focus')
    proposed = proposal.edit?.kind === 'set_focus' ? JSON.stringify(proposal.edit.focus) : ''
    if (proposal.edit) await bench.edit(proposal.edit)
    message.value = proposal.message
    await nextTick()
    said.value?.scrollIntoView({ block: 'nearest' })
  } catch (error) {
    notices.tell(error)
  } finally {
    looking.value = false
  }
}
</script>

<template>
  <p class="hint">What has to stay in view on every size that you have not cropped yourself.</p>
  <div class="buttons">
    <button
      v-tip="tip('Mark it')"
      type="button"
      class="action"
      :aria-pressed="stage.tool === 'focus'"
      @click="stage.take('focus')"
    >
      Mark it
    </button>
    <button v-tip="tip('Suggest one')" type="button" class="action" :disabled="looking" @click="propose">
      {{ looking ? 'Looking…' : 'Suggest one' }}
    </button>
    <button
      v-if="focus"
      type="button"
      class="link"
      @click="bench.edit({ kind: 'set_focus', focus: null })"
    >
      Remove
    </button>
  </div>
  <p ref="said" class="hint" aria-live="polite">{{ message }}</p>
</template>

<style scoped>
.buttons {
  display: flex;
  gap: 6px;
  margin-top: 6px;
}

.action {
  font-size: 12px;
}

.action[aria-pressed='true'] {
  border-color: var(--ink);
  background: var(--ink);
  color: var(--paper);
}

.hint {
  color: var(--ink-soft);
  font-size: 12px;
}

.buttons + .hint {
  margin-top: 6px;
}
</style>
