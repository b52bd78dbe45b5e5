// House styles: the list, and what is done to those on it.

import { defineStore } from 'pinia'
import { shallowRef } from 'vue'

import { get, post, put, remove, upload } from '../api/client'
import type { HouseStyle, KeptStyle, StyleList } from '../api/types'
import { useNotices } from './notices'

export const useStyles = defineStore('styles', () => {
  const notices = useNotices()
  const list = shallowRef<KeptStyle[]>([])
  /** The id of the style that new photos start in. */
  const chosen = shallowRef<string | null>(null)
  const loaded = shallowRef(false)

  /** Raised with whatever makes an answer that is still on its way out of date. */
  let news = 0

  async function load(): Promise<void> {
    const asked = (news += 1)
    try {
      const { styles, default: id } = await get<StyleList>('/styles')
      if (asked !== news) return
      list.value = styles
      chosen.value = id
      loaded.value = true
    } catch (error) {
      notices.tell(error)
    }
  }

  async function loadOnce(): Promise<void> {
    if (!loaded.value) await load()
  }

  /** Do something to the styles, and take what they are then. Whether it could be done. */
  async function change(action: () => Promise<unknown>): Promise<boolean> {
    let isDone = true
    try {
      await action()
    } catch (error) {
      notices.tell(error)
      isDone = false
    }
    await load()
    return isDone
  }

  /** A photo that comes in right after this starts in it already. */
  function setDefault(id: string | null): Promise<boolean> {
    news += 1
    chosen.value = id
    return change(() => put('/styles/default', { id }))
  }
  const forget = ({ id }: HouseStyle) => change(() => remove(`/styles/${id}`))
  const addFile = (file: File) =>
    change(async () => {
      const { style } = await upload<KeptStyle>('/styles/file', file)
      notices.say(`“${style.name}” is among the house styles.`)
    })
  /** Give the newest version to all finishes that have an earlier one. */
  const renew = ({ id }: HouseStyle) =>
    change(async () => {
      const { finishes } = await post<{ finishes: number }>(`/styles/${id}/renew`)
      notices.say(finishes === 1 ? 'One finish was renewed.' : `${finishes} finishes were renewed.`)
    })

  return { list, chosen, loaded, load, loadOnce, setDefault, forget, addFile, renew }
})
