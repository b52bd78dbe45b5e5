// Long work of the service: followed until it is over, and cancelled when nobody waits for it.

import { Cancelled, get, Refused, remove, type Following } from '../api/client'
import type { JobTold } from '../api/types'

/** What a job can bring; which, its path says. */
type Result = NonNullable<JobTold['result']>

/** Start a job, and return what it brings. */
export async function runJob<T extends Result>(
  start: () => Promise<JobTold>,
  { progress, signal }: Following = {},
): Promise<T> {
  let job = await start()
  const cancel = () => void remove(`/jobs/${job.id}`).catch(() => {}) // it may be over already
  signal?.addEventListener('abort', cancel)
  try {
    if (signal?.aborted) cancel()
    while (job.state === 'waiting' || job.state === 'running') {
      progress?.(job.progress)
      job = await get<JobTold>(`/jobs/${job.id}?news=${job.news}`)
    }
  } finally {
    signal?.removeEventListener('abort', cancel)
  }
  if (job.problem) throw new Refused(job.problem)
  if (!job.result || signal?.aborted) throw new Cancelled()
  return job.result as T
}
