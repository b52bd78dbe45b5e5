<script setup lang="ts">
// The cut-out as it is worked on: its boxes and strokes, and what is being drawn.

import { computed } from 'vue'

import type { Brush } from '../../../api/types'
import { lineOf, useDrawing } from '../../../composables/drawing'
import { useOutputSpace } from '../../../composables/outputSpace'
import type { Place } from '../../../composables/photoBrush'
import { useBench } from '../../../stores/bench'
import { useCutOut } from '../../../stores/cutOut'
import BrushMark from './BrushMark.vue'
import DrawnLines from './DrawnLines.vue'

const props = defineProps<{
  /** The picture's top left corner on the stage, in CSS pixels. */
  origin: { x: number; y: number }
}>()

const bench = useBench()
const cutOut = useCutOut()
const { transform } = useOutputSpace(() => props.origin)
const { drawn, hovered, press, hover } = useDrawing({
  origin: () => props.origin,
  begin: () => (cutOut.cross = null),
  isBox: () => !!cutOut.drawsBox,
  end: (places) => {
    if (!cutOut.drawsBox) void cutOut.draw(places)
    else if (places.length > 1) drawBox(places[0]!, places.at(-1)!)
  },
})

const photo = computed(() => bench.shownLayout!.photo_space)
const onPhoto = computed(() => `matrix(${photo.value.to_output.join(' ')})`)
const boxes = computed(() =>
  cutOut.drawsBox ? bench.document!.cut_out.boxes.map((box) => ({
    x: box.left * photo.value.width,
    y: box.top * photo.value.height,
    width: box.width * photo.value.width,
    height: box.height * photo.value.height,
  })) : [],
)
const strokes = computed(() =>
  cutOut.showsStrokes
    ? bench.document!.cut_out.strokes.map((stroke) => ({ ...stroke, colour: colourOf(stroke.brush) }))
    : [],
)
const drawnBox = computed(() => {
  const [first, last] = [drawn.value[0], drawn.value.at(-1)]
  if (!cutOut.drawsBox || !first || !last) return null
  return {
    x: Math.min(first.x, last.x),
    y: Math.min(first.y, last.y),
    width: Math.abs(last.x - first.x),
    height: Math.abs(last.y - first.y),
  }
})
const drawnLine = computed(() => (cutOut.brush ? lineOf(drawn.value.map(({ x, y }) => [x, y])) : ''))
const brushAt = computed(() => (cutOut.brush ? (cutOut.cross ?? hovered.value) : null))

const COLOURS = { keep: '#2fa36b', away: '#d4503c', soft: '#d99a1e' }

function colourOf(brush: Brush): string {
  if (brush === 'soft_edge') return COLOURS.soft
  return brush === 'leave_out' || brush === 'erase' ? COLOURS.away : COLOURS.keep
}

function drawBox(first: Place, last: Place): void {
  const more = cutOut.drawsBox === 'more'
  const [x0, y0] = cutOut.turnedAt(first)
  const [x1, y1] = cutOut.turnedAt(last)
  cutOut.drawsBox = null
  void bench.edit({ kind: 'draw_subject', x0, y0, x1, y1, more })
}
</script>

<template>
  <div
    class="subject"
    :class="{ drawing: cutOut.brush || cutOut.drawsBox, brushing: cutOut.brush }"
    @pointerdown="press"
    @pointermove="hover"
    @pointerleave="hovered = null"
  >
    <svg aria-hidden="true">
      <g :transform="transform">
        <g :transform="onPhoto">
          <rect v-for="(box, index) in boxes" :key="index" class="box" v-bind="box" />
        </g>
        <rect v-if="drawnBox" class="box" v-bind="drawnBox" />
        <path v-if="drawnLine" class="stroke" :stroke="colourOf(cutOut.brush!)" :d="drawnLine" :stroke-width="2 * cutOut.shownRadius" />
        <BrushMark v-if="brushAt" :at="brushAt" :radius="cutOut.shownRadius" :is-cross="!!cutOut.cross" />
      </g>
    </svg>
    <DrawnLines
      :class="{ under: cutOut.brush || cutOut.drawsBox }"
      :origin="origin"
      :lines="strokes"
      label="Strokes"
      does="Delete stroke"
      @take="(number) => bench.edit({ kind: 'delete_stroke', number })"
    />
  </div>
</template>

<style scoped>
.subject {
  position: absolute;
  inset: 0;
  pointer-events: none;
}

.drawing {
  z-index: 2;
  pointer-events: auto;
  cursor: crosshair;
}

.brushing {
  cursor: none;
}

.panning .subject {
  pointer-events: none;
}

svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}

.box {
  fill: none;
  stroke: var(--honey);
  stroke-width: 2;
  stroke-dasharray: 6 4;
  vector-effect: non-scaling-stroke;
}

.stroke {
  fill: none;
  stroke-linecap: round;
  stroke-linejoin: round;
  opacity: 0.55;
}

/* With a brush in hand strokes are drawn over, not picked. */
.under :deep(path) {
  pointer-events: none;
}
</style>
