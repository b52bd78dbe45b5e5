// Following a pointer from press to release, with capture, for mouse, pen and touch alike.

export interface DragHandlers {
  /** The way from where the pointer went down, in CSS pixels. */
  move: (dx: number, dy: number, event: PointerEvent) => void
  end: () => void
  /** The drag is called off, by a second finger; without this it just ends. */
  cancel?: () => void
}

/** How the drags under way are called off. */
const underWay = new Set<() => void>()

/** Call off all drags that are under way. */
export function cancelDrags(): void {
  for (const cancel of [...underWay]) cancel()
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

  function letGo(): void {
    target.removeEventListener('pointermove', move)
    ENDS.forEach((end) => target.removeEventListener(end, finish))
    underWay.delete(cancel)
  }

  function finish(): void {
    letGo()
    handlers.end()
  }

  function cancel(): void {
    letGo()
    ;(handlers.cancel ?? handlers.end)()
  }

  target.addEventListener('pointermove', move)
  ENDS.forEach((end) => target.addEventListener(end, finish))
  underWay.add(cancel)
}
