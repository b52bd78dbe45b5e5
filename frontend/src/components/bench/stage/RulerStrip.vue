<script setup lang="ts">
import { computed } from 'vue'

const props = defineProps<{
  /** CSS pixels. */
  length: number
  /** Where 0 is, in CSS pixels. */
  origin: number
  /** CSS pixels for each counted pixel. */
  zoom: number
  /** Where the pointer is, in CSS pixels. */
  at: number | null
  upright?: boolean
}>()

const NUMBER_ROOM = 64
const DIVISIONS = 10
const DIVISION_ROOM = 5

/** The smallest of 1, 2 or 5 times a power of ten whose numbers do not crowd. */
const step = computed(() => {
  const least = NUMBER_ROOM / props.zoom
  const power = 10 ** Math.floor(Math.log10(least))
  const found = [1, 2, 5, 10].find((times) => times * power >= least) ?? 10
  return Math.max(1, found * power)
})

/** What a number takes, in CSS pixels, so that none is cut at the end. */
const LABEL_ROOM = 36

const numbers = computed(() => {
  const first = Math.ceil(-props.origin / props.zoom / step.value)
  const last = Math.floor((props.length - props.origin) / props.zoom / step.value)
  const count = Math.min(200, Math.max(0, last - first + 1))
  return Array.from({ length: count }, (_, index) => {
    const value = (first + index) * step.value
    return { value, place: props.origin + value * props.zoom }
  }).filter(({ place }) => place >= 0 && place < props.length - LABEL_ROOM)
})

const ticks = computed(() => {
  const divided = step.value / DIVISIONS
  const size = divided * props.zoom >= DIVISION_ROOM ? divided : step.value / 2
  const gap = size * props.zoom
  const offset = ((props.origin % gap) + gap) % gap
  return { backgroundSize: props.upright ? `6px ${gap}px` : `${gap}px 6px`, offset: `${offset}px` }
})
</script>

<template>
  <div class="ruler" :class="{ upright }" aria-hidden="true">
    <i
      class="ticks"
      :style="{
        backgroundSize: ticks.backgroundSize,
        backgroundPosition: upright ? `0 ${ticks.offset}` : `${ticks.offset} 0`,
      }"
    ></i>
    <span
      v-for="{ value, place } in numbers"
      :key="value"
      :style="upright ? { top: `${place}px` } : { left: `${place}px` }"
    >
      {{ value }}
    </span>
    <b v-if="at !== null" :style="upright ? { top: `${at}px` } : { left: `${at}px` }"></b>
  </div>
</template>

<style scoped>
.ruler {
  position: relative;
  overflow: hidden;
  background: #5a5a58;
  color: #ffffff;
  font-size: 11px;
}

.ticks {
  position: absolute;
  inset: auto 0 0;
  height: 5px;
  background-image: linear-gradient(90deg, #c9c9c5 1px, transparent 1px);
}

.upright .ticks {
  inset: 0 0 0 auto;
  width: 5px;
  height: auto;
  background-image: linear-gradient(180deg, #c9c9c5 1px, transparent 1px);
}

span {
  position: absolute;
  top: 0;
  padding-left: 3px;
  line-height: 14px;
}

.upright span {
  left: 0;
  padding: 3px 0 0;
  writing-mode: vertical-rl;
  transform: rotate(180deg);
  transform-origin: 7px 0;
}

b {
  position: absolute;
  inset: 0 auto 0 0;
  width: 1px;
  background: var(--honey);
}

.upright b {
  inset: 0 0 auto;
  width: auto;
  height: 1px;
}
</style>
