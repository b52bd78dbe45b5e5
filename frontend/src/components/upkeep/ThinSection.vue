<script setup lang="ts">
// Old changes and old saved files go by a rule; how much that is, is shown before anything goes.

import { useLocalStorage, watchDebounced } from '@vueuse/core'
import { computed, onMounted, ref } from 'vue'

import { post } from '../../api/client'
import type { Thinned, ThinningRule } from '../../api/types'
import { formatNumber, formatWeight } from '../../composables/numbers'
import { useNotices } from '../../stores/notices'
import NumberField from '../shared/NumberField.vue'
import TickBox from '../shared/TickBox.vue'

const emit = defineEmits<{ done: [] }>()

const notices = useNotices()
const rule = useLocalStorage<ThinningRule>('lucky-margin-thinning', { days: 90, changes: true, files: false })
const thinned = ref<Thinned | null>(null)

const foreseen = computed(() => {
  if (!thinned.value) return ''
  const { changes, files } = thinned.value
  return changes || files ? `${inWords(thinned.value)} would go, for good.` : 'Nothing is that old.'
})

onMounted(count)
watchDebounced(rule, count, { debounce: 150, deep: true })

async function count(): Promise<void> {
  thinned.value = await thin(false)
}

async function removeOld(): Promise<void> {
  const gone = await thin(true)
  if (!gone) return
  notices.say(`Removed ${inWords(gone)}.`)
  emit('done')
  await count()
}

async function thin(remove: boolean): Promise<Thinned | null> {
  try {
    return await post<Thinned>('/shelf/thin', { ...rule.value, remove })
  } catch (error) {
    notices.tell(error)
    return null
  }
}

function inWords({ changes, files, bytes }: Thinned): string {
  const counted = (number: number, noun: string) => `${formatNumber(number)} ${noun}${number === 1 ? '' : 's'}`
  const parts = [changes && counted(changes, 'change'), files && counted(files, 'saved file')].filter(Boolean)
  return `${parts.join(' and ')} (${formatWeight(bytes)})`
}
</script>

<template>
  <section class="upkeep">
    <h3>Thin out</h3>
    <p>Nothing goes by itself. What a finish shows now, its named versions, and what a kept file came from always stay.</p>
    <div class="actions rule">
      Older than
      <NumberField label="Days" unit="" :value="rule.days" :min="1" :max="36500" :digits="0" @change="(days) => (rule.days = Math.round(days))" />
      days:
      <TickBox v-model:checked="rule.changes" label="changes, but the last of each day" />
      <TickBox v-model:checked="rule.files" label="saved files" />
    </div>
    <div class="actions">
      <button type="button" class="action" :disabled="!thinned?.changes && !thinned?.files" @click="removeOld">
        Remove them
      </button>
      <span aria-live="polite">{{ foreseen }}</span>
    </div>
  </section>
</template>

<style scoped>
.rule :deep(.number) {
  width: 72px;
}
</style>
