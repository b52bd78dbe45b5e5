// A brush that is put down on the photo, by the pointer or, at a cross, by keys.

import { computed, ref, shallowRef, watch } from 'vue'

import { useBench } from '../stores/bench'

export interface Place {
  x: number
  y: number
}

/** By how much a key makes the brush larger. */
const STEP = 1.2
/** Diameters in long sides of the photo. */
export const SMALLEST = 0.002
export const LARGEST = 0.3

/** A brush of so many long sides at first; places are in output pixels. */
export function createPhotoBrush(diameter: number) {
  const bench = useBench()
  /** Diameter in long sides of the photo. */
  const size = ref(diameter)
  /** Where the brush is put down by a key. */
  const cross = shallowRef<Place | null>(null)

  /** Of the upright photo, in its pixels. */
  const longSide = computed(() => {
    const { width, height } = bench.shownLayout!.photo_space
    return Math.max(width, height)
  })
  /** In photo pixels. */
  const radius = computed(() => (size.value * longSide.value) / 2)
  /** In output pixels. */
  const shownRadius = computed(() => {
    const { sampled, shown } = bench.shownLayout!
    return (radius.value * shown.width) / sampled.width
  })

  /** Move the cross by so many steps of a quarter of the brush, from the picture's middle at first. */
  function moveCross(right: number, down: number): void {
    const { width, height } = bench.layout!
    const step = shownRadius.value / 2
    const { x, y } = cross.value ?? { x: width / 2, y: height / 2 }
    cross.value = {
      x: Math.min(width, Math.max(0, x + right * step)),
      y: Math.min(height, Math.max(0, y + down * step)),
    }
  }

  /** Where on the turned photo an output pixel lies. */
  function turnedAt({ x, y }: Place): [number, number] {
    const { sampled, shown } = bench.layout!
    const scale = sampled.width / shown.width
    return [sampled.left + (x - shown.left) * scale, sampled.top + (y - shown.top) * scale]
  }

  function resize(factor: number): void {
    size.value = Math.min(LARGEST, Math.max(SMALLEST, size.value * factor))
  }

  // A place on one size is none on another.
  watch(() => bench.sizeId, () => (cross.value = null))

  return {
    size,
    cross,
    longSide,
    radius,
    shownRadius,
    moveCross,
    turnedAt,
    resize,
    larger: () => resize(STEP),
    smaller: () => resize(1 / STEP),
  }
}
