<script setup lang="ts">
// Before on the left and after on the right of a line that can be moved.

import { computed, watch } from 'vue'

import { followPointer } from '../../../composables/drags'
import { arrowWay } from '../../../composables/keyNames'
import { usePictures, type PictureWish } from '../../../composables/pictures'
import { useBench } from '../../../stores/bench'
import { useStage } from '../../../stores/stage'

const props = defineProps<{
  /** The picture's top left corner on the stage, in CSS pixels. */
  origin: { x: number; y: number }
}>()

const bench = useBench()
const stage = useStage()
const { shown, ask } = usePictures<PictureWish>('before')

const size = computed(() => ({
  width: stage.picture.width * stage.zoom,
  height: stage.picture.height * stage.zoom,
}))
const scale = computed(() => Math.min(1, stage.zoom * window.devicePixelRatio))

watch(
  () => [bench.draft?.draft, bench.sizeId, scale.value],
  () => {
    const { draft, sizeId: size_id } = bench
    if (!draft) return
    ask({ draft, size_id, edit: null, view: 'before', scale: scale.value, region: null, place: 'stage' })
  },
  { immediate: true },
)

const placed = computed(() => ({
  left: `${props.origin.x}px`,
  top: `${props.origin.y}px`,
  width: `${size.value.width}px`,
  height: `${size.value.height}px`,
  clipPath: `inset(0 ${100 - 100 * stage.splitAt}% 0 0)`,
}))
const line = computed(() => ({
  left: `${props.origin.x + size.value.width * stage.splitAt}px`,
  top: `${props.origin.y}px`,
  height: `${size.value.height}px`,
}))

function drag(event: PointerEvent): void {
  const from = stage.splitAt
  followPointer(event, {
    move: (dx) => (stage.splitAt = Math.min(1, Math.max(0, from + dx / size.value.width))),
    end: () => {},
  })
}

function nudge(event: KeyboardEvent): void {
  const way = arrowWay(event)
  if (!way) return
  event.preventDefault()
  event.stopPropagation()
  stage.splitAt = Math.min(1, Math.max(0, stage.splitAt + way[0] / 100))
}
</script>

<template>
  <img v-if="shown" class="before" :src="shown.url" :style="placed" alt="Before" draggable="false" />
  <button
    type="button"
    class="line grip-target"
    :style="line"
    aria-label="Line between before and after; the arrow keys move it"
    @pointerdown.stop="drag"
    @keydown="nudge"
  >
    <span>before</span><span>after</span>
  </button>
</template>

<style scoped>
.before {
  position: absolute;
  max-width: none;
  pointer-events: none;
}

.line {
  position: absolute;
  width: 24px;
  padding: 0;
  transform: translateX(-50%);
  border: 0;
  background: linear-gradient(#ffffff, #ffffff) center / 2px 100% no-repeat;
  filter: drop-shadow(0 0 1.5px rgb(30 42 47 / 90%));
  cursor: ew-resize;
  touch-action: none;
}

.line span {
  position: absolute;
  bottom: 10px;
  padding: 2px 6px;
  border-radius: 3px;
  background: #333331;
  color: #f4f3ee;
  font-size: 11px;
}

.line span:first-child {
  right: 18px;
}

.line span:last-child {
  left: 18px;
}
</style>
