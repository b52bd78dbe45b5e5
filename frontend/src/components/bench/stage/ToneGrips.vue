<script setup lang="ts">
// The wash, area, treatment or lift that is worked on, as it lies over the picture.

import { computed } from 'vue'

import type { Edit, ToneGrip, ToneShape } from '../../../api/types'
import { useEditDrags } from '../../../composables/editDrags'
import { useOutputSpace } from '../../../composables/outputSpace'
import { useBench } from '../../../stores/bench'
import { useStage } from '../../../stores/stage'
import StageKnob from './StageKnob.vue'

const props = defineProps<{
  /** The picture's top left corner on the stage, in CSS pixels. */
  origin: { x: number; y: number }
}>()

const NAMES: Record<ToneGrip, string> = {
  start: 'Start',
  middle: 'Middle',
  end: 'End',
  right: 'Radius and angle',
  below: 'Other radius',
}

const bench = useBench()
const stage = useStage()
const { placed, transform, at } = useOutputSpace(() => props.origin)
const { follow } = useEditDrags()

const shapes = computed(() =>
  bench.shownLayout!.tone_shapes.filter(({ place, number }) => {
    const part = place === 'zone' ? 'treatment' : place
    return part === stage.partKind && number === stage.partNumber[part]
  }),
)

function edit({ place, number, mask }: ToneShape, grip: ToneGrip, dx: number, dy: number): Edit {
  const way = { number, grip, dx, dy, only_this_size: bench.onlyThisSize }
  switch (place) {
    case 'wash':
      return { kind: 'drag_wash', ...way }
    case 'zone':
      return { kind: 'drag_zone', ...way }
    case 'lift':
      return { kind: 'drag_lift', ...way }
    default:
      return { kind: 'drag_mask', place, mask, ...way }
  }
}

function drag(event: PointerEvent, shape: ToneShape, grip: ToneGrip): void {
  const { scale } = placed.value
  follow(event, (dx, dy) => edit(shape, grip, dx / scale, dy / scale))
}
</script>

<template>
  <svg aria-hidden="true">
    <g :transform="transform">
      <template v-for="shape in shapes" :key="`${shape.place}-${shape.mask}`">
        <path class="dark" :d="shape.path" />
        <path class="light" :d="shape.path" />
      </template>
    </g>
  </svg>
  <template v-for="shape in shapes" :key="`${shape.place}-${shape.mask}`">
    <StageKnob
      v-for="{ grip, x, y } in shape.grips"
      :key="grip"
      form="dot"
      :class="{ small: grip === 'middle' }"
      :style="at(x, y)"
      :label="`${NAMES[grip]} of the ${shape.place === 'zone' ? 'sharp zone' : shape.place}; the arrow keys move it`"
      @drag="(event) => drag(event, shape, grip)"
      @nudge="(dx, dy) => bench.edit(edit(shape, grip, dx, dy), 'after a pause')"
    />
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

path {
  fill: none;
  vector-effect: non-scaling-stroke;
}

.dark {
  stroke: rgb(30 42 47 / 70%);
  stroke-width: 3;
}

.light {
  stroke: #ffffff;
  stroke-width: 1.2;
}

.small::before {
  inset: 9px;
}
</style>
