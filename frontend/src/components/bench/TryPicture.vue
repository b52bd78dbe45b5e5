<script setup lang="ts">
// What an edit would make of this photo, as a small picture to choose.

import type { Edit } from '../../api/types'
import { lookingAt } from '../../composables/lookingAt'
import { usePictures, type PictureWish } from '../../composables/pictures'
import { whenStageRests } from '../../composables/stageRest'
import { useBench } from '../../stores/bench'

const props = withDefaults(
  defineProps<{
    name: string
    /** Tells apart the pictures that are shown at a time. */
    channel: string
    edit: Edit
    isOn: boolean
    /** Height of the picture, in CSS pixels. */
    height?: number
    /** Show all of the picture, edges and all. */
    whole?: boolean
    /** Show only its upper left corner, of so many output pixels. */
    corner?: number
    /** Show only its middle, of so many output pixels. */
    middle?: number
  }>(),
  { height: 46, whole: false, corner: undefined, middle: undefined },
)
const emit = defineEmits<{ choose: []; hover: [on: boolean] }>()

/** Small pictures wait for the proofs too. */
const IDLE_MS = 350
/** Drawn a little larger than shown, since the frame cuts off what does not fit. */
const ROOM = 1.4

const bench = useBench()
const { shown, ask } = usePictures<PictureWish>(props.channel)

whenStageRests(
  () => null,
  (draft) => {
    const { width, height } = bench.layout!
    const shownPart = Math.min(props.corner ?? props.middle ?? Infinity, width, height)
    const scale = Math.min(1, (ROOM * props.height * window.devicePixelRatio) / shownPart)
    const side = Math.max(1, Math.floor(shownPart * scale))
    const [left, top] = props.corner ? [0, 0] : [width, height].map((whole) => Math.floor((whole * scale - side) / 2))
    ask({
      draft,
      size_id: bench.sizeId,
      edit: props.edit,
      view: 'final',
      scale,
      region: props.corner || props.middle ? [Math.max(0, left!), Math.max(0, top!), side, side] : null,
      place: 'proof',
      rough: true,
    })
  },
  IDLE_MS,
)
</script>

<template>
  <button
    type="button"
    role="radio"
    :class="{ on: isOn }"
    :aria-checked="isOn"
    @click="emit('choose')"
    v-on="lookingAt((on) => emit('hover', on))"
  >
    <span class="picture" :style="{ height: `${height}px` }"><img v-if="shown" :class="{ whole }" :src="shown.url" alt="" /></span>
    {{ name }}
  </button>
</template>

<style scoped>
button {
  min-width: 0;
  padding: 2px 2px 3px;
  border: 1px solid var(--edge);
  border-radius: 4px;
  background: #ffffff;
  font-size: 11px;
  white-space: nowrap;
}

button:hover {
  border-color: var(--ink);
}

button.on {
  border-color: var(--clover);
  box-shadow: inset 0 0 0 1px var(--clover);
  background: var(--clover-pale);
  font-weight: 600;
}

.picture {
  display: block;
  margin-bottom: 2px;
  border-radius: 2px;
  background: var(--paper-deep);
  overflow: hidden;
}

img {
  display: block;
  width: 100%;
  height: 100%;
  object-fit: cover;
}

img.whole {
  object-fit: contain;
}
</style>
