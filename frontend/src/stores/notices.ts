// What the application has to tell the user: short remarks that pass, refusals that stay until
// read, and whether the service answers at all.

import { ElMessage, type MessageHandler } from 'element-plus'
import { defineStore } from 'pinia'
import { h, ref } from 'vue'

import { get, Refused, Unreachable } from '../api/client'
import NoticeText from '../components/shared/NoticeText.vue'

const REMARK_MS = 6000
const RETRY_MS = 1500
const UNFORESEEN = 'Something went wrong on this page; what was saved is safe. Go on, or reload the page.'

/** How many are shown at a time, and how far they stand above the lower edge of the window, in CSS pixels, so that the hint
    on the stage can be read. */
const MOST = 3
const ABOVE_BAR = 104

export const useNotices = defineStore('notices', () => {
  const unreachable = ref(false)
  const diskFull = ref(false)
  /** By their texts, the oldest first. */
  const shown = new Map<string, MessageHandler>()

  function say(text: string, look = false): void {
    if (!text || shown.has(text)) return
    if (shown.size >= MOST) [...shown.values()][0]!.close()
    const notice = ElMessage({
      message: h(NoticeText, { text, onClose: () => notice.close() }),
      type: look ? 'warning' : 'success',
      duration: look ? 0 : REMARK_MS,
      placement: 'bottom',
      offset: ABOVE_BAR,
      onClose: () => shown.delete(text),
    })
    shown.set(text, notice)
  }

  /** An error as a sentence; of one that nobody foresaw, that it happened and what is left to do. */
  function inWords(error: unknown): string {
    if (error instanceof Refused) return error.message
    console.error(error)
    return UNFORESEEN
  }

  function tell(error: unknown): void {
    if (error instanceof Unreachable) lose()
    else say(inWords(error), true)
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

  return { unreachable, diskFull, say, tell, inWords, lose }
})
