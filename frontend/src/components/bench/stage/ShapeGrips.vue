<script setup lang="ts">
import { computed } from 'vue'

import { useEditDrags } from '../../../composables/editDrags'
import { useOutputSpace } from '../../../composables/outputSpace'
import { useBench } from '../../../stores/bench'
import GripTag from './GripTag.vue'
import StageKnob from './StageKnob.vue'

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

function nudge(grip: ShapeGrip, dx: number, dy: number): void {
  void bench.edit({ kind: 'drag_shape', grip, dx, dy }, 'after a pause')
}

function typeRadius(px: number): void {
  const fraction = Math.min(0.5, Math.max(0, px / short.value))
  if (shape.value.kind !== 'rectangle') return
  void bench.edit({ kind: 'set_shape', shape: { ...shape.value, radius: fraction } })
}
</script>

<template>
  <template v-if="shape.kind === 'rectangle'">
    <StageKnob
      form="dot"
      :style="radiusAt"
      label="Corner radius; the arrow keys change it"
      @drag="(event) => drag(event, 'radius')"
      @nudge="(dx, dy) => nudge('radius', dx, dy)"
    />
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
    <StageKnob
      form="corner"
      :style="scaleAt"
      label="Size of the shape; the arrow keys change it"
      @drag="(event) => drag(event, 'scale')"
      @nudge="(dx, dy) => nudge('scale', dx, dy)"
    />
    <StageKnob
      v-if="shape.scale < 1"
      form="dot"
      :style="moveAt"
      label="Place of the shape; the arrow keys move it"
      @drag="(event) => drag(event, 'move')"
      @nudge="(dx, dy) => nudge('move', dx, dy)"
    />
  </template>
</template>
