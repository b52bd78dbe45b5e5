<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { storeToRefs } from 'pinia'
import { computed, ref, watch } from 'vue'

import { useBench } from '../../../stores/bench'
import { useCutOut } from '../../../stores/cutOut'
import { useSpots } from '../../../stores/spots'
import { useStage } from '../../../stores/stage'
import ChangedFlash from './ChangedFlash.vue'
import CropOverlay from './CropOverlay.vue'
import FrameDrag from './FrameDrag.vue'
import HeldPieces from './HeldPieces.vue'
import CoveredLayer from './CoveredLayer.vue'
import MarginGuide from './MarginGuide.vue'
import PieceLayer from './PieceLayer.vue'
import RulerStrip from './RulerStrip.vue'
import SnapLines from './SnapLines.vue'
import SplitView from './SplitView.vue'
import SpotLayer from './SpotLayer.vue'
import StageLens from './StageLens.vue'
import SubjectLayer from './SubjectLayer.vue'
import { useTouchView } from '../../../composables/touchView'
import { useStagePicture } from './stagePicture'
import { useStagePointer } from './stagePointer'
import ToneGrips from './ToneGrips.vue'
import WatermarkGrip from './WatermarkGrip.vue'

/** Room round the picture, in CSS pixels: for grips and their numbers, or just for air. */
const GRIP_ROOM = 54
const AIR = 24
/** The picture is shown larger than its pixels only when it is smaller than this. */
const SMALL = 300

const bench = useBench()
const stage = useStage()
const cutOut = useCutOut()
const spots = useSpots()
const area = ref<HTMLElement>()
const { width: areaWidth, height: areaHeight } = useElementSize(area)

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
watch(isCropping, () => stage.fit())

/** A brush that is taken with the keys is moved by them at once. */
watch(
  () => cutOut.brush,
  (brush) => brush && area.value?.focus({ preventScroll: true }),
)

/** A brush is in hand, so that a lens shows what is under it. */
const brushes = computed(() => (cutOut.isOpen && !!cutOut.brush) || spots.isOpen)
const movesSubject = computed(() => cutOut.isOpen && cutOut.isOn && !cutOut.brush && !cutOut.drawsBox)
/** Steps that have no use of their own for drags: those move the photo in its frame. */
const FREE_STEPS = [null, 'treatments', 'border']
const movesPhoto = computed(
  () => !stage.before && (FREE_STEPS.includes(bench.openStep) || movesSubject.value),
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
    subject: 'The subject alone',
    dimmed: 'The subject over the darkened photo',
    coverage: 'What is kept in white, what is left out in black',
    changed: 'What the newest stroke changed',
  }
  return `${what[view.value]}, ${picture.value.width} by ${picture.value.height} pixels`
})

const { shown, url, placed, isLate } = useStagePicture(areaWidth, areaHeight, origin)
const scalesWindow = computed(() => isCropping.value || movesPhoto.value)
useTouchView(area)
const { pointer, spaceHeld, read, leave, wheel, pressed } = useStagePointer(area, origin, scalesWindow)
</script>

<template>
  <div class="stage-frame" :class="`surround-${stage.surround}`">
    <span class="unit" :title="isCropping ? 'Photo pixels' : 'Output pixels'">px</span>
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
      tabindex="-1"
      aria-label="Stage"
      @wheel.prevent="wheel"
      @pointerdown.capture="pressed"
      @pointermove="read"
      @pointerleave="leave"
    >
      <img
        v-if="url"
        class="picture"
        :class="{ bare: isBare }"
        :src="url"
        :style="placed"
        :alt="altText"
        draggable="false"
      />
      <HeldPieces v-if="bench.openStep === 'pieces'" :origin="origin" :is-bare="!!shown?.wish.held?.length" />
      <FrameDrag v-if="movesPhoto" :subject="movesSubject" />
      <SnapLines v-if="movesSubject" :origin="origin" />
      <CropOverlay v-if="isCropping" :origin="origin" :width="areaWidth" :height="areaHeight" />
      <SplitView v-if="stage.isSplit && !isCropping && !stage.before" :origin="origin" />
      <ToneGrips v-if="stage.partKind && !stage.before" :origin="origin" />
      <ChangedFlash v-if="cutOut.isOpen && !stage.before" :origin="origin" />
      <SubjectLayer v-if="cutOut.isOpen && !stage.before" :origin="origin" />
      <SpotLayer v-if="spots.isOpen && !stage.before" :origin="origin" />
      <StageLens v-if="brushes && url && pointer" :url="url" :placed="placed" :at="pointer" />
      <PieceLayer v-if="bench.openStep === 'pieces' && !stage.before" :origin="origin" />
      <WatermarkGrip v-if="bench.openStep === 'watermark' && !stage.before" :origin="origin" />
      <CoveredLayer v-if="(stage.margin || stage.setsCovered) && !stage.before" :origin="origin" />
      <MarginGuide v-if="stage.margin" :origin="origin" />
      <span v-if="stage.before" class="note">Before</span>
      <span v-else-if="isLate" class="note" role="status">Drawing…</span>
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

.surround-light .stage {
  background: var(--surround-light);
}

.surround-dark .stage {
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

.note {
  position: absolute;
  top: 10px;
  left: 50%;
  padding: 3px 10px;
  transform: translateX(-50%);
  border-radius: 4px;
  background: #333331;
  color: #f4f3ee;
  font-weight: 600;
  pointer-events: none;
}
</style>
