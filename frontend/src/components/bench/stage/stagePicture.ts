// The picture on the stage: what is asked for, and where what came lies.

import { watchDebounced } from '@vueuse/core'
import { storeToRefs } from 'pinia'
import { computed, onScopeDispose, ref, watch, type Ref } from 'vue'

import { usePictures, type PictureWish } from '../../../composables/pictures'
import { useBench } from '../../../stores/bench'
import { useProofs } from '../../../stores/proofs'
import { useStage } from '../../../stores/stage'

/** Pictures asked for at a time: one is drawn while the one before it travels. */
const LANES = 2
/** From how long on a picture is drawn coarsely while dragging, and then at what part of its scale. */
const SLOW_MS = 110
const COARSE = 0.5
const REST_MS = 250
/** A picture that takes longer is said to be under way. */
const LATE_MS = 700
/** A picture of more pixels than this is drawn only where it is seen. */
const WHOLE_PIXELS = 4_000_000
/** Seen regions begin and end on this grid, so that small pans need no new picture. */
const REGION_GRID = 256
type Wish = PictureWish & { width: number; height: number }

/** `width` and `height` are the stage's, `origin` is the picture's top left corner on it. */
export function useStagePicture(areaWidth: Ref<number>, areaHeight: Ref<number>, origin: Ref<{ x: number; y: number }>) {
  const bench = useBench()
  const stage = useStage()
  const { isCropping, view, picture } = storeToRefs(stage)
  const { urls: proofs } = useProofs()

  const { shown, ask, took, waitsFor } = usePictures<Wish>('stage', () => (bench.stageDrawn += 1), LANES)

  const isLate = ref(false)
  watch(waitsFor, (number, _, onCleanup) => {
    isLate.value = false
    bench.isStageDrawing = number > 0
    if (!number) return
    const timer = setTimeout(() => (isLate.value = true), LATE_MS)
    onCleanup(() => clearTimeout(timer))
  })
  onScopeDispose(() => (bench.isStageDrawing = false))

  /** While something is dragged the picture does not wait for the draft of it. */
  const asked = computed(() => {
    const draft = bench.draft!
    if (isCropping.value) return { draft, edit: null }
    if (bench.dragBase && bench.held.length) return { draft: bench.dragBase, edit: null }
    if (bench.dragBase) return { draft: bench.dragBase, edit: bench.dragEdit }
    return { draft, edit: bench.tried?.edit ?? null }
  })
  /** A picture that takes long is shown coarsely while it is dragged, and then as it will be. */
  const isCoarse = ref(false)
  // A drag that rests, or a pause in typing, is looked at.
  watchDebounced(
    () => bench.dragEdit,
    () => (isCoarse.value = false),
    { debounce: REST_MS },
  )
  watch(
    () => bench.dragEdit,
    (edit) => (isCoarse.value = !!edit && !isCropping.value && took.value > SLOW_MS),
  )
  const wish = computed<Wish | null>(() => {
    if (!bench.draft || !areaWidth.value) return null
    const { width, height } = picture.value
    const rough = isCoarse.value
    const scale = Math.min(1, stage.zoom * window.devicePixelRatio) * (rough ? COARSE : 1)
    return {
      ...asked.value,
      size_id: bench.sizeId,
      view: view.value,
      scale,
      region: seenRegion(scale),
      place: 'stage',
      rough,
      area: view.value === 'mask' && stage.masksOf ? stage.partNumber[stage.masksOf] : 0,
      masks_of: stage.masksOf ?? 'area',
      held: bench.held,
      width,
      height,
    }
  })
  /** What the picture depends on; while cropping, only the photo and how it is turned. */
  const wishKey = computed(() => {
    if (!wish.value) return ''
    const { draft, ...rest } = wish.value
    return JSON.stringify([isCropping.value ? [draft.document.photo, bench.here?.turn] : draft.draft, rest])
  })
  watch(wishKey, () => wish.value && ask(wish.value), { immediate: true })

  function seenRegion(scale: number): [number, number, number, number] | null {
    const columns = Math.max(1, Math.round(picture.value.width * scale))
    const rows = Math.max(1, Math.round(picture.value.height * scale))
    if (columns * rows <= WHOLE_PIXELS) return null
    const shrink = scale / stage.zoom
    const across = seen(-origin.value.x * shrink, areaWidth.value * shrink, columns)
    const down = seen(-origin.value.y * shrink, areaHeight.value * shrink, rows)
    return [across.start, down.start, across.length, down.length]
  }

  function seen(from: number, length: number, all: number): { start: number; length: number } {
    const start = Math.max(0, Math.floor(from / REGION_GRID) * REGION_GRID)
    const end = Math.min(all, Math.ceil((from + length) / REGION_GRID) * REGION_GRID)
    if (end <= start) return { start: 0, length: Math.min(all, REGION_GRID) }
    return { start, length: end - start }
  }

  /** Where the picture that is shown lies, in pixels of the one that is wanted, and how many of those each of its pixels is
      long. */
  const corner = computed(() => {
    const { width, height, view } = shown.value!.wish
    const wasCropping = view === 'photo'
    const layout = bench.shownLayout
    if (!layout || wasCropping === isCropping.value)
      // Until a new one comes it keeps its own proportions, about the same middle.
      return { x: (picture.value.width - width) / 2, y: (picture.value.height - height) / 2, length: 1 }
    // The photo and what is cut from it lie on each other while one makes way for the other.
    const { shown: here, sampled } = layout
    const length = sampled.width / here.width
    return wasCropping
      ? { x: here.left - sampled.left / length, y: here.top - sampled.top / length, length: 1 / length }
      : { x: sampled.left - here.left * length, y: sampled.top - here.top * length, length }
  })
  /** The proof of a size of which no picture has come yet. */
  const standIn = computed(() => {
    const isOfOther = shown.value && shown.value.wish.size_id !== bench.sizeId
    return isOfOther && view.value === 'final' ? proofs.get(bench.sizeId) : undefined
  })
  const url = computed(() => standIn.value ?? shown.value?.url)
  const placed = computed(() => {
    if (!shown.value) return {}
    if (standIn.value) return rectangle(0, 0, picture.value.width * stage.zoom, picture.value.height * stage.zoom)
    const { width, height, scale, region } = shown.value.wish
    const { x: left, y: top, length } = corner.value
    const unit = (length * stage.zoom) / scale
    const [x, y, wide, high] = region ?? [0, 0, width * scale, height * scale]
    return rectangle(left * stage.zoom + x * unit, top * stage.zoom + y * unit, wide * unit, high * unit)
  })

  /** A place on the stage, from the picture's top left corner. */
  function rectangle(left: number, top: number, width: number, height: number) {
    return {
      left: `${origin.value.x + left}px`,
      top: `${origin.value.y + top}px`,
      width: `${width}px`,
      height: `${height}px`,
      imageRendering: stage.zoom > 2 ? ('pixelated' as const) : ('auto' as const),
    }
  }

  return { url, placed, isLate, shown }
}
