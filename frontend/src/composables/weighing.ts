// The file of the size in hand, made anew after every saved change: what is weighed is what is saved.

import { onScopeDispose, ref, shallowRef, watch } from 'vue'

import { Cancelled, post, type Following } from '../api/client'
import type { Exported, JobTold, WeighedFile } from '../api/types'
import { useBench } from '../stores/bench'
import { useNotices } from '../stores/notices'
import { TAB } from './pictures'
import { runJob } from './jobs'

interface SizeAtRevision {
  finish: string
  revision: number
  size_id: string
}

interface Wanted extends SizeAtRevision {
  /** The view that asks; its newest wish wins. The one for reveals asks for the animation. */
  view: 'export' | `several-${number}` | 'reveal'
}

/** Make the file of one size at a revision, and say what it weighs. */
export function weigh({ finish, revision, size_id, view }: Wanted, following?: Following): Promise<WeighedFile> {
  const body = { revision, size_id, reveal: view === 'reveal', channel: `${TAB}-${view}` }
  return runJob(() => post<JobTold>(`/finishes/${finish}/weigh`, body), following)
}

/** Make the file of one size and save it; of those that are made at a time each has its own `lane`. */
export async function saveSize(size: SizeAtRevision, lane: number, signal: AbortSignal): Promise<SavedSize> {
  const { sha256, meets_cap } = await weigh({ ...size, view: `several-${lane}` }, { signal })
  const { finish, revision, size_id } = size
  const file = await post<Exported>(`/finishes/${finish}/exports`, { revision, size_id, sha256 })
  return { ...file, meetsCap: meets_cap }
}

export type SavedSize = Exported & { meetsCap: boolean }

export function useWeighing() {
  const bench = useBench()
  const notices = useNotices()
  const weighed = shallowRef<WeighedFile | null>(null)
  /** The share that is done while a file takes long to make; null else. */
  const progress = ref<number | null>(null)
  let underWay: Promise<void> = Promise.resolve()
  let stopping = new AbortController()

  function restart(finish: string, revision: number, size_id: string): void {
    stop()
    const { signal } = (stopping = new AbortController())
    underWay = weigh({ finish, revision, size_id, view: 'export' }, {
      signal,
      progress: (share) => {
        if (!signal.aborted) progress.value = share
      },
    })
      .then((file) => {
        if (!signal.aborted) weighed.value = file
      })
      .catch((error) => {
        if (!(error instanceof Cancelled)) notices.tell(error)
        // An older request came in after this one and took its place: ask again.
        else if (!signal.aborted) restart(finish, revision, size_id)
      })
      .finally(() => {
        if (!signal.aborted) progress.value = null
      })
  }

  function stop(): void {
    stopping.abort()
    weighed.value = null
    progress.value = null
  }

  watch(
    () => [bench.saved?.revision, bench.sizeId] as const,
    ([revision, size_id]) => {
      const { saved } = bench
      // A size that was just added is saved in a moment, with its own revision.
      const isSaved = saved?.document.sizes.some(({ id }) => id === size_id)
      if (saved && revision && isSaved) restart(saved.id, revision, size_id)
      else stop()
    },
    { immediate: true },
  )
  onScopeDispose(stop)

  /** The file that was asked for last, once it is made; null if it could not be. */
  async function settled(): Promise<WeighedFile | null> {
    let awaited
    do {
      awaited = underWay
      await awaited
    } while (awaited !== underWay) // another one was asked for meanwhile
    return weighed.value
  }

  return { weighed, progress, settled }
}
