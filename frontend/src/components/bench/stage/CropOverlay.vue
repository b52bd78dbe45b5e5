<script setup lang="ts">
import { computed } from 'vue'

import type { Grip, WindowField } from '../../../api/types'
import { snapOf, useEditDrags } from '../../../composables/editDrags'
import { useOutputSpace } from '../../../composables/outputSpace'
import { useBench } from '../../../stores/bench'
import { useStage } from '../../../stores/stage'
import CornersTool from './CornersTool.vue'
import FocusLayer from './FocusLayer.vue'
import GripTag from './GripTag.vue'
import GuideLines from './GuideLines.vue'
import LevelTool from './LevelTool.vue'
import ShapeGrips from './ShapeGrips.vue'

const props = defineProps<{
  /** The photo's top left corner on the stage, and the stage's sides, in CSS pixels. */
  origin: { x: number; y: number }
  width: number
  height: number
}>()

const bench = useBench()
const stage = useStage()
const { follow } = useEditDrags()

interface GripPlace {
  grip: Grip
  name: string
  x: number
  y: number
  /** The number an edge shows and takes; corners have none. */
  field?: WindowField
}

const GRIPS: GripPlace[] = [
  { grip: 'nw', name: 'Top left corner', x: 0, y: 0 },
  { grip: 'ne', name: 'Top right corner', x: 1, y: 0 },
  { grip: 'se', name: 'Bottom right corner', x: 1, y: 1 },
  { grip: 'sw', name: 'Bottom left corner', x: 0, y: 1 },
  { grip: 'n', name: 'Top edge', x: 0.5, y: 0, field: 'top' },
  { grip: 'e', name: 'Right edge', x: 1, y: 0.5, field: 'right' },
  { grip: 's', name: 'Bottom edge', x: 0.5, y: 1, field: 'bottom' },
  { grip: 'w', name: 'Left edge', x: 0, y: 0.5, field: 'left' },
]

const box = computed(() => bench.shownLayout!.window)
const edges = computed<Record<string, number>>(() => ({
  left: box.value.left,
  top: box.value.top,
  right: box.value.left + box.value.width,
  bottom: box.value.top + box.value.height,
}))
/** The window on the stage, in CSS pixels. */
const shown = computed(() => ({
  left: props.origin.x + box.value.left * stage.zoom,
  top: props.origin.y + box.value.top * stage.zoom,
  width: box.value.width * stage.zoom,
  height: box.value.height * stage.zoom,
}))
const dark = computed(() => {
  const { photo_width: width, photo_height: height } = bench.shownLayout!
  const { left, top, width: wide, height: high } = box.value
  return `M0 0h${width}v${height}h${-width}zM${left} ${top}v${high}h${wide}v${-high}z`
})
const photoSpace = computed(
  () => `translate(${props.origin.x} ${props.origin.y}) scale(${stage.zoom})`,
)
/** What the shape cuts off the window, in output pixels. */
const { transform: outputSpace } = useOutputSpace(() => props.origin)
const cutOff = computed(() => {
  const { width, height, outline } = bench.shownLayout!
  return `M0 0H${width}V${height}H0Z${outline}`
})
const foundStyle = computed(() => {
  const found = stage.found
  return (
    found && {
      left: `${props.origin.x + found.left * stage.zoom}px`,
      top: `${props.origin.y + found.top * stage.zoom}px`,
      width: `${found.width * stage.zoom}px`,
      height: `${found.height * stage.zoom}px`,
    }
  )
})
const windowStyle = computed(() => ({
  left: `${shown.value.left}px`,
  top: `${shown.value.top}px`,
  width: `${shown.value.width}px`,
  height: `${shown.value.height}px`,
}))

function at(x: number, y: number): { left: string; top: string } {
  const { left, top, width, height } = shown.value
  return { left: `${left + x * width}px`, top: `${top + y * height}px` }
}

