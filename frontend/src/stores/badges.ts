// Badges of several parts that were kept.

import { defineStore } from 'pinia'
import { shallowRef } from 'vue'

import { get, post, remove } from '../api/client'
import type { KeptBadge, Piece } from '../api/types'
import { useNotices } from './notices'

export const useBadges = defineStore('badges', () => {
  const notices = useNotices()
  const kept = shallowRef<KeptBadge[]>([])

  async function load(): Promise<void> {
    try {
      kept.value = await get<KeptBadge[]>('/badges')
    } catch (error) {
      notices.tell(error)
    }
  }

  /** Whether they could be kept. */
  async function keep(name: string, parts: Piece[]): Promise<boolean> {
    try {
      await post<KeptBadge>('/badges', { name, parts })
      notices.say(`“${name}” is saved with the badges.`)
    } catch (error) {
      notices.tell(error)
      return false
    }
    await load()
    return true
  }

  async function forget({ id }: KeptBadge): Promise<void> {
    try {
      await remove(`/badges/${id}`)
    } catch (error) {
      notices.tell(error)
    }
    await load()
  }

  return { kept, load, keep, forget }
})
