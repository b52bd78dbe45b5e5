// Outlines that come with the application.

import type { SubjectOutline } from '../../../api/types'

export const INK = '#1E2A2F'

export const PLAIN: SubjectOutline = {
  width: 0.02,
  gap: 0,
  softness: 0,
  strength: 1,
  colour: '#FFFFFF',
  opacity: 1,
  inside: false,
  blend: 'normal',
}

export const READY: Record<string, SubjectOutline[]> = {
  none: [],
  white: [PLAIN],
  bold: [{ ...PLAIN, width: 0.045 }],
  double: [
    { ...PLAIN, width: 0.012, gap: 0.024, colour: INK },
    { ...PLAIN, width: 0.024 },
  ],
  keyline: [{ ...PLAIN, width: 0.006, gap: 0.015 }],
  glow: [{ ...PLAIN, width: 0.1, softness: 1, strength: 1.6, colour: '#FFF3D0' }],
}
