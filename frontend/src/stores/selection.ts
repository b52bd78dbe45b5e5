// Which pieces are chosen on the stage, and which text is being written.

import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'

import { useBench } from './bench'

export const useSelection = defineStore('selection', () => {
  const bench = useBench()
  const wished = ref<string[]>([])
  const typing = ref<string | null>(null)
  /** The letter that the writing began with, when it began by typing. */
  const firstLetter = ref('')

  /** Pieces that are gone, by undo for one, are no longer chosen. */
  const ids = computed(() => {
    const there = bench.here?.pieces.map(({ id }) => id) ?? []
    return wished.value.filter((id) => there.includes(id))
  })
  const pieces = computed(() => bench.here?.pieces.filter(({ id }) => ids.value.includes(id)) ?? [])
  const only = computed(() => (pieces.value.length === 1 ? pieces.value[0]! : null))

  function choose(chosen: string[]): void {
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
  function write(id: string, letter = ''): void {
    wished.value = [id]
    firstLetter.value = letter
    typing.value = id
  }

  watch([() => bench.openStep, () => bench.saved?.id], clear)

  return { ids, pieces, only, typing, firstLetter, groupOf, choose, toggle, clear, write }
})
