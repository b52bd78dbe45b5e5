// Finding the subject: long work that can be called off. The newest wins.

import { defineStore } from 'pinia'
import { computed, watch } from 'vue'

import type { JobTold, Proposal } from '../api/types'
import { Cancelled } from '../api/client'
import { runJob } from '../composables/jobs'
import { TAB } from '../composables/pictures'
import { useBench } from './bench'
import { useNotices } from './notices'
import { useWork } from './work'

const LABEL = 'Finding the subject'

export const useFinding = defineStore('finding', () => {
  const bench = useBench()
  const notices = useNotices()
  const work = useWork()
  const isFinding = computed(() => work.isRunning(LABEL))

  /** Find the subject, or the next one, and cut it out, or only say what it is. Whether it came to
   * an end. */
  async function find({ cutOut = true } = {}): Promise<boolean> {
    cancel()
    try {
      const { edit, message } = await work.run(LABEL, (following) =>
        runJob<Proposal>(
          () => bench.ask<JobTold>('/bench/subject', { channel: `${TAB}-subject`, cut_out: cutOut }),
          following,
        ),
      )
      if (edit) await bench.edit(edit)
      notices.say(message)
      return true
    } catch (error) {
      if (!(error instanceof Cancelled)) notices.tell(error)
      return false
    }
  }

  /** Whether the subject is known, after it has been looked for if need be. */
  async function isSubjectKnown(): Promise<boolean> {
    const { boxes, mask, strokes } = bench.document!.cut_out
    return boxes.length > 0 || !!mask || strokes.length > 0 || find({ cutOut: false })
  }

  const cancel = () => work.cancel(LABEL)
  watch(() => bench.saved?.id, cancel)

  return { isFinding, find, isSubjectKnown }
})
