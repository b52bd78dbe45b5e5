<script setup lang="ts">
// What is under the pointer, larger, beside it.

import { computed } from 'vue'

const props = defineProps<{
  /** The picture and where it lies on the stage, as CSS. */
  url: string
  placed: { left?: string; top?: string; width?: string; height?: string }
  /** The pointer on the stage, in CSS pixels. */
  at: { x: number; y: number }
}>()

const LARGER = 4
const SIDE = 132
const AWAY = 34

const pixels = (length: string | undefined) => parseFloat(length ?? '0')
/** Above the pointer and to its right, or below where there is no room. */
const style = computed(() => {
  const { x, y } = props.at
  const middle = SIDE / 2
  return {
    left: `${x + AWAY}px`,
    top: `${y > SIDE + AWAY ? y - SIDE - AWAY : y + AWAY}px`,
    width: `${SIDE}px`,
    height: `${SIDE}px`,
    backgroundImage: `url(${props.url})`,
    backgroundSize: `${LARGER * pixels(props.placed.width)}px ${LARGER * pixels(props.placed.height)}px`,
    backgroundPosition: [x - pixels(props.placed.left), y - pixels(props.placed.top)]
      .map((way) => `${middle - LARGER * way}px`)
      .join(' '),
  }
})
</script>

<template>
  <div class="lens" aria-hidden="true" :style="style"></div>
</template>

<style scoped>
.lens {
  position: absolute;
  z-index: 3;
  border: 2px solid #f5f1e8;
  border-radius: 50%;
  background-color: #8b8b89;
  background-repeat: no-repeat;
  box-shadow: 0 2px 10px rgb(0 0 0 / 40%);
  image-rendering: pixelated;
  pointer-events: none;
}

.lens::after {
  content: '';
  position: absolute;
  inset: 50% auto auto 50%;
  width: 5px;
  height: 5px;
  transform: translate(-50%, -50%);
  border: 1px solid #ffffff;
  border-radius: 50%;
  box-shadow: 0 0 0 1px #1e2a2f;
}
</style>
