// Things of the library, stock and own, found by word, kind and colour.

import { watchDebounced } from '@vueuse/core'
import { onMounted, reactive, ref, shallowRef } from 'vue'

import { get, post } from '../api/client'
import type { ColourName } from '../api/types'
import { useNotices } from '../stores/notices'

const PAUSE_MS = 150

/** What is looked for; empty words leave a condition out. */
export interface LibraryQuery {
  search: string
  kind: string
  colour: ColourName | ''
  only: 'favourites' | 'recent' | ''
}

export const everything = (): LibraryQuery => ({ search: '', kind: '', colour: '', only: '' })

/** The query of an address: what is not empty. */
export function inWords(query: object): string {
  const words = Object.entries(query).filter(([, value]) => value !== '' && value !== null)
  return new URLSearchParams(words).toString()
}

/** Whether it could be kept that something is a favourite, or none any more. */
export async function setFavourite(key: string, favourite: boolean): Promise<boolean> {
  try {
    await post('/library/favourites', { key, favourite })
    return true
  } catch (error) {
    useNotices().tell(error)
    return false
  }
}

interface Page<Item> {
  items: Item[]
  kinds: string[]
  licence: string
}

export function useLibrary<Item extends { key: string; favourite: boolean }>(of: 'backdrops' | 'badges') {
  const notices = useNotices()
  const query = reactive(everything())
  const items = shallowRef<Item[]>([])
  const kinds = ref<string[]>([])
  const licence = ref('')
  const loaded = ref(false)

  async function load(): Promise<void> {
    const wanted = inWords(query)
    try {
      const page = await get<Page<Item>>(`/library/${of}?${wanted}`)
      if (wanted !== inWords(query)) return // the search went on meanwhile
      items.value = page.items
      kinds.value = page.kinds
      licence.value = page.licence
      loaded.value = true
    } catch (error) {
      notices.tell(error)
    }
  }

  async function like(key: string, favourite: boolean): Promise<void> {
    if (!(await setFavourite(key, favourite))) return
    items.value = items.value.map((item) => (item.key === key ? { ...item, favourite } : item))
  }

  /** Something was taken, so it is among what was used last. */
  const taken = (key: string) => post('/library/recent', { key }).catch(notices.tell)

  onMounted(load)
  watchDebounced(query, load, { debounce: PAUSE_MS })

  return { query, items, kinds, licence, loaded, load, like, taken }
}
