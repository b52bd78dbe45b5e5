// What masks are called.

import type { AreaMask, MaskKind } from '../../../api/types'

export const MASK_NAMES: Record<MaskKind, string> = {
  band: 'band',
  ellipse: 'ellipse',
  light: 'lightness',
  hue: 'hue',
  subject: 'subject',
}

export const MASK_KINDS = Object.keys(MASK_NAMES) as MaskKind[]

export function maskName({ kind, inverted }: AreaMask): string {
  if (kind === 'subject' && inverted) return 'all but the subject'
  return MASK_NAMES[kind]
}
