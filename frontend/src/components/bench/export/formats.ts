import type { ExportChanges } from '../../../api/types'

const LOSSLESS = ['png', 'tiff', 'gif', 'bmp']

/** Whether no quality has to be chosen. */
export function isLosslessExport({ format, lossless }: ExportChanges): boolean {
  return LOSSLESS.includes(format!) || (format === 'webp' && !!lossless)
}
