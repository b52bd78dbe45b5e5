// How the picture is looked at: zoom, place, surround, guides. Nothing here edits.

import { defineStore } from 'pinia'
import { computed, reactive, ref, shallowRef, watch } from 'vue'

import type { Box, Grip, View } from '../api/types'
import { useBench } from './bench'
import { useCutOut } from './cutOut'

export type Surround = 'light' | 'mid' | 'dark'
export type Guides = 'none' | 'thirds' | 'centre' | 'diagonals'

/** What a press on the stage does besides the open step's own. */
export type Tool = 'level line' | 'focus' | 'colour' | 'corners'

const GUIDES: Guides[] = ['thirds', 'centre', 'diagonals', 'none']
/** Where corners lie before they are dragged. */
const FIRST_CORNERS: [number, number][] = [
  [0.2, 0.2],
  [0.8, 0.2],
  [0.8, 0.8],
  [0.2, 0.8],
]
const MIN_ZOOM = 0.02
const MAX_ZOOM = 16
/** Screen pixels for each picture pixel when an edge is looked at. */
const EDGE_ZOOM = 2
const CORNERS = [
  [-1, -1],
  [1, -1],
  [1, 1],
  [-1, 1],
] as const

export const useStage = defineStore('stage', () => {
  const bench = useBench()
  const cutOut = useCutOut()
  /** CSS pixels for each picture pixel, or null to show the whole picture. */
  const zoomWish = ref<number | null>(null)
  /** How far the picture's centre is from the stage's, in CSS pixels. */
  const pan = shallowRef({ x: 0, y: 0 })
  const fitZoom = ref(1)
  const before = ref(false)
  const isSplit = ref(false)
  /** Every size is looked at, as wide as people see it, in place of the one in hand. */
  const asSeen = ref(false)
  /** Covered zones are being set, so they are shown with their grips. */
  const setsCovered = ref(false)
  /** Where before and after part, of the picture's width. */
  const splitAt = ref(0.5)
  const clipping = ref(false)
  const margin = ref(true)
  const surround = ref<Surround>('mid')
  const guides = ref<Guides>('thirds')
  const tool = ref<Tool | null>(null)
  /** Where the colour goes that is picked next. */
  let takeColour: ((colour: string) => void) | null = null
  /** Colours are picked from what is seen, or from the photo before any step but Crop. */
  const picksBefore = ref(false)
  /** The corners of something flat that is to be squared up, clockwise from the top left, as shares
   * of the turned photo's sides. */
  const corners = ref<[number, number][]>([...FIRST_CORNERS])
  /** A rectangle found in the photo, shown for approval, in turned pixels. */
  const found = shallowRef<Box | null>(null)
  /** What lies on the photo and is worked on, and which of each. */
  const partKind = ref<'wash' | 'area' | 'treatment' | 'lift' | null>(null)
  const partNumber = reactive({ wash: 0, area: 0, treatment: 0, lift: 0 })
  const showsMask = ref(false)
  let edge = 0
  const focusedGrip = ref<Grip>('move')
  /** The pixel under the pointer and, once it is read, its colour. */
  const readout = ref<{ x: number; y: number; colour: string | null } | null>(null)

  /** While Crop is open the finished picture is looked at, since what is set shows only there. */
  const looksAtResult = ref(false)
  const isCropping = computed(
    () => bench.openStep === 'crop' && !!bench.document?.photo && !before.value && !(looksAtResult.value && !tool.value),
  )
  /** What the masks of which are shown, if they are. */
  const masksOf = computed<'area' | 'treatment' | null>(() => {
    if (!showsMask.value) return null
    if (bench.openStep === 'tone' && partKind.value === 'area') {
      return partNumber.area < (bench.here?.tone.areas.length ?? 0) ? 'area' : null
    }
    const treatment = bench.here?.treatments.made[partNumber.treatment]
    const isWorkedOn = bench.openStep === 'treatments' && bench.here?.treatments.on
    return isWorkedOn && treatment?.masks.length ? 'treatment' : null
  })
  const view = computed<View>(() => {
    if (isCropping.value) return 'photo'
    if (before.value) return 'before'
    if (masksOf.value) return 'mask'
    if (cutOut.isOpen && cutOut.view !== 'final') return cutOut.view
    return clipping.value ? 'clipping' : 'final'
  })
  /** The picture's sides in its own pixels: those of the turned photo while cropping, else output pixels. */
  const picture = computed(() => {
    const layout = bench.shownLayout
    if (!layout) return { width: 1, height: 1 }
    return isCropping.value
      ? { width: layout.photo_width, height: layout.photo_height }
      : { width: layout.width, height: layout.height }
  })
  const zoom = computed(() => zoomWish.value ?? fitZoom.value)
  const isFitted = computed(() => zoomWish.value === null)

  /** Use a tool with the next press on the stage; the same again puts it away. */
  function take(wanted: Tool): void {
    if (wanted === 'corners') corners.value = [...FIRST_CORNERS]
    tool.value = tool.value === wanted ? null : wanted
    asSeen.value = false
  }

  function nextGuides(): void {
    guides.value = GUIDES[(GUIDES.indexOf(guides.value) + 1) % GUIDES.length]!
  }

  function pickColour(then: (colour: string) => void, from: 'as seen' | 'before' = 'as seen'): void {
    takeColour = then
    picksBefore.value = from === 'before'
    tool.value = 'colour'
  }

  function picked(colour: string): void {
    takeColour?.(colour)
    tool.value = null
  }

  watch([() => bench.openStep, () => bench.saved?.id], () => {
    tool.value = null
    found.value = null
  })

  function fit(): void {
    zoomWish.value = null
    pan.value = { x: 0, y: 0 }
  }

  /** One picture pixel to one pixel of the screen. */
  function actualPixels(): void {
    zoomAt(1 / window.devicePixelRatio, { x: 0, y: 0 })
  }

  /** Look at the picture's corners closely, one after the other. */
  function nextEdge(): void {
    const { width, height } = picture.value
    const [x, y] = CORNERS[edge % CORNERS.length]!
    edge += 1
    zoomWish.value = EDGE_ZOOM / window.devicePixelRatio
    pan.value = { x: (-x * width * zoomWish.value) / 2, y: (-y * height * zoomWish.value) / 2 }
  }

  function zoomBy(factor: number, at = { x: 0, y: 0 }): void {
    zoomAt(zoom.value * factor, at)
  }

  /** Zoom so that what is at `at` (CSS pixels from the stage's centre) stays there. */
  function zoomAt(wish: number, at: { x: number; y: number }): void {
    const next = Math.min(MAX_ZOOM, Math.max(MIN_ZOOM, wish))
    const grown = next / zoom.value
    pan.value = { x: at.x - (at.x - pan.value.x) * grown, y: at.y - (at.y - pan.value.y) * grown }
    zoomWish.value = next
  }

  function panBy(x: number, y: number): void {
    zoomWish.value = zoom.value
    pan.value = { x: pan.value.x + x, y: pan.value.y + y }
  }

  return {
    pan,
    looksAtResult,
    isCropping,
    view,
    picture,
    zoom,
    fitZoom,
    isFitted,
    before,
    isSplit,
    asSeen,
    setsCovered,
    splitAt,
    clipping,
    margin,
    surround,
    focusedGrip,
    readout,
    guides,
    tool,
    corners,
    found,
    partKind,
    partNumber,
    showsMask,
    masksOf,
    take,
    nextGuides,
    pickColour,
    picksBefore,
    picked,
    fit,
    actualPixels,
    nextEdge,
    zoomBy,
    panBy,
  }
})
