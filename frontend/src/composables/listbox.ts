// A list of which one is chosen, worked as a listbox: the arrow keys walk, letters lead to names
// that begin with them, Enter or Space takes.

import { useTimeoutFn } from '@vueuse/core'
import { computed, nextTick, ref, watch, type Ref } from 'vue'

import { isCharacter, isChoosing, isSpace, lineStep, on, writtenBy } from './keyNames'

export interface Option<Key> {
  key: Key
  name: string
}

interface Does<Key> {
  choose: (key: Key) => void
  close: () => void
}

/** Letters that follow one another faster than this are one beginning. */
const BEGINNING_MS = 700

export function useListbox<Key extends string>(
  list: Ref<HTMLElement | undefined>,
  options: () => readonly Option<Key>[],
  does: Does<Key>,
) {
  const at = ref(-1)
  const active = computed(() => options()[at.value]?.key ?? null)
  let beginning = ''
  const forget = useTimeoutFn(() => (beginning = ''), BEGINNING_MS, { immediate: false })

  watch(at, async () => {
    await nextTick()
    list.value?.querySelector('[data-active=true]')?.scrollIntoView({ block: 'nearest' })
  })

  /** Walk from this option on. */
  function startAt(key: Key): void {
    at.value = options().findIndex((option) => option.key === key)
  }

  function keydown(event: KeyboardEvent): void {
    const last = options().length - 1
    const step = lineStep(event)
    if (step === 'first') at.value = 0
    else if (step === 'last') at.value = last
    else if (step) at.value = Math.min(last, Math.max(0, at.value + step))
    else if (takes(event) && active.value !== null) does.choose(active.value)
    else if (on('Escape')(event)) does.close()
    else if (isCharacter(event)) lookFor(writtenBy(event)!)
    else return
    event.preventDefault()
    event.stopPropagation()
  }

  /** A space within a beginning is a part of it. */
  const takes = (event: KeyboardEvent) => isChoosing(event) && (!beginning || !isSpace(event))

  /** The next option whose name begins with what was typed. */
  function lookFor(letter: string): void {
    beginning += letter.toLowerCase()
    forget.start()
    const all = options()
    const from = beginning.length === 1 ? at.value + 1 : at.value
    const order = [...all.slice(from), ...all.slice(0, from)]
    const found = order.find(({ name }) => name.toLowerCase().startsWith(beginning))
    if (found) startAt(found.key)
  }

  return { active, startAt, keydown }
}
