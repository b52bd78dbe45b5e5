// Sizes to choose from: the library's, and own ones that were saved for reuse.

import { defineStore } from 'pinia'
import { shallowRef } from 'vue'

import { get, post, remove } from '../api/client'
import type { LibrarySize, SavedSize, SizePlan } from '../api/types'
import { useNotices } from './notices'

export const useSizes = defineStore('sizes', () => {
  const notices = useNotices()
  const library = shallowRef<LibrarySize[]>([])
  const own = shallowRef<SavedSize[]>([])

  async function load(): Promise<void> {
    try {
      const sizes = await get<{ library: LibrarySize[]; own: SavedSize[] }>('/sizes')
      library.value = sizes.library
      own.value = sizes.own
    } catch (error) {
      notices.tell(error)
    }
  }

  async function save(plan: SizePlan): Promise<void> {
    try {
      await post('/sizes', { plan })
      notices.say(`“${plan.name}” is saved with your own sizes.`)
    } catch (error) {
      notices.tell(error)
    }
    await load()
  }

  async function forget(id: number): Promise<void> {
    try {
      await remove(`/sizes/${id}`)
    } catch (error) {
      notices.tell(error)
    }
    await load()
  }

  return { library, own, load, save, forget }
})
