<script setup lang="ts">
// Whether everything on the shelf is there and as it was; what is damaged or unused can go.

import { computed, ref } from 'vue'

import { Cancelled, post } from '../../api/client'
import type { JobTold, ShelfChecked } from '../../api/types'
import { runJob } from '../../composables/jobs'
import { counted, formatNumber, formatWeight } from '../../composables/numbers'
import { useNotices } from '../../stores/notices'

const emit = defineEmits<{ done: [] }>()

const notices = useNotices()
const found = ref<ShelfChecked | null>(null)
const share = ref<number | null>(null)
/** Problems that are listed; of many, the first tell enough. */
const SHOWN = 5

const problems = computed(() => {
  if (!found.value) return []
  if (!found.value.database) return ['The database is damaged: end Lucky Margin and enter “lucky-margin snapshots”.']
  const { damaged, missing } = found.value
  return [...damaged.map((name) => `Damaged: ${name}`), ...missing.map((what) => `Missing: ${what}; add the same file again.`)]
})
const removable = computed(() => (found.value ? found.value.unused + found.value.damaged.length : 0))

async function check(mend: boolean): Promise<void> {
  share.value = 0
  try {
    const progress = (done: number) => (share.value = done)
    const checked = await runJob<ShelfChecked>(() => post<JobTold>('/shelf/check', { mend }), { progress })
    if (mend) {
      notices.say(`Removed ${counted(removable.value, 'file', 'files')}.`)
      return await check(false)
    }
    found.value = checked
    emit('done')
  } catch (error) {
    if (!(error instanceof Cancelled)) notices.tell(error)
  } finally {
    share.value = null
  }
}
</script>

<template>
  <section class="upkeep">
    <h3>Check</h3>
    <p>Every file is compared with its checksum.</p>
    <div aria-live="polite">
      <p v-for="problem in problems.slice(0, SHOWN)" :key="problem" class="problem">
        <i class="check-light look"></i> {{ problem }}
      </p>
      <p v-if="problems.length > SHOWN">And {{ formatNumber(problems.length - SHOWN) }} more.</p>
      <p v-if="found && !problems.length">
        <i class="check-light"></i> {{ counted(found.checked, 'file', 'files') }} checked; {{ found.checked === 1 ? 'it is' : 'all are' }} sound.
      </p>
      <p v-if="found?.unused">
        {{ counted(found.unused, 'file is', 'files are') }} used by nothing:
        {{ formatWeight(found.unused_bytes) }}.
      </p>
    </div>
    <div class="actions">
      <button type="button" class="action" :disabled="share !== null" @click="check(false)">Check all files</button>
      <button v-if="removable" type="button" class="action" :disabled="share !== null" @click="check(true)">
        Remove {{ counted(removable, 'file', 'files') }}
      </button>
      <progress v-if="share !== null" :value="share" max="1" aria-label="Checking"></progress>
    </div>
  </section>
</template>
