// The contact sheet: finishes side by side, what asks for a look, and all their sizes saved at once.

import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'

import { Cancelled, get, post } from '../api/client'
import type { Exported, FinishFace, FinishState, SizeLooks } from '../api/types'
import { downloadFrom } from '../composables/downloads'
import { weigh } from '../composables/weighing'
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
  let goOn = () => {}

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
    const files: number[] = []
    for (const { id, sizes } of finishes.value) {
      try {
        const { revision } = await get<FinishState>(`/finishes/${id}`)
        for (const { id: size_id } of sizes) {
          await whileGoing(signal)
          if (signal.aborted) return end()
          const { sha256 } = await weigh({ finish: id, revision, size_id, view: 'several' }, { signal })
          const file = await post<Exported>(`/finishes/${id}/exports`, { revision, size_id, sha256 })
          files.push(file.id)
          saved.value += 1
        }
      } catch (error) {
        if (signal.aborted) return end()
        failures.value = { ...failures.value, [id]: notices.inWords(error) }
      }
    }
    if (files.length) downloadFrom(`/api/exports/zip?${files.map((file) => `ids=${file}`).join('&')}`, 'pictures.zip')
    end()
  }

  /** Wait as long as the saving is paused. */
  function whileGoing(signal: AbortSignal): Promise<void> {
    if (state.value !== 'paused' || signal.aborted) return Promise.resolve()
    return new Promise((resolve) => (goOn = resolve))
  }

  function end(): void {
    state.value = 'idle'
  }

  function pause(): void {
    state.value = 'paused'
  }

  function resume(): void {
    state.value = 'saving'
    goOn()
  }

  function cancel(): void {
    stopping.abort()
    goOn()
  }

  return { finishes, ids, looks, failures, state, saved, pictureCount, cutOut, load, standAlike, saveAll, pause, resume, cancel }
})
