<script setup lang="ts">
import { useElementSize, useEventListener, watchDebounced } from '@vueuse/core'
import { storeToRefs } from 'pinia'
import { computed, ref, watch } from 'vue'

import { followPointer } from '../../../composables/drags'
import { useLatest } from '../../../composables/latest'
import { usePictures, type PictureWish } from '../../../composables/pictures'
import { useBench } from '../../../stores/bench'
import { useNotices } from '../../../stores/notices'
import { useStage } from '../../../stores/stage'
import CropOverlay from './CropOverlay.vue'
import FrameDrag from './FrameDrag.vue'
import HeldPieces from './HeldPieces.vue'
import MarginGuide from './MarginGuide.vue'
import PieceLayer from './PieceLayer.vue'
import RulerStrip from './RulerStrip.vue'
import SplitView from './SplitView.vue'
import ToneGrips from './ToneGrips.vue'
import WatermarkGrip from './WatermarkGrip.vue'

/** Pictures asked for at a time: one is drawn while the one before it travels. */
const LANES = 2
/** From how long on a picture is drawn coarsely while dragging, and then at what part of its scale. */
const SLOW_MS = 110
const COARSE = 0.5
const REST_MS = 250
/** A picture of more pixels than this is drawn only where it is seen. */
const WHOLE_PIXELS = 4_000_000
/** Seen regions begin and end on this grid, so that small pans need no new picture. */
const REGION_GRID = 256
/** Room round the picture, in CSS pixels: for grips and their numbers, or just for air. */
const GRIP_ROOM = 54
const AIR = 24
/** How much one wheel unit scales, as an exponent. */
const WHEEL_SPEED = 0.0015
/** The picture is shown larger than its pixels only when it is smaller than this. */
const SMALL = 300

type Wish = PictureWish & { width: number; height: number }

const bench = useBench()
const stage = useStage()
const notices = useNotices()
const area = ref<HTMLElement>()
const { width: areaWidth, height: areaHeight } = useElementSize(area)
const spaceHeld = ref(false)
const pointer = ref<{ x: number; y: number } | null>(null)

const { isCropping, view, picture } = storeToRefs(stage)
const origin = computed(() => ({
  x: areaWidth.value / 2 + stage.pan.x - (picture.value.width * stage.zoom) / 2,
  y: areaHeight.value / 2 + stage.pan.y - (picture.value.height * stage.zoom) / 2,
}))

watch(
  [areaWidth, areaHeight, picture],
  () => {
    const room = 2 * (isCropping.value ? GRIP_ROOM : AIR)
    const { width, height } = picture.value
    const fitted = Math.min((areaWidth.value - room) / width, (areaHeight.value - room) / height)
    const largest = Math.max(1, SMALL / Math.max(width, height))
    stage.fitZoom = Math.max(0.005, Math.min(fitted, largest))
  },
  { immediate: true },
)
watch(view, () => stage.fit())

const { shown, ask, took } = usePictures<Wish>('stage', () => (bench.stageDrawn += 1), LANES)

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
    area: view.value === 'mask' ? stage.partNumber.area : 0,
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

/** Where the drawn picture lies; until a new one comes it keeps its own proportions. */
const placed = computed(() => {
  if (!shown.value) return {}
  const { width, height, scale, region } = shown.value.wish
  const centre = {
    x: origin.value.x + (picture.value.width * stage.zoom) / 2,
    y: origin.value.y + (picture.value.height * stage.zoom) / 2,
  }
  const left = centre.x - (width * stage.zoom) / 2
  const top = centre.y - (height * stage.zoom) / 2
  const unit = stage.zoom / scale
  const [x, y, wide, high] = region ?? [0, 0, width * scale, height * scale]
  return {
    left: `${left + x * unit}px`,
    top: `${top + y * unit}px`,
    width: `${wide * unit}px`,
    height: `${high * unit}px`,
    imageRendering: stage.zoom > 2 ? ('pixelated' as const) : ('auto' as const),
  }
})
/** A drag moves the photo in its frame when no step has a use of its own for drags. */
const movesPhoto = computed(
  () => !stage.before && (bench.openStep === null || bench.openStep === 'border'),
)
/** Empty corners beside a turned photo are no part of it. */
const isBare = computed(() => isCropping.value && bench.here?.turn.straighten !== 0)
const altText = computed(() => {
  const what = {
    photo: 'The whole photo',
    before: 'Before: only cropped',
    final: 'The finished picture',
    clipping: 'The finished picture with clipped pixels marked',
    mask: 'The finished picture with an area marked',
    piece: 'Pieces alone',
  }
  return `${what[view.value]}, ${picture.value.width} by ${picture.value.height} pixels`
})

