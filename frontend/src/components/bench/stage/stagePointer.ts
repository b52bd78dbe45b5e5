// The pointer on the stage where nothing else takes it: reading and picking colours, zooming and
// moving the view.

import { useEventListener } from '@vueuse/core'
import { storeToRefs } from 'pinia'
import { ref, type Ref } from 'vue'

import { followPointer } from '../../../composables/drags'
import { isSpace } from '../../../composables/keyNames'
import { useLatest } from '../../../composables/latest'
import { useBench } from '../../../stores/bench'
import { useCutOut } from '../../../stores/cutOut'
import { useNotices } from '../../../stores/notices'
import { useSpots } from '../../../stores/spots'
import { useStage } from '../../../stores/stage'

/** How much one wheel unit scales, as an exponent. */
const WHEEL_SPEED = 0.0015
/** Radius of the disc that a picked colour is the mean of, in picture pixels. */
const PICK_RADIUS = 4

export function useStagePointer(
  area: Ref<HTMLElement | undefined>,
  origin: Ref<{ x: number; y: number }>,
  /** Whether the wheel may scale the window. */
  scalesWindow: Ref<boolean>,
) {
  const bench = useBench()
  const stage = useStage()
  const cutOut = useCutOut()
  const spots = useSpots()
  const notices = useNotices()
  const { view, picture } = storeToRefs(stage)
  const spaceHeld = ref(false)
  const pointer = ref<{ x: number; y: number } | null>(null)

  // The colour under the pointer
  const reading = useLatest<{ x: number; y: number }>(async ({ x, y }) => {
    try {
      const { colour } = await bench.ask<{ colour: string | null }>('/bench/pixel', { view: view.value, x, y })
      if (stage.readout?.x === x && stage.readout.y === y) stage.readout = { x, y, colour }
    } catch {
      stage.readout = null // the picture changed under the pointer; the next move reads again
    }
  })

  function read(event: PointerEvent): void {
    const frame = area.value!.getBoundingClientRect()
    pointer.value = { x: event.clientX - frame.left, y: event.clientY - frame.top }
    const x = Math.floor((pointer.value.x - origin.value.x) / stage.zoom)
    const y = Math.floor((pointer.value.y - origin.value.y) / stage.zoom)
    const inside = x >= 0 && y >= 0 && x < picture.value.width && y < picture.value.height
    stage.readout = inside ? { x, y, colour: stage.readout?.colour ?? null } : null
    // A colour has to be drawn to be read, and what is dragged comes first.
    if (inside && !event.buttons) reading.ask({ x, y })
  }

  function leave(): void {
    pointer.value = null
    stage.readout = null
  }

  async function pick(event: PointerEvent): Promise<void> {
    read(event)
    const spot = stage.readout
    if (!spot) return
    const { x, y } = spot
    const from = stage.picksBefore ? 'before' : view.value
    const body = { view: from, x, y, radius: PICK_RADIUS }
    try {
      const { colour } = await bench.ask<{ colour: string | null }>('/bench/pixel', body)
      if (colour) stage.picked(colour)
    } catch (error) {
      notices.tell(error)
    }
  }

  // Zooming and moving the view; neither edits. With Alt the wheel scales the window.
  function wheel(event: WheelEvent): void {
    if (event.altKey) {
      const brush = spots.isOpen ? spots : cutOut.isOpen && cutOut.brush ? cutOut : null
      if (brush) {
        brush.resize(Math.exp(-(event.deltaY || event.deltaX) * WHEEL_SPEED))
        return
      }
      if (!scalesWindow.value) return
      const factor = Math.exp((event.deltaY || event.deltaX) * WHEEL_SPEED)
      void bench.edit({ kind: 'scale_window', factor: Math.min(4, Math.max(0.25, factor)) }, 'after a pause')
      return
    }
    const frame = area.value!.getBoundingClientRect()
    const at = {
      x: event.clientX - frame.left - frame.width / 2,
      y: event.clientY - frame.top - frame.height / 2,
    }
    stage.zoomBy(Math.exp(-event.deltaY * WHEEL_SPEED), at)
  }

  function pressed(event: PointerEvent): void {
    if (stage.tool === 'colour' && event.button === 0) {
      event.stopPropagation()
      event.preventDefault()
      void pick(event)
      return
    }
    if (!spaceHeld.value && event.button !== 1) return
    event.stopPropagation()
    event.preventDefault()
    let last = { dx: 0, dy: 0 }
    followPointer(event, {
      move: (dx, dy) => {
        stage.panBy(dx - last.dx, dy - last.dy)
        last = { dx, dy }
      },
      end: () => {},
    })
  }

  useEventListener(window, 'keydown', (event: KeyboardEvent) => {
    if (!isSpace(event) || !(event.target instanceof HTMLElement)) return
    if (event.target.matches('input, textarea, button, a, [role=slider], [role=switch]')) return
    event.preventDefault()
    spaceHeld.value = true
  })
  useEventListener(window, 'keyup', (event: KeyboardEvent) => {
    if (isSpace(event)) spaceHeld.value = false
  })
  useEventListener(window, 'blur', () => (spaceHeld.value = false))

  return { pointer, spaceHeld, read, leave, wheel, pressed }
}
