// Edits of the chosen pieces, and adding new ones.

import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'

import type { Edit, Piece, PieceChanges } from '../api/types'
import { useBench } from '../stores/bench'
import { useNotices } from '../stores/notices'
import { useSelection } from '../stores/selection'

export function usePieceEdits() {
  const bench = useBench()
  const notices = useNotices()
  const selection = useSelection()
  const copied = useLocalStorage('lucky-margin-copied-pieces', '')
  const pieces = computed(() => bench.here?.pieces ?? [])

  /** The edit that gives the chosen pieces, or these, other fields. */
  function set(changes: Partial<PieceChanges>, ids = selection.ids): Edit {
    return {
      kind: 'set_piece',
      ids,
      changes: changes as PieceChanges,
      only_this_size: bench.onlyThisSize,
    }
  }

  /** Make an edit that adds pieces at the front, and choose those. */
  async function add(edit: Edit): Promise<void> {
    const before = new Set(pieces.value.map(({ id }) => id))
    await bench.edit(edit)
    selection.choose(pieces.value.map(({ id }) => id).filter((id) => !before.has(id)))
  }

  function remove(): void {
    if (selection.ids.length) void bench.edit({ kind: 'remove_pieces', ids: selection.ids })
  }

  function duplicate(): void {
    if (selection.ids.length) void add({ kind: 'duplicate_pieces', ids: selection.ids })
  }

  function copy(): void {
    if (!selection.pieces.length) return
    copied.value = JSON.stringify(selection.pieces)
    notices.say('Copied; paste with Ctrl + V, in another finish too.')
  }

  function paste(): void {
    if (copied.value) void add({ kind: 'paste_pieces', pieces: JSON.parse(copied.value) as Piece[] })
  }

  function nudge(dx: number, dy: number): void {
    void bench.edit(drag(dx, dy, 0), 'after a pause')
  }

  function drag(dx: number, dy: number, snap: number): Edit {
    return { kind: 'drag_pieces', ids: selection.ids, dx, dy, snap, only_this_size: bench.onlyThisSize }
  }

  return { pieces, copied, set, add, remove, duplicate, copy, paste, nudge, drag }
}
