// Pictures of the present draft, drawn by the service; the newest wish of a view wins.

import { computed, onScopeDispose, ref, shallowRef } from 'vue'

import { Unreachable } from '../api/client'
import { pictureOf, type Named } from '../api/drafts'
import type { Edit, View } from '../api/types'
import { useNotices } from '../stores/notices'
import { useLatest } from './latest'

export interface PictureWish {
  draft: Named
  size_id: string
  edit: Edit | null
  view: View
  scale: number
  region: [number, number, number, number] | null
  place: 'stage' | 'proof'
  /** Quick rather than true to the export. */
  rough?: boolean
  /** Which area the mask view shows. */
  area?: number
  /** Pieces that are being dragged: alone in the piece view, in no other. */
  held?: string[]
}

export interface Shown<Wish> {
  wish: Wish
  url: string
}

/** One tab's name, so that tabs do not take each other's turn. */
export const TAB = Math.random().toString(36).slice(2)

/** With two `lanes` the service draws the next picture while the last one is on its way. */
export function usePictures<Wish extends PictureWish>(name: string, drawn?: () => void, lanes = 1) {
  const notices = useNotices()
  const shown = shallowRef<Shown<Wish> | null>(null)
  /** How long the newest picture that was not rough took to come, in ms. */
  const took = ref(0)
  const asked = ref(0)
  const answered = ref(0)
  /** The number of the picture that is waited for; 0 where none is. */
  const waitsFor = computed(() => (asked.value > answered.value ? answered.value + 1 : 0))
  let newest = 0
  /** Nobody looks any more: pictures under way would keep others waiting. */
  const gone = new AbortController()

  const latest = useLatest<Wish>(async (wish) => {
    const turn = (asked.value += 1)
    const began = performance.now()
    const { size_id, edit, view, scale, region, place, rough, area, held } = wish
    const channel = `${TAB}-${name}`
    const body = { size_id, edit, view, scale, region, place, rough, area, held, channel }
    try {
      const blob = await pictureOf(wish.draft, body, gone.signal)
      if (blob) await show(wish, blob, turn)
      if (blob && !wish.rough) took.value = performance.now() - began
    } catch (error) {
      if (gone.signal.aborted) return
      if (error instanceof Unreachable) notices.lose()
      else notices.tell(error)
    } finally {
      answered.value = Math.max(answered.value, turn)
    }
  }, lanes)

  async function show(wish: Wish, blob: Blob, turn: number): Promise<void> {
    const url = URL.createObjectURL(blob)
    const image = new Image()
    image.src = url
    try {
      await image.decode() // so that the picture changes at once, without a blank in between
    } catch {
      URL.revokeObjectURL(url)
      throw new Unreachable() // it broke off on its way
    }
    if (gone.signal.aborted || turn < newest) return URL.revokeObjectURL(url) // or a newer one overtook it
    newest = turn
    if (shown.value) URL.revokeObjectURL(shown.value.url)
    shown.value = { wish, url }
    drawn?.()
  }

  onScopeDispose(() => {
    gone.abort()
    if (shown.value) URL.revokeObjectURL(shown.value.url)
  })

  return { shown, ask: latest.ask, took, waitsFor }
}
