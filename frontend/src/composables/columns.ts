// The widths of the docket and the proofs, which can be dragged and stay as they were left.

import { useLocalStorage, useWindowSize } from '@vueuse/core'
import { computed } from 'vue'

export type Column = 'docket' | 'proofs'

interface Width {
  /** In CSS pixels. */
  least: number
  most: number
  /** Of the window, where nothing is set. */
  share: number
  mostUnset: number
}

export const COLUMNS: Record<Column, Width> = {
  docket: { least: 296, most: 460, share: 0.24, mostUnset: 380 },
  proofs: { least: 190, most: 420, share: 0.176, mostUnset: 320 },
}
/** The stage never becomes narrower than this by dragging, in CSS pixels. */
const STAGE_LEAST = 460

export function useColumns() {
  const window = useWindowSize()
  const set = useLocalStorage<Partial<Record<Column, number>>>('lucky-margin-columns', {})

  const widths = computed(() => ({ docket: width('docket'), proofs: width('proofs') }))

  function width(column: Column): number {
    const { least, most, share, mostUnset } = COLUMNS[column]
    const unset = Math.min(mostUnset, share * window.width.value)
    return Math.round(Math.min(most, Math.max(least, set.value[column] ?? unset)))
  }

  function resize(column: Column, wanted: number): void {
    const other = column === 'docket' ? 'proofs' : 'docket'
    const room = window.width.value - widths.value[other] - STAGE_LEAST
    const { least, most } = COLUMNS[column]
    set.value = { ...set.value, [column]: Math.max(least, Math.min(most, room, wanted)) }
  }

  function reset(column: Column): void {
    set.value = { ...set.value, [column]: undefined }
  }

  return { widths, resize, reset }
}
