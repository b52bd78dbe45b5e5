<script setup lang="ts">
// What a stroke changed, shown once when its new edge is there.

import { computed, onScopeDispose, ref, watch } from 'vue'

import { pictureOf } from '../../../api/drafts'
import { TAB } from '../../../composables/pictures'
import { useBench } from '../../../stores/bench'
import { useCutOut } from '../../../stores/cutOut'
import { useStage } from '../../../stores/stage'

const props = defineProps<{
  /** The picture's top left corner on the stage, in CSS pixels. */
  origin: { x: number; y: number }
}>()

const MOST_PIXELS = 1_000_000

const bench = useBench()
const cutOut = useCutOut()
const stage = useStage()
const url = ref<string | null>(null)

const placed = computed(() => ({
  left: `${props.origin.x}px`,
  top: `${props.origin.y}px`,
  width: `${stage.picture.width * stage.zoom}px`,
  height: `${stage.picture.height * stage.zoom}px`,
}))

function clear(): void {
  if (url.value) URL.revokeObjectURL(url.value)
  url.value = null
}

async function flash(): Promise<void> {
  const { width, height } = stage.picture
  const scale = Math.min(1, stage.zoom, Math.sqrt(MOST_PIXELS / width / height))
  const wish = { size_id: bench.sizeId, view: 'changed', scale, place: 'proof', channel: `${TAB}-changed`, lossless: true }
  try {
    const blob = await pictureOf(bench.draft!, wish)
    clear()
    if (blob) url.value = URL.createObjectURL(blob)
  } catch {
    clear() // the picture itself tells of what is wrong
  }
}

watch(() => cutOut.strokesDrawn, flash)
onScopeDispose(clear)
</script>

<template>
  <img v-if="url" :key="url" class="changed" :src="url" :style="placed" alt="" draggable="false" @animationend="clear" />
</template>

<style scoped>
.changed {
  position: absolute;
  max-width: none;
  opacity: 0;
  animation: flash 900ms ease-out;
  pointer-events: none;
}

@keyframes flash {
  from {
    opacity: 0.85;
  }

  to {
    opacity: 0;
  }
}
</style>
