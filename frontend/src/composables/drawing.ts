// Drawing on the stage with the pointer, in output pixels.

import { ref } from 'vue'

import { useStage } from '../stores/stage'
import { followPointer } from './drags'
import type { Place } from './photoBrush'

/** Two places of a stroke nearer than this are one, in CSS pixels. */
const LEAST_WAY = 1.5

interface Options {
  /** The picture's top left corner on the stage, in CSS pixels. */
  origin: () => Place
  begin: () => void
  /** Whether only the first place and the last count, as of a box. */
  isBox?: () => boolean
  end: (places: Place[]) => void
}

export function useDrawing({ origin, begin, isBox = () => false, end }: Options) {
  const stage = useStage()
  /** The places of what is being drawn. */
  const drawn = ref<Place[]>([])
  const hovered = ref<Place | null>(null)

  function placeOf(event: PointerEvent): Place {
    const frame = (event.currentTarget as Element).getBoundingClientRect()
    return {
      x: (event.clientX - frame.left - origin().x) / stage.zoom,
      y: (event.clientY - frame.top - origin().y) / stage.zoom,
    }
  }

  function press(event: PointerEvent): void {
    if (event.button !== 0) return
    event.preventDefault()
    const start = placeOf(event)
    begin()
    drawn.value = [start]
    followPointer(event, {
      move: (dx, dy) => {
        const place = { x: start.x + dx / stage.zoom, y: start.y + dy / stage.zoom }
        const last = drawn.value.at(-1)
        hovered.value = place
        if (last && Math.hypot(place.x - last.x, place.y - last.y) * stage.zoom < LEAST_WAY) return
        drawn.value = isBox() ? [start, place] : [...drawn.value, place]
      },
      end: () => {
        end(drawn.value)
        drawn.value = []
      },
      cancel: () => (drawn.value = []),
    })
  }

  function hover(event: PointerEvent): void {
    hovered.value = placeOf(event)
  }

  return { drawn, hovered, press, hover }
}

/** SVG path data; a point is a line of no length, which round ends make a dot. */
export function lineOf(points: readonly (readonly number[])[]): string {
  if (!points.length) return ''
  const [first, ...others] = points
  return `M${first!.join(' ')}L${(others.length ? others : [first!]).map((point) => point.join(' ')).join('L')}`
}
