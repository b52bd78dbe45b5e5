<script setup lang="ts">
import { ref } from 'vue'

import { followPointer } from '../../../composables/drags'
import { useBench } from '../../../stores/bench'
import { useStage } from '../../../stores/stage'

const bench = useBench()
const stage = useStage()
/** The line on its way, in CSS pixels of the stage. */
const line = ref<{ x0: number; y0: number; x1: number; y1: number } | null>(null)

/** Only the line's slope counts, so CSS pixels do as well as photo pixels. */
function draw(event: PointerEvent): void {
  if (event.button !== 0) return
  const frame = (event.currentTarget as Element).getBoundingClientRect()
  const x0 = event.clientX - frame.left
  const y0 = event.clientY - frame.top
  line.value = null
  followPointer(event, {
    move: (dx, dy) => (line.value = { x0, y0, x1: x0 + dx, y1: y0 + dy }),
    end: () => {
      const drawn = line.value
      line.value = null
      if (!drawn) return
      stage.tool = null
      void bench.edit({ kind: 'level_line', ...drawn, only_this_size: bench.onlyThisSize })
    },
    cancel: () => (line.value = null),
  })
}
</script>

<template>
  <div class="level" @pointerdown="draw">
    <svg v-if="line" aria-hidden="true">
      <line class="under" :x1="line.x0" :y1="line.y0" :x2="line.x1" :y2="line.y1" />
      <line :x1="line.x0" :y1="line.y0" :x2="line.x1" :y2="line.y1" />
    </svg>
    <p v-else>Draw along something that should be level or upright</p>
  </div>
</template>

<style scoped>
.level {
  position: absolute;
  inset: 0;
  z-index: 3;
  cursor: crosshair;
}

svg {
  width: 100%;
  height: 100%;
}

line {
  stroke: #ffffff;
  stroke-width: 1.5;
}

line.under {
  stroke: rgb(30 42 47 / 70%);
  stroke-width: 4;
}

p {
  position: absolute;
  top: 10px;
  left: 50%;
  padding: 3px 10px;
  transform: translateX(-50%);
  border-radius: 4px;
  background: #333331;
  color: #f4f3ee;
  white-space: nowrap;
}
</style>
