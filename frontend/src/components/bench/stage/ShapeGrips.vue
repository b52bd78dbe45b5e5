<script setup lang="ts">
import { computed } from 'vue'

import { useEditDrags } from '../../../composables/editDrags'
import { arrowWay } from '../../../composables/keys'
import { useOutputSpace } from '../../../composables/outputSpace'
import { useBench } from '../../../stores/bench'
import GripTag from './GripTag.vue'

const props = defineProps<{
  /** The photo's top left corner on the stage, in CSS pixels. */
  origin: { x: number; y: number }
}>()

type ShapeGrip = 'move' | 'scale' | 'radius'

/** Where the radius grip sits, of the corner's radius: on the curve of a quarter circle. */
const ON_THE_CURVE = 1 - Math.SQRT1_2
/** It keeps at least this far from the corner, in CSS pixels, clear of the corner's own grip. */
const CORNER_ROOM = 26

const bench = useBench()
const { placed, at } = useOutputSpace(() => props.origin)
const { follow } = useEditDrags()

const shape = computed(() => bench.size!.shape)
const box = computed(() => bench.shownLayout!.shape_box)
const short = computed(() => Math.min(box.value.width, box.value.height))
const radius = computed(() => (shape.value.kind === 'rectangle' ? shape.value.radius : 0))
const radiusAt = computed(() => {
  const onCurve = radius.value * short.value * ON_THE_CURVE
  const inset = Math.max(onCurve, CORNER_ROOM / placed.value.scale)
  return at(box.value.left + inset, box.value.top + inset)
})
const isFree = computed(() => shape.value.kind !== 'rectangle' || shape.value.scale < 1)
const scaleAt = computed(() => at(box.value.left + box.value.width, box.value.top + box.value.height))
const moveAt = computed(() =>
  at(box.value.left + box.value.width / 2, box.value.top + box.value.height / 2),
)

function drag(event: PointerEvent, grip: ShapeGrip): void {
  const { scale } = placed.value
  follow(event, (dx, dy) => ({ kind: 'drag_shape', grip, dx: dx / scale, dy: dy / scale }))
}

function nudge(event: KeyboardEvent, grip: ShapeGrip): void {
  const way = arrowWay(event)
  if (!way) return
  event.preventDefault()
  event.stopPropagation()
  void bench.edit({ kind: 'drag_shape', grip, dx: way[0], dy: way[1] }, 'after a pause')
}

function typeRadius(px: number): void {
  const fraction = Math.min(0.5, Math.max(0, px / short.value))
  if (shape.value.kind !== 'rectangle') return
  void bench.edit({ kind: 'set_shape', shape: { ...shape.value, radius: fraction } })
}
</script>

<template>
  <template v-if="shape.kind === 'rectangle'">
    <button
      type="button"
      class="knob"
      :style="radiusAt"
      aria-label="Corner radius; the arrow keys change it"
      @pointerdown="(event) => drag(event, 'radius')"
      @keydown="(event) => nudge(event, 'radius')"
    ></button>
    <GripTag
      v-if="radius > 0"
      side="e"
      :style="radiusAt"
      label="Corner radius, output pixels"
      :value="radius * short"
      @change="typeRadius"
    />
  </template>
  <template v-if="isFree">
    <button
      type="button"
      class="knob square"
      :style="scaleAt"
      aria-label="Size of the shape; the arrow keys change it"
      @pointerdown="(event) => drag(event, 'scale')"
      @keydown="(event) => nudge(event, 'scale')"
    ></button>
    <button
      v-if="shape.scale < 1"
      type="button"
      class="knob"
      :style="moveAt"
      aria-label="Place of the shape; the arrow keys move it"
      @pointerdown="(event) => drag(event, 'move')"
      @keydown="(event) => nudge(event, 'move')"
    ></button>
  </template>
</template>

<style scoped>
.knob {
  position: absolute;
  width: 26px;
  height: 26px;
  padding: 0;
  transform: translate(-50%, -50%);
  border: 0;
  background: none;
  cursor: move;
}

.knob::before {
  content: '';
  position: absolute;
  inset: 7px;
  border: 2px solid var(--ink);
  border-radius: 50%;
  background: var(--paper);
}

.knob.square {
  transform: translate(-110%, -110%);
  cursor: nwse-resize;
}

.knob.square::before {
  border-radius: 2px 2px 8px;
}
</style>
