import type { SizePlan } from '../../api/types'

/** A plan's measures: "1080 × 1350 px", "50 × 40 mm, 300 ppi". */
export function planInWords({ pixels }: SizePlan): string {
  if (pixels.kind === 'as_cropped') return 'as cropped'
  if (pixels.kind === 'one_side') return `${pixels.side} ${pixels.length} px`
  const { printed } = pixels
  if (printed) return `${printed.width} × ${printed.height} ${printed.unit}, ${printed.ppi} ppi`
  return `${pixels.width} × ${pixels.height} px`
}

/** Width over height, or a usual one where the window decides. */
export function ratioOfPlan({ pixels }: SizePlan): number {
  return pixels.kind === 'fixed' ? pixels.width / pixels.height : 1.25
}
