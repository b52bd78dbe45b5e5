<script setup lang="ts">
import { computed, ref } from 'vue'

import { followPointer } from '../../../composables/drags'
import { useBench } from '../../../stores/bench'
import { useStage } from '../../../stores/stage'

const props = defineProps<{
  /** The photo's top left corner on the stage, in CSS pixels. */
  origin: { x: number; y: number }
}>()

interface Corners {
  x0: number
  y0: number
  x1: number
  y1: number
}

const bench = useBench()
const stage = useStage()
/** The box that is being drawn, in turned pixels. */
const drawn = ref<Corners | null>(null)

const focus = computed(() => bench.shownLayout!.focus)
const point = computed(() => focus.value && at(focus.value.point.x, focus.value.point.y))
const box = computed(() => {
  if (drawn.value) return boxOf(drawn.value)
  const kept = focus.value?.box
  if (!kept) return null
  return boxOf({ x0: kept.left, y0: kept.top, x1: kept.left + kept.width, y1: kept.top + kept.height })
})

function at(x: number, y: number): { left: string; top: string } {
  return { left: `${props.origin.x + x * stage.zoom}px`, top: `${props.origin.y + y * stage.zoom}px` }
}

function boxOf({ x0, y0, x1, y1 }: Corners) {
  return {
    ...at(Math.min(x0, x1), Math.min(y0, y1)),
    width: `${Math.abs(x1 - x0) * stage.zoom}px`,
    height: `${Math.abs(y1 - y0) * stage.zoom}px`,
  }
}

/** A click sets the point; a drag draws the box, or moves it when it begins in it. */
function press(event: PointerEvent): void {
  if (event.button !== 0) return
  const frame = (event.currentTarget as Element).getBoundingClientRect()
  const x = (event.clientX - frame.left - props.origin.x) / stage.zoom
  const y = (event.clientY - frame.top - props.origin.y) / stage.zoom
  const kept = focus.value?.box
  const isInside =
    !!kept && x > kept.left && x < kept.left + kept.width && y > kept.top && y < kept.top + kept.height
  let corners: Corners = { x0: x, y0: y, x1: x, y1: y }
  followPointer(event, {
    move: (dx, dy) => {
      const [right, down] = [dx / stage.zoom, dy / stage.zoom]
      corners = isInside
        ? {
            x0: kept.left + right,
            y0: kept.top + down,
            x1: kept.left + kept.width + right,
            y1: kept.top + kept.height + down,
          }
        : { x0: x, y0: y, x1: x + right, y1: y + down }
      drawn.value = corners
    },
    end: () => {
      drawn.value = null
      stage.tool = null
      void bench.edit({ kind: 'draw_focus', ...corners })
    },
    cancel: () => (drawn.value = null),
  })
}
</script>

<template>
  <div class="focus" :class="{ drawing: stage.tool === 'focus' }" @pointerdown="press">
    <div v-if="box" class="box" :style="box"></div>
    <div v-if="point && !drawn" class="point" :style="point"></div>
  </div>
</template>

<style scoped>
.focus {
  position: absolute;
  inset: 0;
  pointer-events: none;
}

.focus.drawing {
  z-index: 3;
  pointer-events: auto;
  cursor: crosshair;
}

.box {
  position: absolute;
  border: 1.5px dashed var(--honey);
  border-radius: 4px;
  outline: 1px solid rgb(30 42 47 / 40%);
}

.point {
  position: absolute;
  width: 22px;
  height: 22px;
  transform: translate(-50%, -50%);
  border: 2px solid var(--honey);
  border-radius: 50%;
  background: radial-gradient(circle, var(--honey) 2px, transparent 2.5px);
  box-shadow:
    0 0 0 1px rgb(30 42 47 / 50%),
    inset 0 0 0 1px rgb(30 42 47 / 50%);
}
</style>
