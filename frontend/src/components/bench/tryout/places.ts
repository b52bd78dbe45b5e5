// The made-up places of the try-out, and which of them a size is likely meant for.

import type { Component } from 'vue'

import type { Size, SizeLaid } from '../../../api/types'
import CommentsPlace from './CommentsPlace.vue'
import FeedPlace from './FeedPlace.vue'
import HeaderPlace from './HeaderPlace.vue'
import LinkPlace from './LinkPlace.vue'
import ListPlace from './ListPlace.vue'
import PrintPlace from './PrintPlace.vue'

export type PlaceKey = 'feed' | 'list' | 'header' | 'comments' | 'link' | 'print'

/** What every place is given. */
export interface Placed {
  source: string
  name: string
  size: SizeLaid
  /** Pixels to an inch of paper. */
  ppi: number
}

export const PLACES: { key: PlaceKey; label: string; component: Component }[] = [
  { key: 'feed', label: 'on a phone', component: FeedPlace },
  { key: 'list', label: 'in a list', component: ListPlace },
  { key: 'header', label: 'above a page', component: HeaderPlace },
  { key: 'comments', label: 'beside a name', component: CommentsPlace },
  { key: 'link', label: 'with a link', component: LinkPlace },
  { key: 'print', label: 'in print', component: PrintPlace },
]

const WIDE = 2.2
const LANDSCAPE = 1.6
const SMALL = 160

export function placeFor({ width, height, seen_width, on_paper }: SizeLaid, { shape, in_column }: Size): PlaceKey {
  const ratio = width / height
  if (on_paper) return 'print'
  if (shape.kind === 'circle' || (seen_width <= SMALL && ratio === 1)) return 'comments'
  if (in_column || ratio >= WIDE) return 'header'
  if (seen_width <= 2 * SMALL && ratio >= LANDSCAPE) return 'list'
  return ratio >= LANDSCAPE ? 'link' : 'feed'
}
