// How the cut-out is worked on: the brush in hand and what is looked at. Nothing here edits.

import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'

import type { Brush, View } from '../api/types'
import { useBench } from './bench'

/** What the stage shows while the step is open. */
export type Look = Extract<View, 'final' | 'subject' | 'dimmed' | 'coverage'>

/** By how much a key makes the brush larger. */
const STEP = 1.2
/** Diameters in long sides of the photo. */
export const SMALLEST = 0.002
export const LARGEST = 0.3

export const useCutOut = defineStore('cutOut', () => {
  const bench = useBench()
  const brush = ref<Brush | null>(null)
  /** Diameter in long sides of the photo. */
  const size = ref(0.03)
  /** How much of an erasing brush fades out, 0 to 1. */
  const softness = ref(0.2)
  const showsStrokes = ref(false)
  /** Raised with each stroke, so that what it changed is shown. */
  const strokesDrawn = ref(0)
  /** Whether a press draws a box: in place of all, or one more. */
  const drawsBox = ref<'one' | 'more' | null>(null)
  /** Where the brush is put down by a key, in output pixels. */
  const cross = shallowRef<{ x: number; y: number } | null>(null)
  const chosenLook = ref<Look | null>(null)

  /** Of the upright photo, in its pixels. */
  const longSide = computed(() => {
    const { width, height } = bench.shownLayout!.photo_space
    return Math.max(width, height)
  })
  const isOpen = computed(() => bench.openStep === 'cut_out')
  const isOn = computed(() => !!bench.here?.cut_out.on)
  /** With a brush in hand, what was left out has to be seen too. */
  const look = computed<Look>(() => chosenLook.value ?? (brush.value ? 'dimmed' : 'final'))
  const view = computed<View>(() => {
    if (drawsBox.value) return 'before'
    return isOn.value ? look.value : 'final'
  })

  /** Take a brush in hand; the same again puts it away. */
  function take(wanted: Brush): void {
    drawsBox.value = null
    brush.value = brush.value === wanted ? null : wanted
  }

  function drawBox(which: 'one' | 'more'): void {
    brush.value = null
    drawsBox.value = drawsBox.value === which ? null : which
  }

  /** Whether there was anything in hand. */
  function putAway(): boolean {
    const had = !!brush.value || !!drawsBox.value
    brush.value = null
    drawsBox.value = null
    cross.value = null
    return had
  }

  /** Move the cross by so many steps of a quarter of the brush, from the picture's middle at first. */
  function moveCross(right: number, down: number): void {
    const { width, height, sampled, shown } = bench.layout!
    const step = (size.value * longSide.value * shown.width) / sampled.width / 4
    const { x, y } = cross.value ?? { x: width / 2, y: height / 2 }
    cross.value = {
      x: Math.min(width, Math.max(0, x + right * step)),
      y: Math.min(height, Math.max(0, y + down * step)),
    }
  }

  /** Put the brush down where the cross is. */
  function dab(): void {
    if (cross.value) void draw([cross.value])
  }

  /** A stroke through these places, in output pixels. */
  async function draw(places: { x: number; y: number }[]): Promise<void> {
    if (!brush.value) return
    const before = bench.document!.cut_out.strokes.length
    await bench.edit({
      kind: 'draw_stroke',
      brush: brush.value,
      radius: (size.value * longSide.value) / 2,
      softness: softness.value,
      points: places.map(({ x, y }) => turnedAt(x, y)),
    })
    if ((bench.document?.cut_out.strokes.length ?? 0) > before) strokesDrawn.value += 1
  }

  /** Where on the turned photo an output pixel lies. */
  function turnedAt(x: number, y: number): [number, number] {
    const { sampled, shown } = bench.layout!
    const scale = sampled.width / shown.width
    return [sampled.left + (x - shown.left) * scale, sampled.top + (y - shown.top) * scale]
  }

  function resize(factor: number): void {
    size.value = Math.min(LARGEST, Math.max(SMALLEST, size.value * factor))
  }

  // A place on one size is none on another.
  watch(() => bench.sizeId, () => (cross.value = null))
  watch([isOpen, isOn, () => bench.saved?.id], () => {
    putAway()
    showsStrokes.value = false
    chosenLook.value = null
  })

  return {
    brush,
    size,
    softness,
    showsStrokes,
    strokesDrawn,
    drawsBox,
    cross,
    moveCross,
    dab,
    draw,
    turnedAt,
    chosenLook,
    isOpen,
    isOn,
    longSide,
    look,
    view,
    take,
    drawBox,
    putAway,
    resize,
    larger: () => resize(STEP),
    smaller: () => resize(1 / STEP),
  }
})
