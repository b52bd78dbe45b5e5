// Long work under way: what it is, how far it is, and how to call it off. `WorkList` shows it.

import { defineStore } from 'pinia'
import { computed, ref } from 'vue'

import { Cancelled, type Following } from '../api/client'

export interface Work {
  id: number
  label: string
  /** The share that is done, 0 to 1. */
  share: number
  cancel: () => void
}

/** Rejected as soon as the work is called off, whatever it still waits for. */
function calledOff(signal: AbortSignal): Promise<never> {
  return new Promise((_, reject) => signal.addEventListener('abort', () => reject(new Cancelled())))
}

export const useWork = defineStore('work', () => {
  const running = ref<Work[]>([])
  let count = 0

  /** Do something long. Rejected with `Cancelled` when it was called off. */
  async function run<T>(label: string, task: (following: Required<Following>) => Promise<T>): Promise<T> {
    const stopping = new AbortController()
    const id = (count += 1)
    running.value.push({ id, label, share: 0, cancel: () => stopping.abort() })
    const progress = (share: number) => {
      const work = running.value.find((one) => one.id === id)
      if (work) work.share = share
    }
    try {
      return await Promise.race([task({ progress, signal: stopping.signal }), calledOff(stopping.signal)])
    } finally {
      running.value = running.value.filter((one) => one.id !== id)
    }
  }

  /** Call off all work of a label. */
  function cancel(label: string): void {
    for (const work of running.value) if (work.label === label) work.cancel()
  }

  const isRunning = computed(() => (label: string) => running.value.some((work) => work.label === label))

  return { running, isRunning, run, cancel }
})
