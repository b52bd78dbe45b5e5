// Pictures of the present draft, drawn by the service; the newest wish of a view wins.

import { onScopeDispose, shallowRef } from 'vue'

import { picture, Unreachable } from '../api/client'
import type { Edit, Finish, View } from '../api/types'
import { useNotices } from '../stores/notices'
import { useLatest } from './latest'

export interface PictureWish {
  document: Finish
  size_id: string
  edit: Edit | null
  view: View
  scale: number
  region: [number, number, number, number] | null
  place: 'stage' | 'proof'
  /** Quick rather than true to the export. */
  rough?: boolean
}

export interface Shown<Wish> {
  wish: Wish
  url: string
}

/** One tab's name, so that tabs do not take each other's turn. */
const TAB = Math.random().toString(36).slice(2)

export function usePictures<Wish extends PictureWish>(name: string, drawn?: () => void) {
  const notices = useNotices()
  const shown = shallowRef<Shown<Wish> | null>(null)

  const latest = useLatest<Wish>(async (wish) => {
    const { document, size_id, edit, view, scale, region, place, rough } = wish
    const body = { document, size_id, edit, view, scale, region, place, rough, channel: `${TAB}-${name}` }
    try {
      const blob = await picture('/bench/preview', body)
      if (blob) await show(wish, blob)
    } catch (error) {
      if (error instanceof Unreachable) notices.lose()
      else notices.tell(error)
    }
  })

  async function show(wish: Wish, blob: Blob): Promise<void> {
    const url = URL.createObjectURL(blob)
    const image = new Image()
    image.src = url
    await image.decode() // so that the picture changes at once, without a blank in between
    if (shown.value) URL.revokeObjectURL(shown.value.url)
    shown.value = { wish, url }
    drawn?.()
  }

  onScopeDispose(() => {
    if (shown.value) URL.revokeObjectURL(shown.value.url)
  })

  return { shown, ask: latest.ask }
}
