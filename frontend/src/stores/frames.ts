// What a border can start from: frame styles, and a new band of each kind.

import { defineStore } from 'pinia'
import { shallowRef } from 'vue'

import { get, post, remove } from '../api/client'
import type { BandKind, BandOf, Border, FrameList, KeptFrame } from '../api/types'
import { useNotices } from './notices'

export const useFrames = defineStore('frames', () => {
  const notices = useNotices()
  const list = shallowRef<FrameList>({ stock: [], own: [], fresh: [] })

  async function load(): Promise<void> {
    try {
      list.value = await get<FrameList>('/frames')
    } catch (error) {
      notices.tell(error)
    }
  }

  /** A new band; undefined as long as the list is on its way. */
  function fresh<Kind extends BandKind>(kind: Kind): BandOf<Kind> | undefined {
    return list.value.fresh.find((band): band is BandOf<Kind> => band.kind === kind)
  }

  /** Whether it could be kept. */
  async function keep(name: string, border: Border): Promise<boolean> {
    try {
      await post<KeptFrame>('/frames', { name, border })
      notices.say(`“${name}” is saved with the frames.`)
    } catch (error) {
      notices.tell(error)
      return false
    }
    await load()
    return true
  }

  async function forget({ id }: KeptFrame): Promise<void> {
    try {
      await remove(`/frames/${id}`)
    } catch (error) {
      notices.tell(error)
    }
    await load()
  }

  return { list, load, fresh, keep, forget }
})
