// The steps of the docket as the service names them, and their fields as they come.

import { defineStore } from 'pinia'
import { shallowRef } from 'vue'

import { get } from '../api/client'
import type { StepOffered, Tone } from '../api/types'

interface Fresh {
  tone: Tone
}

export const useDocket = defineStore('docket', () => {
  const steps = shallowRef<StepOffered[]>([])

  /** The steps, asked for once. */
  async function load(): Promise<void> {
    if (!steps.value.length) steps.value = (await get<{ steps: StepOffered[] }>('/bench/steps')).steps
  }

  /** A step's field of the finish with nothing set. */
  function fresh<Field extends keyof Fresh>(field: Field): Fresh[Field] {
    const step = steps.value.find((one) => field in one.fresh)
    return step!.fresh[field] as Fresh[Field]
  }

  return { steps, load, fresh }
})
