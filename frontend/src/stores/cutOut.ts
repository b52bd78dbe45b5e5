// How the cut-out is worked on: the brush in hand and what is looked at. Nothing here edits.

import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'

import type { Brush, View } from '../api/types'
import { createPhotoBrush, type Place } from '../composables/photoBrush'
import { useBench } from './bench'

/** What the stage shows while the step is open. */
export type Look = Extract<View, 'final' | 'subject' | 'dimmed' | 'coverage'>

export const useCutOut = defineStore('cutOut', () => {
  const bench = useBench()
  const brush = ref<Brush | null>(null)
  const inHand = createPhotoBrush(0.03)
  /** How much of an erasing brush fades out, 0 to 1. */
  const softness = ref(0.2)
  const showsStrokes = ref(false)
  /** Raised with each stroke, so that what it changed is shown. */
  const strokesDrawn = ref(0)
  /** Whether a press draws a box: in place of all, or one more. */
  const drawsBox = ref<'one' | 'more' | null>(null)
  const chosenLook = ref<Look | null>(null)

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
    inHand.cross.value = null
    return had
  }

  /** Put the brush down where the cross is. */
  function dab(): void {
    if (inHand.cross.value) void draw([inHand.cross.value])
  }

  /** A stroke through these places, in output pixels. */
  async function draw(places: Place[]): Promise<void> {
    if (!brush.value) return
    const before = bench.document!.cut_out.strokes.length
    await bench.edit({
      kind: 'draw_stroke',
      brush: brush.value,
      radius: inHand.radius.value,
      softness: softness.value,
      points: places.map(inHand.turnedAt),
    })
    if ((bench.document?.cut_out.strokes.length ?? 0) > before) strokesDrawn.value += 1
  }

  watch([isOpen, isOn, () => bench.saved?.id], () => {
    putAway()
    showsStrokes.value = false
    chosenLook.value = null
  })

  return {
    ...inHand,
    brush,
    softness,
    showsStrokes,
    strokesDrawn,
    drawsBox,
    dab,
    draw,
    chosenLook,
    isOpen,
    isOn,
    look,
    view,
    take,
    drawBox,
    putAway,
  }
})
