// Badges of several parts that are kept.

import { defineStore } from 'pinia'

import { post, remove } from '../api/client'
import type { KeptBadge, Piece } from '../api/types'
import { useNotices } from './notices'

export const useBadges = defineStore('badges', () => {
  const notices = useNotices()

  /** Whether they could be kept. */
  async function keep(name: string, parts: Piece[]): Promise<boolean> {
    try {
      await post<KeptBadge>('/badges', { name, parts })
      notices.say(`“${name}” is saved with the badges.`)
      return true
    } catch (error) {
      notices.tell(error)
      return false
    }
  }

  async function forget(id: number): Promise<void> {
    try {
      await remove(`/badges/${id}`)
    } catch (error) {
      notices.tell(error)
    }
  }

  return { keep, forget }
})
