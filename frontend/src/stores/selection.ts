// Which pieces are chosen on the stage, and which text is being written.

import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'

import { useBench } from './bench'

interface Beginning {
  letter?: string
  spot?: { x: number; y: number }
}

export const useSelection = defineStore('selection', () => {
  const bench = useBench()
  const wished = ref<string[]>([])
  /** Whether the corners of the only piece are pulled freely, not to scale it. */
  const pullsCorners = ref(false)
  const typing = ref<string | null>(null)
  /** How the writing began: by typing a letter, by a press on the picture (output pixels), or neither. */
  const beginning = shallowRef<Beginning>({})
  /** Raised whenever writing begins, in the same text again too. */
  const writes = ref(0)
  /** What is marked of the text that is written, in UTF-16 units; its caret stands at the end, or at the
   * start when it was marked backwards. */
  const marked = shallowRef({ start: 0, end: 0, backwards: false })

  /** Pieces that are gone, by undo for one, are no longer chosen. */
  const ids = computed(() => {
    const there = bench.here?.pieces.map(({ id }) => id) ?? []
    return wished.value.filter((id) => there.includes(id))
  })
  const pieces = computed(() => bench.here?.pieces.filter(({ id }) => ids.value.includes(id)) ?? [])
  const only = computed(() => (pieces.value.length === 1 ? pieces.value[0]! : null))

  function choose(chosen: string[]): void {
    if (chosen.join() !== wished.value.join()) pullsCorners.value = false
    wished.value = chosen
    if (!chosen.includes(typing.value ?? '')) typing.value = null
  }

  /** A piece with all that are grouped with it. */
  function groupOf(id: string): string[] {
    const all = bench.here?.pieces ?? []
    const group = all.find((piece) => piece.id === id)?.group
    return group ? all.filter((piece) => piece.group === group).map((piece) => piece.id) : [id]
  }

  /** Add a piece to those chosen, or take it away again. */
  function toggle(id: string): void {
    const group = groupOf(id)
    const others = ids.value.filter((one) => !group.includes(one))
    choose(ids.value.includes(id) ? others : [...others, ...group])
  }

  const clear = () => choose([])

  /** Write in a text on the stage. */
  function write(id: string, how: Beginning = {}): void {
    wished.value = [id]
    beginning.value = how
    typing.value = id
    writes.value += 1
  }

  watch([() => bench.openStep, () => bench.saved?.id], clear)

  return { ids, pieces, only, pullsCorners, typing, beginning, writes, marked, groupOf, choose, toggle, clear, write }
})
