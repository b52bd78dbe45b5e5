import type { Sides } from '../api/types'

/** The same fraction on every side. */
export function evenSides(fraction: number): Sides {
  return { top: fraction, right: fraction, bottom: fraction, left: fraction }
}
