// Keys while Text & badges is open: they act on the chosen pieces.

import { useSelection } from '../stores/selection'
import { arrowWay, isRemoving, writtenBy } from './keyNames'
import { usePieceEdits } from './pieceEdits'

export function usePieceKeys() {
  const selection = useSelection()
  const { remove, duplicate, nudge } = usePieceEdits()

  /** Whether the key was taken. With a text chosen, letters go into the text. */
  function onKey(event: KeyboardEvent): boolean {
    if (!selection.ids.length) return false
    const way = arrowWay(event)
    const isText = selection.only?.kind === 'text'
    if (way) nudge(...way)
    else if (isRemoving(event)) remove()
    else if (isText && writtenBy(event) !== null) selection.write(selection.only!.id, writtenBy(event)!)
    else return false
    return true
  }

  function onControlKey(key: string): boolean {
    if (key !== 'd' || !selection.ids.length) return false
    duplicate()
    return true
  }

  return { onKey, onControlKey }
}
