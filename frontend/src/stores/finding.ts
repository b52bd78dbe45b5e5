// Finding the subject: long work that shows how far it is and can be called off. The newest wins.

import { defineStore } from 'pinia'
import { ref, watch } from 'vue'

import type { JobTold, Proposal } from '../api/types'
import { Cancelled, runJob } from '../composables/jobs'
import { TAB } from '../composables/pictures'
import { useBench } from './bench'
import { useNotices } from './notices'

export const useFinding = defineStore('finding', () => {
  const bench = useBench()
  const notices = useNotices()
  /** The share that is done while a subject is being found; null else. */
  const progress = ref<number | null>(null)
  let stopping = new AbortController()

  /** Find the subject, or the next one, and cut it out, or only say what it is. Whether it came to
   * an end. */
  async function find({ cutOut = true } = {}): Promise<boolean> {
    cancel()
    const { signal } = (stopping = new AbortController())
    progress.value = 0
    try {
      const { edit, message } = await runJob<Proposal>(
        () => bench.ask<JobTold>('/bench/subject', { channel: `${TAB}-subject`, cut_out: cutOut }),
        { signal, progress: (share) => (progress.value = share) },
      )
      if (edit) await bench.edit(edit)
      notices.say(message)
      return true
    } catch (error) {
      if (!(error instanceof Cancelled)) notices.tell(error)
      return false
    } finally {
      if (stopping.signal === signal) progress.value = null
    }
  }

  function cancel(): void {
    stopping.abort()
    progress.value = null
  }

  watch(() => bench.saved?.id, cancel)

  return { progress, find, cancel }
})