// Reading a point
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
  if (inside) reading.ask({ x, y })
}

function leave(): void {
  pointer.value = null
  stage.readout = null
}

/** Radius of the disc that a picked colour is the mean of, in picture pixels. */
const PICK_RADIUS = 4

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
    if (!isCropping.value && !movesPhoto.value) return
    const factor = Math.exp((event.deltaY || event.deltaX) * WHEEL_SPEED)
    void bench.edit({ kind: 'scale_window', factor: Math.min(4, Math.max(0.25, factor)) }, 'after a pause')
    return
  }
  const frame = area.value!.getBoundingClientRect()
  const at = {
    x: event.clientX - frame.left - areaWidth.value / 2,
    y: event.clientY - frame.top - areaHeight.value / 2,
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
  if (event.key !== ' ' || !(event.target instanceof HTMLElement)) return
  if (event.target.matches('input, textarea, button, a, [role=slider], [role=switch]')) return
  event.preventDefault()
  spaceHeld.value = true
})
useEventListener(window, 'keyup', (event: KeyboardEvent) => {
  if (event.key === ' ') spaceHeld.value = false
})
useEventListener(window, 'blur', () => (spaceHeld.value = false))
</script>

<template>
  <div class="stage-frame" :class="stage.surround">
    <span class="unit" :title="isCropping ? 'Photo pixels' : 'Output pixels'">
      {{ isCropping ? 'ph' : 'px' }}
    </span>
    <RulerStrip :length="areaWidth" :origin="origin.x" :zoom="stage.zoom" :at="pointer?.x ?? null" />
    <RulerStrip
      upright
      :length="areaHeight"
      :origin="origin.y"
      :zoom="stage.zoom"
      :at="pointer?.y ?? null"
    />
    <div
      ref="area"
      class="stage"
      :class="{ panning: spaceHeld, picking: stage.tool === 'colour' }"
      role="group"
      aria-label="Stage"
      @wheel.prevent="wheel"
      @pointerdown.capture="pressed"
      @pointermove="read"
      @pointerleave="leave"
    >
      <img
        v-if="shown"
        class="picture"
        :class="{ bare: isBare }"
        :src="shown.url"
        :style="placed"
        :alt="altText"
        draggable="false"
      />
      <HeldPieces v-if="bench.openStep === 'pieces'" :origin="origin" :is-bare="!!shown?.wish.held?.length" />
      <FrameDrag v-if="movesPhoto" />
      <CropOverlay v-if="isCropping" :origin="origin" :width="areaWidth" :height="areaHeight" />
      <SplitView v-if="stage.isSplit && !isCropping && !stage.before" :origin="origin" />
      <ToneGrips v-if="bench.openStep === 'tone' && !stage.before" :origin="origin" />
      <PieceLayer v-if="bench.openStep === 'pieces' && !stage.before" :origin="origin" />
      <WatermarkGrip v-if="bench.openStep === 'watermark' && !stage.before" :origin="origin" />
      <MarginGuide v-if="stage.margin" :origin="origin" />
      <span v-if="stage.before" class="before-note">Before</span>
    </div>
  </div>
</template>

<style scoped>
.stage-frame {
  display: grid;
  grid-template-rows: 20px minmax(0, 1fr);
  grid-template-columns: 20px minmax(0, 1fr);
  min-height: 0;
}

.unit {
  display: grid;
  place-items: center;
  background: #333331;
  color: #f2f1ec;
  font-size: 11px;
  letter-spacing: -0.4px;
  overflow: hidden;
}

.stage {
  position: relative;
  overflow: hidden;
  background: var(--surround-mid);
  touch-action: none;
}

.light .stage {
  background: var(--surround-light);
}

.dark .stage {
  background: var(--surround-dark);
}

.stage.panning {
  cursor: grab;
}

/* Checks show through where the picture is transparent. */
.picture {
  position: absolute;
  max-width: none;
  background: repeating-conic-gradient(#cfcfcd 0 25%, #ffffff 0 50%) 0 0 / 16px 16px;
  user-select: none;
}

.picture.bare {
  background: none;
}

.stage.picking,
.stage.picking * {
  cursor: crosshair;
}

.before-note {
  position: absolute;
  top: 10px;
  left: 50%;
  padding: 3px 10px;
  transform: translateX(-50%);
  border-radius: 4px;
  background: #333331;
  color: #f4f3ee;
  font-weight: 600;
}
</style>
