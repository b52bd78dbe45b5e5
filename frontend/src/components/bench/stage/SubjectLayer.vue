<script setup lang="ts">
// The cut-out as it is worked on: its boxes and strokes, and what is being drawn.

import { computed, ref } from 'vue'

import type { Brush, Stroke } from '../../../api/types'
import { followPointer } from '../../../composables/drags'
import { useOutputSpace } from '../../../composables/outputSpace'
import { useBench } from '../../../stores/bench'
import { useCutOut } from '../../../stores/cutOut'
import { useStage } from '../../../stores/stage'

const props = defineProps<{
  /** The picture's top left corner on the stage, in CSS pixels. */
  origin: { x: number; y: number }
}>()

/** Two places of a stroke nearer than this are one, in CSS pixels. */
const LEAST_WAY = 1.5

interface Place {
  x: number
  y: number
}

const bench = useBench()
const cutOut = useCutOut()
const stage = useStage()
const { transform } = useOutputSpace(() => props.origin)
/** What is being drawn, in output pixels: a stroke's places, or a box's two corners. */
const drawn = ref<Place[]>([])
/** Where the brush hovers, in output pixels. */
const hovered = ref<Place | null>(null)

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
const strokes = computed(() => (cutOut.showsStrokes ? bench.document!.cut_out.strokes : []))
/** The brush's radius in output pixels. */
const radius = computed(() => {
  const { sampled, shown } = bench.shownLayout!
  return (cutOut.size * cutOut.longSide * shown.width) / sampled.width / 2
})
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

/** SVG path data; a point is a line of no length, which round ends make a dot. */
function lineOf(points: readonly (readonly number[])[]): string {
  if (!points.length) return ''
  const [first, ...others] = points
  return `M${first!.join(' ')}L${(others.length ? others : [first!]).map((point) => point.join(' ')).join('L')}`
}

function strokeLine({ points }: Stroke): string {
  return lineOf(points.map(([x, y]) => [x * photo.value.width, y * photo.value.height]))
}

const takesAway = (brush: Brush | null) => brush === 'leave_out' || brush === 'erase'
const classOf = (brush: Brush | null) => (brush === 'soft_edge' ? 'soft' : takesAway(brush) ? 'away' : 'keep')

function placeOf(event: PointerEvent): Place {
  const frame = (event.currentTarget as Element).getBoundingClientRect()
  return {
    x: (event.clientX - frame.left - props.origin.x) / stage.zoom,
    y: (event.clientY - frame.top - props.origin.y) / stage.zoom,
  }
}

function press(event: PointerEvent): void {
  if (event.button !== 0) return
  event.preventDefault()
  const start = placeOf(event)
  cutOut.cross = null
  drawn.value = [start]
  followPointer(event, {
    move: (dx, dy) => {
      const place = { x: start.x + dx / stage.zoom, y: start.y + dy / stage.zoom }
      const last = drawn.value.at(-1)
      hovered.value = place
      if (last && Math.hypot(place.x - last.x, place.y - last.y) * stage.zoom < LEAST_WAY) return
      drawn.value = cutOut.drawsBox ? [start, place] : [...drawn.value, place]
    },
    end: () => {
      const places = drawn.value
      if (!cutOut.drawsBox) void cutOut.draw(places)
      else if (places.length > 1) drawBox(places[0]!, places.at(-1)!)
      drawn.value = []
    },
  })
}

function drawBox(first: Place, last: Place): void {
  const more = cutOut.drawsBox === 'more'
  const [x0, y0] = cutOut.turnedAt(first.x, first.y)
  const [x1, y1] = cutOut.turnedAt(last.x, last.y)
  cutOut.drawsBox = null
  void bench.edit({ kind: 'draw_subject', x0, y0, x1, y1, more })
}

function hover(event: PointerEvent): void {
  hovered.value = placeOf(event)
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
        <path v-if="drawnLine" class="stroke" :class="classOf(cutOut.brush)" :d="drawnLine" :stroke-width="2 * radius" />
        <g v-if="brushAt" class="brush" :class="classOf(cutOut.brush)">
          <circle :cx="brushAt.x" :cy="brushAt.y" :r="radius" />
          <path v-if="cutOut.cross" :d="`M${brushAt.x - 2 * radius} ${brushAt.y}h${4 * radius}M${brushAt.x} ${brushAt.y - 2 * radius}v${4 * radius}`" />
        </g>
      </g>
    </svg>
    <svg v-if="strokes.length" class="strokes" role="group" aria-label="Strokes">
      <g :transform="transform">
        <g :transform="onPhoto">
          <path
            v-for="(stroke, number) in strokes"
            :key="number"
            class="stroke kept"
            :class="classOf(stroke.brush)"
            :d="strokeLine(stroke)"
            :stroke-width="2 * stroke.radius * cutOut.longSide"
            role="button"
            tabindex="0"
            :aria-label="`Delete stroke ${number + 1}`"
            @pointerdown.stop
            @click="bench.edit({ kind: 'delete_stroke', number })"
            @keydown.enter.stop="bench.edit({ kind: 'delete_stroke', number })"
          />
        </g>
      </g>
    </svg>
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

.stroke.keep {
  stroke: #2fa36b;
}

.stroke.away {
  stroke: #d4503c;
}

.stroke.soft {
  stroke: #d99a1e;
}

.stroke.kept {
  pointer-events: stroke;
  cursor: pointer;
}

/* With a brush in hand strokes are drawn over, not picked. */
.drawing .stroke.kept {
  pointer-events: none;
}

.stroke.kept:hover,
.stroke.kept:focus-visible {
  opacity: 0.9;
}

.brush circle,
.brush path {
  fill: none;
  stroke: #ffffff;
  stroke-width: 1.5;
  vector-effect: non-scaling-stroke;
  filter: drop-shadow(0 0 1px #1e2a2f);
}
</style>
