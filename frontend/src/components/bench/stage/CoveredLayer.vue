<script setup lang="ts">
// The zones of the size that something lies over where it is shown: darkened, and dragged while they are set.

import { computed } from 'vue'

import type { Edit } from '../../../api/types'
import { useEditDrags } from '../../../composables/editDrags'
import { useOutputSpace } from '../../../composables/outputSpace'
import { useBench } from '../../../stores/bench'
import { useStage } from '../../../stores/stage'
import StageKnob from './StageKnob.vue'

type Grip = 'move' | 'corner'

const props = defineProps<{
  /** The picture's top left corner on the stage, in CSS pixels. */
  origin: { x: number; y: number }
}>()

const GRIPS: { grip: Grip; label: string }[] = [
  { grip: 'move', label: 'the arrow keys move it' },
  { grip: 'corner', label: 'its corner; the arrow keys make it larger' },
]

const bench = useBench()
const stage = useStage()
const { placed, transform, at } = useOutputSpace(() => props.origin)
const { follow } = useEditDrags()

const zones = computed(() => bench.shownLayout!.covered)
const isSet = computed(() => stage.setsCovered && !stage.tool)

function edit(number: number, grip: Grip, dx: number, dy: number): Edit {
  return { kind: 'drag_covered', number, grip, dx, dy }
}

function drag(event: PointerEvent, number: number, grip: Grip): void {
  const { scale } = placed.value
  follow(event, (dx, dy) => edit(number, grip, dx / scale, dy / scale))
}
</script>

<template>
  <svg aria-hidden="true">
    <g :transform="transform">
      <template v-for="({ box, round }, number) in zones" :key="number">
        <ellipse
          v-if="round"
          :cx="box.left + box.width / 2"
          :cy="box.top + box.height / 2"
          :rx="box.width / 2"
          :ry="box.height / 2"
        />
        <rect v-else :x="box.left" :y="box.top" :width="box.width" :height="box.height" />
      </template>
    </g>
  </svg>
  <template v-for="({ name, box }, number) in zones" :key="number">
    <span class="name" :style="at(box.left, box.top)">{{ name }}</span>
    <template v-if="isSet">
      <StageKnob
        v-for="{ grip, label } in GRIPS"
        :key="grip"
        form="dot"
        :style="grip === 'move' ? at(box.left + box.width / 2, box.top + box.height / 2) : at(box.left + box.width, box.top + box.height)"
        :label="`Covered by the ${name}; ${label}`"
        @drag="(event) => drag(event, number, grip)"
        @nudge="(dx, dy) => bench.edit(edit(number, grip, dx, dy), 'after a pause')"
      />
    </template>
  </template>
</template>

<style scoped>
svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}

rect,
ellipse {
  fill: rgb(30 42 47 / 38%);
  stroke: #ffffff;
  stroke-width: 1;
  stroke-dasharray: 3 3;
  vector-effect: non-scaling-stroke;
}

.name {
  position: absolute;
  padding: 1px 6px;
  background: #333331;
  color: #f4f3ee;
  font-size: 11px;
  pointer-events: none;
}
</style>
