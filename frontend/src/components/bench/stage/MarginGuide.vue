<script setup lang="ts">
import { computed } from 'vue'

import { useEditDrags } from '../../../composables/editDrags'
import { useOutputSpace } from '../../../composables/outputSpace'
import { useBench } from '../../../stores/bench'
import { useStage } from '../../../stores/stage'
import GripTag from './GripTag.vue'
import StageKnob from './StageKnob.vue'

const props = defineProps<{
  /** The picture's top left corner on the stage, in CSS pixels. */
  origin: { x: number; y: number }
}>()

const bench = useBench()
const stage = useStage()
const { placed, transform, at } = useOutputSpace(() => props.origin)
const { follow } = useEditDrags()

const layout = computed(() => bench.shownLayout!)
const short = computed(() => Math.min(layout.value.width, layout.value.height))
/** The margin is set while framing; with other steps open its guide is only looked at. */
const isSet = computed(() => bench.openStep === null || bench.openStep === 'crop')
/** The grip lies on the guide below the middle of the shape's top. */
const gripAt = computed(() => {
  const { shape_box: box, margin, margin_start } = layout.value
  return at(box.left + box.width / 2, box.top + margin_start + margin)
})

function drag(event: PointerEvent): void {
  follow(event, (_, dy) => ({ kind: 'drag_margin', by: dy / placed.value.scale }))
}

function nudge(dx: number, dy: number): void {
  void bench.edit({ kind: 'drag_margin', by: dx + dy }, 'after a pause')
}
</script>

<template>
  <svg aria-hidden="true">
    <g :transform="transform">
      <path class="under" :d="layout.margin_outline" />
      <path class="over" :d="layout.margin_outline" />
    </g>
  </svg>
  <template v-if="isSet && !stage.before && !stage.tool">
    <StageKnob
      form="bar"
      :style="gripAt"
      label="Margin; the arrow keys change it"
      @drag="drag"
      @nudge="nudge"
    />
    <GripTag
      side="s"
      quiet
      :style="gripAt"
      label="Margin, output pixels"
      :value="layout.margin"
      @change="(px) => bench.edit({ kind: 'set_margin', margin: Math.max(0, px) / short })"
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
  stroke-width: 1;
  vector-effect: non-scaling-stroke;
}

.under {
  stroke: rgb(30 42 47 / 55%);
}

.over {
  stroke: rgb(255 255 255 / 85%);
  stroke-dasharray: 5 4;
}
</style>
