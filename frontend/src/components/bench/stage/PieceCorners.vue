<script setup lang="ts">
// The corners of a piece as it is seen in perspective, each of which can be pulled.

import type { Edit, PieceLaid } from '../../../api/types'
import { useEditDrags } from '../../../composables/editDrags'
import { useOutputSpace } from '../../../composables/outputSpace'
import { useBench } from '../../../stores/bench'
import StageKnob from './StageKnob.vue'

const props = defineProps<{
  piece: PieceLaid
  /** The picture's top left corner on the stage, in CSS pixels. */
  origin: { x: number; y: number }
}>()

const NAMES = ['upper left', 'upper right', 'lower right', 'lower left']

const bench = useBench()
const { placed, at } = useOutputSpace(() => props.origin)
const { follow } = useEditDrags()

function pulling(corner: number, dx: number, dy: number): Edit {
  return { kind: 'drag_corner', id: props.piece.id, corner, dx, dy, only_this_size: bench.onlyThisSize }
}

function drag(event: PointerEvent, corner: number): void {
  const { scale } = placed.value
  follow(event, (dx, dy) => pulling(corner, dx / scale, dy / scale))
}
</script>

<template>
  <StageKnob
    v-for="({ x, y }, corner) in piece.corners"
    :key="corner"
    form="dot"
    :style="at(x, y)"
    :label="`Pull the ${NAMES[corner]} corner; the arrow keys move it`"
    @pointerdown.stop
    @drag="(event) => drag(event, corner)"
    @nudge="(dx, dy) => bench.edit(pulling(corner, dx, dy), 'after a pause')"
  />
</template>
