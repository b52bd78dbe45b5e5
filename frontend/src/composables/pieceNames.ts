// What a piece is called: its words, or what it is.

import { FORMS } from '../components/bench/pieces/forms'
import type { Piece } from '../api/types'

export function pieceName(piece: Piece): string {
  if (piece.kind === 'text') return piece.text.trim().replace(/\s+/g, ' ') || 'empty text'
  if (piece.kind === 'mark') return piece.mark.name
  if (piece.kind === 'picture') return piece.subject?.name ?? 'Picture'
  const words = piece.text.trim() || piece.icon?.replaceAll('-', ' ')
  return words ? `${FORMS[piece.form]} “${words}”` : FORMS[piece.form]
}
