// Subjects that were cut out of photos and kept for other finishes.

import { defineStore } from 'pinia'
import { shallowRef } from 'vue'

import { get, post, remove } from '../api/client'
import type { KeptSubject } from '../api/types'
import { useBench } from './bench'
import { useNotices } from './notices'

export const useSubjects = defineStore('subjects', () => {
  const bench = useBench()
  const notices = useNotices()
  /** The one changed last first. */
  const kept = shallowRef<KeptSubject[]>([])

  async function load(): Promise<void> {
    try {
      kept.value = (await get<{ subjects: KeptSubject[] }>('/subjects')).subjects
    } catch (error) {
      notices.tell(error)
    }
  }

  /** Keep the subject in hand; null when it could not be. */
  async function keep(name: string): Promise<KeptSubject | null> {
    let made: KeptSubject | null = null
    try {
      made = await bench.ask<KeptSubject>('/subjects', { name })
    } catch (error) {
      notices.tell(error)
    }
    await load()
    return made
  }

  async function renew({ subject }: KeptSubject): Promise<void> {
    try {
      const { finishes } = await post<{ finishes: number }>(`/subjects/${subject.id}/renew`)
      notices.say(finishes === 1 ? 'One finish was updated.' : `${finishes} finishes were updated.`)
    } catch (error) {
      notices.tell(error)
    }
    await load()
  }

  async function forget({ subject }: KeptSubject): Promise<void> {
    try {
      await remove(`/subjects/${subject.id}`)
    } catch (error) {
      notices.tell(error)
    }
    await load()
  }

  return { kept, load, keep, renew, forget }
})
