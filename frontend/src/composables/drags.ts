// Following a pointer from press to release, with capture, for mouse, pen and touch alike.

export interface DragHandlers {
  /** The way from where the pointer went down, in CSS pixels. */
  move: (dx: number, dy: number, event: PointerEvent) => void
  end: () => void
}

/** A pointer that moves less than this many CSS pixels is a click. */
const CLICK_PX = 3

/** The pointer may also be lost to the system, without a release. */
const ENDS = ['pointerup', 'pointercancel', 'lostpointercapture'] as const

export function followPointer(start: PointerEvent, handlers: DragHandlers): void {
  const target = start.currentTarget as HTMLElement
  target.setPointerCapture(start.pointerId)
  let moved = false

  function move(event: PointerEvent): void {
    const dx = event.clientX - start.clientX
    const dy = event.clientY - start.clientY
    moved ||= Math.hypot(dx, dy) >= CLICK_PX
    if (moved) handlers.move(dx, dy, event)
  }

  function finish(): void {
    target.removeEventListener('pointermove', move)
    ENDS.forEach((end) => target.removeEventListener(end, finish))
    handlers.end()
  }

  target.addEventListener('pointermove', move)
  ENDS.forEach((end) => target.addEventListener(end, finish))
}
