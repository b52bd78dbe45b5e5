import type { AreaMask } from '../../../api/types'

export const MASK_NAMES: Record<AreaMask['kind'], string> = {
  band: 'band',
  ellipse: 'ellipse',
  light: 'lightness',
  hue: 'hue',
}
