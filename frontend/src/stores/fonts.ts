// The fonts that words can be set in: own ones from files, then those that ship.

import { defineStore } from 'pinia'
import { shallowRef } from 'vue'

import { get, remove, upload } from '../api/client'
import type { Font, FontList } from '../api/types'
import { useNotices } from './notices'

export const useFonts = defineStore('fonts', () => {
  const notices = useNotices()
  const fonts = shallowRef<Font[]>([])

  const named = (key: string) => fonts.value.find((font) => font.key === key)

  async function load(): Promise<void> {
    try {
      fonts.value = (await get<FontList>('/fonts')).fonts
    } catch (error) {
      notices.tell(error)
    }
  }

  /** Add a font file; null when it is not taken. */
  async function add(file: File): Promise<Font | null> {
    try {
      const font = await upload<Font>('/fonts', file)
      await load()
      return font
    } catch (error) {
      notices.tell(error)
      return null
    }
  }

  /** Offer an own font no more; what is set in it stays. */
  async function forget(key: string): Promise<void> {
    try {
      await remove(`/fonts/${key}`)
    } catch (error) {
      notices.tell(error)
    }
    await load()
  }

  return { fonts, named, load, add, forget }
})
