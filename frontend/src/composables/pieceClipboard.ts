// Copying pieces by the system's own clipboard, so that what was copied last is what is pasted: in
// another finish, in another tab, or a picture that was copied meanwhile.

import { useEventListener } from '@vueuse/core'

import type { Piece } from '../api/types'
import { useBench } from '../stores/bench'
import { useNotices } from '../stores/notices'
import { useSelection } from '../stores/selection'
import { isDialogOpen } from './dialogs'
import { isTyping } from './keyNames'
import { usePieceEdits } from './pieceEdits'

const TYPE = 'application/x-lucky-margin-pieces'

/** The pieces on a clipboard; null when there are none. */
export function piecesOn(clipboard: DataTransfer | null): Piece[] | null {
  const text = clipboard?.getData(TYPE)
  try {
    return text ? (JSON.parse(text) as Piece[]) : null
  } catch {
    return null
  }
}

export function usePieceClipboard(): void {
  const bench = useBench()
  const notices = useNotices()
  const selection = useSelection()
  const { paste } = usePieceEdits()

  const isHere = (event: Event) => bench.openStep === 'pieces' && !isDialogOpen() && !isTyping(event.target)

  useEventListener(document, 'copy', (event: ClipboardEvent) => {
    if (!isHere(event) || !selection.pieces.length || !event.clipboardData) return
    event.preventDefault()
    event.clipboardData.setData(TYPE, JSON.stringify(selection.pieces))
    const words = selection.pieces.flatMap((piece) => ('text' in piece && piece.text ? [piece.text] : []))
    event.clipboardData.setData('text/plain', words.join('\n'))
    notices.say('Copied; paste with Ctrl + V, in another finish too.')
  })

  useEventListener(document, 'paste', (event: ClipboardEvent) => {
    const pieces = isHere(event) ? piecesOn(event.clipboardData) : null
    if (!pieces) return
    event.preventDefault()
    event.stopPropagation() // no picture is pasted
    paste(pieces)
  })
}