function dragGrip(event: PointerEvent, grip: Grip): void {
  follow(event, (dx, dy, moved) => ({
    kind: 'drag_window',
    grip,
    dx: dx / stage.zoom,
    dy: dy / stage.zoom,
    snap: snapOf(moved, stage.zoom),
  }))
}

function drawNew(event: PointerEvent): void {
  const frame = (event.currentTarget as Element).getBoundingClientRect()
  const x0 = (event.clientX - frame.left - props.origin.x) / stage.zoom
  const y0 = (event.clientY - frame.top - props.origin.y) / stage.zoom
  follow(event, (dx, dy) => ({
    kind: 'draw_window',
    x0,
    y0,
    x1: x0 + dx / stage.zoom,
    y1: y0 + dy / stage.zoom,
  }))
}
</script>

<template>
  <CornersTool v-if="stage.tool === 'corners'" :origin="origin" />
  <div v-else class="crop">
    <svg class="dark" aria-hidden="true" @pointerdown="drawNew">
      <rect :width="width" :height="height" fill="transparent" />
      <path :d="dark" :transform="photoSpace" fill-rule="evenodd" />
      <path :d="cutOff" :transform="outputSpace" fill-rule="evenodd" />
      <path class="edges" :d="bench.shownLayout!.photo_edges" :transform="photoSpace" />
    </svg>
    <div class="window" :style="windowStyle" @pointerdown="(event) => dragGrip(event, 'move')">
      <GuideLines />
    </div>
    <template v-for="{ grip, field, name, x, y } in GRIPS" :key="grip">
      <button
        type="button"
        class="grip grip-target"
        :class="[grip, { edge: field }]"
        :style="at(x, y)"
        :aria-label="`${name}; the arrow keys move it`"
        @pointerdown="(event) => dragGrip(event, grip)"
        @focus="stage.focusedGrip = grip"
        @blur="stage.focusedGrip = 'move'"
      ></button>
      <GripTag
        v-if="field"
        :class="grip"
        :style="at(x, y)"
        :label="`${name}, photo pixels`"
        :value="edges[field]!"
        :side="grip"
        @change="(value) => bench.edit({ kind: 'type_window', field, value })"
      />
    </template>
    <ShapeGrips :origin="origin" />
    <div v-if="foundStyle" class="found" :style="foundStyle" role="img" aria-label="The picture inside the margin"></div>
    <FocusLayer :origin="origin" />
    <LevelTool v-if="stage.tool === 'level line'" />
  </div>
</template>

<style scoped>
.crop,
.dark {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}

.dark {
  cursor: crosshair;
}

.dark path {
  fill: rgb(37 38 39 / 62%);
}

.window {
  position: absolute;
  outline: 1.5px solid #ffffff;
  box-shadow: 0 0 0 2.5px rgb(30 42 47 / 45%);
  cursor: move;
}

.dark .edges {
  fill: none;
  stroke: rgb(255 255 255 / 30%);
  stroke-width: 1;
  vector-effect: non-scaling-stroke;
}

.found {
  position: absolute;
  border: 2px dashed #ffffff;
  outline: 1.5px solid var(--persimmon);
  pointer-events: none;
}

.grip {
  position: absolute;
  width: 26px;
  height: 26px;
  padding: 0;
  transform: translate(-50%, -50%);
  border: 0;
  background: none;
}

.grip::before {
  content: '';
  position: absolute;
  inset: 6px;
  border: 2px solid var(--ink);
  border-radius: 3px;
  background: var(--paper);
}

.grip.edge.n::before,
.grip.edge.s::before {
  inset: 9px 0;
  border-width: 1.5px;
}

.grip.edge.e::before,
.grip.edge.w::before {
  inset: 0 9px;
  border-width: 1.5px;
}

.nw,
.se {
  cursor: nwse-resize;
}

.ne,
.sw {
  cursor: nesw-resize;
}

.n,
.s {
  cursor: ns-resize;
}

.e,
.w {
  cursor: ew-resize;
}

.panning .crop {
  pointer-events: none;
}
</style>
