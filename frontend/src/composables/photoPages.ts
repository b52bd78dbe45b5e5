// The photos on the shelf, newest first, a page at a time.

import { computed, ref, shallowRef } from 'vue'

import { get } from '../api/client'
import type { Photo, PhotoList } from '../api/types'
import { useNotices } from '../stores/notices'
import { inWords, type LibraryQuery } from './library'

/** `query` says which ones; all where there is none. */
export function usePhotoPages(query?: LibraryQuery) {
  const notices = useNotices()
  const photos = shallowRef<Photo[]>([])
  const total = ref(0)
  const hasMore = computed(() => photos.value.length < total.value)

  async function add(before: Photo[]): Promise<void> {
    const wanted = inWords({ ...query, offset: before.length })
    try {
      const page = await get<PhotoList>(`/photos?${wanted}`)
      if (wanted !== inWords({ ...query, offset: before.length })) return // the search went on
      photos.value = [...before, ...page.photos]
      total.value = page.total
    } catch (error) {
      notices.tell(error)
    }
  }

  /** The first page, in place of what is there. */
  const load = () => add([])
  const loadMore = () => add(photos.value)

  return { photos, total, hasMore, load, loadMore }
}
