import type { Area } from '../../../api/types'

/** Light and colour of all but the subject that people often want, by name. */
export const READY_AREAS: Record<string, Partial<Record<keyof Area, number>>> = {
  'calm background': { saturation: -35, contrast: -40, highlights: -20 },
  'dark background': { exposure: -1.4, saturation: -20 },
  'colour on the subject only': { saturation: -100 },
}
