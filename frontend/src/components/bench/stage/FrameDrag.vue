<script setup lang="ts">
// With no step open, or Border, a drag moves the photo under the pointer inside its frame; with
// Cut-out open it moves the subject, which lines draw near.

import { snapOf, useEditDrags } from '../../../composables/editDrags'
import { useBench } from '../../../stores/bench'
import { useStage } from '../../../stores/stage'

const props = defineProps<{ subject: boolean }>()

const bench = useBench()
const stage = useStage()
const { follow } = useEditDrags()

function drag(event: PointerEvent): void {
  if (props.subject) dragSubject(event)
  else dragPhoto(event)
}

function dragSubject(event: PointerEvent): void {
  follow(event, (dx, dy, moved) => ({
    kind: 'drag_subject',
    dx: dx / stage.zoom,
    dy: dy / stage.zoom,
    snap: snapOf(moved, stage.zoom),
  }))
}

function dragPhoto(event: PointerEvent): void {
  const { sampled, shown } = bench.layout!
  // The window goes the other way, since it is the photo that follows the pointer.
  const photoPixels = -sampled.width / shown.width / stage.zoom
  follow(event, (dx, dy, moved) => ({
    kind: 'drag_window',
    grip: 'move',
    dx: dx * photoPixels,
    dy: dy * photoPixels,
    snap: snapOf(moved, Math.abs(1 / photoPixels)),
  }))
}
</script>

<template>
  <div class="frame-drag" aria-hidden="true" @pointerdown="drag"></div>
</template>

<style scoped>
.frame-drag {
  position: absolute;
  inset: 0;
  cursor: grab;
}

.frame-drag:active {
  cursor: grabbing;
}

.panning .frame-drag {
  pointer-events: none;
}
</style>
