<script setup lang="ts">
// A tone taken from one finish and laid on another, without what belongs to the one photo.

import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'

import type { ToneChanges } from '../../../api/types'
import { useToneEdits } from '../../../composables/toneEdits'
import { useBench } from '../../../stores/bench'
import { useNotices } from '../../../stores/notices'

const bench = useBench()
const notices = useNotices()
const { tone, change, isAnySet } = useToneEdits()
const copied = useLocalStorage('lucky-margin-copied-tone', '')
const hasCopied = computed(() => copied.value !== '')

function copy(): void {
  const { areas, washes, ...rest } = tone.value
  copied.value = JSON.stringify(rest)
  const left = areas.length || washes.length ? ' Areas and washes are not copied, since they belong to this photo.' : ''
  notices.say(`Tone copied. Open another finish and paste it in its Tone step.${left}`)
}

function paste(): void {
  try {
    void bench.edit(change(JSON.parse(copied.value) as Partial<ToneChanges>))
  } catch {
    copied.value = '' // it was not written by us
    notices.say('There is no tone to paste; copy one again.')
  }
}
</script>

<template>
  <p class="copy">
    <button type="button" class="link" :disabled="!isAnySet" @click="copy">Copy this tone</button>
    <button type="button" class="link" :disabled="!hasCopied" @click="paste">Paste tone</button>
  </p>
</template>

<style scoped>
.copy {
  display: flex;
  gap: 16px;
  margin: 0 -12px;
  padding: 8px 12px 0;
  border-top: 1px dashed var(--rule);
}

.link:disabled {
  color: var(--ink-soft);
  text-decoration: none;
}
</style>
