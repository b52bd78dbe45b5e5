// Two fingers on the stage move and zoom the view; what the first one had begun is called off.

import { useEventListener } from '@vueuse/core'
import type { Ref } from 'vue'

import { useStage } from '../stores/stage'
import { cancelDrags } from './drags'

interface Finger {
  x: number
  y: number
}

export function useTouchView(area: Ref<HTMLElement | undefined>): void {
  const stage = useStage()
  const fingers = new Map<number, Finger>()
  /** From the second finger until the last one is up, touches are of the view only. */
  let isViewing = false

  const isTouch = (event: PointerEvent) => event.pointerType === 'touch'

  useEventListener(
    area,
    'pointerdown',
    (event: PointerEvent) => {
      if (!isTouch(event)) return
      fingers.set(event.pointerId, placeOf(event))
      if (fingers.size < 2) return
      event.stopPropagation()
      isViewing = true
      cancelDrags()
    },
    { capture: true },
  )

  useEventListener(
    window,
    'pointermove',
    (event: PointerEvent) => {
      if (!fingers.has(event.pointerId)) return
      const before = spread()
      fingers.set(event.pointerId, placeOf(event))
      if (!isViewing) return
      event.stopPropagation()
      const now = spread()
      if (!before || !now) return
      stage.panBy(now.x - before.x, now.y - before.y)
      stage.zoomBy(now.size / before.size, fromCentre(now))
    },
    { capture: true },
  )

  useEventListener(window, ['pointerup', 'pointercancel'], (event: PointerEvent) => {
    fingers.delete(event.pointerId)
    if (!fingers.size) isViewing = false
  })

  const placeOf = ({ clientX, clientY }: PointerEvent): Finger => ({ x: clientX, y: clientY })

  /** The middle of two fingers and how far they are apart, in CSS pixels. */
  function spread(): (Finger & { size: number }) | null {
    const [one, other] = fingers.values()
    if (!one || !other) return null
    const size = Math.max(1, Math.hypot(one.x - other.x, one.y - other.y))
    return { x: (one.x + other.x) / 2, y: (one.y + other.y) / 2, size }
  }

  function fromCentre({ x, y }: Finger): Finger {
    const frame = area.value!.getBoundingClientRect()
    return { x: x - frame.left - frame.width / 2, y: y - frame.top - frame.height / 2 }
  }
}
