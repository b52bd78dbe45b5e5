// Edits of the chosen pieces, and adding new ones.

import { computed } from 'vue'

import type { Edit, Piece, PieceChanges } from '../api/types'
import { useBench } from '../stores/bench'
import { useSelection } from '../stores/selection'

export function usePieceEdits() {
  const bench = useBench()
  const selection = useSelection()
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

  function paste(copied: Piece[]): void {
    void add({ kind: 'paste_pieces', pieces: copied })
  }

  function nudge(dx: number, dy: number): void {
    void bench.edit(drag(dx, dy, 0), 'after a pause')
  }

  function drag(dx: number, dy: number, snap: number): Edit {
    return { kind: 'drag_pieces', ids: selection.ids, dx, dy, snap, only_this_size: bench.onlyThisSize }
  }

  return { pieces, set, add, remove, duplicate, paste, nudge, drag }
}
