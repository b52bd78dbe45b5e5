// Drags that edit: each move is an edit of the state the drag began in, its end is saved.

import type { Edit } from '../api/types'
import { useBench } from '../stores/bench'
import { followPointer } from './drags'

/** How near a line draws what is dragged to it, in CSS pixels. */
export const SNAP_PX = 7

export function useEditDrags() {
  const bench = useBench()

  /** Follow the pointer, making the edit that its way (CSS pixels) asks for. */
  function follow(start: PointerEvent, editOf: (dx: number, dy: number, event: PointerEvent) => Edit): void {
    if (start.button !== 0) return
    let begun = false
    followPointer(start, {
      move: (dx, dy, event) => {
        if (begun && !bench.isDragging) return // Escape has cancelled this drag
        begun = true
        bench.drag(editOf(dx, dy, event))
      },
      end: () => void bench.endDrag(),
      cancel: () => void bench.cancelDrag(),
    })
  }

  return { follow }
}

/** How far lines reach at this zoom, in photo pixels; Ctrl suspends snapping. */
export function snapOf(event: { ctrlKey: boolean; metaKey: boolean }, zoom: number): number {
  return event.ctrlKey || event.metaKey ? 0 : SNAP_PX / zoom
}
