// The contact sheet: finishes side by side, what asks for a look, and all their sizes saved at once.

import { until } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'

import { Cancelled, get, post } from '../api/client'
import type { FinishFace, FinishState, SizeLooks } from '../api/types'
import { downloadFrom } from '../composables/downloads'
import { inLanes } from '../composables/lanes'
import { saveSize } from '../composables/weighing'
import { useNotices } from './notices'
import { useWork } from './work'

/** How far a finish's checks are: not made yet, or these. */
export type Looks = SizeLooks[] | null

export const useSheet = defineStore('sheet', () => {
  const notices = useNotices()
  const work = useWork()
  const finishes = shallowRef<FinishFace[]>([])
  const looks = shallowRef<Record<string, Looks>>({})
  /** What became of each finish that could not be saved. */
  const failures = shallowRef<Record<string, string>>({})
  const state = ref<'idle' | 'saving' | 'paused'>('idle')
  const saved = ref(0)
  let stopping = new AbortController()

  const ids = computed(() => finishes.value.map(({ id }) => id))
  const pictureCount = computed(() => finishes.value.reduce((sum, { sizes }) => sum + sizes.length, 0))

  /** Show these finishes. Called again, those that changed meanwhile are looked at anew. */
  async function load(wanted: string[]): Promise<void> {
    try {
      const before = new Map(finishes.value.map((finish) => [finish.id, finish.etag]))
      finishes.value = (await post<{ finishes: FinishFace[] }>('/finishes/faces', { ids: wanted })).finishes
      const unchanged = finishes.value.filter(({ id, etag }) => before.get(id) === etag)
      looks.value = Object.fromEntries(unchanged.map(({ id }) => [id, looks.value[id] ?? null]))
      for (const { id, problem } of finishes.value) {
        if (looks.value[id] || problem) continue
        const { sizes } = await get<{ sizes: SizeLooks[] }>(`/finishes/${id}/looks`)
        if (!ids.value.includes(id)) return // another sheet is shown
        looks.value = { ...looks.value, [id]: sizes }
      }
    } catch (error) {
      notices.tell(error)
    }
  }

  const cutOut = computed(() => finishes.value.filter(({ is_cut_out }) => is_cut_out))

  /** Have every subject that is cut out stand as high, on the same line. */
  async function standAlike(height: number, line: number): Promise<void> {
    const standing = cutOut.value
    try {
      await work.run('Placing the subjects', async ({ progress, signal }) => {
        for (const [number, { id, etag, name }] of standing.entries()) {
          if (signal.aborted) return
          progress(number / standing.length)
          await post<FinishState>(`/finishes/${id}/stand`, { etag, height, line }).catch((error) =>
            notices.say(`${name}: ${notices.inWords(error)}`, true),
          )
        }
      })
    } catch (error) {
      if (!(error instanceof Cancelled)) notices.tell(error)
    }
    await load(ids.value)
  }

  /** Save every size of every finish, and bring them as one archive. */
  async function saveAll(): Promise<void> {
    const { signal } = (stopping = new AbortController())
    state.value = 'saving'
    saved.value = 0
    failures.value = {}
    const pictures = finishes.value.flatMap(({ id, sizes }) => sizes.map((size) => ({ finish: id, size_id: size.id })))
    const revisions: Record<string, Promise<FinishState>> = {}
    const files: string[] = []
    await inLanes([...pictures.entries()], async ([number, { finish, size_id }], lane) => {
      await until(state).not.toBe('paused')
      if (signal.aborted || finish in failures.value) return
      try {
        const { revision } = await (revisions[finish] ??= get<FinishState>(`/finishes/${finish}`))
        const file = await saveSize({ finish, revision, size_id }, lane, signal)
        files[number] = `ids=${file.id}`
        saved.value += 1
      } catch (error) {
        if (!signal.aborted) failures.value = { ...failures.value, [finish]: notices.inWords(error) }
      }
    })
    if (saved.value && !signal.aborted) downloadFrom(`/api/exports/zip?${files.filter(Boolean).join('&')}`, 'pictures.zip')
    state.value = 'idle'
  }

  function pause(): void {
    state.value = 'paused'
  }

  function resume(): void {
    state.value = 'saving'
  }

  function cancel(): void {
    stopping.abort()
    resume()
  }

  return { finishes, ids, looks, failures, state, saved, pictureCount, cutOut, load, standAlike, saveAll, pause, resume, cancel }
})
