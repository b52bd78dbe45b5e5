// What the application has to tell the user: short remarks that pass, refusals that stay until
// read, and whether the service answers at all.

import { defineStore } from 'pinia'
import { ref } from 'vue'

import { get, Refused, Unreachable } from '../api/client'

const REMARK_MS = 6000
const RETRY_MS = 1500
const UNFORESEEN = 'Something went wrong on this page; what was saved is safe. Go on, or reload the page.'

export interface Notice {
  id: number
  text: string
  look: boolean
}

export const useNotices = defineStore('notices', () => {
  const notices = ref<Notice[]>([])
  const unreachable = ref(false)
  const diskFull = ref(false)
  let count = 0

  function say(text: string, look = false): void {
    if (!text || notices.value.some((notice) => notice.text === text)) return
    const notice = { id: (count += 1), text, look }
    notices.value = [...notices.value.slice(-2), notice]
    if (!look) setTimeout(() => dismiss(notice.id), REMARK_MS)
  }

  function dismiss(id: number): void {
    notices.value = notices.value.filter((notice) => notice.id !== id)
  }

  /** Tell of an error; of one that nobody foresaw, that it happened and what is left to do. */
  function tell(error: unknown): void {
    if (error instanceof Unreachable) lose()
    else if (error instanceof Refused) say(error.message, true)
    else {
      console.error(error)
      say(UNFORESEEN, true)
    }
  }

  function lose(): void {
    if (unreachable.value) return
    unreachable.value = true
    const timer = setInterval(async () => {
      try {
        await get('/sizes')
        clearInterval(timer)
        unreachable.value = false
      } catch {
        // still gone; the banner stays
      }
    }, RETRY_MS)
  }

  return { notices, unreachable, diskFull, say, dismiss, tell, lose }
})
