<script setup lang="ts">
import { watchDebounced } from '@vueuse/core'

import type { Edit } from '../../../api/types'
import { useIdle } from '../../../composables/idle'
import { usePictures, type PictureWish } from '../../../composables/pictures'
import { useBench } from '../../../stores/bench'

const props = defineProps<{ name: string; edit: Edit; isOn: boolean }>()
const emit = defineEmits<{ choose: []; hover: [on: boolean] }>()

/** Small pictures wait until the stage and the proofs are done. */
const IDLE_MS = 350
const SIDE = 64

const bench = useBench()
const { shown, ask } = usePictures<PictureWish>(`look-${props.name}`)

watchDebounced(
  () => bench.stageDrawn,
  () => {
    if (!bench.document || bench.dragging) return
    const { width, height } = bench.layout!
    ask({
      document: bench.document,
      size_id: bench.sizeId,
      edit: props.edit,
      view: 'final',
      scale: Math.min(1, (SIDE * window.devicePixelRatio) / Math.min(width, height)),
      region: null,
      place: 'proof',
      rough: true,
    })
  },
  { debounce: useIdle(IDLE_MS), immediate: true },
)
</script>

<template>
  <button
    type="button"
    :class="{ on: isOn }"
    :aria-pressed="isOn"
    @click="emit('choose')"
    @pointerenter="emit('hover', true)"
    @pointerleave="emit('hover', false)"
    @focus="emit('hover', true)"
    @blur="emit('hover', false)"
  >
    <span class="picture"><img v-if="shown" :src="shown.url" alt="" /></span>
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
  height: 46px;
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
</style>
