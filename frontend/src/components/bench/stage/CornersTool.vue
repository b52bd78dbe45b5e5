<script setup lang="ts">
// Four corners that are dragged onto those of something flat.

import { computed } from 'vue'

import { followPointer } from '../../../composables/drags'
import { useStage } from '../../../stores/stage'
import StageKnob from './StageKnob.vue'

const props = defineProps<{
  /** The photo's top left corner on the stage, in CSS pixels. */
  origin: { x: number; y: number }
}>()

const NAMES = ['Top left corner', 'Top right corner', 'Bottom right corner', 'Bottom left corner']

const stage = useStage()
const shown = computed(() =>
  stage.corners.map(([x, y]) => ({
    x: props.origin.x + x * stage.picture.width * stage.zoom,
    y: props.origin.y + y * stage.picture.height * stage.zoom,
  })),
)
const outline = computed(() => `M${shown.value.map(({ x, y }) => `${x} ${y}`).join('L')}Z`)

const within = (share: number) => Math.min(1, Math.max(0, share))

function move(which: number, [x, y]: [number, number], dx: number, dy: number): void {
  const { width, height } = stage.picture
  stage.corners[which] = [within(x + dx / width), within(y + dy / height)]
}

function drag(event: PointerEvent, which: number): void {
  const start = stage.corners[which]!
  followPointer(event, {
    move: (dx, dy) => move(which, start, dx / stage.zoom, dy / stage.zoom),
    end: () => {},
  })
}
</script>

<template>
  <div class="corners">
    <svg aria-hidden="true">
      <path class="under" :d="outline" />
      <path :d="outline" />
    </svg>
    <StageKnob
      v-for="({ x, y }, which) in shown"
      :key="which"
      form="dot"
      :label="`${NAMES[which]} of what is flat; the arrow keys move it`"
      :style="{ left: `${x}px`, top: `${y}px` }"
      @drag="(event) => drag(event, which)"
      @nudge="(dx, dy) => move(which, stage.corners[which]!, dx, dy)"
    />
  </div>
</template>

<style scoped>
.corners {
  position: absolute;
  inset: 0;
  z-index: 3;
}

svg {
  position: absolute;
  width: 100%;
  height: 100%;
  pointer-events: none;
}

path {
  fill: rgb(255 255 255 / 10%);
  stroke: #ffffff;
  stroke-width: 1.5;
}

path.under {
  fill: none;
  stroke: rgb(30 42 47 / 70%);
  stroke-width: 4;
}
</style>
