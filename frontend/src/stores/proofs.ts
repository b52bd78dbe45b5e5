// The proofs on the screen, by their sizes. One stands in on the stage until its size is drawn there.

import { defineStore } from 'pinia'
import { shallowReactive } from 'vue'

export const useProofs = defineStore('proofs', () => {
  const urls = shallowReactive(new Map<string, string>())
  return { urls }
})
