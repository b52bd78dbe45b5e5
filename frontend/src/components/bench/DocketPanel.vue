<script setup lang="ts">
import { computed } from 'vue'

import type { Photo, ToneChanges, WatermarkChanges } from '../../api/types'
import { evenSides } from '../../composables/sides'
import { useToneEdits } from '../../composables/toneEdits'
import { useBench, type Step } from '../../stores/bench'
import BorderStep from './BorderStep.vue'
import CropStep from './crop/CropStep.vue'
import DocketLine from './DocketLine.vue'
import ExportStep from './ExportStep.vue'
import PiecesStep from './pieces/PiecesStep.vue'
import ToneStep from './tone/ToneStep.vue'
import WatermarkStep from './watermark/WatermarkStep.vue'

defineProps<{ photo: Photo | null }>()

const bench = useBench()
const size = computed(() => bench.size!)
const border = computed(() => bench.here!.border)

const cropIsSet = computed(
  () =>
    size.value.pixels.kind !== 'as_cropped' ||
    size.value.crop.window !== null ||
    size.value.shape.kind !== 'rectangle' ||
    size.value.shape.radius > 0 ||
    bench.here!.turn.quarters + Math.abs(bench.here!.turn.straighten) > 0 ||
    bench.here!.turn.mirrored,
)
const borderIsSet = computed(
  () => border.value.on && Object.values(border.value.thickness).some((side) => side > 0),
)
const borderInPixels = computed(() => {
  const words = bench.draft!.border
  const [top, ...others] = bench.layout!.border
  const even = others.every((side) => side === top)
  return borderIsSet.value && even ? `${words} (${top}\u00a0px)` : words
})

const FIRST_THICKNESS = 0.025

/** Switching on a border that has no thickness yet gives it one. */
function switchBorder(on: boolean): void {
  void bench.edit(({ here }) => {
    const sides = here.border.thickness
    const isThin = Math.max(sides.top, sides.right, sides.bottom, sides.left) === 0
    const changes = on && isThin ? { on, thickness: evenSides(FIRST_THICKNESS) } : { on }
    return { kind: 'set_border', changes, only_this_size: bench.onlyThisSize }
  })
}

const { tone, isAnySet } = useToneEdits()
const toneIsSet = computed(() => tone.value.on && isAnySet.value)

function switchTone(on: boolean): void {
  const changes = { on } as ToneChanges
  void bench.edit({ kind: 'set_tone', changes, only_this_size: bench.onlyThisSize })
}

const hasMark = computed(() => {
  const { text, mark, logo } = bench.here!.watermark
  return !!(text.trim() || mark || logo)
})
const watermarkIsSet = computed(() => {
  const { on } = bench.here!.watermark
  return on && hasMark.value
})

/** Switching on a watermark that has no words yet opens the step to write them. */
function switchWatermark(on: boolean): void {
  if (on && !hasMark.value) bench.openStep = 'watermark'
  const changes = { on } as WatermarkChanges
  void bench.edit({ kind: 'set_watermark', changes, only_this_size: bench.onlyThisSize })
}

function reset(step: Step): void {
  void bench.edit({ kind: 'reset_step', step })
}
</script>

<template>
  <section class="docket ticket-edge" aria-label="Docket">
    <div class="scroll">
      <header>
        <h1>Docket</h1>
        <p v-if="photo">
          <span :title="photo.name">{{ photo.name }}</span>
          {{ photo.width }} × {{ photo.height }}
        </p>
      </header>
      <DocketLine
        step="crop"
        :number="1"
        title="Crop"
        :summary="bench.draft!.crop"
        :is-set="cropIsSet"
        @reset="reset('crop')"
      >
        <CropStep :photo="photo" />
      </DocketLine>
      <DocketLine
        step="tone"
        :number="2"
        title="Tone"
        :summary="bench.draft!.tone"
        :is-set="toneIsSet"
        :on="toneIsSet"
        @reset="reset('tone')"
        @switch="switchTone"
      >
        <ToneStep />
      </DocketLine>
      <DocketLine
        step="border"
        :number="3"
        title="Border"
        :summary="borderInPixels"
        :is-set="borderIsSet"
        :on="borderIsSet"
        @reset="reset('border')"
        @switch="switchBorder"
      >
        <BorderStep />
      </DocketLine>
      <DocketLine
        step="pieces"
        :number="4"
        title="Text & badges"
        :summary="bench.draft!.pieces"
        :is-set="bench.here!.pieces.length > 0"
        @reset="reset('pieces')"
      >
        <PiecesStep />
      </DocketLine>
      <DocketLine
        step="watermark"
        :number="5"
        title="Watermark"
        :summary="bench.draft!.watermark"
        :is-set="watermarkIsSet"
        :on="watermarkIsSet"
        @reset="reset('watermark')"
        @switch="switchWatermark"
      >
        <WatermarkStep />
      </DocketLine>
      <DocketLine
        step="export"
        :number="6"
        title="Export"
        :summary="bench.draft!.export"
        :is-set="bench.openStep === 'export'"
        @reset="reset('export')"
      >
        <ExportStep />
      </DocketLine>
    </div>
  </section>
</template>

<style scoped>
.docket {
  --behind-ticket: var(--surround-mid);

  position: relative;
  z-index: 2;
  min-width: 0;
  background: var(--paper);
  box-shadow: 2px 0 10px rgb(0 0 0 / 27%);
}

.scroll {
  height: 100%;
  padding-bottom: 16px;
  overflow: hidden auto;
}

header {
  display: flex;
  justify-content: space-between;
  margin: 0 14px;
  padding: 13px 4px 9px;
  border-bottom: 2px solid var(--ink);
}

h1 {
  font-size: 19px;
  font-weight: 700;
  letter-spacing: 0.3px;
}

header p {
  min-width: 0;
  color: var(--ink-soft);
  font-size: 12px;
  text-align: right;
}

header p span {
  display: block;
  max-width: 170px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
